import { describe, expect, it } from "vitest";
import { dueDay, paceOf } from "@/core/fleet/reliability";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { spindleStandings } from "./spindle-standings";
import { isRotation, type SpindleEntry, spindlesSeen } from "./spindles";

const machineOf = (fleetNumber: string) => machineSchema.parse(FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine);
const day = (n: number) => new Date(Date.UTC(2026, 0, 1) + n * 86_400_000).toISOString();
/** Two hours a day from day 0, read every ten days. */
const meter = Array.from({ length: 31 }, (_, k) => ({ at: day(10 * k), meterHours: 1000 + 20 * k }));
const NOW = day(300);

type Told = SpindleEntry extends infer One ? (One extends SpindleEntry ? Omit<One, "seq" | "who"> : never) : never;
/** Written down one after the other. */
const log = (entries: readonly Told[]) => entries.map((one, k) => ({ ...one, seq: k + 1, who: "AK" }) as SpindleEntry);
const standing = (entries: readonly Told[], machine = machineOf("ZT-1"), read = meter) =>
  spindleStandings({
    machineId: "m",
    machine,
    spindles: log(entries),
    seen: spindlesSeen(machine, log(entries)),
    rules: [],
    sharpenHours: 7,
    entries: [],
    meter: read,
    use: paceOf(read, NOW),
    now: NOW,
    today: NOW.slice(0, 10),
  });
const at = (place: string, entries: readonly Told[]) => standing(entries).find((one) => one.place === place);

/** Common practice: 50 h look and top up, 200 h purge (estimate). */
describe("grease by hours", () => {
  it("counts from the meter at the day it was greased, and forecasts at the recent rate (by hand: 2 h a day)", () => {
    const left = at("left", [{ kind: "topped-up", place: "left", at: day(285) }]);
    expect(left).toMatchObject({ from: "left", state: "good", next: { what: "top-up" } });
    expect(left?.sinceGreaseHours).toBeCloseTo(30, 9);
    expect(left?.next?.inHours).toBeCloseTo(20, 9);
    // The day is the one forecast's that every task has (its own check values stand with it).
    expect(left?.next?.on).toBe(dueDay(paceOf(meter, NOW), 20, NOW).on);
  });

  it.each([
    [272, "overdue"],
    [275, "due"],
    [276, "soon"],
    [280, "good"],
  ])("greased on day %i of 300 it is %s", (greased, state) => {
    expect(at("left", [{ kind: "topped-up", place: "left", at: day(greased) }])?.state).toBe(state);
  });

  it("greased under a clock that ran ahead it is due, not fresh for a year, and greased anew it is good", () => {
    const ahead = { kind: "topped-up", place: "left", at: day(665) } as const;
    const anew = { kind: "topped-up", place: "left", at: day(300) } as const;
    expect(at("left", [ahead])).toMatchObject({ state: "due", isAhead: true, next: { what: "top-up", inHours: 0 } });
    expect(at("left", [ahead])?.sinceGreaseHours).toBeUndefined();
    expect(at("left", [ahead, anew])?.state).toBe("good");
    expect(at("middle", [ahead])?.state).toBe("unknown");
    // Topped up since, its purge is no nearer told.
    const purged = { ...ahead, kind: "purged" } as const;
    expect(at("left", [purged, anew])).toMatchObject({ state: "due", isAhead: true, next: { what: "purge" } });
    expect(at("left", [purged, { ...anew, kind: "purged" }])?.state).toBe("good");
  });

  it("wants a purge after 200 h however often it was topped up, and new bearings begin both anew", () => {
    const entries: Told[] = [
      { kind: "purged", place: "left", at: day(190) },
      { kind: "topped-up", place: "left", at: day(299) },
    ];
    expect(at("left", entries)).toMatchObject({ state: "overdue", next: { what: "purge" } });
    const renewed = at("left", [...entries, { kind: "bearings-new", place: "left", at: NOW }]);
    expect([renewed?.sinceBearingsHours, renewed?.sincePurgeHours, renewed?.state]).toEqual([0, 0, "good"]);
  });

  it("does not make up what nobody logged, and says nothing is due of sealed bearings or of an engine's own shaft", () => {
    expect(at("middle", [{ kind: "topped-up", place: "left", at: day(299) }])).toEqual({
      place: "middle",
      from: "middle",
      state: "unknown",
    });
    expect(standing([], machineOf("FD-1")).map(({ state }) => state)).toEqual(["sealed", "sealed", "sealed"]);
    expect(standing([], machineOf("WP-1"))).toEqual([]);
    expect(standing([{ kind: "topped-up", place: "left", at: day(1) }], machineOf("ZT-1"), [])[0]?.state).toBe("unknown");
  });
});

describe("spindles moved round", () => {
  const round = { left: "middle", middle: "right", right: "left" };

  it("take their log with them", () => {
    const entries: Told[] = [
      { kind: "topped-up", place: "left", at: day(280) },
      { kind: "moved", moves: round, at: day(290) },
      { kind: "topped-up", place: "left", at: day(295) },
    ];
    expect(at("middle", entries)).toMatchObject({ from: "left", sinceGreaseHours: expect.closeTo(40, 9) });
    expect(at("left", entries)).toMatchObject({ from: "right", sinceGreaseHours: expect.closeTo(10, 9) });
    const home = [...entries, ...[296, 297].map((n): Told => ({ kind: "moved", moves: round, at: day(n) }))];
    expect(standing(home).map(({ place, from }) => place === from)).toEqual([true, true, true]);
  });

  it("need every place once, coming and going", () => {
    const places = ["left", "middle", "right"];
    expect(isRotation(round, places)).toBe(true);
    expect(isRotation({ left: "right", right: "left" }, places)).toBe(true);
    for (const bad of [{}, { left: "left" }, { left: "middle" }, { left: "middle", right: "middle" }, { left: "fourth", fourth: "left" }])
      expect(isRotation(bad as Record<string, string>, places)).toBe(false);
  });
});
