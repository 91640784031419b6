"use client";

import type { PanelId } from "./panel-id";
import type { Stage } from "./steps";

/** What to do next, and how long it takes. */
export type NextThing = { panel: PanelId; label: string; minutes?: number | undefined; isHere: boolean; isDone: boolean };

/** Where the job stands, from the complaint to its close, and what comes next: always on the screen. */
export function Stages({ stages, next, open }: { stages: readonly Stage[]; next: NextThing; open: (panel: PanelId) => void }) {
  return (
    <div className="flex flex-wrap items-stretch gap-x-3 border-t border-rule px-3 max-lg:py-1">
      <nav aria-label="Stages of the job" className="relative min-w-0 max-lg:w-full max-lg:overflow-x-auto">
        <ol className="flex">
          {stages.map((stage) => (
            <li key={stage.id}>
              <StageButton stage={stage} onOpen={() => open(stage.panel)} />
            </li>
          ))}
        </ol>
      </nav>
      <div className="ml-auto flex min-w-0 items-center py-1 max-lg:w-full">
        {next.isDone ? null : next.isHere ? (
          <p className="truncate text-lg leading-tight font-bold">
            Now: {next.label.toLowerCase()}
            {next.minutes ? `, ${next.minutes} min` : ""}
          </p>
        ) : (
          <button type="button" className="btn btn-go max-w-full !min-h-11 max-lg:w-full" onClick={() => open(next.panel)}>
            <span className="truncate">
              Next: {next.label.toLowerCase()}
              {next.minutes ? `, ${next.minutes} min` : ""} →
            </span>
          </button>
        )}
      </div>
    </div>
  );
}

const STATUS: Record<Stage["status"], { sign: string; words: string }> = {
  done: { sign: "✓", words: "done" },
  bad: { sign: "!", words: "not right" },
  stale: { sign: "↻", words: "to be done again" },
  open: { sign: "", words: "open" },
};

function StageButton({ stage, onOpen }: { stage: Stage; onOpen: () => void }) {
  const { label, status, isHere, isNext, order } = stage;
  const { sign, words } = STATUS[status];
  return (
    <button
      type="button"
      onClick={onOpen}
      aria-current={isHere ? "step" : undefined}
      {...(order === undefined ? {} : { "aria-keyshortcuts": `Alt+${order}` })}
      className={`flex min-h-11 items-center gap-1 border-b-4 px-3 whitespace-nowrap max-lg:px-2 ${isHere ? "border-[var(--dye-text)] font-bold" : isNext ? "border-rule font-semibold" : "border-transparent"} ${status === "bad" ? "text-mark" : status === "open" && !isHere && !isNext ? "text-soft" : ""}`}
    >
      {label}
      <span aria-hidden="true">{sign}</span>
      <span className="sr-only">
        {words}
        {isNext ? ", next" : ""}
      </span>
    </button>
  );
}
