"use client";

import { type GreaseRule, PURGE_HOURS, TOP_UP_HOURS } from "@/core/fleet/service/spindles";
import { type Machine, withSheet } from "@/core/machine";
import { Choice } from "@/ui/choice";
import { useDraft } from "@/ui/draft";

type Places = "own" | "rotated";
const MOST_HOURS = 2000;

const hoursOf = (text: string): number | undefined => {
  const value = Number(text.trim().replace(",", "."));
  return text.trim() !== "" && Number.isFinite(value) && value > 0 && value <= MOST_HOURS ? value : undefined;
};

/** The sheet with another rule of grease and of places on it. */
function withRule(machine: Machine, rule: GreaseRule, spindlePlaces: Places): Machine {
  return withSheet(machine, { grease: rule, spindlePlaces });
}

type RuleDraft = { school: GreaseRule["school"]; topUp: string; purge: string; places: Places };

/** Which school this machine follows: set per machine, kept on its sheet. */
export function GreaseRuleForm(args: {
  machine: Machine;
  rule: GreaseRule;
  /** Of this version of the sheet: a later one begins anew. */
  draftKey: string;
  isRotated: boolean;
  isBusy: boolean;
  onSave: (machine: Machine, reason: string) => void;
}) {
  const { machine, rule } = args;
  const { value, set } = useDraft<RuleDraft>(args.draftKey, {
    school: rule.school,
    topUp: String(rule.school === "by-hours" ? rule.topUpHours : TOP_UP_HOURS),
    purge: String(rule.school === "by-hours" ? rule.purgeHours : PURGE_HOURS),
    places: args.isRotated ? "rotated" : "own",
  });
  const { school, topUp, purge, places } = value;
  const put = (change: Partial<RuleDraft>) => set((before) => ({ ...before, ...change }));
  const [topUpHours, purgeHours] = [hoursOf(topUp), hoursOf(purge)];
  const isReadable = school === "leave-sealed" || (topUpHours !== undefined && purgeHours !== undefined && purgeHours >= topUpHours);
  const next: GreaseRule =
    school === "leave-sealed" ? { school } : { school, topUpHours: topUpHours ?? TOP_UP_HOURS, purgeHours: purgeHours ?? PURGE_HOURS };
  return (
    <details className="mt-1">
      <summary className="min-h-11 cursor-pointer py-2">Change the rule</summary>
      <Choice
        label="Grease"
        value={school}
        options={[
          ["by-hours", "By hours, over the old grease"],
          ["leave-sealed", "Sealed, left alone"],
        ]}
        onChange={(next) => put({ school: next })}
      />
      {school === "by-hours" && (
        <div className="flex gap-2">
          <HoursField label="Top up every" text={topUp} onText={(text) => put({ topUp: text })} />
          <HoursField label="Purge every" text={purge} onText={(text) => put({ purge: text })} />
        </div>
      )}
      {!isReadable && <p className="trouble">Hours like 50 and 200, the purge no sooner than the top-up, {MOST_HOURS} at most.</p>}
      <Choice
        label="Spindles of this deck"
        value={places}
        options={[
          ["own", "Each to its own place"],
          ["rotated", "Moved round"],
        ]}
        onChange={(next) => put({ places: next })}
      />
      <button
        type="button"
        className="btn btn-go mt-1"
        disabled={args.isBusy || !isReadable}
        onClick={() => args.onSave(withRule(machine, next, places), "Grease rule changed")}
      >
        Put it on the sheet
      </button>
    </details>
  );
}

function HoursField({ label, text, onText }: { label: string; text: string; onText: (text: string) => void }) {
  return (
    <label className="grow">
      <span className="caps">{label}, h</span>
      <input
        className="input num"
        inputMode="decimal"
        value={text}
        aria-invalid={hoursOf(text) === undefined}
        onChange={(event) => onText(event.target.value)}
      />
    </label>
  );
}
