"use client";

import { RadioGroup } from "radix-ui";
import {
  memo,
  type KeyboardEvent as ReactKeyboardEvent,
  type ReactNode,
  type RefObject,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { flushSync } from "react-dom";
import { formatQuantity, shownUnit, type UnitSystem, unitById } from "@/core/basics/units";
import { type Field, type Group, keyOf, type QuantityAsked } from "@/core/checks";
import type { FieldEntry, ListEntry, NumberEntry } from "../entry";
import { QuantityField } from "../quantity-field";
import { type Evaluated, type Typed, typedIn } from "./evaluate";

export type FieldsArgs = {
  evaluated: Evaluated;
  typed: Typed;
  system: UnitSystem;
  onText: (key: string, text: string) => void;
  onSure: (key: string, text: string) => void;
  /** The field in hand, shown on the drawing. */
  onField: (field: Field) => void;
  expected?: Readonly<Record<string, { was: number; should?: number }>> | undefined;
  lastTime?: object | undefined;
  fields: RefObject<HTMLDivElement | null>;
};

/** Every field of a form in the order of the work. Enter goes on, Shift and Enter back, a digit picks an answer and goes on. */
export function SheetFields(args: FieldsArgs) {
  const { form } = args.evaluated;
  useFirstKey(args.fields);
  const hands = useHands(args);
  return (
    <div ref={args.fields}>
      {form.groups.map((group) => (
        <OneGroup key={group.id} group={group} {...args} hands={hands} />
      ))}
    </div>
  );
}

type Hands = Pick<FieldsArgs, "onText" | "onSure" | "onField">;

/** What a field calls, the same from one key to the next: only the field that changed is drawn anew. */
function useHands({ onText, onSure, onField }: Hands): Hands {
  const latest = useRef<Hands>({ onText, onSure, onField });
  latest.current = { onText, onSure, onField };
  return useMemo(
    () => ({
      onText: (key, text) => latest.current.onText(key, text),
      onSure: (key, text) => latest.current.onSure(key, text),
      onField: (field) => latest.current.onField(field),
    }),
    [],
  );
}

/** What can begin a reading: a digit, a decimal point, a sign. */
const BEGINS = /^[0-9.,+−-]$/;

/** A reading may be typed, or sent by a gauge, before any field was touched: it goes where the work begins, the first stop not answered. */
function useFirstKey(fields: RefObject<HTMLDivElement | null>): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.altKey || event.metaKey || event.defaultPrevented || !BEGINS.test(event.key)) return;
      const { activeElement } = document;
      const isTaken = activeElement?.matches("input, textarea, select, [role=radio], [role=slider], [contenteditable]") === true;
      if (isTaken || document.querySelector("[role=dialog]")) return;
      const first = stopsIn(fields.current).find(isUnanswered);
      if (!first?.matches("[data-stop]")) {
        // The key itself then goes into it.
        first?.focus();
        return;
      }
      event.preventDefault();
      first.querySelector<HTMLElement>("button")?.focus();
      first.dispatchEvent(new KeyboardEvent("keydown", { key: event.key, bubbles: true, cancelable: true }));
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [fields]);
}

function isUnanswered(stop: HTMLElement): boolean {
  if (stop instanceof HTMLInputElement || stop instanceof HTMLTextAreaElement) return stop.value === "";
  return stop.querySelector("[data-state=checked]") === null;
}

function OneGroup({ group, hands, ...args }: FieldsArgs & { group: Group; hands: Hands }) {
  const own = args.evaluated.form.fields.filter((field) => field.group === group.id);
  if (own.length === 0) return null;
  const body = (
    <div className="ruled">
      {group.note && <p className="py-1 text-sm text-soft">{group.note}</p>}
      {group.isRepeatable && <AsLastTime group={group.id} {...args} />}
      {own.map((field) => {
        const key = keyOf(field.path);
        return (
          <OneField
            key={key}
            field={field}
            text={args.typed.text[key] ?? ""}
            entry={args.evaluated.entries[key]}
            trouble={args.evaluated.troubles.byField[key]}
            expected={args.expected?.[key]}
            system={args.system}
            fields={args.fields}
            hands={hands}
          />
        );
      })}
    </div>
  );
  const isTyped = own.some(({ path }) => (args.typed.text[keyOf(path)] ?? "") !== "");
  return group.isFolded ? (
    <Folded label={group.label} isTyped={isTyped}>
      {body}
    </Folded>
  ) : (
    <section id={`group-${group.id}`} aria-label={group.label} className="mt-2 border-t-2 border-ink pt-1">
      <div className="flex items-baseline gap-2">
        <h3 className="grow text-lg font-bold">{group.label}</h3>
        <SameOnOthers group={group.id} {...args} />
      </div>
      {body}
    </section>
  );
}

