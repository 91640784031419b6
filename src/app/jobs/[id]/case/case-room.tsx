"use client";

import { checkRow } from "@/core/checks";
import type { JobView } from "@/data/job/job-view";
import { VerdictMark } from "@/ui/verdict";
import { labelOfCause } from "@/ui/words/diagnosis";
import type { PanelId } from "../panel-id";
import { type ListedStep, otherChecks } from "../steps";
import { CheckListHead } from "./check-list";
import { Said } from "./complaint-panel";
import { LookAgain } from "./look-again";
import { Suspects } from "./suspects";
import type { Desk } from "./use-diagnosis";

type Order = "information" | "walk-round";

type Args = {
  view: JobView;
  now: string;
  desk: Desk;
  order: Order;
  setOrder: (order: Order) => void;
  /** Checks made, wanted or coming next, with their place in the list of everything. */
  listed: readonly { step: ListedStep; order: number }[];
  panel: PanelId;
  suggested: PanelId;
  open: (panel: PanelId) => void;
};

/** What is complained of, what it might be, and which check tells most: the left of the screen. */
export function CaseRoom({ view, now, desk, order, setOrder, listed, panel, suggested, open }: Args) {
  const isOpen = view.state !== "closed";
  return (
    <aside className="relative min-h-0 overflow-y-auto border-rule p-3 lg:border-r" aria-label="The job">
      <Said view={view} now={now} open={open} />
      {view.machineState.struck && <Suspicion struck={view.machineState.struck} open={open} />}
      <LookAgain view={view} workUp={desk.workUp} open={open} />
      <Suspects
        workUp={desk.workUp}
        lastCheck={view.takes.at(-1)?.checkId}
        isLive={desk.isLive}
        isReckoning={desk.isReckoning}
        isSearching={isOpen && view.case.standing === "as-complained"}
        here={panel}
        open={open}
      />
      {isOpen && <CheckListHead view={view} desk={desk} order={order} setOrder={setOrder} />}
      <nav aria-label="Steps of the job" className="mt-1">
        <ol>
          {listed.map((one) => (
            <li key={one.step.panel}>
              <StepButton
                listed={one.step}
                order={one.order}
                isHere={one.step.panel === panel}
                isNext={one.step.panel === suggested}
                onOpen={() => open(one.step.panel)}
              />
            </li>
          ))}
        </ol>
      </nav>
      <OtherChecks view={view} steps={listed.map(({ step }) => step)} open={open} />
      {isOpen && <Aside view={view} open={open} />}
      <Guess view={view} />
    </aside>
  );
}

/** What a strike holds under suspicion until each was looked at; nothing runs before. */
function Suspicion({ struck, open }: { struck: NonNullable<JobView["machineState"]["struck"]>; open: (panel: PanelId) => void }) {
  const { words, where, droveOn, checks } = struck;
  return (
    <details className="mt-1 border-l-4 border-mark pl-2">
      <summary className="min-h-11 cursor-pointer leading-snug font-semibold">
        Struck {words || "something"}
        {where ? `, ${where}` : ""}
        {droveOn ? ", drive ran on" : ""}: {checks.length} to look at
      </summary>
      <div className="flex flex-wrap gap-1 pb-1">
        {checks.map((id) => (
          <button key={id} type="button" className="btn !px-2 text-sm" onClick={() => open(`check:${id}`)}>
            {checkRow(id)?.label}
          </button>
        ))}
      </div>
    </details>
  );
}

const STATUS_WORDS: Record<ListedStep["status"], string> = { done: "done", bad: "not right", stale: "to be read again", open: "open" };

