import { useCallback, useState } from "react";
import type { JobView } from "@/data/job-view";
import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import type { Act } from "./act";
import type { PanelId } from "./steps";

/** Under this width the screen is one column. */
const ONE_COLUMN_BELOW = 1024;

/** What was opened by hand, and after which step. */
type Chosen = { panel?: PanelId; atStep: number; cameFrom?: PanelId };

/** Steps that are only said: they do not move a job on. */
const TALK: readonly string[] = ["answer", "guess", "note", "deck", "rebuild", "photograph"];

/** What was opened by hand, until the job moves on; back to the check once it was made safe for it; else what comes next. */
function panelOf({ chosen, view, suggested }: { chosen: Chosen; view: JobView; suggested: PanelId }): PanelId {
  const [before, last] = [view.steps.at(-2), view.steps.at(-1)];
  const since = view.steps.filter(({ id }) => id > chosen.atStep);
  if (chosen.panel && chosen.atStep >= 0 && since.every(({ kind }) => TALK.includes(kind))) return chosen.panel;
  const isMadeSafe = last?.kind === "confirmation" && before?.id === chosen.atStep;
  return isMadeSafe && chosen.cameFrom ? chosen.cameFrom : suggested;
}

export type PanelInHand = {
  panel: PanelId;
  open: (panel: PanelId) => void;
  /** The panel from which making safe was asked for. */
  cameFrom: PanelId | undefined;
  /** One's own last step: a form starts anew after it, not under one's hands when another writes. */
  lastOwn: number;
  /** To be told that something was typed, or a button pressed, in what is in hand. */
  begin: () => void;
  beginAt: (event: { target: EventTarget }) => void;
};

/**
 * What is in hand. What was opened by hand stays open until the job moves on; then the next thing to do comes up by itself. What was begun
 * stays in hand whatever others write meanwhile, until this screen sends something or opens another.
 */
export function usePanel({ view, act, suggested }: { view: JobView; act: Act; suggested: PanelId }): PanelInHand {
  const seat = useSeat();
  const { value: chosen, set: setChosen } = useDraft<Chosen>(`job:${view.id}:panel`, { atStep: -1 });
  const lastStep = view.steps.at(-1)?.id ?? 0;
  const lastOwn = view.steps.findLast(({ who }) => who === seat.who)?.id ?? 0;
  const [begun, setBegun] = useState<{ panel: PanelId; times: number }>();
  const isOnTheWay = lastStep < act.sent.stepId;
  const isBegun = begun !== undefined && (begun.times === act.sent.times || isOnTheWay);
  const panel = isBegun ? begun.panel : panelOf({ chosen, view, suggested });
  const begin = () => {
    if (!isBegun) setBegun({ panel, times: act.sent.times });
  };
  // Before the button's own doing, which may open another. A field is begun after it has taken its letter: begun before, it would lose it.
  const beginAt = ({ target }: { target: EventTarget }) => {
    if (target instanceof Element && target.closest("button")) begin();
  };
  const { clear } = act;
  const open = useCallback(
    (next: PanelId) => {
      clear();
      setBegun(undefined);
      setChosen({ panel: next, atStep: lastStep, ...(next === "safe" && panel.startsWith("check:") ? { cameFrom: panel } : {}) });
      // In one column the panel lies below the list it was opened from.
      if (window.innerWidth < ONE_COLUMN_BELOW)
        requestAnimationFrame(() => document.getElementById("in-hand")?.scrollIntoView({ block: "start" }));
    },
    [clear, setChosen, lastStep, panel],
  );
  return { panel, open, cameFrom: chosen.cameFrom, lastOwn, begin, beginAt };
}
