import { featuresOf, kindById } from "@/core/catalogue/kinds";
import { type Machine, spindlesAcross } from "@/core/machine";

/** Look and top up. Estimate; per machine. */
export const TOP_UP_HOURS = 50;
/** Purge old grease with new until it runs clean, or change the bearings. Estimate; per machine. */
export const PURGE_HOURS = 200;

export const SPINDLE_DEEDS = ["topped-up", "purged", "bearings-new"] as const;
export type SpindleDeed = (typeof SPINDLE_DEEDS)[number];

/** `at` ISO 8601 UTC; `seq`: where it stands in the one log. */
type Written = { at: string; seq: number; who: string };
/** Something done to one spindle, or a turning round of all of them. */
export type SpindleEntry = Written &
  (
    | { kind: SpindleDeed; place: string }
    /** By place: where the spindle that stood there went. */
    | { kind: "moved"; moves: Readonly<Record<string, string>> }
  );

/** By hours over the old grease; or sealed bearings left alone until they are changed. */
export type GreaseRule = { school: "by-hours"; topUpHours: number; purgeHours: number } | { school: "leave-sealed" };

export function greaseRule(machine: Machine): GreaseRule {
  const { grease } = machine.sheet;
  if (grease?.school === "leave-sealed") return { school: "leave-sealed" };
  return { school: "by-hours", topUpHours: grease?.topUpHours ?? TOP_UP_HOURS, purgeHours: grease?.purgeHours ?? PURGE_HOURS };
}

/** Spindles that are greased at all: a blade on the engine's own shaft has none. */
export function greasedSpindles(machine: Machine): Machine["spindles"] {
  const isDirect = featuresOf(machine).includes("direct-drive");
  return kindById(machine.kind).cutsWith === "reel" || isDirect ? [] : spindlesAcross(machine);
}

/** Whether a turning round names every place of it once, coming and going. */
export function isRotation(moves: Readonly<Record<string, string>>, places: readonly string[]): boolean {
  const [from, to] = [Object.keys(moves), Object.values(moves)];
  const isKnown = [...from, ...to].every((place) => places.includes(place));
  return from.length > 1 && isKnown && new Set(to).size === to.length && from.every((place) => to.includes(place));
}

/** Of one spindle: where its log began, and the last of each. */
export type SpindleLog = { from: string; greased?: Written; purged?: Written; bearings?: Written };

/** What was done to whichever spindle stands at each place now, in the order it was written down: its log goes with it when it is moved. */
export function spindleLog(machine: Machine, entries: readonly SpindleEntry[]): Map<string, SpindleLog> {
  let now = new Map<string, SpindleLog>(greasedSpindles(machine).map(({ id }) => [id, { from: id }]));
  for (const entry of entries) {
    if (entry.kind === "moved") {
      const { moves } = entry;
      now = new Map([...now].map(([place, logged]) => [moves[place] ?? place, logged]));
      continue;
    }
    const logged = now.get(entry.place);
    if (!logged) continue;
    const { kind, at, seq, who } = entry;
    const written = { at, seq, who };
    // New bearings come with new grease, a purge is a greasing too.
    now.set(entry.place, {
      ...logged,
      greased: written,
      ...(kind === "topped-up" ? {} : { purged: written }),
      ...(kind === "bearings-new" ? { bearings: written } : {}),
    });
  }
  return now;
}

/** The same as what was last seen at each place, by the deeds that its tasks are done by; `spindle:moved` at each place where another one came to stand. */
export function spindlesSeen(machine: Machine, entries: readonly SpindleEntry[]): Record<string, Written> {
  const moved = entries.flatMap((entry) =>
    entry.kind === "moved"
      ? Object.entries(entry.moves).flatMap(([from, to]) => (from === to ? [] : [[`spindle:moved@${to}`, entry] as const]))
      : [],
  );
  const told = [...spindleLog(machine, entries)].flatMap(([place, { greased, purged, bearings }]) => [
    [`spindle:topped-up@${place}`, greased] as const,
    [`spindle:purged@${place}`, purged] as const,
    [`spindle:bearings-new@${place}`, bearings] as const,
  ]);
  return Object.fromEntries([...told, ...moved].flatMap(([key, written]) => (written ? [[key, written]] : [])));
}
