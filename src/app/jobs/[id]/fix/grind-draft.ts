import { INCH_METRES, parseQuantity, shownUnit, type UnitSystem } from "@/core/basics/units";
import { type Face, GRINDING_HABIT, type Ground, planGrind, planReel } from "@/core/physics/reel";
import { sayQuantityIssue } from "@/ui/words/issues";
import { show } from "@/ui/words/quantities";

export type FaceDraft = { depth: string; inFeeds: number; passes: number };

/** Of the reel `depth` is its deepest nick. */
export type ReelDraft = FaceDraft & { taper: string; isRelieved: boolean };

export type GroundDraft = { inFeed: string; isClamped: boolean; top: FaceDraft; front: FaceDraft; reel?: ReelDraft };

const NOTHING: FaceDraft = { depth: "", inFeeds: 0, passes: 0 };

export const NO_REEL: ReelDraft = { ...NOTHING, taper: "", isRelieved: false };

export const NO_GROUND: GroundDraft = { inFeed: "", isClamped: false, top: NOTHING, front: NOTHING };

/** What is known of the reel that is ground: its sheet, and its ends as they were measured last. */
export type ReelKnown = { blades: number; scrapMetres?: number; taperMetres?: number; smallestMetres?: number };

export const counted = ({ top, front, reel = NO_REEL }: GroundDraft): number => top.inFeeds + front.inFeeds + reel.inFeeds;

/** Deeper than this is no nick to grind out. Estimate: 0.2 in. */
export const MOST_DEPTH_METRES = 0.005;

export const MOST_IN_FEED_METRES = 0.001;

type Typed = { metres?: number; trouble?: string };

export function lengthOf(text: string, system: UnitSystem, most: number): Typed {
  if (text.trim() === "") return {};
  const parsed = parseQuantity({ text, dimension: "length", bareUnit: shownUnit({ dimension: "length", system }) });
  if (!parsed.ok) return { trouble: sayQuantityIssue(parsed.issue) };
  if (parsed.valueSi < 0) return { trouble: "Less than nothing cannot be ground off." };
  if (parsed.valueSi > most)
    return {
      trouble: `More than is ground at a time: ${show(most, "length", system, "fine")} at most. Thousandths have a point before them.`,
    };
  return { metres: parsed.valueSi };
}

/** As the dial of the grinder is divided: two thousandths of an inch, or five hundredths of a millimetre. */
export const usualInFeed = (system: UnitSystem): number => (system === "us" ? 0.002 * INCH_METRES : GRINDING_HABIT.inFeedMetres);

export const inFeedOf = (draft: GroundDraft, system: UnitSystem): number => {
  const typed = lengthOf(draft.inFeed, system, MOST_IN_FEED_METRES).metres;
  return typed === undefined || typed === 0 ? usualInFeed(system) : typed;
};

/** What goes with the fix once anything was counted: the tally, and the plan it is held against. */
export function groundOf(draft: GroundDraft, system: UnitSystem, known: ReelKnown | undefined): Ground | undefined {
  if (!draft.isClamped || counted(draft) === 0) return undefined;
  const inFeedMetres = inFeedOf(draft, system);
  const face = (one: Face) => {
    const { depth, inFeeds, passes } = draft[one];
    const depthMetres = lengthOf(depth, system, MOST_DEPTH_METRES).metres ?? 0;
    return { plannedMetres: planGrind({ face: one, depthMetres, inFeedMetres }).stockMetres, inFeeds, inFeedMetres, passes };
  };
  const { reel } = draft;
  return {
    isClamped: true,
    top: face("top"),
    front: face("front"),
    ...(known && reel && reel.inFeeds > 0
      ? {
          reel: {
            plannedMetres: reelPlan(reel, known, inFeedMetres, system).stockMetres,
            inFeeds: reel.inFeeds,
            inFeedMetres,
            passes: reel.passes,
            isRelieved: reel.isRelieved,
          },
        }
      : {}),
  };
}

export function reelPlan(reel: ReelDraft, known: ReelKnown, inFeedMetres: number, system: UnitSystem) {
  return planReel({
    taperMetres: lengthOf(reel.taper, system, MOST_DEPTH_METRES).metres ?? known.taperMetres ?? 0,
    nickMetres: lengthOf(reel.depth, system, MOST_DEPTH_METRES).metres ?? 0,
    blades: known.blades,
    isRelieved: reel.isRelieved,
    inFeedMetres,
    ...(known.smallestMetres === undefined ? {} : { nowMetres: known.smallestMetres }),
    ...(known.scrapMetres === undefined ? {} : { scrapMetres: known.scrapMetres }),
  });
}
