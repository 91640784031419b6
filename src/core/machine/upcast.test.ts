import { describe, expect, it } from "vitest";
import first from "../../../tests/data/sheets-v1.json";
import { machineSchema } from "./schema";
import { sheetProblems } from "./sheet-problems";
import { SHEET_SCHEMA_VERSION, storedSheet, upcastSheet } from "./upcast";

/** Every sheet of the demo depot as the first version of the schema wrote it. */
const FIRST = Object.entries(first as unknown as Record<string, Record<string, unknown>>);

describe("sheets of earlier versions", () => {
  it.each(FIRST)("%s is read as it was, and contradicts nothing", (_, sheet) => {
    const machine = machineSchema.parse(upcastSheet(sheet));
    expect(sheetProblems(machine)).toEqual([]);
    expect(JSON.parse(JSON.stringify(machine))).toEqual(
      expect.objectContaining({ kind: sheet.kind, wheels: sheet.wheels, units: sheet.units }),
    );
    // Stored again in today's form it is the same machine.
    expect(machineSchema.parse(upcastSheet(JSON.parse(JSON.stringify(storedSheet(machine)))))).toEqual(machine);
  });

  it("a reel machine with a deck and blades, as the first version took it, keeps its units alone", () => {
    const rotary = first["ZT-1"] as unknown as Record<string, object>;
    const reel = first["RT-1"] as unknown as Record<string, object>;
    const both = { ...reel, deck: rotary.deck, spindles: rotary.spindles, sheet: { ...reel.sheet, ...rotary.sheet } };
    const machine = machineSchema.parse(upcastSheet(both));
    expect([machine.deck, machine.spindles, machine.sheet.blade, machine.sheet.belt]).toEqual([undefined, [], undefined, undefined]);
    expect(machine.units).toHaveLength(3);
    expect(sheetProblems(machine)).toEqual([]);
  });

  it("a rotary machine keeps its blades and no units", () => {
    const both = { ...first["ZT-1"], units: first["RT-1"].units };
    expect(machineSchema.parse(upcastSheet(both)).units).toEqual([]);
  });

  it("what the second version still took of the other kind is left out of a stored sheet, and refused of a new one", () => {
    const [rotary, reel] = [first["ZT-1"], first["RT-1"]] as unknown as Record<string, object>[];
    const withBlade = { ...reel, sheet: { ...reel?.sheet, blade: { lengthMetres: 0.5 } } };
    const withUnit = { ...rotary, sheet: { ...rotary?.sheet, unit: { groomer: "none" } } };
    for (const [sheet, key] of [
      [withBlade, "blade"],
      [withUnit, "unit"],
      [{ ...reel, deck: rotary?.deck }, "deck"],
    ] as const) {
      expect(machineSchema.safeParse(upcastSheet({ schemaVersion: 2, ...sheet })).success).toBe(true);
      const refused = machineSchema.safeParse(sheet);
      expect(refused.error?.issues.map(({ path, message }) => [path.at(-1), message])).toEqual([[key, "cuts-with-another"]]);
    }
  });

  it("a stored sheet carries its version; one of a newer program, and one of no version, are refused", () => {
    expect(storedSheet({ kind: "zero-turn" })).toEqual({ schemaVersion: SHEET_SCHEMA_VERSION, kind: "zero-turn" });
    expect(() => upcastSheet({ schemaVersion: SHEET_SCHEMA_VERSION + 1 })).toThrow(/this program reads/);
    for (const schemaVersion of [0, -1, 1.5, "2", null]) expect(() => upcastSheet({ schemaVersion })).toThrow(/no version/);
    for (const none of [null, 7, "sheet", []]) expect(upcastSheet(none)).toEqual(none);
  });

  it("an unknown kind is left for the schema to refuse", () => {
    expect(machineSchema.safeParse(upcastSheet({ kind: "hovercraft" })).success).toBe(false);
  });
});

describe("units that contradict themselves", () => {
  const triplex = machineSchema.parse(upcastSheet(first["RT-1"]));
  const side = {
    front: { yMetres: 0.1, zMetres: 0.03, radiusMetres: 0.03 },
    rear: { yMetres: -0.1, zMetres: 0.03, radiusMetres: 0.03 },
    edge: { yMetres: 0, zMetres: 0.012 },
  };
  const problems = (unit: object) =>
    sheetProblems(machineSchema.parse({ ...triplex, sheet: { ...triplex.sheet, unit } })).map(({ code }) => code);

  it("rollers that overlap, stand the wrong way about or above the knife are named; a sound side view is not", () => {
    expect(problems({ sideView: side })).toEqual([]);
    expect(problems({ sideView: { ...side, rear: { ...side.rear, yMetres: 0.06 } } })).toEqual(["rollers-overlap"]);
    expect(problems({ sideView: { ...side, front: side.rear, rear: side.front } })).toEqual(["rollers-crossed"]);
    expect(problems({ sideView: { ...side, edge: { yMetres: 0, zMetres: -0.001 } } })).toEqual(["rollers-above-knife"]);
  });

  it("scrap over new, a least over what it is new, bounds of attitude the wrong way about", () => {
    expect(problems({ reel: { newDiameterMetres: 0.12, scrapDiameterMetres: 0.13, blades: 11 } })).toEqual(["least-above-most"]);
    expect(problems({ bedknife: { type: "Thin", thicknessMetres: 0.002, leastThicknessMetres: 0.003 } })).toEqual(["least-above-most"]);
    expect(problems({ attitude: { leastRadians: 0.1, mostRadians: 0 } })).toEqual(["least-above-most"]);
  });
});
