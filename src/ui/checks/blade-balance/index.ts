import type { UnitSystem } from "@/core/basics/units";
import type { BalanceDetail } from "@/core/checks";
import type { bladeBalance } from "@/core/checks/blade-balance";
import type { Face, Told } from "../face";
import { length, noSuchBlade, placeIn, placeName, show, unread } from "../shared";

type Found = ReturnType<typeof bladeBalance.assess>;

/** What this worksheet says. */
export const face: Face<typeof bladeBalance> = {
  answer: sayBalance,
  actions: {
    "replace-unbalanced": (a, t) => `${placeIn(face, t.machine, a.place)}: past grinding, replace the set`,
    "take-off-heavy-end": (a, t) =>
      `${placeIn(face, t.machine, a.place)}: take ${a.massKilograms === undefined ? "a little" : show(a.massKilograms, "small-mass", t.system)} off ${a.end ? `end ${a.end}` : "the heavy end"}, from the edge or the back${a.lengthMetres === undefined ? "" : `: about ${length(a.lengthMetres, t.system, "gauge")} of edge`}`,
  },
  warnings: {
    "one-new-among-worn": () => "One new blade among worn ones: blades of one deck go as a set.",
  },
  provisional: {
    "place-unread": unread(() => face),
    "no-balance-terms": () => "what the blade weighs and how fast it turns is not known: judged by the balancer alone",
  },
  problems: {
    "unknown-spindle": noSuchBlade,
    "beyond-the-tip": (i, s) => `Further out than the blade reaches: ${length(i.mostMetres, s, "tape")} from the middle at most.`,
    "light-end-without-weight": () =>
      "It hangs level and has a light end: only one of the two can be. Change the mass, or take the end back.",
  },
  states: {
    balanced: "balanced",
    unbalanced: "out of balance",
  },
  figures: {
    imbalance: "Imbalance",
    "shaking-force": "Shakes with",
  },
};

function sayBalance({ detail, verdict }: Found, { machine, system }: Told): string {
  const heaviest = [...detail.blades].sort((a, b) => b.imbalance - a.imbalance)[0];
  if (!heaviest) return "Hang each blade on the balancer.";
  if (verdict === "in-tolerance") return "Balanced.";
  if (verdict === "not-enough-readings") return "Hang every blade of the set.";
  const shakes = sayShaking(heaviest, system);
  return `${placeName(machine, heaviest.spindleId)}: out by ${show(heaviest.imbalance, "imbalance", system)}${shakes ? `, ${shakes}` : ""}.`;
}

/** A force as it is said: a weight, so many times a second. */
export function sayShaking(blade: BalanceDetail["blades"][number], system: UnitSystem): string {
  if (blade.weightKilograms === undefined || blade.timesPerSecond === undefined) return "";
  // Said to the whole unit, once there is one to speak of.
  const weight = show(blade.weightKilograms, "mass", system, "gauge").replace(blade.weightKilograms < 2 ? /\.0 / : /\.\d /, " ");
  return `a force of ${weight}, ${Math.round(blade.timesPerSecond)} times a second`;
}
