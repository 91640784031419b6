import { describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import { type CheckState, moversOf, type SymptomId } from "@/core/catalogue";
import { presenceOf } from "./case";
import { boundToComplaint, entropy, expectedFall, gainsOf, Prospect } from "./gains";
import {
  adviceOn,
  allFeatures,
  type Case,
  diagnose,
  type Knowledge,
  knowledgeOf,
  planChecks,
  setUpMinutes,
  tellApart,
  tiedLeaders,
} from "./index";

const rotary = knowledgeOf({ cutsWith: "rotary", features: allFeatures("rotary") });
const reel = knowledgeOf({ cutsWith: "reel", features: allFeatures("reel") });
const about = (...ids: SymptomId[]): Case => ({
  symptoms: Object.fromEntries(ids.map((id) => [id, "present"])),
  context: [],
  evidence: [],
});

function plan(knowledge: Knowledge, given: Case, args: Partial<Parameters<typeof planChecks>[0]> = {}) {
  return planChecks({ knowledge, given, diagnosis: diagnose(knowledge, given), state: "parked", done: [], order: "information", ...args });
}

describe("minutes of making ready", () => {
  /** Set-up minutes (estimates). */
  it.each<[CheckState, CheckState, number]>([
    ["parked", "locked-out", 3],
    ["parked", "raised", 8],
    ["parked", "bench", 15],
    ["parked", "running", 2],
    ["locked-out", "raised", 5],
    ["raised", "bench", 7],
    ["running", "parked", 1],
    ["running", "locked-out", 4],
    ["running", "bench", 16],
    ["raised", "running", 2],
    ["bench", "locked-out", 0],
    ["raised", "parked", 0],
    ["raised", "raised", 0],
  ])("from %s to %s: %d", (from, to, minutes) => {
    expect(setUpMinutes(from, to)).toBe(minutes);
  });
});

describe("what a check would tell", () => {
  /** By the definition: weigh every result by its chance and look at the case as it would then stand. */
  function byDefinition(given: Case, checkId: string, cause: string): number {
    const check = rotary.checks.find(({ id }) => id === checkId);
    if (!check) throw new Error(checkId);
    const now = presenceOf(rotary, given);
    const there = now.get(cause as never) ?? 0;
    const positive = there * check.sensitivity + (1 - there) * (1 - check.specificity);
    const bound = boundToComplaint(rotary, Object.keys(given.symptoms) as SymptomId[]);
    const left = (likelihoodRatio: number) => {
      const then = presenceOf(rotary, { ...given, evidence: [...given.evidence, { cause, likelihoodRatio }] });
      return bound.reduce((sum, id) => sum + entropy(then.get(id) ?? 0), 0);
    };
    const before = bound.reduce((sum, id) => sum + entropy(now.get(id) ?? 0), 0);
    return (
      before -
      positive * left(check.sensitivity / (1 - check.specificity)) -
      (1 - positive) * left((1 - check.sensitivity) / check.specificity)
    );
  }

  it("is the expected fall of entropy, as the definition gives it by reckoning each result anew", () => {
    for (const symptoms of [["torn-tips", "stragglers"], ["vibration"], ["clumps", "poor-collection", "engine-labours"]] as SymptomId[][]) {
      const given = about(...symptoms);
      const prospect = new Prospect(rotary, given);
      const places = boundToComplaint(rotary, symptoms).map((id) => prospect.causes.indexOf(id));
      for (const id of ["blade-edge", "blade-fit", "spindle-play"]) {
        const check = rotary.checks.find((one) => one.id === id);
        for (const [cause] of check?.figures ?? []) {
          if (!check || !cause || moversOf(id, [cause]).size > 0) continue;
          const fall = expectedFall(prospect.now, prospect.outlook([cause], check), places);
          expect(fall, `${symptoms}, ${id}, ${cause}`).toBeCloseTo(byDefinition(given, id, cause), 9);
        }
      }
    }
  });

  it("of a figure that names two causes is read off a network with that figure as a finding", () => {
    const given = about("step-between-passes", "scalped-band");
    const check = rotary.checks.find(({ id }) => id === "deck-level");
    if (!check) throw new Error("deck-level");
    const pair = ["deck-out-of-level", "hanger-failed"] as const;
    const prospect = new Prospect(rotary, given);
    const { ifPositive } = prospect.outlook(pair, check);
    const found = presenceOf(rotary, { ...given, evidence: [{ check: "deck-level", causes: [...pair], result: "suspect" }] });
    for (const [index, id] of prospect.causes.entries()) expect(ifPositive[index], id).toBeCloseTo(found.get(id) ?? 0, 9);
  });

  it("of a figure that others move too is read off a network in which they share it, by the same figure found", () => {
    const given = about("cut-too-low");
    const check = rotary.checks.find(({ id }) => id === "cutting-height");
    if (!check) throw new Error("cutting-height");
    const prospect = new Prospect(rotary, given);
    const { positive, ifPositive, ifNegative } = prospect.outlook(["height-misset"], check);
    const found = presenceOf(rotary, { ...given, evidence: [{ check: "cutting-height", cause: "height-misset", result: "suspect" }] });
    for (const [index, id] of prospect.causes.entries()) {
      expect(ifPositive[index], id).toBeCloseTo(found.get(id) ?? 0, 9);
      // Both ways together are what is known now.
      expect(positive * (ifPositive[index] as number) + (1 - positive) * (ifNegative[index] as number), id).toBeCloseTo(
        prospect.now[index] as number,
        9,
      );
    }
    expect(found.get("blade-upside-down")).toBeGreaterThan(1.3 * (presenceOf(rotary, given).get("blade-upside-down") ?? 1));
  });

  it("is never negative, and nothing for a check that bears on none of the complaint", () => {
    const random = seededRandom(3);
    for (let k = 0; k < 12; k++) {
      const given = about(...rotary.symptoms.filter(() => random() < 0.15));
      const prospect = new Prospect(rotary, given);
      for (const { bits } of gainsOf(prospect, rotary.checks, boundToComplaint(rotary, Object.keys(given.symptoms) as SymptomId[]))) {
        expect(bits).toBeGreaterThanOrEqual(0);
      }
    }
    const hot = about("hot-hub");
    const gains = gainsOf(new Prospect(rotary, hot), rotary.checks, boundToComplaint(rotary, ["hot-hub"]));
    expect(gains.find(({ check }) => check === "tyre-pressure")?.bits).toBeCloseTo(0, 12);
  });

  /** Figures are added one by one: this is how far that may stray from all figures of a check together. */
  const MOST_STRAY = 0.12;

  it("figure by figure strays little from all figures of the check together", () => {
    const check = rotary.checks.find(({ id }) => id === "spindle-play");
    if (!check) throw new Error("spindle-play");
    const given = about("vibration", "grinding-noise");
    const bound = boundToComplaint(rotary, ["vibration", "grinding-noise"]);
    const [gain] = gainsOf(new Prospect(rotary, given), [check], bound);
    const together = jointFall(given, check, bound);
    expect(Math.abs((gain?.bits ?? 0) / together - 1)).toBeLessThan(MOST_STRAY);
  });

  /** Every combination of results of all figures, each reckoned anew. */
  function jointFall(given: Case, check: Knowledge["checks"][number], bound: readonly string[]): number {
    const causes = check.figures.map(([cause]) => cause ?? "");
    const sum = (state: Case) => {
      const presence = presenceOf(rotary, state);
      return bound.reduce((total, id) => total + entropy(presence.get(id as never) ?? 0), 0);
    };
    let left = 0;
    for (let results = 0; results < 1 << causes.length; results++) {
      let chance = 1;
      let state = given;
      causes.forEach((cause, k) => {
        const there = presenceOf(rotary, state).get(cause as never) ?? 0;
        const positive = there * check.sensitivity + (1 - there) * (1 - check.specificity);
        const isPositive = Boolean(results & (1 << k));
        chance *= isPositive ? positive : 1 - positive;
        state = { ...state, evidence: [...state.evidence, { check: check.id, cause, result: isPositive ? "suspect" : "not-found" }] };
      });
      left += chance * sum(state);
    }
    return sum(given) - left;
  }
});

describe("the order of checks", () => {
  it("does not send the mechanic to the tyres for a hot spindle", () => {
    const { checks } = plan(rotary, about("hot-hub", "grinding-noise"));
    expect(checks[0]?.id).toBe("spindle-play");
    expect(checks.map(({ id }) => id)).not.toContain("tyre-pressure");
  });

  it("starts a ledge between passes with hangers and tyres, the few minutes before the deck is measured", () => {
    const order = plan(rotary, about("step-between-passes")).checks.map(({ id }) => id);
    expect(order.slice(0, 2).sort()).toEqual(["hanger-inspection", "tyre-pressure"]);
    expect(plan(rotary, { ...about("step-between-passes"), context: ["tyre-work"] }).checks[0]?.id).toBe("tyre-pressure");
  });

  it("looks first at what is very likely and only wants a look, before it learns more about the unlikely", () => {
    const given: Case = { ...about("hot-hub", "grinding-noise"), context: ["grease-overdue"] };
    expect(diagnose(rotary, given).causes[0]).toMatchObject({ id: "spindle-bearing-worn", isBackedByCheck: false });
    expect(plan(rotary, given).checks[0]?.id).toBe("spindle-play");
    const looked: Case = { ...given, evidence: [{ check: "spindle-play", cause: "spindle-bearing-worn", result: "suspect" }] };
    expect(adviceOn(diagnose(rotary, looked), plan(rotary, looked, { done: ["spindle-play"] })).code).toBe("found");
  });

  it("leaves out what is done, and brings it back when it has gone stale", () => {
    const given = about("step-between-passes");
    expect(plan(rotary, given, { done: ["tyre-pressure"] }).checks.map(({ id }) => id)).not.toContain("tyre-pressure");
    const stale = { ...given, stale: ["tyre-pressure" as const] };
    expect(plan(rotary, stale, { done: ["tyre-pressure"] }).checks.map(({ id }) => id)).toContain("tyre-pressure");
  });

  it("stays where the machine stands ready before making ready anew", () => {
    const given = about("torn-tips", "vibration");
    expect(plan(rotary, given, { state: "raised" }).checks[0]?.state).toBe("raised");
    expect(plan(rotary, given, { state: "raised" }).checks[0]?.setUpMinutes).toBe(0);
  });

  it("says what must be right before something is set, and no longer once that is done", () => {
    const level = (done: Parameters<typeof planChecks>[0]["done"]) =>
      plan(rotary, about("step-between-passes"), { done }).checks.find(({ id }) => id === "deck-level")?.waitsFor;
    expect(level([])).toEqual(["tyre-pressure"]);
    expect(level(["tyre-pressure"])).toEqual([]);
    const groomer = plan(reel, about("browning"), { order: "walk-round" }).checks.find(({ id }) => id === "groomer-depth");
    expect(groomer?.waitsFor).toEqual(["roller-square", "reel-contact", "cutting-height"]);
  });

  it("of the walk-round is the same for every complaint, and takes everything the machine can have", () => {
    const round = (...symptoms: SymptomId[]) => plan(rotary, about(...symptoms), { order: "walk-round" }).checks.map(({ id }) => id);
    expect(round("hot-hub")).toEqual(round("clumps"));
    expect(round("hot-hub").slice(0, 4)).toEqual(["turf-condition", "tyre-pressure", "cutting-height", "hanger-inspection"]);
    expect(round("hot-hub")).toHaveLength(rotary.checks.length);
  });

  it("by information is expected to take less than the walk-round, for every single symptom", () => {
    for (const knowledge of [rotary, reel]) {
      for (const symptom of knowledge.symptoms) {
        const given = about(symptom);
        const walk = plan(knowledge, given, { order: "walk-round" }).expectedMinutes;
        expect(plan(knowledge, given).expectedMinutes, symptom).toBeLessThan(walk);
      }
    }
  });

  it("keeps to the minutes there are, making ready counted", () => {
    for (const minutesLeft of [5, 12, 20, 40]) {
      for (const order of ["information", "walk-round"] as const) {
        const short = plan(rotary, about("vibration", "torn-tips"), { minutesLeft, order });
        expect(short.minutes, `${order} ${minutesLeft}`).toBeLessThanOrEqual(minutesLeft);
      }
    }
    expect(plan(rotary, about("vibration"), { minutesLeft: 3 }).checks).toEqual([]);
  });
});

describe("when to stop, and what would tell two apart", () => {
  it("goes on, then has found it once a check speaks for it, then knows what it does not know", () => {
    const given = about("fine-streak");
    expect(adviceOn(diagnose(reel, given), plan(reel, given)).code).toBe("go-on");
    const seen: Case = { ...given, evidence: [{ check: "reel-edge", cause: "edge-nicked", result: "seen" }] };
    expect(adviceOn(diagnose(reel, seen), plan(reel, seen))).toEqual({
      code: "found",
      causes: ["edge-nicked"],
      once: ["edge-nicked"],
      taken: [],
    });
    const twice: Case = { ...seen, evidence: [...seen.evidence, ...seen.evidence] };
    expect(adviceOn(diagnose(reel, twice), plan(reel, twice))).toEqual({ code: "found", causes: ["edge-nicked"], once: [], taken: [] });
    const ruledOut: Case = {
      ...given,
      evidence: reel.causes
        .filter(({ links }) => links.some(({ symptom }) => symptom === "fine-streak"))
        .map(({ id }) => ({ cause: id, likelihoodRatio: 0.02 })),
    };
    expect(adviceOn(diagnose(reel, ruledOut), { checks: [] })).toEqual({
      code: "nothing-explains",
      symptoms: ["fine-streak"],
      isListDone: true,
    });
    expect(adviceOn(diagnose(reel, about()), { checks: [] }).code).toBe("no-symptom");
  });

  it("names two causes that stand level, and the check that tells between them", () => {
    const given: Case = {
      ...about("step-between-passes"),
      evidence: [{ check: "deck-level", causes: ["deck-out-of-level", "hanger-failed"], result: "suspect" }],
      context: ["deck-dropped"],
    };
    const pair = tiedLeaders(diagnose(rotary, given), 0.1);
    expect(new Set(pair)).toEqual(new Set(["deck-out-of-level", "hanger-failed"]));
    const telling = pair && tellApart({ knowledge: rotary, given, pair, state: "locked-out", done: ["deck-level"] });
    expect(telling?.id).toBe("hanger-inspection");
  });

  it("calls nothing tied when one leads clearly", () => {
    const seen: Case = { ...about("fine-streak"), evidence: [{ check: "reel-edge", cause: "edge-nicked", result: "seen" }] };
    expect(tiedLeaders(diagnose(reel, seen), 0.1)).toBeUndefined();
  });
});
