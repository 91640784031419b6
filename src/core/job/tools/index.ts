import { type CheckId, type FixId, WAYS } from "@/core/catalogue";
import type { Machine } from "@/core/machine";
import { socketsFor } from "@/core/physics/blades/bolts";

/** A tool to take along: plain words, or one whose size comes from the machine's sheet. */
export type Tool =
  | { code: "plain"; words: string }
  | { code: "blade-socket"; headMetres: number; fits: { system: "inch" | "metric"; stamped: number; playMetres: number }[] }
  | { code: "torque-wrench"; torqueNewtonMetres?: number }
  | { code: "blades"; count: number; lengthMetres: number }
  | { code: "hanger-wrench"; heads: string[] }
  | { code: "pressures"; wheels: { label: string; pascals: number }[] };

export type ToolNeed = { tool: Tool; for: (CheckId | FixId)[] };

const GLOVES = "cut-resistant gloves";
const CHOCKS = ["wheel chocks", "lock-out tag"] as const;
const STANDS = ["stands for the machine", ...CHOCKS] as const;
const DECK_OFF = [...STANDS, "blocks for the deck", "tray for pins, washers and clips", "tensioner lever"] as const;
const BEARINGS = ["bearing puller and press rings", "ring pliers", "seal pick", "seal driver", "grease of the sheet's kind"] as const;
const BOX = [
  "ring pliers",
  "seal pick",
  "seal driver",
  "pan for the oil",
  "oil of the sheet's kind",
  "gasket",
  "low torque wrench",
] as const;
const BENCH_REEL = ["flat plate with its bar", "two height gauges", "test paper"] as const;
const BRIEF = ["the machine's card to mark"] as const;

/** What each fix wants beside its check's tools (common practice). */
const FIX_TOOLS: Record<FixId, readonly string[]> = {
  "set-pressures": ["air line with a gauge"],
  "mend-tyre": ["tyre levers", "valve core key", "air line with a gauge", ...STANDS],
  "adjust-hangers": ["blocks for the deck", "ruler or height gauge", ...CHOCKS],
  "replace-hanger": ["blocks for the deck", "the right hanger, pin or clip", ...STANDS],
  "repair-shell": [...DECK_OFF, "straight edge"],
  "set-anti-scalp": ["wrench for the wheel bolts", "ruler"],
  "reset-height": ["prism or ruler"],
  "clean-deck": ["scraper", "water or air as the machine allows", ...STANDS],
  "free-discharge": ["scraper", "brush for the bag", ...STANDS],
  "sharpen-blades": ["block of wood", "grinder with guards", "balancer", GLOVES, ...STANDS],
  "replace-blades": ["block of wood", GLOVES, "penetrating oil", ...STANDS],
  "balance-blades": ["block of wood", "balancer", GLOVES, ...STANDS],
  "refit-blades": ["block of wood", GLOVES, "penetrating oil", ...STANDS],
  "reseat-belt": ["tensioner lever", "the routing picture of this machine", ...CHOCKS],
  "replace-belt": ["tensioner lever", "the belt of the sheet", "the routing picture of this machine", ...CHOCKS],
  "replace-idler": ["tensioner lever", "the idler of the sheet", ...CHOCKS],
  "set-engine-speed": ["tachometer and reflective tape, or the pulley sizes"],
  "service-engine": ["plug wrench", "air filter", "fuel filter", "spark tester"],
  "set-clutch": ["feeler gauges", "multimeter", ...CHOCKS],
  "clear-shaft": ["hook and cutters", GLOVES, "seal pick", ...STANDS],
  "rebuild-gearbox": [...DECK_OFF, ...BOX, ...BEARINGS, "the mated gear pair of the sheet", "torque adapter"],
  "replace-pin": [...STANDS, "punch and hammer", "the pin of the sheet", "oil of the sheet's kind"],
  "retime-blades": [...STANDS, "chalk", "block of wood", GLOVES, "torque adapter"],
  "reseal-gearbox": [...DECK_OFF, ...BOX],
  "hand-to-engine-shop": [...CHOCKS, "out-of-service tag"],
  "replace-bearings": [...DECK_OFF, ...BEARINGS, "grease needle", "depth gauge or calliper"],
  "replace-shaft": [...DECK_OFF, ...BEARINGS, "the shaft or spindle of the sheet"],
  "lap-reel": ["lapping machine", "lapping compound", "long brush", GLOVES, ...BENCH_REEL],
  "grind-reel": ["reel grinder with guards", GLOVES, ...BENCH_REEL],
  "set-contact": ["test paper", GLOVES, "wrenches for the bedknife's screws"],
  "set-parallel": ["calliper", "test paper", GLOVES, ...BENCH_REEL],
  "grind-bedknife": ["bedknife grinder with guards", GLOVES, ...BENCH_REEL],
  "replace-bedknife": ["bedknife of the sheet and its screws", "bedknife grinder with guards", GLOVES, ...BENCH_REEL],
  "set-rollers": ["wrenches for the roller brackets", ...BENCH_REEL],
  "replace-reel-bearings": [...BEARINGS, "grease needle", "torque adapter", ...BENCH_REEL],
  "square-roller": ["feeler gauges", ...BENCH_REEL],
  "replace-roller-bearings": [...BEARINGS, ...BENCH_REEL],
  "clean-rollers": ["scraper", "brush", ...STANDS],
  "correct-height": ["prism", ...BENCH_REEL],
  "match-units": ["calliper", ...BENCH_REEL],
  "set-speeds": ["tachometer", "watch and marked distance"],
  "raise-groomer": ["height gauge", "feeler gauges"],
  "lower-groomer": ["height gauge", "feeler gauges"],
  "change-rollers": ["the rollers of the sheet", ...STANDS, ...BENCH_REEL],
  "set-hood": ["wrenches for the hood", ...CHOCKS],
  "repair-arm": ["the bushings of the sheet", "bushing driver", ...STANDS],
  "other-repair": [],
  "brief-operator": BRIEF,
  "change-mowing": BRIEF,
  "change-height-or-machine": BRIEF,
  "vary-direction": BRIEF,
  "treat-thatch": BRIEF,
};

