import { describe, expect, it } from "vitest";
import { assessCheck, tryOut } from "@/core/checks";
import { SHEETS } from "@/core/checks/every-answer.fixtures";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { type Machine, machineSchema } from "@/core/machine";
import { scalpingRadius } from "@/core/machine/side-view";
import { isCredibleNumber, LEAST, physical, physicalOrNought } from "./physical";

/** The least number there is: it divides to nothing, and halves to itself. */
const TINY = 5e-324;

type Paths = (string | number)[];
/** Every number of a tree, by its path. */
function numbersIn(tree: unknown, path: Paths = []): Paths[] {
  if (typeof tree === "number") return [path];
  if (typeof tree !== "object" || tree === null) return [];
  return Object.entries(tree).flatMap(([key, inner]) => numbersIn(inner, [...path, Array.isArray(tree) ? Number(key) : key]));
}
function withAt(tree: unknown, [key, ...rest]: Paths, value: unknown): unknown {
  if (key === undefined) return value;
  const copy = Array.isArray(tree) ? [...tree] : { ...(tree as object) };
  (copy as Record<string | number, unknown>)[key] = withAt((tree as Record<string | number, unknown>)[key], rest, value);
  return copy;
}

describe("quantities", () => {
  it("have a least that is measured: nought where that can be, nothing between the two", () => {
    const length = physical("metres", 2);
    expect([LEAST.metres, 2, TINY, 0, 2.1, -1].map((value) => length.safeParse(value).success)).toEqual([
      true,
      true,
      false,
      false,
      false,
      false,
    ]);
    const turning = physicalOrNought("revolutionsPerMinute", 20_000);
    expect([0, 0.1, TINY, 0.09, -1].map((value) => turning.safeParse(value).success)).toEqual([true, true, false, false, false]);
  });

  it("are in no body nearer to nought than anybody measures, nor beyond every bound", () => {
    expect([0, 1e-9, -1e-9, 1e15, TINY, -TINY, 1e-10, 1e16].map(isCredibleNumber)).toEqual([
      true,
      true,
      true,
      true,
      false,
      false,
      false,
      false,
    ]);
  });
});

describe("a specification with the least or the largest number there is in any one place", () => {
  const machines = ["ZT-1", "GR-1", "RT-1"].map(machineOf);

  it.each(machines.map((machine) => [machine.kind, machine] as const))("is refused, or reckoned to an end: %s", (_, machine) => {
    for (const path of numbersIn(machine))
      for (const value of [TINY, 1e-6, 1e300]) {
        const read = machineSchema.safeParse(withAt(machine, path, value));
        if (!read.success) continue;
        expect(tryOut(read.data), path.join(".")).toEqual({ isTried: true });
      }
  });

  it("no roller radius is a halving without end: that one kept the whole server from answering", () => {
    const reel = machineOf("RT-1");
    const view = reel.sheet.unit?.sideView as NonNullable<NonNullable<Machine["sheet"]["unit"]>["sideView"]>;
    for (const radiusMetres of [TINY, 1e-300, 1e-12, 0]) {
      const zMetres = view.front.zMetres - view.front.radiusMetres + radiusMetres;
      expect(() => scalpingRadius({ ...view, front: { ...view.front, zMetres, radiusMetres } })).not.toThrow();
      const spoilt = withAt(reel, ["sheet", "unit", "sideView", "front", "radiusMetres"], radiusMetres);
      expect(machineSchema.safeParse(spoilt).success).toBe(false);
    }
  });
});

describe("readings with such a number in any one place", () => {
  const reel = SHEETS.filter(({ name }) => /of (ZT-1|RT-1|GR-1)$/.test(name));

  it.each(reel.map((sheet) => [sheet.name, sheet] as const))(
    "are refused, or answered with numbers that are some: %s",
    (_, { check, machine, sound }) => {
      const plain = JSON.parse(JSON.stringify(sound));
      for (const path of numbersIn(plain))
        for (const value of [TINY, 1e-7, 0, 1e300]) {
          const outcome = assessCheck(check.id, { machine, readings: withAt(plain, path, value) });
          if (outcome.kind !== "assessed") continue;
          expect(JSON.stringify(outcome.assessment), `${path.join(".")} = ${value}`).not.toContain("null");
        }
    },
  );
});