function StepButton({
  listed,
  order,
  isHere,
  isNext,
  onOpen,
}: {
  listed: ListedStep;
  order: number;
  isHere: boolean;
  isNext: boolean;
  onOpen: () => void;
}) {
  return (
    <button
      type="button"
      onClick={onOpen}
      aria-current={isHere ? "step" : undefined}
      className={`flex min-h-11 w-full items-center gap-2 border-l-4 px-2 text-left ${isHere ? "border-dye bg-sheet font-bold" : "border-transparent"}`}
    >
      <span className="num w-4 text-xs text-soft">{order}</span>
      <span className="grow leading-tight">
        {listed.label}
        {isNext && !isHere && <span className="caps ml-2 !text-[var(--dye-text)]">next</span>}
      </span>
      {listed.verdict && listed.status !== "stale" ? (
        <VerdictMark verdict={listed.verdict} size={16} />
      ) : (
        <span className={`text-sm whitespace-nowrap ${listed.status === "stale" ? "font-semibold text-watch" : "text-soft"}`}>
          {listed.status === "done" ? "✓" : listed.status === "stale" ? "again" : listed.minutes ? `${listed.minutes} min` : ""}
        </span>
      )}
      <span className="sr-only">
        {listed.verdict === "not-enough-readings" && listed.status === "bad" ? "not read in full" : STATUS_WORDS[listed.status]}
      </span>
    </button>
  );
}

function OtherChecks({ view, steps, open }: { view: JobView; steps: readonly ListedStep[]; open: (panel: PanelId) => void }) {
  return (
    <label className="mt-2 block px-2">
      <span className="caps">Other checks</span>
      <select className="input" value="" onChange={(event) => event.target.value && open(`check:${event.target.value}`)}>
        <option value="">Pick one</option>
        {otherChecks(view, steps).map(({ id, label, minutes }) => (
          <option key={id} value={id}>
            {label}, {minutes} min{view.skips.some(({ checkId }) => checkId === id) ? " (left out)" : ""}
          </option>
        ))}
      </select>
    </label>
  );
}

/** What is no check: the bench's list, and the deck off and on where it comes off. */
function Aside({ view, open }: { view: JobView; open: (panel: PanelId) => void }) {
  const hasDeck = view.deck.next !== undefined;
  const hasOpenBox = view.boxes.some(({ where }) => where !== "on");
  return (
    <div className="mt-2 flex flex-wrap gap-1 px-2">
      <button type="button" className="btn grow !px-1 text-sm" onClick={() => open("bring")}>
        Tools to bring
      </button>
      {view.boxes.length > 0 && (
        <button type="button" className={`btn grow !px-1 text-sm ${hasOpenBox ? "btn-stop" : ""}`} onClick={() => open("box")}>
          {hasOpenBox ? "Box is apart" : "Gearbox rebuild"}
        </button>
      )}
      {(["blade", "spindle"] as const).map((round) => {
        const states = view.guided.filter((one) => one.round === round);
        const isOff = states.some(({ where }) => where !== "on");
        if (states.length === 0) return null;
        return (
          <button key={round} type="button" className={`btn grow !px-1 text-sm ${isOff ? "btn-stop" : ""}`} onClick={() => open(round)}>
            {round === "blade" ? (isOff ? "Blade is off" : "Blade off and on") : isOff ? "Spindle is apart" : "Spindle service"}
          </button>
        );
      })}
      <button type="button" className="btn grow !px-1 text-sm" onClick={() => open("handover")}>
        Hand over
      </button>
      {hasDeck && (
        <button
          type="button"
          className={`btn grow !px-1 text-sm ${view.deck.where === "on" ? "" : "btn-stop"}`}
          onClick={() => open("deck")}
        >
          {view.deck.where === "on" ? "Deck off and on" : "Deck is off"}
        </button>
      )}
    </div>
  );
}

/** The first guess as it stands; it is made where a cause is opened. */
function Guess({ view }: { view: JobView }) {
  const guess = view.steps.findLast((step) => step.kind === "guess" && !step.isUndone);
  if (guess?.kind !== "guess") return null;
  return (
    <p className="mt-2 px-2 text-sm">
      <span className="caps">First guess</span> {labelOfCause(guess.data.cause)}
    </p>
  );
}
