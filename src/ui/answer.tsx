"use client";

import type { Assessment, DeckDetail, TyreDetail } from "@/core/checks";
import { NOTICED_MOVEMENT_METRES, type StaleReason } from "@/core/events";
import { type Machine, type Standpoint, spindlesAcross } from "@/core/machine";
import { CHECKS, EVENTS } from "@/core/trade";
import { useSeat } from "./person";
import { VerdictLine } from "./verdict";
import { PLACE_WORDS, placeName, sayMovement, sayStale, show, toleranceWords, type Words } from "./words/checks";

type Args = {
  assessment: Assessment;
  words?: Words;
  machine: Machine;
  standpoint: Standpoint;
  stale?: readonly StaleReason[];
  timeOf: (iso: string) => string;
  /** Where what to do already stands elsewhere. */
  isWithoutActions?: boolean;
};

/** The verdict as it is said at the machine: the biggest thing on the screen, above the fields and staying there. */
export function AnswerHead({
  assessment,
  machine,
  stale = [],
  words = PLACE_WORDS,
}: Pick<Args, "assessment" | "machine" | "stale" | "words">) {
  const { system } = useSeat();
  return (
    <div className="sticky -top-4 z-10 -mx-4 border-b-2 border-ink bg-sheet px-4 py-2" aria-live="polite">
      <VerdictLine verdict={assessment.verdict} isProvisional={assessment.provisional.length + stale.length > 0} />
      <p className="mt-0.5 text-2xl leading-tight font-bold" style={{ fontStretch: "84%" }} data-testid="answer">
        {words.answer(assessment, { machine, system })}
      </p>
    </div>
  );
}

/** What to do, in the order of doing it. */
export function AnswerActions({
  assessment,
  machine,
  standpoint,
  words = PLACE_WORDS,
}: Pick<Args, "assessment" | "machine" | "standpoint" | "words">) {
  const { system } = useSeat();
  const told = { machine, system, standpoint };
  const { actions } = assessment;
  if (actions.length === 0) return null;
  return (
    <ul className="mt-2 border-l-4 border-dye pl-3 text-lg leading-snug" aria-label="What to do">
      {actions.map((action) => (
        <li key={JSON.stringify(action)} className={action.code === "turn-hanger" ? "font-semibold" : ""}>
          {words.action(action, told)}
        </li>
      ))}
    </ul>
  );
}

/** What to do, then why it is only provisional, then the figures and whose word each limit is. */
export function AnswerDetails({
  assessment,
  machine,
  standpoint,
  stale = [],
  timeOf,
  words = PLACE_WORDS,
  isWithoutActions = false,
}: Args) {
  const { system } = useSeat();
  const told = { machine, system, standpoint };
  const provisional = assessment.provisional.map((reason) => words.provisional(reason, told));
  const staleWords = stale.map((reason) =>
    sayStale(reason, { ...told, label: EVENTS.find(({ id }) => id === reason.event)?.label ?? reason.event, time: timeOf(reason.at) }),
  );
  const isProvisional = provisional.length + staleWords.length > 0;
  return (
    <section aria-label="Answer" className="mt-2">
      {!isWithoutActions && <AnswerActions assessment={assessment} machine={machine} standpoint={standpoint} words={words} />}
      {assessment.check === "tyre-pressure" && <TyreEffect assessment={assessment} machine={machine} />}
      {assessment.check === "deck-level" && <RulerTable assessment={assessment} machine={machine} />}
      {isProvisional && (
        <p className="mt-2 text-sm">
          <strong>Provisional:</strong> {[...provisional, ...staleWords].join("; ")}.
        </p>
      )}
      {assessment.warnings.map((warning) => (
        <p key={`${warning.code} ${warning.place ?? ""}`} className="mt-1 text-sm text-soft">
          {words.warning(warning, told)}
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
                <td className="py-1 leading-tight">{words.figureName(figure, machine)}</td>
                <td
                  className={`num py-1 text-right whitespace-nowrap ${figure.verdict === "out" || figure.verdict === "stop" ? "font-bold text-mark" : ""}`}
                >
                  {words.figureValue(figure, system)}
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

/** Turn until it reads: what the ruler at each tip shows now and when it is right. */
function RulerTable({ assessment, machine }: { assessment: Assessment; machine: Machine }) {
  const { system } = useSeat();
  const { tips } = assessment.detail as DeckDetail;
  if (!tips.some(({ afterMetres }) => afterMetres !== undefined)) return null;
  return (
    <table className="mt-2 w-full text-sm">
      <caption className="caps text-left">Turn until it reads</caption>
      <tbody className="ruled">
        {tips.map((tip) => (
          <tr key={tip.key}>
            <td className="py-0.5">{placeName(machine, tip.key)}</td>
            <td className="num py-0.5 text-right text-soft">{show(tip.readMetres, "length", system)}</td>
            <td className="num py-0.5 text-right text-base font-bold">→ {show(tip.afterMetres ?? tip.readMetres, "length", system)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What these pressures alone do to the outer blade tips, as a range: an estimate, never a measurement. */
function TyreEffect({ assessment, machine }: { assessment: Assessment; machine: Machine }) {
  const { system } = useSeat();
  const { tipChanges, noTipChanges } = assessment.detail as TyreDetail;
  if (!tipChanges)
    return noTipChanges === "self-carried-deck" ? (
      <p className="mt-2 text-sm">The deck rides on its own wheels: these tyres do not move it.</p>
    ) : null;
  const across = spindlesAcross(machine);
  const outer = tipChanges.filter(
    ({ spindleId, direction }) =>
      (spindleId === across[0]?.id && direction === "left") || (spindleId === across.at(-1)?.id && direction === "right"),
  );
  if (outer.every(({ change }) => Math.abs(change) < NOTICED_MOVEMENT_METRES)) return null;
  return (
    <div className="mt-2">
      <p className="caps">What the tyres alone do to the deck (estimate)</p>
      <ul>
        {outer.map((change) => (
          <li key={`${change.spindleId}:${change.direction}`}>{sayMovement(change, { machine, system })}</li>
        ))}
      </ul>
    </div>
  );
}
