import { describe, expect, it } from "vitest";
import { gapAt } from "@/core/physics/blades/timing";
import type { TimingDetail } from "./blade-timing";
import { FASTEST_METRES_PER_SECOND, type GroundSpeedDetail } from "./ground-speed";
import type { PassDetail } from "./pass-overlap";
import { assessed, figure, IN, machineOf, refused, saysOf } from "./sheets.fixtures";
import { spindlePlay } from "./spindle-play";
import type { VibrationDetail } from "./vibration-reading";

const zeroTurn = machineOf("ZT-1");
const geared = machineOf("GR-1");

describe("blade-timing of a geared deck", () => {
  const turned = (more: object = {}) => ({
    pairs: {
      "left:middle": { turned: "clear", phaseDegrees: 90, marks: "in-line", ...more },
      "middle:right": { turned: "clear", marks: "in-line" },
    },
  });
  const time = (readings: object) => assessed<TimingDetail>("blade-timing", geared, readings);

  /** Closed form (docs/worked-examples.md, "geared blades") for this deck: ½√(L² + w²) = 12.4, δ = atan(w/L), at 90°. */
  it("passes a deck in time, with the closest approach the closed form gives", () => {
    const result = time(turned());
    expect([result.verdict, saysOf(result, "gearbox-mistimed")]).toEqual(["in-tolerance", "not-found"]);
    const length = Math.sqrt(24.8 ** 2 - 2.5 ** 2);
    const expected = 24 - 24.8 * Math.cos((Math.PI / 2 - 2 * Math.atan(2.5 / length)) / 2);
    expect((figure(result, "closest-approach")?.value ?? 0) / IN).toBeCloseTo(expected, 3);
  });

  it("stops one that strikes, by reckoning or by hand, and says where it would be clear", () => {
    const struck = time(turned({ phaseDegrees: 4 }));
    expect([struck.verdict, saysOf(struck, "gearbox-mistimed"), struck.actions[0]?.code]).toEqual(["stop", "suspect", "retime"]);
    const [from, to] = struck.detail.pairs[0]?.clearDegrees[0] ?? [0, 0];
    expect(time(turned({ phaseDegrees: from + 1 })).verdict).toBe("in-tolerance");
    expect(time(turned({ phaseDegrees: to + 1 })).verdict).not.toBe("in-tolerance");
    const byHand = time(turned({ phaseDegrees: undefined, turned: "touches" }));
    expect([byHand.verdict, saysOf(byHand, "gearbox-mistimed")]).toEqual(["stop", "seen"]);
  });

  it("clear as it stands and yet a tooth off square is not in time: it names it, and asks which is the machine's own", () => {
    const teeth = geared.sheet.gearboxes?.find(({ splineTeeth }) => splineTeeth !== undefined)?.splineTeeth ?? 0;
    const tooth = 360 / teeth;
    const asked = time(turned({ phaseDegrees: 90 - tooth, marks: undefined }));
    expect([asked.verdict, saysOf(asked, "gearbox-mistimed"), asked.actions]).toEqual([
      "watch",
      "suspect",
      [{ code: "look-at-marks", place: "left:middle", offDegrees: expect.closeTo(tooth, 9) }],
    ]);
    expect(time(turned({ phaseDegrees: 90 - tooth, marks: "in-line" })).verdict).toBe("in-tolerance");
    const off = time(turned({ phaseDegrees: 90 - tooth, marks: "off" }));
    expect([off.verdict, saysOf(off, "gearbox-mistimed"), off.actions[0]?.code]).toEqual(["out", "seen", "retime"]);
    // Under half a tooth is how it was read; within the play of the gears it says nothing.
    expect(time(turned({ phaseDegrees: 90 + tooth / 3, marks: undefined })).verdict).toBe("in-tolerance");
    expect(time(turned({ phaseDegrees: 90 + tooth, lashDegrees: 2.1 * tooth, marks: undefined })).verdict).not.toBe("watch");
  });

  it("times blades as they were measured: a short one beside a long one, found by moving them (no closed form)", () => {
    const unequal = time({
      ...turned({ phaseDegrees: 50 }),
      blades: { left: { lengthMetres: 26 * IN }, middle: { lengthMetres: 21.5 * IN } },
    });
    const [pair] = unequal.detail.pairs;
    expect(unequal.detail.fitted).toEqual({ left: 26 * IN, middle: 21.5 * IN });
    const [l, m] = [Math.sqrt(26 ** 2 - 2.5 ** 2), Math.sqrt(21.5 ** 2 - 2.5 ** 2)].map((length) => ({
      lengthMetres: length * IN,
      widthMetres: 2.5 * IN,
    }));
    let fine = Number.POSITIVE_INFINITY;
    for (let angle = 0; angle < 180; angle += 0.05)
      fine = Math.min(
        fine,
        gapAt({ one: l as never, other: m as never, centresMetres: 24 * IN, sense: "same" }, (50 * Math.PI) / 180, (angle * Math.PI) / 180),
      );
    expect(pair?.gapMetres).toBeCloseTo(fine, 4);
    expect(refused("blade-timing", geared, { blades: { fourth: { lengthMetres: 0.5 } } })).toEqual([
      "unknown-spindle at readings.blades.fourth",
    ]);
  });

  it("says what it assumed where the sheet gives no blade", () => {
    const bare = { ...geared, sheet: {} } as typeof geared;
    expect(assessed("blade-timing", bare, turned()).provisional).toEqual([{ code: "blade-width-assumed", metres: 0.0635 }]);
  });

  it("counts the gears' play against it, and waits until every pair was turned by hand", () => {
    const [from] = time(turned()).detail.pairs[0]?.clearDegrees[0] ?? [0, 0];
    expect(time(turned({ phaseDegrees: from + 1, lashDegrees: 6 })).verdict).not.toBe("in-tolerance");
    expect(time({ pairs: { "left:middle": { turned: "clear" } } }).verdict).toBe("not-enough-readings");
    expect(refused("blade-timing", geared, { pairs: { "left:right": { turned: "clear" } } })).toEqual([
      "unknown-pair at readings.pairs.left:right",
    ]);
    expect(refused("blade-timing", zeroTurn, {})).toEqual(["check-not-for-this-machine at machine.kind"]);
  });
});

