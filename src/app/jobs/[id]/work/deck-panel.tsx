"use client";

import { CHECKS, type CheckId, EVENTS } from "@/core/catalogue";
import { isOffered } from "@/core/checks";
import { type DeckState, WHILE_OFF } from "@/core/job/sequences/deck-off";
import type { JobView } from "@/data/job/job-view";
import { labelOfCheck } from "@/ui/words/diagnosis";
import type { Act } from "../act";
import { Photographs, Pictures } from "../close/photographs";
import type { PanelId } from "../panel-id";
import { Cautions, SafeGate } from "../safe/gate";
import { isSafeFor } from "../steps";
import { Trouble } from "../trouble";
import { CountedStep, StepsDone, Tray } from "./counted";

const WHERE: Record<DeckState["where"], string> = {
  on: "The deck is on.",
  "coming-off": "Coming off.",
  off: "The deck is off.",
  "going-on": "Going back on.",
};

const CAUTIONS = [
  "Idlers are under spring load: use the lever, not the hand.",
  "Blocks under the deck before a pin comes out; a deck that is off is tied or propped, its wheels blocked.",
];

/** A deck off and on again, step by step in this machine's own order, every part counted into a tray and back. */
export function DeckPanel({ view, act, open }: { view: JobView; act: Act; open: (panel: PanelId) => void }) {
  const { deck } = view;
  const isOpen = view.state !== "closed";
  const { next } = deck;
  return (
    <div>
      <p className="text-2xl leading-tight font-bold" aria-live="polite">
        {WHERE[deck.where]}
      </p>
      {!isSafeFor(view, "locked-out") && isOpen && <SafeGate needs="locked-out" open={open} />}
      {next && isOpen && isSafeFor(view, "locked-out") && (
        <NextStep key={`${next.way} ${next.step.id}`} view={view} next={next} tray={deck.tray} act={act} />
      )}
      {deck.where === "off" && <WhileOff view={view} open={open} />}
      {deck.tray.some(({ inTray, missing }) => inTray > 0 || missing > 0) && <Tray tray={deck.tray} />}
      <Cautions lines={CAUTIONS} />
      <StepsDone done={deck.done} />
      <p className="mt-3 text-sm text-soft">
        When it is back on, the log says “{EVENTS.find(({ id }) => id === "deck-off")?.label.toLowerCase()}”: level and belt are read again,
        and every blade is seen to turn.
      </p>
      <Trouble act={act} />
    </div>
  );
}

function NextStep({ view, next, tray, act }: { view: JobView; next: NonNullable<DeckState["next"]>; tray: DeckState["tray"]; act: Act }) {
  const { way, step } = next;
  const isPhotographs = step.id === "photographs";
  const done = isPhotographs && view.photographs.length === 0 ? { done: "Done without a photograph" } : {};
  return (
    <CountedStep
      draftKey={`job:${view.id}:deck`}
      next={next}
      tray={tray}
      words={{ off: "Next, taking off", on: "Next, putting on", ...done }}
      isBusy={act.isBusy}
      onDone={(done, ticket) => act.send("deck", { way, step: step.id, ...done }, ticket)}
    >
      {isPhotographs && <Photographs view={view} act={act} about="deck, before it came off" />}
      {way === "on" && <Pictures view={view} />}
    </CountedStep>
  );
}

/** What is cheap to look at now. */
function WhileOff({ view, open }: { view: JobView; open: (panel: PanelId) => void }) {
  const offered = CHECKS.filter((row) => isOffered(row, view.machine.machine)).map(({ id }): CheckId => id);
  return (
    <section aria-label="While it is off" className="mt-3">
      <h3 className="caps">Cheap to look at while it is off</h3>
      <div className="mt-1 flex flex-wrap gap-1">
        {WHILE_OFF.filter((id) => offered.includes(id)).map((id) => (
          <button key={id} type="button" className="btn" onClick={() => open(`check:${id}`)}>
            {labelOfCheck(id)}
          </button>
        ))}
      </div>
    </section>
  );
}
