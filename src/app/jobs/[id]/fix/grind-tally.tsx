"use client";

import type { UnitSystem } from "@/core/basics/units";
import { type Face, PASSES_AN_IN_FEED, planGrind } from "@/core/physics/reel";
import { show } from "@/ui/words/quantities";
import {
  counted,
  type FaceDraft,
  type GroundDraft,
  inFeedOf,
  lengthOf,
  MOST_DEPTH_METRES,
  MOST_IN_FEED_METRES,
  NO_REEL,
  type ReelKnown,
  usualInFeed,
} from "./grind-draft";
import { ReelTallyRows, SmallField } from "./grind-reel";

const FACES: readonly { face: Face; words: string }[] = [
  { face: "top", words: "Top face" },
  { face: "front", words: "Front face" },
];

/** A bedknife on the grinder: the plan for each face, and the tally as it is ground, held against it. */
export function GrindTally({
  draft,
  system,
  reel,
  change,
}: {
  draft: GroundDraft;
  system: UnitSystem;
  /** Where the reel is ground with it. */
  reel: ReelKnown | undefined;
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
          disabled={counted(draft) > 0}
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
      {reel && (
        <ReelTallyRows
          draft={draft.reel ?? NO_REEL}
          known={reel}
          isClamped={draft.isClamped}
          inFeedMetres={inFeedMetres}
          system={system}
          set={(next) => change((before) => ({ ...before, reel: { ...(before.reel ?? NO_REEL), ...next } }))}
        />
      )}
      <p className="text-sm text-soft">What is counted is booked against knife and reel, not the plan.</p>
    </fieldset>
  );
}
