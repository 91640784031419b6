import { meterAt } from "@/core/events";
import type { KindId } from "@/core/kinds";
import type { EdgeLook } from "@/core/lasting";
import type { Db } from "./connection";
import { meterReadings } from "./machines";

/** Looks further back than these say little of today's grass. Estimate. */
const MOST_LOOKS = 200;

type Row = { machine_id: string; at: string; findings: string | null; sharpened_at: string | null };

/**
 * What edges were found to be, with the hours on them since they were last sharpened or new, over the machines of a kind: dull where the take says so of
 * any blade. Looks before the first sharpening the record knows say nothing of hours and are left out.
 */
export function edgeLooks(db: Db, kind: KindId): EdgeLook[] {
  const rows = db
    .prepare(
      `SELECT t.machine_id, t.at, json_extract(t.result_json, '$.findings') AS findings,
         (SELECT max(e.at) FROM events e JOIN steps f ON f.id = e.step_id WHERE e.machine_id = t.machine_id AND e.at < t.at
           AND f.kind = 'fix' AND json_extract(f.data_json, '$.fix') IN ('sharpen-blades', 'replace-blades')
           AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = f.id)) AS sharpened_at
       FROM machines m CROSS JOIN takes t ON t.machine_id = m.id
       WHERE m.kind = ? AND t.check_id = 'blade-edge' AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = t.step_id)
       ORDER BY t.step_id DESC LIMIT ${MOST_LOOKS}`,
    )
    .all(kind) as Row[];
  const meters = new Map<string, ReturnType<typeof meterReadings>>();
  return rows.flatMap(({ machine_id, at, findings, sharpened_at }) => {
    if (sharpened_at === null) return [];
    const meter = meters.get(machine_id) ?? meterReadings(db, machine_id);
    meters.set(machine_id, meter);
    const [then, now] = [meterAt(meter, sharpened_at), meterAt(meter, at)];
    if (then === undefined || now === undefined || now <= then) return [];
    return [{ hours: now - then, isDull: /"code":"(dull|rounded)"/.test(findings ?? "") }];
  });
}
