import * as z from "zod";
import type { Evidence, Figure, Verdict } from "@/core/findings";
import { type Machine, pointOf } from "@/core/machine";
import { gearboxes } from "@/core/sequences/rebuild";
import { choices, type Field, type Form } from "../form";
import type { Action, Assessment, Check, Mark } from "../types";
import { overall, tell, unknownPlaces } from "../verdicts";

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
  depthMetres: z.number().min(0).max(0.5).optional(),
  /** How long it stood before the oil was read. */
  stood: z.enum(["hours", "just-filled"]).optional(),
});

export const gearboxReadingsSchema = z.object({ boxes: z.record(z.string(), boxSchema).default({}) });
export type GearboxReadings = z.output<typeof gearboxReadingsSchema>;
type Read = GearboxReadings["boxes"][string];

export const gearboxInspection: Check<GearboxReadings, { again: string[] }> = {
  id: "gearbox-inspection",
  ruleVersion: 1,
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

/** What is found at a box, the gravest first; watched where it still runs. */
const BAD: readonly (readonly [string, Verdict])[] = [
  ["broken", "stop"],
  ["sheared", "stop"],
  ["chipped", "out"],
  ["bent", "out"],
  ["chips", "out"],
  ["rough", "out"],
  ["runs", "out"],
  ["weeps", "out"],
  ["grooved", "out"],
  ["milky", "out"],
  ["burnt", "out"],
  ["worn", "watch"],
  ["fine", "watch"],
];

const codesOf = (read: Read): string[] => ASKED.flatMap(([key]) => read[key] ?? []);

function oilOf(machine: Machine, box: string, read: Read): { wanted: number; short: number } | undefined {
  const wanted = gearboxes(machine).find(({ id }) => id === box)?.coverToOilMetres;
  return wanted === undefined || read.depthMetres === undefined ? undefined : { wanted, short: read.depthMetres - wanted };
}

function markOf(machine: Machine, place: string, read: Read): Mark[] {
  const codes = codesOf(read);
  const worst = BAD.find(([code]) => codes.includes(code));
  const oil = oilOf(machine, place, read);
  const isLow = oil !== undefined && oil.short > OIL_WITHIN_METRES;
  if (worst && worst[1] !== "watch") return [{ place, verdict: worst[1], code: worst[0] }];
  if (isLow) return [{ place, verdict: "out", code: "oil-low" }];
  if (oil !== undefined && oil.short < -OIL_WITHIN_METRES) return [{ place, verdict: "out", code: "oil-high" }];
  if (worst) return [{ place, verdict: worst[1], code: worst[0] }];
  return codes.length === ASKED.length ? [{ place, verdict: "in-tolerance", code: "sound" }] : [];
}

function isTold(machine: Machine, box: string, read: Read | undefined): boolean {
  const known = gearboxes(machine).find(({ id }) => id === box);
  if (!read || !known) return false;
  const needsStand = known.isConnected && read.stood === undefined;
  return codesOf(read).length === ASKED.length && read.depthMetres !== undefined && !needsStand;
}

function assess(machine: Machine, { boxes }: GearboxReadings): Assessment<{ again: string[] }> {
  const all = gearboxes(machine);
  const marks = Object.entries(boxes).flatMap(([place, read]) => markOf(machine, place, read));
  const unread = all.filter(({ id }) => !isTold(machine, id, boxes[id]));
  // Connected boxes level out over hours: oil just filled says nothing yet.
  const again = all.filter(({ id, isConnected }) => isConnected && boxes[id]?.stood === "just-filled").map(({ id }) => id);
  const verdict = overall(
    marks.map(({ verdict: found }) => found),
    unread.length === 0,
  );
  return {
    check: "gearbox-inspection",
    ruleVersion: gearboxInspection.ruleVersion,
    verdict,
    provisional: [
      ...unread.map(({ id }) => ({ code: "place-unread", place: id })),
      ...again.map((place) => ({ code: "oil-not-stood", place })),
      ...all
        .filter(({ coverToOilMetres }) => coverToOilMetres === undefined)
        .map(({ id }) => ({ code: "no-oil-depth-on-sheet", place: id })),
    ],
    figures: Object.entries(boxes).flatMap(([place, read]) => figuresOf(machine, place, read)),
    marks,
    evidence: evidenceOf(machine, boxes, unread.length === 0),
    actions: Object.entries(boxes).flatMap(([place, read]) => actionsOf(machine, place, read)),
    warnings: marks.some(({ verdict: found }) => found === "stop") ? [{ code: "not-run-broken-gears" }] : [],
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
      verdict: Math.abs(oil.short) > OIL_WITHIN_METRES ? "out" : "in-tolerance",
      standing: "measured",
    },
  ];
}

const BROKEN: readonly string[] = ["broken", "sheared", "chipped", "chips"];
const DOUBTFUL: readonly string[] = ["bent", "worn", "rough"];
const LEAKS: readonly string[] = ["runs", "weeps", "grooved", "milky"];

function evidenceOf(machine: Machine, boxes: GearboxReadings["boxes"], isComplete: boolean): Evidence[] {
  const check = "gearbox-inspection";
  const codes = Object.values(boxes).flatMap(codesOf);
  const any = (wanted: readonly string[]) => codes.some((code) => wanted.includes(code));
  const isLow = Object.entries(boxes).some(([place, read]) => (oilOf(machine, place, read)?.short ?? 0) > OIL_WITHIN_METRES);
  return [
    ...tell({ check, cause: "gear-teeth-broken", isSeen: any(BROKEN), isSuspect: any(DOUBTFUL), isClear: isComplete }),
    ...tell({ check, cause: "gearbox-oil-low", isSeen: isLow || any(LEAKS), isSuspect: any(["burnt"]), isClear: isComplete }),
  ];
}

function actionsOf(machine: Machine, place: string, read: Read): Action[] {
  const codes = codesOf(read);
  const any = (...wanted: string[]) => wanted.some((code) => codes.includes(code));
  const oil = oilOf(machine, place, read);
  return [
    ...(any("broken", "chipped", "chips", "rough") ? [{ code: "rebuild-box" as const, place }] : []),
    // A pin that bent instead of shearing may be the wrong part: it is compared before another goes in.
    ...(any("bent", "sheared") ? [{ code: "change-pin" as const, place, what: any("bent") ? "bent" : "sheared" }] : []),
    ...(any("weeps", "runs", "grooved") ? [{ code: "change-seal" as const, place, what: any("grooved") ? "grooved" : "worn" }] : []),
    ...(any("milky", "burnt") ? [{ code: "change-oil" as const, place, what: any("milky") ? "milky" : "burnt" }] : []),
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
