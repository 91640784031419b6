import type { KindId } from "@/core/catalogue/kinds";
import type { EdgeLook } from "@/core/fleet/reliability";
import { inOrderOfTime, meterIn } from "@/core/job/staleness";
import { meterReadings } from "@/data/machine/hours";
import { allNames } from "@/data/machine/machines";
import { rootOf, STANDS } from "@/data/record/takes-read";
import type { Db } from "@/data/store/db";
import { eachMachine, ofMachine, putTogether, whileUnchanged } from "@/data/store/reads";
import { sharpBySets } from "./parts";

/** Looks further back than these say little of today's grass. Estimate. */
const MOST_LOOKS = 200;

/** A sharpening as its place in the log and its hour. */
type Sharpened = [seq: number, at: string];
type Row = { step_id: number; at: string; seq: number; corrects_step_id: number | null; findings: string | null };

/** A look at edges with the hours that were on them, and its place among the steps of all machines. */
type Looked = EdgeLook & { stepId: number };

/**
 * What edges were found to be, with the hours on them since they were last sharpened or new, over the machines of a kind: dull where the take says so of
 * any blade. Sharpened in a job, as service, or by a marked set that is on all of a machine, whichever the log has last before the look. Looks before the
 * first sharpening the record knows say nothing of hours and are left out.
 */
export function edgeLooks(db: Db, kind: KindId): readonly EdgeLook[] {
  const names = allNames(db);
  const ids = putTogether(db, `machines of ${kind}`, [names], () => names.flatMap((one) => (one.kind === kind ? [one.id] : [])));
  const looks = looksOf(db, ids);
  return putTogether(db, `edge looks of ${kind}`, looks, () =>
    looks
      .flat()
      .sort((a, b) => b.stepId - a.stepId)
      .slice(0, MOST_LOOKS)
      .map(({ hours, isDull }) => ({ hours, isDull })),
  );
}

/** Of each machine, the last of them first. */
export const looksOf = (db: Db, machineIds: readonly string[]): readonly (readonly Looked[])[] =>
  eachMachine(db, "edge looks", machineIds, (id) => readLooks(db, id), {
    on: ["log", "hours", "service", "sets"],
    of: ["parts"],
    isAsBefore: areAlike,
  });

/** Another hour on the meter says nothing else of looks that were made before it. */
const areAlike = (a: readonly Looked[], b: readonly Looked[]): boolean =>
  a.length === b.length &&
  a.every(({ stepId, hours, isDull }, k) => stepId === b[k]?.stepId && hours === b[k]?.hours && isDull === b[k]?.isDull);

/** Of one machine, the last of them first. */
/** A look with the hour its blades were sharp last, by the log; nothing of it hangs on the meter. */
type Seen = { stepId: number; sharpAt: string; at: string; isDull: boolean };

function readLooks(db: Db, machineId: string): Looked[] {
  const seen = whileUnchanged(db, `looks at edges of ${machineId}`, () => readSeen(db, machineId), {
    on: [...ofMachine(machineId, "log", "service", "sets"), "parts"],
    size: "middling",
  });
  const meter = inOrderOfTime(meterReadings(db, machineId));
  return seen.flatMap(({ stepId, sharpAt, at, isDull }) => {
    const [sharp, looked] = [meterIn(meter, sharpAt), meterIn(meter, at)];
    return sharp === undefined || looked === undefined || looked <= sharp ? [] : [{ stepId, hours: looked - sharp, isDull }];
  });
}

function readSeen(db: Db, machineId: string): Seen[] {
  const rows = db
    .prepare(
      `SELECT t.step_id, t.at, s.seq, t.corrects_step_id, json_extract(t.result_json, '$.findings') AS findings
       FROM takes t JOIN steps s ON s.id = t.step_id
       WHERE t.machine_id = ? AND t.check_id = 'blade-edge' AND ${STANDS}
       ORDER BY t.step_id DESC LIMIT ${MOST_LOOKS}`,
    )
    .all(machineId) as Row[];
  const sharpened = db.prepare(
    `SELECT (SELECT json_array(e.seq, e.at) FROM events e JOIN steps f ON f.id = e.step_id WHERE e.machine_id = ? AND e.seq < ?
         AND f.kind = 'fix' AND json_extract(f.data_json, '$.fix') IN ('sharpen-blades', 'replace-blades')
         AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = f.id) ORDER BY e.seq DESC LIMIT 1) AS fixed,
       (SELECT json_array(l.seq, l.at) FROM service_log l WHERE l.machine_id = ? AND l.what = 'sharpen' AND l.kind = 'done' AND l.seq < ?
         AND NOT EXISTS (SELECT 1 FROM service_log b WHERE b.takes_back_id = l.id) ORDER BY l.seq DESC LIMIT 1) AS served`,
  );
  const sets = sharpBySets(db, machineId);
  return rows.flatMap((row) => {
    // A slip put right after the blades were sharpened is no look at the sharpened ones.
    const { at, seq } = rootOf(db, row);
    const { fixed, served } = sharpened.get(machineId, seq, machineId, seq) as { fixed: string | null; served: string | null };
    const set = sets.findLast((entry) => entry.seq < seq);
    const all: Sharpened[] = [
      ...[fixed, served].flatMap((text) => (text === null ? [] : [JSON.parse(text) as Sharpened])),
      ...(set ? [[set.seq, set.at] as Sharpened] : []),
    ];
    const last = all.sort(([a], [b]) => a - b).at(-1);
    return last ? [{ stepId: row.step_id, sharpAt: last[1], at, isDull: /"code":"(dull|rounded)"/.test(row.findings ?? "") }] : [];
  });
}