describe("spindle-play", () => {
  const sound = { playMetres: 0.0004, feel: "smooth", wrap: "none", seat: "flush" };
  const play = (left: object, others: object = {}) =>
    assessed("spindle-play", zeroTurn, {
      spindles: { left: { ...sound, ...left }, middle: { ...sound, ...others }, right: { ...sound, ...others } },
    });

  it.each([
    ["sound", {}, "in-tolerance", "not-found"],
    ["rough", { feel: "rough" }, "out", "seen"],
    ["2 mm of play at the tip (over 1/16 in, estimate)", { playMetres: 0.002 }, "out", "seen"],
    ["a bearing pushed out of its bore", { seat: "step" }, "out", "seen"],
  ])("%s", (_, more, verdict, result) => {
    const assessment = play(more);
    expect([assessment.verdict, saysOf(assessment, "spindle-bearing-worn")]).toEqual([verdict, result]);
  });

  it("accuses nobody because one hub is cool, nor under 50 °C: 14, 37 and 37 °C are three sound hubs", () => {
    const celsius = (heats: readonly number[]) =>
      assessed("spindle-play", zeroTurn, {
        spindles: Object.fromEntries(["left", "middle", "right"].map((id, k) => [id, { ...sound, hubKelvin: (heats[k] ?? 0) + 273.15 }])),
      });
    expect([celsius([14, 37, 37]).verdict, celsius([14, 61, 60]).verdict]).toEqual(["in-tolerance", "in-tolerance"]);
    expect(
      celsius([30, 33, 62])
        .findings.filter(({ code }) => code === "hot")
        .map(({ place }) => place),
    ).toEqual(["right"]);
    for (const [a, b] of [
      [37, 37],
      [60, 61],
      [55, 70],
    ] as const)
      for (const cool of [10, 25, 40, 54])
        expect(celsius([cool, a, b]).findings.filter(({ code }) => code === "hot").length).toBeLessThanOrEqual(b - a > 20 ? 1 : 0);
  });

  it("suspects the hub 20 °C above the middle one (estimate), and tells wire from a bearing", () => {
    const hot = play({ hubKelvin: 345 }, { hubKelvin: 320 });
    expect([hot.verdict, saysOf(hot, "spindle-bearing-worn")]).toEqual(["watch", "suspect"]);
    expect(play({ hubKelvin: 339 }, { hubKelvin: 320 }).verdict).toBe("in-tolerance");
    const wound = play({ wrap: "wire" });
    expect([saysOf(wound, "shaft-wrapped"), saysOf(wound, "spindle-bearing-worn"), wound.actions[0]?.code]).toEqual([
      "seen",
      "not-found",
      "clear-winding",
    ]);
  });
});

