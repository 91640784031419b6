import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { FleetRow } from "@/data/fleet/fleet";
import { addressOf, SHOWS, SORTS, STATE_ORDER, STATE_WORDS, shownRows, viewFrom } from "./fleet-columns";

const row = (fleetNumber: string, more: Partial<FleetRow> = {}): FleetRow => ({
  id: fleetNumber.toLowerCase(),
  fleetNumber,
  name: "Zero-turn, three blades",
  site: "Airfield verges",
  kind: "zero-turn",
  kindLabel: "Zero-turn",
  cutters: 3,
  widthMetres: 1.25,
  state: "ready",
  openJobs: [],
  owed: 0,
  due: 0,
  notAsBuilt: 0,
  sheetVersion: 1,
  ...more,
});
const FLEET = [
  row("ZT-10", { hours: 40, due: 2 }),
  row("ZT-2", { hours: 1240, state: "held", openJobs: [{ id: 7, state: "in-work" }] }),
  row("RT-1", { name: "Reel triplex", site: "Cricket square", kindLabel: "Reel mower, ride-on", state: "struck", notAsBuilt: 1 }),
  row("BD-1", {
    site: "South cemetery",
    kindLabel: "Belly-deck tractor",
    state: "waiting",
    owed: 1,
    openJobs: [{ id: 9, state: "waiting" }],
  }),
  row("WP-9", { state: "retired", due: 4 }),
];
const ALL = { q: "", show: "all", by: "number", down: false };
const shown = (view: Partial<typeof ALL>) => shownRows(FLEET, { ...ALL, ...view }).map(({ fleetNumber }) => fleetNumber);

describe("the table of the fleet", () => {
  it("numbers sort as they are counted, retired ones are out of it until they are asked for", () => {
    expect(shown({})).toEqual(["BD-1", "RT-1", "ZT-2", "ZT-10"]);
    expect(shown({ show: "retired" })).toEqual(["WP-9"]);
    expect(shown({ down: true })).toEqual(["ZT-10", "ZT-2", "RT-1", "BD-1"]);
  });

  it("is found by all of the words, whatever they are of and however they are written", () => {
    expect(shown({ q: "reel CRICKET" })).toEqual(["RT-1"]);
    expect(shown({ q: "zt" })).toEqual(["ZT-2", "ZT-10"]);
    expect(shown({ q: "held" })).toEqual(["ZT-2"]);
    expect(shown({ q: "reel cemetery" })).toEqual([]);
    expect(shown({ q: "  " })).toHaveLength(4);
  });

  it("shows what is held or struck, open, due, owed or not as built; a retired one is never due", () => {
    expect(shown({ show: "held" })).toEqual(["RT-1", "ZT-2"]);
    expect(shown({ show: "open" })).toEqual(["BD-1", "ZT-2"]);
    expect(shown({ show: "due" })).toEqual(["ZT-10"]);
    expect(shown({ show: "owed" })).toEqual(["BD-1"]);
    expect(shown({ show: "odd" })).toEqual(["RT-1"]);
  });

  it("sorts by hours with those never read as the least, by state the gravest first", () => {
    expect(shown({ by: "hours" })).toEqual(["BD-1", "RT-1", "ZT-10", "ZT-2"]);
    expect(shown({ by: "hours", down: true })).toEqual(["ZT-2", "ZT-10", "BD-1", "RT-1"]);
    expect(shown({ by: "state" })).toEqual(["ZT-2", "RT-1", "BD-1", "ZT-10"]);
  });

  it("an order nobody knows is that of the numbers, a show nobody knows leaves none out", () => {
    expect(shown({ by: "constructor" })).toEqual(shown({}));
    expect(shown({ show: "nothing" })).toHaveLength(FLEET.length);
  });

  it("stands in the address and is read from it again, whatever is typed (fixed seed)", () => {
    fc.assert(
      fc.property(
        fc.string(),
        fc.constantFrom(...SHOWS.map(([id]) => id)),
        fc.constantFrom(...Object.keys(SORTS)),
        fc.boolean(),
        (q, show, by, down) => {
          const view = { q, show, by, down };
          expect(viewFrom(new URLSearchParams(addressOf(view)))).toEqual(view);
        },
      ),
      { seed: 20261126, numRuns: 200 },
    );
    expect(addressOf(ALL)).toBe("");
  });

  it("never shows a machine twice nor one that is not there, and two sorts show the same machines (fixed seed)", () => {
    fc.assert(
      fc.property(fc.constantFrom(...SHOWS.map(([id]) => id)), fc.constantFrom(...Object.keys(SORTS)), fc.boolean(), (show, by, down) => {
        const found = shown({ show, by, down });
        expect(new Set(found).size).toBe(found.length);
        expect([...found].sort()).toEqual([...shown({ show })].sort());
      }),
      { seed: 20261126, numRuns: 100 },
    );
  });

  it("has a word for every state", () => {
    expect(STATE_ORDER.map((state) => STATE_WORDS[state]).every((words) => words.length > 0)).toBe(true);
    expect(new Set(STATE_ORDER).size).toBe(Object.keys(STATE_WORDS).length);
  });
});
