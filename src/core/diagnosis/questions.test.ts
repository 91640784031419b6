import { describe, expect, it } from "vitest";
import { presenceOf } from "./case";
import { entropy } from "./gains";
import { allFeatures, type Case, diagnose, knowledgeOf, MOST_FINDINGS, telephoneRound } from "./index";

const rotary = knowledgeOf({ cutsWith: "rotary", features: allFeatures("rotary") });
const clumps: Case = { symptoms: { clumps: "present" }, context: [], evidence: [] };

describe("the telephone round", () => {
  it("asks first for what tells most, and for nothing that is known", () => {
    const asked = telephoneRound({ knowledge: rotary, given: clumps, answered: [], most: 8 });
    expect(asked).toHaveLength(8);
    expect(asked.map(({ bits }) => bits)).toEqual(asked.map(({ bits }) => bits).sort((a, b) => b - a));
    expect(asked.map(({ id }) => id)).not.toContain("clumps");
    const known: Case = { ...clumps, symptoms: { clumps: "present", "poor-collection": "denied" }, context: ["wet-or-tall"] };
    const then = telephoneRound({ knowledge: rotary, given: known, answered: ["blades-changed"], most: 99 }).map(({ id }) => id);
    for (const id of ["poor-collection", "wet-or-tall", "blades-changed"]) expect(then).not.toContain(id);
  });

  it("does not ask whether it is one machine once it is known that all do it", () => {
    const all = telephoneRound({ knowledge: rotary, given: { ...clumps, context: ["all-machines"] }, answered: [], most: 99 });
    expect(all.map(({ id }) => id)).not.toContain("one-machine-only");
  });

  it("leaves out what a driver cannot tell from the seat", () => {
    const ids = telephoneRound({ knowledge: rotary, given: clumps, answered: [], most: 99 }).map(({ id }) => id as string);
    for (const id of ["hot-hub", "oil-at-drive", "edge-overdue", "grease-overdue"]) expect(ids).not.toContain(id);
  });

  it("values a symptom by its two answers, weighed: the weighed presences are those before asking", () => {
    const [question] = telephoneRound({ knowledge: rotary, given: clumps, answered: [], most: 99 }).filter(
      ({ kind }) => kind === "symptom",
    );
    if (question?.kind !== "symptom") throw new Error("no symptom asked");
    const answered = (state: "present" | "denied") =>
      presenceOf(rotary, { ...clumps, symptoms: { ...clumps.symptoms, [question.id]: state } });
    const [yes, no, before] = [answered("present"), answered("denied"), presenceOf(rotary, clumps)];
    let bits = 0;
    for (const { id, links } of rotary.causes) {
      const mixed = question.yes * (yes.get(id) ?? 0) + (1 - question.yes) * (no.get(id) ?? 0);
      expect(mixed, id).toBeCloseTo(before.get(id) ?? 0, 9);
      if (!links.some(({ symptom }) => symptom === "clumps")) continue;
      bits += entropy(mixed) - question.yes * entropy(yes.get(id) ?? 0) - (1 - question.yes) * entropy(no.get(id) ?? 0);
    }
    expect(question.bits).toBeCloseTo(bits, 9);
  });

  it("tells operation from machine: the answer that every machine does it moves the odds to turf and operation", () => {
    const asked = telephoneRound({ knowledge: rotary, given: clumps, answered: [], most: 99 });
    expect(asked.map(({ id }) => id)).toContain("all-machines");
    const after = diagnose(rotary, { ...clumps, context: ["all-machines"] }).operationProbability;
    expect(after).toBeGreaterThan(diagnose(rotary, clumps).operationProbability);
  });

  it("with as many looks as can be told apart asks for no further look, and does not fail", () => {
    const knowledge = knowledgeOf({ cutsWith: "rotary", features: allFeatures("rotary") });
    const present = knowledge.symptoms.slice(0, MOST_FINDINGS);
    const given: Case = { symptoms: Object.fromEntries(present.map((id) => [id, "present" as const])), context: [], evidence: [] };
    const questions = telephoneRound({ knowledge, given, answered: [], most: 60 });
    expect(questions.length).toBeGreaterThan(3);
    expect(questions.filter(({ kind }) => kind === "symptom")).toEqual([]);
  });
});
