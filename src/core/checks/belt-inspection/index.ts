import * as z from "zod";
import { type Figure, type Finding, judgeDeviation, type Verdict } from "@/core/basics/findings";
import { table } from "@/core/basics/tables";
import { physical } from "@/core/basics/units/physical";
import { type Machine, pointOf, spindlesAcross } from "@/core/machine";
import { choices, type Form } from "../form";
import { pointsAt, settled, shows } from "../settled";
import type { Assessment, Check } from "../types";
import { unknownPlaces } from "../verdicts";

export const beltReadingsSchema = z.object({
  belt: z
    .object({
      seated: z.enum(["every-groove", "off-one"]).optional(),
      path: z.enum(["as-picture", "other", "no-picture"]).optional(),
      state: z.enum(["sound", "glazed", "cracked", "frayed"]).optional(),
      width: z.enum(["at-rim", "below-rim"]).optional(),
      tension: z.enum(["right", "slack", "went-on-easily"]).optional(),
      /** Felt after a run, and looked at for shine where it runs past a shaft. */
      heat: z.enum(["hand-warm", "too-hot"]).optional(),
      rubs: z.enum(["clear", "rubs"]).optional(),
    })
    .default({}),
  idlers: z
    .object({
      state: z.enum(["free", "rough", "seized", "loose-rivet"]).optional(),
      spring: z.enum(["pulls", "weak", "broken"]).optional(),
    })
    .default({}),
  guards: z.object({ state: z.enum(["on", "missing"]).optional() }).default({}),
  /** As marked on the belt, or measured round it on the pitch line. */
  lengthMetres: physical("metres", 20).optional(),
  /** From the record: whether a picture or a sketch of this machine's path is held. Not told (another program, the reckoner) is taken on trust. */
  isPictureHeld: z.boolean().optional(),
  /** Every blade seen to turn as the drive or one blade is turned by hand. */
  spindles: z.record(z.string(), z.object({ turns: z.enum(["turns", "stands"]) })).default({}),
});

export type BeltReadings = z.output<typeof beltReadingsSchema>;

type Says = {
  action:
    | { code: "photograph-belt" }
    | { code: "seat-belt"; place: string; what: string }
    | { code: "change-belt"; what: string }
    | { code: "change-spring"; what: string }
    | { code: "change-idler"; what: string }
    | { code: "free-belt" }
    | { code: "find-heat" }
    | { code: "guards-on" }
    | { code: "belt-of-length"; wantedMetres: number };
  warning: { code: "belt-not-on" };
  provisional: { code: "place-unread"; place: string };
  problem: { code: "unknown-spindle"; place: string };
};

export const beltInspection: Check<BeltReadings, { unseen: string[] }, Says> = {
  id: "belt-inspection",
  ruleVersion: 5,
  cautions: ["idler-spring"],
  wants: "belt-picture",
  readingsSchema: beltReadingsSchema,
  missing: (machine) => (machine.spindles.length === 0 ? ["no-spindles"] : []),
  problems: (machine, { spindles }) =>
    unknownPlaces({ read: spindles, known: machine.spindles, path: "spindles", code: "unknown-spindle" }),
  form: formOf,
  assess,
};

