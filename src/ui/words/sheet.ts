import { table } from "@/core/basics/tables";
import type { UnitSystem } from "@/core/basics/units";
import { FEATURES, KINDS } from "@/core/catalogue/kinds";
import { type Machine, SHEET_WORDS, type SheetWord, wordOf } from "@/core/machine";
import {
  type DRAWN,
  type FieldSpec,
  fieldsOf,
  type MissingCode,
  type PlaceSort,
  type SheetDifference,
  type SheetPart,
  sheetPlaces,
  TABLE_ROWS,
  type UnitPart,
  valueAt,
} from "@/core/machine/specification";
import { asWritten, show } from "./quantities";

export const WORD_LABELS: Record<SheetWord, string> = {
  sheet: "its manual's sheet",
  measured: "measured here",
  read: "read off the part",
  remembered: "remembered",
  estimated: "estimated by a template",
};

export const PART_TITLES: Record<SheetPart, string> = {
  cut: "Height and cut",
  tyres: "Tyres",
  weight: "Weight and axles",
  blade: "Blades",
  drive: "Drive",
  "deck-off": "Taking the deck off",
  safety: "Lifting, tipping, isolating",
  service: "Spindles and grease",
  unit: "Every unit",
  "side-view": "Side view of a unit",
  brackets: "Brackets of the front roller",
  note: "Note",
};

/** What sets one unit apart, by the part it is told in. */
export const OWN_PART_WORDS: Record<UnitPart, string> = {
  reel: "Reel",
  bedknife: "Bedknife",
  frontRoller: "Front roller",
  rearRoller: "Rear roller",
  groomer: "Groomer or brush",
  hasScraper: "Scraper",
  school: "Reel to bedknife",
  attitude: "Attitude",
  adjusters: "Adjusters",
  sideView: "Side view",
  brackets: "Brackets",
};

export const SORT_WORDS: Record<PlaceSort, { one: string; many: string }> = {
  spindles: { one: "blade", many: "Blades" },
  units: { one: "unit", many: "Units" },
  hangers: { one: "hanger", many: "Hangers" },
  antiScalpWheels: { one: "rim wheel", many: "Wheels under the rim" },
  wheels: { one: "wheel", many: "Wheels" },
  gearboxes: { one: "gearbox", many: "Gearboxes" },
};

/** What each gap costs, as the one who will miss it says it. */
export const MISSING_WORDS: Record<MissingCode, string> = {
  "no-lifting-point": "Without its lifting points nobody is told where it may be raised: look in its manual.",
  "no-tip-side": "Without the side that is up when it is tipped, oil and fuel end up in the filter.",
  "no-torque-figure": "Without the torque of the blade bolt: by wrench there is no figure, and none is made up.",
  "no-pressure-target": "Without the pressure wanted: left against right only, never right or wrong.",
  "no-turns-only-lengths": "Without the lift per turn: no turns, only lengths by the ruler.",
  "no-length-to-compare": "Without the blade's length: neither fit, wear nor overlap is worked out.",
  "no-fit-compared": "Without the centre hole: a blade that does not fit looks like one that does.",
  "no-bolt-compared": "Without the bolt's grade: a soft one is not noticed.",
  "no-wear-limit": "Without its least length: worn out is a matter of taste.",
  "no-speed-by-arithmetic": "Without the speed at full throttle: tip speed only from a tachometer.",
  "no-belt-path": "Without the belt's path: no wrap, no slip and no speed by the pulleys. Sketch it once the machine is there.",
  "no-dipstick": "Without the cover's face to the oil: no dipstick is worked out.",
  "no-timing-step": "Without the teeth of the spline: how far one tooth moves a blade is not known.",
  "no-height-range": "Without its range of heights: a wish it cannot reach is not noticed.",
  "usual-rake": "Without the rake wanted: common practice is used, and said so.",
  "no-tyre-effect": "Without the height of the tyre's section: what a soft tyre does to the tips is not worked out.",
  "no-deck-order": "Without an order of taking its deck off: the general one is used.",
  "no-stack-to-compare": "Without the washer stack: a part left out or the wrong way round is not seen against it.",
  "no-side-view": "Without the side view of a unit: attitude, heel, toe and the bench setting are not worked out.",
  "no-clip-by-arithmetic": "Without the reel's speed: clip only from a tachometer.",
  "no-reel-life": "Without the reel's diameter new: what is left of it is not known.",
  "no-knife-life": "Without the thickness of the knife: how many grinds are left is not known.",
  "no-bracket-table": "Without the table of brackets: which hole goes with a height is not said.",
  "no-knife-turns": "Without what a turn of the knife screw moves: closer or further is said, not how far to turn.",
  "no-money": "Without the price of a blade: sharpen or replace is not worked out.",
};

