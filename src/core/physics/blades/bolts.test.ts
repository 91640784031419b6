import { describe, expect, it } from "vitest";
import { fromSi, toSi } from "@/core/basics/units";
import { clampForce, socketsFor } from "./bolts";

const INCH = 0.0254;

describe("clamp force (published short form, from memory)", () => {
  // @against blade-fit: clamp force of a bolt; published short form T/(k·d), from memory; 5 lbf
  it("90 lbf·ft on a dry 5/8 in bolt clamps about 8,640 lbf, a third more when oiled", () => {
    const args = { torqueNewtonMetres: toSi(90, "ft-lb"), diameterMetres: 0.625 * INCH };
    const dry = clampForce({ ...args, thread: "dry" });
    expect(dry / 4.4482216).toBeCloseTo(8640, -1);
    expect(clampForce({ ...args, thread: "oiled" }) / dry).toBeCloseTo(4 / 3, 9);
    expect(fromSi(args.torqueNewtonMetres, "ft-lb")).toBeCloseTo(90, 9);
  });
});

// @against blade-fit: which socket fits; sizes by definition (25.4 mm to the inch); 0.005 mm
describe("socket finder (worked example: bolt, docs/worked-examples.md)", () => {
  const of = (headMetres: number, system: "inch" | "metric", stamped: number) =>
    socketsFor(headMetres).find((one) => one.system === system && one.stamped === stamped);

  it("3/4 in: the 19 mm does not go on", () => {
    expect(of(0.75 * INCH, "inch", 12)).toMatchObject({ fit: "good" });
    expect(of(0.75 * INCH, "metric", 19)).toMatchObject({ fit: "too-small", playMetres: expect.closeTo(-0.00005, 6) });
  });

  it("11/16 in is 17.46 mm: an 18 mm has 0.54 mm of play and rounds it", () => {
    expect(of((11 / 16) * INCH, "metric", 18)).toMatchObject({ fit: "loose", playMetres: expect.closeTo(0.00054, 5) });
  });

  it("15/16 in is 23.81 mm: a 24 mm has 0.19 mm and will do", () => {
    expect(of((15 / 16) * INCH, "metric", 24)).toMatchObject({ fit: "good", playMetres: expect.closeTo(0.00019, 5) });
  });

  it("a metric head takes its own socket and no smaller", () => {
    expect(of(0.017, "metric", 17)).toMatchObject({ fit: "good", playMetres: 0 });
    expect(
      socketsFor(0.017)
        .filter(({ fit }) => fit === "too-small")
        .map(({ system }) => system),
    ).toEqual(["inch", "metric"]);
  });
});
