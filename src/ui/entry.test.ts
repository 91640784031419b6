import { describe, expect, it } from "vitest";
import type { Field } from "@/core/checks";
import { isWrong, readField, readList, valueIn } from "./entry";

const height = { dimension: "length", range: { least: 0.001, most: 0.4, usualLeast: 0.02, usualMost: 0.15 } } as const;
const inches = (text: string, sure?: string) => readList({ text, field: height, system: "us", sure });
const read = (text: string) => inches(text).valuesSi.map((metres) => Math.round((metres / 0.0254) * 1000) / 1000);

describe("a list of readings", () => {
  it.each([
    ["one a line", "2.5\n2 3/8\n2-1/4", [2.5, 2.375, 2.25]],
    ["spreadsheet cells", "2.5\t2.25\t2.375", [2.5, 2.25, 2.375]],
    ["spaces", "2.5 2.25 2 3/8 2.4", [2.5, 2.25, 2.375, 2.4]],
    ["commas and semicolons", "2.5, 2.25; 2,375", [2.5, 2.25, 2.375]],
    ["mixed units in one row", "2 1/2 in, 57.15 mm, 6.35 cm", [2.5, 2.25, 2.5]],
    ["no end of blank lines", "\n\n2.5\n\n", [2.5]],
  ])("reads %s", (_, text, expected) => {
    expect(read(text)).toEqual(expected);
    expect(inches(text).bad).toEqual([]);
  });

  it("keeps 198 of 200 pasted with two words among them, and names the words as they stand", () => {
    const cells = Array.from({ length: 200 }, (_, k) => (k === 50 ? "about 2" : k === 120 ? "n/a" : `${(2.3 + (k % 7) / 20).toFixed(2)}`));
    const list = inches(cells.join("\n"));
    expect(list.valuesSi).toHaveLength(198);
    expect(list.bad).toEqual([
      { text: "about 2", why: "unreadable" },
      { text: "n/a", why: "unreadable" },
    ]);
    expect(isWrong(list)).toBe(true);
    expect(isWrong(inches(list.texts.join("\n")))).toBe(false);
  });

  it("asks about what is unusual, refuses what cannot be, and takes the unusual once its writer is sure", () => {
    expect(inches("2.5\n12\n-2\n400").bad).toEqual([
      { text: "12", why: "unusual" },
      { text: "-2", why: "negative" },
      { text: "400", why: "impossible" },
    ]);
    expect(inches("2.5\n12", "2.5\n12")).toMatchObject({ valuesSi: [expect.closeTo(0.0635, 6), expect.closeTo(0.3048, 6)], bad: [] });
  });
});

describe("a field", () => {
  const money: Field = { kind: "number", path: ["money", "price"], group: "money", label: "Price", least: 0, most: 100 };
  const choice: Field = { kind: "choice", path: ["a"], group: "g", label: "A", options: [{ id: "yes", label: "Yes" }] };

  it("of a bare number takes a comma, and says what is wrong with the rest", () => {
    const kinds = ["8,50", "-1", "1000", "nine"].map((text) => readField({ field: money, text, system: "us" }));
    expect(kinds).toEqual([
      { kind: "number", value: 8.5 },
      { kind: "no-number", why: "below", limit: 0 },
      { kind: "no-number", why: "above", limit: 100 },
      { kind: "no-number", why: "unreadable" },
    ]);
    expect(readField({ field: { ...money, isWhole: true }, text: "2.5", system: "us" })).toEqual({ kind: "no-number", why: "broken" });
  });

  it("of answers takes only its own, and gives no value where nothing was said", () => {
    expect(valueIn(readField({ field: choice, text: "yes", system: "us" }))).toBe("yes");
    expect(readField({ field: choice, text: "perhaps", system: "us" })).toEqual({ kind: "empty" });
    expect(valueIn(readField({ field: choice, text: "", system: "us" }))).toBeUndefined();
  });

  it("of a length asks 0.125 in where 125 was typed in an inch field", () => {
    const nick: Field = {
      kind: "quantity",
      path: ["n"],
      group: "g",
      label: "Nick",
      dimension: "length",
      instrument: "fine",
      range: { least: 0, most: 0.05, usualLeast: 0, usualMost: 0.012 },
    };
    const entry = readField({ field: nick, text: "125", system: "us" });
    expect(entry).toMatchObject({ kind: "asked", suggestion: { unit: "thou", valueSi: expect.closeTo(0.125 * 0.0254, 9) } });
  });
});
