import { describe, expect, it } from "vitest";
import type { Evidence } from "@/core/findings";
import { cutters, machineSchema } from "@/core/machine";
import type { CheckId } from "@/core/trade";
import { FLEET } from "@/demo/fleet";
import { caseOfJob, type SaidLooks, spokenFor } from "./case";

const machine = machineSchema.parse(FLEET.find(({ fleetNumber }) => fleetNumber === "ZT-1")?.machine);
const said = (looks: Partial<SaidLooks>): SaidLooks => ({ symptoms: [], denied: [], contexts: [], ...looks });
const ledge = said({ symptoms: ["step-between-passes"] });

function caseOf(args: Partial<Parameters<typeof caseOfJob>[0]>) {
  return caseOfJob({ machine, complaints: [ledge], answers: [], ticked: [], takes: [], fixedSeqs: [], testCuts: [], ...args });
}

describe("a job as a case", () => {
  it("takes what any complaint shows, and what is denied only where none shows it", () => {
    const complaints = [said({ symptoms: ["clumps"], denied: ["vibration", "stragglers"] }), said({ symptoms: ["stragglers"] })];
    expect(caseOf({ complaints }).given.symptoms).toEqual({ clumps: "present", stragglers: "present", vibration: "denied" });
  });

  it("lets a later answer replace what was said, and take it back to unknown", () => {
    const answers = [
      { symptoms: { vibration: "present" as const, "torn-tips": "denied" as const }, contexts: {} },
      { symptoms: { vibration: "denied" as const, "step-between-passes": "unknown" as const }, contexts: {} },
    ];
    expect(caseOf({ answers }).given.symptoms).toEqual({ vibration: "denied", "torn-tips": "denied" });
  });

  it("counts contexts of log, complaint and answers, and of two that contradict each other the later", () => {
    const complaints = [said({ symptoms: ["clumps"], contexts: ["one-machine-only", "wet-or-tall"] })];
    const answers = [{ symptoms: {}, contexts: { "all-machines": true, "struck-object": false } }];
    const { given, asked } = caseOf({ complaints, answers, ticked: ["struck-object", "blades-changed"] });
    expect(new Set(given.context)).toEqual(new Set(["blades-changed", "wet-or-tall", "all-machines"]));
    expect(asked).toEqual(["all-machines", "struck-object"]);
  });

  it("knows nothing of the symptoms after a fix, until the test cut says whether they are back", () => {
    const fixedSeqs = [10];
    expect(caseOf({}).standing).toBe("as-complained");
    const unknown = caseOf({ fixedSeqs, testCuts: [{ seq: 5, looks: "same" }] });
    expect(unknown.standing).toBe("unknown-until-cut");
    expect(unknown.given.symptoms).toEqual({});
    expect(caseOf({ fixedSeqs, testCuts: [{ seq: 12, looks: "all-alike" }] })).toMatchObject({
      standing: "gone",
      given: { symptoms: {} },
    });
    const back = caseOf({ fixedSeqs, testCuts: [{ seq: 12, looks: "same" }] });
    expect(back.standing).toBe("back-after-cut");
    expect(back.given.symptoms).toEqual({ "step-between-passes": "present" });
  });

  it.each([
    ["seen", [{ causes: ["crankshaft-bent", "key-sheared"], result: "suspect" }]],
    ["not-found", ["crankshaft-bent", "key-sheared"].map((cause) => ({ cause, result: "not-found" }))],
  ] as const)("an older record that has a cause %s under a name that is two now speaks of both", (result, evidence) => {
    const check = "blade-track" as const;
    const take = { check, isStale: false, evidence: [{ check, cause: "crankshaft-bent-or-key-sheared", result }] };
    expect(caseOf({ takes: [take] }).given.evidence).toEqual(evidence.map((one) => ({ check, ...one })));
  });

  it("names every cause that what a check says is for, and none that it is against or unsure of", () => {
    const check = "blade-track";
    const evidence: Evidence[] = [
      { cause: "tyres-unequal", likelihoodRatio: 3 },
      { cause: "deck-bent", likelihoodRatio: 0.3 },
      { check, causes: ["blade-bent", "spindle-bent"], result: "suspect" },
      { check, cause: "blade-dull", result: "not-found" },
      { check, cause: "blade-loose", result: "unclear" },
      { check, cause: "blade-bent", result: "seen" },
    ];
    expect(spokenFor(evidence)).toEqual(["tyres-unequal", "blade-bent", "spindle-bent", "blade-bent"]);
  });

  it("counts no evidence of a stale reading, and says which check has to be made again", () => {
    const take = (check: CheckId, isStale: boolean) => ({ check, isStale, evidence: [{ cause: "tyres-unequal", likelihoodRatio: 3 }] });
    const stale = caseOf({ takes: [take("tyre-pressure", true)] });
    expect(stale.given.evidence).toEqual([]);
    expect(stale.given.stale).toEqual(["tyre-pressure"]);
    const again = caseOf({ takes: [take("tyre-pressure", true), take("tyre-pressure", false)] });
    expect(again.given.evidence).toEqual([{ check: "tyre-pressure", cause: "tyres-unequal", likelihoodRatio: 3 }]);
    expect(again.given.stale).toEqual([]);
    expect(again.done).toEqual(["tyre-pressure"]);
  });

  it("reads the place in the swath by the machine's own blades", () => {
    const [left, middle] = cutters(machine);
    const join = ((left?.right ?? 0) + (middle?.left ?? 0)) / 2;
    const at30 = said({ symptoms: ["uncut-strip-inside"], swath: { where: "band", fromMetres: join - 0.01, toMetres: join + 0.01 } });
    const { meaning, given } = caseOf({ complaints: [at30] });
    expect(meaning.kind).toBe("join");
    expect(given.place).toMatchObject({ "blade-worn-short": 4 });
  });

  it("counts a sound reading of the unit complained of, whether its sisters were read or not; and no other's", () => {
    const reels = machineSchema.parse(FLEET.find(({ fleetNumber }) => fleetNumber === "RF-1")?.machine);
    const [, second] = cutters(reels);
    const middle = ((second?.left ?? 0) + (second?.right ?? 0)) / 2;
    const swath = { where: "band" as const, fromMetres: middle - 0.2, toMetres: middle + 0.2 };
    const evidenceFor = (soundPlaces: string[], evidence: readonly Evidence[] = []) =>
      caseOf({
        machine: reels,
        complaints: [said({ symptoms: ["ripples"], swath })],
        takes: [{ check: "roller-bearing" as CheckId, evidence, isStale: false, soundPlaces }],
      }).given.evidence;
    expect(evidenceFor([second?.id ?? ""])).toEqual([{ check: "roller-bearing", cause: "roller-bearing-worn", result: "not-found" }]);
    expect(evidenceFor([cutters(reels)[3]?.id ?? ""])).toEqual([]);
    // What was found at a sister is not taken back by it.
    const seen = [{ check: "roller-bearing", cause: "roller-bearing-worn", result: "seen" }] as const;
    expect(evidenceFor([second?.id ?? ""], seen)).toEqual(seen);
  });
});
