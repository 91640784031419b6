import type { EventId } from "@/core/catalogue";
import { type FeatureId, featuresOf } from "@/core/catalogue/kinds";
import { firm, type SafetyItem, soft } from "@/core/job/safety";
import { cutters, type Machine, powerOf } from "@/core/machine";

/** What was done to a machine since it was last put back, and whether its lead or battery was off. */
export type ToPutBack = { sinceSeq: number; events: EventId[]; wasLockedOut: boolean };

export const BELT_SEATED = "belt-seated";

type Row = { item: SafetyItem; after: readonly EventId[]; needs?: FeatureId };

const BLADES: readonly EventId[] = ["blade-changed", "blade-refitted", "spindle-apart", "gearbox-off"];
const BELT: readonly EventId[] = ["deck-off", "belt-disturbed", "spindle-apart"];

/** What mending one thing can put wrong with another (common practice). */
const ROWS: readonly Row[] = [
  { item: firm("washers", "Every washer and collar back in its order, hollow the way it was"), after: BLADES },
  { item: soft("bolts", "Every blade bolt by torque wrench, to the sheet's figure"), after: BLADES },
  { item: firm(BELT_SEATED, "The belt lies in every groove, in its own path"), after: BELT, needs: "belt" },
  {
    item: firm("level", "No hanger, pin or clip left loose: the deck hangs as it did"),
    after: ["deck-off", "hanger-touched", "tyre-changed", "spindle-apart"],
    needs: "hangers",
  },
  {
    item: firm("bench-chain", "What follows it on the bench was set again: contact, height, groomer"),
    after: ["unit-ground", "reel-lapped", "contact-set", "roller-moved", "bench-height-set", "roller-changed", "unit-apart"],
  },
];

const GUARDS = firm("guards", "Guards, covers and chute back on");
const TOOLS = firm("tools", "Tools and blocks counted: none left under the machine");

/** Prefix of the points by which a blade or reel is turned by hand. */
export const TURNED = "turned:";

/** After these a blade may touch, bind or lean: each is turned free by hand before anything drives it. */
const TURN_EACH: readonly EventId[] = ["blade-changed", "blade-refitted", "spindle-apart", "gearbox-off", "deck-off", "struck"];

/** What of a machine's state putting back rests on. */
export type PutBackState = { toPutBack?: ToPutBack; unturned: readonly string[]; beltUnseated?: object };

/**
 * What is looked at before a machine that was worked on is made ready to run, in the order of putting back: what the work could itself have
 * broken, guards, tools, everything turned by hand, lead or battery last.
 */
export function putBackPoints(machine: Machine, { toPutBack, unturned, beltUnseated }: PutBackState): SafetyItem[] {
  const features = featuresOf(machine);
  const events = toPutBack?.events ?? [];
  // A belt that was disturbed is looked at, whatever the specification says of belts since.
  const isAsked = ({ item, after, needs }: Row) =>
    (item.id === BELT_SEATED && beltUnseated !== undefined) ||
    (events.some((event) => after.includes(event)) && (!needs || features.includes(needs)));
  return [
    ...ROWS.filter(isAsked).map(({ item }) => item),
    GUARDS,
    TOOLS,
    ...turnedPoints(machine, unturned),
    ...(toPutBack?.wasLockedOut ? [powerLast(machine)] : []),
  ];
}

/** Blades or reels that are each turned by hand after such events; with none of them one turn of everything will do. */
export function turnedOneByOne(machine: Machine, events: readonly EventId[]): string[] {
  return events.some((event) => TURN_EACH.includes(event)) ? cutters(machine).map(({ id }) => id) : [];
}

function turnedPoints(machine: Machine, unturned: readonly string[]): SafetyItem[] {
  if (unturned.length === 0) return [firm("turned-all", "Everything turned by hand through a full turn, nothing touches or binds")];
  const labels = new Map(cutters(machine).map(({ id, label }) => [id, label]));
  return unturned.map((id) => firm(`${TURNED}${id}`, `${labels.get(id) ?? id} turned free by hand through a full turn, nothing touches`));
}

function powerLast(machine: Machine): SafetyItem {
  if (powerOf(machine) === "battery") return firm("power-last", "Safety key and pack back in, last of all");
  return firm(
    "power-last",
    featuresOf(machine).includes("direct-drive") ? "Plug lead back on, last of all" : "Plug lead or battery back on, last of all",
  );
}
