import { emptyTable } from "@/core/basics/tables";
import type { UnitSystem } from "@/core/basics/units";
import { type Machine, machineSchema, type SheetWord } from "@/core/machine";
import {
  fieldsOf,
  isSameValue,
  outlineAround,
  placeKey,
  type SheetField,
  type SheetPlace,
  sheetPlaces,
  valueAt,
  withValue,
} from "@/core/machine/specification";
import { type FieldTrouble, readText, writeValue } from "@/ui/sheet-field/read-text";

/**
 * A sheet as it is being drawn and typed. The machine is kept as text: places come and go in it, and what a browser kept is taken up only where it
 * has the shape of what a page starts with.
 */
export type SheetDraft = {
  machineText: string;
  /** What it was begun from, to put another's change together with. */
  baseText: string;
  version: number;
  texts: Record<string, string>;
  sure: Record<string, string>;
  word: string;
  fleetNumber: string;
  name: string;
  site: string;
  meter: string;
  reason: string;
};

export const draftOf = (machine: Machine, more: Partial<SheetDraft> = {}): SheetDraft => ({
  machineText: JSON.stringify(machine),
  baseText: JSON.stringify(machine),
  version: 0,
  texts: {},
  sure: {},
  word: "sheet",
  fleetNumber: "",
  name: "",
  site: "",
  meter: "",
  reason: "",
  ...more,
});

/** What stands in a field: as it was typed, or the sheet's own value in these units. */
export const textOf = (draft: SheetDraft, machine: unknown, field: SheetField, system: UnitSystem): string =>
  draft.texts[field.key] ?? writeValue(valueAt(machine, field.key), field, system);

/** The same draft in other units: what could be read stands on the sheet and is written anew; what could not stays as it was typed. */
export function inUnits(draft: SheetDraft, from: UnitSystem, to: UnitSystem): SheetDraft {
  if (from === to) return draft;
  const { troubles } = readSheet(draft, from);
  const unread = <T>(typed: Record<string, T>) => Object.fromEntries(Object.entries(typed).filter(([key]) => troubles[key] !== undefined));
  return { ...draft, texts: unread(draft.texts), sure: unread(draft.sure) };
}

const parsed = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
};

export type SheetRead = {
  /** As it stands in the draft, sound or not. */
  loose: unknown;
  /** The same as a machine, where it is one. */
  machine?: Machine;
  troubles: Record<string, FieldTrouble>;
};

/** A list's index in a path of the schema as the id of what stands there: the key it is known by. */
function keyOf(loose: unknown, path: readonly PropertyKey[]): string {
  let at: unknown = loose;
  return path
    .map((part) => {
      const inside = at as Record<PropertyKey, unknown> | undefined;
      at = inside?.[part];
      const id = Array.isArray(inside) ? (at as { id?: unknown } | undefined)?.id : undefined;
      return typeof id === "string" ? id : String(part);
    })
    .join(".");
}

/** The machine a draft comes to, and every field that keeps it from being one. */
export function readSheet(draft: SheetDraft, system: UnitSystem): SheetRead {
  const loose = parsed(draft.machineText);
  const whole = machineSchema.safeParse(loose);
  const troubles: Record<string, FieldTrouble> = emptyTable();
  for (const issue of whole.error?.issues ?? []) troubles[keyOf(loose, issue.path)] = "needed";
  const known = new Map((whole.data ? fieldsOf(whole.data) : []).map((field) => [field.key, field]));
  for (const [key, text] of Object.entries(draft.texts)) {
    const field = known.get(key);
    const trouble = field && readText(field, text, system, draft.sure[key]).trouble;
    if (trouble) troubles[key] = trouble;
  }
  return { loose, troubles, ...(whole.data ? { machine: whole.data } : {}) };
}

/** With another text in a field: what can be read stands on the sheet at once, with whose word it is; what cannot is kept as it was typed. */
export function withText(args: { draft: SheetDraft; field: SheetField; text: string; system: UnitSystem; sure?: string }): SheetDraft {
  const { draft, field, text, system } = args;
  const sure = args.sure === undefined ? draft.sure : { ...draft.sure, [field.key]: args.sure };
  const texts = { ...draft.texts, [field.key]: text };
  const read = readText(field, text, system, sure[field.key]);
  if (read.trouble) return { ...draft, texts, sure };
  let machine = withValue(parsed(draft.machineText), field.key, read.value);
  machine = withWord(machine, field.key, read.value === undefined ? undefined : (draft.word as SheetWord));
  return { ...draft, texts, sure, machineText: JSON.stringify(machine) };
}

