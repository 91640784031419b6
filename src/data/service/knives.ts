import * as z from "zod";
import { dueDay, type Season } from "@/core/fleet/reliability";
import { meterAt } from "@/core/job/staleness";
import { unitSheetOf, unitsAcross } from "@/core/machine";
import { type Ground, type KnifeLife, knifeLife, type ReelStanding, type ReelTally, reelStanding } from "@/core/physics/reel";
import { meterReadings } from "@/data/machine/hours";
import { getMachine, type MachineRecord } from "@/data/machine/machines";
import { STEP_DATA } from "@/data/record/step-data";
import { takesOfCheck } from "@/data/record/takes-read";
import type { Db } from "@/data/store/db";
import { ofMachine, whileUnchanged } from "@/data/store/reads";
import { paceOfMachine, seasonOf } from "./season";

/** `orderAt`: the day the next knife is to be ordered, by the one forecast of the meter; `fittedSeq`: where in the log the knife came, 0 with the machine. */
export type UnitKnife = { unit: string; life: KnifeLife; fittedSeq: number; lastAt?: string; orderAt?: string; reel?: ReelStanding };

type Row = { data_json: string; at: string; seq: number };

/** The fix by which a unit gets another knife: what was ground off the old one counts no more. */
const NEW_KNIFE = "replace-bedknife";

const coneReadSchema = z.object({
  units: z.record(z.string(), z.object({ leftMetres: z.number(), middleMetres: z.number(), rightMetres: z.number() }).partial()),
});

/** Newest first, the diameters of a reel as it was measured, and when in the log. */
function measuredReel(takes: ReturnType<typeof takesOfCheck>, unit: string) {
  for (const { input, seq } of [...takes].sort((a, b) => b.seq - a.seq)) {
    const read = coneReadSchema.safeParse(input).data?.units[unit];
    const sizes = Object.values(read ?? {});
    if (sizes.length > 0) return { seq, smallestMetres: Math.min(...sizes), largestMetres: Math.max(...sizes) };
  }
  return undefined;
}

type Fix = ReturnType<typeof STEP_DATA.fix.parse> & { at: string; seq: number };
type Of = Pick<MachineRecord, "id" | "machine">;

/** Fixes that say anything of a knife or a reel, in the order of the log; undone ones say nothing. */
function grindsOf(db: Db, machineId: string): Fix[] {
  return whileUnchanged(db, `grinds of ${machineId}`, () => readGrinds(db, machineId), { on: ofMachine(machineId, "log") });
}

function readGrinds(db: Db, machineId: string): Fix[] {
  const rows = db
    .prepare(
      `SELECT s.data_json, s.at, s.seq FROM steps s JOIN jobs j ON j.id = s.job_id WHERE j.machine_id = ? AND s.kind = 'fix'
         AND (json_extract(s.data_json, '$.ground') IS NOT NULL OR json_extract(s.data_json, '$.fix') = '${NEW_KNIFE}')
         AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = s.id) ORDER BY s.seq`,
    )
    .all(machineId) as Row[];
  return rows.map(({ data_json, at, seq }) => ({ ...STEP_DATA.fix.parse(JSON.parse(data_json)), at, seq }));
}

const ofUnit = (fixes: readonly Fix[], unit: string): Fix[] =>
  fixes.filter(({ units }) => units === undefined || units.length === 0 || units.includes(unit));

/** The bedknife of every unit: ground so often since it was fitted, so much off, so many grinds left, and when to order the next. */
export function knifeLivesOf(db: Db, { id: machineId, machine }: Of, now: string): Omit<UnitKnife, "reel">[] {
  if (machine.units.length === 0) return [];
  const season = seasonOf(db, now);
  const key = `knives of ${machineId} ${now.slice(0, 13)} ${season.join(" ")}`;
  return whileUnchanged(db, key, () => readLives(db, { id: machineId, machine }, now, season), {
    on: ofMachine(machineId, "log", "sheet", "hours"),
  });
}

function readLives(db: Db, { id: machineId, machine }: Of, now: string, season: Season): Omit<UnitKnife, "reel">[] {
  const fixes = grindsOf(db, machineId);
  const meter = meterReadings(db, machineId);
  const use = paceOfMachine(db, machineId, now, season);
  return unitsAcross(machine).map(({ id }) => {
    const own = ofUnit(fixes, id);
    const fitted = own.map(({ fix }) => fix === NEW_KNIFE).lastIndexOf(true);
    const since = own.slice(fitted + 1).filter((fix): fix is Fix & { ground: Ground } => isKnifeGround(fix.ground));
    const last = since.at(-1);
    // The edge is as old as the last grind, or the knife.
    const edgeAt = last?.at ?? own[fitted]?.at;
    const [then, today] = [edgeAt === undefined ? undefined : meterAt(meter, edgeAt), meterAt(meter, now)];
    const life = knifeLife(
      unitSheetOf(machine, id).bedknife,
      since.map(({ ground }) => ground),
      then === undefined || today === undefined ? 0 : Math.max(0, today - then),
    );
    const orderAt = life.left && dueDay(use, life.left.orderInHours, now).on;
    return {
      unit: id,
      life,
      fittedSeq: own[fitted]?.seq ?? 0,
      ...(last ? { lastAt: last.at } : {}),
      ...(orderAt === undefined ? {} : { orderAt }),
    };
  });
}

/**
 * Bedknife and reel of every unit as the log has them: the knife as `knifeLivesOf`; the reel by its last measured diameter and what was spun off since.
 * Undone fixes count nothing.
 */
export function knivesOf(db: Db, machineId: string, now: string): UnitKnife[] {
  const record = getMachine(db, machineId);
  const { machine } = record;
  if (machine.units.length === 0) return [];
  const [fixes, takes] = [grindsOf(db, machineId), takesOfCheck(db, machineId, "reel-cone")];
  return knifeLivesOf(db, record, now).map((knife) => {
    const spun = ofUnit(fixes, knife.unit).flatMap(({ ground, seq }) => (ground?.reel ? [{ tally: ground.reel as ReelTally, seq }] : []));
    const measured = measuredReel(takes, knife.unit);
    const reel = reelStanding({
      reel: unitSheetOf(machine, knife.unit).reel,
      measured,
      tallies: spun.map(({ tally }) => tally),
      since: spun.filter(({ seq }) => seq > (measured?.seq ?? 0)).map(({ tally }) => tally),
    });
    return { ...knife, ...(reel ? { reel } : {}) };
  });
}

/** A reel spun by itself leaves its knife as it was. */
const isKnifeGround = (ground: { top: { inFeeds: number }; front: { inFeeds: number } } | undefined): boolean =>
  ground !== undefined && ground.top.inFeeds + ground.front.inFeeds > 0;
