"use client";

import { checkRow } from "@/core/checks";
import type { WorkUp } from "@/core/diagnosis";
import { spokenFor } from "@/core/job/jobs";
import type { JobView } from "@/data/job/job-view";
import { labelOfCause, labelOfCheck } from "@/ui/words/diagnosis";
import { hasPlace, placeName } from "@/ui/words/quantities";
import type { Act } from "../act";
import type { PanelId } from "../panel-id";
import { SafeGate } from "../safe/gate";
import { isSafeFor, latestTake } from "../steps";

/** The reading that a cause stands on: the latest of each check, where it still holds and speaks for it. */
export function takeFor(view: JobView, cause: string): JobView["takes"][number] | undefined {
  return view.takes.findLast(
    (take) =>
      latestTake(view, take.checkId)?.stepId === take.stepId && take.stale.length === 0 && spokenFor(take.result.evidence).includes(cause),
  );
}

/** What stands on one look is looked at once more before it is mended: one touch says whether it is still so. */
export function SecondLook({
  view,
  workUp,
  cause,
  act,
  open,
  isOffered = false,
}: {
  view: JobView;
  workUp: WorkUp | undefined;
  cause: string;
  act: Act;
  open: (panel: PanelId) => void;
  /** The list asks for it, whatever another check says already. */
  isOffered?: boolean;
}) {
  const ranked = [...(workUp?.diagnosis.causes ?? []), ...(workUp?.diagnosis.alsoWorthALook ?? [])].find(({ id }) => id === cause);
  const take = takeFor(view, cause);
  const row = take && checkRow(take.checkId);
  if (!take || !row || (ranked?.looks !== 1 && !isOffered)) return null;
  const { machine } = view.machine;
  const pointing = take.result.findings.filter(({ causes = [] }) => causes.some((one) => one.cause === cause));
  // Of its blades, wheels, hangers and units; what is read of the whole machine has no place to name.
  const where = [...new Set(pointing.map(({ place }) => place))]
    .filter((place) => hasPlace(machine, place))
    .map((place) => placeName(machine, place));
  const say = (isStillSo: boolean) => act.send("second-looks", { takeStepId: take.stepId, cause, isStillSo });
  return (
    <section aria-label="Look once more" className="my-1 border-l-4 border-watch px-2 py-1">
      <p className="leading-snug font-semibold">{labelOfCause(cause)}: on one look so far. Look at it once more.</p>
      <p className="text-sm leading-snug text-soft">
        {labelOfCheck(take.checkId)}: {where.length > 0 ? `${where.join(", ")}, ` : "the same place "}
        read again, from nothing. A slip of the eye or the gauge shows here, not after the parts are off.
      </p>
      {isSafeFor(view, row.state) ? (
        <div className="mt-1 flex gap-2">
          <button type="button" className="btn grow" disabled={act.isBusy} onClick={() => say(true)}>
            Still so
          </button>
          <button type="button" className="btn grow" disabled={act.isBusy} onClick={() => say(false)}>
            Not so
          </button>
        </div>
      ) : (
        <SafeGate needs={row.state} open={open} />
      )}
    </section>
  );
}
