"use client";

import { useState } from "react";
import type { CheckState } from "@/core/diagnosis";
import { type Answers, DEFER, itemsFor } from "@/core/safety";
import type { JobView } from "@/data/job-view";
import { Choice } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { STATE_WORDS } from "@/ui/words/issues";
import type { Act } from "./act";
import { Trouble } from "./trouble";

const STATES = [
  ["parked", "Parked"],
  ["locked-out", "Locked out"],
  ["raised", "Raised"],
  ["running", "Running"],
  ["bench", "Bench"],
] as const;

/** Point by point, by touch: nothing that puts hands near an edge opens before. */
export function SafePanel({ view, act, wanted }: { view: JobView; act: Act; wanted: CheckState }) {
  const { who } = useSeat();
  const { value, set, clear } = useDraft<{ state: CheckState; answers: Answers }>(`job:${view.id}:safe`, {
    state: wanted,
    answers: {},
  });
  const [stopped, setStopped] = useState<string[]>([]);
  const items = itemsFor(view.machine.machine, value.state);
  const answer = (id: string, next: Answers[string]) => set((draft) => ({ ...draft, answers: { ...draft.answers, [id]: next } }));
  const isComplete = items.every(({ id }) => value.answers[id] !== undefined);
  const save = async () => {
    const answers = Object.fromEntries(items.flatMap(({ id }) => (value.answers[id] ? [[id, value.answers[id]]] : [])));
    const sent = await act.send<{ outcome: "safe" | "stopped"; stoppedAt: string[] }>("confirmations", { state: value.state, answers });
    if (!sent) return;
    setStopped(sent.stoppedAt);
    clear();
  };
  return (
    <div>
      <p className="text-sm text-soft">{DEFER}</p>
      {view.safe.lapsed && (
        <p className="mt-2 border-l-4 border-watch pl-2 font-semibold">
          The machine was run since it was {STATE_WORDS[view.safe.lapsed.state]}: confirm again.
        </p>
      )}
      {stopped.length > 0 && (
        <p className="mt-2 border-2 border-mark p-2 text-lg font-bold text-mark" role="alert">
          Stop. No work on this machine until:{" "}
          {items
            .filter(({ id }) => stopped.includes(id))
            .map(({ text }) => text.toLowerCase())
            .join("; ")}
          .
        </p>
      )}
      <Choice label="State" value={value.state} options={STATES} onChange={(state) => set((draft) => ({ ...draft, state }))} />
      <ul className="ruled mt-1">
        {items.map(({ id, text, isFirm }) => {
          const given = value.answers[id];
          return (
            <li key={id} className="py-1.5">
              <div className="grid grid-cols-[1fr_auto] items-center gap-2">
                <span className="leading-tight">
                  {text}
                  {isFirm && <span className="caps ml-2 !text-mark">firm</span>}
                </span>
                <span className="flex gap-1">
                  <button
                    type="button"
                    className={`btn px-3 ${given?.answer === "yes" ? "btn-on" : ""}`}
                    aria-pressed={given?.answer === "yes"}
                    aria-label={`Yes: ${text}`}
                    onClick={() => answer(id, { answer: "yes" })}
                  >
                    Yes
                  </button>
                  <button
                    type="button"
                    className={`btn px-3 ${given && given.answer !== "yes" ? "btn-on" : ""}`}
                    aria-pressed={given !== undefined && given.answer !== "yes"}
                    aria-label={`${isFirm ? "No" : "Not here"}: ${text}`}
                    onClick={() => answer(id, isFirm ? { answer: "refused" } : { answer: "not-here", reason: "" })}
                  >
                    {isFirm ? "No" : "Not here"}
                  </button>
                </span>
              </div>
              {given?.answer === "not-here" && (
                <label className="mt-1 block">
                  <span className="caps">Why not</span>
                  <input
                    className="input"
                    value={given.reason}
                    aria-invalid={given.reason === ""}
                    onChange={(event) => answer(id, { answer: "not-here", reason: event.target.value })}
                  />
                </label>
              )}
            </li>
          );
        })}
      </ul>
      <div className="mt-3 flex flex-wrap gap-2">
        <button type="button" className="btn btn-go grow" disabled={!isComplete || act.isBusy} onClick={save}>
          {who ? `I, ${who}, confirm: ${STATE_WORDS[value.state]}` : `Confirm: ${STATE_WORDS[value.state]}`}
        </button>
        {view.safe.inForce && (
          <button type="button" className="btn" disabled={act.isBusy} onClick={() => act.send("events", { event: "run" })}>
            It was run since
          </button>
        )}
      </div>
      <Trouble act={act} />
    </div>
  );
}
