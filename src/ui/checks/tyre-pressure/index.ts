import type { tyrePressure } from "@/core/checks/tyre-pressure";
import { coming } from "../coming";
import type { Face, Told } from "../face";
import { placeName, show } from "../shared";

type Found = ReturnType<typeof tyrePressure.assess>;

/** What this worksheet says. */
export const face: Face<typeof tyrePressure> = {
  answer: sayTyres,
  actions: {
    "set-pressure": (a, t) =>
      `${placeName(t.machine, a.place)}: ${show(a.fromPascals, "pressure", t.system, "gauge")} → ${show(a.toPascals, "pressure", t.system, "gauge")}${
        a.coldToPascals === undefined ? "" : ` on the gauge now, warm (${show(a.coldToPascals, "pressure", t.system, "gauge")} cold)`
      }`,
    "ask-sheet-pressure": (a, t) => `${placeName(t.machine, a.place)}: get the pressure from the machine's sheet`,
    "find-leak": (a, t) => `${placeName(t.machine, a.place)}: under half, look for the leak`,
  },
  warnings: {
    "gauge-too-coarse": (w, t) =>
      `The gauge steps by ${show(w.stepPascals, "pressure", t.system, "gauge")}, more than the tolerance: use a 0 to 30 psi gauge.`,
    "above-moulded-maximum": (w, t) =>
      `${placeName(t.machine, w.place)}: above the ${show(w.maximumPascals, "pressure", t.system, "gauge")} moulded on the tyre. Stand aside, let air out.`,
    "no-sheet-pressure": (w, t) =>
      `${placeName(t.machine, w.place)}: no pressure on the sheet. The moulded figure is a maximum, not a target.`,
    "below-sheet-least": (w, t) =>
      `${placeName(t.machine, w.place)}: under the sheet's least of ${show(w.leastPascals, "pressure", t.system, "gauge")}. Not on slopes.`,
    "pressure-offset-in-use": (w, t) =>
      `This machine runs ${show(Math.abs(w.offsetPascals), "pressure", t.system, "gauge")} under the sheet, both sides alike.`,
  },
  provisional: {
    "tyre-unread": (r, t) => `${placeName(t.machine, r.place).toLowerCase()} not read`,
  },
  problems: {
    "unknown-wheel": (i) => `This machine has no air-filled wheel called “${i.place}”.`,
  },
  states: {
    pressure: "off its pressure",
    "axle-difference": "unlike its twin",
  },
  figures: {
    pressure: "",
    "axle-difference": "Right minus left",
  },
  parts: {
    drive: "Drive axle",
    caster: "Caster axle",
    steer: "Steering axle",
    rear: "Rear axle",
    front: "Front axle",
  },
  over: coming(() => import("./over").then(({ Over }) => Over)),
  beneath: coming(() => import("./beneath").then(({ Beneath }) => Beneath)),
  more: coming(() => import("./more").then(({ More }) => More)),
  plan: "machine",
  trend: { title: "Tyre pressures", lines: {} },
};

function sayTyres(assessment: Found, { machine, system }: Told): string {
  const stopped = assessment.warnings.find((warning) => warning.code === "above-moulded-maximum");
  if (stopped) return `Let air out of ${placeName(machine, stopped.place).toLowerCase()} now: above the tyre's own maximum.`;
  const set = assessment.actions.filter((action) => action.code === "set-pressure");
  const bad = assessment.figures.filter(({ verdict }) => verdict === "out");
  if (bad.length > 0 && set.length > 0) {
    return set
      .map((action) => {
        const by = (action.coldToPascals ?? action.toPascals) - (action.coldFromPascals ?? action.fromPascals);
        return `${placeName(machine, action.place)} ${show(Math.abs(by), "pressure", system, "gauge")} ${by > 0 ? "low" : "high"}`;
      })
      .join(". ")
      .concat(".");
  }
  if (assessment.actions.some(({ code }) => code === "ask-sheet-pressure"))
    return "The sheet names no pressure. The figure on the tyre is its maximum, never a target.";
  if (assessment.verdict === "not-enough-readings") return "Read every tyre.";
  return assessment.verdict === "watch" ? "Tyres close to the limit." : "Tyres right.";
}
