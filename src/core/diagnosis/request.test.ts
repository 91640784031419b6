import { describe, expect, it } from "vitest";
import { answerDiagnose, diagnoseRequestSchema } from "./index";

function ask(input: object) {
  return answerDiagnose(diagnoseRequestSchema.parse({ kind: "rotary", ...input }));
}

function issues(input: object) {
  const outcome = ask(input);
  return outcome.kind === "invalid" ? outcome.issues.map(({ code, path, id }) => [code, path.join("."), id]) : [];
}

function answer(input: object) {
  const outcome = ask(input);
  if (outcome.kind !== "answered") throw new Error(JSON.stringify(outcome.issues));
  return outcome.answer;
}

describe("a request for a diagnosis", () => {
  it("names every unknown id and where it stands", () => {
    expect(
      issues({
        features: ["wings"],
        symptoms: { mohawk: "present" },
        context: ["monday"],
        evidence: [
          { check: "sniff", cause: "gremlin", result: "seen" },
          { cause: "blade-dull", likelihoodRatio: 2 },
        ],
        done: ["nothing"],
        stale: ["either"],
      }),
    ).toEqual([
      ["unknown-id", "features.0", "wings"],
      ["unknown-id", "symptoms.mohawk", "mohawk"],
      ["unknown-id", "context.0", "monday"],
      ["unknown-id", "evidence.0.check", "sniff"],
      ["unknown-id", "evidence.0.cause", "gremlin"],
      ["unknown-id", "done.0", "nothing"],
      ["unknown-id", "stale.0", "either"],
    ]);
  });

  it("refuses what is on the other kind, contexts that contradict each other, and more than can be carried", () => {
    expect(issues({ symptoms: { "fine-streak": "present" } })).toEqual([["not-on-this-kind", "symptoms.fine-streak", "fine-streak"]]);
    expect(issues({ context: ["all-machines", "one-machine-only"] }).map(([code]) => code)).toEqual(["contradictory-contexts"]);
    const many = [
      "step-between-passes",
      "bands-between-units",
      "uncut-strip-inside",
      "uncut-strip-between-passes",
      "blade-width-uncut",
      "torn-tips",
      "browning",
      "stragglers",
      "scalped-crests",
      "scalped-band",
      "ripples",
      "irregular-hop",
      "clumps",
      "poor-collection",
      "cut-too-high",
    ];
    expect(issues({ symptoms: Object.fromEntries(many.map((id) => [id, "present"])) }).map(([code]) => code)).toEqual(["too-many-present"]);
    expect(issues({ symptoms: Object.fromEntries(many.slice(1).map((id) => [id, "present"])) })).toEqual([]);
  });

  it("refuses a ratio that is none, and a word that is no result", () => {
    const parses = (evidence: object) => diagnoseRequestSchema.safeParse({ kind: "rotary", evidence: [evidence] }).success;
    expect(parses({ cause: "blade-dull", likelihoodRatio: 0 })).toBe(false);
    expect(parses({ cause: "blade-dull", likelihoodRatio: Number.NaN })).toBe(false);
    expect(parses({ check: "blade-edge", cause: "blade-dull", result: "maybe" })).toBe(false);
    expect(parses({ check: "deck-level", causes: ["deck-out-of-level"], result: "not-found" })).toBe(false);
    expect(diagnoseRequestSchema.safeParse({ kind: "scythe" }).success).toBe(false);
  });

  it("answers causes by falling probability with labelled reasons, checks, what nothing explains and operation", () => {
    const { causes, nextChecks, unexplained, operationProbability } = answer({
      symptoms: { "torn-tips": "present", vibration: "denied" },
      context: ["edge-overdue"],
    });
    expect(causes[0]).toMatchObject({ id: "blade-dull", label: "Blades dull" });
    expect(causes.map(({ probability }) => probability)).toEqual(causes.map(({ probability }) => probability).sort((a, b) => b - a));
    expect(causes[0]?.reasons.map((reason) => ("label" in reason ? reason.label : ""))).toContain("Sharpening or grinding overdue");
    // Dull edges are what is likeliest: sixteen minutes to the blades name it sooner than eight with a tachometer that clear another.
    expect(nextChecks[0]).toMatchObject({ id: "blade-edge", minutes: 16, waitsFor: [] });
    expect(nextChecks.map(({ id }) => id)).toContain("tip-speed");
    expect(unexplained).toEqual([]);
    expect(operationProbability).toBeGreaterThan(0);
    expect(operationProbability).toBeLessThan(0.3);
  });

  it("takes features, the state the machine stands in, checks made and stale, and the other order", () => {
    const base = { symptoms: { "torn-tips": "present" } };
    expect(answer({ ...base, features: ["direct-drive", "battery"] }).causes.map(({ id }) => id)).not.toContain("deck-rake-wrong");
    expect(answer({ ...base, state: "raised" }).nextChecks[0]?.minutes).toBe(8);
    expect(answer({ ...base, done: ["blade-edge"] }).nextChecks.map(({ id }) => id)).not.toContain("blade-edge");
    expect(answer({ ...base, done: ["blade-edge"], stale: ["blade-edge"] }).nextChecks.map(({ id }) => id)).toContain("blade-edge");
    expect(answer({ ...base, order: "walk-round" }).nextChecks[0]?.id).toBe("turf-condition");
  });

  it("is the same every time it is asked", () => {
    const input = {
      symptoms: { clumps: "present" },
      context: ["wet-or-tall"],
      evidence: [{ check: "deck-cleanliness", cause: "deck-packed", result: "seen" }],
    };
    expect(answer(input)).toEqual(answer(input));
  });
});