describe("belt-inspection", () => {
  const spindles = (left = "turns") => ({ left: { turns: left }, middle: { turns: "turns" }, right: { turns: "turns" } });
  const good = {
    belt: {
      seated: "every-groove",
      path: "as-picture",
      state: "sound",
      width: "at-rim",
      tension: "right",
      heat: "hand-warm",
      rubs: "clear",
    },
    idlers: { state: "free", spring: "pulls" },
    guards: { state: "on" },
  };
  const belt = (more: object = {}, left?: string) =>
    assessed<{ unseen: string[] }>("belt-inspection", zeroTurn, { ...good, spindles: spindles(left), ...more });

  it("passes a belt that is right with every blade seen to turn, and clears its three causes", () => {
    const result = belt();
    expect([result.verdict, result.detail.unseen]).toEqual(["in-tolerance", []]);
    expect(["belt-off", "belt-slipping", "idler-failing"].map((cause) => saysOf(result, cause))).toEqual([
      "not-found",
      "not-found",
      "not-found",
    ]);
  });

  it("does not pass before every blade was seen to turn; one that stands is a belt off its groove", () => {
    const unseen = belt({ spindles: { left: { turns: "turns" } } });
    expect([unseen.verdict, unseen.detail.unseen]).toEqual(["not-enough-readings", ["middle", "right"]]);
    const stands = belt({}, "stands");
    expect([stands.verdict, saysOf(stands, "belt-off")]).toEqual(["out", "seen"]);
  });

  it("names the belt, the idler or the spring, and asks for a picture where none is held", () => {
    expect(saysOf(belt({ belt: { ...good.belt, state: "glazed" } }), "belt-slipping")).toBe("seen");
    expect(saysOf(belt({ idlers: { state: "rough", spring: "pulls" } }), "idler-failing")).toBe("seen");
    const bare = belt({ belt: { ...good.belt, path: "no-picture" } });
    // Said honestly it is right as far as anybody can see, and clears nothing that a picture would have shown.
    expect([bare.verdict, bare.actions.map(({ code }) => code), saysOf(bare, "belt-off")]).toEqual([
      "in-tolerance",
      ["photograph-belt"],
      undefined,
    ]);
    // As a picture that nobody has: the same. Where nothing is known of pictures, the word is taken.
    const unheld = belt({ isPictureHeld: false });
    expect([unheld.verdict, unheld.actions, saysOf(unheld, "belt-off")]).toEqual([bare.verdict, bare.actions, undefined]);
    expect(saysOf(belt({ isPictureHeld: true }), "belt-off")).toBe("not-found");
    const cold = belt({ belt: { ...good.belt, heat: undefined, rubs: undefined } });
    expect([cold.verdict, cold.provisional, saysOf(cold, "belt-slipping")]).toEqual(["in-tolerance", [], undefined]);
    expect(belt({ belt: { ...good.belt, tension: "went-on-easily" } }).warnings).toEqual([{ code: "belt-not-on" }]);
  });
});

