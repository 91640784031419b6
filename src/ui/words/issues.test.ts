import { describe, expect, it } from "vitest";
import { assessCheck } from "@/core/checks";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { sayIssue } from "./issues";

/** Words of a schema, not of a shop. */
const PROGRAMMER = /expected|received|<=|>=|invalid|undefined|NaN|\bstring\b|\barray\b|\bobject\b|_/i;

const sentences = (check: string, readings: unknown, fleetNumber = "ZT-1"): string[] => {
  const outcome = assessCheck(check, { machine: machineOf(fleetNumber), readings });
  return outcome.kind === "invalid" ? outcome.issues.map((issue) => sayIssue(issue, "us")) : [];
};

describe("what a schema refuses is said as a shop says it", () => {
  it.each([
    ["too much", "tyre-pressure", { tyres: { "left-drive": { pressurePascals: 9e9 } } }, "More than this can be. Read it again."],
    ["too little", "tyre-pressure", { tyres: { "left-drive": { pressurePascals: -1 } } }, "Less than this can be. Read it again."],
    [
      "no number",
      "tyre-pressure",
      { tyres: { "left-drive": { pressurePascals: "twelve" } } },
      "Missing here, or not of the kind that belongs here.",
    ],
    ["no such answer", "deck-level", { form: "huge" }, "None of the answers that can be given here."],
    ["too long", "cutting-height", { turf: "x".repeat(81) }, "Too long: 80 letters at most."],
    ["twice", "tyre-pressure", { tyres: [1, 2].map(() => ({ wheelId: "left-drive" })) }, "This place has two readings. Keep one."],
    ["no such place", "deck-level", { tips: { "left:up": { heightMetres: 0.08 } } }, "This deck has no place called “left:up”."],
    [
      "spacing",
      "pass-overlap",
      { acrossMetres: 0.2, passes: 10 },
      "That is 13/16 in from join to join, and the cut is 49 3/8 in wide. Count the passes again, or measure again.",
    ],
  ])("%s", (_, check, readings, expected) => {
    expect(sentences(check, readings)).toEqual([expected]);
  });

  it("whatever is sent, no sentence is a programmer's", () => {
    const worst = [
      null,
      7,
      "x",
      [],
      { tyres: 7 },
      { tyres: null },
      { tyres: [[]] },
      { tips: { a: 1 } },
      { floor: 3 },
      { heightsMetres: [1e9, "x", null] },
    ];
    for (const check of ["tyre-pressure", "deck-level", "cutting-height", "blade-edge", "tip-speed"])
      for (const readings of worst) for (const sentence of sentences(check, readings)) expect(sentence).not.toMatch(PROGRAMMER);
  });

  it("a code nobody knows is still a sentence", () => {
    expect(sayIssue({ code: "never-heard-of", path: [] } as never, "us")).toBe("That cannot be taken as it stands. Look at it again.");
  });
});
