"use client";

import { useState } from "react";
import type { CauseId, CheckRow } from "@/core/catalogue";
import { EXPLAINED_LEVEL, type WorkUp } from "@/core/diagnosis";
import type { JobView } from "@/data/job/job-view";
import { labelOfCause, labelOfCheck, SKIP_WORDS } from "@/ui/words/diagnosis";
import type { Act } from "../act";
import type { PanelId } from "../panel-id";
import { SecondLook, takeFor } from "./second-look";

type Args = { view: JobView; workUp: WorkUp | undefined; row: CheckRow; act: Act; open: (panel: PanelId) => void };

const skipOf = (view: JobView, row: CheckRow) => view.skips.find(({ checkId }) => checkId === row.id);

/** Why this check now, what must be right before it is set, and a way past it that asks why. */
export function WhyThis(args: Args) {
  const { view, workUp, row, act } = args;
  const skipped = skipOf(view, row);
  const place = workUp?.plan.checks.findIndex(({ id }) => id === row.id) ?? -1;
  const next = workUp?.plan.checks[place];
  if (view.state === "closed") return null;
  if (skipped) return <LeftOut skipped={skipped} act={act} />;
  const proves = view.proof.gaps.some((gap) => "check" in gap && gap.check === row.id);
  if (proves) return <p className="mb-2 leading-snug">It proves what was mended: without it the job is not proved.</p>;
  if (!workUp || !next) return null;
  if (next.again) return <LookAgain {...args} />;
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
      <LeaveOut row={row} act={act} />
    </div>
  );
}

function LeftOut({ skipped, act }: { skipped: JobView["skips"][number]; act: Act }) {
  const { checkId, who, reason } = skipped;
  return (
    <p className="mb-2 flex flex-wrap items-center gap-2 border-l-4 border-watch pl-2">
      <span className="grow">
        Left out by {who}: {SKIP_WORDS[reason]}.
      </span>
      <button type="button" className="btn" disabled={act.isBusy} onClick={() => act.send("skips", { checkId, reason: "back" })}>
        Take it in again
      </button>
    </p>
  );
}

function LeaveOut({ row, act }: { row: CheckRow; act: Act }) {
  const [isAsking, setAsking] = useState(false);
  if (!isAsking)
    return (
      <button type="button" className="btn btn-quiet !px-0 text-sm" onClick={() => setAsking(true)}>
        Leave it out
      </button>
    );
  return (
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
  );
}

/**
 * Made already, and offered once more: by one touch where something stands on one look, by reading it again where something may have been missed, or
 * where what was seen is of an earlier reading.
 */
export function LookAgain(args: Args) {
  const { view, workUp, row, act } = args;
  if (view.state === "closed") return null;
  const skipped = skipOf(view, row);
  if (skipped) return <LeftOut skipped={skipped} act={act} />;
  const next = workUp?.plan.checks.find(({ id }) => id === row.id);
  if (!workUp || !next?.again) return null;
  const byTouch = next.again.filter((cause) => takeFor(view, cause)?.checkId === row.id);
  return (
    <div className="mb-2">
      {byTouch.map((cause) => (
        <SecondLook key={cause} {...args} cause={cause} isOffered />
      ))}
      {byTouch.length === 0 && <p className="leading-snug">{sayReadAgain(workUp, next.again, next.minutes)}</p>}
      <LeaveOut row={row} act={act} />
    </div>
  );
}

function sayReadAgain({ diagnosis }: WorkUp, causes: readonly CauseId[], minutes: number): string {
  const named = causes.map((id) => labelOfCause(id).toLowerCase()).join(", ");
  const isSeen = diagnosis.causes.some(({ id, isBackedByCheck }) => isBackedByCheck && causes.includes(id));
  const again = `Read it once more, ${Math.max(1, Math.round(minutes))} min`;
  return isSeen
    ? `${again}: ${named} stands on one look so far.`
    : `Nothing else is left that would tell. ${again}: it may have missed ${named}.`;
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