describe("ground-speed", () => {
  const run = (readings: object) => assessed<GroundSpeedDetail>("ground-speed", zeroTurn, readings);

  /** Worked example "tip speed" (docs/worked-examples.md): 6 mph, 3,000 r/min, two edges: 1.06 in. */
  it("bites 1.06 in at 6 mph and 3,000 r/min", () => {
    const result = run({ distanceMetres: 100, seconds: [100 / 2.68224], revolutionsPerMinute: 3000 });
    expect((result.detail.biteMetres ?? 0) / IN).toBeCloseTo(1.06, 2);
    expect([result.verdict, result.warnings, result.detail.fastestMetresPerSecond]).toEqual([
      "in-tolerance",
      [],
      FASTEST_METRES_PER_SECOND.riding,
    ]);
    const atRated = run({ distanceMetres: 100, seconds: [40, 40] });
    expect(atRated.warnings).toEqual([{ code: "bite-at-rated-speed", revolutions: zeroTurn.sheet.blade?.ratedRevolutionsPerMinute }]);
  });

  it("is too fast when bite outgrows the sharp edge, too slow below a crawl; takes the mean of its runs", () => {
    const fast = run({ distanceMetres: 100, seconds: [20, 20.4], revolutionsPerMinute: 2000 });
    expect(fast.detail.metresPerSecond).toBeCloseTo(100 / 20.2, 9);
    expect(fast.verdict).toBe("out");
    expect(saysOf(fast, "ground-speed-high")).toBeGreaterThan(100);
    expect(saysOf(fast, "ground-speed-low")).toBeLessThan(0.1);
    const slow = run({ distanceMetres: 20, seconds: [60] });
    expect(slow.verdict).toBe("out");
    expect(saysOf(slow, "ground-speed-low")).toBeGreaterThan(10);
    expect(slow.provisional).toEqual([{ code: "one-run" }]);
  });

  /** What is called too fast (estimate) is 3 m/s riding and 1.7 on foot, and more; a sharp bite needs 6 to 8. */
  it("is too fast by what is mown at, riding and on foot, long before the bite outgrows the edge, the surer the further over", () => {
    const at = (speed: number, machine = zeroTurn) =>
      assessed<GroundSpeedDetail>("ground-speed", machine, { distanceMetres: 30, seconds: [30 / speed, 30 / speed], throttle: "full" });
    const says = (speed: number) => Number(saysOf(at(speed), "ground-speed-high"));
    expect([at(3.2).verdict, at(2.8).verdict, at(1.8).verdict]).toEqual(["out", "watch", "in-tolerance"]);
    // Just over it a stopwatch would say either; a third over is no stopwatch.
    expect(says(1.8)).toBeLessThan(0.1);
    expect(says(2.8)).toBeGreaterThan(1);
    expect(says(2.8)).toBeLessThan(3);
    expect(says(3.2)).toBeGreaterThan(8);
    expect(says(3.6)).toBeGreaterThan(60);
    const walk = machineOf("WP-1");
    expect([at(1.9, walk).verdict, at(1.7, walk).verdict, at(1.2, walk).verdict]).toEqual(["out", "watch", "in-tolerance"]);
  });

  it("waits for a distance and a time", () => {
    expect(run({ seconds: [12] }).verdict).toBe("not-enough-readings");
    expect(run({ throttle: "below-full" }).actions).toEqual([{ code: "full-throttle" }]);
  });
});