/** What is seldom wanted: its fields are drawn when it is opened, since every key draws the form anew. */
function Folded({ label, isTyped, children }: { label: string; isTyped: boolean; children: ReactNode }) {
  const [isOpen, setOpen] = useState(isTyped);
  return (
    <details className="mt-2 border-t-2 border-ink" open={isTyped || isOpen} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-11 cursor-pointer py-2 text-lg font-bold">{label}</summary>
      {(isTyped || isOpen) && children}
    </details>
  );
}

/**
 * Offered on the first of several like groups once something is answered there: most often they are all alike. Copies its figures too, but where nothing
 * is answered but figures alone each is measured, and it is not offered.
 */
function SameOnOthers({ group, evaluated, typed, onText }: FieldsArgs & { group: string }) {
  const { fields, groups } = evaluated.form;
  const own = fields.flatMap((field) => {
    const text = typed.text[keyOf(field.path)] ?? "";
    return field.group === group && field.path.includes(group) && text !== "" ? [{ field, text }] : [];
  });
  const others = groups.filter(({ id }) => id !== group && fields.some((field) => field.group === id && field.path.includes(id)));
  const isFirst = fields.find((field) => field.path.includes(field.group))?.group === group;
  // What an answer makes worth asking stands in the other groups only once the answer does: it is copied by its own place in the first.
  const empty = others.flatMap(({ id }) =>
    own.flatMap(({ field, text }) => {
      const key = keyOf(field.path.map((part) => (part === group ? id : part)));
      return (typed.text[key] ?? "") === "" ? [{ key, text }] : [];
    }),
  );
  if (!isFirst || empty.length === 0 || !own.some(({ field }) => field.kind === "choice")) return null;
  return (
    <button
      type="button"
      className="btn text-sm"
      onClick={() => {
        for (const { key, text } of empty) onText(key, text);
      }}
    >
      Same on the others
    </button>
  );
}

/** What stays true from one reading to the next is not read twice. */
function AsLastTime({ group, evaluated, lastTime, system, onText, onSure }: FieldsArgs & { group: string }) {
  const texts = lastTime ? Object.entries(typedIn({ form: evaluated.form, group, input: lastTime, system })) : [];
  if (texts.length === 0) return null;
  return (
    <button
      type="button"
      className="btn my-1"
      onClick={() => {
        for (const [key, text] of texts) {
          onText(key, text);
          onSure(key, text);
        }
      }}
    >
      As it was last time
    </button>
  );
}

type Expected = { was: number; should?: number } | undefined;

/** Where a field left empty gets its value, that it may stay empty, or what it read and should read. */
function hintOf(field: QuantityAsked, system: UnitSystem, expected: Expected): string | undefined {
  const { onSheet, isOptional, dimension, instrument } = field;
  const said = (valueSi: number) => formatQuantity({ valueSi, dimension, system, instrument }).text;
  if (expected) return `was ${said(expected.was)}${expected.should === undefined ? "" : `, should read ${said(expected.should)}`}`;
  if (onSheet !== undefined) return `the sheet's ${said(onSheet)}`;
  return isOptional ? "if known" : undefined;
}

type OneArgs = Pick<FieldsArgs, "system" | "fields"> & {
  field: Field;
  text: string;
  entry: FieldEntry | undefined;
  trouble: string | undefined;
  expected: Expected;
  hands: Hands;
};

/** Forms are made anew with every key; most of their fields come out as they were. */
const isSame = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);
const isUnchanged = (a: OneArgs, b: OneArgs): boolean =>
  a.text === b.text &&
  a.trouble === b.trouble &&
  a.system === b.system &&
  a.hands === b.hands &&
  a.fields === b.fields &&
  isSame(a.entry, b.entry) &&
  isSame(a.expected, b.expected) &&
  isSame(a.field, b.field);

