"use client";

import type { Assessment, LookDetail, LookResult } from "@/core/checks";
import type { Machine } from "@/core/machine";
import { FIX_LABELS, type FixId } from "@/core/trade";
import { formatTurns, type UnitSystem } from "@/core/units";
import type { JobView } from "@/data/job-view";
import { figureName, figureValue, sayAnswer } from "@/ui/checks/words";
import { useSeat } from "@/ui/person";
import { labelOfCause } from "@/ui/words/diagnosis";
import { show } from "@/ui/words/quantities";
import { sayStep } from "./timeline";

type StepRow = JobView["steps"][number];
type FixStep = Extract<StepRow, { kind: "fix" }>;

/** The whole of a job in order: first readings, turns made, parts, torque, every re-reading, what was taken back. */
export function Account({ view, timeOf }: { view: JobView; timeOf: (iso: string) => string }) {
  const { system } = useSeat();
  const told = { view, system };
  return (
    <section aria-label="The whole of it" className="mt-3">
      <h3 className="caps">The whole of it, in order</h3>
      <ol className="ruled">
        {view.steps.map((step) => (
          <li key={step.id} className={`py-1.5 leading-snug ${step.isUndone ? "text-soft line-through" : ""}`}>
            <span className="num text-sm text-soft">
              {timeOf(step.at)} · {step.who}
            </span>
            <span className="block font-semibold">{sayStep(step, view)}</span>
            {linesOf(step, told).map((line) => (
              <span key={line} className="block text-sm">
                {line}
              </span>
            ))}
          </li>
        ))}
      </ol>
    </section>
  );
}

/** The figures behind a step. */
function linesOf(step: StepRow, { view, system }: { view: JobView; system: UnitSystem }): string[] {
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

function takeLines(result: Assessment, told: { machine: Machine; system: UnitSystem }): string[] {
  if (result.ruleVersion === 0) return lookLines(result);
  const figures = result.figures.map((figure) => `${figureName(result.check, figure, told.machine)}: ${figureValue(figure, told.system)}`);
  return [sayAnswer(result, told), ...figures];
}

const LOOKED: Record<LookResult, string> = { seen: "seen", suspect: "suspected", "not-found": "not there", unclear: "could not tell" };

function lookLines({ detail }: Assessment): string[] {
  const { each = [], note = "" } = detail as Partial<LookDetail>;
  return [...each.map(({ cause, result }) => `${labelOfCause(cause)}: ${LOOKED[result]}`), ...(note ? [`“${note}”`] : [])];
}

function fixLines({ data }: FixStep, machine: Machine, system: UnitSystem): string[] {
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
