import { describe, expect, it } from "vitest";
import { readHours } from "./hours-lines";

const read = (text: string) => {
  const { rows, bad } = readHours(text);
  return { rows: rows.map(({ fleetNumber, meterHours }) => [fleetNumber, meterHours]), bad: bad.map(({ line }) => line) };
};

describe("hour meters as a list has them", () => {
  it.each([
    [
      "typed with a space",
      "ZT-1 1250.5\nBD-2  960",
      [
        ["ZT-1", 1250.5],
        ["BD-2", 960],
      ],
    ],
    [
      "out of a spreadsheet",
      "ZT-1\t1250.5\nBD-2\t960",
      [
        ["ZT-1", 1250.5],
        ["BD-2", 960],
      ],
    ],
    [
      "semicolons and a decimal comma",
      "ZT-1;1250,5\nBD-2;960",
      [
        ["ZT-1", 1250.5],
        ["BD-2", 960],
      ],
    ],
    [
      "a CSV with its head",
      "number,hours\nZT-1,1250.5\nBD-2,960",
      [
        ["ZT-1", 1250.5],
        ["BD-2", 960],
      ],
    ],
    [
      "with the unit said",
      "ZT-1; 1250.5 h\nBD-2; 960h",
      [
        ["ZT-1", 1250.5],
        ["BD-2", 960],
      ],
    ],
    [
      "with empty lines between",
      "ZT-1 12\n\n\nBD-2 9\n",
      [
        ["ZT-1", 12],
        ["BD-2", 9],
      ],
    ],
    ["one alone", "ZT-1 12", [["ZT-1", 12]]],
  ] as const)("%s", (_, text, rows) => {
    expect(read(text)).toEqual({ rows, bad: [] });
  });

  it.each([
    ["a decimal comma between commas is not guessed at", "ZT-1,1250,5\nBD-2,960,0", [1, 2]],
    ["a word for hours, past the head", "ZT-1 12\nBD-2 many", [2]],
    ["less than nothing", "ZT-1 12\nBD-2 -9", [2]],
    ["no number of a machine", "ZT-1;12\n;9", [2]],
    ["hours missing", "ZT-1;12\nBD-2;", [2]],
  ] as const)("%s", (_, text, bad) => {
    expect(read(text).bad).toEqual(bad);
  });

  it("nothing is nothing", () => {
    expect(read("")).toEqual({ rows: [], bad: [] });
    expect(read("   \n ")).toEqual({ rows: [], bad: [] });
  });

  it("every line is either read or named: none is lost", () => {
    const lines = ["ZT-1 12", "what is this", "BD-2 9", "x", "GR-1 7 8"];
    const { rows, bad } = readHours(`first 1\n${lines.join("\n")}`);
    expect([...rows, ...bad].map(({ line }) => line).sort((a, b) => a - b)).toEqual([1, 2, 3, 4, 5, 6]);
  });
});
