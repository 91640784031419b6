import fc from "fast-check";
import { Matrix, SingularValueDecomposition, solve } from "ml-matrix";
import { describe, expect, it } from "vitest";
import { fitPlane, type HeightAt, LEAST_SPREAD_METRES, planeHeight, spreadAcrossLine } from "./plane";

const SEED = 20_261_126;
/** Both solve the same normal equations in doubles: what is left is the scale of the heights times a few last bits. */
const WITHIN = 1e-9;

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
/** Heights at places as far apart as a deck's: never on one line. */
const heights = fc
  .array(fc.record({ x: number(-1, 1), y: number(-1, 1), z: number(0.02, 0.2) }), { minLength: 3, maxLength: 24 })
  .filter((points) => spreadAcrossLine(points) > 0.1);

function byReference(points: readonly HeightAt[]): number[] {
  const design = new Matrix(points.map(({ x, y }) => [1, x, y]));
  return solve(design, Matrix.columnVector(points.map(({ z }) => z)), true).to1DArray();
}

function fitted(points: readonly HeightAt[]) {
  const result = fitPlane(points);
  if (result.kind !== "fitted") throw new Error(JSON.stringify(result.issue));
  return result.planeFit;
}

/** Against a reference library of linear algebra that the core does not use (ml-matrix, by singular values). */
describe("the plane fit against a reference library", () => {
  it("has its coefficients, residuals and inverse normal matrix for any heights", () => {
    fc.assert(
      fc.property(heights, (points) => {
        const { fit } = fitted(points);
        const expected = byReference(points);
        fit.coefficients.forEach((one, k) => {
          expect(Math.abs(one - (expected[k] ?? 0))).toBeLessThan(WITHIN);
        });
        const design = new Matrix(points.map(({ x, y }) => [1, x, y]));
        const inverse = new SingularValueDecomposition(design.transpose().mmul(design)).inverse();
        for (let row = 0; row < 3; row++)
          for (let column = 0; column < 3; column++) {
            const [own = 0, other] = [fit.inverseNormal[row]?.[column], inverse.get(row, column)];
            expect(Math.abs(own - other)).toBeLessThan(1e-7 * Math.max(1, Math.abs(other)));
          }
      }),
      { seed: SEED, numRuns: 200 },
    );
  });

  it("turns with the places: the same plane, seen from a machine that stands turned", () => {
    fc.assert(
      fc.property(heights, number(-Math.PI, Math.PI), (points, angle) => {
        const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
        const turned = points.map(({ x, y, z }) => ({ x: x * cos - y * sin, y: x * sin + y * cos, z }));
        const [here, there] = [fitted(points).plane, fitted(turned).plane];
        points.forEach((point, k) => {
          expect(Math.abs(planeHeight(here, point) - planeHeight(there, turned[k] ?? point))).toBeLessThan(WITHIN);
        });
        expect(Math.hypot(here.slopeRight, here.slopeForward)).toBeCloseTo(Math.hypot(there.slopeRight, there.slopeForward), 8);
      }),
      { seed: SEED, numRuns: 100 },
    );
  });

  it("scales with the heights and against the places, over nine orders of size", () => {
    fc.assert(
      fc.property(heights, number(-4, 4), (points, power) => {
        const by = 10 ** power;
        const base = fitted(points);
        const taller = fitted(points.map((point) => ({ ...point, z: point.z * by })));
        taller.fit.coefficients.forEach((one, k) => {
          expect(Math.abs(one - (base.fit.coefficients[k] ?? 0) * by)).toBeLessThan(WITHIN * Math.max(1, by));
        });
      }),
      { seed: SEED, numRuns: 100 },
    );
  });

  it("near one line it still has the reference's plane, down to where it refuses", () => {
    const along = [-0.6, -0.2, 0.1, 0.5, 0.7];
    for (const spread of [0.2, 0.1, 0.05, 0.021]) {
      const points = along.map((x, k) => ({ x, y: 0.3 * x + (k % 2 === 0 ? spread / 2 : -spread / 2), z: 0.08 + 0.01 * x - 0.02 * k }));
      const expected = byReference(points);
      fitted(points).fit.coefficients.forEach((one, k) => {
        expect(Math.abs(one - (expected[k] ?? 0))).toBeLessThan(1e-8);
      });
    }
    const thin = along.map((x, k) => ({ x, y: k % 2 === 0 ? LEAST_SPREAD_METRES / 3 : 0, z: 0.08 }));
    expect(fitPlane(thin)).toEqual({ kind: "refused", issue: { code: "collinear-readings" } });
  });
});
