import * as z from "zod";
import type { CheckId } from "@/core/catalogue";
import {
  type Assessment,
  type BeltReadings,
  type Check,
  type CleanlinessReadings,
  type EdgeReadings,
  type HeightReadings,
  heightReadingsSchema,
  LOOK_PLACE,
  type PlayReadings,
  type Want,
  worksheetsFor,
} from "@/core/checks";
import { type DeckContext, deckContext, type TakeRecord } from "@/core/job/jobs";
import { staleReasons, staleReasonsAt } from "@/core/job/staleness";
import { machinePhotographs } from "@/data/machine/machine-photographs";
import { getMachine, machinesAt } from "@/data/machine/machines";
import { listEvents } from "@/data/record/events-read";
import { getJobRow } from "@/data/record/steps";
import { STANDING_TAKES, takesOfJob, takesOfMachine } from "@/data/record/takes-read";
import { greaseDue } from "@/data/service/due";
import type { Db } from "@/data/store/db";
import { atOnce, ofMachine, whileUnchanged } from "@/data/store/reads";

/** What the record itself brings to a check's readings, by check; nobody types it. */
export type CheckContexts = Partial<Record<CheckId, object>>;

type Visits = Pick<HeightReadings, "visits" | "unitVisits" | "rakeMetres">;
type SitePacks = Pick<CleanlinessReadings, "site">;

/** Places a reading told in full and found right. */
export function soundPlacesOf({ told, findings }: Pick<Assessment, "told" | "findings">): string[] {
  return told.filter((place) => {
    const own = findings.filter((finding) => finding.place === place);
    return own.length > 0 && own.every(({ verdict }) => verdict === "in-tolerance");
  });
}

export function takeRecord(take: ReturnType<typeof takesOfJob>[number]): TakeRecord {
  return {
    id: take.stepId,
    check: take.checkId,
    seq: take.seq,
    verdict: take.verdict,
    isProvisional: take.result.provisional.length > 0,
    figures: take.result.figures.map(({ id }) => id),
    soundPlaces: soundPlacesOf(take.result),
    doubtfulPlaces: take.result.provisional.map((reason) => (reason as { place?: string }).place),
    badPlaces: take.result.findings.flatMap(({ place, verdict }) => (verdict === "out" || verdict === "stop" ? [place] : [])),
  };
}

/** What a level in this job stands on, as the record has it now. A provisional, undone or corrected level is no last good one. */
function levelContext(db: Db, jobId: number): DeckContext {
  const { machineId } = getJobRow(db, jobId);
  const { machine } = getMachine(db, machineId);
  const machineTakes = takesOfMachine(db, machineId).map(takeRecord);
  const good = machineTakes.filter(
    ({ check, verdict, isProvisional }) => check === "deck-level" && verdict === "in-tolerance" && !isProvisional,
  );
  return deckContext({
    machine,
    takes: takesOfJob(db, jobId).map(takeRecord),
    machineTakes,
    events: listEvents(db, machineId),
    lastGoodLevelSeq: Math.max(0, ...good.map(({ seq }) => seq)),
  });
}

const DAY = 86_400_000;

/** Of visits that are remembered: what one of them was. */
type VisitRow = {
  job_id: number;
  at: string;
  seq: number;
  turf: string | null;
  offset: number | null;
  spread: number | null;
  count: number | null;
  units: string | null;
};

const unitsReadSchema = z.record(
  z.string(),
  z.object({
    offsetMetres: z.number().optional(),
    stubble: z.object({ spreadMetres: z.number(), count: z.number() }).optional(),
  }),
);

/** What a unit's offset rests on: another roller under it, and it is learnt anew. */
const ROLLER_CHANGED = "roller-changed";

/**
 * Visits whose offset was measured, one a job with what was read last in it, of the machine and of each reel unit since its roller was changed; and the
 * rake the blades stand at, unless something moved them since. `jobId`: the visit in hand, which is none of the earlier ones.
 */
