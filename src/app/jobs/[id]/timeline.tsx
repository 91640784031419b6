"use client";

import { Undo2 } from "lucide-react";
import { useEffect, useRef } from "react";
import { gradeCut } from "@/core/jobs";
import type { Machine } from "@/core/machine";
import { partLabel } from "@/core/sequences/rebuild";
import { CHECKS, EVENTS, FIX_LABELS, type FixId } from "@/core/trade";
import type { JobView } from "@/data/job-view";
import { useDraft } from "@/ui/draft";
import { LeftBy } from "@/ui/left-by";
import { labelOfCause, labelOfCheck, labelOfContext, labelOfSymptom, SKIP_WORDS } from "@/ui/words/diagnosis";
import { STATE_WORDS } from "@/ui/words/issues";
import { GRADE_WORDS } from "@/ui/words/proof";
import { placeName, VERDICT_WORDS } from "@/ui/words/quantities";
import type { Act } from "./act";

type StepRow = JobView["steps"][number];

const YES_NO: Record<string, string> = { present: "yes", denied: "no", unknown: "not known", true: "yes", false: "no" };

function sayAnswers({ symptoms, contexts }: { symptoms: object; contexts: object }): string {
  const said = [
    ...Object.entries(symptoms).map(([id, state]) => `${labelOfSymptom(id)} ${YES_NO[String(state)]}`),
    ...Object.entries(contexts).map(([id, isSo]) => `${labelOfContext(id)} ${YES_NO[String(isSo)]}`),
  ];
  return said.join(", ");
}

/** What a step of taking back took back. */
function undone(step: StepRow, view: Pick<JobView, "complaints" | "proof" | "steps" | "machine">): string {
  const taken = view.steps.find(({ id }) => id === step.undoesId);
  const words = taken && taken.kind !== "undo" ? sayStep(taken, view) : "a step";
  return `${words.charAt(0).toLowerCase()}${words.slice(1)}`;
}

/** A step in a few words. */
/** The units a fix was done on, where it names them. */
const onUnits = (units: readonly string[] | undefined, machine: Machine): string =>
  units?.length ? `: ${units.map((unit) => placeName(machine, unit).toLowerCase()).join(", ")}` : "";

export function sayStep(step: StepRow, view: Pick<JobView, "complaints" | "proof" | "steps" | "machine">): string {
  switch (step.kind) {
    case "complaint": {
      const complaint = view.complaints.find(({ id }) => id === step.data.complaintId);
      return `Complaint from ${complaint?.saidBy ?? "?"}`;
    }
    case "guess":
      return `First guess: ${labelOfCause(step.data.cause)}`;
    case "answer":
      return `Asked: ${sayAnswers(step.data)}`;
    case "skip":
      return step.data.reason === "back"
        ? `${labelOfCheck(step.data.checkId)}: taken in again`
        : `${labelOfCheck(step.data.checkId)} left out: ${SKIP_WORDS[step.data.reason]}`;
    case "confirmation":
      return step.data.outcome === "safe"
        ? `Made safe: ${STATE_WORDS[step.data.state]}`
        : `Stopped, not so: ${step.data.stoppedAt.join("; ") || "a firm point"}`;
    case "put-back":
      return step.data.outcome === "safe" ? "Put back, turned by hand" : `Stopped, not so: ${step.data.stoppedAt.join("; ")}`;
    case "lift":
      return step.data.owner === step.who ? "Took own lock-out off" : `Lifted ${step.data.owner}’s lock-out: ${step.data.reason}`;
    case "handover":
      return `Handed over to ${step.data.to}: ${step.data.what}, ${step.data.owes.join("; ")}`;
    case "take": {
      const label = CHECKS.find(({ id }) => id === step.data.checkId)?.label;
      return `${step.data.correctsStepId ? "Corrected: " : ""}${label}: ${VERDICT_WORDS[step.data.verdict as keyof typeof VERDICT_WORDS].toLowerCase()}${step.data.reason ? `, since ${step.data.reason}` : ""}`;
    }
    case "second-look":
      return `${labelOfCause(step.data.cause)}: looked once more, ${step.data.isStillSo ? "still so" : "not so"}`;
    case "fix":
      return `${FIX_LABELS[step.data.fix as FixId] ?? step.data.fix}${onUnits(step.data.units, view.machine.machine)}`;
    case "deck":
      return `Deck ${step.data.way === "off" ? "coming off" : "going on"}: ${step.data.step.replaceAll("-", " ")}`;
    case "rebuild":
      return "tightened" in step.data
        ? `Tightened: ${partLabel(step.data.tightened).toLowerCase()}`
        : `Gearbox ${step.data.way === "off" ? "apart" : "together"}: ${step.data.step.replaceAll("-", " ")}`;
    case "guided":
      return `${step.data.round === "blade" ? "Blade" : "Spindle"} ${step.data.place.replaceAll("-", " ")}, ${step.data.way}: ${step.data.step.replaceAll("-", " ")}`;
    case "own-list":
      return `Own list told: ${step.data.place.replaceAll("-", " ")}`;
    case "photograph":
      return `Photograph: ${step.data.about}`;
    case "test-cut":
      return `Test cut: ${GRADE_WORDS[gradeCut(step.data, view.proof.wanted)]}`;
    case "note":
      return step.data.text;
    case "event":
      return EVENTS.find(({ id }) => id === step.data.event)?.label ?? step.data.event;
    case "hold":
      return `Held out: ${step.data.reason}`;
    case "release":
      return `Released without reading: ${step.data.reason}`;
    case "close":
      return step.data.isProved ? "Closed, proved" : "Closed, not proved";
    case "undo":
      return `Taken back: ${undone(step, view)}${step.data.reason ? `, since ${step.data.reason}` : ""}`;
  }
}

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
      <UndoLast jobId={view.id} last={last} words={last ? sayStep(last, view) : ""} act={act} />
    </section>
  );
}

/** Takes the last step back; where that lets go of something that holds the machine, the reason is asked for before it is written. */
function UndoLast({ jobId, last, words, act }: { jobId: number; last: StepRow | undefined; words: string; act: Act }) {
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
            placeholder="It holds the machine: why is it taken back?"
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