const BLADE_BOLT: readonly string[] = ["blade-fit", "blade-balance", "sharpen-blades", "replace-blades", "balance-blades", "refit-blades"];
const NEW_BLADES: readonly string[] = ["replace-blades"];
const HANGERS: readonly string[] = ["adjust-hangers", "replace-hanger"];
const PRESSURES: readonly string[] = ["tyre-pressure", "set-pressures"];

/** Said otherwise by a tool that carries its size. */
const SIZED: readonly string[] = ["socket and torque wrench"];

/**
 * What the checks and fixes ahead want, each thing once with what it is for, sizes from the machine's sheet: one list to take from the
 * bench. In the order of the work.
 */
export function toolsFor(machine: Machine, ahead: { checks: readonly CheckId[]; fixes: readonly FixId[] }): ToolNeed[] {
  const wanted: (CheckId | FixId)[] = [...ahead.checks, ...ahead.fixes];
  const plain = [
    ...ahead.checks.flatMap((id) => WAYS[id].bring.map((words) => ({ words, id }))),
    ...ahead.fixes.flatMap((id) => FIX_TOOLS[id].map((words) => ({ words, id }))),
  ].filter(({ words }) => !SIZED.includes(words));
  const merged = new Map<string, ToolNeed>();
  for (const { words, id } of plain) {
    const need = merged.get(words) ?? { tool: { code: "plain" as const, words }, for: [] };
    merged.set(words, { ...need, for: need.for.includes(id) ? need.for : [...need.for, id] });
  }
  return [...merged.values(), ...sized(machine, wanted)];
}

function sized(machine: Machine, wanted: readonly (CheckId | FixId)[]): ToolNeed[] {
  const among = (ids: readonly string[]) => wanted.filter((id) => ids.includes(id));
  const { blade, bladeBoltTorqueNewtonMetres: torque } = machine.sheet;
  const head = blade?.bolt?.headMetres;
  const heads = (machine.deck?.hangers ?? []).flatMap(({ label, head: size }) => (size ? [`${label}: ${size}`] : []));
  const wheels = machine.wheels.flatMap(({ label, sheetPressurePascals: pascals }) => (pascals === undefined ? [] : [{ label, pascals }]));
  const needs: (ToolNeed | false)[] = [
    head !== undefined && {
      tool: {
        code: "blade-socket",
        headMetres: head,
        fits: socketsFor(head)
          .filter(({ fit }) => fit === "good")
          .map(({ system, stamped, playMetres }) => ({ system, stamped, playMetres })),
      },
      for: among(BLADE_BOLT),
    },
    { tool: { code: "torque-wrench", ...(torque === undefined ? {} : { torqueNewtonMetres: torque }) }, for: among(BLADE_BOLT) },
    blade !== undefined && {
      tool: { code: "blades", count: machine.spindles.length, lengthMetres: blade.lengthMetres },
      for: among(NEW_BLADES),
    },
    heads.length > 0 && { tool: { code: "hanger-wrench", heads }, for: among(HANGERS) },
    wheels.length > 0 && { tool: { code: "pressures", wheels }, for: among(PRESSURES) },
  ];
  return needs.filter((need): need is ToolNeed => need !== false && need.for.length > 0);
}
