import { Matrix, QrDecomposition } from "ml-matrix";
import { describe, expect, it } from "vitest";
import type { HeightAt } from "@/core/basics/geometry";
import { seededRandom } from "@/core/basics/random";
import { INCH_METRES } from "@/core/basics/units";
import { fitDeckPlane, rakeOf, sideOf } from "./plane-fit";
import { exactTurns, type Hanger, planTurns, rulerAfter, scoreTurns } from "./turns";

const inches = (value: number) => value * INCH_METRES;

/** Worked example "level deck" (docs/worked-examples.md; inches): three blades, tip circle 17. */
const READINGS: HeightAt[] = [
  { x: -24.7, y: 0, z: 3.0 },
  { x: 24.7, y: 0, z: 3.31 },
  { x: 0, y: 15, z: 3.25 },
  { x: 0, y: -2, z: 3.19 },
].map(({ x, y, z }) => ({ x: inches(x), y: inches(y), z: inches(z) }));

const hanger = (id: string, x: number, y: number): Hanger => ({
  id,
  x: inches(x),
  y: inches(y),
  liftPerTurn: inches(1 / 13),
  step: "quarter",
  turnsLeftUp: 10,
  turnsLeftDown: 10,
});
const HANGERS = [
  hanger("left-front", -20, 11),
  hanger("right-front", 20, 11),
  hanger("left-rear", -20, -11),
  hanger("right-rear", 20, -11),
];
const SPAN = { widthMetres: inches(49.4), tipCircleMetres: inches(17) };
const TARGET = { heightMetres: inches(3.25), reference: { x: 0, y: inches(6.5) }, sideMetres: 0, rakeMetres: inches(-0.25) };

/** Half a unit of the last printed figure. */
const PRINTED_HUNDREDTH = 0.005;

function fitted(heights: readonly HeightAt[]) {
  const result = fitDeckPlane(heights);
  if (result.kind === "refused") throw new Error(result.issue.code);
  return result.deck;
}

function planned(problem: Parameters<typeof planTurns>[0]) {
  const result = planTurns(problem);
  if (result.kind === "refused") throw new Error(result.issue.code);
  return result.plan;
}

// @against deck-level: side, rake, residual, exact and rounded turns, rulers after; worked example “level deck”; half of the last printed figure
describe("the worked deck", () => {
  const deck = fitted(READINGS);

  it("has the printed slopes, side, rake and largest residual", () => {
    expect(deck.plane.slopeRight).toBeCloseTo(0.00628, 5);
    expect(deck.plane.slopeForward).toBeCloseTo(0.00499, 5);
    expect(sideOf(deck, SPAN.widthMetres).value / INCH_METRES).toBeCloseTo(0.31, 2);
    expect(rakeOf(deck, SPAN.tipCircleMetres).value / INCH_METRES).toBeCloseTo(0.08, 2);
    expect(Math.max(...deck.residuals.map(Math.abs)) / INCH_METRES).toBeCloseTo(0.029, 3);
  });

  it("wants the printed exact turns", () => {
    const turns = exactTurns({ plane: deck.plane, target: TARGET, span: SPAN, hangers: HANGERS });
    const printed = [1.08, -2.18, 6.71, 3.45];
    turns.forEach((turn, k) => {
      expect(Math.abs(turn - (printed[k] ?? 0))).toBeLessThan(PRINTED_HUNDREDTH);
    });
  });

  it("rounds jointly to +1, −2¼, +6¾, +3½ without twist, and predicts plane and rulers", () => {
    const plan = planned({ plane: deck.plane, target: TARGET, span: SPAN, hangers: HANGERS });
    expect(plan.hangers.map(({ turns }) => turns)).toEqual([1, -2.25, 6.75, 3.5]);
    expect(plan.twistMetres).toBeCloseTo(0, 9);
    expect((plan.after.slopeRight * SPAN.widthMetres) / INCH_METRES).toBeCloseTo(0, 2);
    expect((plan.after.slopeForward * SPAN.tipCircleMetres) / INCH_METRES).toBeCloseTo(-0.26, 2);
    const rulers = rulerAfter({ tips: READINGS, before: deck.plane, after: plan.after }).map(({ z }) => z / INCH_METRES);
    [3.33, 3.33, 3.12, 3.4].forEach((printed, k) => {
      expect(Math.abs((rulers[k] ?? 0) - printed)).toBeLessThan(PRINTED_HUNDREDTH);
    });
  });
});

