import { type Figure, judgeDeviation } from "@/core/basics/findings";
import { type Direction, type Machine, referenceSpindle, spindlesAcross, tipAt } from "@/core/machine";
import { type BladeReading, cutHeightAtCentre, type DeckPlane, REPEATABILITY_WEIGHT, type Slope } from "@/core/physics/deck";
import type { Rules } from "./rules";

export function figuresOf(args: {
  machine: Machine;
  heights: readonly BladeReading[];
  deck: DeckPlane;
  side: Slope;
  rake: Slope;
  rules: Rules;
}): Figure[] {
  const { machine, deck, side, rake, rules } = args;
  const length = { dimension: "length", instrument: "tape", standing: "measured" } as const;
  const reference = referenceSpindle(machine);
  const judged = (slope: Slope, target: number, tolerance: number) =>
    judgeDeviation({ deviation: slope.value - target, tolerance, standardError: slope.standardError });
  // The readings and the eight that repeatability counts for, less the plane's three.
  const degrees = REPEATABILITY_WEIGHT + args.heights.length - 3;
  const figures: Figure[] = [
    {
      ...length,
      degrees,
      id: "side",
      ...side,
      tolerance: { kind: "about", target: 0, plusMinus: rules.sideTolerance, standing: rules.sideStanding },
      verdict: judged(side, 0, rules.sideTolerance),
    },
    {
      ...length,
      id: "rake",
      degrees,
      ...rake,
      tolerance: { kind: "about", target: rules.rakeTarget, plusMinus: rules.rakeTolerance, standing: rules.rakeStanding },
      verdict: judged(rake, rules.rakeTarget, rules.rakeTolerance),
    },
    ...tipToTip(args.heights, machine),
  ];
  if (reference) {
    const at = { plane: deck.plane, x: reference.xMetres, y: reference.yMetres, tipCircleMetres: reference.tipCircleDiameterMetres };
    figures.push({ ...length, id: "cut-height", place: reference.id, value: cutHeightAtCentre(at) });
  }
  const residual = Math.max(...deck.residuals.map(Math.abs));
  if (args.heights.length > 3) figures.push({ ...length, instrument: "fine", id: "largest-residual", value: residual });
  return figures;
}

/** Front minus rear of each blade read at both, as the plain two readings give it: the fit mixes a spindle's own offset into the slope. */
function tipToTip(heights: readonly BladeReading[], machine: Machine): Figure[] {
  return spindlesAcross(machine).flatMap((spindle) => {
    const mean = (direction: Direction) => {
      const at = tipAt(spindle, direction);
      const here = heights.filter((h) => h.spindleId === spindle.id && Math.hypot(h.x - at.x, h.y - at.y) < 1e-6);
      return here.length === 0 ? undefined : here.reduce((sum, { z }) => sum + z, 0) / here.length;
    };
    const front = mean("front");
    const rear = mean("rear");
    if (front === undefined || rear === undefined) return [];
    return [
      {
        id: "rake-tip-to-tip",
        place: spindle.id,
        value: front - rear,
        dimension: "length" as const,
        instrument: "tape" as const,
        standing: "measured" as const,
      },
    ];
  });
}
