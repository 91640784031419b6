import { describe, expect, it } from "vitest";
import { CONTEXTS, SYMPTOMS } from "@/core/catalogue";
import { likelihoodOf } from "@/core/diagnosis";
import { LIKELIHOOD_WORDS, labelOfCause, percent, sayAdvice, sayMoved, sayReason } from "./diagnosis";
import { sayQuestion } from "./questions";

describe("a diagnosis in words", () => {
  it.each([
    [0, "0 %"],
    [0.001, "under 1 %"],
    [0.124, "12 %"],
    [0.9949, "99 %"],
    [0.9999, "over 99 %"],
    [1, "100 %"],
  ])("%d is %s", (probability, words) => {
    expect(percent(probability)).toBe(words);
  });

  it.each([
    [60, 2, "now certain"],
    [60, 1, "far likelier"],
    [3, 1, "likelier"],
    [0.3, 1, "less likely"],
    [0.02, 1, "as good as out"],
  ])("odds %d times, on %d looks, are %s", (factor, looks, words) => {
    expect(sayMoved(factor, looks)).toBe(words);
  });

  it("a cause that is several now is named by them in an older record", () => {
    expect(labelOfCause("crankshaft-bent-or-key-sheared")).toBe("Crankshaft bent or Flywheel or carrier key sheared");
    expect(labelOfCause("no-such-cause")).toBe("no-such-cause");
  });

  it.each([
    [0.95, "very likely"],
    [0.85, "very likely"],
    [0.84, "likely"],
    [0.5, "likely"],
    [0.15, "possible"],
    [0.149, "unlikely"],
    [0, "unlikely"],
  ])("%d is said as %s", (probability, word) => {
    expect(LIKELIHOOD_WORDS[likelihoodOf(probability)]).toBe(word);
  });

  it("names what moved a cause: a symptom, one that is not there, a context, the place, a look, a reading", () => {
    const say = (reason: Parameters<typeof sayReason>[0]) => sayReason(reason);
    expect(say({ kind: "symptom", id: "clumps", state: "present", factor: 2 })).toBe("Clumps and rows");
    expect(say({ kind: "symptom", id: "clumps", state: "denied", factor: 0.5 })).toBe("Clumps and rows: not there");
    expect(say({ kind: "context", id: "struck-object", factor: 8 })).toBe("Struck something hard");
    expect(say({ kind: "place", factor: 4 })).toBe("Where it shows in the swath");
    expect(say({ kind: "evidence", check: "blade-edge", result: "seen", factor: 1000 })).toBe("Blade edge and wear: seen");
    expect(say({ kind: "evidence", check: "tyre-pressure", factor: 0.02 })).toBe("Tyre pressures, as read");
    expect(say({ kind: "evidence", factor: 3 })).toBe("A measured figure, as read");
  });

  it("says when to stop, and keeps quiet while there is more to look at", () => {
    expect(sayAdvice({ code: "go-on" })).toBeUndefined();
    expect(sayAdvice({ code: "found", causes: ["blade-dull", "deck-packed"], once: [], taken: [] })).toBe(
      "Found: Blades dull and Deck or chute packed.",
    );
    const level = "The reading is off for certain. Likeliest cause: Deck out of level side to side.";
    expect(sayAdvice({ code: "found", causes: ["deck-out-of-level"], once: [], taken: ["deck-out-of-level"] })).toBe(level);
    expect(sayAdvice({ code: "found", causes: ["blade-dull", "deck-out-of-level"], once: [], taken: ["deck-out-of-level"] })).toBe(
      `Found: Blades dull. ${level}`,
    );
    expect(labelOfCause("unlisted-side")).toBe("Something else tilts the deck");
    expect(sayAdvice({ code: "nothing-explains", symptoms: ["browning"], isListDone: true })).toContain("Look for something new.");
    expect(sayAdvice({ code: "nothing-left", symptoms: ["browning"] })).toContain("no check is left");
  });

  it("has a question for every context and every symptom, and every one ends as a question", () => {
    for (const { id } of CONTEXTS) expect(sayQuestion({ kind: "context", id }), id).toMatch(/\?$|overdue$/);
    for (const { id } of SYMPTOMS) expect(sayQuestion({ kind: "symptom", id }), id).toMatch(/^Also: .+\?$/);
  });
});