const CHOICE_WORDS: Record<string, string> = table({
  clockwise: "Clockwise",
  anticlockwise: "Anticlockwise",
  flat: "A flat",
  quarter: "A quarter",
  half: "A half",
  hole: "A hole",
  low: "Low",
  medium: "Medium",
  high: "High",
  mulching: "Mulching",
  round: "Round",
  "star-5": "Star, 5",
  "star-6": "Star, 6",
  "star-7": "Star, 7",
  spline: "Spline",
  "two-flats": "Two flats",
  "two-pins": "Two pins",
  "sae-2": "Grade 2",
  "sae-5": "Grade 5",
  "sae-8": "Grade 8",
  "iso-8-8": "8.8",
  "iso-10-9": "10.9",
  "iso-12-9": "12.9",
  right: "Right-hand",
  left: "Left-hand",
  "by-hours": "By hours",
  "leave-sealed": "Sealed, left alone",
  smooth: "Smooth",
  grooved: "Grooved",
  none: "None",
  groomer: "Groomer",
  brush: "Brush",
  "no-contact": "Without contact",
  "light-contact": "Light contact",
  "firm-contact": "Firm contact",
  "frame-hung": "The frame, hung from it",
  "self-carried": "Its own wheels",
  fixed: "The machine, fixed",
  dry: "Dry",
  oiled: "Oiled",
  own: "To their own place",
  rotated: "Moved round",
  forward: "Forward",
  rearward: "Rearward",
  front: "Front",
  rear: "Rear",
  reel: "The reel",
  "reel-and-travel": "Reel and travel",
  nothing: "Neither",
  bolt: "Bolt",
  "lock-washer": "Lock washer",
  "flat-washer": "Flat washer",
  "cupped-washer-hollow-up": "Cupped, hollow up",
  "cupped-washer-hollow-down": "Cupped, hollow down",
  blade: "Blade",
  spacer: "Spacer",
  "anti-rotation-plate": "Anti-rotation plate",
  collar: "Collar",
});

export const choiceWords = (id: string, names: Readonly<Record<string, string>> = {}): string =>
  (Object.hasOwn(names, id) ? names[id] : undefined) ??
  CHOICE_WORDS[id] ??
  FEATURES.find((one) => one.id === id)?.label ??
  KINDS.find((one) => one.id === id)?.label ??
  id;

type TableSpec = FieldSpec & { kind: "table" };

/** Every row of a table by what its columns say; `isShort`: only by those no row goes without. */
function rowWords(spec: TableSpec, value: unknown, system: UnitSystem, isShort: boolean): string[] {
  return TABLE_ROWS[spec.table].toRows(value).map((row) =>
    spec.columns
      .filter(({ isNeeded, path }) => {
        const own = row[path.join(".")];
        return isNeeded || (!isShort && own !== undefined && own !== "" && own !== false);
      })
      .map((column) => (column.kind === "flag" ? column.label.toLowerCase() : sayValue(column, row[column.path.join(".")], system)))
      .join(" "),
  );
}

/** A table of a sheet in a line: how many rows, and what each says; beside others only the rows that they do not all have. */
function sayRows(spec: TableSpec, value: unknown, system: UnitSystem, beside: readonly unknown[]): string {
  const rows = rowWords(spec, value, system, beside.length === 0);
  const others = beside.map((other) => (other === undefined ? [] : rowWords(spec, other, system, false)));
  const told = rows.filter((row) => others.length === 0 || others.some((other) => !other.includes(row)));
  const count = `${rows.length} ${rows.length === 1 ? spec.row : `${spec.row}s`}`;
  return told.length === 0 ? count : `${count}${told.length < rows.length ? ", with" : ""}: ${told.join("; ")}`;
}

/** A value of a sheet as it is said. `beside`: what it stands against, where it is a table. */
export function sayValue(spec: FieldSpec | undefined, value: unknown, system: UnitSystem, beside: readonly unknown[] = []): string {
  if (value === undefined) return "not said";
  if (spec?.kind === "table") return sayRows(spec, value, system, beside);
  if (Array.isArray(value))
    return value.every((one) => typeof one === "string")
      ? value.map((one) => (spec?.kind === "order" ? choiceWords(one).toLowerCase() : one)).join(", ")
      : `${value.length}`;
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "number") {
    if (spec?.kind === "quantity" && spec.dimension === "length" && spec.instrument !== "fine")
      return asWritten(value / (spec.scale ?? 1), system);
    if (spec?.kind === "quantity") return show(value / (spec.scale ?? 1), spec.dimension, system, spec.instrument);
    return spec?.kind === "number" && spec.unit ? `${value} ${spec.unit}` : String(value);
  }
  if (typeof value === "string") return spec?.kind === "choice" ? choiceWords(value, spec.names).toLowerCase() : value;
  return "its own table";
}

const DRAWN_WORDS: Record<"kind" | (typeof DRAWN)[number], string> = {
  kind: "Kind",
  features: "What it has",
  "deck.outline": "Outline of the deck",
  "sheet.belt": "Belt path",
};

/** What differs, by the place's name and the value's. */
export function differenceTitle({ key, field, a, b }: SheetDifference, labelOf: (place: string) => string): string {
  if (field) {
    const place = labelOf(field.at);
    return place ? `${place}: ${field.label.toLowerCase()}` : field.label;
  }
  const table = Object.hasOwn(DRAWN_WORDS, key) ? DRAWN_WORDS[key as keyof typeof DRAWN_WORDS] : undefined;
  if (table) return table;
  return typeof a === "string" ? `${a}, taken away` : `${String(b ?? key)}, new`;
}

/** What a sheet holds by another word than its manual's, word by word: a guess stands nowhere without being called one. */
export function saidOtherwise(machine: Machine, system: UnitSystem): { word: SheetWord; values: string[] }[] {
  const labels = new Map(sheetPlaces(machine).map(({ id, label }) => [id, label]));
  const held = fieldsOf(machine).flatMap((field) => {
    const value = valueAt(machine, field.key);
    const word = wordOf(machine, field.key);
    if (value === undefined || word === "sheet") return [];
    const title = differenceTitle({ key: field.key, field }, (place) => labels.get(place) ?? "");
    return [{ word, text: `${title} ${sayValue(field, value, system)}` }];
  });
  return SHEET_WORDS.filter((word) => word !== "sheet")
    .map((word) => ({ word, values: held.filter((one) => one.word === word).map(({ text }) => text) }))
    .filter(({ values }) => values.length > 0);
}