describe("plane fit", () => {
  // @against deck-level: plane through 24 noisy readings; ml-matrix, QR decomposition; 1e-12
  it("agrees with a reference library's QR on 24 noisy readings", () => {
    const heights = Array.from({ length: 24 }, (_, k) => {
      const x = Math.cos(k * 2.4) * (0.2 + 0.02 * k);
      const y = Math.sin(k * 1.7) * 0.3;
      return { x, y, z: 0.08 + 0.004 * x - 0.01 * y + 0.0007 * Math.sin(k * 7.1) };
    });
    const reference = new QrDecomposition(new Matrix(heights.map(({ x, y }) => [1, x, y])));
    const solution = reference.solve(Matrix.columnVector(heights.map(({ z }) => z))).to1DArray();
    const deck = fitted(heights);
    expect(deck.plane.height).toBeCloseTo(solution[0] ?? 0, 12);
    expect(deck.plane.slopeRight).toBeCloseTo(solution[1] ?? 0, 12);
    expect(deck.plane.slopeForward).toBeCloseTo(solution[2] ?? 0, 12);
  });

  it("refuses two readings, and three on one line, as such", () => {
    expect(fitDeckPlane(READINGS.slice(0, 2))).toEqual({ kind: "refused", issue: { code: "too-few-readings", needed: 3, given: 2 } });
    const line = [-0.5, 0, 0.5].map((x) => ({ x, y: 0.001 * x, z: 0.08 }));
    expect(fitDeckPlane(line)).toEqual({ kind: "refused", issue: { code: "collinear-readings" } });
  });
});

