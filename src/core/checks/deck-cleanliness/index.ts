import * as z from "zod";
import { type Evidence, type Figure, judgeDeviation, type Verdict } from "@/core/findings";
import { type Machine, pointOf, spindlesAcross } from "@/core/machine";
import type { Form } from "../form";
import type { Action, Assessment, Check, Mark } from "../types";
import { overall } from "../verdicts";

/** A pack deeper than this at its worst narrows what moves the air. Estimate: 3/8 in. */
export const MOST_PACK_METRES = 0.01;
/** Found packed in this share of the looks at one site, washing comes too seldom. Estimate. */
const OFTEN = 0.5;
const LOOKS_TO_SAY_SO = 3;

export const cleanlinessReadingsSchema = z.object({
  pack: z.object({ depthMetres: z.number().min(0).max(0.3), worst: z.string().max(60).optional() }).optional(),
  port: z.object({ state: z.enum(["open", "clogged", "none"]) }).optional(),
  chute: z.object({ state: z.enum(["open", "narrowed", "clogged"]) }).optional(),
  baffles: z.object({ state: z.enum(["in-place", "bent", "missing", "none"]) }).optional(),
  shell: z.object({ state: z.enum(["sound", "bare", "cracked"]) }).optional(),
  /** How often decks of this site were looked at before, and found packed. */
  site: z.object({ looks: z.number().int().min(0), packed: z.number().int().min(0) }).optional(),
});

export type CleanlinessReadings = z.output<typeof cleanlinessReadingsSchema>;

export const deckCleanliness: Check<CleanlinessReadings, { site?: { looks: number; packed: number } }> = {
  id: "deck-cleanliness",
  ruleVersion: 1,
  readingsSchema: cleanlinessReadingsSchema,
  missing: (machine) => (machine.spindles.length === 0 ? ["no-spindles"] : []),
  problems: (_, { site }) => (site && site.packed > site.looks ? [{ code: "more-packed-than-looked", path: ["site", "packed"] }] : []),
  form: formOf,
  assess,
};

function formOf(machine: Machine): Form {
  const middle = spindlesAcross(machine)[Math.floor(machine.spindles.length / 2)];
  const places = [
    ...spindlesAcross(machine).map(({ id, label }) => ({ id, label: `At ${label.toLowerCase()}` })),
    { id: "baffle", label: "Baffle" },
    { id: "chute", label: "Chute" },
  ];
  return {
    groups: [
      { id: "pack", label: "Pack", ...(middle ? { at: pointOf(middle) } : {}) },
      { id: "ways", label: "Ways of the air" },
      { id: "shell", label: "The shell" },
    ],
    fields: [
      {
        kind: "quantity",
        path: ["pack", "depthMetres"],
        group: "pack",
        label: "Depth of the pack, worst place",
        dimension: "length",
        instrument: "tape",
        range: { least: 0, most: 0.3, usualLeast: 0, usualMost: 0.08 },
      },
      { kind: "choice", path: ["pack", "worst"], group: "pack", label: "Where it is worst", options: places, isOptional: true },
      {
        kind: "choice",
        path: ["port", "state"],
        group: "ways",
        label: "Washout port",
        options: [
          { id: "open", label: "Open" },
          { id: "clogged", label: "Clogged" },
          { id: "none", label: "Has none" },
        ],
      },
      {
        kind: "choice",
        path: ["chute", "state"],
        group: "ways",
        label: "Chute and duct",
        options: [
          { id: "open", label: "Open" },
          { id: "narrowed", label: "Narrowed" },
          { id: "clogged", label: "Clogged" },
        ],
      },
      {
        kind: "choice",
        path: ["baffles", "state"],
        group: "ways",
        label: "Baffles",
        options: [
          { id: "in-place", label: "In place" },
          { id: "bent", label: "Bent" },
          { id: "missing", label: "Missing" },
          { id: "none", label: "Has none" },
        ],
      },
      {
        kind: "choice",
        path: ["shell", "state"],
        group: "shell",
        label: "Shell seen clean",
        isOptional: true,
        options: [
          { id: "sound", label: "Sound" },
          { id: "bare", label: "Bare steel" },
          { id: "cracked", label: "Cracked" },
        ],
      },
    ],
  };
}

