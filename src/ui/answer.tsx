"use client";

import { Suspense } from "react";
import { CHECKS, EVENTS } from "@/core/catalogue";
import type { Assessment } from "@/core/checks";
import type { StaleReason } from "@/core/job/staleness";
import type { Machine, Standpoint } from "@/core/machine";
import { faceOf } from "./checks/faces";
import { figureName, figureValue, sayAction, sayAnswer, sayProvisional, sayWarning } from "./checks/words";
import { useSeat } from "./person";
import { VerdictLine } from "./verdict";
import { placeName, sayStale, toleranceWords } from "./words/quantities";

type Args = {
  assessment: Assessment;
  machine: Machine;
  standpoint: Standpoint;
  stale?: readonly StaleReason[];
  timeOf: (iso: string) => string;
  /** Where what to do already stands elsewhere. */
  isWithoutActions?: boolean;
};

/** The verdict as it is said at the machine: the biggest thing on the screen, above the fields and staying there. */
export function AnswerHead({ assessment, machine, stale = [] }: Pick<Args, "assessment" | "machine" | "stale">) {
  const { system } = useSeat();
  return (
    <div className="sticky -top-4 z-10 -mx-4 border-b-2 border-ink bg-sheet px-4 py-2" aria-live="polite">
      <VerdictLine verdict={assessment.verdict} isProvisional={assessment.provisional.length + stale.length > 0} />
      <p className="mt-0.5 text-2xl leading-tight font-bold" style={{ fontStretch: "84%" }} data-testid="answer">
        {sayAnswer(assessment, { machine, system })}
      </p>
      {assessment.stands && (
        <p className="text-sm text-soft">
          With what still stands from this job: {assessment.stands.map((unit) => placeName(machine, unit).toLowerCase()).join(", ")}.
        </p>
      )}
    </div>
  );
}

/** What to do, in the order of doing it. */
export function AnswerActions({ assessment, machine, standpoint }: Pick<Args, "assessment" | "machine" | "standpoint">) {
  const { system } = useSeat();
  const told = { machine, system, standpoint };
  const { actions } = assessment;
  if (actions.length === 0) return null;
  return (
    <ul className="mt-2 border-l-4 border-dye pl-3 text-lg leading-snug" aria-label="What to do">
      {actions.map((action) => (
        <li key={JSON.stringify(action)} className={action.code === "turn-hanger" ? "font-semibold" : ""}>
          {sayAction(assessment.check, action, told)}
        </li>
      ))}
    </ul>
  );
}

/** What to do, then why it is only provisional, then the figures and whose word each limit is. */
export function AnswerDetails({ assessment, machine, standpoint, stale = [], timeOf, isWithoutActions = false }: Args) {
  const { system } = useSeat();
  const told = { machine, system, standpoint };
  const More = faceOf(assessment.check).more;
  const provisional = assessment.provisional.map((reason) => sayProvisional(assessment.check, reason, told));
  const staleWords = stale.map((reason) =>
    sayStale(reason, { ...told, label: EVENTS.find(({ id }) => id === reason.event)?.label ?? reason.event, time: timeOf(reason.at) }),
  );
  const isProvisional = provisional.length + staleWords.length > 0;
  return (
    <section aria-label="Answer" className="mt-2">
      {!isWithoutActions && <AnswerActions assessment={assessment} machine={machine} standpoint={standpoint} />}
      {More && (
        <Suspense fallback={null}>
          <More assessment={assessment} readings={undefined} machine={machine} standpoint={standpoint} system={system} />
        </Suspense>
      )}
      {isProvisional && (
        <p className="mt-2 text-sm">
          <strong>Provisional:</strong> {[...provisional, ...staleWords].join("; ")}.
        </p>
      )}
      {assessment.warnings.map((warning) => (
        <p key={`${warning.code} ${warning.place ?? ""}`} className="mt-1 text-sm text-soft">
          {sayWarning(assessment.check, warning, told)}
        </p>
      ))}
      {assessment.figures.length > 0 && (
        <table className="mt-2 w-full text-sm">
          <caption className="sr-only">Figures of {CHECKS.find(({ id }) => id === assessment.check)?.label}</caption>
          <thead>
            <tr className="caps text-left">
              <th scope="col">Figure</th>
              <th scope="col" className="text-right">
                Value
              </th>
              <th scope="col" className="pl-3">
                Right, and whose word
              </th>
            </tr>
          </thead>
          <tbody className="ruled">
            {assessment.figures.map((figure) => (
              <tr key={`${figure.id} ${figure.place ?? ""}`} className="align-top">
                <td className="py-1 leading-tight">{figureName(assessment.check, figure, machine)}</td>
                <td
                  className={`num py-1 text-right whitespace-nowrap ${figure.verdict === "out" || figure.verdict === "stop" ? "font-bold text-mark" : ""}`}
                >
                  {figureValue(figure, system)}
                </td>
                <td className="py-1 pl-3 leading-tight text-soft">
                  {figure.tolerance ? toleranceWords(figure.tolerance, figure, system) : ""}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
