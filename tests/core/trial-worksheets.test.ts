import { describe, expect, it } from "vitest";
import { namedRandom } from "@/core/basics/random";
import type { CheckId } from "@/core/catalogue";
import { kindById } from "@/core/catalogue/kinds";
import { WORKSHEETS, worksheetById, worksheetsFor } from "@/core/checks";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { CAREFUL, CARELESS, drawSeverity, readingsOf, soundState } from "@/core/simulator";
import { machineWith } from "../../bench/trial/hidden-case";
import { casesOver, knowledgeFor, work, worksheetsAlone } from "../../bench/trial/worksheets";

const SEED = 11;
/** Enough to see a mend that undoes another; the full trial is `npm run trial:worksheets`. */
const CASES = 60;
const fleet = FLEET.map(({ machine }) => machineSchema.parse(machine));
const machines = fleet.filter(({ kind }) => kindById(kind).cutsWith === "rotary");
const reels = fleet.filter(({ kind }) => kindById(kind).cutsWith === "reel");
const mean = (values: readonly number[]) => values.reduce((sum, one) => sum + one, 0) / values.length;

describe(`whole cases by worksheets on the hidden machine, seed ${SEED}`, () => {
  const cases = casesOver(machines, { seed: SEED, count: CASES });
  const all = (hand: typeof CAREFUL, order: "information" | "walk-round") =>
    cases.map((one) => work(one, knowledgeFor(one.machine), { hand, order }));
  const careful = all(CAREFUL, "information");
  const share = (done: typeof careful) => mean(done.map(({ isResolved }) => Number(isResolved)));

  /** Aims set beforehand: 85 % careful, 75 % careless; a sample this small strays by 5 %. */
  it("are resolved by a careful hand, and mostly by a careless one", () => {
    expect(share(careful)).toBeGreaterThan(0.8);
    expect(share(all(CARELESS, "information"))).toBeGreaterThan(0.65);
  });

  /** The same: minutes under half of the walk-round. */
  it("take about half the minutes of the walk-round or less", () => {
    const walk = all(CAREFUL, "walk-round");
    const both = careful.flatMap((one, k) =>
      one.isResolved && walk[k]?.isResolved ? [[one.resolvedAfter ?? 0, walk[k].resolvedAfter ?? 0] as const] : [],
    );
    expect(mean(both.map(([own]) => own)) / mean(both.map(([, round]) => round))).toBeLessThan(0.55);
  });

  /** The same: found rightly in 95 % is the aim; it stands at 92. */
  it("are seldom said to be found wrongly", () => {
    const said = careful.flatMap(({ foundRight }) => (foundRight === undefined ? [] : [Number(foundRight)]));
    expect(said.length).toBeGreaterThan(CASES / 4);
    expect(mean(said)).toBeGreaterThan(0.82);
  });
});

describe(`whole cases on reel machines, seed ${SEED}`, () => {
  const cases = casesOver(reels, { seed: SEED, count: CASES });
  const by = (order: "information" | "walk-round") => cases.map((one) => work(one, knowledgeFor(one.machine), { hand: CAREFUL, order }));
  const own = by("information");

  /** Aims set beforehand: 85 % resolved, found rightly in 95 %; a sample this small strays by 5 %. */
  it("are resolved by a careful hand, and seldom said to be found wrongly", () => {
    expect(mean(own.map(({ isResolved }) => Number(isResolved)))).toBeGreaterThan(0.8);
    const said = own.flatMap(({ foundRight }) => (foundRight === undefined ? [] : [Number(foundRight)]));
    expect(said.length).toBeGreaterThan(CASES / 4);
    expect(mean(said)).toBeGreaterThan(0.88);
  });

  /** The same: minutes under 30 % of the walk-round, on its own machines, which the wide world makes less alike. */
  it("take less than a third of the walk-round's minutes", () => {
    const narrow = casesOver(reels, { seed: SEED, count: CASES, world: "narrow" });
    const [suggested, walk] = (["information", "walk-round"] as const).map((order) =>
      narrow.map((one) => work(one, knowledgeFor(one.machine), { hand: CAREFUL, order })),
    );
    const both = (suggested ?? []).flatMap((one, k) =>
      one.isResolved && walk?.[k]?.isResolved ? [[one.resolvedAfter ?? 0, walk[k].resolvedAfter ?? 0] as const] : [],
    );
    expect(both.length).toBeGreaterThan(CASES / 2);
    expect(mean(both.map(([a]) => a)) / mean(both.map(([, b]) => b))).toBeLessThan(0.33);
  });

  it("have no reading refused", () => {
    expect(own.flatMap(({ refused }) => refused)).toEqual([]);
  });
});

