import type { vibrationReading } from "@/core/checks/vibration-reading";
import type { Face, Told } from "../face";
import { lower, noSuchBlade, placeIn, placeName } from "../shared";

type Found = ReturnType<typeof vibrationReading.assess>;

/** What this worksheet says. */
export const face: Face<typeof vibrationReading> = {
  answer: sayVibration,
  actions: {
    "look-at-engine": () => "Look at engine mounts, flywheel and key; the blades have no part in it",
    "look-at-wheels": () => "Look at tyres, rims and wheel bearings; the blades have no part in it",
    "look-at-blades": (a, t) =>
      `${a.place ? `Begin at the ${lower(placeIn(face, t.machine, a.place))}: ` : ""}${a.single ? "balance and track, then the shaft" : "balance, track and bolt of each blade, then spindle play"}`,
  },
  warnings: {
    "felt-not-recorded": () => "Felt by hand, not recorded: it tells that something shakes, not what.",
    "strong-shaking": () => "Strong shaking loosens bolts and breaks spindles: find it before it goes out.",
  },
  problems: {
    "unknown-spindle": noSuchBlade,
  },
  states: {
    "felt-none": "nothing felt",
    "felt-light": "light shaking",
    "felt-strong": "strong shaking",
  },
  parts: {
    machine: "The machine",
  },
};

function sayVibration({ verdict, actions, detail }: Found, { machine }: Told): string {
  if (verdict === "in-tolerance") return "Runs smooth.";
  if (verdict === "not-enough-readings") return "What is felt, where, with what running.";
  const size = verdict === "out" ? "Strong" : "Light";
  const what = actions.some(({ code }) => code === "look-at-engine")
    ? "from the engine, not the blades"
    : actions.some(({ code }) => code === "look-at-wheels")
      ? "from wheels and travel, not the blades"
      : detail.worstAt[0]
        ? `with the blades, most at the ${lower(placeName(machine, detail.worstAt[0]))}`
        : "with the blades";
  const often = detail.timesPerSecond === undefined ? "" : ` Once a turn is ${Math.round(detail.timesPerSecond)} times a second.`;
  return `${size} shaking, ${what}.${often}`;
}
