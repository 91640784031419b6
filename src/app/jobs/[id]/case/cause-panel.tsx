"use client";

import {
  CAUSES,
  type CauseRow,
  CHECKS,
  type CheckId,
  type CheckRow,
  EVENTS,
  FIX_LABELS,
  FIXES,
  type FixId,
  type FixRow,
  RIVALS,
  type Rival,
} from "@/core/catalogue";
import { isOffered } from "@/core/checks";
import { likelihoodOf, type RankedCause, type WorkUp } from "@/core/diagnosis";
import { putBackPoints } from "@/core/job/status";
import type { Machine } from "@/core/machine";
import type { JobView } from "@/data/job/job-view";
import { LIKELIHOOD_WORDS, labelOfCause, labelOfCheck, labelOfSymptom, percent, sayReason } from "@/ui/words/diagnosis";
import { STATE_WORDS } from "@/ui/words/issues";
import type { Act } from "../act";
import type { PanelId } from "../panel-id";
import { Trouble } from "../trouble";

const causeRows: readonly CauseRow[] = CAUSES;
const checkRows: readonly CheckRow[] = CHECKS;
const fixRows: readonly FixRow[] = FIXES;
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

type Args = { view: JobView; workUp: WorkUp; causeId: string; act: Act; open: (panel: PanelId) => void };

/** One cause: how likely and why, what would tell, and how it is mended. */
export function CausePanel({ view, workUp, causeId, act, open }: Args) {
  const { causes, alsoWorthALook } = workUp.diagnosis;
  const cause = [...causes, ...alsoWorthALook].find(({ id }) => id === causeId);
  const row = causeRows.find(({ id }) => id === causeId);
  const canShow = causes.some(({ id }) => id === causeId);
  const rival = RIVALS.find(({ id }) => id === causeId);
  if (cause && rival) return <RivalPanel cause={cause} rival={rival} open={open} />;
  if (!cause || !row) return <p>This machine cannot have that, or nothing speaks for it any more.</p>;
  return (
    <div>
      <p className="text-2xl font-bold" style={{ fontStretch: "84%" }}>
        {capital(LIKELIHOOD_WORDS[likelihoodOf(cause.probability)])}, <span className="tabular-nums">{percent(cause.probability)}</span>
      </p>
      <p className="text-sm text-soft">
        {canShow ? (
          <>
            That it has shown this complaint. That it is there at all: <span className="tabular-nums">{percent(cause.presence)}</span>.
          </>
        ) : (
          "That it is there; it can show none of what was complained of."
        )}{" "}
        Estimates, until the shop’s own log replaces them.
      </p>
      <Reasons cause={cause} />
      <Explains workUp={workUp} row={row} cause={cause} />
      <Telling view={view} row={row} open={open} />
      <Mending causeId={causeId} machine={view.machine.machine} />
      {view.state !== "closed" && (
        <button type="button" className="btn mt-3" disabled={act.isBusy} onClick={() => act.send("guesses", { cause: causeId })}>
          This is my guess
        </button>
      )}
      <Trouble act={act} />
    </div>
  );
}

/** What is in no table: how likely, where to look for it, and how it gets a name. */
function RivalPanel({ cause, rival, open }: { cause: RankedCause; rival: Rival; open: (panel: PanelId) => void }) {
  return (
    <div>
      <p className="text-2xl font-bold" style={{ fontStretch: "84%" }}>
        {capital(LIKELIHOOD_WORDS[likelihoodOf(cause.probability)])}, <span className="tabular-nums">{percent(cause.probability)}</span>
      </p>
      <p className="leading-snug">
        No table lists it. It moves the same reading as {labelOfCause(rival.like).toLowerCase()}: if that is mended and the reading comes
        back, it is this.
      </p>
      <Reasons cause={cause} />
      <section aria-label="Where to look" className="mt-3">
        <h3 className="caps">Where to look, whom to ask</h3>
        <p className="leading-snug">{rival.look}</p>
      </section>
      <button type="button" className="btn mt-3" onClick={() => open("fix")}>
        Found it: name it in words
      </button>
      <p className="text-sm text-soft">Pick “Something else, in words”: the machine’s record keeps the name you give it.</p>
    </div>
  );
}