/** What a worksheet cannot see by itself, each with its reason in docs/diagnosis.md. */
const KNOWN_MISSES = [
  "deck-level hanger-failed",
  "deck-cleanliness deck-shell-bent",
  "pass-overlap turn-too-tight",
  "turf-condition ground-undulates",
  "cutting-height thatch-build-up",
  "cutting-height roller-sinks",
  "cutting-height units-not-alike",
  "reel-cone contact-tapered",
  "reel-contact contact-tapered",
  "reel-speed engine-speed-low",
];

describe("each worksheet alone", () => {
  const LEAST_ASKED = 15;

  it.each([
    ["rotary", machines, 5],
    ["reel", reels, 5],
  ] as const)("of the %s machines speaks for a cause that is there, and seldom for one that is not", (_, own, each) => {
    const table = worksheetsAlone(own, { seed: SEED, each, hand: CAREFUL });
    expect(table.length).toBeGreaterThan(30);
    const missing = table
      .filter(({ there, spoke }) => there >= LEAST_ASKED && spoke / there < 0.8)
      .map(({ check, cause }) => `${check} ${cause}`);
    expect(missing.filter((name) => !KNOWN_MISSES.includes(name))).toEqual([]);
    const accusing = table.filter(({ absent, accused }) => absent >= LEAST_ASKED && accused / absent > 0.16);
    expect(accusing.map(({ check, cause, accused, absent }) => `${check} ${cause} ${accused} of ${absent}`)).toEqual([]);
  });
});

describe("gauges of the hidden machine", () => {
  const [machine] = machines;
  if (!machine) throw new Error("no rotary machine");

  it("read the same whatever else was read before, and another take reads otherwise", () => {
    const check = worksheetById("deck-level");
    if (!check) throw new Error("no worksheet");
    const state = machineWith({ machine, key: "order", faults: [{ cause: "deck-out-of-level", severity: 1 }] });
    const read = (take?: number) => readingsOf({ state, key: "order", check, hand: CAREFUL, ...(take ? { take } : {}) });
    const first = read();
    for (const { id } of WORKSHEETS)
      readingsOf({ state, key: "order", check: worksheetById(id as CheckId) as typeof check, hand: CAREFUL });
    expect(read()).toEqual(first);
    expect(read(2)).not.toEqual(first);
  });

  it("put a fault in the same place whichever others are there", () => {
    const of = (faults: Parameters<typeof machineWith>[0]["faults"]) => machineWith({ machine, key: "same", faults }).pressuresPascals;
    const tyre = { cause: "tyres-unequal", severity: 1.2 } as const;
    expect(of([tyre, { cause: "blade-dull", severity: 1 }])).toEqual(of([{ cause: "belt-slipping", severity: 2 }, tyre]));
  });

  /** Severities (estimate): 5, 50 and 95 % of the severities at 0.34, 0.92, 1.94 (gamma of shape 4, mean 1, within 0.25 to 2.5; estimate). */
  it("faults are as bad as they were meant to be", () => {
    const random = namedRandom("severities");
    const drawn = Array.from({ length: 20_000 }, () => drawSeverity(random)).sort((a, b) => a - b);
    const at = (share: number) => drawn[Math.floor(share * drawn.length)] ?? 0;
    // Two standard errors of a quantile of 20,000 draws.
    expect(at(0.05)).toBeCloseTo(0.34, 1);
    expect(Math.abs(at(0.5) - 0.92)).toBeLessThan(0.02);
    expect(Math.abs(at(0.95) - 1.94)).toBeLessThan(0.05);
  });

  it("of every worksheet of the fleet there is one", () => {
    for (const { id } of WORKSHEETS) {
      const own = fleet.find((one) => worksheetsFor(one).some((offered) => offered.id === id));
      const check = worksheetById(id);
      if (own && check) expect(readingsOf({ state: soundState(own), key: "any", check, hand: CAREFUL }), id).toBeDefined();
    }
  });
});
