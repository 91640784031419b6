import { describe, expect, it } from "vitest";
import { INCH_METRES } from "@/core/basics/units";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { type Machine, unitSheetOf, withSheet } from "@/core/machine";
import { movedRoller, stanceOf } from "@/core/physics/reel";
import { heightsReached, isInTravel, settingOf, setUpFor, speedsAt, unsuitedBy, withSettings } from "./set-up";

const triplex = machineOf("RT-1");
const greens = machineOf("RW-1");
const inch = (value: number) => value * INCH_METRES;

/** The machine with its units' sheet changed. */
const withUnit = (machine: Machine, change: object): Machine => withSheet(machine, { unit: { ...machine.sheet.unit, ...change } });
const viewOf = (machine: Machine, unit: string) =>
  unitSheetOf(machine, unit).sideView as NonNullable<Machine["sheet"]["unit"]>["sideView"] & object;
const codes = (unsuited: readonly { code: string }[] | undefined) => unsuited?.map(({ code }) => code);

/** Worked example "bench unit" (docs/worked-examples.md): rollers at (3.2, 1.25) r 1.25 and (−3.0, 1.0) r 1.0, edge (0.4, 0.5), heel (−0.9, 0.42). */
const workedUnit = withUnit(triplex, {
  sideView: {
    front: { yMetres: inch(3.2), zMetres: inch(1.25 - 0.06), radiusMetres: inch(1.25) },
    rear: { yMetres: inch(-3), zMetres: inch(1), radiusMetres: inch(1) },
    edge: { yMetres: inch(0.4), zMetres: inch(0.5) },
    heel: { yMetres: inch(-0.9), zMetres: inch(0.42) },
  },
  adjusters: { heightThrowMetres: inch(0.05) },
  attitude: undefined,
});

