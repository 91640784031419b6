import { describe, expect, it } from "vitest";
import { kindById } from "@/core/catalogue/kinds";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { searched, smallOf } from "../../bench/trial/full-search";
import { casesOver, knowledgeFor } from "../../bench/trial/worksheets";

const CHECKS = 4;
const CASES = 12;
const fleet = FLEET.map(({ machine }) => machineSchema.parse(machine));
const mean = (values: readonly number[]) => values.reduce((sum, one) => sum + one, 0) / values.length;

/** Every order of four checks with every way they may come out (dynamic programming over the same exact network): what no order can undercut. */
describe("the suggested order against the best there is", () => {
  it.each(["rotary", "reel"] as const)("takes little longer, on %s machines", (cutsWith) => {
    const machines = fleet.filter(({ kind }) => kindById(kind).cutsWith === cutsWith);
    const found = casesOver(machines, { seed: 5, count: CASES * 4 })
      .filter(({ given }) => Object.values(given.symptoms).filter((state) => state === "present").length <= 2)
      .slice(0, CASES)
      .map(({ machine, given }) => searched(smallOf(knowledgeFor(machine), given, CHECKS), given));
    expect(found).toHaveLength(CASES);
    for (const { best, suggested } of found) expect(suggested).toBeGreaterThan(best - 1e-9);
    const [best, suggested, round] = [
      found.map((one) => one.best),
      found.map((one) => one.suggested),
      found.map((one) => one.walkRound),
    ].map(mean) as [number, number, number];
    expect(suggested / best).toBeLessThan(1.1);
    expect(suggested).toBeLessThan(round);
  });
});
