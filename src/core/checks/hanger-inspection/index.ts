import * as z from "zod";
import type { Finding, Verdict } from "@/core/basics/findings";
import { type Machine, pointOf } from "@/core/machine";
import type { Form } from "../form";
import { pointsAt, settled, shows } from "../settled";
import type { Assessment, Check } from "../types";
import { unknownPlaces } from "../verdicts";

const HANGER_STATES = ["sound", "worn", "bent", "elongated", "wrong-clip", "missing"] as const;
const SHELL_STATES = ["sound", "cracked", "bent"] as const;

export const hangerReadingsSchema = z.object({
  hangers: z.record(z.string(), z.object({ state: z.enum(HANGER_STATES), note: z.string().max(200).optional() })).default({}),
  shell: z.object({ state: z.enum(SHELL_STATES), note: z.string().max(200).optional() }).optional(),
});

export type HangerReadings = z.output<typeof hangerReadingsSchema>;
type HangerState = (typeof HANGER_STATES)[number];

/** Worn is watched; anything else that is not sound lets a corner of the deck down. Common practice. */
const VERDICT_OF: Record<HangerState, Verdict> = {
  sound: "in-tolerance",
  worn: "watch",
  bent: "out",
  elongated: "out",
  "wrong-clip": "out",
  missing: "out",
};

const HANGER_OPTIONS = [
  { id: "sound", label: "Sound" },
  { id: "worn", label: "Worn" },
  { id: "bent", label: "Bent" },
  { id: "elongated", label: "Worn oval" },
  { id: "wrong-clip", label: "Wrong clip" },
  { id: "missing", label: "Missing" },
] as const;

type Says = {
  action: { code: "mend-hanger"; place: string; state: string } | { code: "repair-shell"; state: string } | { code: "level-again" };
  provisional: { code: "place-unread"; place: string };
  problem: { code: "unknown-hanger"; place: string };
};

export const hangerInspection: Check<HangerReadings, { looked: number; of: number }, Says> = {
  id: "hanger-inspection",
  ruleVersion: 1,
  cautions: ["block-before-pin", "turn-by-hand"],
  readingsSchema: hangerReadingsSchema,
  missing: (machine) => ((machine.deck?.hangers.length ?? 0) === 0 ? ["no-hangers"] : []),
  problems: (machine, { hangers }) =>
    unknownPlaces({ read: hangers, known: machine.deck?.hangers ?? [], path: "hangers", code: "unknown-hanger" }),
  form: formOf,
  assess,
};

function formOf(machine: Machine): Form {
  const hangers = machine.deck?.hangers ?? [];
  return {
    groups: [
      ...hangers.map((hanger) => ({ id: hanger.id, label: hanger.label, at: pointOf(hanger) })),
      { id: "shell", label: "Shell and mounts" },
    ],
    fields: [
      ...hangers.flatMap(({ id }): Form["fields"] => [
        { kind: "choice", path: ["hangers", id, "state"], group: id, label: "Hanger, link, pin, clip", options: HANGER_OPTIONS },
        { kind: "text", path: ["hangers", id, "note"], group: id, label: "In words", isOptional: true, most: 200 },
      ]),
      {
        kind: "choice",
        path: ["shell", "state"],
        group: "shell",
        label: "Shell and spindle mounts",
        isOptional: true,
        options: [
          { id: "sound", label: "Sound" },
          { id: "cracked", label: "Cracked" },
          { id: "bent", label: "Bent" },
        ],
      },
    ],
  };
}

function assess(machine: Machine, { hangers, shell }: HangerReadings): Assessment<{ looked: number; of: number }, Says> {
  const all = machine.deck?.hangers ?? [];
  const findings = [...Object.entries(hangers).map(([place, { state }]) => hangerFinding(place, state)), ...shellFinding(shell)];
  const isComplete = all.every(({ id }) => hangers[id] !== undefined);
  return {
    check: "hanger-inspection",
    ruleVersion: hangerInspection.ruleVersion,
    ...settled({
      check: "hanger-inspection",
      findings,
      clears: { "hanger-failed": isComplete, "deck-shell-bent": shell !== undefined },
      told: findings.map(({ place }) => place),
      isComplete,
    }),
    provisional: all.filter(({ id }) => !hangers[id]).map(({ id }) => ({ code: "place-unread", place: id })),
    figures: [],
    actions: actionsOf(findings),
    warnings: [],
    detail: { looked: Object.keys(hangers).length, of: all.length },
  };
}

function hangerFinding(place: string, state: HangerState): Finding {
  const verdict = VERDICT_OF[state];
  const causes = verdict === "out" ? shows("hanger-failed") : verdict === "watch" ? pointsAt("hanger-failed") : [];
  return { place, code: state, verdict, causes };
}

function shellFinding(shell: HangerReadings["shell"]): Finding[] {
  if (!shell) return [];
  const isSound = shell.state === "sound";
  return [
    { place: "shell", code: shell.state, verdict: isSound ? "in-tolerance" : "out", causes: isSound ? [] : shows("deck-shell-bent") },
  ];
}

function actionsOf(findings: readonly Finding[]): Says["action"][] {
  const bad = findings.filter(({ verdict, place }) => verdict === "out" && place !== "shell");
  const shell = findings.find(({ place, verdict }) => place === "shell" && verdict === "out");
  return [
    ...bad.map(({ place, code }) => ({ code: "mend-hanger" as const, place, state: code })),
    ...(shell ? [{ code: "repair-shell" as const, state: shell.code }] : []),
    ...(bad.length > 0 ? [{ code: "level-again" as const }] : []),
  ];
}
