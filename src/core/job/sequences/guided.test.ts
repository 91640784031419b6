import { describe, expect, it } from "vitest";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { asksOf, moveProblems } from "./counted";
import { eventOfRound, type GuidedMove, guidedOrder, guidedState, owedOf, type Round, roundsOf } from "./guided";
import { usualMoves } from "./moves.fixtures";

const zeroTurn = machineOf("ZT-1");

const movesOf = (round: Round): GuidedMove[] => usualMoves(guidedOrder(zeroTurn, round)).map((move) => ({ ...move, round, place: "left" }));

const at = (round: Round, way: "off" | "on", step: string, answers: Record<string, string>) => {
  const moves = movesOf(round);
  const index = moves.findIndex((move) => move.way === way && move.step === step);
  const move = moves[index] as GuidedMove;
  return moveProblems(guidedOrder(zeroTurn, round), moves.slice(0, index), { ...move, answers: { ...move.answers, ...answers } });
};

/** Common practice, for the order too. */
describe("a blade off and on", () => {
  it("begins with a photograph and ends turned by hand, every usual answer let through", () => {
    const moves = movesOf("blade");
    expect([moves[0]?.step, moves.at(-1)?.step]).toEqual(["photograph", "turn"]);
    const order = guidedOrder(zeroTurn, "blade");
    for (const [k, move] of moves.entries()) expect(moveProblems(order, moves.slice(0, k), move), move.step).toEqual([]);
    expect(guidedState(zeroTurn, { round: "blade", place: "left" }, moves).where).toBe("on");
    expect(guidedState(zeroTurn, { round: "blade", place: "right" }, moves).done).toEqual([]);
  });

  it("says which way this bolt loosens, by the sheet's thread, and counts this machine's own stack", () => {
    const [, block] = guidedOrder(zeroTurn, "blade").off;
    expect(block?.words).toContain("loosens anticlockwise, seen from below");
    const left = { ...zeroTurn.sheet.blade?.bolt, thread: "left" };
    const turned = { ...zeroTurn, sheet: { ...zeroTurn.sheet, blade: { ...zeroTurn.sheet.blade, bolt: left } } } as typeof zeroTurn;
    expect(guidedOrder(turned, "blade").off[1]?.words).toContain("loosens clockwise, seen from below");
    const parts = guidedOrder(zeroTurn, "blade").off.flatMap((step) => step.parts.map(({ label }) => label));
    expect(parts).toEqual(expect.arrayContaining(["Blade bolt", "Cupped washer", "Blade"]));
  });

  it.each([
    ["off", "block", { block: "slips" }, "block-slips"],
    ["off", "break-loose", { ladder: "not-yet" }, "bolt-still-tight"],
    ["off", "break-loose", { ladder: "impact", "impact-kit": "not-rated" }, "impact-not-rated"],
    ["on", "blade", { seat: "not-clean" }, "seat-not-clean"],
    ["on", "bolt", { started: "binds" }, "bolt-binds"],
    ["on", "bolt", { thread: "oiled" }, "thread-not-as-torque"],
    ["on", "turn", { turned: "touches" }, "touches-by-hand"],
  ] as const)("%s, at %s with %j goes no further", (way, step, answers, why) => {
    expect(at("blade", way, step, answers)).toMatchObject([{ code: "refused-answer", why }]);
  });

  it.each([
    ["no figure though by wrench", {}, {}, "wrench-without-figure"],
    ["ten times the sheet's figure", {}, { torque: 1220 }, "torque-not-credible"],
    ["nought", {}, { torque: 0 }, "torque-not-credible"],
    ["no figure, by feel", { how: "by-feel" }, {}, undefined],
  ])("of torque takes %s as what it is", (_, more, sizes, code) => {
    const moves = movesOf("blade");
    const at = moves.findIndex(({ step }) => step === "torque");
    const move = moves[at] as GuidedMove;
    const problems = moveProblems(guidedOrder(zeroTurn, "blade"), moves.slice(0, at), {
      ...move,
      answers: { ...move.answers, ...more },
      sizes,
    });
    expect(problems.map((problem) => problem.code)).toEqual(code ? [code] : []);
  });

  it("never offers heat", () => {
    const order = guidedOrder(zeroTurn, "blade");
    const options = [...order.off, ...order.on].flatMap((step) => [...asksOf(step, "off"), ...asksOf(step, "on")]);
    expect(JSON.stringify(options)).not.toMatch(/heat|torch|flame/i);
  });

  it("leaves on the log whether the same blade went on, and owes a wrench where it was tightened by feel", () => {
    const moves = movesOf("blade");
    expect(eventOfRound("blade", moves)).toBe("blade-refitted");
    const other = moves.map((move) =>
      move.step === "blade" && move.way === "on" ? { ...move, answers: { ...move.answers, which: "other" } } : move,
    );
    expect(eventOfRound("blade", other)).toBe("blade-changed");
    const feel = moves.map((move) => (move.step === "torque" ? { ...move, answers: { how: "by-feel" } } : move));
    expect([owedOf(guidedOrder(zeroTurn, "blade"), moves), owedOf(guidedOrder(zeroTurn, "blade"), feel)]).toEqual([
      [],
      ["bolts-by-wrench"],
    ]);
  });
});

