"use client";

import { useState } from "react";
import { type Answers, isLockOut, itemsFor, type SafeState, type SafetyItem, statesOf } from "@/core/job/safety";
import { mayRun, type Stands } from "@/core/job/status";
import { cutters } from "@/core/machine";
import type { JobView } from "@/data/job/job-view";
import { Choice } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { ReasonForm } from "@/ui/reason-form";
import { DEFER } from "@/ui/words/cautions";
import { labelOfCheck } from "@/ui/words/diagnosis";
import { STATE_WORDS } from "@/ui/words/issues";
import type { Act } from "../act";
import type { PanelId } from "../panel-id";
import { Trouble } from "../trouble";
import { Points, Stopped } from "./points";
import { RunReasons } from "./run-reasons";

const LABELS: Record<SafeState, string> = {
  parked: "Parked",
  "locked-out": "Locked out",
  raised: "Raised",
  "deck-removed": "Deck removed",
  bench: "Bench",
  running: "Ready to run",
};

type SafeDraft = { state: SafeState; answers: Answers; parts: string[] };

/**
 * Point by point, by touch: nothing that puts hands near an edge opens before. What is ticked and not confirmed belongs to who ticked it, in
 * this job, and stands ready under nobody else's name.
 */
export function SafePanel({
  view,
  act,
  wanted,
  open,
  timeOf,
}: {
  view: JobView;
  act: Act;
  wanted: SafeState;
  open: (panel: PanelId) => void;
  timeOf: (iso: string) => string;
}) {
  const { who } = useSeat();
  const { machine } = view.machine;
  const { machineState } = view;
  const { value, set, clear, ticket } = useDraft<SafeDraft>(
    `job:${view.id}:safe`,
    { state: wanted, answers: {}, parts: partsInHand(view) },
    { isOnesOwn: true },
  );
  const [stopped, setStopped] = useState<string[]>([]);
  const state = statesOf(machine).includes(value.state) ? value.state : "locked-out";
  const items = itemsFor(machine, state);
  const parts = cutters(machine);
  const answer = (id: string, next: Answers[string]) => set((draft) => ({ ...draft, answers: { ...draft.answers, [id]: next } }));
  const isComplete = items.every(({ id }) => value.answers[id] !== undefined) && (state !== "bench" || value.parts.length > 0);
  const ready = mayRun(machineState, { to: "make-ready", who: who ?? "" });
  const reasons = state === "running" ? ready.reasons : [];
  const others = machineState.locks.filter((lock) => lock.who !== who);
  const mine = machineState.locks.find((lock) => lock.who === who);
  const send = async (answers: Answers) => {
    const own = Object.fromEntries(items.flatMap(({ id }) => (answers[id] ? [[id, answers[id]]] : [])));
    const sent = await act.send<{ outcome: "safe" | "stopped"; stoppedAt: string[] }>(
      "confirmations",
      { state, answers: own, ...(state === "bench" ? { parts: value.parts } : {}) },
      ticket,
    );
    if (!sent) return;
    setStopped(items.filter(({ id }) => sent.stoppedAt.includes(id)).map(({ text }) => text));
    clear();
  };
  const no = (item: SafetyItem) => send({ ...value.answers, [item.id]: { answer: "refused" } });
  const turnPart = (id: string) =>
    set((draft) => ({ ...draft, parts: draft.parts.includes(id) ? draft.parts.filter((one) => one !== id) : [...draft.parts, id] }));
  return (
    <div>
      <p className="text-sm text-soft">{DEFER}</p>
      {machineState.lapsed && (
        <p className="mt-2 border-l-4 border-watch pl-2 font-semibold">
          The machine was run since it was {STATE_WORDS[machineState.lapsed.state]}: confirm again.
        </p>
      )}
      <Stopped words={stopped} />
      {others.map((lock) => (
        <Locked key={lock.who} lock={lock} open={open} timeOf={timeOf} />
      ))}
      {mine && <OwnLock lock={mine} act={act} timeOf={timeOf} />}
      <Choice
        label="State"
        value={state}
        options={statesOf(machine).map((id) => [id, LABELS[id]] as const)}
        onChange={(next) => set((draft) => ({ ...draft, state: next }))}
      />
      <RunReasons view={view} reasons={reasons} open={open} here="safe" timeOf={timeOf} />
      {state === "running" && reasons.length === 0 && ready.onlyFor.length > 0 && (
        <p className="my-2 border-l-4 border-watch pl-2 font-semibold">
          Only for {ready.onlyFor.map(labelOfCheck).join(", ").toLowerCase()}: that has to be read running. Nothing is cut with before it is
          right.
        </p>
      )}
      {reasons.length === 0 && (
        <>
          {state === "bench" && (
            <fieldset className="py-1">
              <legend className="caps mb-1">What is on the bench</legend>
              <div className="flex flex-wrap gap-1">
                {parts.map(({ id, label }) => (
                  <button
                    key={id}
                    type="button"
                    aria-pressed={value.parts.includes(id)}
                    className={`btn px-3 ${value.parts.includes(id) ? "btn-on" : ""}`}
                    onClick={() => turnPart(id)}
                  >
                    {label}
                  </button>
                ))}
              </div>
              <p className="mt-1 text-sm text-soft">The machine itself stays as it is: {standsWords(machineState.stands)}.</p>
            </fieldset>
          )}
          <Points items={items} answers={value.answers} onAnswer={answer} onNo={no} isBusy={act.isBusy} />
          <button type="button" className="btn btn-go mt-3 w-full" disabled={!isComplete || act.isBusy} onClick={() => send(value.answers)}>
            {who ? `I, ${who}, confirm: ${STATE_WORDS[state]}` : `Confirm: ${STATE_WORDS[state]}`}
          </button>
        </>
      )}
      <Trouble act={act} />
      {machineState.stands && machineState.stands.state !== "running" && (
        <RunSince
          jobId={view.id}
          isAgainst={mayRun(machineState, { to: "cut", who }).reasons.some(({ code }) => code !== "not-ready")}
          act={act}
        />
      )}
    </div>
  );
}