const OneField = memo(function OneField({ field, text, trouble, system, fields, hands, expected, ...args }: OneArgs) {
  const key = keyOf(field.path);
  const entry = args.entry ?? { kind: "empty" as const };
  const id = `field-${key}`;
  const onFocus = () => hands.onField(field);
  const label = field.isOptional ? `${field.label} (if known)` : field.label;
  switch (field.kind) {
    case "quantity":
      return (
        <QuantityField
          id={id}
          label={field.label}
          hint={hintOf(field, system, text === "" ? expected : undefined)}
          text={text}
          entry={entry as Parameters<typeof QuantityField>[0]["entry"]}
          dimension={field.dimension}
          instrument={field.instrument}
          system={system}
          trouble={trouble}
          onFocus={onFocus}
          onText={(next) => hands.onText(key, next)}
          onSure={(next) => hands.onSure(key, next)}
          onKeyDown={(event) => onEnter(event, fields)}
        />
      );
    case "choice":
      return (
        <ChoiceRow
          id={id}
          field={field}
          label={label}
          value={text}
          trouble={trouble}
          onFocus={onFocus}
          onText={hands.onText}
          fields={fields}
        />
      );
    case "list":
      return (
        <ListField
          id={id}
          field={field}
          text={text}
          entry={entry}
          trouble={trouble}
          onFocus={onFocus}
          onText={hands.onText}
          onSure={hands.onSure}
          system={system}
        />
      );
    case "number":
      return (
        <LineField
          id={id}
          label={label}
          unit={field.unit}
          text={text}
          trouble={trouble ?? sayNumber(entry)}
          inputMode="decimal"
          onFocus={onFocus}
          onText={(next) => hands.onText(key, next)}
          onKeyDown={(event) => onEnter(event, fields)}
        />
      );
    case "text":
      return (
        <LineField
          id={id}
          label={label}
          isWide
          text={text}
          trouble={entry.kind === "too-long" ? `${entry.most} letters at most.` : trouble}
          onFocus={onFocus}
          onText={(next) => hands.onText(key, next)}
          onKeyDown={(event) => onEnter(event, fields)}
        />
      );
  }
}, isUnchanged);

/** The radio buttons inside an answer are drawn by hand: the hidden inputs beside them are no stops. */
const STOPS = "input:not([type=radio]), textarea, [data-stop]";

const stopsIn = (root: HTMLElement | null): HTMLElement[] =>
  [...(root?.querySelectorAll<HTMLElement>(STOPS) ?? [])].filter((one) => one.offsetParent !== null);

/** The field after or before the one in hand, in the order they stand; answers count as one stop. */
export function goOn(root: HTMLElement | null, from: Element, by: 1 | -1): void {
  const stops = stopsIn(root);
  const here = stops.findIndex((one) => one === from || one.contains(from));
  const next = stops[here + by];
  if (!next) return;
  const target = next.matches("[data-stop]")
    ? (next.querySelector<HTMLElement>("[data-state=checked]") ?? next.querySelector<HTMLElement>("button"))
    : next;
  target?.focus();
  if (target instanceof HTMLInputElement) target.select();
  target?.scrollIntoView({ block: "nearest" });
}

function onEnter(event: ReactKeyboardEvent<HTMLElement>, fields: RefObject<HTMLDivElement | null>): void {
  if (event.key !== "Enter" || event.ctrlKey) return;
  event.preventDefault();
  goOn(fields.current, event.currentTarget, event.shiftKey ? -1 : 1);
}

type ChoiceArgs = Pick<FieldsArgs, "onText" | "fields"> & {
  id: string;
  field: Extract<Field, { kind: "choice" }>;
  label: string;
  value: string;
  trouble: string | undefined;
  onFocus: () => void;
};

