import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Plane, planeHeight } from "@/core/basics/geometry";
import { INCH_METRES } from "@/core/basics/units";
import type { Assessment } from "@/core/checks";
import { assessCheck, type DeckDetail, fullForm, quickForm, type TipStation, twistForm } from "@/core/checks";
import { type Direction, type Machine, machineSchema, pointOf } from "@/core/machine";

const inch = (value: number) => value * INCH_METRES;
const at = (x: number, y: number) => ({ xMetres: inch(x), yMetres: inch(y) });

/** The worked deck of docs/worked-examples.md (inches), as a machine. */
const MACHINE: Machine = machineSchema.parse({
  kind: "zero-turn",
  wheels: (["left", "right"] as const).flatMap((side, k) => [
    {
      id: `${side}-drive`,
      label: side,
      ...at(k ? 20 : -20, -20),
      axle: "drive",
      treadWidthMetres: 0.26,
      diameterMetres: 0.6,
      sheetPressurePascals: 82737,
    },
    {
      id: `${side}-caster`,
      label: side,
      ...at(k ? 16 : -16, 30),
      axle: "caster",
      treadWidthMetres: 0.16,
      diameterMetres: 0.33,
      sheetPressurePascals: 124000,
    },
  ]),
  deck: {
    mount: "frame-hung",
    outline: [at(-26, -12), at(26, -12), at(26, 16), at(-26, 16)],
    hangers: [
      ["left-front", -20, 11],
      ["right-front", 20, 11],
      ["left-rear", -20, -11],
      ["right-rear", 20, -11],
    ].map(([id, x, y]) => ({
      id,
      label: String(id),
      ...at(Number(x), Number(y)),
      liftPerTurnMetres: inch(1 / 13),
      step: "quarter",
      turnsLeftUp: 10,
      turnsLeftDown: 10,
    })),
  },
  spindles: [
    { id: "left", label: "Left blade", ...at(-16.2, 0), tipCircleDiameterMetres: inch(17) },
    { id: "middle", label: "Middle blade", ...at(0, 6.5), tipCircleDiameterMetres: inch(17) },
    { id: "right", label: "Right blade", ...at(16.2, 0), tipCircleDiameterMetres: inch(17) },
  ],
  sheet: { heightLeastMetres: inch(1.5), heightMostMetres: inch(4.5), rakeTargetMetres: inch(-0.25) },
});

/** As a program sends them: a list. */
type Tips = { spindleId: string; direction: Direction; end?: "A" | "B"; heightMetres: number }[];
const WORKED_TIPS: Tips = [
  { spindleId: "left", direction: "left", heightMetres: inch(3.0) },
  { spindleId: "right", direction: "right", heightMetres: inch(3.31) },
  { spindleId: "middle", direction: "front", heightMetres: inch(3.25) },
  { spindleId: "middle", direction: "rear", heightMetres: inch(3.19) },
];

function assess(readings: object, machine: Machine = MACHINE): Assessment<DeckDetail> {
  const outcome = assessCheck("deck-level", { machine, readings });
  if (outcome.kind !== "assessed") throw new Error(JSON.stringify(outcome));
  return outcome.assessment as Assessment<DeckDetail>;
}

const tipsOn = (plane: Plane, stations = quickForm(MACHINE)): Tips =>
  stations.map((station) => ({
    spindleId: station.spindleId,
    direction: station.direction,
    ...(station.end ? { end: station.end } : {}),
    heightMetres: planeHeight(plane, station),
  }));

const figure = (assessment: Assessment, id: string) => assessment.figures.find((one) => one.id === id);

describe("deck-level on the worked deck", () => {
  // Target there: 3.25 in at the centre of the middle tip circle, which is a cut of 3.25 − 0.25/2.
  const result = assess({ tips: WORKED_TIPS, tyres: "right", wantedCutHeightMetres: inch(3.125) });

  it("is out, with the printed turns and the printed readings of the ruler after them", () => {
    expect(result.verdict).toBe("out");
    expect(result.detail.plan?.hangers.map(({ turns }) => turns)).toEqual([1, -2.25, 6.75, 3.5]);
    const after = result.detail.tips.map(({ afterMetres }) => (afterMetres ?? 0) / INCH_METRES);
    [3.33, 3.33, 3.12, 3.4].forEach((printed, k) => {
      expect(after[k]).toBeCloseTo(printed, 2);
    });
  });

  it("shows the tip-to-tip rake beside the fitted one", () => {
    expect((figure(result, "rake")?.value ?? 0) / INCH_METRES).toBeCloseTo(0.08, 2);
    expect((figure(result, "rake-tip-to-tip")?.value ?? 0) / INCH_METRES).toBeCloseTo(0.06, 2);
  });

  it("names both causes of a low side as one finding, and says blocks come first", () => {
    expect(result.evidence).toContainEqual({ check: "deck-level", causes: ["deck-out-of-level", "hanger-failed"], result: "suspect" });
    expect(result.actions[0]?.code).toBe("block-deck");
  });

  it("says whose tolerance it used", () => {
    expect(figure(result, "side")?.tolerance?.standing).toBe("common-practice");
    expect(figure(result, "rake")?.tolerance?.standing).toBe("sheet");
  });
});