/** The sheet's own word is not written down: it is what a value is unless something else is said. */
function withWord(machine: unknown, key: string, word: SheetWord | undefined): unknown {
  const words = { ...((valueAt(machine, "sheet.words") as Record<string, SheetWord> | undefined) ?? {}) };
  delete words[key];
  if (word !== undefined && word !== "sheet") words[key] = word;
  return withValue(machine, "sheet.words", Object.keys(words).length === 0 ? undefined : words);
}

/** Of a template every value is an estimate, until somebody says otherwise. */
export function asEstimated(machine: Machine): Machine {
  const words = Object.fromEntries(
    fieldsOf(machine).flatMap(({ key, kind }) =>
      (kind === "quantity" || kind === "number" || kind === "choice") && valueAt(machine, key) !== undefined
        ? [[key, "estimated" as const]]
        : [],
    ),
  );
  return { ...machine, sheet: { ...machine.sheet, words } } as Machine;
}

/** Moved on the plan; a shell that was drawn around its blades goes with them, a gearbox with the blade it stands over. */
export function moved(machine: Machine, place: SheetPlace, at: { x: number; y: number }): Machine {
  const put = (one: Machine, sort: SheetPlace["sort"], id: string) =>
    withValue(withValue(one, placeKey({ sort, id }, "xMetres"), at.x), placeKey({ sort, id }, "yMetres"), at.y);
  const followed = isDrawnAround(machine);
  let next = put(machine, place.sort, place.id);
  const box = machine.sheet.gearboxes?.find(
    ({ id, xMetres, yMetres }) => id === `${place.id}-box` && xMetres === place.xMetres && yMetres === place.yMetres,
  );
  if (place.sort === "spindles" && box) next = put(next, "gearboxes", box.id);
  return place.sort === "spindles" && followed && next.deck
    ? ({ ...next, deck: { ...next.deck, outline: outlineAround(next.spindles) } } as Machine)
    : next;
}

export const isDrawnAround = ({ deck, spindles }: Machine): boolean =>
  deck !== undefined && isSameValue(deck.outline, outlineAround(spindles));

/** With one more of a sort, beside the last of them. */
export function withAnother(machine: Machine, sort: SheetPlace["sort"]): { machine: Machine; id: string } {
  const all = sheetPlaces(machine).filter((place) => place.sort === sort);
  const last = all.at(-1);
  const taken = new Set(sheetPlaces(machine).map(({ id }) => id));
  const names: Record<SheetPlace["sort"], string> = {
    spindles: "blade",
    units: "unit",
    hangers: "hanger",
    antiScalpWheels: "rim-wheel",
    wheels: "wheel",
    gearboxes: "gearbox",
  };
  let number = all.length + 1;
  while (taken.has(`${names[sort]}-${number}`)) number += 1;
  const id = `${names[sort]}-${number}`;
  const label = `${names[sort].charAt(0).toUpperCase()}${names[sort].slice(1).replace("-", " ")} ${number}`;
  const spot = { xMetres: (last?.xMetres ?? 0) + 0.1, yMetres: last?.yMetres ?? 0 };
  const key = placeKey({ sort, id: "" }).replace(/\.$/, "");
  const list = (valueAt(machine, key) as object[] | undefined) ?? [];
  const like = last ? (list.find((one) => (one as { id: string }).id === last.id) ?? {}) : FIRST[sort];
  return { machine: withValue(machine, key, [...list, { ...like, id, label, ...spot }]), id };
}

const FIRST: Record<SheetPlace["sort"], object> = {
  spindles: { tipCircleDiameterMetres: 0.4 },
  units: { widthMetres: 0.5 },
  hangers: { step: "quarter", turnsLeftUp: 10, turnsLeftDown: 10 },
  antiScalpWheels: {},
  wheels: { axle: "other", isPneumatic: false, treadWidthMetres: 0.1, diameterMetres: 0.3 },
  gearboxes: { isConnected: false },
};

export function without(machine: Machine, { sort, id }: SheetPlace): Machine {
  const key = placeKey({ sort, id: "" }).replace(/\.$/, "");
  const list = (valueAt(machine, key) as { id: string; twin?: string }[] | undefined) ?? [];
  const left = list.filter((one) => one.id !== id).map(({ twin, ...one }) => (twin === undefined || twin === id ? one : { ...one, twin }));
  const next = withValue(machine, key, left);
  const pivots = next.pivotedAxles.filter(({ axle }) => next.wheels.some((wheel) => wheel.axle === axle));
  return { ...next, pivotedAxles: pivots } as Machine;
}

/** Ready to be sent: whose word a value is that is not there is no word. */
export function toSend(machine: Machine): Machine {
  const { words = {} } = machine.sheet;
  const kept = Object.fromEntries(Object.entries(words).filter(([key]) => valueAt(machine, key) !== undefined));
  return withValue(machine, "sheet.words", Object.keys(kept).length === 0 ? undefined : kept);
}
