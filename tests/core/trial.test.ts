import { describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import { allFeatures, type Knowledge, knowledgeOf } from "@/core/diagnosis";
import { disturbed, drawCase, type TrialCase } from "../../bench/trial/cases";
import { follow, type Order } from "../../bench/trial/follow";

const SEED = 7;
/** Enough to tell the orders apart, few enough for a test; the full trial is `npm run trial`. */
const CASES = 80;

function play(cutsWith: "rotary" | "reel", isDisturbed: boolean) {
  const random = seededRandom(SEED);
  const knowledge = knowledgeOf({ cutsWith, features: allFeatures(cutsWith) });
  const trials = Array.from({ length: CASES }, () => drawCase(isDisturbed ? disturbed(knowledge, random) : knowledge, random));
  const minutes = (order: Order, trial: TrialCase) => follow({ knowledge, trial, order, random }).minutes;
  const both = trials
    .map((trial) => ({ information: minutes("information", trial), walk: minutes("walk-round", trial) }))
    .filter((one): one is { information: number; walk: number } => one.information !== undefined && one.walk !== undefined);
  const sum = (pick: (one: (typeof both)[number]) => number) => both.reduce((total, one) => total + pick(one), 0);
  return { resolved: both.length, share: sum(({ information }) => information) / sum(({ walk }) => walk) };
}

/** The trial's aim for disturbed cases; a small sample strays, so the undisturbed one is held to it as well. */
const MOST_OF_WALK_ROUND = 0.5;

describe(`a small trial of the order of checks, seed ${SEED}`, () => {
  it.each([
    ["rotary", false],
    ["rotary", true],
    ["reel", false],
    ["reel", true],
  ] as const)(
    "%s, disturbed: %s: by information finds the cause in half the minutes of the walk-round or less",
    (cutsWith, isDisturbed) => {
      const { resolved, share } = play(cutsWith, isDisturbed);
      // The walk-round resolves a third of the disturbed cases (docs/diagnosis.md): so few that both do would compare nothing.
      expect(resolved).toBeGreaterThan(CASES / 6);
      expect(share).toBeLessThan(MOST_OF_WALK_ROUND);
    },
    300_000,
  );
});

describe("cases drawn for a trial", () => {
  const knowledge = knowledgeOf({ cutsWith: "rotary", features: allFeatures("rotary") });

  it("report at most five symptoms, deny only what is not there, and name whatever made a reported one", () => {
    const random = seededRandom(SEED);
    for (let k = 0; k < 200; k++) {
      const { given, targets, present } = drawCase(knowledge, random);
      const reported = Object.entries(given.symptoms).filter(([, state]) => state === "present");
      expect(reported.length).toBeGreaterThan(0);
      expect(reported.length).toBeLessThanOrEqual(5);
      for (const cause of targets) {
        expect(present.has(cause)).toBe(true);
        const links = knowledge.causes.find(({ id }) => id === cause)?.links.map(({ symptom }) => symptom) ?? [];
        expect(reported.some(([symptom]) => (links as string[]).includes(symptom))).toBe(true);
      }
      expect(given.context.includes("all-machines") && given.context.includes("one-machine-only")).toBe(false);
    }
  });

  it("come out of a check as often right as the tables say: sensitivity and specificity, over 4,000 drawn cases", () => {
    const random = seededRandom(SEED);
    const seen = { there: 0, found: 0, absent: 0, cleared: 0 };
    const check = knowledge.checks.find(({ id }) => id === "tyre-pressure");
    for (let k = 0; k < 4000; k++) {
      const { present, findings } = drawCase(knowledge, random);
      const [firstLook] = findings.get("tyre-pressure") ?? [];
      const isSuspect = firstLook?.some(
        (one) => "cause" in one && one.cause === "tyres-unequal" && "result" in one && one.result === "suspect",
      );
      if (present.has("tyres-unequal")) {
        seen.there += 1;
        seen.found += Number(isSuspect);
      } else {
        seen.absent += 1;
        seen.cleared += Number(!isSuspect);
      }
    }
    const strays = (share: number, of: number, count: number) => Math.abs(share - of) / Math.sqrt((of * (1 - of)) / count);
    expect(strays(seen.found / seen.there, check?.sensitivity ?? 0, seen.there)).toBeLessThan(4);
    expect(strays(seen.cleared / seen.absent, check?.specificity ?? 0, seen.absent)).toBeLessThan(4);
  });

  it("disturbed tables keep every probability one, move every prior, and have a cause the engine does not know", () => {
    const other: Knowledge = disturbed(knowledge, seededRandom(SEED));
    expect(other.causes).toHaveLength(knowledge.causes.length + 1);
    for (const { prior, links } of other.causes) {
      expect(prior).toBeGreaterThan(0);
      expect(prior).toBeLessThan(1);
      for (const { probability } of links) {
        expect(probability).toBeGreaterThanOrEqual(0.02);
        expect(probability).toBeLessThanOrEqual(0.98);
      }
    }
    knowledge.causes.forEach(({ prior }, k) => {
      expect([prior / 2, prior * 2]).toContain(other.causes[k]?.prior);
    });
  });
});
