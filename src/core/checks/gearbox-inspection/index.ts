import * as z from "zod";
import { type Figure, type Finding, judgeDeviation, type Verdict } from "@/core/basics/findings";
import { table } from "@/core/basics/tables";
import { physicalOrNought } from "@/core/basics/units/physical";
import { gearboxes, type Machine, pointOf } from "@/core/machine";
import { choices, type Field, type Form } from "../form";
import { pointsAt, settled, shows } from "../settled";
import type { Assessment, Check } from "../types";
import { unknownPlaces } from "../verdicts";

/** Oil this far under or over the sheet's depth is topped up or let out. Estimate. */
export const OIL_WITHIN_METRES = 0.004;

const boxSchema = z.object({
  teeth: z.enum(["whole", "worn", "chipped", "broken"]).optional(),
  pin: z.enum(["straight", "bent", "sheared", "has-none"]).optional(),
  metal: z.enum(["none", "fine", "chips"]).optional(),
  bearings: z.enum(["smooth", "rough"]).optional(),
  seal: z.enum(["dry", "weeps", "runs"]).optional(),
  sealFace: z.enum(["unworn", "grooved"]).optional(),
  oil: z.enum(["clean", "milky", "burnt"]).optional(),
  /** From the cover's face down to the oil. */
  depthMetres: physicalOrNought("metres", 0.5).optional(),
  /** How long it stood before the oil was read. */
  stood: z.enum(["hours", "just-filled"]).optional(),
});

export const gearboxReadingsSchema = z.object({ boxes: z.record(z.string(), boxSchema).default({}) });
export type GearboxReadings = z.output<typeof gearboxReadingsSchema>;
type Read = GearboxReadings["boxes"][string];

type Says = {
  action:
    | { code: "rebuild-box"; place: string }
    | { code: "change-pin"; place: string; what: "bent" | "sheared" }
    | { code: "change-seal"; place: string; what: "grooved" | "worn" }
    | { code: "change-oil"; place: string; what: "milky" | "burnt" }
    | { code: "fill-oil"; place: string; metres: number; wantedMetres: number }
    | { code: "let-oil-out"; place: string; metres: number }
    | { code: "oil-again"; place: string };
  warning: { code: "not-run-broken-gears" };
  provisional:
    | { code: "place-unread"; place: string }
    | { code: "oil-not-stood"; place: string }
    | { code: "no-oil-depth-on-sheet"; place: string };
  problem: { code: "unknown-gearbox"; place: string };
};

export const gearboxInspection: Check<GearboxReadings, { again: string[] }, Says> = {
  id: "gearbox-inspection",
  ruleVersion: 3,
  readingsSchema: gearboxReadingsSchema,
  missing: (machine) => (gearboxes(machine).length === 0 ? ["no-gearboxes"] : []),
  problems: (machine, { boxes }) => unknownPlaces({ read: boxes, known: gearboxes(machine), path: "boxes", code: "unknown-gearbox" }),
  form: formOf,
  assess,
};

const ASKED = [
  ["teeth", "Teeth", choices(["whole", "Whole"], ["worn", "Worn to one side"], ["chipped", "Chipped"], ["broken", "Broken"])],
  ["pin", "Drive pin", choices(["straight", "Straight"], ["bent", "Bent"], ["sheared", "Sheared"], ["has-none", "Has none"])],
  ["metal", "Metal in the oil", choices(["none", "None"], ["fine", "Fine, like paste"], ["chips", "Chips"])],
  ["bearings", "Bearings, cleaned and dry", choices(["smooth", "Smooth"], ["rough", "Rough"])],
  ["seal", "Seal", choices(["dry", "Dry"], ["weeps", "Weeps"], ["runs", "Runs"])],
  ["sealFace", "Shaft where the seal runs", choices(["unworn", "Unworn"], ["grooved", "Grooved"])],
  ["oil", "Oil", choices(["clean", "Clean"], ["milky", "Milky"], ["burnt", "Burnt"])],
] as const;

