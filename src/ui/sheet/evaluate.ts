import { emptyTable } from "@/core/basics/tables";
import type { UnitSystem } from "@/core/basics/units";
import {
  type Assessment,
  assessWith,
  type Check,
  type Field,
  type Form,
  keyOf,
  packReadings,
  type ReadingProblem,
  readAt,
} from "@/core/checks";
import type { Machine } from "@/core/machine";
import { type FieldEntry, isWrong, readField, valueIn, writeQuantity } from "../entry";
import { sayIssue } from "../words/issues";

/** What was typed and chosen, by the key of its field. */
export type Typed = { text: Record<string, string>; sure: Record<string, string> };

export type Evaluated = {
  form: Form;
  entries: Record<string, FieldEntry>;
  readings: Record<string, unknown>;
  assessment?: Assessment;
  /** Sentences by field, and those that belong to none. */
  troubles: { byField: Record<string, string>; general: string[] };
  isStarted: boolean;
  wrongCount: number;
  /** As typed, by field and place in a list, for the record. */
  asTyped: Record<string, string>;
};

type Args = { check: Check; machine: Machine; typed: Typed; system: UnitSystem; context?: object | undefined };

const NO_FORM: Form = { groups: [], fields: [] };

function entriesOf({ typed, system }: Args, fields: readonly Field[]): Record<string, FieldEntry> {
  return Object.fromEntries(
    fields.map((field) => {
      const key = keyOf(field.path);
      return [key, readField({ field, text: typed.text[key] ?? "", system, sure: typed.sure[key] })];
    }),
  );
}

function packed(fields: readonly Field[], entries: Record<string, FieldEntry>): Record<string, unknown> {
  return packReadings(
    fields.flatMap(({ path }) => {
      const entry = entries[keyOf(path)];
      const value = entry && valueIn(entry);
      return value === undefined ? [] : [{ path, value }];
    }),
  );
}

/** What a worksheet comes to with each keystroke: the same core function as on the server. What is asked may hang on what was answered. */
export function evaluate(args: Args): Evaluated {
  const { check, machine, context } = args;
  const first = check.form?.(machine, {}) ?? NO_FORM;
  const form = check.form?.(machine, packed(first.fields, entriesOf(args, first.fields))) ?? NO_FORM;
  const entries = entriesOf(args, form.fields);
  const readings = packed(form.fields, entries);
  const isStarted = Object.values(entries).some((entry) => valueIn(entry) !== undefined);
  const base = {
    form,
    entries,
    readings,
    isStarted,
    wrongCount: Object.values(entries).filter(isWrong).length,
    asTyped: asTypedOf(args.typed, form.fields, entries),
  };
  if (!isStarted) return { ...base, troubles: { byField: {}, general: [] } };
  const outcome = assessWith(check, { machine, readings: { ...readings, ...context } });
  if (outcome.kind === "assessed") return { ...base, assessment: outcome.assessment, troubles: { byField: {}, general: [] } };
  return { ...base, troubles: troublesOf(outcome.kind === "invalid" ? outcome.issues : [], form, args.system) };
}

function troublesOf(issues: readonly ReadingProblem[], form: Form, system: UnitSystem): Evaluated["troubles"] {
  const byField: Record<string, string> = emptyTable();
  const general: string[] = [];
  for (const issue of issues) {
    const path = issue.path.slice(1).map(String);
    const field = form.fields.find(({ path: own }) => keyOf(own) === keyOf(path.slice(0, own.length)));
    if (field) byField[keyOf(field.path)] = sayIssue(issue, system);
    else general.push(sayIssue(issue, system));
  }
  return { byField, general };
}

const LONGEST = 40;

function asTypedOf(typed: Typed, fields: readonly Field[], entries: Record<string, FieldEntry>): Record<string, string> {
  return Object.fromEntries(
    fields.flatMap((field): [string, string][] => {
      const key = keyOf(field.path);
      const entry = entries[key];
      if (entry?.kind === "list") return entry.texts.map((text, index) => [`${key}.${index}`, text.slice(0, LONGEST)]);
      const text = typed.text[key]?.trim() ?? "";
      return field.kind === "quantity" && text !== "" ? [[key, text.slice(0, LONGEST)]] : [];
    }),
  );
}

function written(field: Field, value: unknown, system: UnitSystem): string {
  if (field.kind === "list")
    return Array.isArray(value) ? value.map((one) => written({ ...field, kind: "quantity" }, one, system)).join("\n") : "";
  if (field.kind !== "quantity" || typeof value !== "number") return String(value);
  return writeQuantity({ valueSi: value, dimension: field.dimension, system });
}

/** Readings as they are written today; what an older rule kept is brought into today's form by the check's own schema. */
function inTodaysForm(check: Check, input: unknown): unknown {
  const parsed = check.readingsSchema.safeParse(input);
  return parsed.success ? parsed.data : input;
}

/** What is asked where these readings stand. */
export function formFor({ check, machine, input }: { check: Check; machine: Machine; input: unknown }): Form {
  return check.form?.(machine, inTodaysForm(check, input ?? {})) ?? NO_FORM;
}

/** What of some readings belongs to a group, laid out in its fields. */
export function typedIn(args: { form: Form; group: string; input: object; system: UnitSystem }): Record<string, string> {
  return Object.fromEntries(
    args.form.fields.flatMap((field): [string, string][] => {
      const value = field.group === args.group ? readAt(args.input, field.path) : undefined;
      return value === undefined ? [] : [[keyOf(field.path), written(field, value, args.system)]];
    }),
  );
}

/** A take laid out again for correction, in the units of whoever corrects it. */
export function typedAgain(args: { check: Check; machine: Machine; input: unknown; system: UnitSystem }): Typed {
  const input = inTodaysForm(args.check, args.input);
  const form = args.check.form?.(args.machine, input) ?? NO_FORM;
  const text = Object.fromEntries(
    form.fields.flatMap((field): [string, string][] => {
      const value = readAt(input, field.path);
      return value === undefined ? [] : [[keyOf(field.path), written(field, value, args.system)]];
    }),
  );
  return { text, sure: text };
}

/**
 * What was typed in one system of units, written in the other: each reading stays what it was. What cannot be read as it stands is left as it
 * is, for whoever typed it to look at.
 */
export function retyped(args: { check: Check; machine: Machine; typed: Typed; from: UnitSystem; to: UnitSystem }): Typed {
  const { check, machine, typed, from, to } = args;
  const { form, readings, entries } = evaluate({ check, machine, typed, system: from });
  const text = { ...typed.text };
  const sure: Record<string, string> = emptyTable();
  for (const field of form.fields) {
    const key = keyOf(field.path);
    const entry = entries[key];
    const value = field.kind === "quantity" || field.kind === "list" ? readAt(readings, field.path) : undefined;
    if (value === undefined || !entry || isWrong(entry)) continue;
    const again = written(field, value, to);
    if (typed.sure[key] !== undefined && typed.sure[key] === typed.text[key]) sure[key] = again;
    text[key] = again;
  }
  return { text, sure: { ...typed.sure, ...sure } };
}
