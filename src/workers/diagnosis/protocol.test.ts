import { describe, expect, it } from "vitest";
import { allFeatures, type WorkUpInput } from "@/core/diagnosis";
import { requestSchema } from "./protocol";

const input: WorkUpInput = {
  cutsWith: "reel",
  features: allFeatures("reel"),
  given: { symptoms: { ripples: "present" }, context: [], evidence: [{ check: "reel-speed", cause: "clip-too-long", result: "suspect" }] },
  state: "parked",
  done: ["reel-speed"],
  skipped: [],
  order: "information",
};

describe("what the diagnosis worker is asked", () => {
  it("passes as it is, number and all", () => {
    expect(requestSchema.parse({ kind: "work-up", number: 3, input, withReasons: false })).toEqual({
      kind: "work-up",
      number: 3,
      input,
      withReasons: false,
    });
    expect(requestSchema.safeParse({ kind: "questions", number: 4, input, answered: ["new-operator"], most: 6 }).success).toBe(true);
  });

  it("is refused without a number, with a kind nobody knows, or with ids nobody knows", () => {
    expect(requestSchema.safeParse({ kind: "work-up", input, withReasons: true }).success).toBe(false);
    expect(requestSchema.safeParse({ kind: "guess", number: 1, input }).success).toBe(false);
    expect(requestSchema.safeParse({ kind: "questions", number: 1, input, answered: ["monday"], most: 6 }).success).toBe(false);
    expect(requestSchema.safeParse({ kind: "work-up", number: 1, withReasons: true, input: { ...input, minutesLeft: -1 } }).success).toBe(
      false,
    );
  });
});