/** Common practice. */
describe("a spindle served", () => {
  it("asks what the fitting feeds first, and puts a spindle elsewhere only once they are proved alike", () => {
    expect(guidedOrder(zeroTurn, "spindle").off[0]?.id).toBe("what-it-is");
    expect(at("spindle", "on", "out", { place: "not-proved" })).toMatchObject([{ code: "refused-answer", why: "prove-identical" }]);
    expect(at("spindle", "on", "out", { place: "proved-alike" })).toEqual([]);
    expect(at("spindle", "on", "apart", { "bearing-seat": "step" })).toMatchObject([{ why: "bearing-not-home" }]);
    expect(eventOfRound("spindle", [])).toBe("spindle-apart");
  });

  it("refuses a bearing that stands prouder than any does, and lets it stay unmeasured", () => {
    const moves = movesOf("spindle");
    const at = moves.findIndex(({ way, step }) => way === "on" && step === "apart");
    const proud = (sizes: Record<string, number>) =>
      moveProblems(guidedOrder(zeroTurn, "spindle"), moves.slice(0, at), { ...(moves[at] as GuidedMove), sizes });
    expect([proud({}), proud({ projection: 0.0002 })]).toEqual([[], []]);
    // Measured proud it is not home, though the eye said flush.
    expect(proud({ projection: 0.0004 })).toEqual([{ code: "size-not-home", ask: "projection", within: 0.00025 }]);
    expect(proud({ projection: 0.4 })).toEqual([{ code: "size-not-credible", ask: "projection", most: 0.02 }]);
  });

  it("gets back what lies in the tray, though a list told since counts fewer", () => {
    const moves = movesOf("spindle");
    const own = guidedOrder(zeroTurn, "spindle", { bearings: 1 });
    const at = moves.findIndex(({ way, step }) => way === "on" && step === "apart");
    const back = (bearings: number) => {
      const move = moves[at] as GuidedMove;
      return moveProblems(own, moves.slice(0, at), { ...move, counts: { ...move.counts, bearings } });
    };
    expect(back(2)).toEqual([]);
    expect(back(1)).toEqual([{ code: "fewer-back-than-came-off", part: "bearings", wanted: 2 }]);
    expect(back(3)).toEqual([{ code: "more-than-there-are", part: "bearings", wanted: 2 }]);
  });

  it("takes its own list of parts where somebody told it, and drops what it has none of", () => {
    const order = guidedOrder(zeroTurn, "spindle", { "spindle-bolts": 6, spacer: 0 });
    const parts = Object.fromEntries(order.off.flatMap((step) => step.parts.map(({ id, count }) => [id, count])));
    expect([parts["spindle-bolts"], parts.spacer, parts.bearings]).toEqual([6, undefined, 2]);
  });

  it("has a round for every blade of a machine", () => {
    expect(roundsOf(zeroTurn)).toHaveLength(6);
    expect(roundsOf(machineOf("RT-1"))).toEqual([]);
    // A blade on the engine's own shaft comes off; there is no spindle to serve.
    expect(roundsOf(machineOf("WP-1")).map(({ round }) => round)).toEqual(["blade"]);
  });
});
