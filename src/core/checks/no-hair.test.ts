import { describe, expect, it } from "vitest";
import type { Figure, Verdict } from "@/core/basics/findings";
import { SHEETS, type Sheet, with_ } from "./every-answer.fixtures";
import type { QuantityAsked } from "./form";
import type { Assessment } from "./types";

const STEPS: Partial<Record<Verdict, number>> = { "in-tolerance": 0, watch: 1, out: 2, stop: 2 };
/** What a change of a ten-thousandth may not do is move a place by two of them: a third of the finest tolerance is more than that. */
const HAIR = 1e-4;
const COARSE = 48;

/** Gravest verdict of each place, as a step. */
function stepsOf({ findings }: Assessment): Map<string, number> {
  const steps = new Map<string, number>();
  for (const { place, verdict } of findings) steps.set(place, Math.max(STEPS[verdict] ?? 0, steps.get(place) ?? 0));
  return steps;
}

/** A place of which nothing is said is one at which nothing is wrong. */
const jumps = (a: Assessment, b: Assessment): string[] => {
  const [from, to] = [stepsOf(a), stepsOf(b)];
  return [...new Set([...from.keys(), ...to.keys()])].filter((place) => Math.abs((to.get(place) ?? 0) - (from.get(place) ?? 0)) > 1);
};

/** Where along a quantity two values a hair apart are two steps apart, if anywhere. */
function hairOf(sheet: Sheet, field: QuantityAsked): string | undefined {
  const path = field.path.join(".");
  const { least, most, usualLeast = least, usualMost = most } = field.range;
  const values = Array.from({ length: COARSE + 1 }, (_, k) => usualLeast + ((usualMost - usualLeast) * k) / COARSE);
  const at = (value: number) => with_(sheet, { path, value });
  const read = values.map((value) => ({ value, found: at(value) }));
  for (const [k, low] of read.slice(0, -1).entries()) {
    const high = read[k + 1];
    if (!low.found || !high?.found || jumps(low.found, high.found).length === 0) continue;
    let [a, b] = [low as { value: number; found: Assessment }, high as { value: number; found: Assessment }];
    for (let halving = 0; halving < 30 && Math.abs(b.value - a.value) > HAIR * Math.max(Math.abs(a.value), Math.abs(b.value)); halving++) {
      const value = (a.value + b.value) / 2;
      const found = at(value);
      if (!found) break;
      if (jumps(a.found, found).length > 0) b = { value, found };
      else if (jumps(found, b.found).length > 0) a = { value, found };
      else break;
    }
    const moved = jumps(a.found, b.found);
    if (moved.length > 0 && Math.abs(b.value - a.value) <= HAIR * Math.max(Math.abs(a.value), Math.abs(b.value)))
      return `${path}: ${moved.join(", ")} between ${a.value} and ${b.value}`;
  }
  return undefined;
}

const quantities = (sheet: Sheet): QuantityAsked[] => sheet.fields.filter((field) => field.kind === "quantity") as QuantityAsked[];

/** One field of each kind a sheet asks: its sisters at other places are judged alike. */
const oneOfEach = (sheet: Sheet): QuantityAsked[] => {
  const kinds = new Map<string, QuantityAsked>();
  for (const field of quantities(sheet)) kinds.set(`${field.path.at(0)}.${field.path.at(-1)}`, field);
  return [...kinds.values()];
};

/** Inside what is shown it is not out, outside it not right. */
function contradicts({ value, tolerance, verdict, standardError }: Figure): boolean {
  if (!tolerance || !verdict) return false;
  const [least, most] =
    tolerance.kind === "about"
      ? [tolerance.target - tolerance.plusMinus, tolerance.target + tolerance.plusMinus]
      : [tolerance.least ?? Number.NEGATIVE_INFINITY, tolerance.most ?? Number.POSITIVE_INFINITY];
  const slack = 1e-9 + Math.abs(value) * 1e-9;
  const isInside = value >= least - slack && value <= most + slack;
  const isWell = value > least + slack && value < most - slack;
  return (verdict === "in-tolerance" && !isInside) || (verdict === "out" && isWell && standardError === undefined);
}

/** The bracket's hole is looked up in the sheet's table by height: at the edge of a row it is another hole. */
const BY_TABLE: readonly string[] = ["roller-position"];

describe.each(SHEETS.filter(({ check }) => !BY_TABLE.includes(check.id)))("$name", (sheet) => {
  it("never goes from right to out at a hair", () => {
    expect(oneOfEach(sheet).flatMap((field) => hairOf(sheet, field) ?? [])).toEqual([]);
  });

  it("judges every figure by the tolerance it shows", () => {
    const wrong = oneOfEach(sheet).flatMap((field) => {
      const { least, most, usualLeast = least, usualMost = most } = field.range;
      return Array.from({ length: 25 }, (_, k) => usualLeast + ((usualMost - usualLeast) * k) / 24).flatMap((value) =>
        (with_(sheet, { path: field.path.join("."), value })?.figures ?? [])
          .filter(contradicts)
          .map((one) => `${field.path.join(".")}=${value}: ${one.id} ${one.value} ${one.verdict} ${JSON.stringify(one.tolerance)}`),
      );
    });
    expect([...new Set(wrong)].slice(0, 3)).toEqual([]);
  });
});
