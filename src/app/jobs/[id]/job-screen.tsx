"use client";

import { useCallback, useDeferredValue, useEffect, useState } from "react";
import type { Assessment } from "@/core/checks";
import type { WorkUp } from "@/core/diagnosis";
import { STANDPOINT_LABELS, type Standpoint } from "@/core/machine";
import type { JobView } from "@/data/job/job-view";
import { useMachineFeed } from "@/ui/machine-feed";
import { useSeat } from "@/ui/person";
import { send } from "@/ui/send";
import { shortTime } from "@/ui/time";
import { useAct } from "./act";
import { CaseRoom } from "./case/case-room";
import { useDiagnosis } from "./case/use-diagnosis";
import { Timeline } from "./close/timeline";
import { HeadRoom } from "./head-room";
import { listSteps, nextPanel, stagesOf } from "./steps";
import { useKeys } from "./use-keys";
import { usePanel } from "./use-panel";
import { HandRoom, panelTitle } from "./work/hand-room";

const STANDPOINTS = Object.keys(STANDPOINT_LABELS) as Standpoint[];

type Order = "information" | "walk-round";

/** A job on one screen: who and where along the top, the case at the left, what is in hand, what was done along the bottom. */
export function JobScreen(args: { view: JobView; initial: WorkUp | undefined; initialOrder: Order; now: string }) {
  const { view, initial, initialOrder, now } = args;
  const seat = useSeat();
  const act = useAct(view.id);
  const isLive = useMachineFeed(view.machine.id);
  const [order, setOrder] = useState<Order>(initialOrder);
  // What is saved decides what to do next; what is being typed only moves the picture.
  const [settled, setSettled] = useState(initial);
  const suggested = nextPanel(view, settled, seat.who);
  const hand = usePanel({ view, act, suggested });
  const { panel, open } = hand;
  const [live, setLive] = useState<{ checkId: string; assessment: Assessment }>();
  // The drawing comes first with every key; the diagnosis follows when there is time.
  const desk = useDiagnosis({ view, initial, order, initialOrder, live: useDeferredValue(live) });
  const { workUp } = desk;
  useEffect(() => {
    if (!live) setSettled(workUp);
  }, [workUp, live]);
  const [standpoint, setStandpoint] = useState<Standpoint>(seat.standsAt);
  const { who, timeZone } = seat;
  const turnTo = useCallback(
    (next: Standpoint) => {
      setStandpoint(next);
      if (who) send(`/api/v1/people/${encodeURIComponent(who)}`, { who, standsAt: next }, "PATCH");
    },
    [who],
  );
  const steps = listSteps(view, settled);
  const listed = steps.map((step, place) => ({ step, order: place + 1 }));
  useKeys({
    steps,
    open,
    undo: () => view.undoableStepId && !act.isBusy && act.send("undo", { stepId: view.undoableStepId }),
    turn: () => turnTo(STANDPOINTS[(STANDPOINTS.indexOf(standpoint) + 1) % STANDPOINTS.length] ?? "behind"),
  });
  const timeOf = useCallback((iso: string) => shortTime(iso, now, timeZone), [now, timeZone]);
  const next = {
    panel: suggested,
    label: panelTitle(suggested),
    minutes: steps.find((step) => step.panel === suggested)?.minutes,
    isHere: suggested === panel,
    isDone: view.state === "closed",
  };
  return (
    <main className="grid grid-cols-1 lg:h-[calc(100dvh-3.25rem-var(--notes,0px))] lg:grid-cols-[18rem_minmax(0,1fr)_25rem] lg:grid-rows-[auto_minmax(0,1fr)_auto]">
      <HeadRoom view={view} now={now} open={open} isLive={isLive} stages={stagesOf({ view, steps, panel, suggested })} next={next} />
      <CaseRoom
        view={view}
        now={now}
        desk={desk}
        order={order}
        setOrder={setOrder}
        listed={listed.filter(({ step }) => step.panel.startsWith("check:"))}
        panel={panel}
        suggested={suggested}
        open={open}
      />
      <HandRoom
        view={view}
        now={now}
        hand={hand}
        desk={desk}
        settled={settled}
        act={act}
        standpoint={standpoint}
        onStandpoint={turnTo}
        onLive={setLive}
        timeOf={timeOf}
      />
      <div className="lg:col-span-3">
        <Timeline view={view} act={act} timeOf={timeOf} />
      </div>
    </main>
  );
}
