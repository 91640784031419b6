"use client";

import type { UnitSystem } from "@/core/basics/units";
import { show } from "@/ui/words/quantities";
import { lengthOf, MOST_DEPTH_METRES, type ReelDraft, type ReelKnown, reelPlan } from "./grind-draft";

/** The reel on the grinder: spun round, relieved where its sheet asks, then on through the bench. */
export function ReelTallyRows(args: {
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

export function SmallField(args: {
  id: string;
  label: string;
  value: string;
  trouble: string | undefined;
  onChange: (text: string) => void;
}) {
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