/** What goes to the bench is most often what was found wrong; of one blade or unit alone there is no question. */
function partsInHand({ machine: { machine }, takes }: JobView): string[] {
  const ids = cutters(machine).map(({ id }) => id);
  // What was read again since is found no more.
  const last = takes.filter((take, k) => !takes.slice(k + 1).some(({ checkId }) => checkId === take.checkId));
  const found = last.flatMap(({ result }) => result.findings.filter(({ verdict }) => verdict === "out" || verdict === "stop"));
  return ids.length === 1 ? ids : ids.filter((id) => found.some(({ place }) => place === id));
}

/** Somebody ran it since: against something that keeps it from running, that is told in words, and lets go of nothing. */
function RunSince({ jobId, isAgainst, act }: { jobId: number; isAgainst: boolean; act: Act }) {
  const [isTelling, setIsTelling] = useState(false);
  const tell = (words?: string) => act.send("events", { event: "run", ...(words ? { words } : {}) });
  if (isAgainst && isTelling)
    return (
      <ReasonForm
        keep={`job:${jobId}:run-since`}
        label="Who ran it all the same, and what for"
        button="It was run since"
        most={500}
        isBusy={act.isBusy}
        onSend={tell}
      />
    );
  return (
    <button type="button" className="btn mt-2 w-full" disabled={act.isBusy} onClick={() => (isAgainst ? setIsTelling(true) : tell())}>
      It was run since
    </button>
  );
}

const standsWords = (stands: Stands | undefined) => (stands ? (STATE_WORDS[stands.state] ?? stands.state) : "not made safe");

/** Somebody else's body rests on this: said with the name, lifted only by that one or with a reason. */
function Locked({ lock, open, timeOf }: { lock: Stands; open: (panel: PanelId) => void; timeOf: (iso: string) => string }) {
  return (
    <div className="mt-2 border-2 border-mark p-2">
      <p className="text-lg leading-tight font-bold">
        {lock.who} is locked on: {STATE_WORDS[lock.state]} since {timeOf(lock.at)}.
      </p>
      <p className="text-sm">You may lock on as well. Only {lock.who} lifts this one; somebody else with a reason.</p>
      <button type="button" className="btn btn-stop mt-1" onClick={() => open("held")}>
        Lift it with a reason
      </button>
    </div>
  );
}

function OwnLock({ lock, act, timeOf }: { lock: Stands; act: Act; timeOf: (iso: string) => string }) {
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2 border-l-4 border-good pl-2">
      <span className="grow font-semibold">
        You are locked on: {STATE_WORDS[lock.state]} since {timeOf(lock.at)}.
      </span>
      {isLockOut(lock.state) && (
        <button type="button" className="btn" disabled={act.isBusy} onClick={() => act.send("lift", { owner: lock.who })}>
          Take my lock off
        </button>
      )}
    </div>
  );
}
