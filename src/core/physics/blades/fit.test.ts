import { describe, expect, it } from "vitest";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { HEAD_MARKS, judgeGrade, mismatches, newAgainstOld } from "./fit";

const wanted = machineOf("ZT-1").sheet.blade;
if (!wanted) throw new Error("the demo's zero-turn has a blade on its sheet");
const right = {
  lengthMetres: wanted.lengthMetres,
  hole: wanted.hole?.shape,
  holeMetres: wanted.hole?.acrossMetres,
  offsetMetres: wanted.offsetMetres,
  lift: wanted.lift,
};
const codes = (part: object, machine: Partial<{ turns: "clockwise" | "anticlockwise"; hasCatcher: boolean }> = {}) =>
  mismatches(wanted, { ...right, ...part }, { hasCatcher: false, ...machine }).map(({ code, consequence }) => `${code}: ${consequence}`);

/** Consequences: common practice. */
describe("a blade against the machine's sheet", () => {
  it("has no mismatch where it agrees, and none for what was not told", () => {
    expect(codes({})).toEqual([]);
    expect(mismatches(wanted, {}, { hasCatcher: true, turns: "clockwise" })).toEqual([]);
  });

  it.each([
    [{ lengthMetres: 0.46 }, "longer: may-strike"],
    [{ lengthMetres: 0.4 }, "shorter: leaves-a-strip"],
    [{ lengthMetres: 0.427 }, "worn-shorter: worn-or-another-part"],
    [{ hole: "star-5" as const }, "other-hole: not-centred"],
    [{ holeMetres: 0.018 }, "hole-too-wide: not-centred"],
    [{ holeMetres: 0.0127 }, "hole-too-narrow: does-not-go-on"],
    [{ offsetMetres: 0.02 }, "other-offset: cuts-at-another-height"],
    [{ lift: "low" as const }, "other-lift: moves-other-air"],
  ])("%o is %s", (part, said) => {
    expect(codes(part)).toEqual([said]);
  });

  it("names a mulching blade with a catcher, high lift on a mulching deck, and a blade for the other direction", () => {
    expect(codes({ lift: "mulching" }, { hasCatcher: true })).toEqual(["mulching-with-catcher: does-not-fill"]);
    expect(mismatches({ ...wanted, lift: "mulching" }, { lift: "high" }, { hasCatcher: false }).map(({ code }) => code)).toEqual([
      "high-lift-on-mulching",
    ]);
    expect(codes({ turns: "anticlockwise" }, { turns: "clockwise" })).toEqual(["turns-the-other-way: cuts-with-its-back"]);
  });

  it("reports every mismatch, not only the first", () => {
    expect(codes({ lengthMetres: 0.5, hole: "star-6", offsetMetres: 0, lift: "low" })).toHaveLength(4);
  });

  it("lays the new against the old before unwrapping", () => {
    expect(newAgainstOld(right, right)).toEqual([]);
    expect(newAgainstOld(right, { ...right, lengthMetres: 0.42, hole: "star-7" })).toEqual([
      { what: "lengthMetres", byMetres: expect.closeTo(wanted.lengthMetres - 0.42, 9) },
      { what: "hole" },
    ]);
  });
});

/** SAE J429 and ISO 898-1, from memory: grade 8 has six radial lines, grade 5 three, grade 2 none; 10.9 answers to grade 8. */
describe("bolt grades", () => {
  it("are read by the head's marks", () => {
    expect([HEAD_MARKS["sae-2"].lines, HEAD_MARKS["sae-5"].lines, HEAD_MARKS["sae-8"].lines, HEAD_MARKS["iso-10-9"].stamp]).toEqual([
      0,
      3,
      6,
      "10.9",
    ]);
  });

  it("an ordinary bolt is refused, a harder one is no upgrade, the other system's equal will do", () => {
    expect([
      judgeGrade("sae-2", "sae-8"),
      judgeGrade("sae-5", "sae-8"),
      judgeGrade("iso-12-9", "sae-8"),
      judgeGrade("iso-10-9", "sae-8"),
    ]).toEqual(["weaker", "weaker", "harder", "right"]);
  });
});
