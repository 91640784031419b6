import * as z from "zod";
import type { Db } from "./connection";
import { audit, type Doing, once } from "./context";
import { dataUrlSchema, pictureOf } from "./deck";
import { AppError } from "./errors";
import { getMachine } from "./machines";

export const PHOTOGRAPHED = ["belt-path", "timing", "washer-stack"] as const;

export const newMachinePhotographSchema = z.object({ about: z.enum(PHOTOGRAPHED), dataUrl: dataUrlSchema });

export type MachinePhotograph = { id: number; about: (typeof PHOTOGRAPHED)[number]; who: string; at: string };

/** What is kept of a machine as it is when it is right; the newest of each first. */
export function machinePhotographs(db: Db, machineId: string): MachinePhotograph[] {
  return db
    .prepare("SELECT id, about, who, at FROM machine_photographs WHERE machine_id = ? ORDER BY id DESC")
    .all(machineId) as MachinePhotograph[];
}

export function addMachinePhotograph(
  db: Db,
  doing: Doing,
  args: { machineId: string } & z.output<typeof newMachinePhotographSchema>,
): { photographId: number } {
  return once(db, doing, "machine-photographed", () => {
    getMachine(db, args.machineId);
    const { mime, bytes } = pictureOf(args.dataUrl);
    const { lastInsertRowid } = db
      .prepare("INSERT INTO machine_photographs (machine_id, about, mime, bytes, who, at) VALUES (?, ?, ?, ?, ?, ?)")
      .run(args.machineId, args.about, mime, bytes, doing.who, doing.now);
    audit(db, doing, { action: "machine-photographed", subject: `machine:${args.machineId}`, detail: { about: args.about } });
    return { photographId: Number(lastInsertRowid) };
  });
}

/** Throws `photograph-not-found`, also for one of another machine. */
export function machinePhotographOf(db: Db, machineId: string, id: number): { mime: string; bytes: Buffer } {
  const row = db.prepare("SELECT mime, bytes FROM machine_photographs WHERE id = ? AND machine_id = ?").get(id, machineId) as
    | { mime: string; bytes: Buffer }
    | undefined;
  if (!row) throw new AppError("photograph-not-found");
  return row;
}
