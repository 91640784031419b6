import { table } from "@/core/basics/tables";
import { formatTurns, type UnitSystem } from "@/core/basics/units";
import { CHECKS, EVENTS, FIX_LABELS, type FixId } from "@/core/catalogue";
import type { Assessment, LookDetail, LookResult } from "@/core/checks";
import { gradeCut } from "@/core/job/jobs";
import { partLabel } from "@/core/job/sequences/rebuild";
import type { Machine } from "@/core/machine";
import type { JobView } from "@/data/job/job-view";
import { figureName, figureValue, sayAnswer } from "@/ui/checks/words";
import { labelOfCause, labelOfCheck, labelOfContext, labelOfSymptom, SKIP_WORDS } from "@/ui/words/diagnosis";
import { STATE_WORDS } from "@/ui/words/issues";
import { GRADE_WORDS } from "@/ui/words/proof";
import { placeName, show, VERDICT_WORDS } from "@/ui/words/quantities";

export type StepRow = JobView["steps"][number];

const YES_NO: Record<string, string> = table({ present: "yes", denied: "no", unknown: "not known", true: "yes", false: "no" });

function sayAnswers({ symptoms, contexts }: { symptoms: object; contexts: object }): string {
  const said = [
    ...Object.entries(symptoms).map(([id, state]) => `${labelOfSymptom(id)} ${YES_NO[String(state)]}`),
    ...Object.entries(contexts).map(([id, isSo]) => `${labelOfContext(id)} ${YES_NO[String(isSo)]}`),
  ];
  return said.join(", ");
}

/** What a step of taking back took back. */
function undone(step: StepRow, view: Pick<JobView, "complaints" | "proof" | "steps" | "machine">): string {
  const taken = view.steps.find(({ id }) => id === step.undoesId);
  const words = taken && taken.kind !== "undo" ? sayStep(taken, view) : "a step";
  return `${words.charAt(0).toLowerCase()}${words.slice(1)}`;
}

/** The units a fix was done on, where it names them. */
const onUnits = (units: readonly string[] | undefined, machine: Machine): string =>
  units?.length ? `: ${units.map((unit) => placeName(machine, unit).toLowerCase()).join(", ")}` : "";

type Counted = { inFeeds: number };

/** In-feeds as they were counted on the grinder. */
function sayGround(ground: { top: Counted; front: Counted; reel?: Counted | undefined } | undefined): string {
  const { top, front, reel } = ground ?? {};
  const counted = [
    ["top", top],
    ["front", front],
    ["reel", reel],
  ] as const;
  const said = counted.flatMap(([name, face]) => (face && face.inFeeds > 0 ? [`${name} ${face.inFeeds}`] : []));
  return said.length === 0 ? "" : ` (in-feeds counted: ${said.join(", ")})`;
}

/** A step in a few words. */
export function sayStep(step: StepRow, view: Pick<JobView, "complaints" | "proof" | "steps" | "machine">): string {
  switch (step.kind) {
    case "complaint": {
      const complaint = view.complaints.find(({ id }) => id === step.data.complaintId);
      return `Complaint from ${complaint?.saidBy ?? "?"}`;
    }
    case "guess":
      return `First guess: ${labelOfCause(step.data.cause)}`;
    case "answer":
      return `Asked: ${sayAnswers(step.data)}`;
    case "skip":
      return step.data.reason === "back"
        ? `${labelOfCheck(step.data.checkId)}: taken in again`
        : `${labelOfCheck(step.data.checkId)} left out: ${SKIP_WORDS[step.data.reason]}`;
    case "confirmation":
      return step.data.outcome === "safe"
        ? `Made safe: ${STATE_WORDS[step.data.state]}`
        : `Stopped, not so: ${step.data.stoppedAt.join("; ") || "a firm point"}`;
    case "put-back":
      return step.data.outcome === "safe" ? "Put back, turned by hand" : `Stopped, not so: ${step.data.stoppedAt.join("; ")}`;
    case "lift":
      return step.data.owner === step.who ? "Took own lock-out off" : `Lifted ${step.data.owner}’s lock-out: ${step.data.reason}`;
    case "handover":
      return `Handed over to ${step.data.to}: ${step.data.what}, ${step.data.owes.join("; ")}`;
    case "take": {
      const label = CHECKS.find(({ id }) => id === step.data.checkId)?.label;
      return `${step.data.correctsStepId ? "Corrected: " : ""}${label}: ${VERDICT_WORDS[step.data.verdict as keyof typeof VERDICT_WORDS].toLowerCase()}${step.data.reason ? `, since ${step.data.reason}` : ""}`;
    }
    case "second-look":
      return `${labelOfCause(step.data.cause)}: looked once more, ${step.data.isStillSo ? "still so" : "not so"}`;
    case "fix":
      return `${FIX_LABELS[step.data.fix as FixId] ?? step.data.fix}${onUnits(step.data.units, view.machine.machine)}${sayGround(step.data.ground)}`;
    case "deck":
      return `Deck ${step.data.way === "off" ? "coming off" : "going on"}: ${step.data.step.replaceAll("-", " ")}`;
    case "rebuild":
      return "tightened" in step.data
        ? `Tightened: ${partLabel(step.data.tightened).toLowerCase()}`
        : `Gearbox ${step.data.way === "off" ? "apart" : "together"}: ${step.data.step.replaceAll("-", " ")}`;
    case "guided":
      return `${step.data.round === "blade" ? "Blade" : "Spindle"} ${step.data.place.replaceAll("-", " ")}, ${step.data.way}: ${step.data.step.replaceAll("-", " ")}`;
    case "own-list":
      return `Own list told: ${step.data.place.replaceAll("-", " ")}`;
    case "photograph":
      return `Photograph: ${step.data.about}`;
    case "test-cut":
      return `Test cut: ${GRADE_WORDS[gradeCut(step.data, view.proof.wanted)]}`;
    case "note":
      return step.data.text;
    case "event":
      return EVENTS.find(({ id }) => id === step.data.event)?.label ?? step.data.event;
    case "hold":
      return `Held out: ${step.data.reason}`;
    case "release":
      return `Released without reading: ${step.data.reason}`;
    case "close":
      return step.data.isProved ? "Closed, proved" : "Closed, not proved";
    case "undo":
      return `Taken back: ${undone(step, view)}${step.data.reason ? `, since ${step.data.reason}` : ""}`;
  }
}

