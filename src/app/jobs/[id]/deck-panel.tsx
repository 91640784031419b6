"use client";

import { Minus, Plus } from "lucide-react";
import { useState } from "react";
import { isOffered } from "@/core/checks";
import { CHECKS, type CheckId, EVENTS } from "@/core/diagnosis";
import { type DeckState, WHILE_OFF } from "@/core/sequences/deck-off";
import type { JobView } from "@/data/job-view";
import { labelOfCheck } from "@/ui/words/diagnosis";
import type { Act } from "./act";
import { Cautions, SafeGate } from "./gate";
import { Photographs, Pictures } from "./photographs";
import { isSafeFor, type PanelId } from "./steps";
import { Trouble } from "./trouble";

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
      {deck.tray.some(({ inTray, missing }) => inTray > 0 || missing > 0) && <Tray tray={deck.tray} />}
      <Cautions lines={CAUTIONS} />
      {!isSafeFor(view, "locked-out") && isOpen && <SafeGate needs="locked-out" open={open} />}
      {next && isOpen && isSafeFor(view, "locked-out") && (
        <NextStep key={`${next.way} ${next.step.id}`} view={view} next={next} tray={deck.tray} act={act} />
      )}
      {deck.where === "off" && <WhileOff view={view} open={open} />}
      {deck.done.length > 0 && (
        <details className="mt-3">
          <summary className="min-h-11 cursor-pointer py-2">{deck.done.length} steps done</summary>
          <ol className="list-decimal pl-6 text-sm leading-snug">
            {deck.done.map(({ way, step }) => (
              <li key={`${way} ${step.id}`}>{way === "on" ? (step.backWords ?? step.words) : step.words}</li>
            ))}
          </ol>
        </details>
      )}
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
  const wanted = (id: string, count: number) => (way === "on" ? (tray.find((one) => one.id === id)?.inTray ?? count) : count);
  const [counts, setCounts] = useState<Record<string, number>>({});
  const isShort = step.parts.some(({ id, count }) => (counts[id] ?? 0) < wanted(id, count));
  const isPhotographs = step.id === "photographs";
  return (
    <section aria-label="Next step" className="mt-2 border-2 border-ink p-3">
      <p className="caps">{way === "off" ? "Next, taking off" : "Next, putting on"}</p>
      <p className="text-xl leading-snug font-semibold">{way === "on" ? (step.backWords ?? step.words) : step.words}</p>
      {isPhotographs && <Photographs view={view} act={act} about="deck, before it came off" />}
      {way === "on" && view.photographs.length > 0 && <Pictures view={view} />}
      {step.parts.map(({ id, label, count }) => (
        <Counter
          key={id}
          label={label}
          count={counts[id] ?? 0}
          wanted={wanted(id, count)}
          most={count}
          onCount={(value) => setCounts((before) => ({ ...before, [id]: value }))}
        />
      ))}
      {step.parts.length > 0 && isShort && way === "off" && (
        <p className="mt-1 text-sm text-watch">Fewer than the sheet knows: look for the rest, or write it down as short.</p>
      )}
      <button
        type="button"
        className="btn btn-go mt-2 w-full"
        disabled={act.isBusy || (way === "on" && isShort)}
        onClick={() =>
          act.send("deck", { way, step: step.id, counts: Object.fromEntries(step.parts.map(({ id }) => [id, counts[id] ?? 0])) })
        }
      >
        {isPhotographs && view.photographs.length === 0 ? "Done without a photograph" : "Done"}
      </button>
    </section>
  );
}

function Counter(args: { label: string; count: number; wanted: number; most: number; onCount: (count: number) => void }) {
  const { label, count, wanted, most, onCount } = args;
  return (
    <div className="mt-2 flex items-center gap-2">
      <span className="grow leading-tight">{label}</span>
      <button
        type="button"
        className="btn px-3"
        aria-label={`${label}: one less`}
        disabled={count === 0}
        onClick={() => onCount(count - 1)}
      >
        <Minus size={18} aria-hidden="true" />
      </button>
      <span className={`num w-20 text-center text-xl font-bold ${count === wanted ? "text-good" : ""}`} aria-live="polite">
        {count} of {wanted}
      </span>
      <button
        type="button"
        className="btn px-3"
        aria-label={`${label}: one more`}
        disabled={count >= most}
        onClick={() => onCount(count + 1)}
      >
        <Plus size={18} aria-hidden="true" />
      </button>
    </div>
  );
}

function Tray({ tray }: { tray: DeckState["tray"] }) {
  return (
    <table className="mt-2 w-full">
      <caption className="caps text-left">In the tray</caption>
      <tbody className="ruled">
        {tray.map(({ id, label, inTray, missing }) => (
          <tr key={id}>
            <td className="py-1">{label}</td>
            <td className="num py-1 text-right text-lg font-bold">{inTray}</td>
            <td className="py-1 pl-3 text-sm">
              {missing > 0 ? <strong className="text-mark">{missing} short when it came off</strong> : ""}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
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
