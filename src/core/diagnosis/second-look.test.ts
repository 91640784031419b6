import { describe, expect, it } from "vitest";
import { amongPlaces } from "./evidence";
import { type Case, type CaseEvidence, diagnose, knowledgeOf } from "./index";

const knowledge = knowledgeOf({ cutsWith: "rotary", features: ["hangers", "several-blades", "belt", "air-tyres", "combustion"] });
const given = (evidence: CaseEvidence[], stale: Case["stale"] = []): Case => ({
  symptoms: { clumps: "present" },
  context: [],
  evidence,
  stale,
});
const packed = (evidence: CaseEvidence[], stale?: Case["stale"]) => {
  const { causes } = diagnose(knowledge, given(evidence, stale));
  const cause = causes.find(({ id }) => id === "deck-packed");
  return { presence: cause?.presence ?? 0, looks: cause?.looks ?? 0 };
};
const says = (result: "seen" | "suspect" | "not-found" | "unclear", check = "deck-cleanliness"): CaseEvidence => ({
  check,
  cause: "deck-packed",
  result,
});

/** Common practice: read twice, mend once; what two looks are worth together is an estimate, bounded. */
describe("a second look", () => {
  it("that agrees makes surer, and more looks never make less sure", () => {
    const [once, twice, thrice] = [
      packed([says("seen")]),
      packed([says("seen"), says("seen")]),
      packed([says("seen"), says("seen"), says("seen")]),
    ];
    expect(twice.presence).toBeGreaterThan(once.presence);
    expect(thrice.presence).toBeGreaterThanOrEqual(twice.presence);
    expect([once.looks, twice.looks, thrice.looks]).toEqual([1, 2, 3]);
  });

  it("that agrees on nothing found makes less likely, as far as two looks can", () => {
    const [once, twice] = [packed([says("not-found")]), packed([says("not-found"), says("not-found")])];
    expect(twice.presence).toBeLessThan(once.presence);
    expect(twice.looks).toBe(0);
  });

  it("that differs takes back what the first was worth, whichever way", () => {
    const nothing = packed([]);
    expect(packed([says("seen"), says("unclear")]).presence).toBeCloseTo(nothing.presence, 12);
    expect(packed([says("seen"), says("seen"), says("unclear")]).presence).toBeCloseTo(nothing.presence, 12);
    expect(packed([says("seen"), says("unclear"), says("seen")])).toEqual(packed([says("seen")]));
    expect(packed([says("not-found"), says("seen")])).toEqual(packed([says("seen")]));
  });

  it("of what has gone stale counts no more", () => {
    const twice = [says("seen"), says("seen")];
    expect(packed(twice, ["deck-cleanliness"])).toEqual(packed([]));
  });

  it("is another check's word as well as the same one's", () => {
    const slipping = (evidence: CaseEvidence[]) => diagnose(knowledge, given(evidence)).causes.find(({ id }) => id === "belt-slipping");
    const belt: CaseEvidence = { check: "belt-inspection", cause: "belt-slipping", result: "suspect" };
    const speed: CaseEvidence = { check: "tip-speed", causes: ["engine-speed-low", "belt-slipping"], result: "suspect" };
    expect(slipping([belt])?.looks).toBe(1);
    expect(slipping([belt, speed])?.looks).toBe(2);
  });

  it("of a measured figure repeats its doubts with it: the figure's worth stays", () => {
    const rake: CaseEvidence = { check: "deck-level", cause: "deck-rake-wrong", likelihoodRatio: 15 };
    const presence = (evidence: CaseEvidence[]) => diagnose(knowledge, given(evidence)).causes.find(({ id }) => id === "deck-rake-wrong");
    expect(presence([rake, rake])?.presence).toBeCloseTo(presence([rake])?.presence ?? 0, 12);
    expect(presence([rake, rake])?.looks).toBe(2);
  });

  it("of a figure that speaks to several makes it less likely to be nothing", () => {
    const level: CaseEvidence = { check: "deck-level", causes: ["deck-out-of-level", "hanger-failed"], result: "suspect" };
    const sum = (evidence: CaseEvidence[]) =>
      diagnose(knowledge, given(evidence))
        .alsoWorthALook.filter(({ id }) => id === "deck-out-of-level" || id === "hanger-failed")
        .reduce((total, { presence }) => total + presence, 0);
    expect(sum([level, level])).toBeGreaterThan(sum([level]));
  });
});

/** Independent looks: of n that each go wrong once in r, any does so once in 1/(1 − (1 − 1/r)ⁿ) (probability). */
describe("one place that speaks of several that were read", () => {
  const at = (onePlaceOf: number): CaseEvidence => ({ ...says("seen"), onePlaceOf });

  it("is worth less, the more were read", () => {
    expect(amongPlaces(60, 1)).toBeCloseTo(60, 9);
    expect(amongPlaces(60, 5)).toBeCloseTo(1 / (1 - (59 / 60) ** 5), 12);
    expect(amongPlaces(60, 5)).toBeCloseTo(12.4, 1);
    const shares = [1, 2, 3, 5, 9].map((places) => packed([at(places)]).presence);
    expect([...shares].sort((a, b) => b - a)).toEqual(shares);
    expect(packed([at(1)]).presence).toBeCloseTo(packed([says("seen")]).presence, 12);
  });

  it("counts in full when that one place is looked at again", () => {
    expect(packed([at(3), at(3)]).presence).toBeGreaterThan(packed([says("seen")]).presence);
    const odds = (presence: number) => presence / (1 - presence);
    const base = odds(packed([]).presence);
    expect(odds(packed([at(5), at(5)]).presence) / base).toBeCloseTo(amongPlaces(60, 5) * 60, 6);
  });

  it("takes nothing from what was not found, since that was read everywhere", () => {
    expect(packed([{ ...says("not-found"), onePlaceOf: 5 }])).toEqual(packed([says("not-found")]));
  });
});