describe("a unit set up for a height", () => {
  // @against roller-position: how far a roller is moved for a height; worked example “bench unit” (physics); 0.0005 in
  it("moves the roller its screws are on: 0.500 made up at the rear wants its centre 0.073 in up, and the heel at 0.392 in (worked example)", () => {
    const found = setUpFor({ machine: workedUnit, unit: "left", heightMetres: inch(0.5), withGroomer: false });
    expect([found?.end, (found?.upMetres ?? 0) / INCH_METRES]).toEqual(["rear", expect.closeTo(0.073, 3)]);
    // 0.073 in by screws of 0.05 in a turn.
    expect(found?.turns).toBeCloseTo(0.073 / 0.05, 1);
    const stance = found?.view && stanceOf(found.view);
    expect([(stance?.heightMetres ?? 0) / INCH_METRES, (stance?.heelMetres ?? 0) / INCH_METRES]).toEqual([
      expect.closeTo(0.5, 6),
      expect.closeTo(0.392, 3),
    ]);
  });

  it("at the front where the sheet says its screws are there", () => {
    const front = withUnit(triplex, { adjusters: { heightEnd: "front" } });
    const found = setUpFor({ machine: front, unit: "left", heightMetres: inch(0.4), withGroomer: false });
    expect(found?.end).toBe("front");
    expect(found?.view?.rear).toEqual(viewOf(front, "left").rear);
    expect(found?.view && stanceOf(found.view)?.heightMetres).toBeCloseTo(inch(0.4), 8);
  });

  it("proposes the bracket by height and groomer, and says where the table ends", () => {
    const at = (height: number, withGroomer: boolean) =>
      setUpFor({ machine: triplex, unit: "left", heightMetres: inch(height), withGroomer });
    // The demo's table: 0.25 to 0.4, 0.4 to 0.6, 0.6 to 1.2 in; one hole on with a groomer.
    expect([at(0.5, false)?.bracket, at(0.5, true)?.bracket]).toEqual([
      { number: 2, facing: "rearward" },
      { number: 3, facing: "rearward" },
    ]);
    expect(codes(at(0.2, false)?.unsuited)).toContain("no-bracket");
  });

  it.each([
    ["eleven blades over half an inch", triplex, "left", 0.7, ["blades-too-many"]],
    ["a knife of another height", triplex, "left", 0.3, ["knife-not-for-height"]],
    ["nothing at the height it stands at", triplex, "left", 0.5, []],
  ])("says what does not suit it: %s", (_, machine, unit, height, expected) => {
    const found = setUpFor({ machine, unit, heightMetres: inch(height), withGroomer: true });
    expect(codes(found?.unsuited)?.filter((code) => code !== "attitude-off" && code !== "out-of-travel")).toEqual(expected);
  });

  it("a thick fairway knife at 3 mm drags its heel: so much thinner it would have to be (physics)", () => {
    const low = withUnit(triplex, { adjusters: {}, brackets: undefined, attitude: undefined });
    const found = setUpFor({ machine: low, unit: "left", heightMetres: 0.003, withGroomer: false });
    const heel = found?.unsuited.find(({ code }) => code === "no-heel");
    expect(heel).toBeDefined();
    if (heel?.code === "no-heel") expect(heel.clearMetres + heel.lacksMetres).toBeCloseTo(0.001, 9);
  });

  it("a height past the screws' travel is told with what they reach, and both ends of it are reached", () => {
    const reached = heightsReached({ machine: triplex, unit: "left", view: viewOf(triplex, "left") });
    const { leastMetres = 0, mostMetres = 0 } = reached ?? {};
    const at = (heightMetres: number) => setUpFor({ machine: triplex, unit: "left", heightMetres, withGroomer: true });
    for (const [height, isIn] of [
      [leastMetres, true],
      [mostMetres, true],
      [leastMetres - 0.0001, false],
      [mostMetres + 0.0001, false],
    ] as const) {
      const view = at(height)?.view;
      expect([height, view && isInTravel({ machine: triplex, unit: "left", view })]).toEqual([height, isIn]);
      expect(codes(at(height)?.unsuited)?.includes("out-of-travel")).toBe(!isIn);
    }
    expect(codes(at(0.3)?.unsuited)).toEqual(["no-travel-reaches"]);
    expect(
      isInTravel({ machine: withUnit(triplex, { adjusters: {} }), unit: "left", view: movedRoller(viewOf(triplex, "left"), "rear", 0.05) }),
    ).toBe(true);
  });

  it("says nothing without a side view, and of a view that cannot stand", () => {
    const blind = withUnit(triplex, { sideView: undefined });
    expect(setUpFor({ machine: blind, unit: "left", heightMetres: 0.01, withGroomer: false })).toBeUndefined();
    const crossed = { ...viewOf(triplex, "left"), front: { yMetres: -1, zMetres: 0, radiusMetres: 0.03 } };
    expect(unsuitedBy({ machine: triplex, unit: "left", view: crossed, withGroomer: false })).toEqual([]);
  });

  /** Worked example "clip" (docs/worked-examples.md): 0.5 in, 8 blades, 1,100 r/min: clip as high as the cut at 4.16 mph, and a third of it at a third. */
  it("gives the speeds between browning and ripples", () => {
    const machine = withUnit(triplex, { reel: { newDiameterMetres: 0.127, scrapDiameterMetres: 0.11, blades: 8 } });
    const of = withSheet(machine, { reelDrive: { revolutionsPerMinute: 1100, isGroundDriven: false } });
    const speeds = speedsAt({ machine: of, unit: "left", heightMetres: inch(0.5) });
    expect((speeds?.most ?? 0) / 0.44704).toBeCloseTo(4.17, 2);
    expect((speeds?.least ?? 0) * 3).toBeCloseTo(speeds?.most ?? 0, 9);
    expect(speedsAt({ machine: greens, unit: "unit", heightMetres: 0.004 })).toBeUndefined();
  });
});

describe("a setting on the sheet", () => {
  const lower = (machine: Machine, unit: string) => settingOf(movedRoller(viewOf(machine, unit), "rear", 0.001));

  it("of one unit stands with that unit, and its sisters keep theirs", () => {
    const next = withSettings(triplex, { left: lower(triplex, "left") });
    expect(viewOf(next, "left").rear.zMetres).toBeCloseTo(viewOf(triplex, "left").rear.zMetres + 0.001, 12);
    expect(viewOf(next, "right")).toEqual(viewOf(triplex, "right"));
    expect(next.sheet.unit).toEqual(triplex.sheet.unit);
  });

  it("of all of them stands on the machine's sheet, and one that was apart is no more", () => {
    const apart = withSettings(triplex, { left: lower(triplex, "left") });
    const one = lower(triplex, "right");
    const next = withSettings(apart, { left: one, middle: one, right: one });
    expect(next.units.map(({ own }) => own)).toEqual([undefined, undefined, undefined]);
    expect(next.sheet.unit?.sideView?.rear.zMetres).toBeCloseTo(one.rearZMetres, 12);
  });

  it("back to what it was is the sheet that was", () => {
    const moved = withSettings(triplex, { left: lower(triplex, "left") });
    const back = withSettings(moved, { left: settingOf(viewOf(triplex, "left")) });
    expect(back).toEqual(triplex);
  });
});