export function heightContext(db: Db, args: { machineId: string; now: string; jobId?: number }): Visits {
  const { machineId, now, jobId = 0 } = args;
  const rows = db
    .prepare(
      `SELECT job_id, at, seq, json_extract(input_json, '$.turf') AS turf, json_extract(result_json, '$.detail.offsetMetres') AS offset,
         json_extract(result_json, '$.detail.stubble.spreadMetres') AS spread, json_extract(result_json, '$.detail.stubble.count') AS count,
         json_extract(result_json, '$.detail.units') AS units
       FROM (${STANDING_TAKES} AND t.machine_id = ? AND t.check_id = 'cutting-height' AND t.job_id <> ?)
       WHERE offset IS NOT NULL OR units IS NOT NULL ORDER BY seq DESC LIMIT 200`,
    )
    .all(machineId, jobId) as VisitRow[];
  const events = listEvents(db, machineId);
  const { machine } = getMachine(db, machineId);
  const rollersSince = (place?: string) =>
    Math.max(
      0,
      ...events
        .filter((one) => one.event === ROLLER_CHANGED && (place === undefined || one.place === undefined || one.place === place))
        .map(({ seq }) => seq),
    );
  const lastOfJob = (visits: readonly VisitRow[]) =>
    visits.filter(({ job_id }, index) => visits.findIndex((row) => row.job_id === job_id) === index);
  const visit = (row: VisitRow, read: { offset: number; spread: number; count: number }) => {
    const made = {
      offsetMetres: read.offset,
      spreadMetres: read.spread,
      count: read.count,
      ageDays: Math.max(0, (Date.parse(now) - Date.parse(row.at)) / DAY),
      ...(row.turf === null ? {} : { turf: row.turf }),
    };
    // What a check would not take is no visit to learn from: it must not keep every later one from being saved.
    return isTaken({ visits: [made] }) ? [made] : [];
  };
  const whole = lastOfJob(rows.filter(({ offset, seq }) => offset !== null && seq > rollersSince()));
  const unitVisits = Object.fromEntries(
    machine.units.map(({ id }) => {
      const read = rows.flatMap((row) => {
        const units = unitsReadSchema.safeParse(JSON.parse(row.units ?? "{}")).data ?? {};
        const { offsetMetres, stubble } = units[id] ?? {};
        return offsetMetres === undefined || !stubble
          ? []
          : [{ row, offset: offsetMetres, spread: stubble.spreadMetres, count: stubble.count }];
      });
      const since = read.filter(({ row }) => row.seq > rollersSince(id));
      const kept = lastOfJob(since.map(({ row }) => row));
      return [id, since.flatMap((one) => (kept.includes(one.row) ? visit(one.row, one) : []))];
    }),
  );
  const level = db
    .prepare(
      `SELECT seq, json_extract(result_json, '$.detail.rake.value') AS rake FROM (${STANDING_TAKES} AND t.machine_id = ? AND t.check_id = 'deck-level')
       WHERE rake IS NOT NULL ORDER BY seq DESC LIMIT 1`,
    )
    .get(machineId) as { seq: number; rake: number } | undefined;
  const stands = level && staleReasons({ machine, check: "deck-level", takenSeq: level.seq, events }).length === 0;
  return {
    visits: whole.flatMap((row) => visit(row, { offset: row.offset ?? 0, spread: row.spread ?? 0, count: row.count ?? 0 })),
    unitVisits,
    ...(stands && isTaken({ rakeMetres: level.rake }) ? { rakeMetres: level.rake } : {}),
  };
}

/** So many looks back a site's decks tell how it is now. Estimate: a season of a dozen machines. */
const SITE_LOOKS = 200;

/** How often the decks of a machine's site were looked at lately, and found packed. */
export function siteContext(db: Db, site: string): SitePacks {
  return atOnce(db, () => {
    const looks = machinesAt(db, site)
      .flatMap((id) => packsOf(db, id))
      .sort((a, b) => b.seq - a.seq)
      .slice(0, SITE_LOOKS);
    return looks.length === 0 ? {} : { site: { looks: looks.length, packed: looks.filter(({ packed }) => packed === 1).length } };
  });
}

/** The last looks under one machine's deck, and whether each found it packed. */
function packsOf(db: Db, machineId: string): { seq: number; packed: 0 | 1 }[] {
  const read = () =>
    db
      .prepare(
        `SELECT seq, EXISTS (SELECT 1 FROM json_each(result_json, '$.evidence') e
           WHERE json_extract(e.value, '$.cause') = 'deck-packed' AND json_extract(e.value, '$.result') = 'seen') AS packed
         FROM (${STANDING_TAKES} AND t.check_id = 'deck-cleanliness' AND t.machine_id = ? ORDER BY seq DESC LIMIT ?)`,
      )
      .all(machineId, SITE_LOOKS) as { seq: number; packed: 0 | 1 }[];
  return whileUnchanged(db, `packs of ${machineId}`, read, { on: ofMachine(machineId, "log") });
}

const isTaken = (readings: object): boolean => heightReadingsSchema.safeParse(readings).success;

type For = { machineId: string; now: string; jobId?: number };

type OfUnits = { units?: Record<string, object>; standing?: Record<string, object> };

/**
 * Units that were read in full in this job, by nobody since, and not touched since: of a check that is read again they need not be. Read anew in
 * another job, or only looked at, a unit is read again here.
 */
