"use client";

import { STANDPOINT_LABELS, type Standpoint } from "@/core/machine";

const STANDPOINTS = Object.keys(STANDPOINT_LABELS) as Standpoint[];

/** From where the machine is looked at. */
export function Standpoints({ standpoint, onStandpoint }: { standpoint: Standpoint; onStandpoint: (one: Standpoint) => void }) {
  return (
    <div role="toolbar" aria-label="Where I stand" className="flex flex-wrap gap-px border-b border-[var(--chalk-faint)]">
      {STANDPOINTS.map((one) => (
        <button
          key={one}
          type="button"
          aria-pressed={one === standpoint}
          onClick={() => onStandpoint(one)}
          className="min-h-11 flex-1 px-2 text-sm font-semibold text-[var(--chalk)] aria-pressed:bg-[var(--chalk)] aria-pressed:text-[#1a2566]"
        >
          {STANDPOINT_LABELS[one]}
        </button>
      ))}
    </div>
  );
}
