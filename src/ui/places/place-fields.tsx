"use client";

import type { ReactNode, RefObject } from "react";
import type { DeckReadings } from "@/core/checks";
import type { Machine } from "@/core/machine";
import { fromSi, toSi } from "@/core/units";
import { Choice } from "@/ui/choice";
import { useSeat } from "@/ui/person";
import { QuantityField } from "@/ui/quantity-field";
import { FloorMap } from "./floor-map";
import { WANTED_KEY, type Worksheet } from "./use-worksheet";

type Args = {
  checkId: string;
  machine: Machine;
  worksheet: Worksheet;
  /** Beneath a place's name, by place. */
  hints?: Record<string, string>;
  lastFloor?: DeckReadings["floor"];
  onActive: (key: string) => void;
  fields: RefObject<Map<string, HTMLInputElement>>;
  onSubmit: () => void;
  step: (by: 1 | -1) => void;
  foot: ReactNode;
};

/** A field for every place in measuring order, and what else the check wants to know. */
export function PlaceFields(args: Args) {
  const { checkId, machine, worksheet, hints = {} } = args;
  const { system } = useSeat();
  const { change, draft } = worksheet;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        args.onSubmit();
      }}
    >
      {checkId === "deck-level" && (
        <Choice
          label="Form"
          value={draft.form}
          options={[
            ["quick", "Quick, 4"],
            ["twist", "Twist"],
            ["full", "Full, both ends"],
          ]}
          onChange={(form) => change((before) => ({ ...before, form }))}
        />
      )}
      <div className="ruled">
        {worksheet.places.map((place, order) => (
          <QuantityField
            key={place.key}
            id={`place-${place.key}`}
            label={`${order + 1}. ${place.label}`}
            hint={hints[place.key]}
            text={draft.text[place.key] ?? ""}
            entry={worksheet.entries[place.key] ?? { kind: "empty" }}
            dimension={place.dimension}
            instrument={place.instrument}
            system={system}
            trouble={worksheet.troubles.byPlace[place.key]}
            inputRef={(element) => {
              if (element) args.fields.current?.set(place.key, element);
              else args.fields.current?.delete(place.key);
            }}
            onFocus={() => args.onActive(place.key)}
            onText={(text) => change((before) => ({ ...before, text: { ...before.text, [place.key]: text } }))}
            onSure={(text) => change((before) => ({ ...before, sure: { ...before.sure, [place.key]: text } }))}
            onKeyDown={(event) => {
              if (event.key !== "Enter" || event.ctrlKey) return;
              event.preventDefault();
              args.step(event.shiftKey ? -1 : 1);
            }}
          />
        ))}
        {checkId === "deck-level" && (
          <QuantityField
            id="wanted-height"
            label="Height of cut to set (leave empty: only level)"
            text={draft.wantedHeight}
            entry={worksheet.wanted}
            dimension="length"
            instrument="tape"
            system={system}
            onText={(wantedHeight) => change((before) => ({ ...before, wantedHeight }))}
            onSure={(text) => change((before) => ({ ...before, sure: { ...before.sure, [WANTED_KEY]: text } }))}
          />
        )}
        {checkId === "tyre-pressure" && (
          <label className="grid grid-cols-[1fr_9.5rem] items-center gap-2 py-1">
            <span>Gauge steps by</span>
            <select
              className="input num"
              value={draft.gaugeStepPsi}
              onChange={(event) => change((before) => ({ ...before, gaugeStepPsi: event.target.value }))}
            >
              {[0.1, 0.5, 1, 2, 5].map((step) => (
                <option key={step} value={step}>
                  {system === "us" ? `${step} psi` : `${Math.round(fromSi(toSi(step, "psi"), "kpa"))} kPa`}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      {checkId === "deck-level" && (
        <label className="flex min-h-11 items-center gap-3 leading-tight">
          <input
            type="checkbox"
            className="size-6 shrink-0"
            checked={draft.isCarriedRound}
            onChange={(event) => change((before) => ({ ...before, isCarriedRound: event.target.checked }))}
          />
          The same end of each blade turned to every place
        </label>
      )}
      {checkId === "deck-level" && (machine.deck?.hangers.length ?? 0) > 0 && <Loose {...args} />}
      {checkId === "deck-level" && <FloorMap machine={machine} lastFloor={args.lastFloor} worksheet={worksheet} />}
      {args.foot}
    </form>
  );
}

function Loose({ machine, worksheet }: Args) {
  const toggle = (id: string) =>
    worksheet.change((draft) => ({
      ...draft,
      loose: draft.loose.includes(id) ? draft.loose.filter((one) => one !== id) : [...draft.loose, id],
    }));
  return (
    <details className="py-1" open={worksheet.draft.loose.length > 0}>
      <summary className="min-h-11 cursor-pointer py-2">Hangers found loose before turning</summary>
      <div className="flex flex-wrap gap-1">
        {machine.deck?.hangers.map(({ id, label }) => (
          <button
            key={id}
            type="button"
            aria-pressed={worksheet.draft.loose.includes(id)}
            className={`btn px-3 ${worksheet.draft.loose.includes(id) ? "btn-on" : ""}`}
            onClick={() => toggle(id)}
          >
            {label}
          </button>
        ))}
      </div>
    </details>
  );
}
