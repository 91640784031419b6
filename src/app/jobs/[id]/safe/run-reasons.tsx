"use client";

import type { RunReason } from "@/core/job/status";
import type { JobView } from "@/data/job/job-view";
import { sayClearing, sayReason } from "@/ui/words/state";
import type { PanelId } from "../panel-id";
import { panelOf } from "./clearing";

/** Every reason why the machine may not run, each leading to what clears it; reasons cleared by one thing share its button. */
export function RunReasons({
  view,
  reasons,
  open,
  here,
  timeOf,
}: {
  view: JobView;
  reasons: readonly RunReason[];
  open: (panel: PanelId) => void;
  /** The panel this stands in: what is cleared here needs no button. */
  here?: PanelId;
  timeOf: (iso: string) => string;
}) {
  if (reasons.length === 0) return null;
  const groups = new Map<string, RunReason[]>();
  for (const reason of reasons) {
    const key = JSON.stringify(reason.clears);
    groups.set(key, [...(groups.get(key) ?? []), reason]);
  }
  return (
    <section aria-label="Why it may not run" className="my-2 border-2 border-mark">
      <h3 className="bg-mark px-3 py-1 text-lg font-bold text-paper">May not run</h3>
      <ul className="ruled">
        {[...groups.values()].map((group) => {
          const [first] = group;
          if (!first) return null;
          const panel = panelOf(first.clears);
          return (
            <li key={JSON.stringify(first.clears)} className="px-3 py-2">
              {group.map((reason) => (
                <p key={JSON.stringify(reason)} className="leading-snug font-semibold">
                  {sayReason(reason, view.machine.machine, timeOf)}.
                </p>
              ))}
              {panel !== here && (
                <button type="button" className="btn btn-go mt-1 w-full" onClick={() => open(panel)}>
                  {sayClearing(first.clears)}
                </button>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
