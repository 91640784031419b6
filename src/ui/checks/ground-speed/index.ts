import type { groundSpeed } from "@/core/checks/ground-speed";
import { coming } from "../coming";
import type { Face, Told } from "../face";
import { FULL_THROTTLE, OPERATION_APART, show } from "../shared";

type Found = ReturnType<typeof groundSpeed.assess>;

/** What this worksheet says. */
export const face: Face<typeof groundSpeed> = {
  answer: sayGroundSpeed,
  actions: {
    "drive-slower": (a, t) => `No faster than ${show(a.mostMetresPerSecond, "speed", t.system, "gauge")} at these turns`,
    "drive-faster": (a, t) => `At least ${show(a.leastMetresPerSecond, "speed", t.system, "gauge")}`,
    "full-throttle": () => FULL_THROTTLE,
  },
  warnings: {
    "operating-finding": () => OPERATION_APART,
    "bite-at-rated-speed": (w) => `Bite at the sheet's ${w.revolutions} r/min: under load the blades turn slower and bite more.`,
  },
  provisional: {
    "one-run": () => "timed once only",
    "no-blade-speed": () => "the blades' speed is not known: no bite",
    "below-full-throttle": () => "not at full throttle",
  },
  states: {
    travels: "travels right",
    "too-slow": "too slow",
    "too-fast": "too fast",
  },
  figures: {
    travels: "Travels at",
    bite: "Bite of each edge",
  },
  parts: {
    machine: "The machine",
  },
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
};

function sayGroundSpeed({ detail, actions, verdict }: Found, { system }: Told): string {
  if (detail.metresPerSecond === undefined) return "Time it over a distance.";
  const speed = show(detail.metresPerSecond, "speed", system, "gauge");
  const much = verdict === "watch" ? "a little" : "too";
  const word = actions.some(({ code }) => code === "drive-slower")
    ? `${much} fast`
    : actions.some(({ code }) => code === "drive-faster")
      ? `${much} slow`
      : "right";
  return `${speed}: ${word}.${detail.biteMetres === undefined ? "" : ` Each edge bites ${show(detail.biteMetres, "length", system, "fine")}.`}`;
}
