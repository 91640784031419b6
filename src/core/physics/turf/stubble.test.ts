import { jStat } from "jstat";
import { describe, expect, it } from "vitest";
import { studentT } from "@/core/basics/findings";
import { learnOffset, settingFor, stubbleOf } from "./stubble";

const mm = (metres: number) => metres * 1000;

describe("stubble heights", () => {
  it("of ten readings give mean, spread and the confidence of the mean (by hand)", () => {
    const stubble = stubbleOf([48, 50, 52, 49, 51, 50, 47, 53, 50, 50].map((height) => height / 1000));
    expect(mm(stubble?.meanMetres ?? 0)).toBeCloseTo(50, 9);
    expect(mm(stubble?.spreadMetres ?? 0)).toBeCloseTo(Math.sqrt(28 / 9), 9);
    expect(mm(stubble?.plusMinusMetres ?? 0)).toBeCloseTo((2.262 * Math.sqrt(28 / 9)) / Math.sqrt(10), 2);
  });

  it("of fewer than two give nothing", () => {
    expect(stubbleOf([0.05])).toBeUndefined();
  });

  /** Tables of Student's t, two-sided 95 % (published, from memory). */
  it.each([
    [1, 12.706],
    [2, 4.303],
    [3, 3.182],
    [5, 2.571],
    [9, 2.262],
    [19, 2.093],
    [120, 1.98],
  ])("t of %d degrees is %d", (degrees, expected) => {
    expect(Math.abs(studentT(degrees) - expected)).toBeLessThan(0.005);
  });
});

/** Against a reference library of statistics that the core does not use (jStat). */
// @against cutting-height: mean, spread, Student’s t; jStat; 0.005 of t at 95 %
describe("stubble statistics against a reference library", () => {
  it("t is its 97.5 % point for every number of degrees to 200", () => {
    for (let degrees = 1; degrees <= 200; degrees++)
      expect(Math.abs(studentT(degrees) - jStat.studentt.inv(0.975, degrees))).toBeLessThan(0.005);
  });

  it("t is its 99.5 % point too, to a twentieth from three degrees on and exactly below", () => {
    for (const degrees of [1, 2]) expect(studentT(degrees, 0.99) / jStat.studentt.inv(0.995, degrees)).toBeCloseTo(1, 4);
    for (let degrees = 3; degrees <= 200; degrees++)
      expect(Math.abs(studentT(degrees, 0.99) - jStat.studentt.inv(0.995, degrees))).toBeLessThan(0.05);
  });

  it("mean, spread and confidence of the mean are its own for any readings (seed 20261123)", () => {
    let state = 20_261_123;
    const random = () => {
      state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
      return state / 4_294_967_296;
    };
    for (let run = 0; run < 50; run++) {
      const heights = Array.from({ length: 3 + Math.floor(random() * 40) }, () => 0.03 + 0.05 * random());
      const stubble = stubbleOf(heights);
      expect(stubble?.meanMetres).toBeCloseTo(jStat.mean(heights), 12);
      expect(stubble?.spreadMetres).toBeCloseTo(jStat.stdev(heights, true), 12);
      const [low, high] = jStat.tci(jStat.mean(heights), 0.05, heights);
      expect((stubble?.plusMinusMetres ?? 0) / ((high - low) / 2)).toBeCloseTo(1, 2);
    }
  });
});

/** Worked example "cutting height, learnt" (docs/worked-examples.md): rotary, s 2.5 mm, n 10 (estimate). */
// @against cutting-height: offset learnt from visits; worked example “cutting height, learnt”; 0.005 mm
describe("the offset of a machine on a turf", () => {
  const visit = (offset: number, ageDays = 0) => ({ offsetMetres: offset / 1000, spreadMetres: 0.0025, count: 10, ageDays });

  it("after one visit of −2 is −1.69 ± 1.54; after −2, −3, −2.5 it is −2.36 ± 1.23", () => {
    const one = learnOffset([visit(-2)], "rotary");
    expect([mm(one.offsetMetres), mm(one.plusMinusMetres)]).toEqual([expect.closeTo(-1.69, 2), expect.closeTo(1.54, 2)]);
    const three = learnOffset([visit(-2), visit(-3), visit(-2.5)], "rotary");
    expect([mm(three.offsetMetres), mm(three.plusMinusMetres)]).toEqual([expect.closeTo(-2.36, 2), expect.closeTo(1.23, 2)]);
    expect(three.visits).toBe(3);
  });

  it("does not depend on the order of visits, and an old one counts less than a fresh one", () => {
    const there = learnOffset([visit(-2), visit(-4, 90)], "rotary");
    expect(learnOffset([visit(-4, 90), visit(-2)], "rotary").offsetMetres).toBeCloseTo(there.offsetMetres, 15);
    expect(there.offsetMetres).toBeGreaterThan(learnOffset([visit(-2), visit(-4)], "rotary").offsetMetres);
  });

  it("knows nothing without a visit, and then sets what is wanted", () => {
    const none = learnOffset([], "reel");
    expect(none.offsetMetres).toBeCloseTo(0, 12);
    expect(settingFor(0.0125, none).settingMetres).toBeCloseTo(0.0125, 12);
    expect(mm(settingFor(0.05, learnOffset([visit(-2)], "rotary")).settingMetres)).toBeCloseTo(51.69, 2);
  });
});