function formOf(machine: Machine): Form {
  const across = spindlesAcross(machine);
  const choice = (group: string, path: string[], label: string, options: ReturnType<typeof choices>) => ({
    kind: "choice" as const,
    group,
    path,
    label,
    options,
  });
  return {
    groups: [
      { id: "belt", label: "The belt" },
      { id: "idlers", label: "Idlers, spring and guards" },
      ...across.map((spindle) => ({ id: spindle.id, label: spindle.label, at: pointOf(spindle) })),
      { id: "size", label: "Which belt it is", isFolded: true },
    ],
    fields: [
      choice("belt", ["belt", "seated"], "Seated", choices(["every-groove", "In every groove"], ["off-one", "Off one"])),
      choice(
        "belt",
        ["belt", "path"],
        "Path",
        choices(["as-picture", "As the picture"], ["other", "Another"], ["no-picture", "No picture held"]),
      ),
      choice(
        "belt",
        ["belt", "state"],
        "The belt itself",
        choices(["sound", "Sound"], ["glazed", "Glazed"], ["cracked", "Cracked"], ["frayed", "Cord frayed"]),
      ),
      choice("belt", ["belt", "width"], "Rides in the pulley", choices(["at-rim", "At the rim"], ["below-rim", "Below the rim"])),
      choice(
        "belt",
        ["belt", "tension"],
        "Tension",
        choices(["right", "Right"], ["slack", "Slack"], ["went-on-easily", "Went on too easily"]),
      ),
      choice("belt", ["belt", "heat"], "After a run", choices(["hand-warm", "Hand-warm"], ["too-hot", "Too hot to hold"])),
      choice("belt", ["belt", "rubs"], "Past shafts and brackets", choices(["clear", "Clear"], ["rubs", "Rubs on one"])),
      ...(machine.sheet.belt?.lengthMetres === undefined
        ? []
        : [
            {
              kind: "quantity" as const,
              group: "size",
              path: ["lengthMetres"],
              label: "Length marked on the belt",
              isOptional: true,
              dimension: "length" as const,
              instrument: "gauge" as const,
              range: { least: 0.3, most: 10, usualLeast: 0.6, usualMost: 6 },
            },
          ]),
      choice(
        "idlers",
        ["idlers", "state"],
        "Idlers by hand",
        choices(["free", "Free"], ["rough", "Rough"], ["seized", "Seized"], ["loose-rivet", "Rivet loose"]),
      ),
      choice("idlers", ["idlers", "spring"], "Spring", choices(["pulls", "Pulls"], ["weak", "Weak"], ["broken", "Broken"])),
      choice("idlers", ["guards", "state"], "Guards", choices(["on", "On"], ["missing", "Missing"])),
      ...across.map(({ id }) =>
        choice(
          id,
          ["spindles", id, "turns"],
          "As the drive is turned by hand",
          choices(["turns", "Turns with it"], ["stands", "Stands still"]),
        ),
      ),
    ],
  };
}

/** A belt further than this from the sheet's length is another belt. Estimate: 1/2 in. */
export const BELT_WITHIN_METRES = 0.0127;

function lengthFigure(machine: Machine, lengthMetres: number | undefined): Figure[] {
  const wanted = machine.sheet.belt?.lengthMetres;
  if (wanted === undefined || lengthMetres === undefined) return [];
  return [
    {
      id: "belt-length",
      value: lengthMetres,
      dimension: "length",
      instrument: "gauge",
      tolerance: { kind: "about", target: wanted, plusMinus: BELT_WITHIN_METRES, standing: "estimate" },
      verdict: judgeDeviation({ deviation: lengthMetres - wanted, tolerance: BELT_WITHIN_METRES }),
      standing: "measured",
    },
  ];
}

const AFTER_A_RUN: readonly string[] = ["belt-heat", "belt-rubs"];

const BAD: Record<string, Verdict> = table({
  "off-one": "out",
  other: "out",
  glazed: "out",
  cracked: "out",
  frayed: "out",
  "below-rim": "out",
  slack: "out",
  "went-on-easily": "out",
  "too-hot": "out",
  rubs: "out",
  rough: "out",
  seized: "out",
  "loose-rivet": "out",
  weak: "out",
  broken: "out",
  missing: "out",
  stands: "out",
});

