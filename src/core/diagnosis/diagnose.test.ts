import { describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import { CONTEXTS, type ContextId, moversOf, rivalsMoving, type SymptomId } from "@/core/catalogue";
import { SEEN_RATIO } from "./evidence";
import { allFeatures, type Case, type CaseEvidence, diagnose, type Knowledge, knowledgeOf } from "./index";

const rotary = knowledgeOf({ cutsWith: "rotary", features: allFeatures("rotary") });
const reel = knowledgeOf({ cutsWith: "reel", features: allFeatures("reel") });
const nothing: Case = { symptoms: {}, context: [], evidence: [] };
const present = (...ids: SymptomId[]): Case["symptoms"] => Object.fromEntries(ids.map((id) => [id, "present"]));
const presenceIn = (knowledge: Knowledge, given: Case, cause: string) => {
  const { causes, alsoWorthALook } = diagnose(knowledge, { ...given });
  return [...causes, ...alsoWorthALook].find(({ id }) => id === cause)?.presence;
};

/** Two orders of the same product differ in their last bits. */
const ROUNDING = 1e-12;

function randomCase(knowledge: Knowledge, random: () => number): Case {
  const some = <T>(items: readonly T[], share: number) => items.filter(() => random() < share);
  const symptoms = Object.fromEntries([
    ...some(knowledge.symptoms, 0.5).map((id) => [id, "denied"]),
    ...some(knowledge.symptoms, 0.15).map((id) => [id, "present"]),
  ]);
  const context = some(
    CONTEXTS.map(({ id }) => id),
    0.15,
  ).filter((id) => id !== "all-machines");
  const evidence = some(knowledge.checks, 0.3).flatMap((check): CaseEvidence[] =>
    check.figures.flatMap((figure): CaseEvidence[] => {
      if (random() < 0.3)
        return figure.length > 1
          ? [{ check: check.id, causes: [...figure], result: "suspect" }]
          : [{ check: check.id, cause: figure[0] ?? "", result: "suspect" }];
      return figure.map((cause) => ({ check: check.id, cause, result: "not-found" }));
    }),
  );
  return { symptoms, context, evidence };
}

describe("one cause and one symptom, by hand", () => {
  /** Bayes with a leak (textbook): odds 1/9, P(shown | there) = 1 − 0.2·0.99, against every other cause of the symptom silent. */
  it("follows Bayes' rule where only one cause can show the symptom", () => {
    const one: Knowledge = {
      ...rotary,
      causes: [
        {
          id: "blade-dull",
          label: "",
          group: "machine",
          prior: 0.1,
          links: [{ symptom: "browning", probability: 0.8 }],
          oneOf: [],
          oddsWhen: { "edge-overdue": 4 },
        },
      ],
    };
    const there = 1 - (1 - 0.8) * (1 - 0.01);
    const expected = (0.1 * there) / (0.1 * there + 0.9 * 0.01);
    const [cause] = diagnose(one, { ...nothing, symptoms: present("browning") }).causes;
    expect(cause?.presence).toBeCloseTo(expected, 12);
    // Of that, what it has itself shown: 0.8 of 0.802.
    expect(cause?.probability).toBeCloseTo((expected * 0.8) / there, 12);
    const [overdue] = diagnose(one, { ...nothing, symptoms: present("browning"), context: ["edge-overdue"] }).causes;
    expect((overdue?.presence ?? 0) / (1 - (overdue?.presence ?? 0))).toBeCloseTo((4 * expected) / (1 - expected), 9);
    expect(overdue?.reasons.find(({ kind }) => kind === "context")).toMatchObject({ id: "edge-overdue", factor: expect.closeTo(4, 9) });
  });

  it("takes a ratio as a ratio: seen as one look may be worth, suspect and not found by the check's own sureness, could not tell 1", () => {
    const given = { ...nothing, symptoms: present("torn-tips") };
    const odds = (evidence: CaseEvidence[]) => {
      const p = diagnose(rotary, { ...given, evidence }).causes.find(({ id }) => id === "blade-dull")?.presence ?? 0;
      return p / (1 - p);
    };
    const before = odds([]);
    expect(odds([{ check: "blade-edge", cause: "blade-dull", result: "seen" }]) / before).toBeCloseTo(SEEN_RATIO, 5);
    expect(odds([{ check: "blade-edge", cause: "blade-dull", result: "suspect" }]) / before).toBeCloseTo(0.92 / 0.07, 9);
    expect(odds([{ check: "blade-edge", cause: "blade-dull", result: "not-found" }]) / before).toBeCloseTo(0.08 / 0.93, 9);
    expect(odds([{ check: "blade-edge", cause: "blade-dull", result: "unclear" }]) / before).toBeCloseTo(1, 12);
    expect(odds([{ cause: "blade-dull", likelihoodRatio: 7 }]) / before).toBeCloseTo(7, 9);
    // However far off a figure stands, it may be a slip of the hand.
    expect(odds([{ cause: "blade-dull", likelihoodRatio: 1000 }]) / before).toBeCloseTo(SEEN_RATIO, 5);
  });

  it("does not count one reading once for each cause it names", () => {
    const level: CaseEvidence = { check: "deck-level", causes: ["deck-out-of-level", "hanger-failed"], result: "suspect" };
    // A level that is off by itself has other movers too; here only the named two are meant.
    const separately: CaseEvidence[] = [
      { check: "hanger-inspection", cause: "deck-out-of-level", result: "suspect" },
      { check: "hanger-inspection", cause: "hanger-failed", result: "suspect" },
    ];
    const given = { ...nothing, symptoms: present("step-between-passes") };
    const both = (evidence: CaseEvidence[]) =>
      (presenceIn(rotary, { ...given, evidence }, "deck-out-of-level") ?? 0) +
      (presenceIn(rotary, { ...given, evidence }, "hanger-failed") ?? 0);
    expect(both([level])).toBeLessThan(both(separately) - 0.2);
    expect(both([level])).toBeGreaterThan(both([]) + 0.15);
  });
});

/** Whether nothing but the cause it names would have brought this reading about. */
const movesAlone = (one: CaseEvidence) =>
  "cause" in one && (!("check" in one) || moversOf(one.check, [one.cause]).size + rivalsMoving(one.check, [one.cause]).length === 0);

describe("properties, seeds 1 to 20", () => {
  const seeds = Array.from({ length: 20 }, (_, k) => k + 1);

  it("the order of evidence and of contexts does not matter", () => {
    for (const seed of seeds) {
      const given = randomCase(seed % 2 ? rotary : reel, seededRandom(seed));
      const knowledge = seed % 2 ? rotary : reel;
      const turned = { ...given, evidence: [...given.evidence].reverse(), context: [...given.context].reverse() };
      const there = new Map(diagnose(knowledge, turned, { withReasons: false }).causes.map(({ id, probability }) => [id, probability]));
      for (const { id, probability } of diagnose(knowledge, given, { withReasons: false }).causes) {
        expect(Math.abs(probability - (there.get(id) ?? 0)), `seed ${seed}, ${id}`).toBeLessThan(ROUNDING);
      }
    }
  });

  it("a denied symptom lowers every cause that shows it, where no rival for a present symptom is lowered more", () => {
    for (const seed of seeds) {
      const { context, evidence } = randomCase(rotary, seededRandom(seed));
      const given: Case = { symptoms: {}, context, evidence: evidence.filter((one) => !("causes" in one) && movesAlone(one)) };
      const before = new Map(diagnose(rotary, given, { withReasons: false }).causes.map(({ id, presence }) => [id, presence]));
      for (const symptom of rotary.symptoms) {
        const { causes } = diagnose(rotary, { ...given, symptoms: { [symptom]: "denied" } }, { withReasons: false });
        const able = rotary.causes.filter(({ links }) => links.some((link) => link.symptom === symptom)).map(({ id }) => id);
        for (const { id, presence } of causes) {
          if (able.includes(id)) expect(presence, `seed ${seed}, ${symptom}, ${id}`).toBeLessThan(before.get(id) ?? 0);
          else expect(presence, `seed ${seed}, ${symptom}, ${id}`).toBe(before.get(id));
        }
      }
    }
  });

  it("a denied symptom may raise a cause that shows it weakly, by what it takes from the rival that shows it strongly: by hand", () => {
    const cause = (id: "blade-unbalanced" | "spindle-bearing-worn", noise: number) => ({
      id,
      label: "",
      group: "machine" as const,
      prior: 0.1,
      oneOf: [],
      oddsWhen: {},
      links: [
        { symptom: "vibration" as const, probability: 0.8 },
        { symptom: "grinding-noise" as const, probability: noise },
      ],
    });
    const two: Knowledge = { ...rotary, leak: 0, causes: [cause("blade-unbalanced", 0.15), cause("spindle-bearing-worn", 0.8)] };
    const given: Case = { ...nothing, symptoms: present("vibration") };
    // One of the two is there, or both: 0.09·0.8 each, 0.01·0.96 together; denied, × 0.85, × 0.2 and × 0.17.
    const alone = 0.09 * 0.8;
    const together = 0.01 * 0.96;
    expect(presenceIn(two, given, "blade-unbalanced")).toBeCloseTo((alone + together) / (2 * alone + together), 12);
    const denied: Case = { ...given, symptoms: { ...given.symptoms, "grinding-noise": "denied" } };
    const weak = alone * 0.85 + together * 0.17;
    expect(presenceIn(two, denied, "blade-unbalanced")).toBeCloseTo(weak / (weak + alone * 0.2), 12);
    expect(presenceIn(two, denied, "blade-unbalanced")).toBeGreaterThan(presenceIn(two, given, "blade-unbalanced") ?? 1);
  });

  it("what could not be told, and what was not asked, changes nothing", () => {
    for (const seed of seeds) {
      const given = randomCase(reel, seededRandom(seed));
      const unclear = reel.checks.flatMap((check) =>
        check.figures.flat().map((cause): CaseEvidence => ({ check: check.id, cause, result: "unclear" })),
      );
      const asked = new Set(given.evidence.map((one) => ("check" in one ? one.check : "")));
      const more = { ...given, evidence: [...given.evidence, ...unclear.filter((one) => "check" in one && !asked.has(one.check))] };
      expect(diagnose(reel, more, { withReasons: false }).causes).toEqual(diagnose(reel, given, { withReasons: false }).causes);
    }
  });

  it("a feature removed removes its causes, and the evidence about them with it", () => {
    const beltless = knowledgeOf({ cutsWith: "rotary", features: allFeatures("rotary").filter((id) => id !== "belt") });
    const given: Case = {
      ...nothing,
      symptoms: present("torn-tips"),
      evidence: [{ check: "belt-inspection", cause: "belt-slipping", result: "seen" }],
    };
    const { causes } = diagnose(beltless, given);
    expect(causes.map(({ id }) => id)).not.toContain("belt-slipping");
    expect(causes).toEqual(diagnose(beltless, { ...given, evidence: [] }).causes);
  });

  it("stays between 0 and 1, and shows no more than is there", () => {
    for (const seed of seeds) {
      const { causes, operationProbability } = diagnose(rotary, randomCase(rotary, seededRandom(seed)), { withReasons: false });
      for (const { probability, presence } of causes) {
        expect(probability).toBeGreaterThanOrEqual(0);
        expect(presence).toBeLessThanOrEqual(1);
        expect(probability).toBeLessThanOrEqual(presence + ROUNDING);
      }
      expect(operationProbability).toBeGreaterThanOrEqual(0);
      expect(operationProbability).toBeLessThanOrEqual(1);
    }
  });
});

describe("latest result", () => {
  const given = { ...nothing, symptoms: present("torn-tips") };

  it("of a check replaces its earlier ones, and only its own", () => {
    const first: CaseEvidence = { check: "blade-edge", cause: "blade-dull", result: "suspect" };
    const second: CaseEvidence = { check: "blade-edge", cause: "blade-dull", result: "not-found" };
    const other: CaseEvidence = { check: "blade-edge", cause: "blade-damaged", result: "suspect" };
    expect(diagnose(rotary, { ...given, evidence: [first, other, second] }).causes).toEqual(
      diagnose(rotary, { ...given, evidence: [other, second] }).causes,
    );
  });

  it("replaces a figure that named several by one that names a single cause", () => {
    const level: CaseEvidence = { check: "deck-level", causes: ["deck-out-of-level", "hanger-failed"], result: "suspect" };
    const clear: CaseEvidence = { check: "deck-level", cause: "deck-out-of-level", result: "not-found" };
    expect(diagnose(rotary, { ...given, evidence: [level, clear] }).causes).toEqual(
      diagnose(rotary, { ...given, evidence: [clear] }).causes,
    );
  });

  it("of a check gone stale counts no more", () => {
    const evidence: CaseEvidence[] = [{ check: "blade-edge", cause: "blade-dull", result: "not-found" }];
    expect(diagnose(rotary, { ...given, evidence, stale: ["blade-edge"] }).causes).toEqual(diagnose(rotary, given).causes);
  });
});

describe("what it says", () => {
  it("ranks by what has shown the complaint: a tyre likely from context alone is no answer to a hot hub", () => {
    const given: Case = { ...nothing, symptoms: present("hot-hub"), context: ["tyre-work", "grease-overdue"] };
    const { causes, alsoWorthALook } = diagnose(rotary, given);
    expect(causes[0]?.id).toBe("spindle-bearing-worn");
    expect(causes.map(({ id }) => id)).not.toContain("tyres-unequal");
    expect(alsoWorthALook.map(({ id }) => id)).toContain("tyres-unequal");
  });

  it("gives the strongest reason first: an upside-down blade after blades were changed", () => {
    const given: Case = { ...nothing, symptoms: { ...present("torn-tips"), vibration: "denied" }, context: ["blades-changed"] };
    const { reasons } = diagnose(rotary, given).causes.find(({ id }) => id === "blade-upside-down") ?? { reasons: [] };
    expect(reasons[0]).toMatchObject({ kind: "context", id: "blades-changed" });
    // 12 of its own, and more because the same context makes its rival, a dull blade, less likely.
    expect(reasons[0]?.factor).toBeGreaterThan(12);
    expect(reasons.map(({ factor }) => Math.abs(Math.log(factor)))).toEqual(
      reasons.map(({ factor }) => Math.abs(Math.log(factor))).sort((a, b) => b - a),
    );
  });

  it("says when a symptom is found, open, or explained by nothing on the list", () => {
    const seen: CaseEvidence = { check: "blade-edge", cause: "blade-dull", result: "seen" };
    const statusOf = (given: Case) => Object.fromEntries(diagnose(rotary, given).symptoms.map(({ id, status }) => [id, status]));
    expect(statusOf({ ...nothing, symptoms: present("torn-tips") })).toEqual({ "torn-tips": "open" });
    expect(statusOf({ ...nothing, symptoms: present("torn-tips"), evidence: [seen] })).toEqual({ "torn-tips": "found" });
    const ruledOut = rotary.causes
      .filter(({ links }) => links.some(({ symptom }) => symptom === "oil-at-drive"))
      .map(({ id }): CaseEvidence => ({ cause: id, likelihoodRatio: 0.02 }));
    expect(statusOf({ ...nothing, symptoms: present("oil-at-drive"), evidence: ruledOut })).toEqual({ "oil-at-drive": "nothing-explains" });
  });

  it("puts a whole fleet clumping in tall grass down to operation or turf, and one machine among good ones to the machine", () => {
    const clumps = (...context: ContextId[]) => diagnose(rotary, { ...nothing, symptoms: present("clumps"), context }).operationProbability;
    expect(clumps("all-machines", "wet-or-tall")).toBeGreaterThan(0.7);
    expect(clumps("one-machine-only")).toBeLessThan(0.15);
    expect(diagnose(rotary, nothing).operationProbability).toBe(0);
  });
});
