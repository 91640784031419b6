import type * as z from "zod";
import type { SequenceState } from "@/core/job/sequences/counted";
import { guidedOrder, type Round, roundsOf } from "@/core/job/sequences/guided";
import { REBUILD } from "@/core/job/sequences/rebuild";
import { gearboxes } from "@/core/machine";
import { getMachine } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import { movesOfMachine, STEP_DATA } from "@/data/record/step-data";
import { addStep, openJobRow } from "@/data/record/steps";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError, type Issue } from "@/data/store/errors";
import { guidedStates } from "./guided";
import { boxStates } from "./rebuild-moves";

export const newOwnListSchema = STEP_DATA["own-list"];

/**
 * What a round really holds on this machine, told at the bench and kept as its own list. Throws `job-closed`, and `invalid` for a place or a
 * part that is none (`unknown-part`), and for fewer than lie in the tray by now (`in-tray`).
 */
export function recordOwnList(db: Db, doing: Doing, args: { jobId: number } & z.output<typeof newOwnListSchema>): { stepId: number } {
  return once(db, doing, "own-list", () => {
    const { jobId, ...list } = args;
    const job = openJobRow(db, jobId);
    const { machine } = getMachine(db, job.machineId);
    const steps = movesOfMachine(db, job.machineId);
    const isBox = list.round === "box";
    const places = isBox
      ? gearboxes(machine).map(({ id }) => id)
      : roundsOf(machine).flatMap((one) => (one.round === list.round ? one.place : []));
    const known = (isBox ? REBUILD : guidedOrder(machine, list.round as Round)).off.flatMap(({ parts }) => parts.map(({ id }) => id));
    const state: SequenceState | undefined = isBox
      ? boxStates(machine, steps).find(({ box }) => box === list.place)
      : guidedStates(machine, steps).find(({ round, place }) => round === list.round && place === list.place);
    const issues = [
      ...(places.includes(list.place) ? [] : [{ code: "unknown-part", path: ["place"], place: list.place }]),
      ...Object.entries(list.counts).flatMap(([id, count]): Issue[] => {
        if (!known.includes(id)) return [{ code: "unknown-part", path: ["counts", id], place: id }];
        const lies = state?.tray.find((one) => one.id === id)?.inTray ?? 0;
        return count < lies ? [{ code: "in-tray", path: ["counts", id], lies }] : [];
      }),
    ];
    if (issues.length > 0) throw new AppError("invalid", { issues });
    return { stepId: addStep(db, doing, { jobId, kind: "own-list", data: list }) };
  });
}
