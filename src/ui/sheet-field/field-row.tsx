"use client";

import type { ReactNode } from "react";
import type { SheetWord } from "@/core/machine";
import type { SheetField } from "@/core/machine/specification";
import { Choice } from "@/ui/choice";
import { useSeat } from "@/ui/person";
import { QuantityField } from "@/ui/quantity-field";
import { choiceWords, WORD_LABELS } from "@/ui/words/sheet";
import { OrderField, TableField } from "./list-field";
import { type FieldTrouble, readText } from "./read-text";

export const fieldId = (key: string): string => `sheet-${key.replaceAll(".", "-")}`;

/** Letters that stand in a line and are seen all at once. */
const ONE_LINE = 120;

/** One value of the sheet in its own sort of field, with whose word it is. */
export function FieldRow(args: {
  field: SheetField;
  text: string;
  sure: string | undefined;
  word: SheetWord;
  trouble: FieldTrouble | undefined;
  onText: (text: string, sure?: string) => void;
  /** What it looks like, as it stands. */
  picture?: ReactNode;
  /** What may be begun from while nothing is told. */
  usual?: string | undefined;
}) {
  const { field, text, trouble, onText } = args;
  const { system } = useSeat();
  const id = fieldId(field.key);
  const hint = args.word === "sheet" || text === "" ? undefined : WORD_LABELS[args.word];
  const words = trouble && sayTrouble(trouble, field);
  switch (field.kind) {
    case "quantity":
      return (
        <QuantityField
          id={id}
          label={field.label}
          hint={hint}
          text={text}
          entry={readText(field, text, system, args.sure).entry}
          dimension={field.dimension}
          instrument={field.instrument}
          system={system}
          trouble={trouble === "needed" ? words : undefined}
          onText={onText}
          onSure={(sure) => onText(text, sure)}
        />
      );
    case "choice":
      return (
        <Choice
          label={hint ? `${field.label} (${hint})` : field.label}
          value={text}
          options={field.options.map((option) => [option, choiceWords(option, field.names)])}
          onChange={(option) => onText(option === text ? "" : option)}
        />
      );
    case "order":
      return <OrderField {...{ id, field, text, hint, words, onText }} picture={args.picture} />;
    case "table":
      return (
        <TableField
          {...{ id, field, text, hint, words, onText }}
          usual={args.usual}
          cell={(cell) => <FieldRow {...cell} sure={cell.text} word="sheet" />}
        />
      );
    case "flag":
      return (
        <label className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            className="size-6 accent-ink"
            checked={text === "true"}
            onChange={(event) => onText(String(event.target.checked))}
          />
          {field.label}
        </label>
      );
    default:
      return (
        <div className="py-1">
          <label htmlFor={id} className={field.kind === "number" ? "grid grid-cols-[1fr_9.5rem] items-center gap-2" : "block"}>
            <span className="leading-tight">
              {field.label}
              {field.kind === "number" && field.unit ? `, ${field.unit}` : ""}
              {hint && <span className="block text-sm text-soft">{hint}</span>}
            </span>
            {field.kind === "lines" || (field.kind === "text" && field.most > ONE_LINE) ? (
              <textarea
                id={id}
                className="input mt-1"
                rows={field.kind === "lines" ? 3 : 2}
                value={text}
                aria-invalid={words !== undefined}
                onChange={(event) => onText(event.target.value)}
              />
            ) : (
              <input
                id={id}
                className={`input ${field.kind === "number" ? "num text-right text-lg" : "mt-1"}`}
                value={text}
                autoComplete="off"
                inputMode={field.kind === "number" ? "decimal" : "text"}
                aria-invalid={words !== undefined}
                onChange={(event) => onText(event.target.value)}
              />
            )}
          </label>
          {words && (
            <p className="trouble mt-1" role="alert">
              {words}
            </p>
          )}
        </div>
      );
  }
}

function sayTrouble(trouble: FieldTrouble, field: SheetField): string {
  switch (trouble) {
    case "needed":
      if (field.key.startsWith("frame.") || field.key.startsWith("deck.centreOfGravity."))
        return "A weight and where it stands go together: all of it, or none.";
      return field.at === "side-view"
        ? "The side view is all of both rollers and the edge, or nothing: this one is needed with the others."
        : "This one is needed with what stands beside it.";
    case "below":
      return field.kind === "number" ? `Less than this can be: ${field.least} at least.` : "Less than this can be.";
    case "above":
      if (field.kind === "text") return "One to forty of each.";
      return field.kind === "number" ? `More than this can be: ${field.most} at most.` : "More than this can be.";
    case "not-whole":
      return "A whole number.";
    case "too-long":
      if (field.key.endsWith(".parts")) return "A name is too long: 60 letters at most.";
      return field.kind === "text" ? `Too long: ${field.most} letters at most.` : "A line is too long: 80 letters at most.";
    case "too-many":
      return "most" in field ? `Too many: ${field.most} at most.` : "Too many.";
    case "in-a-row":
      return "One of these cannot be read yet: it says which.";
    case "unreadable":
      return "This cannot be read. Type a number.";
  }
}