describe("joint rounding", () => {
  it("beats rounding each hanger alone where that would twist the deck", () => {
    const plane = { height: inches(3.05), slopeRight: -0.21 / 49.4, slopeForward: 0.18 / 17 };
    const problem = { plane, target: { ...TARGET, reference: { x: 0, y: 0 } }, span: SPAN, hangers: HANGERS };
    const alone = exactTurns(problem).map((turn) => Math.round(turn * 4) / 4);
    const joint = planned(problem);
    expect(alone).toEqual([-2, 0, 5, 7.25]);
    expect(joint.hangers.map(({ turns }) => turns)).toEqual([-2.25, 0, 5, 7.25]);
    expect(joint.penalty).toBeLessThan(scoreTurns(problem, alone).penalty / 4);
    expect(joint.twistMetres).toBeLessThan(scoreTurns(problem, alone).twist);
  });

  it("never turns past an adjuster's travel, says which ends short, and settles the others for what is left", () => {
    const short = HANGERS.map((h) => (h.id === "left-rear" ? { ...h, turnsLeftUp: 2 } : h));
    const deck = fitted(READINGS);
    const problem = { plane: deck.plane, target: TARGET, span: SPAN, hangers: short };
    const plan = planned(problem);
    const leftRear = plan.hangers.find(({ id }) => id === "left-rear");
    expect(leftRear?.turns).toBeLessThanOrEqual(2);
    expect(leftRear?.endsShort).toBe(true);
    expect(plan.penalty).toBeLessThan(scoreTurns(problem, [1, -2.25, 2, 3.5]).penalty);
  });

  it("gives no level away for a height that cannot be reached: left up for two turns only, 8 mm low, wanted far up", () => {
    const short = HANGERS.map((h) => (h.x < 0 ? { ...h, turnsLeftUp: 2 } : h));
    const plane = { height: 0.08, slopeRight: 0.008 / SPAN.widthMetres, slopeForward: -0.006 / SPAN.tipCircleMetres };
    const target = { heightMetres: 0.1, reference: { x: 0, y: 0 }, sideMetres: 0, rakeMetres: -0.006 };
    const { after } = planned({ plane, target, span: SPAN, hangers: short });
    expect(Math.abs(after.slopeRight * SPAN.widthMetres)).toBeLessThan(0.001);
    expect(Math.abs(after.slopeForward * SPAN.tipCircleMetres + 0.006)).toBeLessThan(0.001);
    // What a third of the wish would cost nothing is still taken.
    expect(after.height).toBeGreaterThan(plane.height);
  });

  it("levels every deck whose level and rake are in reach at some height, and leaves none worse than it found it", () => {
    const random = seededRandom(8);
    const between = (least: number, most: number) => least + (most - least) * random();
    const [side, rake] = [0.003, 0.002];
    // A quarter turn of a hanger lifts half a millimetre: what rounding may cost.
    const A_STEP = 0.35;
    for (const trial of Array.from({ length: 400 }, (_, k) => k)) {
      const hangers = HANGERS.map((h) => ({ ...h, turnsLeftUp: between(0, 8), turnsLeftDown: between(0, 8) }));
      const plane = {
        height: 0.08,
        slopeRight: between(-0.015, 0.015) / SPAN.widthMetres,
        slopeForward: between(-0.015, 0.009) / SPAN.tipCircleMetres,
      };
      const target = { heightMetres: between(0.05, 0.11), reference: { x: 0, y: 0 }, sideMetres: 0, rakeMetres: -0.006 };
      const problem = { plane, target, span: SPAN, hangers };
      const { after } = planned(problem);
      const off = (p: typeof plane) =>
        Math.hypot((p.slopeRight * SPAN.widthMetres) / side, (p.slopeForward * SPAN.tipCircleMetres + 0.006) / rake);
      // A height from the one it has, searched by itself: 0.5 mm steps, each hanger a whole step inside its travel.
      const isReachable = Array.from({ length: 121 }, (_, k) => 0.05 + k * 0.0005).some((heightMetres) =>
        exactTurns({ ...problem, target: { ...target, heightMetres } }).every(
          (turn, k) => turn <= (hangers[k]?.turnsLeftUp ?? 0) - 0.25 && -turn <= (hangers[k]?.turnsLeftDown ?? 0) - 0.25,
        ),
      );
      if (isReachable) expect(off(after), `deck ${trial}`).toBeLessThan(1);
      expect(off(after), `deck ${trial}`).toBeLessThanOrEqual(off(plane) + A_STEP);
    }
  });

  it("names the hanger a stiff shell would leave hanging free, and predicts with the three that stay loaded", () => {
    const fixed = HANGERS.map((h) => ({ ...h, turnsLeftUp: 0, turnsLeftDown: 0 }));
    const problem = {
      plane: { height: inches(3.25), slopeRight: 0, slopeForward: 0 },
      target: { ...TARGET, sideMetres: 0.03, rakeMetres: -0.03 },
      span: SPAN,
      hangers: fixed.map((h) => (h.id === "right-front" ? { ...h, turnsLeftDown: 3 } : h)),
      centreOfGravity: { x: inches(-2), y: inches(-2) },
    };
    const plan = planned(problem);
    const free = plan.hangers.find(({ slackMetres }) => slackMetres !== undefined);
    const turned = plan.hangers.find(({ id }) => id === "right-front");
    expect(free?.id).toBe("right-front");
    // Rectangle: slack = |LF + RR − RF − LR|, here one hanger alone (physics).
    expect(free?.slackMetres).toBeCloseTo(Math.abs(turned?.liftMetres ?? 0), 9);
    expect(plan.after).toEqual(problem.plane);
  });
});
