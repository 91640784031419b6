import type { UnitSystem } from "@/core/basics/units";
import type { Machine } from "@/core/machine";
import type { RouteProblem } from "@/core/physics/drive/belt-route";
import { LEAST_WRAP, type MachineBelt } from "@/core/physics/drive/machine-belt";
import { placeName, show } from "./quantities";

type Pulleys = readonly { id: string; label: string }[];
const named = (pulleys: Pulleys, id: string) => (pulleys.find((one) => one.id === id)?.label ?? id).toLowerCase();
const degrees = (angle: number) => Math.round((angle * 180) / Math.PI);

/** Why pulleys make no path. */
export function sayRouteProblem(problem: RouteProblem, pulleys: Pulleys): string {
  switch (problem.code) {
    case "too-few-pulleys":
      return "A belt needs two pulleys at least.";
    case "pulleys-overlap":
      return `The ${named(pulleys, problem.place)} and the ${named(pulleys, problem.other)} lie in each other: read their places again.`;
    case "misses-pulley":
      return `A tight belt would not touch the ${named(pulleys, problem.place)}: wrong side, wrong place, or another order.`;
  }
}

/** What the path comes to, the most telling first. */
export function sayBelt(
  { route, slipsFirst, wrongWay, spareMetres }: MachineBelt,
  machine: Machine,
  pulleys: Pulleys,
  system: UnitSystem,
): string[] {
  const [wrong] = wrongWay;
  const spare =
    spareMetres === undefined
      ? ""
      : `; the sheet's belt is ${show(Math.abs(spareMetres), "length", system)} ${spareMetres < 0 ? "short of it" : "longer"}`;
  return [
    ...(wrong === undefined ? [] : [`Laid so, the ${placeName(machine, wrong).toLowerCase()} would turn backwards.`]),
    ...route.fouled.map((id) => `The belt would run into the ${named(pulleys, id)}.`),
    ...(route.isCrossed ? ["Two runs of the belt cross: has a pulley the wrong side?"] : []),
    `${show(route.lengthMetres, "length", system, "gauge")} round${spare}.`,
    ...(slipsFirst && slipsFirst.wrap < LEAST_WRAP
      ? [`The ${named(pulleys, slipsFirst.id)} slips first: only ${degrees(slipsFirst.wrap)}° of belt on it.`]
      : []),
  ];
}