const BAD: readonly string[] = ["clogged", "narrowed", "missing", "bent", "cracked"];

function marksOf({ pack, port, chute, baffles, shell }: CleanlinessReadings): Mark[] {
  const looked = (place: string, state: string | undefined): Mark[] =>
    state === undefined ? [] : [{ place, verdict: BAD.includes(state) ? "out" : state === "bare" ? "watch" : "in-tolerance", code: state }];
  return [
    ...(pack ? [{ place: "pack", verdict: packVerdict(pack.depthMetres), code: pack.worst ?? "deck" }] : []),
    ...looked("port", port?.state),
    ...looked("chute", chute?.state),
    ...looked("baffles", baffles?.state),
    ...looked("shell", shell?.state),
  ];
}

function packVerdict(depthMetres: number): Verdict {
  return judgeDeviation({ deviation: depthMetres, tolerance: MOST_PACK_METRES });
}

function assess(_: Machine, readings: CleanlinessReadings): Assessment<{ site?: { looks: number; packed: number } }> {
  const marks = marksOf(readings);
  const { pack, port, chute, baffles, site } = readings;
  const isComplete = pack !== undefined && port !== undefined && chute !== undefined && baffles !== undefined;
  const isOften = site !== undefined && site.looks >= LOOKS_TO_SAY_SO && site.packed / site.looks >= OFTEN;
  return {
    check: "deck-cleanliness",
    ruleVersion: deckCleanliness.ruleVersion,
    verdict: overall(
      marks.map(({ verdict }) => verdict),
      isComplete,
    ),
    provisional: (["pack", "port", "chute", "baffles"] as const)
      .filter((place) => readings[place] === undefined)
      .map((place) => ({ code: "part-unread", part: place })),
    figures: pack ? [packFigure(pack.depthMetres)] : [],
    marks,
    evidence: evidenceOf(marks, isComplete),
    actions: [...actionsOf(marks), ...(isOften ? [{ code: "wash-sooner" as const, looks: site.looks, packed: site.packed }] : [])],
    warnings: marks.some(({ code }) => code === "bare") ? [{ code: "bare-steel" }] : [],
    detail: site ? { site } : {},
  };
}

function packFigure(depthMetres: number): Figure {
  return {
    id: "pack-depth",
    value: depthMetres,
    dimension: "length",
    instrument: "tape",
    tolerance: { kind: "between", most: MOST_PACK_METRES, standing: "estimate" },
    verdict: packVerdict(depthMetres),
    standing: "measured",
  };
}

const PACKED_PLACES: readonly string[] = ["pack", "port", "chute"];

function evidenceOf(marks: readonly Mark[], isComplete: boolean): Evidence[] {
  const check = "deck-cleanliness";
  const isPacked = marks.some(({ place, verdict }) => PACKED_PLACES.includes(place) && verdict === "out");
  const shell = marks.find(({ place }) => place === "shell");
  return [
    ...(isPacked
      ? [{ check, cause: "deck-packed", result: "seen" as const }]
      : isComplete
        ? [{ check, cause: "deck-packed", result: "not-found" as const }]
        : []),
    ...(shell ? [{ check, cause: "deck-shell-bent", result: shell.code === "cracked" ? ("seen" as const) : ("not-found" as const) }] : []),
  ];
}

function actionsOf(marks: readonly Mark[]): Action[] {
  return marks.flatMap(({ place, verdict, code }): Action[] => {
    if (verdict !== "out") return [];
    if (place === "pack") return [{ code: "scrape-deck", worst: code }];
    if (place === "port" || place === "chute") return [{ code: "open-port", what: place }];
    return place === "baffles" ? [{ code: "mend-baffle", state: code }] : [{ code: "repair-shell", state: code }];
  });
}