describe("what the readings support", () => {
  const level: Plane = { height: 0.08, slopeRight: 0, slopeForward: inch(-0.25) / inch(17) };

  it("a deck on its target is in tolerance and asks for no turn", () => {
    const result = assess({ tips: tipsOn(level), tyres: "right" });
    expect(result.verdict).toBe("in-tolerance");
    expect(result.actions.filter(({ code }) => code === "turn-hanger")).toEqual([]);
    expect(result.evidence).toContainEqual({ check: "deck-level", cause: "deck-out-of-level", result: "not-found" });
  });

  it("levels first where the adjusters end, and leaves what is left of the height to the lift", () => {
    const deck = MACHINE.deck && { ...MACHINE.deck, hangers: MACHINE.deck.hangers.map((hanger) => ({ ...hanger, turnsLeftUp: 2 })) };
    const machine = { ...MACHINE, ...(deck ? { deck } : {}) };
    const tips = tipsOn({ ...level, slopeRight: 0.006 / inch(49.4) });
    const outcome = assessCheck("deck-level", { machine, readings: { tips, tyres: "right", wantedCutHeightMetres: 0.12 } });
    if (outcome.kind !== "assessed") throw new Error(JSON.stringify(outcome));
    const result = outcome.assessment as Assessment<DeckDetail>;
    const after = result.detail.plan?.after;
    expect(Math.abs((after?.slopeRight ?? 1) * inch(49.4))).toBeLessThan(0.001);
    const lift = Number(result.actions.find(({ code }) => code === "height-by-lift")?.liftMetres);
    const stands = after ? planeHeight(after, { x: 0, y: inch(6.5) }) : 0;
    expect(lift).toBeCloseTo(0.12 + inch(0.125) - stands, 6);
    expect(lift).toBeGreaterThan(0.01);
  });

  it("is provisional while tyres are unchecked or wrong, and after a drop with one blade's rake only", () => {
    expect(assess({ tips: tipsOn(level) }).provisional).toContainEqual({ code: "tyres-not-checked" });
    expect(assess({ tips: tipsOn(level), tyres: "right", isAfterDropOrRefit: true }).provisional).toContainEqual({
      code: "rake-wanted-on-both-outer-blades",
    });
  });

  it("three readings are assessed and a fourth asked for; two and three on a line are refused as such", () => {
    const three = assess({ tips: tipsOn(level).slice(0, 3), tyres: "right" });
    expect(three.warnings).toContainEqual({ code: "no-spare-reading" });
    expect(three.detail.nextReading?.why).toBe("spare-reading");
    const two = assess({ tips: tipsOn(level).slice(0, 2) });
    expect(two.verdict).toBe("not-enough-readings");
    expect(two.detail.issue).toMatchObject({ code: "too-few-readings", needed: 3, given: 2 });
    const line: Tips = (["left", "right"] as const).flatMap((spindleId) =>
      (["left", "right"] as const).map((direction) => ({ spindleId, direction, heightMetres: 0.08 })),
    );
    expect(assess({ tips: line }).detail.issue?.code).toBe("collinear-readings");
  });

  it("names the reading that would settle a side too close to call", () => {
    const slopeRight = 0.003 / inch(49.4);
    const result = assess({ tips: tipsOn({ ...level, slopeRight }), tyres: "right" });
    expect(figure(result, "side")?.verdict).toBe("watch");
    expect(result.detail.nextReading?.why).toBe("settle-side");
    expect(result.actions).toContainEqual({ code: "read-next", place: result.detail.nextReading?.key, why: "settle-side" });
    expect(result.actions.filter(({ code }) => code === "turn-hanger")).toEqual([]);
  });

  it("with the full form tells one spindle's plane and one blade's end from a deck out of level", () => {
    const stations = fullForm(MACHINE);
    const bentMount = tipsOn(level, stations).map((tip) =>
      tip.spindleId === "left" ? { ...tip, heightMetres: tip.heightMetres - 0.004 } : tip,
    );
    const mount = assess({ tips: bentMount, tyres: "right" });
    expect(mount.detail.model).toMatchObject({ kind: "spindle-plane", spindleId: "left", isDecisive: true });
    expect(mount.evidence).toContainEqual({ check: "deck-level", cause: "deck-shell-bent", result: "suspect" });
    const bentBlade = tipsOn(level, stations).map((tip) =>
      tip.spindleId === "right" && tip.end === "A" ? { ...tip, heightMetres: tip.heightMetres + 0.005 } : tip,
    );
    const blade = assess({ tips: bentBlade, tyres: "right" });
    expect(blade.detail.model).toMatchObject({ kind: "blade-end", spindleId: "right", isDecisive: true });
    expect(blade.evidence).toContainEqual({ check: "deck-level", causes: ["blade-bent", "spindle-shaft-bent"], result: "suspect" });
    expect(blade.detail.side?.value).toBeCloseTo(0, 9);
  });

  it("says when two accounts tie, and which reading would tell them apart; with all read the right one is named", () => {
    const all = fullForm(MACHINE);
    const lowMount = (stations: TipStation[]) =>
      tipsOn(level, stations).map((tip) => (tip.spindleId === "middle" ? { ...tip, heightMetres: tip.heightMetres - 0.003 } : tip));
    // Front and rear of the middle blade alone leave open whether it is low or the outer two are high.
    const tied = assess({ tips: lowMount(twistForm(MACHINE)), tyres: "right" });
    expect(tied.detail.model?.isDecisive).toBe(false);
    expect(tied.detail.rivals?.map((rival) => "spindleId" in rival && rival.spindleId).sort()).toEqual(["left", "right"]);
    expect(tied.detail.nextReading).toMatchObject({ key: "middle:left", why: "tell-apart" });
    expect(tied.actions).toContainEqual({ code: "read-next", place: "middle:left", why: "tell-apart" });
    const whole = assess({ tips: lowMount(all), tyres: "right" });
    expect(whole.detail.model).toMatchObject({ kind: "spindle-plane", spindleId: "middle", isDecisive: true });
    expect(whole.detail.rivals).toBeUndefined();
  });

  it("says which spindles the quick form cannot tell apart", () => {
    expect(assess({ tips: tipsOn(level), tyres: "right" }).detail.untestedSpindleIds).toEqual(["left", "middle", "right"]);
  });
});

