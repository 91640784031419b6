"use client";

import { Undo2 } from "lucide-react";
import { useEffect, useRef } from "react";
import { isFromBeforeClosing } from "@/core/job/jobs";
import type { JobView } from "@/data/job/job-view";
import { useDraft } from "@/ui/draft";
import { LeftBy } from "@/ui/left-by";
import type { Act } from "../act";
import { type StepRow, sayStep } from "./said";

/** What was done, minute by minute; nothing ever leaves it. */
export function Timeline({ view, act, timeOf }: { view: JobView; act: Act; timeOf: (iso: string) => string }) {
  const strip = useRef<HTMLOListElement>(null);
  const count = view.steps.length;
  useEffect(() => {
    if (count > 0) strip.current?.scrollTo({ left: strip.current.scrollWidth });
  }, [count]);
  const last = view.steps.find(({ id }) => id === view.undoableStepId);
  return (
    <section aria-label="What was done" className="flex min-h-0 items-stretch border-t-2 border-ink bg-sheet">
      <ol ref={strip} className="flex min-w-0 flex-1 overflow-x-auto" tabIndex={0} aria-label="Timeline">
        {view.steps.map((step) => (
          <li key={step.id} className={`w-40 shrink-0 border-r border-rule px-3 py-2 ${step.isUndone ? "opacity-70" : ""}`}>
            <div className="num text-xs text-soft">
              {timeOf(step.at)} · {step.who}
            </div>
            <div className={`line-clamp-2 text-sm leading-tight ${step.isUndone ? "line-through" : ""}`}>{sayStep(step, view)}</div>
          </li>
        ))}
      </ol>
      {view.state !== "closed" && <AddNote jobId={view.id} act={act} />}
      <UndoLast
        jobId={view.id}
        last={last}
        words={last ? sayStep(last, view) : ""}
        ask={last && isFromBeforeClosing(view.steps, last) ? "From before it was closed: why is it taken back?" : ASK_OF_HOLDING}
        act={act}
      />
    </section>
  );
}

const ASK_OF_HOLDING = "It holds the machine: why is it taken back?";

/** Takes the last step back; where that lets go of something that holds the machine, or goes behind a closing, the reason is asked for before it is written. */
function UndoLast({ jobId, last, words, ask, act }: { jobId: number; last: StepRow | undefined; words: string; ask: string; act: Act }) {
  const { value, set, clear } = useDraft(`job:${jobId}:undo:${last?.id ?? 0}`, { reason: "" });
  const { reason } = value;
  const wantsReason =
    act.issues.some(({ code, path }) => code === "reason-of-substance" && path[0] === "reason") && act.lastAction === "undo";
  const undo = async () => {
    if (last && (await act.send("undo", { stepId: last.id, ...(reason ? { reason } : {}) }))) clear();
  };
  return (
    <div className="flex shrink-0 items-center">
      {wantsReason && (
        <form
          className="flex gap-1 py-2"
          onSubmit={(event) => {
            event.preventDefault();
            undo();
          }}
        >
          <input
            className="input w-72 max-sm:w-40"
            aria-label="Why it is taken back"
            placeholder={ask}
            value={reason}
            aria-invalid={true}
            onChange={(event) => set({ reason: event.target.value })}
          />
        </form>
      )}
      <button
        type="button"
        className="btn m-2 shrink-0"
        disabled={!last || act.isBusy}
        onClick={undo}
        aria-label={last ? `Undo: ${words}` : "Nothing to undo"}
      >
        <Undo2 size={18} aria-hidden="true" />
        Undo
      </button>
    </div>
  );
}

/** A few words for the record, at any time. */
function AddNote({ jobId, act }: { jobId: number; act: Act }) {
  const { value, set, clear, ticket, left } = useDraft(`job:${jobId}:note`, { isOpen: false, text: "" });
  const { text } = value;
  const setText = (next: string) => set({ isOpen: true, text: next });
  if (!value.isOpen) {
    return (
      <span className="flex shrink-0 items-center gap-1">
        <button type="button" className="btn my-2 shrink-0" onClick={() => setText("")}>
          Note
        </button>
        <LeftBy left={left} />
      </span>
    );
  }
  return (
    <form
      className="my-2 flex shrink-0 gap-1"
      onSubmit={async (event) => {
        event.preventDefault();
        if (text.trim() && (await act.send("notes", { text }, ticket))) clear();
      }}
    >
      <input className="input w-72 max-sm:w-40" aria-label="Note" value={text} onChange={(event) => setText(event.target.value)} />
      <button type="submit" className="btn" disabled={text.trim() === "" || act.isBusy}>
        Write
      </button>
    </form>
  );
}
