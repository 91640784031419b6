import { describe, expect, it } from "vitest";
import type { Evidence } from "@/core/basics/findings";
import type { CheckId } from "@/core/catalogue";
import { cutters, machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { caseOfJob, complainedOf, type SaidLooks, spokenFor } from "./case";

const machine = machineSchema.parse(FLEET.find(({ fleetNumber }) => fleetNumber === "ZT-1")?.machine);
const said = (looks: Partial<SaidLooks>): SaidLooks => ({ symptoms: [], denied: [], contexts: [], ...looks });
const ledge = said({ symptoms: ["step-between-passes"] });

function caseOf(args: Partial<Parameters<typeof caseOfJob>[0]>) {
  return caseOfJob({ machine, complaints: [ledge], answers: [], ticked: [], takes: [], mends: [], testCuts: [], ...args });
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
    const mends = [{ seq: 10, cause: "deck-not-level" }];
    expect(caseOf({}).standing).toBe("as-complained");
    const unknown = caseOf({ mends, testCuts: [{ seq: 5, looks: "same" }] });
    expect(unknown.standing).toBe("unknown-until-cut");
    expect(unknown.given.symptoms).toEqual({});
    expect(caseOf({ mends, testCuts: [{ seq: 12, looks: "all-alike" }] })).toMatchObject({ standing: "gone", given: { symptoms: {} } });
    const back = caseOf({ mends, testCuts: [{ seq: 12, looks: "same" }] });
    expect(back.standing).toBe("back-after-cut");
    expect(back.given.symptoms).toEqual({ "step-between-passes": "present" });
  });

  describe("with two faults, one of them mended", () => {
    const complaints = [said({ symptoms: ["step-between-passes", "vibration"] })];
    const mends = [{ seq: 10, cause: "blade-bent" }];
    const answer = (seq: number, state: "present" | "denied" | "unknown") => ({ seq, symptoms: { vibration: state }, contexts: {} });

    it("takes what is still so before the cut as there, what is gone as gone, and the grass as nobody knows", () => {
      const still = caseOf({ complaints, mends, answers: [answer(11, "present")] });
      expect(still).toMatchObject({ standing: "still-so" });
      expect(still.given.symptoms).toEqual({ vibration: "present" });
      const gone = caseOf({ complaints, mends, answers: [answer(11, "present"), answer(12, "denied")] });
      expect(gone).toMatchObject({ standing: "unknown-until-cut", given: { symptoms: { vibration: "denied" } } });
      expect(caseOf({ complaints, mends, answers: [answer(9, "present")] }).given.symptoms).toEqual({});
      expect(caseOf({ complaints, mends, answers: [answer(11, "present"), answer(12, "unknown")] }).given.symptoms).toEqual({});
    });

    it("lets another mend put an answer out of date", () => {
      const twice = [...mends, { seq: 20, cause: "spindle-bearing-worn" }];
      expect(caseOf({ complaints, mends: twice, answers: [answer(11, "present")] })).toMatchObject({
        standing: "unknown-until-cut",
        given: { symptoms: {} },
      });
    });

    it("has nothing left after a cut only where what does not show in grass is gone too", () => {
      const cut = (symptoms: Partial<Record<"vibration", "gone" | "still-there">>, looks: "all-alike" | "same" = "all-alike") =>
        caseOf({ complaints, mends, testCuts: [{ seq: 12, looks, symptoms }] });
      expect(cut({ vibration: "gone" })).toMatchObject({ standing: "gone" });
      expect(cut({ vibration: "still-there" })).toMatchObject({ standing: "back-after-cut" });
      expect(cut({ vibration: "still-there" }).given.symptoms).toEqual({ "step-between-passes": "denied", vibration: "present" });
      expect(cut({ vibration: "gone" }, "same").given.symptoms).toEqual({ "step-between-passes": "present", vibration: "denied" });
    });

    it("keeps what is answered as gone after a mend in the complaint, for the proof to ask", () => {
      const asked = (answers: ReturnType<typeof answer>[]) => new Set(complainedOf({ complaints, answers, mends }));
      expect(asked([answer(11, "denied")])).toEqual(new Set(["step-between-passes", "vibration"]));
      expect(asked([answer(9, "denied")])).toEqual(new Set(["step-between-passes"]));
      expect(asked([{ seq: 11, symptoms: { "hot-hub": "present" } as never, contexts: {} }])).toContain("hot-hub");
    });

    it("takes what was read of the mended cause for the machine as it was, and the mend as a word against it", () => {
      const seen = (seq: number, result: "seen" | "not-found") => ({
        check: "blade-track" as CheckId,
        isStale: false,
        seq,
        evidence: [
          { check: "blade-track", cause: "blade-bent", result } as Evidence,
          { check: "blade-track", cause: "blade-loose", result: "seen" } as Evidence,
        ],
      });
      const loose = { check: "blade-track", cause: "blade-loose", result: "seen" };
      const done = { check: "mended", cause: "blade-bent", likelihoodRatio: 0.1 };
      expect(caseOf({ mends, takes: [seen(5, "seen")] }).given.evidence).toEqual([loose, done]);
      expect(caseOf({ mends, takes: [seen(5, "seen"), seen(15, "not-found")] }).given.evidence).toEqual([
        loose,
        { check: "blade-track", cause: "blade-bent", result: "not-found" },
        loose,
      ]);
      expect(caseOf({ takes: [seen(5, "seen")] }).given.evidence).toHaveLength(2);
    });
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
