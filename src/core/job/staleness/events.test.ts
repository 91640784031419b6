import { describe, expect, it } from "vitest";
import { PSI_PASCALS } from "@/core/basics/units";
import { CAUSES, CHECKS, CONTEXTS, EVENTS, FIXES, SYMPTOMS } from "@/core/catalogue";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { type LoggedEvent, staleReasons, tickedContexts } from "./index";

const machineOf = (fleetNumber: string) => machineSchema.parse(FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine);
const TAKEN = 10;
const LATER = "2026-03-01T08:30:00.000Z";
const tyre = (fromPsi: number, toPsi: number): LoggedEvent => ({
  event: "tyre-pressure-changed",
  seq: 20,
  at: LATER,
  who: "AK",
  pressures: [{ wheelId: "left-drive", fromPascals: fromPsi * PSI_PASCALS, toPascals: toPsi * PSI_PASCALS }],
});

describe("what goes stale", () => {
  const zeroTurn = machineOf("ZT-1");

  it("a tyre pumped up after the level makes it stale, with the movement and its range", () => {
    const [reason] = staleReasons({ machine: zeroTurn, check: "deck-level", takenSeq: TAKEN, events: [tyre(8, 12)] });
    expect(reason?.movement).toMatchObject({ spindleId: "left", direction: "left" });
    expect(reason?.movement?.change).toBeGreaterThan(0.003);
    expect(reason?.movement?.least).toBeLessThan(reason?.movement?.change ?? 0);
  });

  it("a change too small to move a tip by half a millimetre does not", () => {
    expect(staleReasons({ machine: zeroTurn, check: "deck-level", takenSeq: TAKEN, events: [tyre(12, 12.2)] })).toEqual([]);
  });

  it("nor any on a deck that rides on its own wheels, while the pressure reading itself is stale", () => {
    const front = machineOf("FD-1");
    expect(staleReasons({ machine: front, check: "deck-level", takenSeq: TAKEN, events: [tyre(8, 12)] })).toEqual([]);
    expect(staleReasons({ machine: front, check: "tyre-pressure", takenSeq: TAKEN, events: [tyre(8, 12)] })).toHaveLength(1);
  });

  it("an event before the reading, or one that does not touch it, leaves it good", () => {
    const before: LoggedEvent = { event: "hanger-touched", seq: 5, at: LATER, who: "AK" };
    const cleaned: LoggedEvent = { event: "deck-cleaned", seq: 20, at: LATER, who: "AK" };
    expect(staleReasons({ machine: zeroTurn, check: "deck-level", takenSeq: TAKEN, events: [before, cleaned] })).toEqual([]);
  });

  it("goes by the order of the log: a clock set back an hour keeps no reading good over a change", () => {
    const setBack: LoggedEvent = { event: "hanger-touched", seq: TAKEN + 1, at: "2026-03-01T06:00:00.000Z", who: "AK" };
    expect(staleReasons({ machine: zeroTurn, check: "deck-level", takenSeq: TAKEN, events: [setBack] })).toHaveLength(1);
  });

  it("ticks contexts from the log", () => {
    const struck: LoggedEvent = { event: "struck", seq: 20, at: LATER, who: "AK" };
    expect(
      tickedContexts([struck, { event: "deck-off", seq: 15, at: LATER, who: "AK" }])
        .map(({ context }) => context)
        .sort(),
    ).toEqual(["belt-disturbed", "deck-refitted", "struck-object"]);
  });
});

describe("the tables", () => {
  const ids = <T extends { id: string }>(rows: readonly T[]) => new Set<string>(rows.map(({ id }) => id));

  it("hold every row, and refer only to each other", () => {
    const [addedContexts, addedCauses, addedEvents] = [7, 9, 5];
    expect([SYMPTOMS.length, CONTEXTS.length, CHECKS.length, CAUSES.length, EVENTS.length]).toEqual([
      28,
      23 + addedContexts,
      35,
      57 + addedCauses,
      33 + addedEvents,
    ]);
    const checks = ids(CHECKS);
    const symptoms = ids(SYMPTOMS);
    const contexts = ids(CONTEXTS);
    const causes = ids(CAUSES);
    const events = ids(EVENTS);
    for (const cause of CAUSES) {
      expect(cause.checks.every((id) => checks.has(id))).toBe(true);
      expect(cause.shows.every(({ symptom }) => symptoms.has(symptom))).toBe(true);
      expect(Object.keys(cause.oddsWhen).every((id) => contexts.has(id))).toBe(true);
    }
    for (const fix of FIXES)
      expect([causes.has(fix.cause), events.has(fix.event), fix.provedBy.every((id) => checks.has(id))]).toEqual([true, true, true]);
    for (const event of EVENTS)
      expect([event.makesStale.every((id) => checks.has(id)), event.ticks.every((id) => contexts.has(id))]).toEqual([true, true]);
  });

  it("every cause has a fix, and every symptom a cause that shows it", () => {
    const fixed = new Set<string>(FIXES.map(({ cause }) => cause));
    expect(CAUSES.filter(({ id }) => !fixed.has(id))).toEqual([]);
    const shown = new Set<string>(CAUSES.flatMap(({ shows }) => shows.map(({ symptom }) => symptom)));
    expect(SYMPTOMS.filter(({ id }) => !shown.has(id))).toEqual([]);
  });
});