/** Past this a reason's bar is full: a factor of a thousand. */
const FULL_BAR = Math.log(1000);

function Reasons({ cause }: { cause: RankedCause }) {
  if (cause.reasons.length === 0) return <p className="mt-2">Nothing that is known moves it either way.</p>;
  return (
    <section aria-label="Why" className="mt-3">
      <h3 className="caps">Why</h3>
      <ul className="ruled">
        {cause.reasons.map((reason) => (
          <li key={JSON.stringify(reason)} className="grid grid-cols-[1fr_5rem_4.5rem] items-center gap-2 py-1">
            <span className="leading-tight">{sayReason(reason)}</span>
            <span className={`flex h-2 ${reason.factor > 1 ? "justify-start" : "justify-end"} bg-[var(--rule)]/40`} aria-hidden="true">
              <span
                className={reason.factor > 1 ? "bg-mark" : "bg-good"}
                style={{ width: `${Math.min(100, (100 * Math.abs(Math.log(reason.factor))) / FULL_BAR)}%` }}
              />
            </span>
            <span className="text-right text-sm font-semibold">{reason.factor > 1 ? "for it" : "against it"}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Explains({ workUp, row, cause }: { workUp: WorkUp; row: CauseRow; cause: RankedCause }) {
  const present = workUp.diagnosis.symptoms.filter(({ id }) => row.shows.some(({ symptom }) => symptom === id));
  if (present.length === 0) return <p className="mt-3 text-soft">It shows none of what was complained of.</p>;
  return (
    <section aria-label="Explains" className="mt-3">
      <h3 className="caps">Of the complaint it explains</h3>
      <ul>
        {present.map(({ id, shownBy }) => (
          <li key={id}>
            {labelOfSymptom(id)}:{" "}
            <span className="tabular-nums">{percent(shownBy.find((one) => one.cause === cause.id)?.probability ?? 0)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Telling({ view, row, open }: { view: JobView; row: CauseRow; open: (panel: PanelId) => void }) {
  const offered = checkRows.filter((check) => row.checks.includes(check.id as CheckId) && isOffered(check, view.machine.machine));
  const done: readonly string[] = view.case.input.done;
  if (offered.length === 0) return null;
  return (
    <section aria-label="What would tell" className="mt-3">
      <h3 className="caps">What would tell</h3>
      <div className="flex flex-wrap gap-1">
        {offered.map(({ id, label, minutes }) => (
          <button key={id} type="button" className="btn px-3" onClick={() => open(`check:${id}`)}>
            {label}, {minutes} min{done.includes(id) ? " ✓" : ""}
          </button>
        ))}
      </div>
    </section>
  );
}

function Mending({ causeId, machine }: { causeId: string; machine: Machine }) {
  const fixes = fixRows.filter(({ cause }) => cause === causeId);
  return (
    <section aria-label="How it is mended" className="mt-3">
      <h3 className="caps">How it is mended</h3>
      <ul className="ruled">
        {fixes.map((fix) => (
          <li key={fix.fix} className="py-1 leading-snug">
            <span className="font-semibold">{FIX_LABELS[fix.fix as FixId]}</span>, <span className="num">{fix.minutes}</span> min,{" "}
            {STATE_WORDS[fix.state]}.
            <span className="block text-sm text-soft">
              Must be read again: {staleAfter(fix).map(labelOfCheck).join(", ").toLowerCase() || "nothing"}. Proved by:{" "}
              {fix.provedBy.map(labelOfCheck).join(", ").toLowerCase()}.{couldBreak(fix, machine)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function staleAfter({ event }: FixRow): readonly string[] {
  return EVENTS.find(({ id }) => id === event)?.makesStale ?? [];
}

/** What the fix could itself put wrong, as it is asked about in putting back. */
function couldBreak({ event }: FixRow, machine: Machine): string {
  const general: readonly string[] = ["guards", "tools", "turned-all"];
  const asked = putBackPoints(machine, { toPutBack: { sinceSeq: 0, events: [event], wasLockedOut: false }, unturned: [] });
  const own = asked.filter(({ id }) => !general.includes(id));
  return own.length === 0 ? "" : ` To be looked at afterwards: ${own.map(({ id }) => id.replaceAll("-", " ")).join(", ")}.`;
}
