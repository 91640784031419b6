import { describe, expect, it } from "vitest";
import { KINDS } from "@/core/catalogue/kinds";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { FLEET } from "@/core/machine/examples/fleet";
import {
  type Answers,
  allYes,
  isLockOut,
  isSubstantial,
  itemsFor,
  judgeAnswers,
  SAFE_STATES,
  type SafeState,
  satisfies,
  statesOf,
} from "./index";

const rider = { kind: "zero-turn" } as const;
const ids = (kind: Parameters<typeof itemsFor>[0]["kind"], state: SafeState = "raised") => itemsFor({ kind }, state).map(({ id }) => id);
const words = (kind: Parameters<typeof itemsFor>[0]["kind"], state: SafeState) =>
  itemsFor({ kind }, state)
    .map(({ text }) => text.toLowerCase())
    .join(" ");
const judge = (state: SafeState, answers: Answers) =>
  judgeAnswers(itemsFor(rider, state), { ...allYes(itemsFor(rider, state)), ...answers });

/** Common practice of making safe: what must be true by state and kind, and what a kind does not have. */
describe("the points of a kind", () => {
  it("are its own: chocks and stands, filter up and fuel, two isolations", () => {
    expect(ids("zero-turn")).toEqual(expect.arrayContaining(["isolated", "chocks", "jack-seat", "stands"]));
    expect(ids("walk-petrol")).toEqual(expect.arrayContaining(["lead-first", "fuel", "tipped-right", "wedged"]));
    expect(ids("walk-cordless")).toEqual(expect.arrayContaining(["two-isolations", "capacitors", "wedged"]));
    expect(ids("walk-petrol")).not.toContain("stands");
  });

  it("ask no hydraulics of a machine pushed by hand, no brake of a push mower, no deck of a reel machine", () => {
    for (const state of SAFE_STATES.filter((one) => one !== "deck-removed")) {
      expect([state, words("walk-petrol", state)]).toEqual([state, expect.not.stringMatching(/hydraulic|brake|deck/)]);
      expect([state, words("walk-cordless", state)]).toEqual([state, expect.not.stringMatching(/hydraulic|brake|deck|fuel|plug/)]);
      expect([state, words("reel-ride-on", state)]).toEqual([state, expect.not.stringMatching(/deck|blade/)]);
    }
    expect(words("reel-ride-on", "locked-out")).toContain("every reel isolated");
  });

  it("have eyes protected wherever hands are near, on every kind", () => {
    for (const { id } of KINDS) {
      for (const state of ["locked-out", "raised", "bench"] as const)
        expect([id, state, ids(id, state)]).toEqual([id, state, expect.arrayContaining(["eyes"])]);
    }
  });

  it("lift a deck before it is isolated, once: never lowered and at its highest in one list", () => {
    const raised = ids("zero-turn", "raised");
    expect(raised.indexOf("lift-high")).toBeLessThan(raised.indexOf("isolated"));
    expect(raised).not.toContain("lowered-or-stopped");
    for (const { fleetNumber } of FLEET)
      for (const state of SAFE_STATES) {
        const own = itemsFor(machineOf(fleetNumber), state).map(({ id }) => id);
        expect([fleetNumber, state, new Set(own).size]).toEqual([fleetNumber, state, own.length]);
      }
  });

  it("say what the sheet says: which side up, stood on its end, where it may be jacked, how long to wait", () => {
    const text = (machine: Parameters<typeof itemsFor>[0], id: string) => itemsFor(machine, "raised").find((item) => item.id === id)?.text;
    expect(text(machineOf("WP-1"), "tipped-right")).toBe("Tipped as its sheet says: Left side down, filter and carburettor up");
    expect(text({ kind: "walk-petrol" }, "tipped-right")).toBe("Tipped with air filter and carburettor uppermost");
    expect(text({ kind: "walk-petrol", sheet: { standsOnEnd: true } }, "tipped-right")).toContain("Stood on its end");
    expect(text({ kind: "zero-turn", sheet: { jackingPoints: ["front cross tube", "rear hitch plate"] } }, "stands")).toBe(
      "On rated stands at front cross tube, rear hitch plate; never at a cast housing, never on jack or hydraulics alone",
    );
    expect(text({ kind: "zero-turn" }, "stands")).toContain("never at a cast housing");
    expect(text(machineOf("WC-1"), "capacitors")).toContain("60 s");
  });

  it("of a deck that is off: propped, its own wheels blocked; offered only where a deck comes off", () => {
    expect(itemsFor(rider, "deck-removed").map(({ id }) => id)).toEqual(
      expect.arrayContaining(["isolated", "deck-propped", "deck-wheels"]),
    );
    expect(statesOf(machineOf("ZT-1"))).toContain("deck-removed");
    for (const fleetNumber of ["WP-1", "RT-1"]) expect(statesOf(machineOf(fleetNumber))).not.toContain("deck-removed");
  });
});

describe("what answers come to", () => {
  it("stops at a refused or missing chock, stand or isolation", () => {
    for (const id of ["chocks", "stands", "isolated", "jack-seat"]) {
      expect(judge("raised", { [id]: { answer: "refused" } })).toMatchObject({ kind: "stopped", items: [{ id }] });
      expect(judge("raised", { [id]: { answer: "not-here", reason: "lent out" } }).kind).toBe("stopped");
    }
  });

  it("stops at once, whatever is still unanswered: a no is not hidden by what was not asked yet", () => {
    const items = itemsFor(rider, "locked-out");
    expect(judgeAnswers(items, { isolated: { answer: "refused" } })).toMatchObject({ kind: "stopped", items: [{ id: "isolated" }] });
    expect(judgeAnswers(items, {}).kind).toBe("incomplete");
  });

  it("lets a missing glove pass with a reason, and not without", () => {
    expect(judge("locked-out", { gloves: { answer: "not-here", reason: "wet, drying" } })).toMatchObject({
      kind: "safe",
      exceptions: [{ reason: "wet, drying" }],
    });
    expect(judge("locked-out", { gloves: { answer: "not-here", reason: "" } }).kind).toBe("incomplete");
  });

  it("a raised machine is locked out and parked, a parked one is neither; at a deck stood up hands get as near as at a raised one", () => {
    expect([satisfies("raised", "locked-out"), satisfies("locked-out", "parked"), satisfies("deck-removed", "raised")]).toEqual([
      true,
      true,
      true,
    ]);
    expect([satisfies("parked", "locked-out"), satisfies("running", "parked"), satisfies(undefined, "parked")]).toEqual([
      false,
      false,
      false,
    ]);
    expect(SAFE_STATES.filter(isLockOut)).toEqual(["locked-out", "raised", "deck-removed"]);
  });
});

describe("a reason of substance", () => {
  it.each(["ok", "OK ok ok ok ok ok", "............", "fixed it", "asdfghjklqwertz", "no no no no no no no", "it is a go", ""])(
    "%j is none",
    (reason) => {
      expect(isSubstantial(reason)).toBe(false);
    },
  );

  it.each(["pulley of the sheet fitted", "Schneide neu, zweimal geprüft", "read again by two people, no crack"])("%j is one", (reason) => {
    expect(isSubstantial(reason)).toBe(true);
  });
});
