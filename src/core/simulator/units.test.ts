import { describe, expect, it } from "vitest";
import { namedRandom } from "@/core/basics/random";
import { worksheetsFor } from "@/core/checks";
import { assessed, machineOf } from "@/core/checks/sheets.fixtures";
import { putIn } from "./faults";
import { readingsOf } from "./gauges";
import { physicalLooks } from "./noticed";
import { CAREFUL } from "./reader";
import { MM } from "./sizes";
import { spreadFrom } from "./spread";
import { type HiddenState, soundState } from "./state";
import { clipShareOf } from "./unit-gauges";
import { gapAt, type HiddenUnit, paperAt, turnsAt, UNIT_EDGE, unitCut } from "./units";

const triplex = machineOf("RT-1");
const STEADY = { ...CAREFUL, slips: 0, misses: 0, imagines: 0 };
const unitOf = (state: HiddenState, id = "left") => state.reel.units[id] as HiddenUnit;

describe("a reel machine as it truly is", () => {
  it("sound, without spread, reads sound on every worksheet of every reel machine", () => {
    for (const fleetNumber of ["RT-1", "RT-2", "RF-1", "RW-1"]) {
      const machine = machineOf(fleetNumber);
      for (const check of worksheetsFor(machine)) {
        const readings = readingsOf({ state: soundState(machine), key: "sound", check, hand: STEADY });
        const { verdict, findings } = assessed(check.id, machine, readings);
        const off = findings.filter((one) => one.verdict === "out" || one.verdict === "stop");
        expect([fleetNumber, check.id, verdict === "out" ? off : []]).toEqual([fleetNumber, check.id, []]);
      }
    }
  });

  /** The share of docs/worked-examples.md (bench unit), 3.95/8 for this unit (physics). */
  it("a roller 0.3 mm out of square tilts the cut by the share that reaches the edge", () => {
    const state = soundState(triplex);
    unitOf(state).squareMetres = 0.3 * MM;
    expect(unitCut(triplex, "left", state.reel).tiltMetres / MM).toBeCloseTo(0.3 * (3.95 / 8), 6);
  });

  it("a cone shows at half its difference, with the knife set to the reel (physics)", () => {
    const state = soundState(triplex);
    unitOf(state).coneMetres = 0.5 * MM;
    expect(unitCut(triplex, "left", state.reel).tiltMetres / MM).toBeCloseTo(0.25, 9);
  });

  /** Physics: nose down about the edge lifts what is behind it by its distance times the angle. */
  it("tipped about its edge it lifts its heel and lets its toe down, by their distance from it", () => {
    const check = worksheetsFor(triplex).find(({ id }) => id === "bedknife-attitude");
    const { sideView } = triplex.sheet.unit ?? {};
    if (!check || !sideView?.heel || !sideView.toe) throw new Error("no side view");
    const read = (radians: number) => {
      const state = soundState(triplex);
      unitOf(state).attitudeSpreadRadians = radians;
      const { units } = readingsOf({ state, key: "tipped", check, hand: STEADY }) as {
        units: Record<string, { heelMetres: number; toeMetres: number }>;
      };
      return units.left ?? { heelMetres: 0, toeMetres: 0 };
    };
    const [level, nose] = [read(0), read(0.05)];
    expect(nose.heelMetres - level.heelMetres).toBeCloseTo(0.05 * (sideView.edge.yMetres - sideView.heel.yMetres), 4);
    expect(nose.toeMetres - level.toeMetres).toBeCloseTo(0.05 * (sideView.edge.yMetres - sideView.toe.yMetres), 4);
  });

  it("is the same machine in both worlds, with what the wide one adds to it", () => {
    const [narrow, wide] = [spreadFrom(namedRandom("one")), spreadFrom(namedRandom("one"), namedRandom("one:wide"))].map((spread) =>
      unitOf(soundState(triplex, spread)),
    );
    expect(wide?.gapMetres).toBe(narrow?.gapMetres);
    expect(wide?.coneMetres).toBe(narrow?.coneMetres);
    expect([narrow?.packMetres, narrow?.speedShare]).toEqual([0, 1]);
    expect(wide?.packMetres).toBeGreaterThan(0);
    expect(wide?.speedShare).not.toBe(1);
  });

  /** The same: half of those who look notice a tilt of 0.25 mm within a unit and 0.3 mm between units (estimates). */
  it("is noticed half the time at the sizes that half the people notice (estimate)", () => {
    const tilted = soundState(triplex);
    unitOf(tilted).coneMetres = 0.5 * MM;
    expect(physicalLooks(tilted)["step-within-unit"]).toBeCloseTo(0.5, 6);
    const apart = soundState(triplex);
    unitOf(apart).heightOffMetres = 0.3 * MM;
    expect(physicalLooks(apart)["bands-between-units"]).toBeCloseTo(0.5, 6);
    expect(physicalLooks(soundState(triplex))["bands-between-units"]).toBeLessThan(0.01);
  });

  /** The same: paper at g is stiff under −18 µm, cut to 22, pinched to 45, else passes; a dull edge adds 0.6 of its excess. */
  it("paper does as its gap and its edge let it", () => {
    const sharp = UNIT_EDGE.sharp;
    expect([0, 22, 23, 45, 46].map((um) => paperAt(um * 1e-6, sharp, 0))).toEqual(["cut", "cut", "pinched", "pinched", "passes"]);
    expect(paperAt(0, sharp + 40e-6, 0)).toBe("pinched");
    const unit = unitOf(soundState(triplex));
    expect(turnsAt({ ...unit, gapMetres: -19e-6 }, 0)).toBe("stiff");
    expect(turnsAt({ ...unit, gapMetres: 30e-6 }, 0)).toBe("free");
  });

  it("a proud reel blade holds the knife off all the others; a short one alone does not reach", () => {
    const unit = { ...unitOf(soundState(triplex)), gapMetres: 0 };
    const proud = { ...unit, oddBlade: { number: 3, byMetres: 0.1 * MM } };
    expect([1, 3].map((blade) => gapAt(proud, "middle", blade) / MM)).toEqual([0.1, 0]);
    const short = { ...unit, oddBlade: { number: 3, byMetres: -0.1 * MM } };
    expect([1, 3].map((blade) => gapAt(short, "middle", blade) / MM)).toEqual([0, 0.1]);
  });

  it("a clip too long is driven so, or geared so where the ground turns the reel", () => {
    for (const fleetNumber of ["RT-1", "RW-1"]) {
      const state = soundState(machineOf(fleetNumber));
      putIn(state, { cause: "clip-too-long", severity: 1 }, namedRandom("clip"));
      expect([fleetNumber, clipShareOf(state)]).toEqual([fleetNumber, expect.closeTo(1.45, 6)]);
    }
  });
});
