import type * as z from "zod";
import { chosenAt, moveProblems } from "@/core/job/sequences/counted";
import { mayStayLoose, type RebuildMove, rebuildOrder, rebuildState } from "@/core/job/sequences/rebuild";
import { gearboxes } from "@/core/machine";
import { getMachine } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import { requireState } from "@/data/projections/machine-state";
import { movesOfMachine, STEP_DATA } from "@/data/record/step-data";
import { addStep, openJobRow } from "@/data/record/steps";
import { insertEvent } from "@/data/service/events";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError, type Issue } from "@/data/store/errors";
import { issuesOfMove, ownList } from "./guided";
import { rebuildMoves } from "./rebuild-moves";

export const newRebuildMoveSchema = STEP_DATA.rebuild;

/**
 * One step of a gearbox taken apart or put together, parts counted, what is left loose on purpose named; or that part tightened. The last
 * step back goes on the machine's log as `gearbox-off`: its inspection, the timing and the blades' fit are then stale. Throws
 * `job-closed`, `not-safe`, `changed-since` for a step out of turn, `invalid` for a box, a count or a part that is none.
 */
export function recordRebuildMove(
  db: Db,
  doing: Doing,
  args: { jobId: number } & z.output<typeof newRebuildMoveSchema>,
): { stepId: number } {
  return once(db, doing, "rebuild", () => {
    const { jobId, ...move } = args;
    const job = openJobRow(db, jobId);
    requireState(db, job.machineId, "locked-out");
    const { machine } = getMachine(db, job.machineId);
    if (!gearboxes(machine).some(({ id }) => id === move.box))
      throw new AppError("invalid", { issues: [{ code: "unknown-gearbox", path: ["box"], place: move.box }] });
    const live = movesOfMachine(db, job.machineId);
    const moves = rebuildMoves(live);
    const list = ownList(live, { round: "box", place: move.box });
    const state = rebuildState(move.box, moves, list);
    if ("tightened" in move) {
      if (!state.loose.includes(move.tightened)) throw new AppError("changed-since");
      return { stepId: addStep(db, doing, { jobId, kind: "rebuild", data: move }) };
    }
    const own = moves.filter((one): one is RebuildMove => one.box === move.box && !("tightened" in one));
    const problems = moveProblems(rebuildOrder(list), own, move);
    if (problems.some(({ code }) => code === "not-the-next-step")) throw new AppError("changed-since");
    const stray = (move.loose ?? []).filter((id) => move.way !== "on" || !state.next || !mayStayLoose(state.next.step).includes(id));
    const issues: Issue[] = [...issuesOfMove(problems), ...stray.map((part) => ({ code: "not-left-loose", path: ["loose"], part }))];
    if (issues.length > 0) throw new AppError("invalid", { issues });
    const stepId = addStep(db, doing, { jobId, kind: "rebuild", data: move });
    for (const { asked, option } of chosenAt(rebuildOrder(list), [move]))
      if (option.isOdd) {
        const data = { words: `${asked} ${option.label.toLowerCase()}` };
        insertEvent(db, doing, { machineId: job.machineId, event: "not-as-built", place: move.box, stepId, data });
      }
    if (rebuildState(move.box, [...moves, move], list).where === "on")
      insertEvent(db, doing, { machineId: job.machineId, event: "gearbox-off", place: move.box, stepId });
    return { stepId };
  });
}
