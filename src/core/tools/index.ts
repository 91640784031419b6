import { socketsFor } from "@/core/blades/bolts";
import type { Machine } from "@/core/machine";
import { type CheckId, type FixId, WAYS } from "@/core/trade";

/** A tool to take along: plain words, or one whose size comes from the machine's sheet. */
export type Tool =
  | { code: "plain"; words: string }
  | { code: "blade-socket"; headMetres: number; fits: { system: "inch" | "metric"; stamped: number; playMetres: number }[] }
  | { code: "torque-wrench"; torqueNewtonMetres?: number }
  | { code: "blades"; count: number; lengthMetres: number }
  | { code: "hanger-wrench"; heads: string[] }
  | { code: "pressures"; wheels: { label: string; pascals: number }[] };

export type ToolNeed = { tool: Tool; for: (CheckId | FixId)[] };

/** What each fix wants beside its check's tools (common practice). */
const FIX_TOOLS: Partial<Record<FixId, readonly string[]>> = {
  "set-pressures": ["air line with a gauge"],
  "mend-tyre": ["tyre levers", "valve core key", "air line with a gauge"],
  "adjust-hangers": ["blocks for the deck", "ruler or height gauge"],
  "replace-hanger": ["blocks for the deck", "the right hanger, pin or clip"],
  "set-anti-scalp": ["wrench for the wheel bolts", "ruler"],
  "reset-height": ["prism or ruler"],
  "clean-deck": ["scraper", "hose"],
  "sharpen-blades": ["block of wood", "grinder with guards", "balancer", "cut-resistant gloves"],
  "replace-blades": ["block of wood", "cut-resistant gloves"],
  "balance-blades": ["block of wood", "balancer", "cut-resistant gloves"],
  "refit-blades": ["block of wood", "cut-resistant gloves"],
  "reseat-belt": ["tensioner lever", "the routing picture of this machine"],
  "replace-belt": ["tensioner lever", "the belt of the sheet", "the routing picture of this machine"],
  "replace-idler": ["tensioner lever", "the idler of the sheet"],
  "clear-shaft": ["hook and cutters", "cut-resistant gloves"],
  "set-engine-speed": ["tachometer and reflective tape, or the pulley sizes"],
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
    ...ahead.fixes.flatMap((id) => (FIX_TOOLS[id] ?? []).map((words) => ({ words, id }))),
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
