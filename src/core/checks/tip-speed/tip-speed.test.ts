import { describe, expect, it } from "vitest";
import { type Assessment, assessCheck } from "@/core/checks";
import { type MachineInput, machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { type SpeedDetail, type SpeedReadings, speedReadingsSchema, tipSpeedCheck } from "./index";

const machineOf = (fleetNumber: string) => FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine as MachineInput;
const zeroTurn = machineOf("ZT-1");
/** As a machine whose sheet knows no pulleys: read by tachometer alone. */
const unsized: MachineInput = { ...zeroTurn, sheet: {} };
const ids = machineSchema.parse(zeroTurn).spindles.map(({ id }) => id);

function outcomeOf(
  speeds: readonly number[],
  machine: MachineInput = unsized,
  names: readonly string[] = machineSchema.parse(machine).spindles.map(({ id }) => id),
) {
  const spindles = speeds.map((revolutionsPerMinute, k) => ({ spindleId: names[k] ?? "none", revolutionsPerMinute }));
  return assessCheck("tip-speed", { machine, readings: { spindles } });
}

function assess(speeds: readonly number[], machine: MachineInput = unsized): Assessment<SpeedDetail> {
  const outcome = outcomeOf(speeds, machine);
  if (outcome.kind !== "assessed") throw new Error(JSON.stringify(outcome));
  return outcome.assessment as Assessment<SpeedDetail>;
}

/** r/min that puts this machine's blades at so many feet a minute (17 in tip circle). */
const at = (feetPerMinute: number) => feetPerMinute / (Math.PI * (17 / 12));

describe("tip-speed", () => {
  it("is right in the working range, watched beyond it, out where it tears (common practice)", () => {
    const verdictAt = (feet: number) => assess([at(feet), at(feet), at(feet)]).verdict;
    expect(verdictAt(17_000)).toBe("in-tolerance");
    expect(verdictAt(15_000)).toBe("watch");
    expect(verdictAt(18_700)).toBe("watch");
    expect(verdictAt(13_900)).toBe("out");
  });

  it("stops at the published limit of 19,000 ft/min (from memory), and then speaks to no cause", () => {
    const over = assess([at(17_000), at(19_050), at(17_000)]);
    expect(over.verdict).toBe("stop");
    expect(over.warnings.map(({ code, place }) => [code, place])).toEqual([["over-tip-speed-limit", ids[1]]]);
    // 2 · 96.52 m/s over 17 in: 4,269 r/min, rounded down.
    expect(over.warnings[0]?.mostRevolutions).toBe(4269);
    expect(over.evidence).toEqual([]);
    expect(assess([at(18_990), at(18_990), at(18_990)]).verdict).toBe("watch");
  });

  it("names what the pattern says: one standing, one low, all low, all alike", () => {
    const told = (speeds: readonly number[]) => {
      const { detail, evidence } = assess(speeds);
      return [
        detail.pattern,
        evidence.flatMap((one) => ("result" in one && one.result === "suspect" ? ("causes" in one ? one.causes : [one.cause]) : [])),
      ];
    };
    const good = at(17_000);
    const marked = (speeds: readonly number[]) => assess(speeds).marks?.map(({ code }) => code);
    expect(marked([good, 0, 0.93 * good])).toEqual(["right", "stands", "slower"]);
    expect(marked([good, at(19_050), at(13_000)])).toEqual(["slower", "over-limit", "too-slow", "slower"]);
    expect(told([good, 0, good])).toEqual(["one-stopped", ["belt-off"]]);
    expect(told([good, 0.93 * good, good])).toEqual(["one-low", ["belt-slipping"]]);
    expect(told([at(14_500), at(14_500), at(14_500)])).toEqual(["all-low", ["engine-speed-low", "belt-slipping"]]);
    expect(told([good, good, 0.98 * good])).toEqual(["alike", []]);
  });

  it("on a walk-behind without a belt speaks to the engine alone", () => {
    const walk = machineOf("WP-1");
    const diameter = machineSchema.parse(walk).spindles[0]?.tipCircleDiameterMetres ?? 1;
    const slow = 14_500 / (Math.PI * (diameter / 0.3048));
    expect(assess([slow], walk).evidence).toEqual([{ check: "tip-speed", cause: "engine-speed-low", result: "suspect" }]);
  });

  it("is not good before every spindle was read: the one left out may be the one that stands", () => {
    const some = assess([at(17_000), at(17_000)]);
    expect(some.verdict).toBe("not-enough-readings");
    expect(some.provisional).toEqual([{ code: "spindle-unread", place: ids[2] }]);
    expect(some.evidence).toEqual([]);
  });

  it("refuses 60,000 r/min, less than nothing, a spindle twice and one the machine does not have", () => {
    const codes = (outcome: ReturnType<typeof outcomeOf>) => (outcome.kind === "invalid" ? outcome.issues.map(({ code }) => code) : []);
    expect(codes(outcomeOf([60_000, 3000, 3000]))).toEqual(["too-big"]);
    expect(codes(outcomeOf([-1, 3000, 3000]))).toEqual(["too-small"]);
    const twice = outcomeOf([3000, 3000], zeroTurn, [ids[0] ?? "", ids[0] ?? ""]);
    expect(codes(twice)).toEqual(["place-read-twice"]);
    expect(codes(outcomeOf([3000], zeroTurn, ["fourth"]))).toEqual(["unknown-spindle"]);
  });
});

type Partly = Record<string, Record<string, number>>;
const speeds = (rpm: number, more: (id: string) => Record<string, number> = () => ({})): Partly =>
  Object.fromEntries(ids.map((id) => [id, { revolutionsPerMinute: rpm, ...more(id) }]));

function told(machine: MachineInput, readings: object): Assessment<SpeedDetail> {
  const outcome = assessCheck("tip-speed", { machine, readings });
  if (outcome.kind !== "assessed") throw new Error(JSON.stringify(outcome));
  return outcome.assessment as Assessment<SpeedDetail>;
}

const sizeOf = (assessment: Assessment, id: string) => assessment.figures.find((figure) => figure.id === id);

describe("tip speed on paper", () => {
  /** By hand: 3,600 r/min × 5.5/4.95 = 4,000 r/min; π · 17 in · 4,000 / 12 = 17,802 ft/min. */
  it("comes from the sheet's pulleys before anything is read, and does not need the machine ready to run", () => {
    const paper = told(zeroTurn, { paper: { slip: 0 } });
    expect((sizeOf(paper, "paper-tip-speed")?.value ?? 0) / 0.00508).toBeCloseTo(17_802, -1);
    expect([paper.verdict, paper.detail.known?.[0]?.paper?.revolutionsPerMinute]).toEqual(["not-enough-readings", expect.closeTo(4000, 6)]);
    const onPaper = (readings: object) => tipSpeedCheck.isOnPaper?.(speedReadingsSchema.parse(readings) as SpeedReadings);
    expect([
      onPaper({ paper: { slip: 0.02 }, spindles: { left: { drivenPitchMetres: 0.1 } } }),
      onPaper({ spindles: speeds(3000) }),
    ]).toEqual([true, false]);
  });

  it("stops a pulley that would take a blade over the limit, before it is run up", () => {
    const small = told(zeroTurn, { spindles: { middle: { drivenPitchMetres: 4.5 * 0.0254 } } });
    expect([small.verdict, small.warnings[0]?.place]).toEqual(["stop", "middle"]);
    expect(told(zeroTurn, { paper: { drivePitchMetres: 6 * 0.0254 } }).verdict).toBe("stop");
  });

  it("through gears is the tooth ratio's, of a walk-behind the engine's own (by hand: 2,000 × 1.4)", () => {
    const turns = (fleetNumber: string, readings: object = {}) =>
      told(machineOf(fleetNumber), readings).detail.known?.[0]?.paper?.revolutionsPerMinute;
    expect(turns("GR-1")).toBeCloseTo(2800, 9);
    expect(turns("GR-1", { paper: { toothRatio: 1.5 } })).toBeCloseTo(3000, 9);
    expect([turns("WP-1"), turns("WC-1")]).toEqual([3000, 3200]);
  });

  it("refuses a pulley of no diameter, no engine speed and a charge of 140 %", () => {
    const codes = (machine: MachineInput, readings: object) => {
      const outcome = assessCheck("tip-speed", { machine, readings });
      return outcome.kind === "invalid" ? outcome.issues.map(({ code, path }) => `${code} at ${path.join(".")}`) : [];
    };
    expect(codes(zeroTurn, { paper: { drivePitchMetres: 0, engineRevolutionsPerMinute: 0 } })).toEqual([
      "too-small at readings.paper.engineRevolutionsPerMinute",
      "too-small at readings.paper.drivePitchMetres",
    ]);
    expect(codes(machineOf("WC-1"), { charge: { low: 1.4 } })).toEqual(["too-big at readings.charge.low"]);
  });

  it("says that a tachometer is far from what the sheet says the blades turn at", () => {
    const rated = {
      ...structuredClone(zeroTurn),
      sheet: { ...zeroTurn.sheet, blade: { ...zeroTurn.sheet?.blade, ratedRevolutionsPerMinute: 3000 } },
    };
    const warned = (revolutions: number) =>
      told(rated as MachineInput, { spindles: speeds(revolutions) }).warnings.filter(({ code }) => code === "off-rated-speed");
    expect(warned(3200)).toEqual([]);
    expect(warned(4090)).toEqual(ids.map((place) => ({ code: "off-rated-speed", place, revolutions: 4090, ratedRevolutions: 3000 })));
  });

  /** The road mower's blades are geared to 2,780 r/min: teeth do not slip. */
  it("calls no geared blade slipping: it is read again", () => {
    const geared = machineOf("GR-1");
    const [first, ...rest] = machineSchema.parse(geared).spindles.map(({ id }) => id);
    const right = told(geared, {}).detail.known?.[0]?.paper?.revolutionsPerMinute ?? 0;
    const result = told(geared, {
      spindles: Object.fromEntries([
        [first, { revolutionsPerMinute: right * 0.9 }],
        ...rest.map((id) => [id, { revolutionsPerMinute: right }]),
      ]),
    });
    expect(result.figures.filter(({ id }) => id === "slip")).toEqual([]);
    expect(result.findings.filter(({ place }) => place === first).map(({ code }) => code)).toEqual(
      expect.arrayContaining(["not-as-geared"]),
    );
    expect(result.actions).toContainEqual({ code: "read-speed-again", place: first });
  });

  it("tells slip from what was worked out; faster than worked out says outside diameters", () => {
    const slipped = told(zeroTurn, { spindles: speeds(3720) });
    expect(sizeOf(slipped, "slip")).toMatchObject({ value: expect.closeTo(0.07, 9), verdict: "out" });
    expect(slipped.detail.pattern).toBe("all-low");
    const fast = told(zeroTurn, { spindles: speeds(4100) });
    expect(fast.warnings.map(({ code }) => code)).toContain("faster-than-paper");
  });
});

describe("tip speed at work", () => {
  /** From 3,400 down to 2,900 r/min leaves 73 % of the pressure (fan laws, published). */
  it("leaves 73 % of the lift at 2,900 of 3,400 r/min", () => {
    const worked = told(machineOf("ZT-2"), {
      spindles: { left: { revolutionsPerMinute: 3400, loadedRevolutionsPerMinute: 2900 }, right: { revolutionsPerMinute: 3400 } },
    });
    expect(sizeOf(worked, "lift-left")?.value).toBeCloseTo(0.7275, 4);
  });

  it("is out past 12 % of droop without a baseline, and past the machine's own where the sheet has one (estimate)", () => {
    const droop = (machine: MachineInput, loaded: number) =>
      told(machine, { spindles: speeds(4000, () => ({ loadedRevolutionsPerMinute: loaded })) });
    const bare = structuredClone(zeroTurn);
    if (bare.sheet?.drive) delete bare.sheet.drive.usualDroop;
    expect(sizeOf(droop(bare, 3580), "droop")?.verdict).toBe("in-tolerance");
    expect(sizeOf(droop(bare, 3540), "droop")?.verdict).toBe("watch");
    expect(sizeOf(droop(bare, 3500), "droop")?.verdict).toBe("out");
    const own = droop(zeroTurn, 3560);
    // A belt may slip, an engine be weak, under load alone: each a little likelier, and neither sure.
    expect(own.evidence).toEqual([
      { cause: "belt-slipping", likelihoodRatio: 4 },
      { cause: "engine-speed-low", likelihoodRatio: 4 },
      { check: "tip-speed", cause: "belt-off", result: "not-found" },
    ]);
    expect([sizeOf(own, "droop")?.verdict, own.actions.map(({ code }) => code)]).toEqual(["out", ["look-for-load"]]);
  });

  it("of a cordless machine that sags at low charge makes its pack or motor a little likelier, and says what lift is left", () => {
    const sag = told(machineOf("WC-1"), {
      spindles: { blade: { revolutionsPerMinute: 3200, lowChargeRevolutionsPerMinute: 2600 } },
      charge: { full: 1, low: 0.2 },
    });
    expect([sag.verdict, sag.evidence]).toEqual(["out", [{ cause: "engine-speed-low", likelihoodRatio: 4 }]]);
    expect(sizeOf(sag, "lift-left")?.value).toBeCloseTo((2600 / 3200) ** 2, 9);
    expect(sag.actions.map(({ code }) => code)).toEqual(["charge-sooner"]);
  });

  /** Worked example "tip speed" (docs/worked-examples.md): 6 mph, 3,000 r/min, two edges: 1.06 in. */
  it("bites as far as the slowest blade at work lets it", () => {
    const spindles = { ...speeds(3400), left: { revolutionsPerMinute: 3400, loadedRevolutionsPerMinute: 3000 } };
    const bitten = told(zeroTurn, { spindles, groundMetresPerSecond: 2.68224 });
    expect((bitten.detail.biteMetres ?? 0) / 0.0254).toBeCloseTo(1.06, 2);
  });
});
