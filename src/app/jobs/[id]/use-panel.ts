import { useCallback, useState } from "react";
import type { StepKind } from "@/core/job/jobs";
import type { SafeState } from "@/core/job/safety";
import type { JobView } from "@/data/job/job-view";
import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import type { Act } from "./act";
import type { PanelId } from "./panel-id";

/** Under this width the screen is one column. */
const ONE_COLUMN_BELOW = 1024;

/** What was opened by hand, and after which step. */
type Chosen = { panel?: PanelId; atStep: number; cameFrom?: PanelId; needs?: SafeState };

/** Steps that are only said: they do not move a job on. */
const TALK: readonly string[] = ["answer", "guess", "note", "deck", "rebuild", "guided", "own-list", "photograph"];

/** Whether nothing has moved the job on since it was opened by hand. */
function isStillChosen({ atStep }: Chosen, view: JobView): boolean {
  return atStep >= 0 && view.steps.every(({ id, kind }) => id <= atStep || TALK.includes(kind));
}

/** What was opened by hand, until the job moves on; back to the check once it was made safe for it; else what comes next. */
function panelOf({ chosen, view, suggested }: { chosen: Chosen; view: JobView; suggested: PanelId }): PanelId {
  const [before, last] = [view.steps.at(-2), view.steps.at(-1)];
  if (chosen.panel && isStillChosen(chosen, view)) return chosen.panel;
  const isMadeSafe = last?.kind === "confirmation" && before?.id === chosen.atStep;
  return isMadeSafe && chosen.cameFrom ? chosen.cameFrom : suggested;
}

/** Work that waits for the machine to be safe: it comes up again once it is. */
const comesBack = (panel: PanelId): boolean =>
  panel.startsWith("check:") || panel === "fix" || panel === "deck" || panel === "box" || panel === "blade" || panel === "spindle";

export type PanelInHand = {
  panel: PanelId;
  /** `needs`: the state that what is left here for making safe must have. */
  open: (panel: PanelId, needs?: SafeState) => void;
  needs: SafeState | undefined;
  /** The panel from which making safe was asked for. */
  cameFrom: PanelId | undefined;
  /**
   * One's own last step of some kinds: a form starts anew after those it rests on, not under one's hands when another writes, nor when the answer to an
   * earlier step of another kind comes late.
   */
  lastOwn: (...kinds: StepKind[]) => number;
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
  const lastOwn = (...kinds: StepKind[]) => view.steps.findLast(({ kind, who }) => kinds.includes(kind) && who === seat.who)?.id ?? 0;
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
    (next: PanelId, needs?: SafeState) => {
      clear();
      setBegun(undefined);
      setChosen({
        panel: next,
        atStep: lastStep,
        ...(next === "safe" && comesBack(panel) ? { cameFrom: panel } : {}),
        ...(next === "safe" && needs ? { needs } : {}),
      });
      // In one column the panel lies below the list it was opened from.
      if (window.innerWidth < ONE_COLUMN_BELOW)
        requestAnimationFrame(() => document.getElementById("in-hand")?.scrollIntoView({ block: "start" }));
    },
    [clear, setChosen, lastStep, panel],
  );
  return {
    panel,
    open,
    needs: panel === "safe" && isStillChosen(chosen, view) ? chosen.needs : undefined,
    cameFrom: chosen.cameFrom,
    lastOwn,
    begin,
    beginAt,
  };
}
