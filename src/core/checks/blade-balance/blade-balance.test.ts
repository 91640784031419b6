import { describe, expect, it } from "vitest";
import { assessed, figure, machineOf, refused, saysOf } from "../sheets.fixtures";
import type { BalanceDetail } from ".";

const walk = machineOf("WP-1");
const zeroTurn = machineOf("ZT-1");
/** Worked example "balance" (docs/worked-examples.md): M = 1.1 kg at 3,200 r/min. */
const TERMS = { massKilograms: 1.1, revolutionsPerMinute: 3200 };
const one = (grams: number, radiusMetres = 0.255, more: object = {}) => ({
  ...TERMS,
  blades: { blade: { addedKilograms: grams / 1000, radiusMetres, ...more } },
});
const balance = (readings: object, machine = walk) => assessed<BalanceDetail>("blade-balance", machine, readings);

describe("blade-balance", () => {
  it("allows 52.5 g·mm at G 16 (ISO 21940-11, from memory), less at 6.3 and more at 40", () => {
    const allowed = (grade: string) => (balance({ ...one(1), grade }).detail.permissible ?? 0) * 1e6;
    expect(allowed("16")).toBeCloseTo(52.5, 1);
    expect([allowed("6.3") / allowed("16"), allowed("40") / allowed("16")]).toEqual([expect.closeTo(6.3 / 16, 9), expect.closeTo(2.5, 9)]);
  });

  it("judges no finer than the balancer resolves, watches above, and is out past 700 g·mm", () => {
    const verdicts = [0.2, 2.5, 3.5, 2.74, 2.76].map((grams) => balance({ ...one(grams), resolutionKilograms: 0.001 }).verdict);
    expect(verdicts).toEqual(["in-tolerance", "watch", "out", "watch", "out"]);
    expect(balance(one(0)).verdict).toBe("in-tolerance");
  });

  /** 720 g·mm on the road mower's blade of 630 mm: its balancer of 3 g answers to 945 (audit by hand). */
  it("is right inside the tolerance it shows, on a long blade as on a short one", () => {
    const rough = machineOf("GR-1");
    const [first] = rough.spindles;
    const blades = Object.fromEntries(rough.spindles.map(({ id }) => [id, { addedKilograms: 0.72 / 255, radiusMetres: 0.255 }]));
    const result = balance({ ...TERMS, blades }, rough);
    const shown = figure(result, "imbalance", first?.id)?.tolerance;
    expect(shown?.kind === "between" && (shown.most ?? 0) > 0.00072).toBe(true);
    // Nothing to be done that its balancer could show; and over an ounce-inch it is not cleared either.
    expect([result.verdict, saysOf(result, "blade-unbalanced"), result.actions]).toEqual(["in-tolerance", "unclear", []]);
  });

  it("says what it does: 6 g at 255 mm shakes with 172 N, 17.5 kg 53 times a second (physics)", () => {
    const result = balance(one(6));
    expect(figure(result, "shaking-force")?.value).toBeCloseTo(172, 0);
    expect(result.detail.blades[0]).toMatchObject({ weightKilograms: expect.closeTo(17.5, 1), timesPerSecond: expect.closeTo(53.3, 1) });
    expect(saysOf(result, "blade-unbalanced")).toBe("seen");
  });

  it("says how much to take off which end: the moment is the same wherever it is ground (by hand)", () => {
    const [action] = balance({ ...one(6, 0.255, { light: "A" }), grindDepthMetres: 0.001 }).actions;
    const radius = 0.85 * (walk.spindles[0]?.tipCircleDiameterMetres ?? 0) * 0.5;
    expect(action).toMatchObject({ code: "take-off-heavy-end", end: "B", massKilograms: expect.closeTo((0.006 * 0.255) / radius, 9) });
    const section = (walk.sheet.blade?.thicknessMetres ?? 0) * 0.001;
    expect(action && "lengthMetres" in action ? action.lengthMetres : 0).toBeCloseTo((0.006 * 0.255) / radius / (7850 * section), 9);
  });

  it("gives up grinding when it is far out, warns of one new among worn, and waits for the whole set", () => {
    expect(balance(one(12)).actions).toEqual([{ code: "replace-unbalanced", place: "blade" }]);
    const set = { ...TERMS, set: "one-new", blades: { left: { addedKilograms: 0 } } };
    const result = balance(set, zeroTurn);
    expect([result.verdict, result.warnings[0]?.code]).toEqual(["not-enough-readings", "one-new-among-worn"]);
  });

  it("without mass and speed judges by the balancer alone, and says so; refuses a weight hung beyond the tip", () => {
    const bare = { ...walk, sheet: {} } as typeof walk;
    const result = balance({ blades: { blade: { addedKilograms: 0.001, radiusMetres: 0.2 } } }, bare);
    expect([result.verdict, result.provisional[0]?.code]).toEqual(["in-tolerance", "no-balance-terms"]);
    expect(refused("blade-balance", walk, one(0, 0.2, { light: "A" }))).toEqual([
      "light-end-without-weight at readings.blades.blade.light",
    ]);
    expect(refused("blade-balance", walk, one(1, 0.4))).toEqual(["beyond-the-tip at readings.blades.blade.radiusMetres"]);
  });
});
