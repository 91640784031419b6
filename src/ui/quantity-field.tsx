"use client";

import type { KeyboardEvent, Ref } from "react";
import {
  type Dimension,
  formatQuantity,
  type Instrument,
  type QuantityIssue,
  shownUnit,
  type UnitId,
  type UnitSystem,
  unitById,
} from "@/core/basics/units";
import { sayQuantityIssue } from "./words/issues";

export type FieldEntry =
  | { kind: "empty" }
  | { kind: "unread"; issue: QuantityIssue }
  | { kind: "refused"; code: string; limitSi: number }
  | { kind: "asked"; valueSi: number; suggestion?: { valueSi: number; unit: string; number: number } }
  | { kind: "read"; valueSi: number };

type Args = {
  id: string;
  label: string;
  text: string;
  entry: FieldEntry;
  dimension: Dimension;
  instrument: Instrument;
  system: UnitSystem;
  trouble?: string | undefined;
  hint?: string | undefined;
  onText: (text: string) => void;
  onSure: (text: string) => void;
  onKeyDown?: (event: KeyboardEvent<HTMLInputElement>) => void;
  onFocus?: () => void;
  inputRef?: Ref<HTMLInputElement>;
};

/** One quantity as its gauge shows it: any spelling is read, what cannot be is answered beneath the field, nothing typed is changed. */
export function QuantityField(args: Args) {
  const { id, label, text, entry, dimension, instrument, system } = args;
  const sentence = args.trouble ?? troubleOf(args);
  const unit = unitById(shownUnit({ dimension, system })).symbol;
  return (
    <div className="py-1">
      <div className="grid grid-cols-[1fr_9.5rem] items-center gap-2">
        <label htmlFor={id} className="leading-tight">
          {label}
          {args.hint && <span className="block text-sm text-soft">{args.hint}</span>}
        </label>
        <div className="relative">
          <input
            ref={args.inputRef}
            id={id}
            className="input num pr-13 text-right text-lg"
            value={text}
            autoComplete="off"
            enterKeyHint="next"
            inputMode={instrument === "tape" && system === "us" ? "text" : "decimal"}
            aria-invalid={sentence !== undefined}
            aria-describedby={sentence ? `${id}-trouble` : undefined}
            onChange={(event) => args.onText(event.target.value)}
            onKeyDown={args.onKeyDown}
            onFocus={args.onFocus}
          />
          <span className="pointer-events-none absolute inset-y-0 right-2 flex items-center text-sm text-soft">{unit}</span>
        </div>
      </div>
      {sentence && (
        <p id={`${id}-trouble`} className="trouble mt-1" role="alert">
          {sentence}
        </p>
      )}
      {entry.kind === "asked" && <Ask text={text} entry={entry} args={args} />}
    </div>
  );
}

function troubleOf({ entry, dimension, instrument, system }: Args): string | undefined {
  if (entry.kind === "unread") return sayQuantityIssue(entry.issue);
  if (entry.kind !== "refused") return undefined;
  if (entry.code === "negative-quantity") return "Less than nothing cannot be read off a gauge. Type it without the minus.";
  const limit = formatQuantity({ valueSi: entry.limitSi, dimension, system, instrument }).text;
  return entry.code === "above-most"
    ? `More than this can be: ${limit} at most. Read it again.`
    : `Less than this can be: ${limit} at least. Read it again.`;
}

function Ask({ text, entry, args }: { text: string; entry: Extract<FieldEntry, { kind: "asked" }>; args: Args }) {
  const { suggestion } = entry;
  const inThou = suggestion?.unit === "thou";
  const other =
    suggestion &&
    (inThou
      ? formatQuantity({ valueSi: suggestion.valueSi, dimension: "length", system: "us", instrument: "fine" }).text
      : `${suggestion.number} ${unitById(suggestion.unit as UnitId).symbol}`);
  return (
    <fieldset className="mt-1 flex flex-wrap items-center gap-2 border-l-4 border-watch pl-2" aria-label={`Check ${args.label}`}>
      <span className="text-sm">
        {text.trim()} {unitById(shownUnit(args)).symbol} is unusual here.
      </span>
      {other && (
        <button type="button" className="btn" onClick={() => args.onText(other)}>
          I meant {other}
        </button>
      )}
      <button type="button" className="btn" onClick={() => args.onSure(text)}>
        It is right
      </button>
    </fieldset>
  );
}
