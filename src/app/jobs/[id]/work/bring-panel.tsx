"use client";

import { useState } from "react";
import { CHECKS, type CheckId, type CheckRow, FIX_LABELS, FIXES, type FixId, type FixRow } from "@/core/catalogue";
import type { WorkUp } from "@/core/diagnosis";
import { toolsFor } from "@/core/job/tools";
import type { JobView } from "@/data/job/job-view";
import { useSeat } from "@/ui/person";
import { labelOfCheck } from "@/ui/words/diagnosis";
import { sayTool } from "@/ui/words/tools";
import { listSteps } from "../steps";

const fixRows: readonly FixRow[] = FIXES;
const checkIds: readonly CheckRow[] = CHECKS;
/** Fixes are looked ahead to for causes at least this likely. */
const LIKELY = 0.15;
const MOST_CAUSES = 4;

/** One list of what the checks and the likely fixes ahead want, before anybody leaves the bench. */
export function BringPanel({ view, workUp }: { view: JobView; workUp: WorkUp | undefined }) {
  const { system } = useSeat();
  const [packed, setPacked] = useState<readonly string[]>([]);
  const ahead = listSteps(view, workUp).flatMap(({ panel, status }) =>
    panel.startsWith("check:") && status !== "done" ? [panel.slice("check:".length)] : [],
  );
  const checks = checkIds.filter(({ id }) => ahead.includes(id)).map(({ id }) => id as CheckId);
  const causes = (workUp?.diagnosis.causes ?? []).filter(({ probability }) => probability >= LIKELY).slice(0, MOST_CAUSES);
  const fixes = [
    ...new Set(causes.flatMap(({ id }) => fixRows.filter((row) => row.cause === id).slice(0, 1)).map(({ fix }) => fix as FixId)),
  ];
  const tools = toolsFor(view.machine.machine, { checks, fixes });
  if (tools.length === 0) return <p>No check and no fix is ahead: nothing to bring.</p>;
  return (
    <div>
      <p className="text-soft">
        For {checks.length} {checks.length === 1 ? "check" : "checks"} and {fixes.length} likely {fixes.length === 1 ? "fix" : "fixes"}.
        Sizes from the machine’s sheet.
      </p>
      <ul className="ruled mt-2">
        {tools.map(({ tool, for: uses }) => {
          const words = sayTool(tool, system);
          const isPacked = packed.includes(words);
          return (
            <li key={words}>
              <label className="flex min-h-11 cursor-pointer items-start gap-3 py-1.5">
                <input
                  type="checkbox"
                  className="mt-1 size-6 shrink-0"
                  checked={isPacked}
                  onChange={() => setPacked((before) => (isPacked ? before.filter((one) => one !== words) : [...before, words]))}
                />
                <span className={isPacked ? "text-soft line-through" : ""}>
                  <span className="text-lg leading-tight font-semibold">{words}</span>
                  <span className="block text-sm leading-snug text-soft">{uses.map(nameOf).join(", ")}</span>
                </span>
              </label>
            </li>
          );
        })}
      </ul>
    </div>
  );
}

function nameOf(id: CheckId | FixId): string {
  return id in FIX_LABELS ? FIX_LABELS[id as FixId].toLowerCase() : labelOfCheck(id).toLowerCase();
}
