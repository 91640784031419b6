import { describe, expect, it } from "vitest";
import type { Figure } from "@/core/basics/findings";
import { drawnTogether, driftOf } from ".";

const figure = (value: number, more: Partial<Figure> = {}): Figure => ({
  id: "side",
  value,
  dimension: "length",
  instrument: "gauge",
  standing: "measured",
  verdict: "in-tolerance",
  ...more,
});
const about = (plusMinus: number) => ({ kind: "about" as const, target: 0, plusMinus, standing: "sheet" as const });
const told = (at: string, ...figures: Figure[]) => ({ at, jobId: 1, figures });

describe("what drifted since a machine was right", () => {
  it("a difference counts from twice its own scatter on (two readings good to 0.3 mm each: 2 × 0.424 = 0.849 mm, by hand)", () => {
    const at = (mm: number) => figure(mm / 1000, { standardError: 0.0003 });
    expect(drawnTogether(at(0), at(0))).toBeCloseTo(0.000849, 6);
    const moved = (mm: number) => driftOf({ baseline: told("2026-01-01", at(0)), last: told("2026-05-01", at(mm)) })[0]?.moved;
    expect([moved(0.8), moved(-0.8), moved(0.9), moved(-0.9)]).toEqual(["as-it-was", "as-it-was", "moved", "moved"]);
  });

  it("without a scatter of both, the tolerance is the measure; without either nothing is said", () => {
    const last = (more: Partial<Figure>) => driftOf({ baseline: told("a", figure(0)), last: told("b", figure(0.004, more)) })[0]?.moved;
    expect(last({ tolerance: about(0.003) })).toBe("moved");
    expect(last({ tolerance: about(0.005) })).toBe("as-it-was");
    expect(last({ tolerance: { kind: "between", least: -0.001, most: 0.005, standing: "sheet" } })).toBe("moved");
    expect(last({ tolerance: { kind: "between", most: 0.005, standing: "sheet" } })).toBe("cannot-tell");
    expect(last({ standardError: 0.0001 })).toBe("cannot-tell");
  });

  it("another place, another figure and another dimension are no baseline; what is not judged is left out", () => {
    const baseline = told("a", figure(0, { place: "left" }), figure(0, { id: "rake" }), figure(0, { id: "torque", dimension: "torque" }));
    const last = told(
      "b",
      ...[figure(1, { place: "right" }), figure(1), figure(1, { id: "torque" })],
      figure(1, { id: "note", verdict: undefined as never }),
    );
    const found = driftOf({ baseline, last });
    expect(found.map(({ figure: { id }, moved }) => [id, moved])).toEqual([
      ["side", "cannot-tell"],
      ["side", "cannot-tell"],
      ["torque", "cannot-tell"],
    ]);
    expect(found.some((one) => one.baseline)).toBe(false);
  });

  it("a machine that never was right has no baseline, and none is made up", () => {
    expect(driftOf({ last: told("b", figure(1)) })).toEqual([{ figure: figure(1), at: "b", jobId: 1, moved: "cannot-tell" }]);
  });
});