function standingUnits(db: Db, args: { machineId: string; jobId: number; checkId: string }): { standing: Record<string, object> } {
  const { machine } = getMachine(db, args.machineId);
  const events = listEvents(db, args.machineId);
  const takes = takesOfMachine(db, args.machineId)
    .filter(({ checkId }) => checkId === args.checkId)
    .sort((a, b) => b.seq - a.seq);
  const standing = machine.units.flatMap(({ id }) => {
    const last = takes.find(
      ({ result }) => result.told.includes(id) || result.findings.some(({ place }) => place === id || place === LOOK_PLACE),
    );
    if (last?.jobId !== args.jobId || !last.result.told.includes(id)) return [];
    if (staleReasonsAt({ machine, check: last.checkId, takenSeq: last.seq, events, place: id }).length > 0) return [];
    const { units = {}, standing = {} } = last.input as OfUnits;
    const read = units[id] ?? standing[id];
    return read ? [[id, read] as const] : [];
  });
  return { standing: Object.fromEntries(standing) };
}

/** How each blade was tracked last in any job, as far as it was turned end for end and nothing was done at its place since. */
function bladeTracks(db: Db, { machineId }: For): Pick<EdgeReadings, "tracked"> {
  const { machine } = getMachine(db, machineId);
  const events = listEvents(db, machineId);
  const takes = takesOfMachine(db, machineId)
    .filter(({ checkId }) => checkId === "blade-track")
    .sort((a, b) => b.seq - a.seq);
  const tracked = machine.spindles.flatMap(({ id }) => {
    const last = takes.find(({ result }) => result.told.includes(id));
    if (!last || staleReasonsAt({ machine, check: last.checkId, takenSeq: last.seq, events, place: id }).length > 0) return [];
    const isBent = last.result.findings.some(({ place, code }) => place === id && (code === "blade-bent" || code === "both-bent"));
    return [[id, isBent ? ("bent" as const) : ("straight" as const)] as const];
  });
  return tracked.length === 0 ? {} : { tracked: Object.fromEntries(tracked) };
}

/** Whether there is a picture of the belt's path to compare with: a photograph, or the sheet's sketch. */
function beltPicture(db: Db, { machineId }: For): Pick<BeltReadings, "isPictureHeld"> {
  const isSketched = getMachine(db, machineId).machine.sheet.belt !== undefined;
  return { isPictureHeld: isSketched || machinePhotographs(db, machineId).some(({ about }) => about === "belt-path") };
}

/** What each want brings; `undefined` where it hangs on a job and there is none. */
const BRINGS: Record<Want, (db: Db, args: For & { checkId: string }) => object | undefined> = {
  "level-standing": (db, { jobId }) => (jobId === undefined ? undefined : levelContext(db, jobId)),
  "units-standing": (db, { jobId, ...args }) => (jobId === undefined ? undefined : standingUnits(db, { ...args, jobId })),
  visits: heightContext,
  "site-packs": (db, { machineId }) => siteContext(db, getMachine(db, machineId).site),
  "blade-tracks": bladeTracks,
  "belt-picture": beltPicture,
  "grease-due": (db, { machineId, now }): Pick<PlayReadings, "grease"> => ({ grease: greaseDue(db, machineId, now) }),
};

/** What lies within an hour is no older for it. */
function broughtBy(db: Db, want: Want, args: For & { checkId: string }): object | undefined {
  const { machineId, now, jobId, checkId } = args;
  // Of a whole site, or reckoned with all that is due: it is kept where it is read.
  if (want === "site-packs" || want === "grease-due") return BRINGS[want](db, args);
  return whileUnchanged(db, `${want} ${checkId} ${machineId} ${jobId ?? ""} ${now.slice(0, 13)}`, () => BRINGS[want](db, args), {
    on: ofMachine(machineId, "log", "sheet", "hours", "spindles", "photographs"),
    size: "middling",
  });
}

/** All that a machine's record brings to its worksheets; with a job, what hangs on the job too. */
export function checkContexts(db: Db, args: For): CheckContexts {
  const { machine } = getMachine(db, args.machineId);
  return Object.fromEntries(
    worksheetsFor(machine).flatMap(({ id, wants }) => {
      const brought = wants && broughtBy(db, wants, { ...args, checkId: id });
      return brought ? [[id, brought]] : [];
    }),
  );
}

/** What the record brings to one check of a job; nothing to most. */
export function contextOf(db: Db, args: { jobId: number; check: Check; now: string }): object | undefined {
  const { jobId, check, now } = args;
  return check.wants && BRINGS[check.wants](db, { machineId: getJobRow(db, jobId).machineId, now, jobId, checkId: check.id });
}
