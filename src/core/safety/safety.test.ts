import { describe, expect, it } from "vitest";
import { type Answers, itemsFor, judgeConfirmation, satisfies, stateInForce } from "./index";

const rider = { kind: "zero-turn" } as const;
const allYes = (kind: "zero-turn" | "walk-petrol" | "walk-cordless", state: "locked-out" | "raised"): Answers =>
  Object.fromEntries(itemsFor({ kind }, state).map(({ id }) => [id, { answer: "yes" as const }]));

describe("safe states", () => {
  it("asks each kind and power for its own: chocks and stands, filter up, two isolations (trade handbook, making safe)", () => {
    const ids = (kind: Parameters<typeof itemsFor>[0]["kind"]) => itemsFor({ kind }, "raised").map(({ id }) => id);
    expect(ids("zero-turn")).toEqual(expect.arrayContaining(["isolated", "chocks", "stands"]));
    expect(ids("walk-petrol")).toEqual(expect.arrayContaining(["lead-first", "tipped-right", "wedged"]));
    expect(ids("walk-cordless")).toEqual(expect.arrayContaining(["two-isolations", "capacitors", "wedged"]));
    expect(ids("walk-petrol")).not.toContain("stands");
  });

  it("stops at a refused or missing chock, stand or isolation", () => {
    for (const id of ["chocks", "stands", "isolated"]) {
      const refused = judgeConfirmation({
        machine: rider,
        state: "raised",
        answers: { ...allYes("zero-turn", "raised"), [id]: { answer: "refused" } },
      });
      expect(refused).toMatchObject({ kind: "stopped", items: [{ id }] });
      const missing = judgeConfirmation({
        machine: rider,
        state: "raised",
        answers: { ...allYes("zero-turn", "raised"), [id]: { answer: "not-here", reason: "lent out" } },
      });
      expect(missing.kind).toBe("stopped");
    }
  });

  it("lets a missing glove pass with a reason, and not without", () => {
    const answers = (reason: string): Answers => ({ ...allYes("zero-turn", "locked-out"), gloves: { answer: "not-here", reason } });
    expect(judgeConfirmation({ machine: rider, state: "locked-out", answers: answers("wet, drying") })).toMatchObject({
      kind: "safe",
      exceptions: [{ reason: "wet, drying" }],
    });
    expect(judgeConfirmation({ machine: rider, state: "locked-out", answers: answers("") }).kind).toBe("incomplete");
  });

  it("a raised machine is locked out and parked, a parked one is neither", () => {
    expect(satisfies("raised", "locked-out")).toBe(true);
    expect(satisfies("locked-out", "parked")).toBe(true);
    expect(satisfies("parked", "locked-out")).toBe(false);
    expect(satisfies("running", "parked")).toBe(false);
    expect(satisfies(undefined, "parked")).toBe(false);
  });

  it("lapses when the machine is run, and comes back only by confirming again", () => {
    const first = { state: "locked-out", at: "2026-03-01T08:00:00.000Z", who: "AK" } as const;
    const run = "2026-03-01T09:00:00.000Z";
    expect(stateInForce({ confirmations: [first], runs: [] }).inForce).toEqual(first);
    expect(stateInForce({ confirmations: [first], runs: [run] })).toEqual({ lapsed: { ...first, lapsedAt: run } });
    const again = { ...first, at: "2026-03-01T09:30:00.000Z" };
    expect(stateInForce({ confirmations: [first, again], runs: [run] }).inForce).toEqual(again);
  });
});
