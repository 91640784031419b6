/** A pulley a belt runs over, seen from above. `side`: whether the belt's inside runs on it, or its back. Metres. */
export type RoutedPulley = {
  id: string;
  xMetres: number;
  yMetres: number;
  pitchDiameterMetres: number;
  side: "inside" | "outside";
};

export type Straight = { from: { x: number; y: number }; to: { x: number; y: number } };
export type RunOver = {
  id: string;
  /** Length of belt on it as an angle, radians. */
  wrap: number;
  /** Whether it turns as the first pulley does, or against it. */
  turns: "with" | "against";
};

export type BeltRoute = {
  /** Along the pitch line, metres. */
  lengthMetres: number;
  runs: RunOver[];
  /** In belt order: the first leads from the first pulley to the second. */
  straights: Straight[];
  /** Pulleys a straight run passes through without their being next on its way. */
  fouled: string[];
  /** Two straight runs cross: a twisted belt, or more likely a pulley put down with the wrong side. */
  isCrossed: boolean;
};

export type RouteProblem =
  | { code: "too-few-pulleys"; given: number; needed: number }
  | { code: "pulleys-overlap"; place: string; other: string }
  | { code: "misses-pulley"; place: string };

const FEWEST = 2;
const FULL_TURN = 2 * Math.PI;
/** A belt bent the wrong way about a pulley would have to go nearly all the way round it. */
const MOST_WRAP = (300 / 360) * FULL_TURN;

const wrapped = (angle: number) => ((angle % FULL_TURN) + FULL_TURN) % FULL_TURN;

type Leg = { heading: number; lengthMetres: number; straight: Straight };

/**
 * The straight between two pulleys: their common tangent, with the circles on the belt's left (sign +1) or right (−1). With signed radii
 * r₁, r₂ and D between centres its length is √(D² − (r₁ − r₂)²), its heading that of the centres + asin((r₁ − r₂)/D) (geometry).
 */
function legBetween(one: RoutedPulley, other: RoutedPulley, signs: readonly [number, number]): Leg | undefined {
  const [r, s] = [(signs[0] * one.pitchDiameterMetres) / 2, (signs[1] * other.pitchDiameterMetres) / 2];
  const [dx, dy] = [other.xMetres - one.xMetres, other.yMetres - one.yMetres];
  const square = dx * dx + dy * dy - (r - s) ** 2;
  if (square <= 0) return undefined;
  const lengthMetres = Math.sqrt(square);
  const heading = Math.atan2(dy, dx) + Math.atan2(r - s, lengthMetres);
  const [nx, ny] = [Math.sin(heading), -Math.cos(heading)];
  return {
    heading,
    lengthMetres,
    straight: {
      from: { x: one.xMetres + r * nx, y: one.yMetres + r * ny },
      to: { x: other.xMetres + s * nx, y: other.yMetres + s * ny },
    },
  };
}

/** The way round with the loop's inside on the left (+1) or the right (−1). */
function roundFor(pulleys: readonly RoutedPulley[], sense: 1 | -1): BeltRoute | RouteProblem {
  const signOf = ({ side }: RoutedPulley) => (side === "inside" ? sense : -sense);
  const legs: Leg[] = [];
  for (const [k, one] of pulleys.entries()) {
    const other = pulleys[(k + 1) % pulleys.length] as RoutedPulley;
    const leg = legBetween(one, other, [signOf(one), signOf(other)]);
    if (!leg) return { code: "pulleys-overlap", place: one.id, other: other.id };
    legs.push(leg);
  }
  const runs = pulleys.map((pulley, k): RunOver => {
    const [before, after] = [legs[(k + legs.length - 1) % legs.length], legs[k]] as [Leg, Leg];
    const sign = signOf(pulley);
    return {
      id: pulley.id,
      wrap: wrapped(sign * (after.heading - before.heading)),
      turns: sign === signOf(pulleys[0] as RoutedPulley) ? "with" : "against",
    };
  });
  const missed = runs.find(({ wrap }) => wrap > MOST_WRAP);
  if (missed) return { code: "misses-pulley", place: missed.id };
  const straights = legs.map(({ straight }) => straight);
  return {
    lengthMetres:
      legs.reduce((sum, { lengthMetres }) => sum + lengthMetres, 0) +
      runs.reduce((sum, { wrap }, k) => sum + (wrap * (pulleys[k]?.pitchDiameterMetres ?? 0)) / 2, 0),
    runs,
    straights,
    fouled: fouledBy(pulleys, straights),
    isCrossed: straights.some((one, k) => straights.slice(k + 1).some((other) => cross(one, other))),
  };
}

/** Whether two straights meet between their ends. */
function cross(one: Straight, other: Straight): boolean {
  const side = ({ from, to }: Straight, { x, y }: Straight["from"]) =>
    Math.sign((to.x - from.x) * (y - from.y) - (to.y - from.y) * (x - from.x));
  return side(one, other.from) * side(one, other.to) < 0 && side(other, one.from) * side(other, one.to) < 0;
}

function fouledBy(pulleys: readonly RoutedPulley[], straights: readonly Straight[]): string[] {
  return pulleys
    .filter((pulley, at) =>
      straights.some((straight, k) => {
        const isOwn = k === at || (k + 1) % pulleys.length === at;
        return !isOwn && distanceTo(straight, pulley) < pulley.pitchDiameterMetres / 2;
      }),
    )
    .map(({ id }) => id);
}

function distanceTo({ from, to }: Straight, { xMetres, yMetres }: RoutedPulley): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const along = dx * dx + dy * dy;
  const share = along === 0 ? 0 : Math.max(0, Math.min(1, ((xMetres - from.x) * dx + (yMetres - from.y) * dy) / along));
  return Math.hypot(xMetres - from.x - share * dx, yMetres - from.y - share * dy);
}

/**
 * The path of an endless belt over pulleys in its own order (geometry): length on the pitch line, how far it lies round each pulley, which
 * way each turns, and where it runs. Whichever way round the order was written down, the belt lies tight: of the two the one that does not cross itself, else the shorter.
 * @example two of 100 mm, 300 mm apart: 2 · 300 + π · 100 = 914.2 mm, half a turn on each.
 */
export function beltRoute(pulleys: readonly RoutedPulley[]): { ok: true; route: BeltRoute } | { ok: false; problem: RouteProblem } {
  if (pulleys.length < FEWEST) return { ok: false, problem: { code: "too-few-pulleys", given: pulleys.length, needed: FEWEST } };
  const found = ([1, -1] as const).map((sense) => roundFor(pulleys, sense));
  const routes = found
    .filter((one): one is BeltRoute => !("code" in one))
    .sort((a, b) => Number(a.isCrossed) - Number(b.isCrossed) || a.lengthMetres - b.lengthMetres);
  const [route] = routes;
  const problem = found.find((one): one is RouteProblem => "code" in one);
  // Told the other way round it only closes by crossing itself: what was meant is the way that misses a pulley.
  if (problem && (!route || route.isCrossed)) return { ok: false, problem };
  return { ok: true, route: route as BeltRoute };
}
