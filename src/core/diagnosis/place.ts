import { CAUSES, type CauseId, type CauseRow, type CheckId } from "@/core/catalogue";
import { cutters, cuttingEdges, type Machine } from "@/core/machine";
import type { Knowledge } from "./knowledge";

/** Where in the swath it shows, metres from the driver's middle, positive to the driver's right. */
export type SwathPlace = { where: "all-over" | "band" | "between-passes"; fromMetres?: number | undefined; toMetres?: number | undefined };

/** What a check can show of one blade or unit that is not the matter with all of them. */
export const causesOfOne = (check: CheckId): CauseId[] =>
  (CAUSES as readonly CauseRow[])
    .filter(({ id, checks }) => OF_ONE.includes(id as CauseId) && checks.includes(check))
    .map(({ id }) => id as CauseId);

/** What the place means for this machine. */
export type PlaceMeaning =
  | { kind: "none" }
  | { kind: "join"; between: readonly [string, string] }
  | { kind: "on-one"; cutter: string }
  | { kind: "passes" };

/** A strip this near to where two blades or units join belongs to the join (estimate). */
const NEAR_JOIN_METRES = 0.03;
/** Wider than this is a band and no strip. Common practice: an uncut strip is a few centimetres. */
const WIDEST_STRIP_METRES = 0.15;
const JOIN_ODDS = 4;
const ON_ONE_ODDS = 4;
const PASSES_ODDS = 6;

const AT_JOIN: readonly CauseId[] = ["blade-worn-short", "turn-too-tight", "arm-worn-or-bent"];
/** What is the matter with one blade, its spindle or its drive, or with one unit, and not with all of them. */
const OF_ONE: readonly CauseId[] = [
  "blade-damaged",
  "blade-bent",
  "blade-loose",
  "blade-upside-down",
  "blade-wrong-part",
  "belt-off",
  "gear-teeth-broken",
  "spindle-bearing-worn",
  "spindle-shaft-bent",
  "deck-shell-bent",
  "contact-loose",
  "contact-tight",
  "contact-tapered",
  "edge-nicked",
  "bedknife-attitude-wrong",
  "reel-bearing-worn",
  "front-roller-not-square",
  "roller-bearing-worn",
  "units-not-alike",
];

/** What a place in the swath means by the machine's own blades or units: a band over the middle blade is no band between passes. */
export function meaningOf(machine: Pick<Machine, "spindles" | "units">, place: SwathPlace | undefined): PlaceMeaning {
  if (!place || place.where === "all-over") return { kind: "none" };
  if (place.where === "between-passes") return { kind: "passes" };
  const { fromMetres, toMetres } = place;
  if (fromMetres === undefined || toMetres === undefined) return { kind: "none" };
  const band = { left: Math.min(fromMetres, toMetres), right: Math.max(fromMetres, toMetres) };
  const across = cutters(machine);
  if (band.right - band.left <= WIDEST_STRIP_METRES) {
    const join = joinAt(across, band);
    if (join) return { kind: "join", between: join };
  }
  const edges = cuttingEdges(machine);
  if (across.length > 0 && (band.left > edges.right || band.right < edges.left)) return { kind: "passes" };
  const middle = (band.left + band.right) / 2;
  const own = across.filter(({ left, right }) => band.left >= left - NEAR_JOIN_METRES && band.right <= right + NEAR_JOIN_METRES);
  const nearest = own.sort((a, b) => Math.abs((a.left + a.right) / 2 - middle) - Math.abs((b.left + b.right) / 2 - middle))[0];
  return nearest ? { kind: "on-one", cutter: nearest.id } : { kind: "none" };
}

type Across = ReturnType<typeof cutters>;

/** The two neighbours whose join the strip lies on or near. A join is the overlap of their covers, or the gap between them. */
function joinAt(across: Across, band: { left: number; right: number }): readonly [string, string] | undefined {
  for (let index = 1; index < across.length; index++) {
    const [one, other] = [across[index - 1], across[index]];
    if (!one || !other) continue;
    const from = Math.min(one.right, other.left);
    const to = Math.max(one.right, other.left);
    if (band.right >= from - NEAR_JOIN_METRES && band.left <= to + NEAR_JOIN_METRES) return [one.id, other.id];
  }
  return undefined;
}

/** What the place multiplies causes' odds by; nothing for those it does not speak to. Estimates. */
export function placeOdds(knowledge: Knowledge, meaning: PlaceMeaning): Partial<Record<CauseId, number>> {
  const raised = (causes: readonly CauseId[], factor: number) =>
    Object.fromEntries(knowledge.causes.filter(({ id }) => causes.includes(id)).map(({ id }) => [id, factor]));
  if (meaning.kind === "join") return raised(AT_JOIN, JOIN_ODDS);
  if (meaning.kind === "on-one") return raised(OF_ONE, ON_ONE_ODDS);
  if (meaning.kind === "passes") return raised(["pass-overlap-small"], PASSES_ODDS);
  return {};
}
