import { describe, expect, it } from "vitest";
import { beltRoute, type RoutedPulley } from "./belt-route";

const pulley = (id: string, x: number, y: number, diameter: number, side: RoutedPulley["side"] = "inside"): RoutedPulley => ({
  id,
  xMetres: x,
  yMetres: y,
  pitchDiameterMetres: diameter,
  side,
});

function routed(pulleys: readonly RoutedPulley[]) {
  const found = beltRoute(pulleys);
  if (!found.ok) throw new Error(JSON.stringify(found.problem));
  return found.route;
}

const problemOf = (pulleys: readonly RoutedPulley[]) => {
  const found = beltRoute(pulleys);
  return found.ok ? undefined : found.problem;
};

/** Closed forms of an open and a crossed belt over two pulleys: any textbook of machine elements (published, from memory). */
describe("a belt over two pulleys", () => {
  const [big, small, apart] = [0.2, 0.12, 0.5];

  // @against belt-inspection: length and wrap of a belt over two pulleys; closed form of an open belt (geometry); 1e-12
  it("is as long as the closed form of an open belt, and lies less than half round the small one", () => {
    const { lengthMetres, runs } = routed([pulley("big", 0, 0, big), pulley("small", apart, 0, small)]);
    const alpha = Math.asin((big - small) / (2 * apart));
    expect(lengthMetres).toBeCloseTo(2 * apart * Math.cos(alpha) + (Math.PI / 2) * (big + small) + alpha * (big - small), 12);
    expect(runs.map(({ wrap }) => wrap)).toEqual([expect.closeTo(Math.PI + 2 * alpha, 12), expect.closeTo(Math.PI - 2 * alpha, 12)]);
  });

  it("is as long as the closed form of a crossed belt, and turns the two opposite to each other", () => {
    const { lengthMetres, runs } = routed([pulley("big", 0, 0, big), pulley("small", apart, 0, small, "outside")]);
    const alpha = Math.asin((big + small) / (2 * apart));
    expect(lengthMetres).toBeCloseTo(2 * apart * Math.cos(alpha) + (Math.PI / 2 + alpha) * (big + small), 12);
    expect(new Set(runs.map(({ turns }) => turns)).size).toBe(2);
  });

  it("of one size is twice their distance and once round (by hand: 600 + 314.2 mm)", () => {
    expect(routed([pulley("a", 0, 0, 0.1), pulley("b", 0.3, 0, 0.1)]).lengthMetres).toBeCloseTo(0.6 + Math.PI * 0.1, 12);
  });
});

describe("a belt's path", () => {
  const triangle = [pulley("a", 0, 0, 0.1), pulley("b", 0.4, 0, 0.1), pulley("c", 0, 0.3, 0.1)];

  it("over equal pulleys is the way between their centres and once round (by hand: 0.4 + 0.5 + 0.3 + π · 0.1)", () => {
    const { lengthMetres, runs } = routed(triangle);
    expect(lengthMetres).toBeCloseTo(1.2 + Math.PI * 0.1, 12);
    expect(runs.reduce((sum, { wrap }) => sum + wrap, 0)).toBeCloseTo(2 * Math.PI, 12);
  });

  it("is the same whichever pulley it is told from, whichever way round, and wherever the machine stands", () => {
    const { lengthMetres } = routed(triangle);
    expect(routed([...triangle].reverse()).lengthMetres).toBeCloseTo(lengthMetres, 12);
    expect(routed([...triangle.slice(1), ...triangle.slice(0, 1)]).lengthMetres).toBeCloseTo(lengthMetres, 12);
    const moved = triangle.map((one) => ({ ...one, xMetres: -one.yMetres + 3, yMetres: one.xMetres - 2 }));
    expect(routed(moved).lengthMetres).toBeCloseTo(lengthMetres, 12);
  });

  it("bent inwards by an idler on its back is longer, and lies further round its neighbours", () => {
    const idler = pulley("idler", 0.2, 0.02, 0.06, "outside");
    const plain = routed(triangle);
    const bent = routed([triangle[0], idler, triangle[1], triangle[2]].flatMap((one) => one ?? []));
    expect(bent.lengthMetres).toBeGreaterThan(plain.lengthMetres);
    expect(bent.runs.find(({ id }) => id === "a")?.wrap).toBeGreaterThan(plain.runs.find(({ id }) => id === "a")?.wrap ?? 9);
    expect(bent.runs.find(({ id }) => id === "idler")?.turns).not.toBe(bent.runs.find(({ id }) => id === "a")?.turns);
  });

  it("names a pulley that a straight run goes through, a belt that crosses itself, one the belt would miss, pulleys in each other, and one alone", () => {
    expect(routed([...triangle, pulley("far", -0.4, 0.1, 0.1)]).fouled).toEqual([]);
    const through = [
      pulley("a", 0, 0, 0.1),
      pulley("b", 1, 0, 0.1),
      pulley("c", 1, 0.5, 0.1),
      pulley("d", 0.5, -0.03, 0.06),
      pulley("e", 0, 0.5, 0.1),
    ];
    expect(routed(through).fouled).toEqual(["d"]);
    expect(problemOf([pulley("a", 0, 0, 0.2), pulley("b", 0.05, 0, 0.02)])).toMatchObject({ code: "pulleys-overlap" });
    expect(problemOf([pulley("a", 0, 0, 0.1)])).toEqual({ code: "too-few-pulleys", given: 1, needed: 2 });
    // Three in a triangle, the third to be run on with its back: no tight belt gets there.
    const apex = [pulley("a", 0, 0, 0.1), pulley("back", 0.5, 0.3, 0.1, "outside"), pulley("b", 1, 0, 0.1)];
    expect(problemOf(apex)).toEqual({ code: "misses-pulley", place: "back" });
    const twisted = routed([pulley("a", 0, 0, 0.1), pulley("b", 1, 0, 0.1, "outside")]);
    expect([twisted.isCrossed, routed(triangle).isCrossed]).toEqual([true, false]);
    // A pulley within the loop that the belt's inside is to run on: a tight belt lies clear of it.
    const clear = [pulley("a", 0, 0, 0.1), pulley("miss", 0.5, 0.1, 0.04), pulley("b", 1, 0, 0.1), pulley("c", 0.5, 0.6, 0.1)];
    expect(problemOf(clear)).toEqual({ code: "misses-pulley", place: "miss" });
  });
});
