import { describe, expect, it } from "vitest";
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
