"use client";

import { cutters, type Machine } from "@/core/machine";
import { Choice, TextField } from "@/ui/choice";

export type StrikeDraft = { words: string; where: string; place: string; droveOn: "" | "yes" | "no" | "not-known" };
export const NO_STRIKE: StrikeDraft = { words: "", where: "", place: "", droveOn: "" };

/** Whether what has to be asked of a strike was: what it hit, and whether the drive was stopped at once. */
export const isStrikeTold = ({ words, droveOn }: StrikeDraft): boolean => words.trim() !== "" && droveOn !== "";

/** As the record takes it; without a place on the site it was where the complaint was. */
export function strikeFrom({ words, where, place, droveOn }: StrikeDraft, site: string): Record<string, unknown> {
  return {
    words,
    where: where || site,
    ...(place ? { place } : {}),
    ...(droveOn === "yes" || droveOn === "no" ? { droveOn: droveOn === "yes" } : {}),
  };
}

/** Places of a machine that a strike may have met. */
export const strikePlaces = (machine: Machine): { id: string; label: string }[] =>
  [...cutters(machine), ...(machine.deck?.hangers ?? [])].map(({ id, label }) => ({ id, label }));

/** A strike is asked out then and there: what, where on the site, stopped at once? It stands on the log, and nothing runs before it was looked at. */
export function StrikeTold({
  value,
  machine,
  onChange,
}: {
  value: StrikeDraft;
  machine: Machine;
  onChange: (change: Partial<StrikeDraft>) => void;
}) {
  return (
    <fieldset className="border-2 border-mark p-3">
      <legend className="px-1 text-lg font-bold">It struck something</legend>
      <p className="text-sm leading-snug">
        Do not mow on with it. It goes on the machine’s log: blades, shaft and hangers are looked at before it runs again.
      </p>
      <div className="grid gap-x-3 sm:grid-cols-2">
        <TextField id="strike-words" label="What it hit" value={value.words} onChange={(words) => onChange({ words })} />
        <TextField id="strike-where" label="Where on the site" value={value.where} onChange={(where) => onChange({ where })} />
        <Choice
          label="The drive"
          value={value.droveOn}
          options={[
            ["no", "Stopped at once"],
            ["yes", "Ran on"],
            ["not-known", "Not known"],
          ]}
          onChange={(droveOn) => onChange({ droveOn })}
        />
        <label className="block py-1">
          <span className="caps mb-1 block">Which blade, unit or hanger</span>
          <select className="input" value={value.place} onChange={(event) => onChange({ place: event.target.value })}>
            <option value="">not known</option>
            {strikePlaces(machine).map(({ id, label }) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </select>
        </label>
      </div>
    </fieldset>
  );
}
