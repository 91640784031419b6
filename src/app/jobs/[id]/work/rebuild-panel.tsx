"use client";

import Link from "next/link";
import { useState } from "react";
import { EVENTS } from "@/core/catalogue";
import type { SequenceState } from "@/core/job/sequences/counted";
import { mayStayLoose, partLabel, type RebuildState } from "@/core/job/sequences/rebuild";
import type { JobView } from "@/data/job/job-view";
import { placeIn } from "@/ui/checks/shared";
import { Choice } from "@/ui/choice";
import type { Act } from "../act";
import { KeptPictures, Photographs, Pictures } from "../close/photographs";
import type { PanelId } from "../panel-id";
import { Cautions, SafeGate } from "../safe/gate";
import { isSafeFor, latestTake } from "../steps";
import { Trouble } from "../trouble";
import { CountedStep, StepsDone, Together, Tray } from "./counted";

const WHERE: Record<RebuildState["where"], string> = {
  on: "The box is together.",
  "coming-off": "Coming apart.",
  off: "The box is apart.",
  "going-on": "Going together.",
};

const CAUTIONS = [
  "Springs and snap rings: eyes covered, a rag over the ring, not a finger.",
  "Brake cleaner and gear oil: open doors, no flame, spilt oil caught. Never spin a dry bearing with air.",
  "Turning one geared blade turns its neighbours: one person, gloves, hands off every other blade.",
];

/** The box that was last found bad, and not rebuilt since. */
function badBox(view: JobView): string | undefined {
  const take = latestTake(view, "gearbox-inspection");
  const bad = take?.result.findings.filter(({ verdict }) => verdict === "stop" || verdict === "out").map(({ place }) => place) ?? [];
  return view.boxes.find(({ box }) => bad.includes(box))?.box;
}

/** A gearbox taken apart and put together step by step, its parts laid out and counted back. */
export function RebuildPanel({ view, act, open }: { view: JobView; act: Act; open: (panel: PanelId) => void }) {
  const begun = view.boxes.find(({ where }) => where !== "on");
  const [chosen, setChosen] = useState(begun?.box ?? badBox(view) ?? view.boxes[0]?.box ?? "");
  const { machine } = view.machine;
  const state = view.boxes.find(({ box }) => box === chosen);
  const isOpen = view.state !== "closed";
  const isSafe = isSafeFor(view, "locked-out");
  const [again, setAgain] = useState<string>();
  if (!state) return null;
  // After its last step a box is not offered for stripping again.
  const isTogetherAgain =
    again !== chosen &&
    state.where === "on" &&
    view.steps.some((step) => step.kind === "rebuild" && !step.isUndone && step.data.box === chosen);
  return (
    <div>
      <Choice
        label="Gearbox"
        value={chosen}
        options={view.boxes.map(({ box, where }) => [box, `${placeIn({}, machine, box)}${where === "on" ? "" : ", apart"}`])}
        onChange={setChosen}
      />
      <p className="text-2xl leading-tight font-bold" aria-live="polite">
        {WHERE[state.where]}
      </p>
      {view.machineState.notAsBuilt
        .filter(({ place }) => place === chosen)
        .map(({ seq, words, who }) => (
          <p key={seq} className="mt-2 border-l-4 border-watch pl-2 leading-tight font-semibold">
            Not as built{words ? `. ${words}` : ""}, by {who}
          </p>
        ))}
      {state.loose.map((id) => (
        <div key={id} className="mt-2 flex items-center gap-2 border-l-4 border-watch pl-2">
          <span className="grow leading-tight font-semibold">{partLabel(id)}: left loose on purpose</span>
          {isOpen && isSafe && (
            <button type="button" className="btn" disabled={act.isBusy} onClick={() => act.send("rebuild", { box: chosen, tightened: id })}>
              Tightened
            </button>
          )}
        </div>
      ))}
      {!isSafe && isOpen && <SafeGate needs="locked-out" open={open} />}
      {isTogetherAgain && isOpen && (
        <Together
          words="Put together in this job. The blades are turned by hand now; its cover stays on."
          again="Take it apart once more"
          onAgain={() => setAgain(chosen)}
        />
      )}
      {state.next && isOpen && isSafe && !isTogetherAgain && (
        <NextStep key={`${chosen} ${state.next.way} ${state.next.step.id}`} view={view} state={state} next={state.next} act={act} />
      )}
      {state.tray.some(({ inTray, missing }) => inTray > 0 || missing > 0) && <Tray tray={state.tray} />}
      <Cautions lines={CAUTIONS} />
      <StepsDone done={state.done} />
      <p className="mt-3">
        <Link className="underline" href={`/machines/${view.machine.id}/dipstick?box=${chosen}`}>
          Dipstick for this box
        </Link>
      </p>
      <p className="mt-1 text-sm text-soft">
        When it is together, the log says “{EVENTS.find(({ id }) => id === "gearbox-off")?.label.toLowerCase()}”: the box is looked at
        again, its oil after standing, and the blades are turned by hand before they are run.
      </p>
      <Trouble act={act} />
    </div>
  );
}

function NextStep({ view, state, next, act }: { view: JobView; state: RebuildState; next: NonNullable<SequenceState["next"]>; act: Act }) {
  const { way, step } = next;
  const [loose, setLoose] = useState<string[]>([]);
  const isMarks = step.id === "timing-marks";
  const done = isMarks && way === "off" && view.photographs.length === 0 ? { done: "Done without a photograph" } : {};
  return (
    <CountedStep
      draftKey={`job:${view.id}:box:${state.box}`}
      next={next}
      tray={state.tray}
      words={{ off: "Next, taking apart", on: "Next, putting together", ...done }}
      isBusy={act.isBusy}
      onDone={(done, ticket) => act.send("rebuild", { box: state.box, way, step: step.id, ...done, loose }, ticket)}
      onOwnList={(counts) => act.send("own-list", { round: "box", place: state.box, counts })}
    >
      {isMarks && way === "off" && <Photographs view={view} act={act} about="timing marks, before it came apart" />}
      {way === "on" && <Pictures view={view} />}
      {isMarks && <KeptPictures view={view} about="timing" />}
      {way === "on" &&
        mayStayLoose(step).map((id) => (
          <label key={id} className="mt-2 flex min-h-11 items-center gap-2">
            <input
              type="checkbox"
              className="size-6"
              checked={loose.includes(id)}
              onChange={(event) => setLoose((before) => (event.target.checked ? [...before, id] : before.filter((one) => one !== id)))}
            />
            {partLabel(id)} left loose on purpose: owed
          </label>
        ))}
    </CountedStep>
  );
}
