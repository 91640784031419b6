import { describe, expect, it } from "vitest";
import { PSI_PASCALS } from "@/core/basics/units";
import { type Assessment, assessCheck, type TyreDetail } from "@/core/checks";
import { type MachineInput, machineSchema, withSheet } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";

const zeroTurn = FLEET.find(({ fleetNumber }) => fleetNumber === "ZT-1")?.machine as MachineInput;
const WHEELS = ["left-drive", "left-caster", "right-caster", "right-drive"];
const psi = (value: number) => value * PSI_PASCALS;

function assess(
  pressures: readonly number[],
  { machine = zeroTurn, step = 0.5 }: { machine?: MachineInput; step?: number } = {},
): Assessment<TyreDetail> {
  const readings = {
    tyres: pressures.map((value, k) => ({ wheelId: WHEELS[k], pressurePascals: psi(value) })),
    gaugeStepPascals: psi(step),
  };
  const outcome = assessCheck("tyre-pressure", { machine, readings });
  if (outcome.kind !== "assessed") throw new Error(JSON.stringify(outcome));
  return outcome.assessment as Assessment<TyreDetail>;
}

const ratioFor = (assessment: Assessment, cause: string) =>
  assessment.evidence.flatMap((one) => ("likelihoodRatio" in one && one.cause === cause ? [one.likelihoodRatio] : []))[0] ?? Number.NaN;

describe("tyre-pressure", () => {
  it("is right within 1 psi of the sheet and of its axle partner (estimate)", () => {
    expect(assess([12, 18, 18, 12]).verdict).toBe("in-tolerance");
    expect(assess([12.9, 18, 18, 12.1]).verdict).toBe("watch");
    expect(assess([11, 18, 18, 12.6]).verdict).toBe("out");
  });

  it("says what to set, and what a soft tyre does to the deck as a range", () => {
    const result = assess([8, 18, 18, 12]);
    expect(result.actions).toContainEqual({
      code: "set-pressure",
      place: "left-drive",
      fromPascals: psi(8),
      toPascals: Math.round(psi(12)),
    });
    const left = result.detail.tipChanges?.find(({ spindleId, direction }) => spindleId === "left" && direction === "left");
    expect(left?.change).toBeLessThan(0);
    expect(left?.least).toBeCloseTo((left?.change ?? 0) * 2, 9);
    expect(ratioFor(result, "tyres-unequal")).toBe(1000);
  });

  /** Ideal gas by hand, sea level: 82.737 kPa cold at 293.15 K reads (82.737 + 101.325)·310/293.15 − 101.325 = 93.3 kPa at 310 K. */
  it("tells a warm tyre by what the gauge is to read now, and asks for nothing once it reads that", () => {
    const read = (pressurePascals: number) => {
      const warm = { pressurePascals, temperatureKelvin: 310 };
      const rest = Object.fromEntries(WHEELS.slice(1).map((id, k) => [id, { pressurePascals: psi([18, 18, 12][k] ?? 0) }]));
      const outcome = assessCheck("tyre-pressure", {
        machine: zeroTurn,
        readings: { tyres: { "left-drive": warm, ...rest }, coldTemperatureKelvin: 293.15 },
      });
      if (outcome.kind !== "assessed") throw new Error(JSON.stringify(outcome));
      return outcome.assessment.actions.filter((one) => one.place === "left-drive") as Record<string, number | string>[];
    };
    const [set] = read(82_737);
    expect(set).toMatchObject({ code: "set-pressure", fromPascals: 82_737, coldToPascals: Math.round(psi(12)) });
    expect(Number(set?.toPascals)).toBeCloseTo(((82_737 + 101_325) * 310) / 293.15 - 101_325, -1);
    expect(Number(set?.toPascals) / 1000).toBeCloseTo(93.3, 1);
    expect(read(Number(set?.toPascals))).toEqual([]);
  });

  it("stops above the moulded maximum", () => {
    const result = assess([23, 18, 18, 12]);
    expect(result.verdict).toBe("stop");
    expect(result.warnings.map(({ code }) => code)).toContain("above-moulded-maximum");
  });

  it("refuses to take the moulded maximum for a target: without a sheet figure it asks for one", () => {
    const bare = { ...zeroTurn, wheels: zeroTurn.wheels.map(({ sheetPressurePascals: _, ...wheel }) => wheel) };
    const result = assess([12, 18, 18, 12], { machine: bare });
    expect(result.verdict).toBe("not-enough-readings");
    expect(result.actions.every(({ code }) => code === "ask-sheet-pressure")).toBe(true);
    expect(result.detail.noTipChanges).toBe("no-sheet-pressure");
  });

  it("never goes under the sheet's least, whatever offset the machine runs", () => {
    const soft = withSheet(machineSchema.parse(zeroTurn), { pressureOffsetPascals: -psi(6) });
    const result = assess([8, 12, 12, 8], { machine: soft });
    expect(result.detail.wheels[0]?.targetPascals).toBeCloseTo(psi(8), -2);
    expect(assess([7.4, 12, 12, 8], { machine: soft }).verdict).toBe("out");
  });

  it("says when the gauge is too coarse for the tolerance", () => {
    expect(assess([12, 18, 18, 12], { step: 2 }).warnings.map(({ code }) => code)).toContain("gauge-too-coarse");
  });

  it("all low alike speaks for the wrong pressure, not for a difference", () => {
    const result = assess([9, 15, 15, 9]);
    expect(ratioFor(result, "tyres-off-spec")).toBeGreaterThan(100);
    expect(ratioFor(result, "tyres-unequal")).toBeLessThan(0.1);
  });

  it("keeps a good verdict back while a tyre is unread", () => {
    const result = assess([12, 18, 18]);
    expect(result.verdict).toBe("not-enough-readings");
    expect(result.provisional).toEqual([{ code: "tyre-unread", place: "right-drive" }]);
  });

  it("does not move a deck that rides on its own wheels", () => {
    const front = FLEET.find(({ fleetNumber }) => fleetNumber === "FD-1")?.machine as MachineInput;
    const parsed = machineSchema.parse(front);
    const readings = {
      tyres: parsed.wheels.map(({ id, sheetPressurePascals }) => ({ wheelId: id, pressurePascals: (sheetPressurePascals ?? 0) - 20_000 })),
    };
    const outcome = assessCheck("tyre-pressure", { machine: front, readings });
    expect(outcome.kind === "assessed" && (outcome.assessment.detail as TyreDetail).noTipChanges).toBe("self-carried-deck");
  });

  it("refuses one wheel read twice, by path", () => {
    const outcome = assessCheck("tyre-pressure", {
      machine: zeroTurn,
      readings: { tyres: [1, 2].map(() => ({ wheelId: "left-drive", pressurePascals: 8e4 })) },
    });
    expect(outcome).toMatchObject({ kind: "invalid", issues: [{ code: "place-read-twice", path: ["readings", "tyres", "1"] }] });
  });
});