function assess(machine: Machine, readings: BeltReadings): Assessment<{ unseen: string[] }, Says> {
  const { belt, idlers, guards, spindles, lengthMetres } = readings;
  const figures = lengthFigure(machine, lengthMetres);
  // A path is as a picture only where there is one: without it nothing was compared.
  const path = belt.path === "as-picture" && readings.isPictureHeld === false ? "no-picture" : belt.path;
  const isOther = figures.some(({ verdict }) => verdict === "out");
  const isNearly = figures.some(({ verdict }) => verdict === "watch");
  const looked: [string, string | undefined][] = [
    ["belt-seat", belt.seated],
    ["belt-path", path],
    ["belt", belt.state],
    ["belt-width", belt.width],
    ["belt-tension", belt.tension],
    ["belt-heat", belt.heat],
    ["belt-rubs", belt.rubs],
    ["idlers", idlers.state],
    ["spring", idlers.spring],
    ["guards", guards.state],
    ...machine.spindles.map(({ id }): [string, string | undefined] => [id, spindles[id]?.turns]),
  ];
  const findings: Finding[] = [
    ...looked.flatMap(([place, code]) =>
      code === undefined ? [] : [{ place, code, verdict: BAD[code] ?? "in-tolerance", causes: causesOf(code) }],
    ),
    ...(isNearly ? [{ place: "belt-size", code: "near-length", verdict: "watch" as const }] : []),
    ...(isOther ? [{ place: "belt-size", code: "other-length", verdict: "out" as const, causes: pointsAt("belt-slipping") }] : []),
  ];
  const untold = looked.filter(([, code]) => code === undefined).map(([place]) => place);
  // What only a run shows is not to be had at a machine that is locked out: nothing waits for it, and it clears nothing.
  const missing = untold.filter((place) => !AFTER_A_RUN.includes(place));
  const unseen = machine.spindles.filter(({ id }) => spindles[id]?.turns !== "turns").map(({ id }) => id);
  return {
    check: "belt-inspection",
    ruleVersion: beltInspection.ruleVersion,
    ...settled({
      check: "belt-inspection",
      findings,
      clears: {
        "belt-off": untold.length === 0 && path !== "no-picture",
        "belt-slipping": untold.length === 0,
        "idler-failing": untold.length === 0,
      },
      told: findings.map(({ place }) => place),
      isComplete: missing.length === 0,
    }),
    provisional: missing.map((place) => ({ code: "place-unread" as const, place })),
    figures,
    actions: [
      ...findings.flatMap(actionOf),
      ...(isOther ? [{ code: "belt-of-length" as const, wantedMetres: machine.sheet.belt?.lengthMetres ?? 0 }] : []),
    ],
    warnings: belt.tension === "went-on-easily" ? [{ code: "belt-not-on" as const }] : [],
    detail: { unseen },
  };
}

const OFF: readonly string[] = ["off-one", "other", "stands"];
const SLIPS: readonly string[] = ["glazed", "cracked", "frayed", "below-rim", "slack", "weak", "broken"];
const IDLER: readonly string[] = ["rough", "seized", "loose-rivet"];

function causesOf(code: string): Finding["causes"] {
  if (OFF.includes(code)) return shows("belt-off");
  // A belt that goes on too easily is a belt off something; one that rubs runs another way than it was led.
  if (code === "went-on-easily" || code === "rubs") return pointsAt("belt-off");
  if (code === "too-hot") return pointsAt("belt-slipping");
  if (SLIPS.includes(code)) return shows("belt-slipping");
  return IDLER.includes(code) ? shows("idler-failing") : [];
}

function actionOf({ place, code }: Finding): Says["action"][] {
  if (code === "no-picture") return [{ code: "photograph-belt" }];
  if (code === "rubs") return [{ code: "free-belt" }];
  if (code === "too-hot") return [{ code: "find-heat" }];
  if (code === "went-on-easily" || OFF.includes(code)) return [{ code: "seat-belt", place, what: code }];
  if (SLIPS.includes(code)) return [{ code: place === "spring" ? "change-spring" : "change-belt", what: code }];
  if (IDLER.includes(code)) return [{ code: "change-idler", what: code }];
  return code === "missing" ? [{ code: "guards-on" }] : [];
}