describe("pass-overlap", () => {
  const width = (2 * 16.2 + 17) * IN;
  const pass = (readings: object) => assessed<PassDetail>("pass-overlap", zeroTurn, readings);

  it("is width of cut less the spacing: 3 in is right (common practice 2 to 4 in), none leaves a line", () => {
    const right = pass({ acrossMetres: 10 * (width - 3 * IN), passes: 10 });
    expect([right.verdict, saysOf(right, "pass-overlap-small")]).toEqual(["in-tolerance", "not-found"]);
    expect((right.detail.overlapMetres ?? 0) / IN).toBeCloseTo(3, 9);
    const line = pass({ acrossMetres: 10 * (width + 1 * IN), passes: 10 });
    expect([line.verdict, saysOf(line, "pass-overlap-small"), line.actions[0]?.code]).toEqual(["out", "seen", "closer-passes"]);
    expect(pass({ acrossMetres: 4 * (width - 10 * IN), passes: 4 }).actions[0]?.code).toBe("wider-passes");
  });

  // @against pass-overlap: area an hour; by hand: spacing × speed × 0.8; 0.005 ha
  it("says what it mows an hour: spacing × speed × 0.8 (by hand: 1.2 m at 2 m/s is 0.69 ha)", () => {
    expect(pass({ acrossMetres: 12, passes: 10, groundMetresPerSecond: 2 }).detail.hectaresPerHour).toBeCloseTo(1.2 * 2 * 0.8 * 0.36, 9);
  });

  /** Worked example "blade layout" (docs/worked-examples.md): this deck misses in turns from 42 to 159 in, 6 mm is lost from 38 to 241. */
  it("finds a turn too tight for the blades", () => {
    const base = { acrossMetres: 10 * (width - 3 * IN), passes: 10 };
    const tight = pass({ ...base, tightestTurnMetres: 66 * IN });
    // Every machine that spins on the spot turns so, sound or not: weighed ten to one, not sixty.
    expect(tight.evidence).toContainEqual({ cause: "turn-too-tight", likelihoodRatio: 10 });
    expect(tight.actions).toContainEqual({ code: "turn-wider", radiusMetres: expect.closeTo(241 * IN, 1) });
    expect(saysOf(pass({ ...base, tightestTurnMetres: 300 * IN }), "turn-too-tight")).toBe("not-found");
    const near = pass({ ...base, tightestTurnMetres: 200 * IN });
    // Nothing opens there: it is no turn too tight, and a blade's wear away from one.
    expect([near.verdict, saysOf(near, "turn-too-tight")]).toEqual(["watch", "not-found"]);
  });

  it("calls no turn better for being tighter", () => {
    const base = { acrossMetres: 10 * (width - 3 * IN), passes: 10 };
    const worse = ["in-tolerance", "watch", "out"];
    const verdicts = [300, 200, 150, 66, 40, 30, 12, 4].map((radius) =>
      worse.indexOf(pass({ ...base, tightestTurnMetres: radius * IN }).verdict),
    );
    expect(verdicts).toEqual([...verdicts].sort((a, b) => a - b));
    expect(verdicts.at(-1)).toBe(2);
  });

  it("is right just inside what it shows, 2 to 4 in, and watched outside", () => {
    const share = (inches: number) => pass({ acrossMetres: 10 * (width - inches * IN), passes: 10 });
    expect([1.9, 2, 3.9, 4.2, 5.5, 8.2].map((inches) => share(inches).verdict)).toEqual([
      "watch",
      "in-tolerance",
      "in-tolerance",
      "watch",
      "watch",
      "out",
    ]);
  });
});

