"use client";

import { useState } from "react";
import { EXPLAINED_LEVEL, type WorkUp } from "@/core/diagnosis";
import type { CheckRow } from "@/core/trade";
import type { JobView } from "@/data/job-view";
import { labelOfCause, labelOfCheck, SKIP_WORDS } from "@/ui/words/diagnosis";
import type { Act } from "./act";
import { SecondLook, takeFor } from "./second-look";
import type { PanelId } from "./steps";

/** Why this check now, what must be right before it is set, and a way past it that asks why. */
export function WhyThis({
  view,
  workUp,
  row,
  act,
  open,
}: {
  view: JobView;
  workUp: WorkUp | undefined;
  row: CheckRow;
  act: Act;
  open: (panel: PanelId) => void;
}) {
  const [isAsking, setAsking] = useState(false);
  const skipped = view.skips.find(({ checkId }) => checkId === row.id);
  const place = workUp?.plan.checks.findIndex(({ id }) => id === row.id) ?? -1;
  const next = workUp?.plan.checks[place];
  if (view.state === "closed") return null;
  if (skipped) {
    return (
      <p className="mb-2 flex flex-wrap items-center gap-2 border-l-4 border-watch pl-2">
        <span className="grow">
          Left out by {skipped.who}: {SKIP_WORDS[skipped.reason]}.
        </span>
        <button type="button" className="btn" disabled={act.isBusy} onClick={() => act.send("skips", { checkId: row.id, reason: "back" })}>
          Take it in again
        </button>
      </p>
    );
  }
  const proves = view.proof.gaps.some((gap) => "check" in gap && gap.check === row.id);
  if (proves) return <p className="mb-2 leading-snug">It proves what was mended: without it the job is not proved.</p>;
  if (!workUp || !next) return null;
  if (next.again) return <LookAgain view={view} workUp={workUp} row={row} act={act} open={open} />;
  return (
    <div className="mb-2">
      <p className="leading-snug">
        {place === 0 ? sayFirst(workUp) : sayLater(workUp, place)}
        {next.waitsFor.length > 0 && (
          <span className="font-semibold">
            {" "}
            Look now if you like, but set nothing before {next.waitsFor.map((id) => labelOfCheck(id).toLowerCase()).join(" and ")}.
          </span>
        )}
      </p>
      {isAsking ? (
        <fieldset className="mt-1">
          <legend className="caps mb-1">Why leave it out?</legend>
          <div className="flex flex-wrap gap-1">
            {Object.entries(SKIP_WORDS).map(([reason, words]) => (
              <button
                key={reason}
                type="button"
                className="btn px-3"
                disabled={act.isBusy}
                onClick={async () => {
                  if (await act.send("skips", { checkId: row.id, reason })) setAsking(false);
                }}
              >
                {words}
              </button>
            ))}
            <button type="button" className="btn btn-quiet" onClick={() => setAsking(false)}>
              Keep it
            </button>
          </div>
        </fieldset>
      ) : (
        <button type="button" className="btn btn-quiet !px-0 text-sm" onClick={() => setAsking(true)}>
          Leave it out
        </button>
      )}
    </div>
  );
}

/** Made already, and offered once more: by one touch where something stands on one look, by reading it again where something may have been missed. */
export function LookAgain({
  view,
  workUp,
  row,
  act,
  open,
}: {
  view: JobView;
  workUp: WorkUp | undefined;
  row: CheckRow;
  act: Act;
  open: (panel: PanelId) => void;
}) {
  const next = workUp?.plan.checks.find(({ id }) => id === row.id);
  if (!next?.again || view.state === "closed") return null;
  const { again: causes, minutes } = next;
  const standing = causes.filter((cause) => takeFor(view, cause));
  const missed = causes.filter((cause) => !standing.includes(cause));
  return (
    <div className="mb-2">
      {standing.map((cause) => (
        <SecondLook key={cause} view={view} workUp={workUp} cause={cause} act={act} open={open} />
      ))}
      {standing.length === 0 && (
        <p className="leading-snug">
          Nothing else is left that would tell. Read it once more, {Math.max(1, Math.round(minutes))} min: it may have missed{" "}
          {missed.map((id) => labelOfCause(id).toLowerCase()).join(", ")}.
        </p>
      )}
    </div>
  );
}

function sayFirst({ plan, settles, tie, diagnosis }: WorkUp): string {
  const [first] = plan.checks;
  if (!first) return "";
  const [leader] = diagnosis.causes;
  if (leader && leader.presence >= EXPLAINED_LEVEL && !leader.isBackedByCheck && first.tells.includes(leader.id)) {
    return `${leader.label} is very likely: ${first.minutes} minutes prove it or clear it.`;
  }
  const ready = first.setUpMinutes > 0 ? ` (${first.setUpMinutes} of them making ready)` : "";
  const [one, other] = settles.map((id) => labelOfCause(id).toLowerCase());
  const would = one && other ? `: tells ${one} from ${other}` : one ? `: proves or clears ${one}` : "";
  const tied = tie?.check === first.id ? ` It tells the two leaders apart.` : "";
  return `Tells most for its ${first.minutes} minutes${ready}${would}.${tied}`;
}

function sayLater({ plan }: WorkUp, place: number): string {
  const [first] = plan.checks;
  const here = plan.checks[place];
  if (!first || !here) return "";
  const share = first.bitsPerMinute > 0 ? Math.round((100 * here.bitsPerMinute) / first.bitsPerMinute) : 0;
  const order = `Number ${place + 1} on the list`;
  return share >= 1 && share < 100
    ? `${order}: a minute here tells ${share} % of what a minute of ${first.label.toLowerCase()} would.`
    : `${order}.`;
}
