import type { Point } from "@/core/basics/geometry";
import type { Dimension, Instrument, QuantityRange } from "@/core/basics/units";

/** Where a value stands in a worksheet's readings: the keys down to it. Ids hold no dots, so a joined path is a key. */
type Common = {
  path: readonly string[];
  label: string;
  /** The group it is asked with. */
  group: string;
  isOptional?: boolean;
  /** Where on the machine it is read, metres: the drawing takes it there. */
  at?: Point;
};

export type QuantityAsked = Common & {
  kind: "quantity";
  dimension: Dimension;
  instrument: Instrument;
  range: QuantityRange;
  /** Taken from the machine's sheet while nothing is typed. */
  onSheet?: number | undefined;
};
/** Many readings of one kind, typed or pasted. */
export type ListAsked = Common & { kind: "list"; dimension: Dimension; instrument: Instrument; range: QuantityRange; wanted: number };
/** `usual`: the answer that holds while none is picked. */
export type ChoiceAsked = Common & { kind: "choice"; options: readonly { id: string; label: string }[]; usual?: string };
/** A bare number: money, a count, days. */
export type NumberAsked = Common & { kind: "number"; least: number; most: number; unit?: string; isWhole?: boolean };
export type TextAsked = Common & { kind: "text"; most: number };
/** One thing to read or to answer. */
export type Field = QuantityAsked | ListAsked | ChoiceAsked | NumberAsked | TextAsked;

/** What belongs together: a blade, a hanger, the money. `at`: where on the machine, metres. */
export type Group = {
  id: string;
  label: string;
  at?: Point;
  isFolded?: boolean;
  /** What to know before filling it in. */
  note?: string;
  /** Stays true from one reading to the next: what was read last is offered again. */
  isRepeatable?: boolean;
  /** Worked out at the bench: asked whatever state the machine is in. */
  isOnPaper?: boolean;
};

/** A worksheet as it is filled in: fields in the order of the work, each in a group. */
export type Form = { groups: Group[]; fields: Field[] };

/** Answers to pick from, from pairs of id and label. */
export const choices = (...pairs: readonly (readonly [string, string])[]): { id: string; label: string }[] =>
  pairs.map(([id, label]) => ({ id, label }));

export const keyOf = (path: readonly string[]): string => path.join(".");

type Nested = { [key: string]: unknown };

/** Readings in a check's own form, from values by path; what was not answered is left out. */
export function packReadings(values: readonly { path: readonly string[]; value: unknown }[]): Nested {
  const readings: Nested = {};
  for (const { path, value } of values) {
    let here = readings;
    for (const part of path.slice(0, -1)) {
      here[part] ??= {};
      here = here[part] as Nested;
    }
    const last = path.at(-1);
    if (last !== undefined) here[last] = value;
  }
  return readings;
}

/** What stands at a path of readings; `undefined` where nothing does. */
export function readAt(readings: unknown, path: readonly string[]): unknown {
  return path.reduce<unknown>((here, part) => (typeof here === "object" && here !== null ? (here as Nested)[part] : undefined), readings);
}

/** Under this key stands what is read between two places, and is read at both. */
const BETWEEN_TWO = "pairs";

/** Whether a path is of a place. The first place in it is the one it is read at: the left end of another unit is not the left unit. */
export function isReadAt(args: { path: readonly string[]; place: string; isPlace: (id: string) => boolean }): boolean {
  const parts = args.path.flatMap((part) => part.split(":"));
  return parts[0] === BETWEEN_TWO ? parts.includes(args.place) : parts.find(args.isPlace) === args.place;
}

/** What was answered by picking, at one place: a reading that is no number. `label` says what was asked, `says` what was picked. */
export function answersAt(args: {
  form: Form;
  readings: unknown;
  place: string;
  isPlace: (id: string) => boolean;
}): { label: string; says: string }[] {
  const { form, readings, place, isPlace } = args;
  return form.fields.flatMap((field) => {
    if (field.kind !== "choice" || !isReadAt({ path: field.path, place, isPlace })) return [];
    const picked = field.options.find(({ id }) => id === readAt(readings, field.path));
    return picked ? [{ label: field.label, says: picked.label }] : [];
  });
}

export type ReadingRow = { place: string; quantity: string; value: number; key: string };

const SNAKE = /[A-Z]/g;

/** A name as the record keeps quantities: lower case, starting with a letter. A place may stand where a name stands: `far-left`. */
function quantityOf(name: string): string {
  const snake = name.replace(SNAKE, (letter) => `_${letter.toLowerCase()}`).replace(/[^a-z0-9_]/g, "_");
  return /^[a-z]/.test(snake) ? snake : `of_${snake}`;
}

/**
 * Every number of nested readings as a row: place is the path down to it, quantity its own name in snake case; of a list, each place
 * ends in its number. `key` is the field it was typed in.
 */
export function rowsOf(readings: unknown, path: readonly string[] = []): ReadingRow[] {
  if (typeof readings === "number") {
    const name = path.at(-1) ?? "value";
    return [{ place: path.slice(0, -1).join(":") || "machine", quantity: quantityOf(name), value: readings, key: keyOf(path) }];
  }
  if (Array.isArray(readings)) {
    return readings.flatMap((one: unknown, index) =>
      rowsOf(one, path).map((row) => ({ ...row, place: `${row.place}:${index + 1}`, key: `${row.key}.${index}` })),
    );
  }
  if (typeof readings !== "object" || readings === null) return [];
  return Object.entries(readings).flatMap(([key, value]) => rowsOf(value, [...path, key]));
}
