import { describe, expect, it } from "vitest";
import { imbalance, judgeBalance, permissibleImbalance, shakingForce, shakingInWords, stockForBalance } from "./balance";

const radiansPerSecond = (3200 * 2 * Math.PI) / 60;
const GRAM_MILLIMETRE = 1e-6;

describe("blade balance", () => {
  /** ISO 21940-11 (published, from memory): U = 9549·G·M/n g·mm, G in mm/s, M in kg, n in r/min. */
  // @against blade-balance: imbalance a grade allows; ISO 21940-11 (published, from memory); 1e-4, relative
  it.each([
    [16, 1.1, 3200],
    [6.3, 0.9, 3600],
    [40, 2.4, 2800],
  ])("grade %d, %d kg at %d r/min is the standard's 9549·G·M/n", (grade, massKilograms, rpm) => {
    const allowed = permissibleImbalance({ grade, massKilograms, radiansPerSecond: (rpm * 2 * Math.PI) / 60 });
    expect(allowed / GRAM_MILLIMETRE / ((9549 * grade * massKilograms) / rpm)).toBeCloseTo(1, 4);
  });

  it("1.1 kg at 3,200 r/min, G 16: 52.5 g·mm (by the formula)", () => {
    expect(permissibleImbalance({ grade: 16, massKilograms: 1.1, radiansPerSecond }) / GRAM_MILLIMETRE).toBeCloseTo(52.5, 1);
  });

  // @against blade-balance: force and frequency of an imbalance; physics: m·r·ω²; 0.5 N
  it("6 g at 255 mm and 3,200 r/min shakes with 172 N, a weight of 17.5 kg 53 times a second (physics)", () => {
    const residual = imbalance({ massKilograms: 0.006, radiusMetres: 0.255 });
    expect(shakingForce({ imbalanceKilogramMetres: residual, radiansPerSecond })).toBeCloseTo(172, 0);
    const { weightKilograms, timesPerSecond } = shakingInWords({ imbalanceKilogramMetres: residual, radiansPerSecond });
    expect(weightKilograms).toBeCloseTo(17.5, 1);
    expect(timesPerSecond).toBeCloseTo(53.3, 1);
  });

  it("700 g·mm shakes with 80 N (physics): there it is out; below, what the balancer resolves is right", () => {
    expect(shakingForce({ imbalanceKilogramMetres: 700e-6, radiansPerSecond })).toBeCloseTo(79, 0);
    const judged = (grams: number) =>
      judgeBalance({ imbalanceKilogramMetres: grams * 1e-3 * 0.255, permissible: 52.5e-6, resolution: 3e-3 * 0.255 * 0.5 });
    expect([0.2, 1.4, 2, 2.8].map(judged)).toEqual(["in-tolerance", "in-tolerance", "watch", "out"]);
  });

  it("is never out inside what it calls right: long blades, coarse balancers, coarse grades", () => {
    const GRAVITY = ["in-tolerance", "watch", "out"];
    for (const right of [50, 400, 690, 700, 720, 945, 1500])
      for (const [permissible, resolution] of [
        [right, 52],
        [52, right],
      ] as const) {
        const at = (amount: number) =>
          judgeBalance({
            imbalanceKilogramMetres: amount * GRAM_MILLIMETRE,
            permissible: permissible * GRAM_MILLIMETRE,
            resolution: resolution * GRAM_MILLIMETRE,
          });
        expect(at(right * 0.999)).toBe("in-tolerance");
        expect(at(Math.max(right, 52) * 1.001)).toBe("watch");
        expect(at(Math.max(700, 1.5 * right) * 1.001)).toBe("out");
        const steps = Array.from({ length: 4000 }, (_, k) => GRAVITY.indexOf(at(k)));
        expect(Math.max(...steps.slice(1).map((one, k) => one - (steps[k] ?? 0)))).toBe(1);
      }
  });

  it("takes the mass off where the radius says, and says how much edge that is (by hand: 2 g of 60 mm² steel is 4.2 mm)", () => {
    const { massKilograms, lengthMetres } = stockForBalance({
      imbalanceKilogramMetres: 500e-6,
      radiusMetres: 0.25,
      sectionSquareMetres: 60e-6,
    });
    expect(massKilograms).toBeCloseTo(0.002, 12);
    expect((lengthMetres ?? 0) * 1000).toBeCloseTo((0.002 / (7850 * 60e-6)) * 1000, 9);
    expect((lengthMetres ?? 0) * 1000).toBeCloseTo(4.25, 1);
  });
});
