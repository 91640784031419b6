import { type EventId, FIXES, type FixRow } from "@/core/diagnosis";
import type { FeatureId } from "@/core/kinds";

/** What mending one thing can put wrong with another (common practice). Asked before a job is closed. */
type Row = { id: string; asks: string; after: readonly EventId[] | "any"; needs?: FeatureId };

const BLADES: readonly EventId[] = ["blade-changed", "blade-refitted", "spindle-apart", "gearbox-off"];
const BELT: readonly EventId[] = ["deck-off", "belt-disturbed", "spindle-apart"];

// biome-ignore format: a table is read by rows
const AFTERMATH = [
  { id: "belt-seated", asks: "The belt lies in every groove, and every blade was seen to turn", after: BELT, needs: "belt" },
  { id: "washers", asks: "Every washer and collar back in its order, hollow the way it was", after: BLADES },
  { id: "torque", asks: "Every blade bolt tightened, none left at hand-tight", after: BLADES },
  { id: "timing", asks: "Geared blades turned by hand through a full turn, nothing touches", after: BLADES, needs: "gears" },
  { id: "level", asks: "The deck stands as level as it did: no hanger or pin left loose", after: ["deck-off", "hanger-touched", "tyre-changed", "spindle-apart"], needs: "hangers" },
  { id: "bench-chain", asks: "What follows it on the bench was set again: contact, height, groomer", after: ["unit-ground", "contact-set", "roller-moved", "roller-changed", "unit-apart"] },
  { id: "plug-lead", asks: "Plug lead or battery back on, last of all", after: [...BLADES, "deck-cleaned", "shaft-cleared"], needs: "direct-drive" },
  { id: "guards", asks: "Guards, covers and chute back on", after: "any" },
  { id: "tools", asks: "Tools and blocks counted: none left under the machine", after: "any" },
] as const satisfies readonly Row[];

export type AftermathId = (typeof AFTERMATH)[number]["id"];
export const AFTERMATH_IDS = AFTERMATH.map(({ id }) => id) as [AftermathId, ...AftermathId[]];

const rows: readonly Row[] = AFTERMATH;
const fixRows: readonly FixRow[] = FIXES;
/** A word with the operator leaves no guard off. */
const HARMLESS: readonly EventId[] = ["operator-briefed", "held-out"];

/** Of a job's events those that count beside its fixes: a deck that was off. */
export function deckOffs(events: readonly { event: EventId }[]): EventId[] {
  return events.flatMap(({ event }) => (event === "deck-off" ? [event] : []));
}

/** What these fixes could themselves have put wrong on a machine with these features; empty where nothing was touched. */
export function aftermathOf(args: {
  fixes: readonly { fix: string; cause: string }[];
  /** What else was done to the machine in the job. */
  events?: readonly EventId[];
  features: readonly FeatureId[];
}): { id: AftermathId; asks: string }[] {
  const events = args.fixes
    .flatMap(({ fix, cause }): EventId[] => fixRows.filter((row) => row.fix === fix && row.cause === cause).map(({ event }) => event))
    .concat(args.events ?? [])
    .filter((event) => !HARMLESS.includes(event));
  if (events.length === 0) return [];
  return rows
    .filter(
      ({ after, needs }) => (after === "any" || events.some((event) => after.includes(event))) && (!needs || args.features.includes(needs)),
    )
    .map(({ id, asks }) => ({ id: id as AftermathId, asks }));
}
