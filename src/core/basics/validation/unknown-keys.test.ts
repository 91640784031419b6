import { describe, expect, it } from "vitest";
import * as z from "zod";
import { MOST_DEEP, shapeProblem, unknownKeys } from ".";

const schema = z.object({
  a: z.string().trim(),
  list: z.array(z.object({ b: z.number() })).default([]),
  free: z.record(z.string(), z.object({ c: z.number().optional() })).default({}),
});
const unknownIn = (given: unknown) => unknownKeys(given, schema.parse(given)).map(({ path }) => path.join("."));

describe("keys nobody understands", () => {
  it("are named with their path, at every depth", () => {
    expect(unknownIn({ a: " x ", z: 1, list: [{ b: 1 }, { b: 2, y: 3 }], free: { any: { c: 1, d: 2 } } })).toEqual([
      "z",
      "list.1.y",
      "free.any.d",
    ]);
  });

  it("are none where all is known, what was left out stands by default, and names of a record are free", () => {
    expect(unknownIn({ a: "x", free: { constructor: { c: 1 } } })).toEqual([]);
  });

  it("are names of every object too, and not found on what all objects have", () => {
    expect(unknownIn({ a: "x", constructor: 1, toString: 2 })).toEqual(["constructor", "toString"]);
  });

  it("are not looked for where an older shape was brought up to another kind", () => {
    expect(unknownKeys({ tyres: [{ wheelId: "left" }] }, { tyres: { left: {} } })).toEqual([]);
  });
});

describe("the shape of a body", () => {
  const nested = (depth: number) => JSON.parse("[".repeat(depth) + "]".repeat(depth)) as unknown;

  it("may nest as deep as any sheet, and not beyond all reason", () => {
    expect(shapeProblem(nested(MOST_DEEP))).toBeUndefined();
    expect(shapeProblem(nested(MOST_DEEP + 1))?.code).toBe("too-deep");
    expect(shapeProblem(nested(100_001))?.code).toBe("too-deep");
  });

  it("has no letter in it that nobody types, and line ends where there are lines", () => {
    expect(shapeProblem({ words: "one\ntwo\tthree\r\n" })).toBeUndefined();
    expect(shapeProblem({ words: ["a\u0000b"] })).toEqual({ code: "letter-not-allowed", path: ["words", "0"] });
    expect(shapeProblem({ "a\u0007": 1 })?.code).toBe("name-not-allowed");
    // A name is one line, and reads the way it is written.
    for (const letter of ["\r", "\n", "\t", "\u2028", "\u202e", "\u2066"])
      expect(shapeProblem({ fleetNumber: `Q1${letter}X:evil` })?.code, JSON.stringify(letter)).toBe("letter-not-allowed");
    for (const letter of ["\u2028", "\u202e", "\u2066"]) expect(shapeProblem({ words: `a${letter}b` })?.code).toBe("letter-not-allowed");
    expect(shapeProblem({ owes: ["a weld\na seal"], asTyped: { "tips.left": "3.1\n3.2" } })).toBeUndefined();
    expect(shapeProblem({ readings: { radiusMetres: 5e-324 } })).toEqual({
      code: "number-not-credible",
      path: ["readings", "radiusMetres"],
    });
  });

  it("has no name that reaches behind its object", () => {
    expect(shapeProblem(JSON.parse('{"a":[{"__proto__":{"b":1}}]}'))).toEqual({ code: "name-not-allowed", path: ["a", "0", "__proto__"] });
  });
});
