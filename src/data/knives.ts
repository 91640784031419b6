import { unitSheetOf, unitsAcross } from "@/core/machine";
import { type Ground, type KnifeLife, knifeLife } from "@/core/reel";
import type { Db } from "./connection";
import { getMachine } from "./machines";
import { STEP_DATA } from "./step-data";

export type UnitKnife = { unit: string; life: KnifeLife; lastAt?: string };

type Row = { data_json: string; at: string };

/** Fixes by which a unit gets another knife: what was ground off the old one counts no more. */
const NEW_KNIFE: readonly string[] = ["replace-bedknife"];

/** The bedknife of every unit as the log has it: ground so often since it was fitted, so much off, so many grinds left. Undone fixes count nothing. */
export function knivesOf(db: Db, machineId: string): UnitKnife[] {
  const { machine } = getMachine(db, machineId);
  if (machine.units.length === 0) return [];
  const rows = db
    .prepare(
      `SELECT s.data_json, s.at FROM steps s JOIN jobs j ON j.id = s.job_id WHERE j.machine_id = ? AND s.kind = 'fix'
         AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = s.id) ORDER BY s.seq`,
    )
    .all(machineId) as Row[];
  const fixes = rows.map(({ data_json, at }) => ({ ...STEP_DATA.fix.parse(JSON.parse(data_json)), at }));
  return unitsAcross(machine).map(({ id }) => {
    const own = fixes.filter(({ units }) => units === undefined || units.length === 0 || units.includes(id));
    const fitted = own.map(({ fix }) => NEW_KNIFE.includes(fix)).lastIndexOf(true);
    const since = own.slice(fitted + 1).filter((fix): fix is (typeof own)[number] & { ground: Ground } => fix.ground !== undefined);
    const last = since.at(-1);
    return {
      unit: id,
      life: knifeLife(
        unitSheetOf(machine, id).bedknife,
        since.map(({ ground }) => ground),
      ),
      ...(last ? { lastAt: last.at } : {}),
    };
  });
}
