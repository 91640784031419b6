import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { quickscoreExactly } from "./exact.fixtures";
import { presences, presencesByPasses } from "./network";
import type { Network } from "./network-shape";
import { NEAR_ENOUGH, quickscorePresences } from "./quickscore";

const SEED = 20_261_126;
/** What its own bound promises. */
const NEAR = NEAR_ENOUGH;

const share = fc.double({ min: 0.001, max: 0.95, noNaN: true });
/** Of many findings only such as are often shown: else the terms cancel and nothing is answered. */
const networkOf = (findings: number): fc.Arbitrary<Network> =>
  fc.record({
    findings: fc.array(
      fc.record({ leak: fc.double({ min: findings > 6 ? 0.1 : 0.001, max: 0.3, noNaN: true }), isSymptom: fc.boolean() }),
      {
        minLength: findings,
        maxLength: findings,
      },
    ),
    causes: fc.array(
      fc.record({
        odds: fc.double({ min: findings > 6 ? 0.5 : 0, max: 500, noNaN: true }),
        silence: share,
        links: fc
          .array(fc.option(share, { nil: undefined }), { minLength: findings, maxLength: findings })
          .map((shown) => shown.flatMap((probability, finding) => (probability === undefined ? [] : [{ finding, probability }]))),
      }),
      { minLength: 1, maxLength: 30 },
    ),
  });

describe("quickscore in doubles", () => {
  it.each([4, 7, 10])("with %d findings, where it answers, is what the way that never subtracts has", (findings) => {
    let answered = 0;
    fc.assert(
      fc.property(networkOf(findings), (network) => {
        const quick = quickscorePresences(network);
        if (!quick) return;
        answered++;
        presencesByPasses(network).forEach((expected, k) => {
          expect(Math.abs((quick[k] ?? Number.NaN) - expected)).toBeLessThan(NEAR);
        });
      }),
      { seed: SEED, numRuns: 40 },
    );
    expect(answered).toBeGreaterThan(0);
  });

  it("answers nothing where subtracting would lose the figures, and the exact way is taken then", () => {
    // Fourteen findings that hardly anything shows: the sum is the product of fourteen small leaks, its terms are near one.
    const findings = Array.from({ length: 12 }, () => ({ leak: 0.002, isSymptom: true }));
    const causes = [{ odds: 1e-9, silence: 1, links: [{ finding: 0, probability: 0.5 }] }];
    const network = { findings, causes };
    expect(quickscorePresences(network)).toBeUndefined();
    expect(presences(network)).toEqual(presencesByPasses(network));
  });

  it("agrees with the same sum in exact fractions", () => {
    fc.assert(
      fc.property(networkOf(4), (network) => {
        const quick = quickscorePresences(network);
        if (!quick) return;
        const exact = quickscoreExactly(network);
        quick.forEach((one, k) => {
          expect(Math.abs(one - (exact[k] ?? Number.NaN))).toBeLessThan(NEAR);
        });
      }),
      { seed: SEED, numRuns: 12 },
    );
  });
});
