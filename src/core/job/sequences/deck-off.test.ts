import { describe, expect, it } from "vitest";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { withSheet } from "@/core/machine";
import { moveProblems as problemsOf } from "./counted";
import { type DeckMove, deckState, deckSteps } from "./deck-off";
import { usualMoves } from "./moves.fixtures";

const moveProblems = (machine: Parameters<typeof deckSteps>[0], moves: readonly DeckMove[], move: DeckMove) =>
  problemsOf(deckSteps(machine), moves, move);

const tractor = machineOf("BD-1");
const zeroTurn = machineOf("ZT-1");

const movesOf = (machine: typeof tractor): DeckMove[] => usualMoves(deckSteps(machine));

/** The usual order: common practice. */
describe("the order of a deck", () => {
  it("begins with photographs, takes the front link off last, and puts it on first where the sheet says so", () => {
    const { off, on } = deckSteps(tractor);
    expect(off[0]?.id).toBe("photographs");
    expect(off.map(({ id }) => id).indexOf("front-link")).toBeGreaterThan(off.map(({ id }) => id).indexOf("rear-links"));
    expect(on.slice(0, 2).map(({ id }) => id)).toEqual(["out", "front-link"]);
  });

  it("of a machine without its own goes by what it has: belt slack before links, front links last off, belt on after them", () => {
    const { off, on } = deckSteps(zeroTurn);
    expect(off.map(({ id }) => id)).toEqual(["photographs", "deck-down", "belt", "rear-links", "front-links", "out"]);
    expect(on.map(({ id }) => id)).toEqual(["out", "front-links", "rear-links", "belt", "deck-down"]);
    expect(deckSteps(machineOf("GR-1")).off.map(({ id }) => id)).not.toContain("belt");
    expect(deckSteps(machineOf("WP-1"))).toEqual({ off: [], on: [] });
  });
});

describe("the tray", () => {
  it("holds what came off until it goes back, and is empty again after the round", () => {
    const moves = movesOf(tractor);
    const { off } = deckSteps(tractor);
    const out = deckState(tractor, moves.slice(0, off.length));
    expect(out.where).toBe("off");
    expect(Object.fromEntries(out.tray.map(({ id, inTray }) => [id, inTray]))).toEqual({
      "stabiliser-pin": 1,
      "link-pins": 2,
      hairpins: 2,
      "link-washers": 4,
      "front-pin": 1,
    });
    const last = deckState(tractor, moves.slice(0, -1));
    expect([last.where, last.tray.every(({ inTray }) => inTray === 0)]).toEqual(["going-on", true]);
    expect(deckState(tractor, moves)).toMatchObject({ where: "on", tray: [], done: [] });
  });

  it("a round that was finished stays finished when the order gets a step more or fewer; one under way goes on where it was", () => {
    const moves = movesOf(tractor);
    const { off, on } = deckSteps(tractor);
    const told = moves.map((move, k) => ({ ...move, left: moves.length - k - 1 }));
    const steps = tractor.sheet.deckOff?.steps ?? [];
    const other = (changed: typeof steps) => withSheet(tractor, { deckOff: { steps: changed, backFirst: [] } });
    const longer = other([...steps, { id: "chute", words: "Chute off", parts: [] }]);
    const shorter = other(steps.slice(0, 4));
    for (const machine of [longer, shorter]) {
      expect(deckState(machine, told)).toMatchObject({ where: "on", done: [] });
      // A second round by the new order, after one by the old.
      const again = [...told, ...movesOf(machine)];
      expect(deckState(machine, again)).toMatchObject({ where: "on", done: [] });
      expect(deckState(machine, again.slice(0, -1)).where).toBe("going-on");
      expect(deckState(machine, [...told, ...movesOf(machine).slice(0, 2)]).done).toHaveLength(2);
    }
    // Written down before a move said what was left: the order's own last step ends it.
    expect(deckState(tractor, [...moves, ...moves.slice(0, off.length + on.length - 1)]).where).toBe("going-on");
    expect(deckState(tractor, [...moves, ...moves])).toMatchObject({ where: "on", done: [] });
  });

  it("says what was short when it came off", () => {
    const moves = movesOf(tractor).slice(0, 5);
    const short = moves.map((move) => (move.step === "rear-links" ? { ...move, counts: { ...move.counts, hairpins: 1 } } : move));
    expect(deckState(tractor, short).tray.find(({ id }) => id === "hairpins")).toMatchObject({ inTray: 1, missing: 1 });
  });

  it("refuses a step out of turn, more parts than there are, and fewer back than came off", () => {
    const moves = movesOf(tractor);
    expect(moveProblems(tractor, [], moves[1] as DeckMove)).toEqual([{ code: "not-the-next-step" }]);
    expect(
      moveProblems(tractor, moves.slice(0, 4), {
        way: "off",
        step: "rear-links",
        counts: { "link-pins": 3, hairpins: 2, "link-washers": 4 },
      }),
    ).toEqual([{ code: "more-than-there-are", part: "link-pins", wanted: 2 }]);
    const back = moves.findIndex(({ way, step }) => way === "on" && step === "rear-links");
    expect(
      moveProblems(tractor, moves.slice(0, back), {
        way: "on",
        step: "rear-links",
        counts: { "link-pins": 2, hairpins: 1, "link-washers": 4 },
      }),
    ).toEqual([{ code: "fewer-back-than-came-off", part: "hairpins", wanted: 2 }]);
    expect(moves.every((move, at) => moveProblems(tractor, moves.slice(0, at), move).length === 0)).toBe(true);
  });

  it("goes on only with a deck that is propped and blocked, and never with nothing counted", () => {
    const moves = movesOf(tractor);
    const out = moves.findIndex(({ way, step }) => way === "off" && step === "out");
    const ask = (answers: Record<string, string>) => moveProblems(tractor, moves.slice(0, out), { ...(moves[out] as DeckMove), answers });
    expect(ask({})).toEqual([{ code: "unanswered", ask: "stood" }]);
    expect(ask({ stood: "loose" })).toEqual([{ code: "refused-answer", ask: "stood", why: "deck-not-propped" }]);
    const links = moves.findIndex(({ step }) => step === "rear-links");
    expect(moveProblems(tractor, moves.slice(0, links), { ...(moves[links] as DeckMove), counts: {} })).toContainEqual({
      code: "nothing-counted",
    });
  });

  it("counts washers and clips by default, and puts the belt back pulley by pulley as the sketch has it", () => {
    const zeroTurn = machineOf("ZT-1");
    const { off, on } = deckSteps(withSheet(zeroTurn, { deckOff: undefined }));
    expect(off.flatMap(({ parts }) => parts.map(({ id }) => id))).toEqual(
      expect.arrayContaining(["front-washers", "front-clips", "rear-washers", "rear-clips"]),
    );
    const belt = on.find(({ id }) => id === "belt")?.backWords ?? "";
    const labels = zeroTurn.sheet.belt?.pulleys.map(({ label }) => label.toLowerCase()) ?? [];
    expect(labels.length).toBeGreaterThan(2);
    const places = labels.map((label) => belt.toLowerCase().lastIndexOf(label));
    expect(places.every((at) => at > 0)).toBe(true);
  });
});
