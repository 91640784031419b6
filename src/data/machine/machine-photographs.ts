import * as z from "zod";
import { once } from "@/data/projections/context";
import { audit, type Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { dataUrlSchema, type Picture, requireRoom } from "@/data/store/pictures";
import { getMachine } from "./machines";

export const PHOTOGRAPHED = ["belt-path", "timing", "washer-stack", "damage", "turf", "lifting", "isolation"] as const;

export const newMachinePhotographSchema = z.object({ about: z.enum(PHOTOGRAPHED), dataUrl: dataUrlSchema });

export type MachinePhotograph = { id: number; about: (typeof PHOTOGRAPHED)[number]; who: string; at: string };

const STANDS = "NOT EXISTS (SELECT 1 FROM machine_photographs_taken_back b WHERE b.photograph_id = p.id)";

/** What is kept of a machine as it is when it is right; the newest of each first. */
export function machinePhotographs(db: Db, machineId: string): MachinePhotograph[] {
  return db
    .prepare(`SELECT id, about, who, at FROM machine_photographs p WHERE machine_id = ? AND ${STANDS} ORDER BY id DESC`)
    .all(machineId) as MachinePhotograph[];
}

export function addMachinePhotograph(
  db: Db,
  doing: Doing,
  args: { machineId: string; about: MachinePhotograph["about"]; picture: Picture },
): { photographId: number } {
  return once(db, doing, "machine-photographed", () => {
    getMachine(db, args.machineId);
    const { mime, bytes } = args.picture;
    requireRoom(db, { of: "machine", id: args.machineId, bytes: bytes.length });
    const { lastInsertRowid } = db
      .prepare("INSERT INTO machine_photographs (machine_id, about, mime, bytes, who, at) VALUES (?, ?, ?, ?, ?, ?)")
      .run(args.machineId, args.about, mime, bytes, doing.who, doing.now);
    audit(db, doing, { action: "machine-photographed", subject: `machine:${args.machineId}`, detail: { about: args.about } });
    return { photographId: Number(lastInsertRowid) };
  });
}

/** Takes a photograph out of sight; the row stays, with who took it back. Throws `nothing-to-undo`. */
export function takeBackMachinePhotograph(
  db: Db,
  doing: Doing,
  args: { machineId: string; photographId: number },
): { photographId: number } {
  return once(db, doing, "machine-photograph-taken-back", () => {
    if (!machinePhotographs(db, args.machineId).some(({ id }) => id === args.photographId)) throw new AppError("nothing-to-undo");
    db.prepare("INSERT INTO machine_photographs_taken_back (photograph_id, who, at) VALUES (?, ?, ?)").run(
      args.photographId,
      doing.who,
      doing.now,
    );
    audit(db, doing, {
      action: "machine-photograph-taken-back",
      subject: `machine:${args.machineId}`,
      detail: { photographId: args.photographId },
    });
    return { photographId: args.photographId };
  });
}

/** Throws `photograph-not-found`, also for one of another machine and one that was taken back. */
export function machinePhotographOf(db: Db, machineId: string, id: number): { mime: string; bytes: Buffer } {
  const row = db
    .prepare(`SELECT mime, bytes FROM machine_photographs p WHERE id = ? AND machine_id = ? AND ${STANDS}`)
    .get(id, machineId) as { mime: string; bytes: Buffer } | undefined;
  if (!row) throw new AppError("photograph-not-found");
  return row;
}