function formOf(machine: Machine): Form {
  const boxes = gearboxes(machine);
  return {
    groups: boxes.map((box) => ({ id: box.id, label: box.label, at: pointOf(box) })),
    fields: boxes.flatMap(({ id, isConnected }): Field[] => [
      ...ASKED.map(([key, label, options]): Field => ({ kind: "choice", group: id, path: ["boxes", id, key], label, options })),
      {
        kind: "quantity",
        group: id,
        path: ["boxes", id, "depthMetres"],
        label: "Cover's face down to the oil",
        dimension: "length",
        instrument: "gauge",
        range: { least: 0, most: 0.5, usualLeast: 0.005, usualMost: 0.2 },
      },
      ...(isConnected
        ? [
            {
              kind: "choice" as const,
              group: id,
              path: ["boxes", id, "stood"],
              label: "Stood level before it was read",
              options: choices(["hours", "For hours"], ["just-filled", "Just filled"]),
            },
          ]
        : []),
    ]),
  };
}

/** What is found at a box; watched where it still runs. */
const BAD: Readonly<Record<string, Verdict>> = table({
  broken: "stop",
  sheared: "stop",
  chipped: "out",
  bent: "out",
  chips: "out",
  rough: "out",
  runs: "out",
  weeps: "out",
  grooved: "out",
  milky: "out",
  burnt: "out",
  worn: "watch",
  fine: "watch",
});

const codesOf = (read: Read): string[] => ASKED.flatMap(([key]) => read[key] ?? []);

function oilOf(machine: Machine, box: string, read: Read): { wanted: number; short: number } | undefined {
  const wanted = gearboxes(machine).find(({ id }) => id === box)?.coverToOilMetres;
  return wanted === undefined || read.depthMetres === undefined ? undefined : { wanted, short: read.depthMetres - wanted };
}

const BROKEN: readonly string[] = ["broken", "chipped", "chips"];
const DOUBTFUL: readonly string[] = ["worn", "rough"];
const LEAKS: readonly string[] = ["runs", "weeps", "grooved", "milky", "oil-low"];

function causesOf(code: string): Finding["causes"] {
  if (code === "sheared") return shows("gearbox-pin-sheared");
  if (code === "bent") return pointsAt("gearbox-pin-sheared");
  if (BROKEN.includes(code)) return shows("gear-teeth-broken");
  if (DOUBTFUL.includes(code)) return pointsAt("gear-teeth-broken");
  if (LEAKS.includes(code)) return shows("gearbox-oil-low");
  return code === "burnt" ? pointsAt("gearbox-oil-low") : [];
}

const judgeOil = (short: number): Verdict => judgeDeviation({ deviation: short, tolerance: OIL_WITHIN_METRES });

/** All that is off in a box; sound only where everything was told and nothing is. */
function findingsAt(machine: Machine, place: string, read: Read): Finding[] {
  const found = (code: string, verdict: Verdict): Finding => ({ place, code, verdict, causes: causesOf(code) });
  const oil = oilOf(machine, place, read);
  const off: Finding[] = [
    ...codesOf(read).flatMap((code) => {
      const verdict = BAD[code];
      return verdict ? [found(code, verdict)] : [];
    }),
    ...(oil !== undefined && judgeOil(oil.short) === "out" ? [found(oil.short > 0 ? "oil-low" : "oil-high", "out")] : []),
    ...(oil !== undefined && judgeOil(oil.short) === "watch" ? [found("oil-near", "watch")] : []),
  ];
  return off.length === 0 && codesOf(read).length === ASKED.length ? [found("sound", "in-tolerance")] : off;
}

function isTold(machine: Machine, box: string, read: Read | undefined): boolean {
  const known = gearboxes(machine).find(({ id }) => id === box);
  if (!read || !known) return false;
  const needsStand = known.isConnected && read.stood === undefined;
  return codesOf(read).length === ASKED.length && read.depthMetres !== undefined && !needsStand;
}

