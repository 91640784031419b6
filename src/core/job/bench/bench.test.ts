import { describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import { EVENTS } from "@/core/catalogue";
import { assessed, machineOf } from "@/core/checks/sheets.fixtures";
import { soundReadings, spoiled } from "@/core/checks/sound";
import type { LoggedEvent } from "@/core/job/staleness";
import { BENCH_ORDER, type BenchTake, benchOf } from "./index";

const triplex = machineOf("RT-1");
const offered = [...BENCH_ORDER];
const AT = "2026-11-26T08:00:00.000Z";

function takeOf(checkId: string, seq: number, changes: Record<string, unknown> = {}, only?: readonly string[]): BenchTake {
  const readings = spoiled(soundReadings({ machine: triplex, check: checkId, random: seededRandom(5), turf: "Square" }) ?? {}, changes);
  const units = Object.fromEntries(
    Object.entries((readings.units ?? {}) as object).filter(([id]) => only === undefined || only.includes(id)),
  );
  return { checkId, seq, at: AT, result: assessed(checkId, triplex, "units" in readings ? { ...readings, units } : readings) };
}

const everything = () => BENCH_ORDER.map((check, k) => takeOf(check, k + 1));
const happened = (event: LoggedEvent["event"], seq: number, place?: string): LoggedEvent => ({
  event,
  seq,
  at: AT,
  who: "AK",
  ...(place ? { place } : {}),
});
const bench = (takes: readonly BenchTake[], events: readonly LoggedEvent[] = []) => benchOf({ machine: triplex, takes, events, offered });
const cell = (units: ReturnType<typeof bench>, unit: string, check: string) =>
  units.find((one) => one.unit === unit)?.cells.find((one) => one.check === check)?.status;

describe("the bench, unit by unit", () => {
  it("nothing read: every unit begins at the first step; all read right: nothing is left", () => {
    expect(bench([]).map(({ next }) => next)).toEqual(["unit-match", "unit-match", "unit-match"]);
    expect(bench(everything()).map(({ next }) => next)).toEqual([undefined, undefined, undefined]);
  });

  it("grinding the left unit makes its later steps again and leaves its sisters standing", () => {
    const units = bench(everything(), [happened("unit-ground", 50, "left")]);
    expect(cell(units, "left", "reel-contact")).toMatchObject({ kind: "again", because: { event: "unit-ground", place: "left" } });
    expect(cell(units, "right", "reel-contact")).toMatchObject({ kind: "read", verdict: "in-tolerance" });
    expect(units.find(({ unit }) => unit === "left")?.next).toBe("unit-match");
    expect(units.find(({ unit }) => unit === "right")?.next).toBeUndefined();
  });

  it("for every event of the list: at one unit it touches that one alone, at none all of them (property)", () => {
    for (const { id, makesStale } of EVENTS) {
      const touched = BENCH_ORDER.filter((check) => (makesStale as readonly string[]).includes(check));
      for (const check of touched.filter((one) => one !== "cutting-height")) {
        const one = bench(everything(), [happened(id, 50, "middle")]);
        const all = bench(everything(), [happened(id, 50)]);
        const kinds = (units: ReturnType<typeof bench>) => ["left", "middle", "right"].map((unit) => cell(units, unit, check)?.kind);
        expect([id, check, kinds(one)]).toEqual([id, check, ["read", "again", "read"]]);
        expect([id, check, kinds(all)]).toEqual([id, check, ["again", "again", "again"]]);
      }
    }
  });

  it("read again after the event it stands again", () => {
    const takes = [...everything(), takeOf("reel-contact", 60, {}, ["left"])];
    expect(cell(bench(takes, [happened("contact-set", 50, "left")]), "left", "reel-contact")).toMatchObject({ kind: "read" });
  });

  it("a later reading of another unit does not hide what was found at this one", () => {
    const takes = [takeOf("reel-contact", 1, { "units.left.worst.left": "passes" }), takeOf("reel-contact", 2, {}, ["right"])];
    expect(cell(bench(takes), "left", "reel-contact")).toMatchObject({ kind: "read", verdict: "out", codes: ["one-end"] });
    expect(cell(bench(takes), "right", "reel-contact")).toMatchObject({ kind: "read", verdict: "in-tolerance" });
  });

  it("a look that found nothing, and a later reading in part, do not hide what was measured out", () => {
    const out = takeOf("reel-edge", 1, { "units.left.knife": "rounded" });
    const look: BenchTake = {
      checkId: "reel-edge",
      seq: 2,
      at: AT,
      result: { told: ["machine#reel-dull"], findings: [{ place: "machine", code: "not-found", verdict: "in-tolerance" }] },
    };
    const part = takeOf("reel-edge", 3, { "units.left.knife": undefined, "units.left.relief": undefined });
    expect(cell(bench([out, look, part]), "left", "reel-edge")).toMatchObject({ verdict: "out", codes: ["knife-rounded"] });
    // Ground since, neither of them says more than that it is to be read again.
    expect(cell(bench([out, look, part], [happened("unit-ground", 9, "left")]), "left", "reel-edge")?.kind).toBe("again");
    expect(cell(bench([out, { ...look, seq: 12 }], [happened("unit-ground", 9, "left")]), "left", "reel-edge")).toMatchObject({
      verdict: "not-enough-readings",
    });
  });

  it("a unit read in part is not right", () => {
    const half = takeOf("reel-edge", 1, { "units.left.nick": undefined });
    expect(cell(bench([half]), "left", "reel-edge")?.kind).not.toBe("again");
    expect(bench([...everything().filter(({ checkId }) => checkId !== "reel-edge"), half]).find(({ unit }) => unit === "left")?.next).toBe(
      "reel-edge",
    );
  });
});
