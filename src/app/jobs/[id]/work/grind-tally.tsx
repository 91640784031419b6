"use client";

import { INCH_METRES, parseQuantity, shownUnit, type UnitSystem } from "@/core/basics/units";
import { type Face, GRINDING_HABIT, type Ground, PASSES_AN_IN_FEED, planGrind, planReel } from "@/core/physics/reel";
import { sayQuantityIssue } from "@/ui/words/issues";
import { show } from "@/ui/words/quantities";

type FaceDraft = { depth: string; inFeeds: number; passes: number };
/** Of the reel `depth` is its deepest nick. */
type ReelDraft = FaceDraft & { taper: string; isRelieved: boolean };
export type GroundDraft = { inFeed: string; isClamped: boolean; top: FaceDraft; front: FaceDraft; reel?: ReelDraft };
const NOTHING: FaceDraft = { depth: "", inFeeds: 0, passes: 0 };
const NO_REEL: ReelDraft = { ...NOTHING, taper: "", isRelieved: false };
export const NO_GROUND: GroundDraft = { inFeed: "", isClamped: false, top: NOTHING, front: NOTHING };

/** What is known of the reel that is ground: its sheet, and its ends as they were measured last. */
export type ReelKnown = { blades: number; scrapMetres?: number; taperMetres?: number; smallestMetres?: number };

const counted = ({ top, front, reel = NO_REEL }: GroundDraft): number => top.inFeeds + front.inFeeds + reel.inFeeds;

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

function reelPlan(reel: ReelDraft, known: ReelKnown, inFeedMetres: number, system: UnitSystem) {
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

/** The reel on the grinder: spun round, relieved where its sheet asks, then on through the bench. */
function ReelTallyRows(args: {
  draft: ReelDraft;
  known: ReelKnown;
  isClamped: boolean;
  inFeedMetres: number;
  system: UnitSystem;
  set: (next: Partial<ReelDraft>) => void;
}) {
  const { draft, known, isClamped, inFeedMetres, system, set } = args;
  const plan = reelPlan(draft, known, inFeedMetres, system);
  const fine = (metres: number) => show(metres, "length", system, "fine");
  return (
    <section aria-label="Reel" className="border-t border-rule py-2">
      <SmallField
        id="grind-taper"
        label={`Reel: taper end to end${known.taperMetres === undefined ? "" : `, ${fine(known.taperMetres)} measured`}`}
        value={draft.taper}
        trouble={lengthOf(draft.taper, system, MOST_DEPTH_METRES).trouble}
        onChange={(text) => set({ taper: text })}
      />
      <SmallField
        id="grind-reel-nick"
        label="Reel: deepest nick"
        value={draft.depth}
        trouble={lengthOf(draft.depth, system, MOST_DEPTH_METRES).trouble}
        onChange={(text) => set({ depth: text })}
      />
      <p aria-live="polite">
        Spin:{" "}
        <span className="num text-lg font-bold">
          {draft.inFeeds} of {plan.inFeeds}
        </span>{" "}
        in-feeds,{" "}
        <span className="num font-bold">
          {draft.passes} of {plan.passes}
        </span>{" "}
        passes: <span className="num font-bold">{fine(draft.inFeeds * inFeedMetres)}</span> off the radius, planned {fine(plan.stockMetres)}
        {plan.reliefPasses > 0 && `; relief ${plan.reliefPasses} passes, blade by blade`}
        {plan.minutes > 0 && `, about ${Math.ceil(plan.minutes)} min`}
        {draft.inFeeds > plan.inFeeds && plan.inFeeds > 0 && <b className="text-mark"> More than planned.</b>}
        {plan.afterMetres !== undefined && plan.stockMetres > 0 && <> Then {fine(plan.afterMetres)} across.</>}
        {plan.isUnderScrap && <b className="text-mark"> That is under its scrap size: another reel, no grinding.</b>}
      </p>
      <div className="mt-1 flex gap-2">
        <button
          type="button"
          className="btn grow"
          disabled={!isClamped}
          onClick={() => set({ inFeeds: draft.inFeeds + 1, passes: draft.passes + 1 })}
        >
          Spin: in-feed and pass
        </button>
        <button
          type="button"
          className="btn grow"
          disabled={!isClamped || draft.inFeeds === 0}
          onClick={() => set({ passes: draft.passes + 1 })}
        >
          Spark-out pass
        </button>
        <button
          type="button"
          className="btn"
          aria-label="Reel: take the last in-feed back"
          disabled={draft.inFeeds === 0}
          onClick={() =>
            set({
              inFeeds: draft.inFeeds - 1,
              // Without an in-feed nothing was sparked out.
              passes: draft.inFeeds === 1 ? 0 : Math.max(draft.inFeeds - 1, draft.passes - 1),
            })
          }
        >
          −
        </button>
      </div>
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="size-6"
          checked={draft.isRelieved}
          onChange={(event) => set({ isRelieved: event.target.checked })}
        />
        Relief ground behind each land, where its sheet asks for it
      </label>
      <p className="text-sm text-soft">Then the bench chain: contact, height, groomer.</p>
    </section>
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