/** What is looked at, and what follows: common practice. */
describe("gearbox-inspection", () => {
  const sound = {
    teeth: "whole",
    pin: "straight",
    metal: "none",
    bearings: "smooth",
    seal: "dry",
    sealFace: "unworn",
    oil: "clean",
    depthMetres: 2.25 * IN,
    stood: "hours",
  };
  const look = (left: object, others: object = {}) =>
    assessed<{ again: string[] }>("gearbox-inspection", geared, {
      boxes: { "left-box": { ...sound, ...left }, "middle-box": { ...sound, ...others }, "right-box": { ...sound, ...others } },
    });

  it("passes three sound boxes and clears both causes, and only once every one was looked into", () => {
    const result = look({});
    expect([result.verdict, saysOf(result, "gear-teeth-broken"), saysOf(result, "gearbox-oil-low")]).toEqual([
      "in-tolerance",
      "not-found",
      "not-found",
    ]);
    const some = assessed("gearbox-inspection", geared, { boxes: { "left-box": sound } });
    expect([some.verdict, saysOf(some, "gear-teeth-broken")]).toEqual(["not-enough-readings", undefined]);
  });

  it.each([
    ["a broken tooth", { teeth: "broken" }, "stop", "gear-teeth-broken", "seen", "rebuild-box"],
    ["a sheared pin", { pin: "sheared" }, "stop", "gearbox-pin-sheared", "seen", "change-pin"],
    ["a pin that bent instead of shearing", { pin: "bent" }, "out", "gearbox-pin-sheared", "suspect", "change-pin"],
    ["chips in the oil", { metal: "chips" }, "out", "gear-teeth-broken", "seen", "rebuild-box"],
    ["a seal that weeps", { seal: "weeps" }, "out", "gearbox-oil-low", "seen", "change-seal"],
    ["oil a quarter inch low", { depthMetres: 2.5 * IN }, "out", "gearbox-oil-low", "seen", "fill-oil"],
    ["fine metal only", { metal: "fine" }, "watch", "gear-teeth-broken", "not-found", undefined],
  ])("%s", (_, more, verdict, cause, result, action) => {
    const found = look(more);
    expect([found.verdict, saysOf(found, cause), found.actions[0]?.code]).toEqual([verdict, result, action]);
  });

  it("of connected boxes just filled is to be read again after standing, and too much oil is let out", () => {
    const fresh = look({ stood: "just-filled" });
    expect([fresh.detail.again, fresh.provisional, fresh.actions.map(({ code }) => code)]).toEqual([
      ["left-box"],
      [{ code: "oil-not-stood", place: "left-box" }],
      ["oil-again"],
    ]);
    expect(look({ depthMetres: 2 * IN }).actions[0]).toMatchObject({ code: "let-oil-out", metres: expect.closeTo(0.25 * IN, 9) });
  });

  it("is not for a belt deck, nor for a box that is not there", () => {
    expect(refused("gearbox-inspection", zeroTurn, {})).toEqual(["check-not-for-this-machine at machine.kind"]);
    expect(refused("gearbox-inspection", geared, { boxes: { fourth: sound } })).toEqual(["unknown-gearbox at readings.boxes.fourth"]);
  });
});

/** A hand cannot tell an unbalanced blade from a worn bearing: one finding for both (common practice). */
describe("vibration felt by hand", () => {
  const felt = (machine: object, more: object = {}) => assessed<VibrationDetail>("vibration-reading", zeroTurn, { machine, ...more });
  const strong = { felt: "strong", with: "blades", worst: "at-full", where: "deck" };

  it("with the blades suspects one of two causes, most at the hub where it is strong", () => {
    const result = felt(strong, { spindles: { left: { felt: "none" }, middle: { felt: "strong" } }, worstRevolutionsPerMinute: 3600 });
    expect([result.verdict, saysOf(result, "spindle-bearing-worn"), result.detail]).toEqual([
      "out",
      "one of 2",
      { worstAt: ["middle"], timesPerSecond: 60 },
    ]);
    expect(result.actions[0]).toMatchObject({ code: "look-at-blades", place: "middle" });
  });

  it("of the engine alone, of travel, or none at all clears the blades", () => {
    for (const runs of ["engine-alone", "travel"])
      expect(["blade-unbalanced", "spindle-bearing-worn"].map((cause) => saysOf(felt({ ...strong, with: runs }), cause))).toEqual([
        "not-found",
        "not-found",
      ]);
    expect(felt({ felt: "none" }).verdict).toBe("in-tolerance");
  });

  it("waits for what has to run for it to be felt, and says it was felt and not recorded", () => {
    expect(felt({ felt: "light" }).verdict).toBe("not-enough-readings");
    expect(felt({ ...strong, felt: "light" })).toMatchObject({
      verdict: "watch",
      provisional: [],
      warnings: [{ code: "felt-not-recorded" }],
    });
    expect(refused("vibration-reading", zeroTurn, { spindles: { fourth: { felt: "none" } } })).toEqual([
      "unknown-spindle at readings.spindles.fourth",
    ]);
  });
});

