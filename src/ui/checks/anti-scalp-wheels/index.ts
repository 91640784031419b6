import type { antiScalpWheels } from "@/core/checks/anti-scalp-wheels";
import type { Face } from "../face";
import { length, lower, placeIn, sayMarks, stateIn, unread } from "../shared";

/** What this worksheet says. */
export const face: Face<typeof antiScalpWheels> = {
  answer: (found, told) => sayMarks(face, found, told, found.verdict === "in-tolerance" ? "Anti-scalp wheels right." : "Read every wheel."),
  actions: {
    "move-wheel": (a, t) =>
      `${placeIn(face, t.machine, a.place)}: ${a.way} to ${length(a.leastMetres, t.system, "tape")} to ${length(a.mostMetres, t.system, "tape")} off the ground`,
    "free-wheel": (a, t) => `${placeIn(face, t.machine, a.place)}: ${stateIn(face, a.state)}. Free it or fit another`,
    "same-hole": (a, t) => `${placeIn(face, t.machine, a.place)} and ${lower(placeIn(face, t.machine, a.twin))}: put both on the same hole`,
  },
  provisional: {
    "place-unread": unread(() => face),
  },
  problems: {
    "unknown-anti-scalp-wheel": (i) => `This machine has no anti-scalp wheel called “${i.place}”.`,
  },
  states: {
    right: "right",
    "too-low": "too near the ground",
    "too-high": "too far off the ground",
    stiff: "stiff",
    seized: "seized",
    missing: "missing",
    "other-hole": "on another hole than its twin",
    "near-limit": "near its limit",
  },
  figures: {
    "wheel-clearance": "Clears the ground by",
  },
};
