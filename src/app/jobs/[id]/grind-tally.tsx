"use client";

import { type Face, GRINDING_HABIT, type Ground, PASSES_AN_IN_FEED, planGrind } from "@/core/reel";
import { INCH_METRES, parseQuantity, shownUnit, type UnitSystem } from "@/core/units";
import { sayQuantityIssue } from "@/ui/words/issues";
import { show } from "@/ui/words/quantities";

type FaceDraft = { depth: string; inFeeds: number; passes: number };
export type GroundDraft = { inFeed: string; isClamped: boolean; top: FaceDraft; front: FaceDraft };
const NOTHING: FaceDraft = { depth: "", inFeeds: 0, passes: 0 };
export const NO_GROUND: GroundDraft = { inFeed: "", isClamped: false, top: NOTHING, front: NOTHING };

const FACES: readonly { face: Face; words: string }[] = [
  { face: "top", words: "Top face" },
  { face: "front", words: "Front face" },
];
/** Deeper than this is no nick to grind out. Estimate: 0.2 in. */
const MOST_DEPTH_METRES = 0.005;
const MOST_IN_FEED_METRES = 0.001;

type Typed = { metres?: number; trouble?: string };

function lengthOf(text: string, system: UnitSystem, most: number): Typed {
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
const usualInFeed = (system: UnitSystem): number => (system === "us" ? 0.002 * INCH_METRES : GRINDING_HABIT.inFeedMetres);

const inFeedOf = (draft: GroundDraft, system: UnitSystem): number => {
  const typed = lengthOf(draft.inFeed, system, MOST_IN_FEED_METRES).metres;
  return typed === undefined || typed === 0 ? usualInFeed(system) : typed;
};

/** What goes with the fix once anything was counted: the tally, and the plan it is held against. */
export function groundOf(draft: GroundDraft, system: UnitSystem): Ground | undefined {
  if (!draft.isClamped || draft.top.inFeeds + draft.front.inFeeds === 0) return undefined;
  const inFeedMetres = inFeedOf(draft, system);
  const face = (one: Face) => {
    const { depth, inFeeds, passes } = draft[one];
    const depthMetres = lengthOf(depth, system, MOST_DEPTH_METRES).metres ?? 0;
    return { plannedMetres: planGrind({ face: one, depthMetres, inFeedMetres }).stockMetres, inFeeds, inFeedMetres, passes };
  };
  return { isClamped: true, top: face("top"), front: face("front") };
}

/** A bedknife on the grinder: the plan for each face, and the tally as it is ground, held against it. */
export function GrindTally({
  draft,
  system,
  change,
}: {
  draft: GroundDraft;
  system: UnitSystem;
  change: (change: (before: GroundDraft) => GroundDraft) => void;
}) {
  const inFeedMetres = inFeedOf(draft, system);
  const inFeed = lengthOf(draft.inFeed, system, MOST_IN_FEED_METRES);
  return (
    <fieldset className="my-2 border-t-2 border-ink pt-1">
      <legend className="caps">On the grinder</legend>
      <p className="text-sm text-soft">
        On its pins, front face parallel within {show(0.00005, "length", system, "fine")}. Top: a second pass before the next in-feed.
        Front: an in-feed each pass; metal off the front spares the top. Look at the edge after each pass.
      </p>
      <label className="flex min-h-11 items-center gap-2 font-semibold">
        <input
          type="checkbox"
          className="size-6"
          checked={draft.isClamped}
          // What was counted was counted with it so.
          disabled={draft.top.inFeeds + draft.front.inFeeds > 0}
          onChange={(event) => change((before) => ({ ...before, isClamped: event.target.checked }))}
        />
        Clamped, traverse locked, guards on
      </label>
      <SmallField
        id="grind-in-feed"
        label={`In-feed (${show(usualInFeed(system), "length", system, "fine")} where none is typed)`}
        value={draft.inFeed}
        trouble={inFeed.trouble}
        onChange={(text) => change((before) => ({ ...before, inFeed: text }))}
      />
      {FACES.map(({ face, words }) => {
        const own = draft[face];
        const depth = lengthOf(own.depth, system, MOST_DEPTH_METRES);
        const plan = planGrind({ face, depthMetres: depth.metres ?? 0, inFeedMetres });
        const off = own.inFeeds * inFeedMetres;
        const set = (next: Partial<FaceDraft>) => change((before) => ({ ...before, [face]: { ...before[face], ...next } }));
        return (
          <section key={face} aria-label={words} className="border-t border-rule py-2">
            <SmallField
              id={`grind-${face}`}
              label={`${words}: deepest nick or rounding`}
              value={own.depth}
              trouble={depth.trouble}
              onChange={(text) => set({ depth: text })}
            />
            <p aria-live="polite">
              <span className="num text-lg font-bold">
                {own.inFeeds} of {plan.inFeeds}
              </span>{" "}
              in-feeds,{" "}
              <span className="num font-bold">
                {own.passes} of {plan.passes}
              </span>{" "}
              passes: <span className="num font-bold">{show(off, "length", system, "fine")}</span> off, planned{" "}
              {show(plan.stockMetres, "length", system, "fine")}
              {plan.minutes > 0 && `, about ${Math.ceil(plan.minutes)} min`}
              {own.inFeeds > plan.inFeeds && plan.inFeeds > 0 && <b className="text-mark"> More than planned.</b>}
            </p>
            <div className="mt-1 flex gap-2">
              <button
                type="button"
                className="btn grow"
                disabled={!draft.isClamped}
                onClick={() => set({ inFeeds: own.inFeeds + 1, passes: own.passes + 1 })}
              >
                In-feed and pass
              </button>
              <button
                type="button"
                className="btn grow"
                disabled={!draft.isClamped || own.inFeeds === 0 || PASSES_AN_IN_FEED[face] === 1}
                onClick={() => set({ passes: own.passes + 1 })}
              >
                Second pass
              </button>
              <button
                type="button"
                className="btn"
                aria-label={`${words}: take the last in-feed back`}
                disabled={own.inFeeds === 0}
                onClick={() =>
                  set({ inFeeds: own.inFeeds - 1, passes: Math.min(own.passes - 1, (own.inFeeds - 1) * PASSES_AN_IN_FEED[face]) })
                }
              >
                −
              </button>
            </div>
          </section>
        );
      })}
      <p className="text-sm text-soft">What is counted is booked against the knife, not the plan.</p>
    </fieldset>
  );
}

function SmallField(args: { id: string; label: string; value: string; trouble: string | undefined; onChange: (text: string) => void }) {
  const { id, label, value, trouble, onChange } = args;
  return (
    <div className="py-0.5">
      <div className="grid grid-cols-[1fr_8rem] items-center gap-2">
        <label htmlFor={id}>{label}</label>
        <input
          id={id}
          className="input num text-right"
          value={value}
          autoComplete="off"
          inputMode="decimal"
          aria-invalid={trouble !== undefined}
          aria-describedby={trouble ? `${id}-trouble` : undefined}
          onChange={(event) => onChange(event.target.value)}
        />
      </div>
      {trouble && (
        <p id={`${id}-trouble`} className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </div>
  );
}
