"use client";

import { CERTAIN_LOOKS, EXPLAINED_LEVEL, hasRival, likelihoodOf, type RankedCause, type WorkUp } from "@/core/diagnosis";
import { CAUSE_TAKEN, LIKELIHOOD_WORDS, labelOfCheck, labelOfSymptom, percent, sayAdvice, sayMoved } from "@/ui/words/diagnosis";
import type { PanelId } from "../panel-id";

const SHOWN = 3;

/** What moved a cause last: the factor of the check just made, where it made a difference. */
function movedBy(cause: RankedCause, check: string | undefined): number | undefined {
  return cause.reasons.find((reason) => reason.kind === "evidence" && reason.check === check)?.factor;
}

/** What it might be: the likeliest first, probability as length, as a word and as a figure. */
export function Suspects({
  workUp,
  lastCheck,
  isLive,
  isReckoning,
  isSearching,
  here,
  open,
}: {
  workUp: WorkUp | undefined;
  /** The check whose result came last: what it moved is marked. */
  lastCheck: string | undefined;
  isLive: boolean;
  isReckoning: boolean;
  /** Whether there is a complaint to be explained at all: not after a fix, and not once it is gone. */
  isSearching: boolean;
  here: PanelId;
  open: (panel: PanelId) => void;
}) {
  if (!workUp) {
    if (isReckoning) return <p className="mt-3 text-soft">Reckoning what it might be …</p>;
    return <p className="trouble mt-3">More was seen at once than can be reckoned. Take some of it as a complaint of its own.</p>;
  }
  const { causes, alsoWorthALook, symptoms, operationProbability } = workUp.diagnosis;
  if (symptoms.length === 0) return isSearching ? <NoLook open={open} /> : null;
  const advice = sayAdvice(workUp.advice);
  const unexplained = symptoms.filter(({ status }) => status === "nothing-explains");
  return (
    <section aria-label="What it might be" className="mt-2">
      <div className="flex items-center justify-between gap-2">
        <h2 className="caps">{isLive ? "As typed, it might be" : "What it might be"}</h2>
        <button type="button" className="btn btn-quiet !min-h-9 !px-0 text-sm whitespace-nowrap underline" onClick={() => open("links")}>
          all {causes.length}
          {alsoWorthALook.length > 0 ? ` and ${alsoWorthALook.length} more` : ""}
        </button>
      </div>
      {advice && (
        <p
          role="status"
          className={`border-l-4 px-2 py-1 leading-snug font-semibold ${workUp.advice.code === "found" && workUp.advice.once.length === 0 ? "border-good" : "border-watch"}`}
        >
          {advice}
        </p>
      )}
      {workUp.advice.code === "found" && workUp.advice.taken.length > 0 && (
        <p className="px-2 text-sm leading-snug text-soft">{CAUSE_TAKEN}</p>
      )}
      {(workUp.advice.code === "nothing-explains" || workUp.advice.code === "nothing-left") && (
        <p className="px-2 py-1 text-sm leading-snug">
          What no table lists:{" "}
          {[...causes, ...alsoWorthALook]
            .filter(({ rivalOf }) => rivalOf)
            .map(({ id, label }) => (
              <button key={id} type="button" className="btn btn-quiet !min-h-9 !px-1 text-sm underline" onClick={() => open(`cause:${id}`)}>
                {label}
              </button>
            ))}
          <button type="button" className="btn btn-quiet !min-h-9 !px-1 text-sm underline" onClick={() => open("fix")}>
            name what you found
          </button>
        </p>
      )}
      {unexplained.length > 0 && workUp.advice.code !== "nothing-explains" && (
        <p className="border-l-4 border-watch px-2 py-1 text-sm leading-snug">
          Nothing on the list is likely to explain: {unexplained.map(({ id }) => labelOfSymptom(id)).join(", ")}.
        </p>
      )}
      {operationProbability >= 0.5 && (
        <p className="border-l-4 border-watch px-2 py-1 text-sm leading-snug">
          Operation or turf, not the machine: <span className="font-semibold">{percent(operationProbability)}</span>. Ask first.
        </p>
      )}
      {causes.slice(0, SHOWN).some((cause) => movedBy(cause, lastCheck) !== undefined) && (
        <p className="pl-2 text-sm text-soft">Moved by {labelOfCheck(lastCheck ?? "").toLowerCase()}</p>
      )}
      <ol>
        {causes.slice(0, SHOWN).map((cause) => (
          <li key={cause.id}>
            <SuspectRow
              cause={cause}
              moved={movedBy(cause, lastCheck)}
              isTaken={hasRival([...causes, ...alsoWorthALook], cause.id)}
              isHere={here === `cause:${cause.id}`}
              open={open}
            />
          </li>
        ))}
      </ol>
    </section>
  );
}

/** A complaint in words alone: there is nothing to rank by. */
function NoLook({ open }: { open: (panel: PanelId) => void }) {
  return (
    <p className="mt-2 border-l-4 border-watch px-2 leading-snug">
      Nobody said what it looks like.{" "}
      <button type="button" className="font-semibold underline" onClick={() => open("phone")}>
        Ask, most telling first
      </button>
    </p>
  );
}

function SuspectRow({
  cause,
  moved,
  isTaken,
  isHere,
  open,
}: {
  cause: RankedCause;
  moved: number | undefined;
  /** Something in no table may as well be behind what was read. */
  isTaken: boolean;
  isHere: boolean;
  open: (panel: PanelId) => void;
}) {
  const word = LIKELIHOOD_WORDS[likelihoodOf(cause.probability)];
  // What a check has seen is found, and wants no figure beside it.
  const isFound = cause.isBackedByCheck && cause.presence >= EXPLAINED_LEVEL;
  return (
    <button
      type="button"
      onClick={() => open(`cause:${cause.id}`)}
      aria-current={isHere ? "true" : undefined}
      title={word}
      className={`block min-h-11 w-full border-l-4 pl-2 text-left ${isHere ? "border-dye bg-sheet" : "border-transparent"}`}
    >
      <span className="flex items-baseline gap-2 leading-tight">
        <span className={`line-clamp-2 grow ${cause.isBackedByCheck ? "font-bold" : "font-medium"}`}>
          {cause.label}
          {cause.group !== "machine" && <span className="caps ml-1.5">{cause.group}</span>}
        </span>
        {moved !== undefined && (
          <span className={`text-sm font-semibold whitespace-nowrap ${moved > 1 ? "text-mark" : "text-soft"}`}>
            {sayMoved(moved, cause.looks)}
          </span>
        )}
      </span>
      <span className="mt-0.5 flex items-center gap-2">
        <span className="h-2 grow bg-[var(--rule)]/40">
          <span
            className={`block h-2 transition-[width] duration-300 motion-reduce:transition-none ${isFound ? "bg-mark" : "bg-[var(--dye-text)]"}`}
            style={{ width: `${Math.max(1, 100 * cause.probability)}%` }}
          />
        </span>
        <span className="w-28 text-right text-sm whitespace-nowrap text-soft">
          {isFound ? (
            <span className="font-semibold text-ink">{cause.looks < CERTAIN_LOOKS ? "on one look" : isTaken ? "likeliest" : "found"}</span>
          ) : (
            <>
              {word} <span className="font-semibold text-ink tabular-nums">{percent(cause.probability)}</span>
            </>
          )}
        </span>
      </span>
    </button>
  );
}
