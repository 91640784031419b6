"use client";

import type { SafeState } from "@/core/job/safety";
import { STATE_WORDS } from "@/ui/words/issues";
import type { PanelId } from "../panel-id";

export function Cautions({ lines }: { lines: readonly string[] }) {
  if (lines.length === 0) return null;
  return (
    <ul className="my-2 border-l-4 border-watch pl-3 text-sm leading-snug" aria-label="Cautions">
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ul>
  );
}

export function SafeGate({ needs, open }: { needs: SafeState; open: (panel: PanelId, needs?: SafeState) => void }) {
  return (
    <div className="my-2 border-2 border-mark p-3">
      <p className="text-lg font-bold">Must be {STATE_WORDS[needs]} first.</p>
      <button type="button" className="btn btn-go mt-2 w-full" onClick={() => open("safe", needs)}>
        Make it safe
      </button>
    </div>
  );
}
