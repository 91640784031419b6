import * as z from "zod";
import { type Figure, type Finding, judgeDeviation, type Verdict } from "@/core/basics/findings";
import { table } from "@/core/basics/tables";
import { physicalOrNought } from "@/core/basics/units/physical";
import { type Machine, pointOf, spindlesAcross } from "@/core/machine";
import type { Form } from "../form";
import { bySize, settled, shows } from "../settled";
import type { Assessment, Check } from "../types";

/** A pack deeper than this at its worst narrows what moves the air. Estimate: 3/8 in. */
export const MOST_PACK_METRES = 0.01;
/** Found packed in this share of the looks at one site, washing comes too seldom. Estimate. */
const OFTEN = 0.5;
const LOOKS_TO_SAY_SO = 3;

export const cleanlinessReadingsSchema = z.object({
  pack: z.object({ depthMetres: physicalOrNought("metres", 0.3), worst: z.string().max(60).optional() }).optional(),
  port: z.object({ state: z.enum(["open", "clogged", "none"]) }).optional(),
  /** What the clippings leave by, as the deck is used today. */
  outlet: z.object({ state: z.enum(["free", "bag-clogged", "plug-in", "flap-shut"]) }).optional(),
  chute: z.object({ state: z.enum(["open", "narrowed", "clogged"]) }).optional(),
  baffles: z.object({ state: z.enum(["in-place", "bent", "missing", "none"]) }).optional(),
  shell: z.object({ state: z.enum(["sound", "bare", "cracked"]) }).optional(),
  /** How often decks of this site were looked at before, and found packed. */
  site: z.object({ looks: z.number().int().min(0), packed: z.number().int().min(0) }).optional(),
});

export type CleanlinessReadings = z.output<typeof cleanlinessReadingsSchema>;

type Says = {
  action:
    | { code: "scrape-deck"; worst: string }
    | { code: "open-port"; what: "port" | "chute" }
    | { code: "free-outlet"; state: string }
    | { code: "mend-baffle"; state: string }
    | { code: "repair-shell"; state: string }
    | { code: "wash-sooner"; looks: number; packed: number };
  warning: { code: "bare-steel" };
  provisional: { code: "part-unread"; part: string };
  problem: { code: "more-packed-than-looked" };
};

export const deckCleanliness: Check<CleanlinessReadings, { site?: { looks: number; packed: number } }, Says> = {
  id: "deck-cleanliness",
  ruleVersion: 4,
  cautions: ["scrape-from-side"],
  readingsSchema: cleanlinessReadingsSchema,
  missing: (machine) => (machine.spindles.length === 0 ? ["no-spindles"] : []),
  problems: (_, { site }) => (site && site.packed > site.looks ? [{ code: "more-packed-than-looked", path: ["site", "packed"] }] : []),
  form: formOf,
  wants: "site-packs",
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
        path: ["outlet", "state"],
        group: "ways",
        label: "Bag, mulch plug, flap",
        options: [
          { id: "free", label: "As this use wants" },
          { id: "bag-clogged", label: "Bag full or cloth clogged" },
          { id: "plug-in", label: "Plug left in" },
          { id: "flap-shut", label: "Flap shut or bent" },
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

const BAD: readonly string[] = ["clogged", "narrowed", "missing", "bent", "cracked", "bag-clogged", "plug-in", "flap-shut"];

/** What a place that is off shows; a baffle speaks to none of the causes. */
const SHOWN: Readonly<Record<string, string>> = table({
  pack: "deck-packed",
  port: "deck-packed",
  chute: "deck-packed",
  outlet: "discharge-blocked",
  shell: "deck-shell-bent",
});

function findingsIn({ pack, port, chute, outlet, baffles, shell }: CleanlinessReadings): Finding[] {
  const found = (place: string, code: string, verdict: Verdict): Finding => {
    const cause = verdict === "out" ? SHOWN[place] : undefined;
    return { place, code, verdict, causes: cause ? shows(cause) : [] };
  };
  const looked = (place: string, state: string | undefined): Finding[] =>
    state === undefined ? [] : [found(place, state, BAD.includes(state) ? "out" : state === "bare" ? "watch" : "in-tolerance")];
  return [
    ...(pack ? [packFinding(pack)] : []),
    ...looked("port", port?.state),
    ...looked("chute", chute?.state),
    ...looked("outlet", outlet?.state),
    ...looked("baffles", baffles?.state),
    ...looked("shell", shell?.state),
  ];
}

/** A scraper and a tape stray by millimetres on a rough crust: by how far it is over, it speaks. */
function packFinding({ depthMetres, worst = "deck" }: NonNullable<CleanlinessReadings["pack"]>): Finding {
  const verdict = packVerdict(depthMetres);
  return { place: "pack", code: worst, verdict, causes: verdict === "out" ? bySize(depthMetres, MOST_PACK_METRES, "deck-packed") : [] };
}

function packVerdict(depthMetres: number): Verdict {
  return judgeDeviation({ deviation: depthMetres, tolerance: MOST_PACK_METRES });
}

function assess(_: Machine, readings: CleanlinessReadings): Assessment<{ site?: { looks: number; packed: number } }, Says> {
  const findings = findingsIn(readings);
  const { pack, port, chute, outlet, baffles, site } = readings;
  const isComplete = [pack, port, chute, outlet, baffles].every((part) => part !== undefined);
  const isOften = site !== undefined && site.looks >= LOOKS_TO_SAY_SO && site.packed / site.looks >= OFTEN;
  return {
    check: "deck-cleanliness",
    ruleVersion: deckCleanliness.ruleVersion,
    ...settled({
      check: "deck-cleanliness",
      findings,
      // A shell that shows no crack from below may be bent all the same: only a crack speaks, nothing clears it here.
      clears: {
        "deck-packed": isComplete && !findings.some(({ place, verdict }) => place === "pack" && verdict === "watch"),
        "discharge-blocked": readings.outlet !== undefined,
      },
      told: findings.map(({ place }) => place),
      isComplete,
    }),
    provisional: (["pack", "port", "chute", "outlet", "baffles"] as const)
      .filter((place) => readings[place] === undefined)
      .map((place) => ({ code: "part-unread", part: place })),
    figures: pack ? [packFigure(pack.depthMetres)] : [],
    actions: [...actionsOf(findings), ...(isOften ? [{ code: "wash-sooner" as const, looks: site.looks, packed: site.packed }] : [])],
    warnings: findings.some(({ code }) => code === "bare") ? [{ code: "bare-steel" }] : [],
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

function actionsOf(findings: readonly Finding[]): Says["action"][] {
  return findings.flatMap(({ place, verdict, code }): Says["action"][] => {
    if (verdict !== "out") return [];
    if (place === "pack") return [{ code: "scrape-deck", worst: code }];
    if (place === "port" || place === "chute") return [{ code: "open-port", what: place }];
    if (place === "outlet") return [{ code: "free-outlet", state: code }];
    return place === "baffles" ? [{ code: "mend-baffle", state: code }] : [{ code: "repair-shell", state: code }];
  });
}
