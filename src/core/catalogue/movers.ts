import { table } from "@/core/basics/tables";
import type { CauseId } from "./causes";
import type { CheckId } from "./checks";

type Shares = Partial<Record<CauseId, number>>;

/**
 * What else moves what a check reads: on a machine with the inner fault alone, the share of readings that point at the outer one. A height that is off
 * may be a height that was set wrong, or a blade upside down. Shares under one in twenty are left out.
 *
 * Estimates: counted on the simulated machines, fault by fault (`npm run trial:movers`), by a careful hand; where the simulator knows no way
 * but the trade does, common practice.
 */
// biome-ignore format: a table is read by rows
export const MOVED_BY: Partial<Record<CheckId, Partial<Record<CauseId, Shares>>>> = {
  "cutting-height": {
    "height-misset": { "blade-upside-down": 0.95, "belt-off": 0.3, "hanger-failed": 0.25, "tyres-off-spec": 0.15, "deck-rake-wrong": 0.1, "blade-bent": 0.1, "blade-wrong-part": 0.06, "gearbox-pin-sheared": 0.3, "gear-teeth-broken": 0.3 },
    "units-not-alike": { "roller-packed": 0.4, "roller-bearing-worn": 0.08, "front-roller-not-square": 0.05 },
  },
  "deck-level": {
    "deck-out-of-level": { "blade-upside-down": 0.35, "deck-shell-bent": 0.3, "blade-wrong-part": 0.25, "tyres-unequal": 0.2, "blade-bent": 0.15 },
    "deck-rake-wrong": { "hanger-failed": 0.65, "deck-shell-bent": 0.25 },
  },
  "belt-inspection": { "belt-slipping": { "belt-off": 0.5 } },
  "bedknife-attitude": { "bedknife-too-thick": { "bedknife-attitude-wrong": 0.4 } },
  "blade-fit": { "blade-wrong-part": { "blade-worn-short": 0.95 } },
  "blade-edge": { "blade-worn-short": { "blade-wrong-part": 0.25 } },
  "blade-overlap": { "blade-worn-short": { "blade-wrong-part": 0.15 }, "blade-wrong-part": { "blade-worn-short": 0.15 } },
  "blade-balance": { "blade-unbalanced": { "blade-damaged": 0.15 } },
  "spindle-play": { "spindle-bearing-worn": { "shaft-wrapped": 0.25 } },
  "tip-speed": { "belt-slipping": { "blade-loose": 0.25 } },
  "vibration-reading": { "blade-unbalanced": { "spindle-shaft-bent": 0.8, "blade-bent": 0.6, "crankshaft-bent": 0.3, "blade-damaged": 0.3, "blade-loose": 0.3 } },
  "ground-speed": { "ground-speed-high": { "clip-too-long": 0.75 } },
  "reel-speed": { "clip-too-long": { "ground-speed-high": 0.4 } },
  "reel-contact": {
    "contact-tapered": { "reel-dull": 0.1, "bedknife-worn-hollow": 0.05 },
    "contact-loose": { "reel-blade-high": 0.5, "reel-dull": 0.15 },
    "reel-blade-high": { "reel-dull": 0.2 },
  },
  "unit-match": { "units-not-alike": { "front-roller-position": 0.95, "roller-packed": 0.1, "roller-bearing-worn": 0.08 } },
};

const byCheck = table(Object.fromEntries(Object.entries(MOVED_BY).map(([check, rows]) => [check, table<Shares>(rows)])));

/** Every cause besides those it names that would have made a check say so, with its share. */
export function moversOf(check: string, causes: readonly string[]): Map<CauseId, number> {
  const rows = byCheck[check];
  const movers = new Map<CauseId, number>();
  for (const accused of causes) {
    for (const [cause, share] of Object.entries(rows?.[accused] ?? {}) as [CauseId, number][]) {
      if (!causes.includes(cause)) movers.set(cause, Math.max(share, movers.get(cause) ?? 0));
    }
  }
  return movers;
}