describe("properties", () => {
  const planes = fc.record({
    height: fc.double({ min: 0.05, max: 0.1, noNaN: true }),
    slopeRight: fc.double({ min: -0.02, max: 0.02, noNaN: true }),
    slopeForward: fc.double({ min: -0.03, max: 0.03, noNaN: true }),
  });

  it("a plane floor of any slope changes nothing (physics)", () => {
    fc.assert(
      fc.property(planes, planes, (deck, floor) => {
        const stations = quickForm(MACHINE);
        const tips = tipsOn({ ...deck, height: 0.08 }, stations);
        const bare = assess({ tips });
        const mapped = assess({
          tips,
          floor: {
            wheels: MACHINE.wheels.map((wheel) => ({ wheelId: wheel.id, heightMetres: planeHeight(floor, pointOf(wheel)) })),
            places: stations.map((s) => ({ spindleId: s.spindleId, direction: s.direction, heightMetres: planeHeight(floor, s) })),
          },
        });
        expect(mapped.detail.side?.value).toBeCloseTo(bare.detail.side?.value ?? 0, 9);
        expect(mapped.detail.rake?.value).toBeCloseTo(bare.detail.rake?.value ?? 0, 9);
      }),
      { seed: 7, numRuns: 60 },
    );
  });

  it("a hump under one tip is taken out when the floor is mapped, and heights from a level have the floor's plane subtracted", () => {
    const stations = quickForm(MACHINE);
    const level: Plane = { height: 0.08, slopeRight: 0, slopeForward: 0 };
    const hump = 0.005;
    const tips = tipsOn(level, stations).map((tip, k) => (k === 0 ? { ...tip, heightMetres: tip.heightMetres - hump } : tip));
    const flat = MACHINE.wheels.map((wheel) => ({ wheelId: wheel.id, heightMetres: 0 }));
    const places = stations.map((s, k) => ({ spindleId: s.spindleId, direction: s.direction, heightMetres: k === 0 ? hump : 0 }));
    expect(assess({ tips, floor: { wheels: flat, places } }).detail.side?.value).toBeCloseTo(0, 9);
    const slope: Plane = { height: 0.01, slopeRight: 0.02, slopeForward: -0.01 };
    const seenFromLevel = tipsOn({ height: 0.09, slopeRight: 0.02, slopeForward: -0.01 }, stations);
    const wheels = MACHINE.wheels.map((wheel) => ({ wheelId: wheel.id, heightMetres: planeHeight(slope, pointOf(wheel)) }));
    const corrected = assess({ datum: "level", tips: seenFromLevel, floor: { wheels, places: [] } });
    expect(corrected.detail.side?.value).toBeCloseTo(0, 9);
    expect(corrected.detail.plane?.height).toBeCloseTo(0.08, 9);
  });

  it("a mirrored deck has the mirrored side, the same rake and the mirrored turns", () => {
    fc.assert(
      fc.property(planes, (plane) => {
        const here = assess({ tips: tipsOn(plane) });
        const there = assess({ tips: tipsOn({ ...plane, slopeRight: -plane.slopeRight }) });
        expect(there.detail.side?.value).toBeCloseTo(-(here.detail.side?.value ?? 0), 9);
        expect(there.detail.rake?.value).toBeCloseTo(here.detail.rake?.value ?? 0, 9);
        const exact = (a: typeof here) => a.detail.plan?.hangers.map(({ exactTurns }) => exactTurns) ?? [];
        const [lf = 0, rf = 0, lr = 0, rr = 0] = exact(here);
        [rf, lf, rr, lr].forEach((turn, k) => {
          expect(exact(there)[k] ?? 0).toBeCloseTo(turn, 6);
        });
      }),
      { seed: 11, numRuns: 60 },
    );
  });

  it("raising every reading alike changes neither side nor rake (shift)", () => {
    const base = assess({ tips: WORKED_TIPS });
    const higher = assess({ tips: WORKED_TIPS.map((tip) => ({ ...tip, heightMetres: tip.heightMetres + 0.01 })) });
    expect(higher.detail.side?.value).toBeCloseTo(base.detail.side?.value ?? 0, 12);
    expect(higher.detail.rake?.value).toBeCloseTo(base.detail.rake?.value ?? 0, 12);
  });
});

