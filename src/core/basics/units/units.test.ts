import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { formatFraction, formatQuantity, formatTurns } from "./format";
import { judgeQuantity, parseQuantity } from "./parse";
import { type Dimension, fromSi, toSi, UNITS, type UnitId } from "./table";

function read(text: string, dimension: Dimension, bareUnit: UnitId): number {
  const parsed = parseQuantity({ text, dimension, bareUnit });
  if (!parsed.ok) throw new Error(`${text}: ${parsed.issue.code}`);
  return parsed.valueSi;
}

const code = (text: string, dimension: Dimension, bareUnit: UnitId) => {
  const parsed = parseQuantity({ text, dimension, bareUnit });
  return parsed.ok ? "read" : parsed.issue.code;
};

describe("typed quantities", () => {
  /** Spellings as gauges and tapes show them (common practice); SI by exact factors (NIST SP 811, from memory). */
  const spellings: readonly (readonly [string, Dimension, UnitId, number])[] = [
    ["3 1/4", "length", "in", 0.08255],
    ['3-1/4"', "length", "in", 0.08255],
    ["3.25 in", "length", "mm", 0.08255],
    ["3¼", "length", "in", 0.08255],
    ["83 mm", "length", "in", 0.083],
    ["8.3 cm", "length", "in", 0.083],
    ["8,3 cm", "length", "in", 0.083],
    [".125", "length", "in", 0.003175],
    ["125 thou", "length", "in", 0.003175],
    ["1/8", "length", "in", 0.003175],
    ["4' 2 1/2\"", "length", "in", 1.2827],
    ["12 psi", "pressure", "kpa", 82737.087],
    ["12", "pressure", "psi", 82737.087],
    ["0.83 bar", "pressure", "psi", 83000],
    ["83 kPa", "pressure", "psi", 83000],
    ["90 ft-lb", "torque", "n-m", 122.0236],
    ["122 N·m", "torque", "ft-lb", 122],
    ["4 mph", "speed", "km/h", 1.78816],
    ["6.4 km/h", "speed", "mph", 1.777778],
    ["3400 rpm", "rotation", "rpm", 3400],
    ["3,400", "rotation", "rpm", 3400],
    ["60 F", "temperature", "c", 288.70556],
    ["-2 1/4", "rotation", "rpm", -2.25],
    ["- 1/2", "length", "in", -0.0127],
  ];
  it.each(spellings)("reads “%s”", (text, dimension, unit, si) => {
    expect(read(text, dimension, unit)).toBeCloseTo(si, Math.abs(si) > 100 ? 2 : 6);
  });

  it.each([
    ["three", "unreadable-quantity"],
    ["3 1/0", "division-by-zero"],
    ["12 psi", "unit-of-another-kind"],
    ["3 1/4 1/8", "unreadable-quantity"],
    ["1.2.3", "unreadable-quantity"],
    ["3 furlongs", "unreadable-quantity"],
    ["   ", "empty-quantity"],
    ["1e3", "unreadable-quantity"],
  ])("refuses “%s” as a length: %s, with an example", (text, expected) => {
    expect(code(text, "length", "in")).toBe(expected);
    const parsed = parseQuantity({ text, dimension: "length", bareUnit: "in" });
    expect(parsed.ok ? "" : parsed.issue.example).toMatch(/\d/);
  });

  it("comes back from every unit unchanged (property)", () => {
    fc.assert(
      fc.property(fc.constantFrom(...UNITS.map(({ id }) => id)), fc.double({ min: -1e5, max: 1e5, noNaN: true }), (id, value) => {
        expect(fromSi(toSi(value, id), id)).toBeCloseTo(value, 6);
      }),
    );
  });

  it("reads back every sixteenth it writes (property)", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2000 }), (sixteenths) => {
        expect(read(formatFraction(sixteenths / 16), "length", "in")).toBeCloseTo(toSi(sixteenths / 16, "in"), 12);
      }),
    );
  });
});

describe("what may stand in a field", () => {
  const range = { least: 0.003, most: 0.2, usualLeast: 0.02, usualMost: 0.13 };
  const judge = (text: string, unit: UnitId) => {
    const parsed = parseQuantity({ text, dimension: "length", bareUnit: unit });
    if (!parsed.ok) throw new Error(parsed.issue.code);
    return judgeQuantity({ ...parsed, dimension: "length", range });
  };

  it("asks whether 83 in an inch field meant 83 mm", () => {
    expect(judge("83", "in")).toMatchObject({ verdict: "asked", suggestion: { unit: "mm", number: 83 } });
  });

  it("asks whether 3250 in an inch field meant thousandths (common practice: 125 in an inch field asks 0.125)", () => {
    expect(judge("3250", "in")).toMatchObject({ verdict: "asked", suggestion: { unit: "thou" } });
  });

  it("refuses a negative and an absurd length outright", () => {
    expect(judge("-3", "in")).toMatchObject({ verdict: "refused", code: "negative-quantity" });
    expect(judge("400 in", "in")).toMatchObject({ verdict: "refused", code: "above-most" });
  });
});

describe("shown quantities", () => {
  it("shows tape lengths in sixteenths and gauge lengths in decimals, metric whole millimetres", () => {
    const show = (instrument: "tape" | "gauge", system: "us" | "metric") =>
      formatQuantity({ valueSi: toSi(3.3125, "in"), dimension: "length", system, instrument }).text;
    expect(show("tape", "us")).toBe("3 5/16 in");
    expect(show("gauge", "us")).toBe("3.31 in");
    expect(show("tape", "metric")).toBe("84 mm");
  });

  it("never writes minus nought", () => {
    expect(formatQuantity({ valueSi: -0.00001, dimension: "length", system: "metric", instrument: "tape" }).number).toBe("0");
    expect(formatFraction(-0.001)).toBe("0");
  });

  it("says turns as a mechanic does", () => {
    expect([0.25, 1, 1.5, 6.75, -2.25, 1 / 6, 2 + 5 / 6].map(formatTurns)).toEqual(["¼", "1", "1½", "6¾", "2¼", "1/6", "2 5/6"]);
  });
});
