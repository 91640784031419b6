import { describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import { FOOT_METRES, INCH_METRES, toSi } from "@/core/basics/units";
import {
  type Along,
  CLIP_SHARE,
  callClip,
  clipOf,
  coneOf,
  contactTurn,
  crabThatOpens,
  crestHeight,
  edgeShare,
  fourthOf,
  GAP_METRES,
  gapSays,
  grindsLeft,
  groundLine,
  heightOver,
  type LaidUnit,
  laidOn,
  leastShared,
  meanRise,
  movedRoller,
  type Paper,
  paperSays,
  planGrind,
  type RippleMachine,
  readContact,
  reelLife,
  rippleRise,
  rippleSources,
  rolledAcross,
  rolledShare,
  type SideView,
  scalpingRadius,
  secondSpeedParts,
  sideProblems,
  speedForClip,
  squaringTurn,
  stanceOf,
  travelFor,
  turnsFromRipples,
  turnThatOpens,
  unitOverlaps,
  unitOverlapsInTurn,
} from "./index";

const SEED = 20_261_126;
const inch = (value: number) => value * INCH_METRES;
const inches = (metres: number | undefined) => (metres ?? Number.NaN) / INCH_METRES;
const degrees = (radians: number | undefined) => ((radians ?? Number.NaN) * 180) / Math.PI;
const at = (y: number, z: number) => ({ yMetres: inch(y), zMetres: inch(z) });

/** Worked example "bench unit" (docs/worked-examples.md). */
const UNIT: SideView = {
  front: { ...at(3.2, 1.25), radiusMetres: inch(1.25) },
  rear: { ...at(-3, 1), radiusMetres: inch(1) },
  edge: at(0.4, 0.5),
  heel: at(-0.9, 0.42),
};

// @against bedknife-attitude: height, tilt and heel of a unit on its rollers; worked example “bench unit” (physics); 0.0005 in, 0.005°
describe("a unit on its rollers", () => {
  it("stands level at 0.500 in; its front roller 0.060 lower raises it to 0.533 and tips it 0.55° nose up (worked example)", () => {
    const level = stanceOf(UNIT);
    expect(inches(level?.heightMetres)).toBeCloseTo(0.5, 4);
    expect(degrees(level?.tiltRadians)).toBeCloseTo(0, 2);
    const lowered = stanceOf(movedRoller(UNIT, "front", inch(-0.06)));
    expect(inches(lowered?.heightMetres)).toBeCloseTo(0.533, 3);
    expect(degrees(lowered?.tiltRadians)).toBeCloseTo(-0.55, 2);
  });

  it("made up for at the rear roller it is 1.23° nose up, and the heel goes from 0.420 to 0.392 (worked example)", () => {
    const lowered = movedRoller(UNIT, "front", inch(-0.06));
    const up = travelFor({ view: lowered, end: "rear", heightMetres: inch(0.5) });
    expect(inches(up)).toBeCloseTo(0.073, 3);
    const made = stanceOf(movedRoller(lowered, "rear", up ?? 0));
    expect(degrees(made?.tiltRadians)).toBeCloseTo(-1.23, 2);
    expect(inches(made?.heightMetres)).toBeCloseTo(0.5, 6);
    expect(inches(made?.heelMetres)).toBeCloseTo(0.392, 3);
  });

  it("touches both rollers and nothing of them lies under the ground line, whatever their size and place (physics)", () => {
    const random = seededRandom(SEED);
    for (let k = 0; k < 200; k++) {
      const view = {
        front: { ...at(2 + random() * 3, random() * 2), radiusMetres: inch(0.6 + random()) },
        rear: { ...at(-2 - random() * 3, random() * 2), radiusMetres: inch(0.6 + random()) },
      };
      const line = groundLine(view);
      if (!line) throw new Error("cannot stand");
      for (const roller of [view.front, view.rear]) {
        expect(heightOver(line, roller)).toBeCloseTo(roller.radiusMetres, 12);
        for (let a = 0; a < 12; a++) {
          const point = {
            yMetres: roller.yMetres + roller.radiusMetres * Math.cos(a),
            zMetres: roller.zMetres + roller.radiusMetres * Math.sin(a),
          };
          expect(heightOver(line, point)).toBeGreaterThan(-1e-12);
        }
      }
    }
  });

  it("with equal rollers is the line between their centres let down by a radius (closed form)", () => {
    const view = { front: { ...at(3, 1.2), radiusMetres: inch(1) }, rear: { ...at(-3, 1), radiusMetres: inch(1) }, edge: at(0, 0.4) };
    const slope = 0.2 / 6;
    const height = (0.4 - 1.1) * Math.cos(Math.atan(slope)) + 1;
    expect(inches(stanceOf(view)?.heightMetres)).toBeCloseTo(height, 9);
  });

  it("turning the unit's frame turns nothing of how it stands (property)", () => {
    const a = 0.3;
    const turn = <P extends { yMetres: number; zMetres: number }>(p: P): P => ({
      ...p,
      yMetres: p.yMetres * Math.cos(a) - p.zMetres * Math.sin(a),
      zMetres: p.yMetres * Math.sin(a) + p.zMetres * Math.cos(a),
    });
    const turned = { ...UNIT, front: turn(UNIT.front), rear: turn(UNIT.rear), edge: turn(UNIT.edge), heel: turn(at(-0.9, 0.42)) };
    expect(stanceOf(turned)?.heightMetres).toBeCloseTo(stanceOf(UNIT)?.heightMetres ?? 0, 12);
    expect(stanceOf(turned)?.heelMetres).toBeCloseTo(stanceOf(UNIT)?.heelMetres ?? 0, 12);
  });

  // @against roller-clean: how far a pack raises the cut; worked example “bench unit” (physics); 0.005 mm
  it("a share p of 0.548 of what the front roller moves reaches the edge; 1 mm of pack raises it by 0.55 (worked example)", () => {
    expect(edgeShare(UNIT)).toBeCloseTo(0.548, 3);
    const packed = stanceOf(laidOn(UNIT, { front: 0.001 }));
    expect(((packed?.heightMetres ?? 0) - inch(0.5)) * 1000).toBeCloseTo(0.55, 2);
    const sunk = stanceOf(laidOn(UNIT, { front: -0.0003, rear: -0.0003 }));
    expect(((sunk?.heightMetres ?? 0) - inch(0.5)) * 1000).toBeCloseTo(-0.3, 3);
  });

  it("refuses rollers that overlap or stand the wrong way about, and a height that no travel reaches", () => {
    expect(sideProblems({ front: { ...at(1, 1), radiusMetres: inch(1) }, rear: { ...at(0, 1), radiusMetres: inch(1) } })).toEqual([
      "rollers-overlap",
    ]);
    expect(sideProblems({ front: UNIT.rear, rear: UNIT.front })).toEqual(["rollers-crossed"]);
    expect(stanceOf({ ...UNIT, front: UNIT.rear, rear: UNIT.front })).toBeUndefined();
    expect(travelFor({ view: UNIT, end: "rear", heightMetres: 0.2 })).toBeUndefined();
  });
});

describe("crests", () => {
  const over = (span: number): SideView => ({
    front: { ...at(span / 2, 1.25), radiusMetres: inch(1.25) },
    rear: { ...at(-span / 2, 1.25), radiusMetres: inch(1.25) },
    edge: at(0, 0.125),
  });

  it("6.5 in of wheelbase scalps crests under 41 in, 5.25 in under 26 in (worked example)", () => {
    expect(inches(scalpingRadius(over(6.5))?.radiusMetres)).toBeCloseTo(41, 0);
    expect(inches(scalpingRadius(over(5.25))?.radiusMetres)).toBeCloseTo(26.4, 1);
  });

  // @against bedknife-attitude: crests that are scalped; closed form: sagitta of a circle; 1e-12 m
  it("stands as high as the sagitta of a circle through both rollers' centres (closed form, equal radii)", () => {
    const [radius, w, r] = [inch(60), inch(6.5), inch(1.25)];
    const exact = radius + r - Math.sqrt((radius + r) ** 2 - (w / 2) ** 2);
    expect(crestHeight({ view: over(6.5), crestRadiusMetres: radius, along: 0 })).toBeCloseTo(exact, 12);
    // u·(w − u)/(2(Rc + r)) away from the middle, to its own order.
    const u = inch(2);
    const near = (u * (w - u)) / (2 * (radius + r));
    expect(crestHeight({ view: over(6.5), crestRadiusMetres: radius, along: w / 2 - u })).toBeCloseTo(near, 4);
  });

  it("touches both rollers from below, of whatever size (property)", () => {
    const view = { front: { ...at(3, 1.3), radiusMetres: inch(1.3) }, rear: { ...at(-3, 0.9), radiusMetres: inch(0.9) } };
    const [radius, gap] = [inch(50), 1e-9];
    for (const roller of [view.front, view.rear]) {
      const line = groundLine(view);
      if (!line) throw new Error("cannot stand");
      let least = Number.POSITIVE_INFINITY;
      for (let k = -400; k <= 400; k++) {
        const y = roller.yMetres + (k / 400) * roller.radiusMetres * 0.6;
        const under = roller.zMetres - Math.sqrt(roller.radiusMetres ** 2 - (y - roller.yMetres) ** 2);
        least = Math.min(least, under - (crestHeight({ view, crestRadiusMetres: radius, along: y }) ?? 0));
      }
      expect(Math.abs(least)).toBeLessThan(2e-7 + gap);
    }
  });

  it("a heel that hangs low scalps before the edge does", () => {
    const low = { ...over(6.5), heel: at(-0.6, 0.05) };
    expect(scalpingRadius(low)?.touches).toBe("heel");
    expect(scalpingRadius(low)?.radiusMetres).toBeGreaterThan(scalpingRadius(over(6.5))?.radiusMetres ?? 0);
    expect(scalpingRadius({ ...low, heel: at(-0.6, -0.01) })).toBeUndefined();
  });
});

const mph = (value: number) => toSi(value, "mph");

// @against reel-speed: clip; published: mph · 1056/(blades · r/min); 1e-9 in
describe("clip", () => {
  it.each([
    [4, 11, 1000, 0.384],
    [3.6, 14, 2000, 0.136],
  ])("%s mph, %s blades, %s r/min: %s in (published formula: mph × 1056 / (blades × r/min))", (speed, blades, turns, wanted) => {
    const clip = clipOf({ groundMetresPerSecond: mph(speed), blades, revolutionsPerMinute: turns });
    expect(inches(clip)).toBeCloseTo(wanted, 3);
    expect(inches(clip)).toBeCloseTo((speed * 1056) / (blades * turns), 9);
  });

  it("8 blades at 1,100 r/min and half an inch allow 4.16 mph (worked example)", () => {
    const most = fourthOf({ blades: 8, revolutionsPerMinute: 1100, heightMetres: inch(0.5) })?.window.most ?? 0;
    expect(Math.floor((most / mph(1)) * 100) / 100).toBe(4.16);
  });

  it("any three give the fourth, and on its limit the clip is the height, or a third of it (property)", () => {
    const all = { groundMetresPerSecond: 1.7, revolutionsPerMinute: 1150, blades: 9, heightMetres: 0.011 };
    for (const key of ["groundMetresPerSecond", "revolutionsPerMinute", "heightMetres"] as const) {
      const { [key]: _, ...three } = all;
      const fourth = fourthOf(three);
      expect(fourth?.of).toBe(key);
      const shares = [fourth?.window.least, fourth?.window.most].map((value) => {
        const filled = { ...all, [key]: value };
        return clipOf(filled) / filled.heightMetres;
      });
      expect(Math.max(...shares)).toBeCloseTo(CLIP_SHARE.ripples, 9);
      expect(Math.min(...shares)).toBeCloseTo(CLIP_SHARE.browns, 9);
    }
    const { blades: _, ...noBlades } = all;
    const { least = 0, most = 0 } = fourthOf(noBlades)?.window ?? {};
    expect(clipOf({ ...all, blades: least })).toBeLessThanOrEqual(all.heightMetres);
    expect(clipOf({ ...all, blades: least - 1 })).toBeGreaterThan(all.heightMetres);
    expect(clipOf({ ...all, blades: most + 1 })).toBeLessThan(all.heightMetres / 3);
    expect(fourthOf({ blades: 9, heightMetres: 0.01 })).toBeUndefined();
    expect(fourthOf(all)).toBeUndefined();
  });

  it("calls ripples over the height, browning under a third of it, and between them best from half", () => {
    expect([1.01, 1, 0.5, 0.49, 0.34, 0.33].map((share) => callClip(share * 0.012, 0.012))).toEqual([
      "ripples",
      "best",
      "best",
      "short",
      "short",
      "browns",
    ]);
  });

  it("ripples rise 3.31 mm and 1.16 on average at clip 9.754 under 12.7, half-drawn 0.90 and 0.31 (worked example)", () => {
    const cut = { heightMetres: 0.0127, clipMetres: 0.009754 };
    const mm = (value: number) => value * 1000;
    expect(mm(rippleRise(cut))).toBeCloseTo(3.31, 2);
    expect(mm(meanRise(cut))).toBeCloseTo(1.16, 2);
    expect(mm(rippleRise({ ...cut, draw: 0.5 }))).toBeCloseTo(0.9, 2);
    expect(mm(meanRise({ ...cut, draw: 0.5 }))).toBeCloseTo(0.31, 2);
    expect(rippleRise({ heightMetres: 1, clipMetres: 1 })).toBeCloseTo(0.414, 3);
    expect(rippleRise({ heightMetres: 1, clipMetres: 0.5 })).toBeCloseTo(0.118, 3);
  });

  // @against reel-speed: how far ripples rise; 100,000 leaves counted one by one; 1e-6
  it("the mean rise is the leaves' own, counted one by one (reference: 100,000 leaves)", () => {
    const leaves = 100_000;
    let sum = 0;
    for (let k = 0; k < leaves; k++) sum += Math.hypot(12.7, (9.754 * (k + 0.5)) / leaves) - 12.7;
    expect(meanRise({ heightMetres: 12.7, clipMetres: 9.754 })).toBeCloseTo(sum / leaves, 6);
  });
});

// @against reel-speed: what made ripples of a spacing; worked example “ripples” (spacings by geometry); 0.05 mm; 0.005 of a probability
describe("ripples read back", () => {
  /** Worked example "ripples" (docs/worked-examples.md). */
  const MACHINE: RippleMachine = {
    groundMetresPerSecond: mph(4),
    blades: 11,
    revolutionsPerMinute: 1000,
    frontRollerMetres: inch(3),
    rearRollerMetres: inch(2.5),
    tyreMetres: inch(20),
    lugs: 20,
  };
  const of = (reading: Parameters<typeof rippleSources>[1], source: string) =>
    rippleSources(MACHINE, reading).find((one) => one.source === source)?.probability ?? Number.NaN;
  const spacing = (source: string) => rippleSources(MACHINE, { spacingMetres: 0.1 }).find((one) => one.source === source)?.spacing;

  it("spacings of the candidates: 9.8, 107, 239, 199, 1,596, 80, bounce 397 to 894 mm", () => {
    const mm = (["clip", "reel-turn", "front-roller", "rear-roller", "tyre", "tyre-lug"] as const).map(
      (source) => Math.round(Number(spacing(source)) * 10_000) / 10,
    );
    expect(mm).toEqual([9.8, 107.3, 239.4, 199.5, 1595.9, 79.8]);
    const bounce = spacing("bounce") as { least: number; most: number };
    expect([bounce.least, bounce.most].map((one) => Math.round(one * 1000))).toEqual([397, 894]);
  });

  it("103 mm: reel turn 0.72, half the rear roller 0.26; at 1.5 times the speed 152 settles the reel, 104 the roller", () => {
    expect(of({ spacingMetres: 0.103 }, "reel-turn")).toBeCloseTo(0.72, 2);
    expect(of({ spacingMetres: 0.103 }, "half-rear-roller")).toBeCloseTo(0.26, 2);
    const second = (spacingMetres: number) => ({ spacingMetres: 0.103, second: { spacingMetres, speedRatio: 1.5 } });
    expect(of(second(0.152), "reel-turn")).toBeCloseTo(0.999, 3);
    expect(of(second(0.104), "half-rear-roller")).toBeCloseTo(0.96, 2);
  });

  it("asks for a second speed where it would tell them apart, and not where both keep their spacing", () => {
    expect(secondSpeedParts(rippleSources(MACHINE, { spacingMetres: 0.103 }))).toBe(true);
    expect(secondSpeedParts(rippleSources(MACHINE, { spacingMetres: 0.0098 }))).toBe(false);
    expect(secondSpeedParts(rippleSources(MACHINE, { spacingMetres: 0.218 }))).toBe(false);
  });

  it("a reel driven by the ground keeps its clip: at another speed the same spacing speaks for it", () => {
    const driven = rippleSources(
      { ...MACHINE, isGroundDriven: true },
      { spacingMetres: 0.107, second: { spacingMetres: 0.107, speedRatio: 1.5 } },
    );
    expect(driven[0]?.source).toBe("reel-turn");
    expect(of({ spacingMetres: 0.107, second: { spacingMetres: 0.107, speedRatio: 1.5 } }, "reel-turn")).toBeLessThan(0.01);
  });

  it("the reel's speed comes back from its ripples: 1,000 ± 112, or ± 36 timed", () => {
    const reading = { groundMetresPerSecond: mph(4), blades: 11, spacingMetres: inch((4 * 1056) / 11_000) };
    expect(turnsFromRipples(reading).revolutionsPerMinute).toBeCloseTo(1000, 3);
    expect(turnsFromRipples(reading).plusMinus).toBeCloseTo(112, 0);
    expect(turnsFromRipples({ ...reading, spacingError: 0.02, speedError: 0.03 }).plusMinus).toBeCloseTo(36, 0);
  });

  it("finds clip, front and rear roller again in most of 2,000 seeded spacings (simulated beforehand: 100, 86, 87 %)", () => {
    const random = seededRandom(SEED);
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const share = (source: string, growing: boolean) => {
      const true_ = Number(spacing(source));
      let right = 0;
      for (let k = 0; k < 2000; k++) {
        const spacingMetres = true_ * Math.exp(normal() * Math.hypot(0.05, 0.03, growing ? 0.1 : 0));
        const [first] = rippleSources(MACHINE, { spacingMetres });
        if (first?.source === source && first.probability >= 0.8) right += 1;
      }
      return right / 2000;
    };
    expect(share("clip", true)).toBeGreaterThan(0.98);
    expect(share("front-roller", false)).toBeGreaterThan(0.8);
    expect(share("rear-roller", false)).toBeGreaterThan(0.8);
  });
});

describe("contact", () => {
  const row = (left: Paper, middle: Paper, right: Paper): Record<Along, Paper> => ({ left, middle, right });
  const all = (count: number, one: Record<Along, Paper>) =>
    Object.fromEntries(Array.from({ length: count }, (_, k) => [String(k + 1), one]));

  it("one trial, three verdicts: pinched is right without contact and loose with it; drag is tight only without (common practice of each school)", () => {
    const schools = ["no-contact", "light-contact", "firm-contact"] as const;
    expect(schools.map((school) => paperSays(school, "pinched", "free"))).toEqual(["right", "loose", "loose"]);
    expect(schools.map((school) => paperSays(school, "cut", "light-drag"))).toEqual(["tight", "right", "right"]);
    expect(schools.map((school) => paperSays(school, "cut", "stiff"))).toEqual(["tight", "tight", "tight"]);
    expect(schools.map((school) => paperSays(school, "passes", "stiff"))).toEqual(["loose", "loose", "loose"]);
  });

  it("by feeler 0.001 to 0.002 in is right without contact, and a gap is loose with it", () => {
    expect([0, 0.001, 0.002, 0.003].map((gap) => gapSays("no-contact", inch(gap)))).toEqual(["tight", "right", "right", "loose"]);
    expect([0, 0.001, 0.002].map((gap) => gapSays("light-contact", inch(gap)))).toEqual(["right", "right", "loose"]);
  });

  it.each([
    ["even", all(11, row("cut", "cut", "cut"))],
    ["everywhere-loose", all(11, row("passes", "passes", "passes"))],
    ["one-end", all(11, row("cut", "cut", "passes"))],
    ["hollow", all(11, row("cut", "passes", "cut"))],
    ["crowned", all(11, row("pinched", "cut", "passes"))],
    ["one-blade", { ...all(11, row("cut", "cut", "cut")), "4": row("pinched", "passes", "passes") }],
  ])("%s is named from the grid", (name, trials) => {
    expect(readContact("light-contact", { trials, turns: "light-drag" }).pattern.name).toBe(name);
  });

  it("an odd blade does not hide what all the others show", () => {
    const trials = { ...all(11, row("cut", "passes", "cut")), "4": row("passes", "passes", "passes") };
    expect(readContact("light-contact", { trials }).pattern.name).not.toBe("even");
    const clean = { ...all(11, row("cut", "cut", "cut")), "4": row("passes", "cut", "cut") };
    const { pattern, along } = readContact("light-contact", { trials: clean });
    expect(pattern).toEqual({ name: "one-blade", blades: ["4"] });
    expect(along.left).toBe("loose");
  });

  it("making one answer worse never makes a place better (property)", () => {
    const random = seededRandom(SEED);
    const kinds: Paper[] = ["cut", "pinched", "passes"];
    const pick = () => kinds[Math.floor(random() * 3)] as Paper;
    for (let k = 0; k < 300; k++) {
      const trials = Object.fromEntries(Array.from({ length: 8 }, (_, n) => [String(n + 1), row(pick(), pick(), pick())]));
      const worse = { ...trials, "3": { ...trials["3"], left: "passes" as const } };
      const before = readContact("light-contact", { trials }).along.left;
      const after = readContact("light-contact", { trials: worse }).along.left;
      expect([before, after]).toEqual([before, "loose"]);
      expect(readContact("light-contact", { trials: worse }).pattern.name).not.toBe("even");
    }
  });

  // @against reel-contact: turns that bring the knife to its gap; by hand: gap over throw; exact
  it("turns the adjuster by what the feeler shows over the middle of the wanted gap", () => {
    const turn = { throwMetres: 0.0005, gapMetres: 0.0001 };
    expect(contactTurn({ school: "no-contact", ...turn })).toBeCloseTo((0.0001 - (GAP_METRES.least + GAP_METRES.most) / 2) / 0.0005, 9);
    expect(contactTurn({ school: "light-contact", ...turn })).toBeCloseTo(0.2, 9);
  });
});

/** Worked example "layout of units" (docs/worked-examples.md): five units of 22 in. */
const M5: LaidUnit[] = [
  ...[-39.2, 0, 39.2].map((x) => ({ id: `front ${x}`, xMetres: inch(x), yMetres: inch(20), widthMetres: inch(22) })),
  ...[-19.6, 19.6].map((x) => ({ id: `rear ${x}`, xMetres: inch(x), yMetres: inch(-24), widthMetres: inch(22) })),
];

describe("layout", () => {
  // @against unit-layout: crab and radius at which a strip opens; worked example “layout of units” (physics); 0.005°, 0.05 in
  it("M5: a strip opens from 3.12° of crab, and in turns under 66.1 in, at worst 2.67 in at 39.2 (worked example)", () => {
    expect(inches(leastShared(unitOverlaps(M5))?.overlapMetres)).toBeCloseTo(2.4, 9);
    expect(degrees(crabThatOpens(M5))).toBeCloseTo(3.12, 2);
    const right = turnThatOpens(M5, 1);
    expect(inches(right?.underMetres)).toBeCloseTo(66.1, 1);
    expect(inches(right?.worstMetres)).toBeCloseTo(-2.67, 1);
    expect(inches(right?.worstAtMetres)).toBeCloseTo(39.2, 0);
    expect(inches(turnThatOpens(M5, -1)?.underMetres)).toBeCloseTo(66.1, 1);
  });

  it("a unit yawed 5° loses 0.04 in at each neighbour (worked example)", () => {
    const yawed = M5.map((unit) => (unit.xMetres === 0 ? { ...unit, yawRadians: (5 * Math.PI) / 180 } : unit));
    expect(inches(leastShared(unitOverlaps(yawed))?.overlapMetres)).toBeCloseTo(2.4 - 0.04, 2);
  });

  it("is rolled four times on 9.6 % of its width (worked example)", () => {
    const lines = M5.flatMap(({ xMetres, widthMetres }) =>
      [0, 1].map(() => ({ from: xMetres - widthMetres / 2, to: xMetres + widthMetres / 2 })),
    );
    const stretches = rolledAcross(lines);
    expect(stretches.map(({ passes }) => passes)).toEqual([2, 4, 2, 4, 2, 4, 2, 4, 2]);
    expect(rolledShare(stretches, 4) * 100).toBeCloseTo(9.6, 1);
  });

  it("counts passes as brute force does, point by point (property)", () => {
    const random = seededRandom(SEED);
    for (let k = 0; k < 50; k++) {
      const lines = Array.from({ length: 8 }, () => {
        const from = random() * 2;
        return { from, to: from + 0.1 + random() };
      });
      const stretches = rolledAcross(lines);
      for (let p = 0; p < 40; p++) {
        const x = random() * 3;
        const counted = lines.filter(({ from, to }) => from < x && x < to).length;
        const said = stretches.find(({ from, to }) => from < x && x < to)?.passes ?? 0;
        expect([x, said]).toEqual([x, counted]);
      }
    }
  });

  // @against unit-layout: overlap in a turn; 400 points a knife moved round; 1e-4 m
  it("covers in a turn what points of the knife sweep, sampled (reference: 400 points a knife)", () => {
    const yawed = M5.map((unit, k) => ({ ...unit, yawRadians: (k - 2) * 0.02 }));
    for (const radius of [1.2, 2, 4]) {
      const cut = yawed.map((unit) => {
        const radii = Array.from({ length: 401 }, (_, k) => {
          const t = (k / 400 - 0.5) * unit.widthMetres;
          const a = unit.yawRadians;
          return Math.hypot(radius - unit.xMetres - t * Math.cos(a), unit.yMetres + t * Math.sin(a));
        });
        return { from: -Math.max(...radii), to: -Math.min(...radii) };
      });
      const sorted = cut.sort((a, b) => a.from - b.from);
      const gaps = sorted.slice(1).map((next, k) => (sorted[k]?.to ?? 0) - next.from);
      const least = leastShared(unitOverlapsInTurn(yawed, radius))?.overlapMetres ?? 0;
      expect(least).toBeCloseTo(Math.min(...gaps), 4);
    }
  });

  it("mirrored units open alike to the other side (property)", () => {
    const askew = M5.map((unit, k) => ({ ...unit, yawRadians: k * 0.03 }));
    const mirrored = askew.map((unit) => ({ ...unit, xMetres: -unit.xMetres, yawRadians: -unit.yawRadians }));
    expect(turnThatOpens(askew, 1)?.underMetres).toBeCloseTo(turnThatOpens(mirrored, -1)?.underMetres ?? 0, 9);
    expect(crabThatOpens(askew)).toBeCloseTo(crabThatOpens(mirrored) ?? 0, 9);
  });
});

describe("squaring, grinding, wear", () => {
  // @against roller-square: turns that square a roller; by hand: gap over throw; exact
  it("turns the end that hangs clear by the whole difference", () => {
    const { end, turns } = squaringTurn({ leftGapMetres: 0.0002, rightGapMetres: 0, throwMetres: 0.001 });
    expect([end, turns]).toEqual(["left", expect.closeTo(0.2, 12)]);
    expect(squaringTurn({ leftGapMetres: 0, rightGapMetres: 0.0001, throwMetres: 0.001 }).end).toBe("right");
  });

  // @against reel-edge: in-feeds and passes of a grind; worked example “grind”; exact
  it("plans in-feeds and passes: 0.2 mm deep is 5 in-feeds, on the top 10 passes, on the front 5 (worked example)", () => {
    expect(planGrind({ face: "top", depthMetres: 0.0002 })).toMatchObject({ inFeeds: 5, passes: 10 });
    expect(planGrind({ face: "front", depthMetres: 0.0002 })).toMatchObject({ inFeeds: 5, passes: 5 });
    expect(planGrind({ face: "top", depthMetres: 0 })).toMatchObject({ stockMetres: 0, inFeeds: 0, passes: 0, minutes: 0 });
  });

  it("grinds left are the lesser of both faces, rounded down; a spent face leaves none, a spared one does not limit", () => {
    const faces = { top: { nowMetres: 0.0042, leastMetres: 0.003 }, front: { nowMetres: 0.0065, leastMetres: 0.005 } };
    expect(grindsLeft({ ...faces, removal: { top: 0.00025, front: 0.0005 } })).toEqual({ grinds: 3, by: "front" });
    expect(grindsLeft({ ...faces, removal: { top: 0.00025, front: 0 } })).toEqual({ grinds: 4, by: "top" });
    const spent = { ...faces, top: { nowMetres: 0.0028, leastMetres: 0.003 } };
    expect(grindsLeft({ ...spent, removal: { top: 0.00025, front: 0.0005 } })).toEqual({ grinds: 0, by: "top" });
    expect(grindsLeft({ ...faces, removal: { top: 0, front: 0 } })).toBeUndefined();
  });

  it("a cone is told by its ends, a barrel by its middle; life runs from new to scrap", () => {
    expect(coneOf({ leftMetres: 0.1273, middleMetres: 0.1272, rightMetres: 0.127 })).toEqual({
      taperMetres: expect.closeTo(0.0003, 12),
      thick: "left",
      barrelMetres: expect.closeTo(0.00005, 12),
    });
    const reel = { newMetres: 0.127, scrapMetres: 0.117, perGrindMetres: 0.0005 };
    expect(reelLife({ ...reel, nowMetres: 0.122 })).toEqual({ share: expect.closeTo(0.5, 12), grinds: 10 });
    expect(reelLife({ ...reel, nowMetres: 0.116 })).toEqual({ share: 0, grinds: 0 });
  });

  it("the speed for a clip gives that clip back", () => {
    const reel = { blades: 11, revolutionsPerMinute: 1234 };
    expect(clipOf({ ...reel, groundMetresPerSecond: speedForClip({ ...reel, clipMetres: FOOT_METRES / 50 }) })).toBeCloseTo(
      FOOT_METRES / 50,
      12,
    );
  });
});