function assess(machine: Machine, { boxes }: GearboxReadings): Assessment<{ again: string[] }, Says> {
  const all = gearboxes(machine);
  const findings = Object.entries(boxes).flatMap(([place, read]) => findingsAt(machine, place, read));
  const unread = all.filter(({ id }) => !isTold(machine, id, boxes[id]));
  // Connected boxes level out over hours: oil just filled says nothing yet.
  const again = all.filter(({ id, isConnected }) => isConnected && boxes[id]?.stood === "just-filled").map(({ id }) => id);
  // The oil's depth clears it only where the sheet says how deep it stands, and after it stood.
  const isOilKnown = again.length === 0 && all.every(({ coverToOilMetres }) => coverToOilMetres !== undefined);
  return {
    check: "gearbox-inspection",
    ruleVersion: gearboxInspection.ruleVersion,
    ...settled({
      check: "gearbox-inspection",
      findings,
      clears: {
        "gear-teeth-broken": unread.length === 0,
        "gearbox-pin-sheared": unread.length === 0,
        "gearbox-oil-low": unread.length === 0 && isOilKnown,
      },
      told: all.filter((box) => !unread.includes(box)).map(({ id }) => id),
      isComplete: unread.length === 0,
    }),
    provisional: [
      ...unread.map(({ id }) => ({ code: "place-unread" as const, place: id })),
      ...again.map((place) => ({ code: "oil-not-stood" as const, place })),
      ...all
        .filter(({ coverToOilMetres }) => coverToOilMetres === undefined)
        .map(({ id }) => ({ code: "no-oil-depth-on-sheet" as const, place: id })),
    ],
    figures: Object.entries(boxes).flatMap(([place, read]) => figuresOf(machine, place, read)),
    actions: Object.entries(boxes).flatMap(([place, read]) => actionsOf(machine, place, read)),
    warnings: findings.some(({ verdict: found }) => found === "stop") ? [{ code: "not-run-broken-gears" as const }] : [],
    detail: { again },
  };
}

function figuresOf(machine: Machine, place: string, read: Read): Figure[] {
  const oil = oilOf(machine, place, read);
  if (!oil || read.depthMetres === undefined) return [];
  return [
    {
      id: "oil-depth",
      place,
      value: read.depthMetres,
      dimension: "length",
      instrument: "gauge",
      tolerance: { kind: "about", target: oil.wanted, plusMinus: OIL_WITHIN_METRES, standing: "sheet" },
      verdict: judgeOil(oil.short),
      standing: "measured",
    },
  ];
}

function actionsOf(machine: Machine, place: string, read: Read): Says["action"][] {
  const codes = codesOf(read);
  const any = (...wanted: string[]) => wanted.some((code) => codes.includes(code));
  const oil = oilOf(machine, place, read);
  return [
    ...(any("broken", "chipped", "chips", "rough") ? [{ code: "rebuild-box" as const, place }] : []),
    // A pin that bent instead of shearing may be the wrong part: it is compared before another goes in.
    ...(any("bent", "sheared")
      ? [{ code: "change-pin" as const, place, what: any("bent") ? ("bent" as const) : ("sheared" as const) }]
      : []),
    ...(any("weeps", "runs", "grooved")
      ? [{ code: "change-seal" as const, place, what: any("grooved") ? ("grooved" as const) : ("worn" as const) }]
      : []),
    ...(any("milky", "burnt")
      ? [{ code: "change-oil" as const, place, what: any("milky") ? ("milky" as const) : ("burnt" as const) }]
      : []),
    ...(oil && Math.abs(oil.short) > OIL_WITHIN_METRES
      ? [
          {
            code: oil.short > 0 ? ("fill-oil" as const) : ("let-oil-out" as const),
            place,
            metres: Math.abs(oil.short),
            wantedMetres: oil.wanted,
          },
        ]
      : []),
    ...(read.stood === "just-filled" ? [{ code: "oil-again" as const, place }] : []),
  ];
}
