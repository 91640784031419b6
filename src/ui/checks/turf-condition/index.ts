import type { turfCondition } from "@/core/checks/turf-condition";
import { coming } from "../coming";
import type { Face, Told } from "../face";
import { length, sayMarks } from "../shared";

type Found = ReturnType<typeof turfCondition.assess>;

/** What this worksheet says. */
export const face: Face<typeof turfCondition> = {
  answer: sayTurf,
  actions: {
    "cut-in-stages": (a, t) =>
      `In ${a.heightsMetres.length} cuts, ${a.daysBetween} days between: ${a.heightsMetres.map((one) => length(one, t.system, "tape")).join(", ")}`,
    "wait-for-dry": () => "Wait until it is dry",
    "mow-within": (a) => `At this growth mow every ${Math.max(1, a.days)} ${a.days <= 1 ? "day" : "days"}`,
    "judge-elsewhere": () => "Make the test cut on better turf",
    "vary-direction": () => "Vary the direction; groom or cut vertically",
  },
  warnings: {
    "others-cut-the-same": () => "The other machines leave the same: look at the turf and the way it is mown before the machine.",
  },
  provisional: {
    "turf-not-all-told": () => "height before, moisture, stand and ground are wanted",
  },
  states: {
    share: "over a third of the leaf",
    dry: "dry",
    usual: "usual",
    flat: "flat",
    upright: "upright",
    damp: "damp",
    wet: "wet",
    dense: "dense",
    thin: "thin",
    leaning: "leaning",
    gentle: "gentle rises",
    rough: "rough",
    depth: "thatch deep",
    varied: "varied",
    same: "always the same way",
  },
  figures: {
    "height-before": "Height before",
    thatch: "Thatch",
  },
  parts: {
    leaf: "Leaf",
    moisture: "Moisture",
    density: "Stand",
    ground: "Ground",
    lie: "Lie",
    thatch: "Thatch",
    direction: "Direction",
  },
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
};

function sayTurf({ detail, verdict, marks }: Found, told: Told): string {
  if (detail.share !== undefined && detail.firstCutMetres !== undefined)
    return `Takes ${Math.round(detail.share * 100)} % of the leaf: over a third. Cut it in stages.`;
  if (detail.ground === "gross-faults-only") return `${sayMarks(face, { marks }, told, "")} Judge no fine fault on it.`;
  if (verdict === "not-enough-readings") return "Height before, moisture, stand and ground.";
  return detail.ground === "good" ? "Good ground to judge on." : "Turf told.";
}