describe("bad input", () => {
  const issues = (readings: object, machine: unknown = MACHINE) => {
    const outcome = assessCheck("deck-level", { machine, readings });
    return outcome.kind === "invalid" ? outcome.issues.map(({ code, path }) => [code, path.join(".")]) : outcome.kind;
  };

  it("names two readings at one place, an unknown blade and a height no such deck can have, by path", () => {
    const [first, ...rest] = WORKED_TIPS;
    expect(issues({ tips: [first, first, ...rest] })).toEqual([["place-read-twice", "readings.tips.1"]]);
    expect(issues({ tips: [{ ...first, spindleId: "fifth" }] })).toEqual([["unknown-spindle", "readings.tips.fifth:left"]]);
    expect(issues({ tips: [{ ...first, heightMetres: 0.3 }] })).toEqual([
      ["height-above-deck-range", "readings.tips.left:left.heightMetres"],
    ]);
    expect(issues({ tips: [{ ...first, heightMetres: "three" }] })).toEqual([["invalid-type", "readings.tips.left:left.heightMetres"]]);
  });

  it("is not offered to a machine whose features rule it out", () => {
    expect(issues({ tips: WORKED_TIPS }, { ...MACHINE, kind: "walk-petrol" })).toEqual([["check-not-for-this-machine", "machine.kind"]]);
    expect(issues({ tips: WORKED_TIPS }, { ...MACHINE, features: ["direct-drive", "combustion"] })).toEqual([
      ["check-not-for-this-machine", "machine.kind"],
    ]);
  });
});

describe("a hanger that hangs loose", () => {
  const LEVEL = WORKED_TIPS.map((tip) => ({
    ...tip,
    heightMetres: inch(tip.direction === "front" ? 3.0625 : tip.direction === "rear" ? 3.3125 : 3.25),
  }));
  const hung = (state: "loose" | "loaded") => assess({ tips: LEVEL, isCarriedRound: true, hangers: { "left-rear": state } });

  it("is found on a level deck, clears no failed hanger, and its turns stand on the others alone", () => {
    const loose = hung("loose");
    expect([loose.verdict, loose.findings.find(({ place }) => place === "left-rear")?.code]).toEqual(["watch", "hangs-loose"]);
    const said = loose.evidence.filter((one) => "cause" in one && one.cause === "hanger-failed");
    expect(said).toEqual([{ check: "deck-level", cause: "hanger-failed", result: "suspect" }]);
    expect(loose.actions[0]).toEqual({ code: "take-up-hanger", place: "left-rear" });
    expect(loose.provisional.map(({ code }) => code)).toContain("hanger-loose");
  });

  it("told to carry, it is nothing", () => {
    const loaded = hung("loaded");
    expect([loaded.verdict, loaded.actions]).toEqual(["in-tolerance", []]);
    expect(loaded.evidence).toContainEqual({ check: "deck-level", cause: "hanger-failed", result: "not-found" });
  });
});
