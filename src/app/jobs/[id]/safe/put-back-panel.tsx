"use client";

import { useState } from "react";
import type { Answers, SafetyItem } from "@/core/job/safety";
import { mayRun, putBackPoints } from "@/core/job/status";
import type { JobView } from "@/data/job/job-view";
import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import type { Act } from "../act";
import type { PanelId } from "../panel-id";
import { Trouble } from "../trouble";
import { Cautions, SafeGate } from "./gate";
import { Points, Stopped } from "./points";
import { RunReasons } from "./run-reasons";

const CAUTIONS = ["Turning one blade turns its neighbours: one person, gloves on, hands off every other blade."];

/** What the work could have broken, guards, tools, everything turned by hand, lead or battery last: before anything runs again. */
export function PutBackPanel({
  view,
  act,
  open,
  timeOf,
}: {
  view: JobView;
  act: Act;
  open: (panel: PanelId) => void;
  timeOf: (iso: string) => string;
}) {
  const { who } = useSeat();
  const { machineState } = view;
  const { value, set, clear, ticket } = useDraft<{ answers: Answers }>(`job:${view.id}:put-back`, { answers: {} }, { isOnesOwn: true });
  const [stopped, setStopped] = useState<string[]>([]);
  const items = putBackPoints(view.machine.machine, machineState);
  const isWanted = machineState.toPutBack !== undefined || machineState.unturned.length > 0 || machineState.beltUnseated !== undefined;
  const isApart = machineState.apart.length > 0;
  const isComplete = items.every(({ id }) => value.answers[id] !== undefined);
  const locked = mayRun(machineState, { to: "cut", who }).reasons.filter(({ code }) => code === "locked-by");
  const before = [...locked, ...mayRun(machineState, { to: "prove" }).reasons.filter(({ clears }) => clears.do !== "put-back")];
  const send = async (answers: Answers) => {
    const own = Object.fromEntries(items.flatMap(({ id }) => (answers[id] ? [[id, answers[id]]] : [])));
    const sent = await act.send<{ stoppedAt: string[] }>("put-back", { answers: own }, ticket);
    if (!sent) return;
    setStopped(items.filter(({ id }) => sent.stoppedAt.includes(id)).map(({ text }) => text));
    clear();
  };
  const no = (item: SafetyItem) => send({ ...value.answers, [item.id]: { answer: "refused" } });
  if (view.state === "closed") return <p>This job is closed.</p>;
  return (
    <div>
      <Stopped words={stopped} />
      {!isWanted && (
        <p className="text-lg font-semibold">Nothing to put back: nothing was taken apart or locked out since it was last run.</p>
      )}
      <RunReasons view={view} reasons={before} open={open} here="put-back" timeOf={timeOf} />
      {isWanted && !isApart && locked.length > 0 && (
        <p className="text-lg font-semibold">
          Somebody else is locked on: the lead goes back on with them, or after their lock-out is off.
        </p>
      )}
      {isWanted && !isApart && locked.length === 0 && (
        <>
          <p className="text-sm text-soft">
            In this order, before it is made ready to run. A no is written down and stops: what touches is not run.
          </p>
          <Cautions lines={CAUTIONS} />
          <Points
            items={items}
            answers={value.answers}
            onAnswer={(id, answer) => set((draft) => ({ answers: { ...draft.answers, [id]: answer } }))}
            onNo={no}
            isBusy={act.isBusy}
          />
          <button type="button" className="btn btn-go mt-3 w-full" disabled={!isComplete || act.isBusy} onClick={() => send(value.answers)}>
            {who ? `I, ${who}: put back, turned by hand, nothing touches` : "Put back, turned by hand, nothing touches"}
          </button>
        </>
      )}
      {isApart && <SafeGate needs="locked-out" open={open} />}
      <Trouble act={act} />
    </div>
  );
}
