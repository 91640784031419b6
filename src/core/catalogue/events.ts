import type { CheckId } from "./checks";
import type { ContextId } from "./contexts";

export type EventRow = {
  id: string;
  label: string;
  makesStale: readonly CheckId[];
  ticks: readonly ContextId[];
  /** Done to one reel unit at a time: its sisters are not touched by it. */
  isByUnit?: true;
};

/** The one list of what can happen to a machine: what each makes stale until read again, and which contexts it ticks until the next proved cut. */
// biome-ignore format: a table is read by rows
export const EVENTS = [
  { id: "run", label: "Machine was run", makesStale: [], ticks: [] },
  { id: "struck", label: "Struck something hard", makesStale: ["blade-edge", "blade-track", "spindle-play", "hanger-inspection", "gearbox-inspection", "deck-level", "reel-edge", "reel-contact", "arm-play", "roller-square"], ticks: ["struck-object"] },
  { id: "deck-dropped", label: "Deck or unit dropped or dragged", makesStale: ["hanger-inspection", "deck-level", "blade-track", "cutting-height"], ticks: ["deck-dropped"] },
  { id: "deck-off", label: "Deck off and refitted", makesStale: ["deck-level", "cutting-height", "anti-scalp-wheels", "belt-inspection", "tip-speed", "blade-timing"], ticks: ["deck-refitted", "belt-disturbed"] },
  { id: "hanger-touched", label: "Hanger adjusted or replaced", makesStale: ["deck-level", "cutting-height", "anti-scalp-wheels"], ticks: ["height-changed"] },
  { id: "height-changed", label: "Cutting height changed", makesStale: ["deck-level", "cutting-height", "anti-scalp-wheels", "bedknife-attitude", "groomer-depth", "roller-position"], ticks: ["height-changed"] },
  { id: "anti-scalp-moved", label: "Anti-scalp wheels moved", makesStale: ["anti-scalp-wheels"], ticks: [] },
  { id: "tyre-pressure-changed", label: "Tyre inflated or let down", makesStale: ["tyre-pressure", "deck-level", "cutting-height"], ticks: ["tyre-work"] },
  { id: "tyre-changed", label: "Tyre or wheel changed", makesStale: ["tyre-pressure", "deck-level", "cutting-height"], ticks: ["tyre-work"] },
  { id: "belt-disturbed", label: "Belt or idler disturbed", makesStale: ["belt-inspection", "tip-speed"], ticks: ["belt-disturbed"] },
  { id: "blade-changed", label: "Other blades fitted", makesStale: ["blade-edge", "blade-fit", "blade-track", "blade-balance", "blade-overlap", "deck-level", "blade-timing"], ticks: ["blades-changed"] },
  { id: "blade-refitted", label: "Same blades off and on again", makesStale: ["blade-edge", "blade-fit", "blade-balance", "blade-track", "blade-timing"], ticks: ["blades-changed"] },
  { id: "deck-cleaned", label: "Deck underside cleaned", makesStale: ["deck-cleanliness"], ticks: [] },
  { id: "engine-speed-changed", label: "Engine, motor or pack set or changed", makesStale: ["tip-speed", "reel-speed"], ticks: [] },
  { id: "shaft-cleared", label: "Winding cut off a shaft", makesStale: ["spindle-play", "reel-bearing"], ticks: [], isByUnit: true },
  { id: "gearbox-off", label: "Gearbox off or opened", makesStale: ["gearbox-inspection", "blade-timing", "blade-fit"], ticks: ["deck-refitted"] },
  { id: "spindle-apart", label: "Spindle dismantled or changed", makesStale: ["spindle-play", "blade-track", "deck-level", "tip-speed", "blade-fit"], ticks: ["deck-refitted"] },
  { id: "unit-ground", label: "Reel or bedknife ground, or another fitted", makesStale: ["reel-edge", "reel-cone", "reel-contact", "bedknife-attitude", "cutting-height", "groomer-depth", "unit-match"], ticks: ["unit-bench-work"], isByUnit: true },
  { id: "reel-lapped", label: "Reel lapped", makesStale: ["reel-edge", "reel-contact", "cutting-height", "groomer-depth"], ticks: ["unit-bench-work"], isByUnit: true },
  { id: "contact-set", label: "Reel set to bedknife", makesStale: ["reel-contact", "cutting-height"], ticks: ["unit-bench-work"], isByUnit: true },
  { id: "roller-moved", label: "Roller squared, moved or re-beared", makesStale: ["roller-square", "roller-position", "bedknife-attitude", "cutting-height", "groomer-depth", "roller-bearing"], ticks: ["unit-bench-work"], isByUnit: true },
  { id: "bench-height-set", label: "Bench height set", makesStale: ["bedknife-attitude", "cutting-height", "groomer-depth", "roller-position"], ticks: ["height-changed"], isByUnit: true },
  { id: "roller-changed", label: "Other roller fitted", makesStale: ["roller-square", "bedknife-attitude", "cutting-height", "unit-layout", "unit-match", "groomer-depth"], ticks: ["roller-changed"], isByUnit: true },
  { id: "roller-cleaned", label: "Rollers cleaned", makesStale: ["roller-clean", "cutting-height"], ticks: [], isByUnit: true },
  { id: "unit-apart", label: "Unit, bearings or arm dismantled", makesStale: ["reel-bearing", "reel-contact", "arm-play", "unit-layout", "unit-match", "cutting-height"], ticks: ["unit-bench-work"], isByUnit: true },
  { id: "groomer-set", label: "Groomer or brush set", makesStale: ["groomer-depth"], ticks: [], isByUnit: true },
  { id: "hood-set", label: "Hood or shield set", makesStale: ["clipping-path"], ticks: [], isByUnit: true },
  { id: "speed-set", label: "Reel or travel speed set", makesStale: ["reel-speed", "ground-speed"], ticks: [] },
  { id: "operator-changed", label: "Other operator", makesStale: ["ground-speed", "pass-overlap"], ticks: ["new-operator"] },
  { id: "operator-briefed", label: "Something agreed with the operator", makesStale: ["ground-speed", "pass-overlap"], ticks: [] },
  { id: "site-changed", label: "Other site", makesStale: ["turf-condition", "cutting-height"], ticks: ["new-site"] },
  { id: "top-dressed", label: "Turf top-dressed", makesStale: ["reel-edge", "reel-contact"], ticks: ["top-dressed"] },
  { id: "mown-wet-or-tall", label: "Mown wet or tall", makesStale: ["deck-cleanliness", "roller-clean"], ticks: ["wet-or-tall"] },
  { id: "other-work", label: "Something else was mended", makesStale: [], ticks: [] },
  { id: "not-as-built", label: "Something set otherwise than built", makesStale: [], ticks: [] },
  { id: "as-built", label: "Set as built again", makesStale: [], ticks: [] },
  { id: "held-out", label: "Held out of service", makesStale: [], ticks: [] },
  { id: "released", label: "Released to service", makesStale: [], ticks: [] },
] as const satisfies readonly EventRow[];

export type EventId = (typeof EVENTS)[number]["id"];

export const EVENT_IDS = EVENTS.map(({ id }) => id) as [EventId, ...EventId[]];

const rows: readonly EventRow[] = EVENTS;
export const isByUnit = (event: string): boolean => rows.find(({ id }) => id === event)?.isByUnit === true;