type FixStep = Pick<Extract<StepRow, { kind: "fix" }>, "data">;

/** The figures behind a step. */
export function linesOf(step: StepRow, { view, system }: { view: JobView; system: UnitSystem }): string[] {
  const { machine } = view.machine;
  if (step.kind === "take") {
    const take = [...view.takes, ...view.otherTakes].find(({ stepId }) => stepId === step.id);
    return take ? takeLines(take.result, { machine, system }) : [];
  }
  if (step.kind === "fix") return fixLines(step, machine, system);
  if (step.kind === "test-cut") return [[step.data.place, step.data.operator, step.data.words].filter(Boolean).join(", ")].filter(Boolean);
  if (step.kind === "close" && step.data.unprovedReason) return [`Went out unproved: ${step.data.unprovedReason}`];
  return [];
}

export function takeLines(result: Assessment, told: { machine: Machine; system: UnitSystem }): string[] {
  if (result.ruleVersion === 0) return lookLines(result);
  const figures = result.figures.map((figure) => `${figureName(result.check, figure, told.machine)}: ${figureValue(figure, told.system)}`);
  return [sayAnswer(result, told), ...figures];
}

const LOOKED: Record<LookResult, string> = { seen: "seen", suspect: "suspected", "not-found": "not there", unclear: "could not tell" };

function lookLines({ detail }: Assessment): string[] {
  const { each = [], note = "" } = detail as Partial<LookDetail>;
  return [...each.map(({ cause, result }) => `${labelOfCause(cause)}: ${LOOKED[result]}`), ...(note ? [`“${note}”`] : [])];
}

export function fixLines({ data }: FixStep, machine: Machine, system: UnitSystem): string[] {
  const hanger = (id: string) => machine.deck?.hangers.find((one) => one.id === id)?.label ?? id;
  const wheel = (id: string) => machine.wheels.find((one) => one.id === id)?.label ?? id;
  const turns = (data.turns ?? []).filter((one) => one.turns !== 0);
  return [
    `For ${labelOfCause(data.cause).toLowerCase()}: ${FIX_LABELS[data.fix as FixId] ?? data.fix}`,
    ...turns.map((one) => `${hanger(one.hangerId)}: ${formatTurns(Math.abs(one.turns))} turns ${one.turns > 0 ? "up" : "down"}`),
    ...(data.pressures ?? []).map(
      (one) => `${wheel(one.wheelId)}: ${show(one.fromPascals, "pressure", system)} to ${show(one.toPascals, "pressure", system)}`,
    ),
    ...(data.torqueNewtonMetres === undefined ? [] : [`Torque ${show(data.torqueNewtonMetres, "torque", system)}, by wrench`]),
    ...(data.torqueHow === "by-feel" ? ["Tightened by feel: a wrench is owed"] : []),
    ...(data.parts ? [`Parts: ${data.parts}`] : []),
    ...(data.words ? [`“${data.words}”`] : []),
  ];
}
