"use client";

import { EVENTS } from "@/core/catalogue";
import type { StaleReason } from "@/core/job/staleness";
import type { JobView } from "@/data/job/job-view";
import { useSeat } from "@/ui/person";
import { sayStale } from "@/ui/words/quantities";

/** Why the last reading no longer holds: what was changed, when, by whom, and how far it is reckoned to have moved what. */
export function StaleNote({ view, stale, timeOf }: { view: JobView; stale: readonly StaleReason[]; timeOf: (iso: string) => string }) {
  const { system } = useSeat();
  const told = { machine: view.machine.machine, system };
  return (
    <p className="my-2 border-l-4 border-watch pl-3 leading-snug">
      <strong>The last reading no longer holds:</strong>{" "}
      {stale
        .map((reason) =>
          sayStale(reason, {
            ...told,
            label: EVENTS.find(({ id }) => id === reason.event)?.label ?? reason.event,
            time: timeOf(reason.at),
          }),
        )
        .join("; ")}
      .
    </p>
  );
}
