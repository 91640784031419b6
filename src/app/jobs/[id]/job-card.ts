import type { UnitSystem } from "@/core/basics/units";
import type { JobView } from "@/data/job/job-view";
import type { Owed } from "@/data/service/owed";
import { dateAndTime, dateOnly, type Zone } from "@/ui/time";
import { labelOfCause, labelOfSymptom } from "@/ui/words/diagnosis";
import { sayOwed } from "@/ui/words/owed";
import { sayGap } from "@/ui/words/proof";
import { linesOf, sayStep } from "./close/said";

/** A job on paper: what a reader without a screen has to know, in the order it is asked. */
export type JobCard = {
  jobId: number;
  fleetNumber: string;
  machine: string;
  site: string;
  state: string;
  printed: string;
  /** First: what holds it, what is owed and by when. */
  warnings: string[];
  complaints: { words: string; by: string; looks: string }[];
  causes: string[];
  steps: { when: string; who: string; words: string; lines: string[]; isUndone: boolean }[];
  gaps: string[];
};

/** Causes the job was closed for; of an open one, none is claimed. */
function causesOf(view: JobView): string[] {
  const closed = view.steps.findLast((step) => step.kind === "close" && !step.isUndone);
  return closed?.kind === "close" ? closed.data.causes.map((id) => (id === "nothing-found" ? "Nothing found" : labelOfCause(id))) : [];
}

/** `owed`: what the machine owes by this job; `now`: when it is printed. */
export function cardOf(args: { view: JobView; owed: readonly Owed[]; system: UnitSystem; zone: Zone; now: string }): JobCard {
  const { view, owed, system, zone, now } = args;
  const { machine, machineState } = view;
  const isProved = view.steps.some((step) => step.kind === "close" && !step.isUndone && step.data.isProved);
  return {
    jobId: view.id,
    fleetNumber: machine.fleetNumber,
    machine: machine.name,
    site: machine.site,
    state:
      view.state === "closed"
        ? `Closed ${dateOnly(view.closedAt ?? now, zone)}, ${isProved ? "proved" : "not proved"}`
        : `Open since ${dateOnly(view.openedAt, zone)}`,
    printed: dateAndTime(now, zone),
    warnings: [
      ...(machineState.unsafe.length > 0 ? ["HELD: not to be run. What holds it is on its page; a card clears nothing."] : []),
      ...(machineState.locks.length > 0 ? [`Locked on: ${machineState.locks.map(({ who }) => who).join(", ")}.`] : []),
      ...owed.map((one) => `Owed by ${dateOnly(one.dueAt, zone)}: ${sayOwed(one)}.`),
    ],
    complaints: view.complaints.map(({ words, saidBy, place, at, looks }) => ({
      words: words === "" ? "nothing said" : words,
      by: [saidBy, place, dateAndTime(at, zone)].filter((one) => one !== "").join(", "),
      looks: looks.symptoms.map(labelOfSymptom).join(", "),
    })),
    causes: causesOf(view),
    steps: view.steps
      .filter(({ kind }) => kind !== "complaint")
      .map((step) => ({
        when: dateAndTime(step.at, zone),
        who: step.who,
        words: sayStep(step, view),
        lines: linesOf(step, { view, system }),
        isUndone: step.isUndone,
      })),
    gaps: view.state === "closed" ? [] : view.proof.gaps.map(sayGap),
  };
}
