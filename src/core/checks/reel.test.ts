import { describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import { soundReadings, spoiled } from "@/core/checks/sound";
import { type Machine, machineSchema, unitSheetOf } from "@/core/machine";
import { GAP_METRES, movedRoller, stanceOf, travelFor } from "@/core/physics/reel";
import { FASTEST_METRES_PER_SECOND } from "./ground-speed";
import type { AttitudeDetail, ContactDetail, LayoutDetail, MatchDetail, ReelSpeedDetail } from "./index";
import { worksheetsFor } from "./registry";
import { assessed, figure, IN, machineOf, refused, saysOf } from "./sheets.fixtures";
import { solidEndsThatEven } from "./unit-layout";

const triplex = machineOf("RT-1");
const five = machineOf("RF-1");
const walking = machineOf("RW-1");

/** Readings of a sound machine with some of them replaced, by path. */
const read = (check: string, machine: Machine, changes: Record<string, unknown> = {}) =>
  spoiled(soundReadings({ machine, check, random: seededRandom(3), turf: "Square" }) ?? {}, changes);
const found = <Detail>(check: string, machine: Machine, changes: Record<string, unknown> = {}) =>
  assessed<Detail>(check, machine, read(check, machine, changes));
const codes = (assessment: { findings: readonly { place: string; code: string }[] }, place: string) =>
  assessment.findings.filter((one) => one.place === place).map(({ code }) => code);

describe("which machine has which", () => {
  it("every reel check is a worksheet of the five-unit machine, none of them of a rotary", () => {
    const ids = worksheetsFor(five).map(({ id }) => id);
    expect(ids).toEqual(expect.arrayContaining(["unit-match", "reel-contact", "reel-speed", "bedknife-attitude", "unit-layout"]));
    expect(worksheetsFor(machineOf("ZT-1")).filter(({ id }) => id.startsWith("reel-") || id.startsWith("roller-"))).toEqual([]);
  });

  it("a machine of one unit has no sisters and no layout; one without groomers no groomer depth", () => {
    const ids = worksheetsFor(walking).map(({ id }) => id);
    for (const id of ["unit-match", "unit-layout", "groomer-depth"]) expect(ids).not.toContain(id);
  });

  it("a sheet without a bracket table or blade counts leaves those checks to a look", () => {
    const bare = machineSchema.parse({ ...triplex, sheet: { ...triplex.sheet, unit: {} } });
    const ids = worksheetsFor(bare).map(({ id }) => id);
    expect(ids).not.toContain("roller-position");
    expect(ids).not.toContain("reel-speed");
    expect(ids).toContain("reel-contact");
  });
});

describe("reel speed", () => {
  /** 4 mph, 11 blades at 1,000 r/min: 0.384 in (published formula). */
  const run = (changes: Record<string, unknown> = {}) => ({
    distanceMetres: 4 * 0.44704 * 20,
    seconds: [20, 20],
    heightMetres: 0.3 * IN,
    units: Object.fromEntries(triplex.units.map(({ id }) => [id, { revolutionsPerMinute: 1000, loaded: "loaded" }])),
    ...changes,
  });

  it("a clip of 0.384 in is ripples at 0.3 in of height, best at 0.5, browning at 1.2", () => {
    const calls = [0.3, 0.5, 1.2].map(
      (height) => assessed<ReelSpeedDetail>("reel-speed", triplex, run({ heightMetres: height * IN })).detail.clips[0]?.call,
    );
    expect(calls).toEqual(["ripples", "best", "browns"]);
    expect((figure(assessed("reel-speed", triplex, run()), "clip")?.value ?? 0) / IN).toBeCloseTo(0.384, 3);
  });

  it("tells the operator the speeds between browning and ripples", () => {
    const { actions } = assessed("reel-speed", triplex, run({ heightMetres: 0.3 * IN }));
    const drive = actions.find(({ code }) => code === "drive-between");
    // 0.3 in × 11 × 1,000 / 1,056 mph.
    expect(Number(drive?.mostMetresPerSecond) / 0.44704).toBeCloseTo((0.3 * 11_000) / 1056, 6);
  });

  it("a reel slow under load speaks to the engine; read without grass it clears nothing of it", () => {
    const slow = run({
      heightMetres: 0.5 * IN,
      units: Object.fromEntries(triplex.units.map(({ id }) => [id, { revolutionsPerMinute: 1200, loaded: "loaded" }])),
    });
    expect(saysOf(assessed("reel-speed", triplex, slow), "engine-speed-low")).toBe("seen");
    expect(saysOf(found("reel-speed", triplex), "engine-speed-low")).toBe("not-found");
    const idle = Object.fromEntries(triplex.units.map(({ id }) => [`units.${id}.loaded`, "idle"]));
    expect(saysOf(found("reel-speed", triplex, idle), "engine-speed-low")).toBeUndefined();
  });

  it("one slow reel among sisters that are not accuses what drives it, and clears the engine", () => {
    const one = found("reel-speed", triplex, { "units.left.revolutionsPerMinute": 900 });
    expect(saysOf(one, "engine-speed-low")).toBe("not-found");
    expect(saysOf(one, "reel-bearing-worn")).toBe("suspect");
    expect(one.actions).toContainEqual({ code: "look-at-own-drive", place: "left" });
    expect(one.actions).not.toContainEqual({ code: "full-throttle-first" });
  });

  it("advises no speed that the ground speed's own check calls too fast", () => {
    const browns = assessed("reel-speed", triplex, run({ heightMetres: 1.2 * IN }));
    const drive = browns.actions.find(({ code }) => code === "drive-between");
    if (drive) expect(Number(drive.mostMetresPerSecond)).toBeLessThanOrEqual(FASTEST_METRES_PER_SECOND.riding);
    // 1.2 in × 11 × 1,000 / 1,056 is 12.5 mph: what no one mows at.
    expect(drive).toBeDefined();
  });

  it("of a reel driven by the ground neither speed is advised: the heights its clip leaves room for are", () => {
    const fast = found("reel-speed", walking, { "units.unit.revolutionsPerMinute": 500 });
    expect(fast.actions.map(({ code }) => code)).toEqual(["height-for-clip"]);
    const { clipMetres } = (fast.detail as unknown as ReelSpeedDetail).clips[0] ?? { clipMetres: 0 };
    expect(fast.actions[0]).toMatchObject({ leastMetres: clipMetres, mostMetres: expect.closeTo(3 * clipMetres, 9) });
    expect(fast.warnings.map(({ code }) => code)).toContain("ground-driven");
  });

  it("ripples that were counted stand among the figures, without a timed run as well", () => {
    const ripples = { lengthMetres: 12.5 * IN, count: 10 };
    const all = assessed("reel-speed", triplex, run({ ripples }));
    expect((figure(all, "ripple-spacing")?.value ?? 0) / IN).toBeCloseTo(1.25, 9);
    // One blade's cut a ripple: 60 v / (z s), 4 mph and 11 blades.
    expect(figure(all, "ripple-turns")?.value).toBeCloseTo((60 * 4 * 0.44704) / (11 * 1.25 * IN), 6);
    expect(figure(all, "ripple-turns")?.standardError).toBeGreaterThan(0);
    const alone = assessed("reel-speed", triplex, { ripples });
    expect((figure(alone, "ripple-spacing")?.value ?? 0) / IN).toBeCloseTo(1.25, 9);
    expect(figure(alone, "ripple-turns")).toBeUndefined();
  });

  it("reads ripples back to what made them, and asks for a second speed where that would tell", () => {
    const result = assessed<ReelSpeedDetail>("reel-speed", triplex, run({ ripples: { lengthMetres: 1.03, count: 10 } }));
    expect(result.detail.ripples?.sources[0]?.source).toBe("reel-turn");
    // Between a reel's turn of 107 mm and half the front roller, 100 mm.
    const unsure = assessed<ReelSpeedDetail>("reel-speed", triplex, run({ ripples: { lengthMetres: 1, count: 10 } }));
    expect(unsure.actions).toContainEqual({ code: "second-speed" });
    const ripples = { lengthMetres: 1, count: 10, secondLengthMetres: 1.5, secondCount: 10, speedRatio: 1.5 };
    const told = assessed<ReelSpeedDetail>("reel-speed", triplex, run({ ripples }));
    expect(told.actions).not.toContainEqual({ code: "second-speed" });
    expect(told.detail.ripples?.sources[0]?.probability).toBeGreaterThan(0.95);
    expect(result.detail.ripples?.turns.revolutionsPerMinute).toBeCloseTo((60 * 4 * 0.44704) / (11 * 0.103), 6);
  });

  it("fourteen blades at half an inch are many, eight at a quarter few (common practice)", () => {
    const says = (machine: Machine, height: number) =>
      assessed("reel-speed", machine, {
        heightMetres: height * IN,
        units: {},
      }).warnings.find(({ code }) => code === "blades-for-height")?.says;
    expect(says(walking, 0.6)).toBe("too-many");
    expect(says(five, 0.25)).toBe("too-few");
    expect(says(walking, 0.15)).toBeUndefined();
  });
});

describe("contact", () => {
  const at = (unit: string, worst: object, more: object = {}) => ({
    ...Object.fromEntries(Object.entries(worst).map(([place, paper]) => [`units.${unit}.worst.${place}`, paper])),
    ...Object.fromEntries(Object.entries(more).map(([key, value]) => [`units.${unit}.${key}`, value])),
  });

  it.each([
    ["everywhere-loose", { left: "passes", middle: "passes", right: "passes" }, "contact-loose"],
    ["one-end", { right: "passes" }, "contact-tapered"],
    ["hollow", { middle: "passes" }, "bedknife-worn-hollow"],
  ])("%s shows its cause at its unit and no other", (code, worst, cause) => {
    const result = found("reel-contact", triplex, at("left", worst));
    expect(codes(result, "left")).toContain(code);
    expect(codes(result, "right")).toEqual(["right"]);
    expect(saysOf(result, cause)).toBe("seen");
    expect(result.verdict).toBe("out");
  });

  it("one blade that does not reach, of eleven, is that blade", () => {
    const trials = Object.fromEntries(
      Array.from({ length: 11 }, (_, k) => [k + 1, { left: "cut", middle: k === 3 ? "passes" : "cut", right: "cut" }]),
    );
    const readings = { ...read("reel-contact", triplex), units: { ...(read("reel-contact", triplex).units as object) } } as {
      units: Record<string, object>;
    };
    readings.units.left = { bearing: "sound", turns: "light-drag", closer: "cuts", trials };
    const result = assessed<ContactDetail>("reel-contact", triplex, readings);
    expect(codes(result, "left")).toEqual(["one-blade"]);
    expect(saysOf(result, "reel-blade-high")).toBe("seen");
    expect(result.actions).toEqual([{ code: "look-at-blade", place: "left", blades: "4" }]);
  });

  it("pinched paper is right for the outfield's unit set without contact, loose for the fairway's", () => {
    const pinched = { left: "pinched", middle: "pinched", right: "pinched" };
    expect(codes(found("reel-contact", five, at("middle", pinched)), "middle")).toEqual(["right"]);
    expect(codes(found("reel-contact", triplex, at("middle", pinched)), "middle")).toEqual(["everywhere-loose"]);
    const { bySchool } = found<ContactDetail>("reel-contact", five, at("middle", pinched)).detail.units.middle ?? {};
    expect(bySchool).toEqual({ "no-contact": "even", "light-contact": "everywhere-loose", "firm-contact": "everywhere-loose" });
  });

  it("a bearing that lifts comes before any setting, and one nobody looked at is said", () => {
    const lifts = found("reel-contact", triplex, at("left", { left: "passes" }, { bearing: "lifts" }));
    expect(lifts.actions).toEqual([{ code: "bearing-first", place: "left" }]);
    expect(saysOf(lifts, "reel-bearing-worn")).toBe("seen");
    const unknown = found("reel-contact", triplex, at("left", {}, { bearing: "not-known" }));
    expect(unknown.warnings).toEqual([{ code: "bearing-not-known", place: "left" }]);
  });

  it("will not cut however close is dull, whatever the paper shows", () => {
    const all = { left: "passes", middle: "passes", right: "passes" };
    const result = found("reel-contact", triplex, at("left", all, { closer: "will-not" }));
    expect(saysOf(result, "reel-dull")).toBe("seen");
    expect(result.actions).toEqual([{ code: "lap-or-grind", place: "left" }]);
  });

  it("by feeler it says how far to turn: 0.004 in at one end over the middle of its gap (half a millimetre a turn)", () => {
    const gaps = { gaps: { left: 0.0001, middle: 0.00004, right: 0.00004 } };
    const result = found("reel-contact", five, { ...at("middle", {}), "units.middle.gaps": gaps.gaps });
    expect(result.actions[0]).toMatchObject({ code: "set-parallel", place: "middle", end: "left" });
    expect(result.actions[0]?.turns).toBeCloseTo((0.0001 - 0.0000375) / 0.0005, 9);
  });

  it("one strip at one place is no pattern: it points, and names no end that was not read", () => {
    const only = assessed("reel-contact", triplex, { units: { left: { worst: { left: "passes" } } } });
    expect(codes(only, "left")).toEqual(["in-part"]);
    expect([saysOf(only, "contact-loose"), saysOf(only, "contact-tapered")]).toEqual(["suspect", "suspect"]);
    const two = assessed("reel-contact", triplex, { units: { left: { worst: { left: "passes", middle: "passes" } } } });
    expect(codes(two, "left")).toEqual(["in-part"]);
  });

  it("loose at one end of a reel that turns stiff: the other end is backed off first", () => {
    const result = found("reel-contact", triplex, at("left", { right: "passes" }, { turns: "stiff" }));
    expect(result.actions).toEqual([
      { code: "back-off", place: "left", end: "left" },
      { code: "set-parallel", place: "left", end: "right" },
    ]);
    expect(codes(result, "left")).toEqual(["one-end", "tight"]);
  });

  it("a feeler that says the other way is not turned into turns", () => {
    const all = { left: "passes", middle: "passes", right: "passes" };
    const [action] = found("reel-contact", five, { ...at("middle", all), "units.middle.gaps": { middle: 0.00003 } }).actions;
    expect(action).toEqual({ code: "bring-closer", place: "middle", end: "both" });
  });

  it("read over a bearing that lifts it clears nothing", () => {
    const lifts = found("reel-contact", triplex, at("left", {}, { bearing: "lifts" }));
    expect(lifts.evidence.filter((one) => "result" in one && one.result === "not-found")).toEqual([]);
  });

  it("refuses a trial of a blade the reel does not have, and one worse than the worst", () => {
    const more = read("reel-contact", triplex, { "units.left.trials": { 12: { left: "cut" } } });
    expect(refused("reel-contact", triplex, more)).toEqual(["more-blades-than-reel at readings.units.left.trials.12"]);
    const worse = read("reel-contact", triplex, { "units.left.trials": { 3: { left: "passes" } } });
    expect(refused("reel-contact", triplex, worse)).toEqual(["worse-than-the-worst at readings.units.left.trials.3.left"]);
  });
});

describe("rollers and knife", () => {
  it("0.002 in out of square is close to the limit, 0.004 out; it says which end and how far", () => {
    const near = found("roller-square", triplex, { "units.left.leftGapMetres": 0.00004, "units.left.rightGapMetres": 0 });
    expect(near.verdict).toBe("watch");
    const out = found("roller-square", triplex, { "units.left.leftGapMetres": 0, "units.left.rightGapMetres": 0.0001 });
    expect(saysOf(out, "front-roller-not-square")).toBe("seen");
    expect(out.actions).toEqual([
      { code: "turn-eccentric", place: "left", end: "right", turns: expect.closeTo(0.1, 9), byMetres: expect.closeTo(0.0001, 12) },
    ]);
    // Share of the front roller that reaches the edge: (0.35 + 3.6) / 8.
    expect(figure(out, "tilts-the-cut", "left")?.value).toBeCloseTo(0.0001 * (3.95 / 8), 9);
  });

  it("a unit that rocks on the bar clears nothing", () => {
    expect(saysOf(found("roller-square", triplex, { "units.left.rests": "rocks" }), "front-roller-not-square")).toBeUndefined();
  });

  it("1.5 mm packed on the front roller raises the cut by the share that reaches the edge", () => {
    const packed = found("roller-clean", triplex, {
      "units.left.frontState": "even",
      "units.left.frontLeftMetres": 0.0015,
      "units.left.frontMiddleMetres": 0.0015,
      "units.left.frontRightMetres": 0.0015,
    });
    expect(saysOf(packed, "roller-packed")).toBe("suspect");
    expect((figure(packed, "raised-by", "left")?.value ?? 0) * 1000).toBeCloseTo(1.5 * (3.95 / 8), 1);
    expect(figure(packed, "left-over-right", "left")?.value).toBe(0);
  });

  it("an even film well under the limit accuses nobody, and three of one roller are told by most of them", () => {
    const clean = Object.fromEntries(
      triplex.units.flatMap(({ id }) => [
        [`units.${id}.frontState`, "clean"],
        [`units.${id}.rearState`, "clean"],
        [`units.${id}.scraper`, "works"],
      ]),
    );
    const film = (left: number, middle: number, right: number) => {
      const sizes = { Left: left, Middle: middle, Right: right };
      const read = Object.fromEntries(Object.entries(sizes).map(([along, mm]) => [`units.left.front${along}Metres`, mm / 1000]));
      return found("roller-clean", triplex, { ...clean, "units.left.frontState": "even", ...read });
    };
    expect(saysOf(film(0.5, 0.5, 0.5), "roller-packed")).toBe("not-found");
    expect(saysOf(film(0.5, 0.7, 0.5), "roller-packed")).toBe("not-found");
    expect(saysOf(film(0.7, 0.7, 0.5), "roller-packed")).toBeUndefined();
    const one = film(0.3, 2.5, 0.3);
    expect([one.verdict, saysOf(one, "roller-packed")]).toEqual(["out", undefined]);
    expect(saysOf(film(0.3, 2.5, 2.5), "roller-packed")).toBe("seen");
  });

  it("a roller called clean with 3 mm on it is packed all the same, and clears nothing", () => {
    const thick = Object.fromEntries(["Left", "Middle", "Right"].map((along) => [`units.left.front${along}Metres`, 0.003]));
    const result = found("roller-clean", triplex, { "units.left.frontState": "clean", ...thick });
    expect([result.verdict, saysOf(result, "roller-packed")]).toEqual(["out", "seen"]);
  });

  it("a unit is skewed from one degree over its own width on, whatever that width", () => {
    for (const machine of [triplex, five]) {
      const [unit] = machine.units;
      const degree = (unit?.widthMetres ?? 0) * Math.sin(Math.PI / 180);
      const at = (share: number) => found("arm-play", machine, { [`units.${unit?.id}.skewMetres`]: degree * share });
      expect([0.6, 0.8, 1.05].map((share) => at(share).verdict)).toEqual(["in-tolerance", "watch", "out"]);
    }
  });

  /** The side view of the triplex with its screws at the front: the rear roller stays, and the knife's angle with it. */
  it("reckons the attitude at the roller its height screws move, and says which they are", () => {
    const atFront = machineSchema.parse({
      ...triplex,
      sheet: {
        ...triplex.sheet,
        unit: {
          ...triplex.sheet.unit,
          brackets: undefined,
          attitude: { leastRadians: 0.05, mostRadians: 0.06 },
          adjusters: { ...triplex.sheet.unit?.adjusters, heightEnd: "front", heightTravel: undefined },
        },
      },
    });
    const view = unitSheetOf(atFront, "left").sideView;
    const heightMetres = 0.6 * IN;
    const angleAt = (end: "front" | "rear") => {
      const up = view && travelFor({ view, end, heightMetres });
      return up === undefined || !view ? undefined : stanceOf(movedRoller(view, end, up))?.attitudeRadians;
    };
    const result = assessed("bedknife-attitude", atFront, { units: { left: { heightMetres, attitudeRadians: 0.2 } } });
    expect(figure(result, "attitude-by-geometry", "left")?.value).toBeCloseTo(angleAt("front") ?? 9, 9);
    expect(angleAt("front")).not.toBeCloseTo(angleAt("rear") ?? 9, 3);
    expect(result.actions).toContainEqual({ code: "set-attitude", place: "left", heightEnd: "front", hasHoles: false });
  });

  it("the bracket table is asked by height and groomer: the same hole is right at one height and wrong at another", () => {
    expect(found("roller-position", triplex).verdict).toBe("in-tolerance");
    const higher = found("roller-position", triplex, { heightMetres: 0.7 * IN });
    expect(saysOf(higher, "front-roller-position")).toBe("seen");
    expect(higher.actions[0]).toEqual({ code: "move-bracket", place: "left", number: 4, facing: "forward" });
    // No row is for two inches. The nearest is another hole's: that is wrong further off too, as it was at the last height there is a row for.
    const none = found("roller-position", triplex, { heightMetres: 2 * IN });
    expect(none.provisional.map(({ code }) => code)).toContain("no-row-for-height");
    expect([saysOf(none, "front-roller-position"), none.verdict]).toEqual(["seen", "out"]);
    // Nothing is called right by a row that is not for it.
    const right = Object.fromEntries(
      triplex.units.map(({ id }) => [`units.${id}.number`, higher.actions[0]?.code === "move-bracket" ? 4 : 0]),
    );
    expect(found("roller-position", triplex, { heightMetres: 2 * IN, ...right }).verdict).not.toBe("in-tolerance");
  });

  it("both ends are brought home by their own gaps: by the middle's a taper interferes at one and stays open at the other", () => {
    const throwMetres = 0.001;
    const unit = {
      ...triplex.sheet.unit,
      school: "no-contact" as const,
      adjusters: { ...triplex.sheet.unit?.adjusters, knifeThrowMetres: throwMetres },
    };
    const set = { ...triplex, sheet: { ...triplex.sheet, unit } } as typeof triplex;
    const passes = Object.fromEntries(["left", "middle", "right"].map((at) => [`units.left.worst.${at}`, "passes"]));
    const gaps = { left: 0.000085, middle: 0.000155, right: 0.000224 };
    const { actions } = found("reel-contact", set, { ...passes, "units.left.gaps": gaps });
    const moved = Object.fromEntries(
      actions.flatMap((one) => (one.code === "bring-closer" ? [[one.end, Number(one.turns ?? 0) * throwMetres]] : [])),
    );
    expect(Object.keys(moved)).toEqual(["left", "right"]);
    // Each end stands in the middle of the window of a set gap, 25 to 50 µm, and neither in the knife.
    for (const end of ["left", "right"] as const)
      expect(gaps[end] - (moved[end] ?? 0)).toBeCloseTo((GAP_METRES.least + GAP_METRES.most) / 2, 9);
  });

  it("a reel that turns stiff where paper passes everywhere is held by something else than its knife: not tight, not brought closer", () => {
    const passes = Object.fromEntries(["left", "middle", "right"].map((at) => [`units.left.worst.${at}`, "passes"]));
    const held = found("reel-contact", triplex, { "units.left.turns": "stiff", ...passes });
    expect(codes(held, "left")).toContain("held-elsewhere");
    expect([saysOf(held, "contact-tight"), saysOf(held, "contact-loose"), saysOf(held, "reel-bearing-worn")]).not.toContain("seen");
    expect(held.actions.map(({ code }) => code)).toEqual(["free-reel"]);
    const loose = found("reel-contact", triplex, passes);
    expect([saysOf(loose, "contact-loose"), loose.actions[0]?.code]).toEqual(["seen", "bring-closer"]);
    const tight = found("reel-contact", triplex, { "units.left.turns": "stiff" });
    expect(saysOf(tight, "contact-tight")).toBe("seen");
  });

  it("heel under a third of the height is a knife too thick for it; over it is right (estimate)", () => {
    const height = 0.5 * IN;
    const low = found("bedknife-attitude", triplex, { "units.left.heelMetres": height * 0.3 });
    expect(codes(low, "left")).toContain("no-heel");
    expect(saysOf(low, "bedknife-too-thick")).toBe("seen");
    expect(found("bedknife-attitude", triplex).verdict).toBe("in-tolerance");
  });

  it("an attitude past the sheet's bounds is found, and the geometry's own stands beside it", () => {
    const tipped = found<AttitudeDetail>("bedknife-attitude", triplex, { "units.left.attitudeRadians": (8 * Math.PI) / 180 });
    expect(saysOf(tipped, "bedknife-attitude-wrong")).toBe("seen");
    const byGeometry = figure(tipped, "attitude-by-geometry", "left");
    expect(((byGeometry?.value ?? 0) * 180) / Math.PI).toBeCloseTo(4, 1);
  });

  it("an old thin lip is replaced, and a knife for another height is said", () => {
    const thin = found("bedknife-attitude", triplex, { "units.left.thicknessMetres": 0.002 });
    expect(thin.warnings).toContainEqual({ code: "under-least-thickness", place: "left" });
    const low = found("bedknife-attitude", triplex, { "units.left.heightMetres": 0.006 });
    expect(low.warnings).toContainEqual({ code: "knife-not-for-height", place: "left" });
    const far = found("bedknife-attitude", triplex, { "units.left.heightMetres": 0.1 });
    expect(far.warnings).toContainEqual({ code: "height-out-of-reach", place: "left", end: "rear" });
  });

  it("half the height is the deepest a groomer goes; over the height it does nothing (estimate)", () => {
    const depth = (share: number) => found("groomer-depth", triplex, { "units.left.groomerMetres": 0.5 * IN * (1 - share) });
    expect(saysOf(depth(0.6), "groomer-aggressive")).toBe("seen");
    expect(saysOf(depth(-0.3), "groomer-shy")).toBe("seen");
    expect(saysOf(depth(0.2), "groomer-aggressive")).toBe("not-found");
  });

  // @against reel-cone: a cone by three diameters; by hand; exact
  it("0.010 in end to end is a cone; under scrap it is another reel; more than new is misread", () => {
    const coned = found("reel-cone", triplex, {
      "units.left.leftMetres": 0.1236,
      "units.left.rightMetres": 0.123,
      "units.left.middleMetres": 0.1233,
    });
    expect(saysOf(coned, "contact-tapered")).toBe("seen");
    expect(coned.actions[0]).toMatchObject({ code: "spin-grind", thick: "left" });
    const even = found("reel-cone", triplex);
    // An even reel is one way less to an uneven contact, not none.
    expect(saysOf(even, "contact-tapered")).toBeUndefined();
    const worn = found("reel-cone", triplex, {
      "units.left.leftMetres": 0.114,
      "units.left.rightMetres": 0.114,
      "units.left.middleMetres": 0.114,
    });
    expect(worn.actions).toContainEqual({ code: "replace-reel", place: "left" });
    expect(refused("reel-cone", triplex, read("reel-cone", triplex, { "units.left.leftMetres": 0.14 }))).toEqual([
      "over-new-diameter at readings.units.left.leftMetres",
    ]);
  });
});

describe("a line on the turf", () => {
  const at = (inches: number) => found("reel-edge", triplex, { lineMetres: inches * IN });
  const looks = (inches: number) => at(inches).actions.filter(({ code }) => code === "look-at-place");

  it("lies at its place on the knife that covers it: units of 26 in, 23.6 apart", () => {
    expect(looks(4)).toEqual([{ code: "look-at-place", place: "left", fromLeftMetres: expect.closeTo(4 * IN, 9) }]);
    // The middle unit begins 23.6 in from the swath's left edge.
    expect(looks(40)).toEqual([{ code: "look-at-place", place: "middle", fromLeftMetres: expect.closeTo(16.4 * IN, 9) }]);
  });

  it("and back: a nick that was measured draws its line there, and one that lies elsewhere drew another", () => {
    const nicked = (lineInches: number, fromLeft: number) =>
      found("reel-edge", triplex, {
        "units.middle.nick": "knife",
        "nickMetres.middle": fromLeft * IN,
        lineMetres: lineInches * IN,
      });
    const same = nicked(40, 16.4);
    expect(figure(same, "line-on-turf")).toMatchObject({ place: "middle", value: expect.closeTo(40 * IN, 9) });
    expect(same.warnings).toEqual([]);
    expect(nicked(40, 3).warnings).toEqual([
      { code: "draws-elsewhere", place: "middle", drawsMetres: expect.closeTo(26.6 * IN, 9), lineMetres: 40 * IN },
    ]);
    expect(refused("reel-edge", triplex, { nickMetres: { left: 30 * IN, front: 1 } })).toEqual([
      "unknown-unit at readings.nickMetres.front",
      "off-the-knife at readings.nickMetres.left",
    ]);
  });

  it("where two units overlap either may have drawn it; outside the swath neither", () => {
    expect(looks(25).map(({ place }) => place)).toEqual(["left", "middle"]);
    expect(looks(90)).toEqual([]);
    expect(at(90).warnings).toEqual([{ code: "line-outside" }]);
  });
});

describe("units beside each other", () => {
  it("a unit 0.3 mm lower than its sisters stands out by its height alone", () => {
    const height = (read("unit-match", triplex).units as Record<string, { benchMetres: number }>).middle?.benchMetres ?? 0;
    const odd = found<MatchDetail>("unit-match", triplex, { "units.right.benchMetres": height - 0.0003 });
    expect(codes(odd, "right")).toEqual(["height-differs"]);
    expect(codes(odd, "left")).toEqual(["alike"]);
    expect(saysOf(odd, "units-not-alike")).toBe("seen");
    expect(odd.actions).toEqual([{ code: "bring-alike", place: "right", property: "benchMetres" }]);
  });

  it("where no value is shared by most, all are named and none is told to follow", () => {
    const none = found("unit-match", triplex, { "units.left.blades": 9, "units.middle.blades": 10, "units.right.blades": 11 });
    for (const unit of ["left", "middle", "right"]) expect(codes(none, unit)).toContain("blades-differ");
    expect(none.actions).toEqual([]);
    expect(none.provisional).toContainEqual({ code: "no-majority", property: "blades" });
  });

  it("the five units leave a strip in turns under 66 in, as the worked layout does (docs/worked-examples.md)", () => {
    const { detail } = found<LayoutDetail>("unit-layout", five);
    expect((detail.right?.underMetres ?? 0) / IN).toBeCloseTo(66.1, 1);
    expect(((detail.crabRadians ?? 0) * 180) / Math.PI).toBeCloseTo(3.12, 2);
    const tight = found("unit-layout", five, { tightestTurnMetres: 60 * IN });
    expect(saysOf(tight, "turn-too-tight")).toBe("seen");
    expect(saysOf(found("unit-layout", five, { tightestTurnMetres: 80 * IN }), "turn-too-tight")).toBe("not-found");
    expect(saysOf(found("unit-layout", five), "turn-too-tight")).toBeUndefined();
  });

  it("a skewed unit is suspected at its arm; lines where units overlap show the rolling, with what would even it", () => {
    const askew = found("unit-layout", five, { "units.middle.ahead": "left", "units.middle.aheadMetres": 0.03 });
    expect(saysOf(askew, "arm-worn-or-bent")).toBe("suspect");
    const lines = found("unit-layout", five, { lines: "at-overlaps" });
    expect(saysOf(lines, "roller-overlap")).toBe("seen");
    expect(lines.actions.some(({ code }) => code === "solid-ends")).toBe(solidEndsThatEven(five).length > 0);
  });

  it("open ends are advised only where they roll the swath more evenly", () => {
    const [first] = solidEndsThatEven(five);
    if (!first) throw new Error("nothing better");
    const changed = machineSchema.parse({
      ...five,
      units: five.units.map((unit) => {
        const isRow = first.row === "front" ? unit.yMetres > 0 : unit.yMetres < 0;
        const key = first.end === "front" ? "frontRoller" : "rearRoller";
        return isRow ? { ...unit, own: { [key]: { kind: "smooth", hasSolidEnds: first.solid } } } : unit;
      }),
    });
    const passes = (machine: Machine) =>
      found<LayoutDetail>("unit-layout", machine).detail.rolled.map(({ from, to, passes }) => ({ width: to - from, passes }));
    const spread = (machine: Machine) => {
      const all = passes(machine);
      const width = all.reduce((sum, one) => sum + one.width, 0);
      const mean = all.reduce((sum, one) => sum + one.width * one.passes, 0) / width;
      return all.reduce((sum, one) => sum + one.width * (one.passes - mean) ** 2, 0) / width;
    };
    expect(spread(changed)).toBeLessThan(spread(five));
  });
});

describe("a size near its limit", () => {
  it("is pointed at, not shown: a gauge strays so far; twice its tolerance off it is shown", () => {
    const by = (metres: number) =>
      saysOf(found("roller-square", triplex, { "units.left.leftGapMetres": metres }), "front-roller-not-square");
    expect([by(0.00006), by(0.0001)]).toEqual(["suspect", "seen"]);
    const lift = (metres: number) => saysOf(found("reel-bearing", triplex, { "units.left.leftLiftMetres": metres }), "reel-bearing-worn");
    expect([lift(0.0001), lift(0.0002)]).toEqual(["suspect", "seen"]);
    const { middle } = read("unit-match", triplex).units as Record<string, { benchMetres: number }>;
    const low = (by_: number) =>
      saysOf(found("unit-match", triplex, { "units.right.benchMetres": (middle?.benchMetres ?? 0) - by_ }), "units-not-alike");
    expect([low(0.00008), low(0.0003)]).toEqual(["suspect", "seen"]);
  });
});

describe("looks at every unit", () => {
  it("play along the axis is by design, up and down is not", () => {
    expect(found("reel-bearing", triplex, { "units.left.leftFeel": "axial" }).verdict).toBe("in-tolerance");
    expect(saysOf(found("reel-bearing", triplex, { "units.left.leftFeel": "lifts" }), "reel-bearing-worn")).toBe("seen");
    expect(found("roller-bearing", triplex, { "units.left.frontFeel": "axial" }).verdict).toBe("in-tolerance");
    expect(saysOf(found("roller-bearing", triplex, { "units.left.rearLiftMetres": 0.0004 }), "roller-bearing-worn")).toBe("seen");
  });

  it("what a hand and a gauge both found is said once, with one thing to do, as sure as the surer", () => {
    const both = found("roller-bearing", triplex, { "units.left.frontFeel": "rises", "units.left.frontLiftMetres": 0.0002 });
    expect(codes(both, "left")).toEqual(["front-rises"]);
    expect(both.actions).toEqual([{ code: "change-roller-bearings", place: "left" }]);
    expect(saysOf(both, "roller-bearing-worn")).toBe("seen");
  });

  it("a cracked arm stops the machine, and only that unit read sound lets it go", () => {
    const cracked = found("arm-play", triplex, { "units.left.arm": "cracked" });
    expect(cracked.verdict).toBe("stop");
    expect(found("arm-play", triplex).told).toContain("left");
  });

  it("a full basket is watched and accuses no hood; a hood too far closed does", () => {
    expect(saysOf(found("clipping-path", triplex, { "units.left.basket": "full" }), "hood-misset")).toBe("not-found");
    expect(saysOf(found("clipping-path", triplex, { "units.left.hood": "closed" }), "hood-misset")).toBe("seen");
  });

  it("one unit left unread clears no cause", () => {
    for (const [check, cause] of [
      ["roller-bearing", "roller-bearing-worn"],
      ["reel-edge", "reel-dull"],
      ["reel-contact", "contact-loose"],
    ] as const) {
      const { units } = read(check, triplex) as { units: Record<string, unknown> };
      const { left: _, ...others } = units;
      expect([check, saysOf(assessed(check, triplex, { units: others }), cause)]).toEqual([check, undefined]);
    }
  });

  it("a unit read now in part is not filled up from what stood of it; one not read now is", () => {
    const { units } = read("reel-edge", triplex) as { units: Record<string, object> };
    const stood = { ...units, left: { ...units.left, nick: "knife" } };
    const part = assessed("reel-edge", triplex, { units: { left: { reel: "sharp" } }, standing: stood });
    expect([part.verdict, part.stands, codes(part, "left")]).toEqual(["not-enough-readings", ["middle", "right"], []]);
    const whole = assessed("reel-edge", triplex, { units: { middle: units.middle }, standing: stood });
    expect([whole.verdict, whole.stands, codes(whole, "left")]).toEqual(["out", ["left", "right"], ["nick-knife"]]);
  });

  it("refuses a unit the machine does not have", () => {
    expect(refused("reel-edge", walking, { units: { left: { reel: "sharp" } } })).toEqual(["unknown-unit at readings.units.left"]);
  });
});

describe("where the clippings go", () => {
  const triplex = machineOf("RT-1");
  const clear = { hood: "as-set", shield: "sound", path: "clear", basket: "seated" };
  const read = (grass?: object, left: object = {}) =>
    assessed("clipping-path", triplex, {
      units: { left: { ...clear, ...left }, middle: clear, right: clear },
      ...(grass ? { grass } : {}),
    });
  const said = (result: ReturnType<typeof read>) => [result.verdict, result.actions.map(({ code }) => code)];

  it("wet and tall are told apart, each with its own answer, and neither clears a hood (common practice)", () => {
    expect(said(read())).toEqual(["in-tolerance", []]);
    expect(said(read({ wet: "dry", tall: "within-a-third" }))).toEqual(["in-tolerance", []]);
    expect(said(read({ wet: "wet", tall: "within-a-third" }))).toEqual(["watch", ["wait-until-dry"]]);
    expect(said(read({ wet: "dry", tall: "more" }))).toEqual(["watch", ["mow-twice"]]);
    expect(said(read({ wet: "wet", tall: "more" }))).toEqual(["watch", ["wait-until-dry", "mow-twice"]]);
    const both = read({ wet: "wet", tall: "more" }, { hood: "closed" });
    expect([both.verdict, saysOf(both, "hood-misset"), saysOf(both, "too-wet-or-tall")]).toEqual(["out", "seen", "suspect"]);
  });

  it("grass that was not looked at clears nothing of the weather, and hides nothing of the hood", () => {
    expect(saysOf(read({ wet: "dry" }), "too-wet-or-tall")).toBeUndefined();
    expect(read({ wet: "dry" }).told).not.toContain("grass");
    expect(saysOf(read({ wet: "wet" }), "hood-misset")).toBe("not-found");
  });
});
