import type { Machine } from "@/core/machine";
import { type BeltRoute, beltRoute, type RouteProblem } from "./belt-route";

/** Less of the belt round a driven pulley than this, and it is the first to slip. Common practice: a quarter turn. */
export const LEAST_WRAP = Math.PI / 2;

export type MachineBelt = {
  route: BeltRoute;
  /** The driven pulley with least belt round it: it slips first. */
  slipsFirst?: { id: string; wrap: number };
  /** Blades that would turn the other way than their neighbours do by the sheet. */
  wrongWay: string[];
  /** Belt of the sheet less the path as drawn, metres: positive where the belt is too long for it. */
  spareMetres?: number;
};

/** The belt of a machine's sheet as it lies; the problem where its pulleys make no path, `undefined` where the sheet holds none. */
export function machineBelt(machine: Machine): { ok: true; belt: MachineBelt } | { ok: false; problem: RouteProblem } | undefined {
  const { belt } = machine.sheet;
  if (!belt) return undefined;
  const found = beltRoute(belt.pulleys);
  if (!found.ok) return found;
  const { route } = found;
  const driven = belt.pulleys.filter(({ role }) => role === "spindle").map(({ id }) => id);
  const [slipsFirst] = route.runs.filter(({ id }) => driven.includes(id)).sort((a, b) => a.wrap - b.wrap);
  return {
    ok: true,
    belt: {
      route,
      ...(slipsFirst ? { slipsFirst: { id: slipsFirst.id, wrap: slipsFirst.wrap } } : {}),
      wrongWay: wrongWay(machine, route),
      ...(belt.lengthMetres === undefined ? {} : { spareMetres: belt.lengthMetres - route.lengthMetres }),
    },
  };
}

/** Two blades turn alike just where the belt runs on the same side of both: against the first whose way the sheet tells. */
function wrongWay(machine: Machine, route: BeltRoute): string[] {
  const told = (machine.sheet.belt?.pulleys ?? []).flatMap(({ id, spindleId }) => {
    const spindle = machine.spindles.find((one) => one.id === spindleId);
    const run = route.runs.find((one) => one.id === id);
    return spindle?.turns && run ? [{ spindleId: spindle.id, sheet: spindle.turns, run: run.turns }] : [];
  });
  const [first] = told;
  return told.filter((one) => first && (one.sheet === first.sheet) !== (one.run === first.run)).map(({ spindleId }) => spindleId);
}
