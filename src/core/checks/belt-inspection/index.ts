import * as z from "zod";
import type { Evidence, Verdict } from "@/core/findings";
import { type Machine, pointOf, spindlesAcross } from "@/core/machine";
import { choices, type Form } from "../form";
import type { Action, Assessment, Check, Mark } from "../types";
import { overall, tell, unknownPlaces } from "../verdicts";

export const beltReadingsSchema = z.object({
  belt: z
    .object({
      seated: z.enum(["every-groove", "off-one"]).optional(),
      path: z.enum(["as-picture", "other", "no-picture"]).optional(),
      state: z.enum(["sound", "glazed", "cracked", "frayed"]).optional(),
      width: z.enum(["at-rim", "below-rim"]).optional(),
      tension: z.enum(["right", "slack", "went-on-easily"]).optional(),
    })
    .default({}),
  idlers: z
    .object({
      state: z.enum(["free", "rough", "seized", "loose-rivet"]).optional(),
      spring: z.enum(["pulls", "weak", "broken"]).optional(),
    })
    .default({}),
  guards: z.object({ state: z.enum(["on", "missing"]).optional() }).default({}),
  /** Every blade seen to turn as the drive or one blade is turned by hand. */
  spindles: z.record(z.string(), z.object({ turns: z.enum(["turns", "stands"]) })).default({}),
});

export type BeltReadings = z.output<typeof beltReadingsSchema>;

export const beltInspection: Check<BeltReadings, { unseen: string[] }> = {
  id: "belt-inspection",
  ruleVersion: 1,
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

const BAD: Record<string, Verdict> = {
  "off-one": "out",
  other: "out",
  "no-picture": "watch",
  glazed: "out",
  cracked: "out",
  frayed: "out",
  "below-rim": "out",
  slack: "out",
  "went-on-easily": "watch",
  rough: "out",
  seized: "out",
  "loose-rivet": "out",
  weak: "out",
  broken: "out",
  missing: "out",
  stands: "out",
};

function assess(machine: Machine, readings: BeltReadings): Assessment<{ unseen: string[] }> {
  const { belt, idlers, guards, spindles } = readings;
  const looked: [string, string | undefined][] = [
    ["belt-seat", belt.seated],
    ["belt-path", belt.path],
    ["belt", belt.state],
    ["belt-width", belt.width],
    ["belt-tension", belt.tension],
    ["idlers", idlers.state],
    ["spring", idlers.spring],
    ["guards", guards.state],
    ...machine.spindles.map(({ id }): [string, string | undefined] => [id, spindles[id]?.turns]),
  ];
  const marks: Mark[] = looked.flatMap(([place, code]) =>
    code === undefined ? [] : [{ place, code, verdict: BAD[code] ?? "in-tolerance" }],
  );
  const missing = looked.filter(([, code]) => code === undefined).map(([place]) => place);
  const unseen = machine.spindles.filter(({ id }) => spindles[id]?.turns !== "turns").map(({ id }) => id);
  return {
    check: "belt-inspection",
    ruleVersion: beltInspection.ruleVersion,
    verdict: overall(
      marks.map(({ verdict }) => verdict),
      missing.length === 0,
    ),
    provisional: missing.map((place) => ({ code: "place-unread", place })),
    figures: [],
    marks,
    evidence: evidenceOf(marks, missing.length === 0),
    actions: marks.flatMap(actionOf),
    warnings: belt.tension === "went-on-easily" ? [{ code: "belt-not-on" }] : [],
    detail: { unseen },
  };
}

const OFF: readonly string[] = ["off-one", "other", "stands"];
const SLIPS: readonly string[] = ["glazed", "cracked", "frayed", "below-rim", "slack", "weak", "broken"];
const IDLER: readonly string[] = ["rough", "seized", "loose-rivet"];

function evidenceOf(marks: readonly Mark[], isComplete: boolean): Evidence[] {
  const check = "belt-inspection";
  const any = (codes: readonly string[]) => marks.some(({ code }) => code !== undefined && codes.includes(code));
  const told = (cause: string, isSeen: boolean, isSuspect = false) => tell({ check, cause, isSeen, isSuspect, isClear: isComplete });
  return [
    ...told("belt-off", any(OFF), any(["went-on-easily"])),
    ...told("belt-slipping", any(SLIPS)),
    ...told("idler-failing", any(IDLER)),
  ];
}

function actionOf({ place, code }: Mark): Action[] {
  if (code === undefined) return [];
  if (code === "no-picture") return [{ code: "photograph-belt" }];
  if (OFF.includes(code)) return [{ code: "seat-belt", place, what: code }];
  if (SLIPS.includes(code)) return [{ code: place === "spring" ? "change-spring" : "change-belt", what: code }];
  if (IDLER.includes(code)) return [{ code: "change-idler", what: code }];
  return code === "missing" ? [{ code: "guards-on" }] : [];
}