function ChoiceRow({ id, field, label, value, trouble, onFocus, onText, fields }: ChoiceArgs) {
  const key = keyOf(field.path);
  const root = useRef<HTMLFieldSetElement>(null);
  const onKey = (event: ReactKeyboardEvent<HTMLElement>) => {
    onEnter(event, fields);
    const digit = !event.ctrlKey && !event.altKey && !event.metaKey ? Number(event.key) : Number.NaN;
    const picked = Number.isInteger(digit) ? field.options[digit - 1] : undefined;
    if (event.key === "Delete" || event.key === "Backspace") onText(key, "");
    if (!picked) return;
    event.preventDefault();
    // What is asked next may hang on this answer: it has to stand there before the keyboard goes on.
    flushSync(() => onText(key, picked.id));
    if (root.current) goOn(fields.current, root.current, 1);
  };
  return (
    <fieldset ref={root} data-stop className="py-1" onFocus={onFocus} onKeyDown={onKey}>
      <legend className="float-left w-full leading-tight">{label}</legend>
      <RadioGroup.Root
        id={id}
        value={value === "" ? (field.usual ?? "") : value}
        onValueChange={(next) => onText(key, next)}
        className="flex w-full flex-wrap gap-1 pt-1"
        aria-label={field.label}
      >
        {field.options.map((option) => (
          <RadioGroup.Item
            key={option.id}
            value={option.id}
            className="btn grow px-2 text-sm data-[state=checked]:bg-ink data-[state=checked]:text-paper"
            onClick={() => value === option.id && onText(key, "")}
          >
            {option.label}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      {trouble && (
        <p className="trouble mt-1" role="alert">
          {trouble}
        </p>
      )}
    </fieldset>
  );
}

function sayNumber(entry: FieldEntry): string | undefined {
  if (entry.kind !== "no-number") return undefined;
  const words: Record<Extract<NumberEntry, { kind: "no-number" }>["why"], string> = {
    unreadable: "That is no number. Type it like 24 or 8.50.",
    below: `At least ${entry.limit}.`,
    above: `At most ${entry.limit}.`,
    broken: "A whole number, please.",
  };
  return words[entry.why];
}

function LineField(args: {
  id: string;
  label: string;
  text: string;
  unit?: string | undefined;
  trouble: string | undefined;
  isWide?: boolean;
  inputMode?: "decimal";
  onText: (text: string) => void;
  onFocus: () => void;
  onKeyDown: (event: ReactKeyboardEvent<HTMLInputElement>) => void;
}) {
  const { id, label, text, unit, trouble } = args;
  return (
    <div className="py-1">
      <div className={`grid items-center gap-2 ${args.isWide ? "" : "grid-cols-[1fr_9.5rem]"}`}>
        <label htmlFor={id} className="leading-tight">
          {label}
        </label>
        <div className="relative">
          <input
            id={id}
            className={`input ${args.isWide ? "" : "num pr-10 text-right text-lg"}`}
            value={text}
            autoComplete="off"
            enterKeyHint="next"
            {...(args.inputMode ? { inputMode: args.inputMode } : {})}
            aria-invalid={trouble !== undefined}
            aria-describedby={trouble ? `${id}-trouble` : undefined}
            onFocus={args.onFocus}
            onChange={(event) => args.onText(event.target.value)}
            onKeyDown={args.onKeyDown}
          />
          {unit && <span className="pointer-events-none absolute inset-y-0 right-2 flex items-center text-sm text-soft">{unit}</span>}
        </div>
      </div>
      {trouble && (
        <p id={`${id}-trouble`} className="trouble mt-1" role="alert">
          {trouble}
        </p>
      )}
    </div>
  );
}

type ListArgs = Pick<FieldsArgs, "onText" | "onSure" | "system"> & {
  id: string;
  field: Extract<Field, { kind: "list" }>;
  text: string;
  entry: FieldEntry;
  trouble: string | undefined;
  onFocus: () => void;
};

const WHY: Record<ListEntry["bad"][number]["why"], string> = {
  unreadable: "cannot be read",
  negative: "is less than nothing",
  impossible: "cannot be",
  unusual: "is unusual here",
};

function ListField({ id, field, text, entry, trouble, onFocus, onText, onSure, system }: ListArgs) {
  const key = keyOf(field.path);
  const list = entry.kind === "list" ? entry : undefined;
  const count = list?.valuesSi.length ?? 0;
  const unit = unitById(shownUnit({ dimension: field.dimension, system })).symbol;
  const bad = list?.bad ?? [];
  const named = [...new Set(bad.slice(0, 4).map(({ text: piece, why }) => `“${piece}” ${WHY[why]}`))].join(", ");
  const isOnlyUnusual = bad.length > 0 && bad.every(({ why }) => why === "unusual");
  return (
    <div className="py-1">
      <label htmlFor={id} className="flex items-baseline gap-2 leading-tight">
        <span className="grow">
          {field.label} <span className="text-sm text-soft">({unit}; Enter after each, or paste a column)</span>
        </span>
        <span className={`num text-lg font-semibold whitespace-nowrap ${count < field.wanted ? "text-watch" : "text-good"}`}>
          {count} of {field.wanted}
        </span>
      </label>
      <textarea
        id={id}
        className="input num mt-1 text-lg"
        rows={4}
        value={text}
        aria-invalid={bad.length > 0}
        aria-describedby={bad.length > 0 ? `${id}-trouble` : undefined}
        onFocus={onFocus}
        onChange={(event) => onText(key, event.target.value)}
      />
      {list && count > 0 && (
        <p className="num truncate text-sm text-soft" aria-live="polite">
          Read:{" "}
          {list.valuesSi
            .slice(-6)
            .map(
              (valueSi) =>
                formatQuantity({
                  valueSi,
                  dimension: field.dimension,
                  system,
                  instrument: field.instrument === "tape" ? "gauge" : field.instrument,
                }).number,
            )
            .join(" · ")}{" "}
          {unit}
        </p>
      )}
      {bad.length > 0 && (
        <div id={`${id}-trouble`} role="alert" className="mt-1 border-l-4 border-watch pl-2">
          <p className="text-sm">
            {count} read; {bad.length} {bad.length === 1 ? "is" : "are"} not: {named}
            {bad.length > 4 ? " …" : ""}.
          </p>
          <div className="mt-1 flex flex-wrap gap-2">
            <button type="button" className="btn" onClick={() => onText(key, (list?.texts ?? []).join("\n"))}>
              Leave {bad.length === 1 ? "it" : `the ${bad.length}`} out
            </button>
            {isOnlyUnusual && (
              <button type="button" className="btn" onClick={() => onSure(key, text)}>
                {bad.length === 1 ? "It is right" : "They are right"}
              </button>
            )}
          </div>
        </div>
      )}
      {trouble && (
        <p className="trouble mt-1" role="alert">
          {trouble}
        </p>
      )}
    </div>
  );
}
