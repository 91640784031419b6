"use client";

import { isSubstantial } from "@/core/job/safety";
import type { Machine } from "@/core/machine";
import type { JobView } from "@/data/job/job-view";
import { sayPlace } from "@/ui/checks/words";
import { VerdictLine } from "@/ui/verdict";

type TakeOf = JobView["takes"][number];

/** The newest take of a check that counts, 0 where there is none. */
export function newestTake(view: JobView, checkId: string): number {
  return Math.max(0, ...view.takes.filter((take) => take.checkId === checkId).map(({ stepId }) => stepId));
}

/** What somebody else read of this check since the figures in hand were begun. */
export function readSince(args: {
  view: JobView;
  checkId: string;
  seenStepId: number | undefined;
  who: string | undefined;
}): TakeOf | undefined {
  const { view, checkId, seenStepId, who } = args;
  if (seenStepId === undefined) return undefined;
  return view.takes.findLast((take) => take.checkId === checkId && take.stepId > seenStepId && take.who !== who);
}

/** Shown before mine replaces it. */
export function ReadSince({
  take,
  machine,
  timeOf,
  onSeen,
}: {
  take: TakeOf;
  machine: Machine;
  timeOf: (iso: string) => string;
  onSeen: () => void;
}) {
  // A place stands under the group it was read with.
  const placeOf = (place: string) => sayPlace(take.checkId, machine, place.slice(place.indexOf(":") + 1));
  return (
    <div className="my-2 border-2 border-mark p-2" role="alert">
      <p className="leading-snug font-bold">
        {take.who} has read this meanwhile, {timeOf(take.at)}:
      </p>
      <VerdictLine verdict={take.verdict} />
      <ul className="num text-sm">
        {take.readings.slice(0, 8).map(({ id, place, asTyped, value }) => (
          <li key={id}>
            {placeOf(place)}: {asTyped ?? Number(value.toPrecision(4))}
          </li>
        ))}
      </ul>
      <button type="button" className="btn mt-1 w-full" onClick={onSeen}>
        Seen. Mine is the later reading
      </button>
    </div>
  );
}

/** Whether a take stopped the machine: taking that away wants a reason. */
export function holdsMachine(take: TakeOf): boolean {
  return take.result.findings.some(({ verdict }) => verdict === "stop");
}

/** What was wrong with a reading that stopped the machine. */
export function CorrectionReason({ value, onChange }: { value: string; onChange: (value: string) => void }) {
  const isShort = value.trim() !== "" && !isSubstantial(value);
  return (
    <div className="my-2">
      <label htmlFor="correction-reason" className="block leading-snug font-semibold">
        This reading stopped the machine. What was wrong with it?
      </label>
      <input
        id="correction-reason"
        className="input mt-1"
        value={value}
        autoComplete="off"
        aria-invalid={isShort}
        aria-describedby="correction-reason-help"
        onChange={(event) => onChange(event.target.value)}
      />
      <p id="correction-reason-help" className={isShort ? "trouble" : "text-sm text-soft"}>
        In a few words; wanted where the correction lets the machine go.
      </p>
    </div>
  );
}