describe("a blade on the engine's own shaft", () => {
  const walk = machineOf("WP-1");
  const cordless = machineOf("WC-1");
  const sound = { playMetres: 0.0002, feel: "smooth", wrap: "none", key: "whole", shaftEnd: "true" };
  const look = (machine: typeof walk, more: object = {}) =>
    assessed("spindle-play", machine, { spindles: { blade: { ...sound, ...more } } });

  it("after a strike is judged by key and shaft's end, each by itself; a petrol engine's own goes out of service", () => {
    const said = (machine: typeof walk, more: object = {}) => {
      const found = look(machine, more);
      return [found.verdict, saysOf(found, "key-sheared"), saysOf(found, "crankshaft-bent"), found.actions[0]?.code];
    };
    expect(said(walk)).toEqual(["in-tolerance", "not-found", "not-found", undefined]);
    expect(said(walk, { key: "sheared" })).toEqual(["stop", "seen", "not-found", "hold-for-crankshaft"]);
    expect(said(walk, { shaftEnd: "wobbles" })).toEqual(["stop", "not-found", "seen", "hold-for-crankshaft"]);
    expect(said(cordless, { key: "sheared" }).slice(1, 3)).toEqual([undefined, undefined]);
  });

  it("with a sheared key is stopped whatever else is found, and no bearing of an engine is changed at the bench", () => {
    const both = look(walk, { key: "sheared", feel: "rough", playMetres: 0.003 });
    expect([both.verdict, saysOf(both, "key-sheared"), saysOf(both, "crankshaft-bent")]).toEqual(["stop", "seen", "suspect"]);
    const rough = look(walk, { feel: "rough" });
    expect([rough.verdict, saysOf(rough, "crankshaft-bent"), rough.actions.map(({ code }) => code)]).toEqual([
      "out",
      "suspect",
      ["hold-for-crankshaft"],
    ]);
  });

  it("asks for neither seat nor grease", () => {
    const asked = spindlePlay.form?.(walk, {}).fields.map(({ path }) => path.at(-1));
    expect(asked).toEqual(["playMetres", "feel", "wrap", "key", "shaftEnd", "hubKelvin"]);
    expect(look(walk, { key: undefined }).verdict).toBe("not-enough-readings");
  });
});

describe("hub heat typed in mixed units", () => {
  const sound = { playMetres: 0.0004, feel: "smooth", wrap: "none", seat: "flush" };
  const fahrenheit = (value: number) => (value + 459.67) / 1.8;
  const hubs = (heats: readonly number[]) =>
    assessed("spindle-play", zeroTurn, {
      spindles: Object.fromEntries(["left", "middle", "right"].map((id, k) => [id, { ...sound, hubKelvin: heats[k] }])),
    });

  it("does not accuse two hubs because the third was typed in °C into a °F field, and says so", () => {
    const mixed = hubs([115, 46, 118].map(fahrenheit));
    expect([mixed.warnings, mixed.marks?.some(({ code }) => code === "hot")]).toEqual([
      [{ code: "hub-unit-doubtful", place: "middle" }],
      false,
    ]);
    expect(mixed.provisional).toEqual([{ code: "hub-unit-doubtful", place: "middle" }]);
  });

  it("still says which hub is hot where only one scale makes sense", () => {
    const hot = hubs([115, 165, 118].map(fahrenheit));
    expect([hot.warnings, hot.marks?.find(({ code }) => code === "hot")?.place]).toEqual([[], "middle"]);
  });
});

describe("what the spindle log brings", () => {
  it("asks for grease by how many hours it is over, beside whatever is found", () => {
    const sound = { playMetres: 0.0004, feel: "smooth", wrap: "none", seat: "flush" };
    const result = assessed("spindle-play", zeroTurn, {
      spindles: { left: sound, middle: sound, right: sound },
      grease: [{ place: "left", what: "purge", overHours: 12 }],
    });
    expect([result.verdict, result.actions]).toEqual([
      "in-tolerance",
      [{ code: "grease-spindle", place: "left", what: "purge", overHours: 12 }],
    ]);
  });
});

describe("a belt of another length than the sheet's", () => {
  it("is out past half an inch (estimate), and suspected of slipping", () => {
    const read = (inches: number) => assessed("belt-inspection", zeroTurn, { lengthMetres: inches * IN });
    expect([95.4, 95.8].map((inches) => figure(read(inches), "belt-length")?.verdict)).toEqual(["in-tolerance", "watch"]);
    const other = read(97);
    expect([other.verdict, saysOf(other, "belt-slipping"), other.actions[0]?.code]).toEqual(["out", "suspect", "belt-of-length"]);
  });
});
