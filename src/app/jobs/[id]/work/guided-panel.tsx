"use client";

import { useState } from "react";
import { ROUND_STATE, type Round } from "@/core/job/sequences/guided";
import type { JobView } from "@/data/job/job-view";
import { placeIn } from "@/ui/checks/shared";
import { Choice } from "@/ui/choice";
import type { Act } from "../act";
import { Photographs, Pictures } from "../close/photographs";
import type { PanelId } from "../panel-id";
import { Cautions, SafeGate } from "../safe/gate";
import { isSafeFor } from "../steps";
import { Trouble } from "../trouble";
import { CountedStep, StepsDone, Together, Tray } from "./counted";

type Names = Record<"off" | "on" | "isOff" | "begun" | "back" | "together" | "again", string>;
const NAMES: Record<Round, Names> = {
  blade: {
    off: "Next, taking the blade off",
    on: "Next, putting it on",
    isOff: "The blade is off.",
    begun: "Blade coming off.",
    back: "Blade going on.",
    together: "Put on in this job.",
    again: "Take it off once more",
  },
  spindle: {
    off: "Next, taking it apart",
    on: "Next, putting it together",
    isOff: "The spindle is apart.",
    begun: "Spindle coming apart.",
    back: "Spindle going together.",
    together: "Put together in this job.",
    again: "Take it apart once more",
  },
};
const CAUTIONS: Record<Round, string[]> = {
  blade: [
    "Cut-resistant gloves and eyes covered; a freed blade swings: wedge it with wood, not with fingers.",
    "Never heat on a heat-treated bolt; one that is not of the sheet’s grade is refused.",
  ],
  spindle: ["Never spin a dry bearing with air.", "Press on the ring that fits tight, never through the balls; eyes covered."],
};

/** A blade off and on, or a spindle served, step by step: what is asked at each, every part counted back. */
export function GuidedPanel({ view, act, open, round }: { view: JobView; act: Act; open: (panel: PanelId) => void; round: Round }) {
  const states = view.guided.filter((one) => one.round === round);
  const begun = states.find(({ where }) => where !== "on");
  const [chosen, setChosen] = useState(begun?.place ?? states[0]?.place ?? "");
  const state = states.find(({ place }) => place === chosen);
  const { machine } = view.machine;
  const needs = ROUND_STATE[round];
  const isSafe = isSafeFor(view, needs);
  const isOpen = view.state !== "closed";
  const [again, setAgain] = useState<string>();
  if (!state) return null;
  const words = NAMES[round];
  const isDone = state.where === "on" && view.steps.some((step) => isOf(step, round, chosen));
  const where = { on: isDone ? "On, and turned by hand." : "On.", "coming-off": words.begun, off: words.isOff, "going-on": words.back }[
    state.where
  ];
  return (
    <div>
      {states.length > 1 && (
        <Choice
          label="Which"
          value={chosen}
          options={states.map(({ place, where: at }) => [place, `${placeIn({}, machine, place)}${at === "on" ? "" : ", off"}`])}
          onChange={setChosen}
        />
      )}
      <p className="text-2xl leading-tight font-bold" aria-live="polite">
        {where}
      </p>
      {!isSafe && isOpen && <SafeGate needs={needs} open={open} />}
      {isDone && isOpen && again !== chosen && <Together words={words.together} again={words.again} onAgain={() => setAgain(chosen)} />}
      {state.next && isOpen && isSafe && (!isDone || again === chosen) && (
        <CountedStep
          key={`${chosen} ${state.next.way} ${state.next.step.id} ${state.done.length}`}
          draftKey={`job:${view.id}:${round}:${chosen}`}
          next={state.next}
          tray={state.tray}
          words={{
            off: words.off,
            on: words.on,
            ...(state.next.step.id === "photograph" && view.photographs.length === 0 ? { done: "Done without a photograph" } : {}),
          }}
          isBusy={act.isBusy}
          onDone={(done, ticket) =>
            act.send("guided", { round, place: chosen, way: state.next?.way, step: state.next?.step.id, ...done }, ticket)
          }
          onOwnList={(counts) => act.send("own-list", { round, place: chosen, counts })}
        >
          {state.next.step.id === "photograph" && (
            <Photographs view={view} act={act} about={`blade as it sat, ${placeIn({}, machine, chosen)}`} />
          )}
          {state.next.way === "on" && <Pictures view={view} />}
        </CountedStep>
      )}
      {state.tray.some(({ inTray, missing }) => inTray > 0 || missing > 0) && <Tray tray={state.tray} />}
      <Cautions lines={CAUTIONS[round]} />
      <StepsDone done={state.done} />
      <p className="mt-3 text-sm text-soft">
        The machine’s manual, its figures and the employer’s lock-out rules come first. When the last step is done it goes on the log, and
        what was read of this place before is read again.
      </p>
      <Trouble act={act} />
    </div>
  );
}

const isOf = (step: JobView["steps"][number], round: Round, place: string): boolean =>
  step.kind === "guided" && !step.isUndone && step.data.round === round && step.data.place === place;
