import { addPlanes, fitPlane, type HeightAt, type Plane, type Point, planeHeight, solveLeastSquares } from "@/core/basics/geometry";

export type AdjusterStep = "flat" | "quarter" | "half" | "hole";

/** Turns in one step of the adjuster. A pinned link moves by whole holes, its "turn" being one hole. */
export const STEP_TURNS: Record<AdjusterStep, number> = { flat: 1 / 6, quarter: 1 / 4, half: 1 / 2, hole: 1 };

export type Hanger = Point & {
  id: string;
  /** Metres the deck rises there for one turn (thread pitch × lever ratio). */
  liftPerTurn: number;
  step: AdjusterStep;
  /** Turns left before the adjuster ends, both as positive numbers. */
  turnsLeftUp: number;
  turnsLeftDown: number;
};

export type DeckTarget = {
  /** Wanted height of the tips' plane at `reference`. */
  heightMetres: number;
  reference: Point;
  sideMetres: number;
  rakeMetres: number;
};

export type DeckSpan = { widthMetres: number; tipCircleMetres: number };

export type HangerTurn = {
  id: string;
  exactTurns: number;
  turns: number;
  liftMetres: number;
  /** The adjuster ends before the wanted place. */
  endsShort: boolean;
  /** How far off its link the deck would hang there, if over the shell's give. */
  slackMetres?: number;
};

export type TurnPlan = {
  hangers: HangerTurn[];
  /** Plane of the tips after the turns. */
  after: Plane;
  twistMetres: number;
  /** J of the rounding search, without dimension. */
  penalty: number;
};

export type TurnIssue = { code: "too-few-hangers"; needed: number; given: number } | { code: "collinear-hangers" };

/** Scales of the joint rounding, metres (estimate). */
export const ROUNDING_SCALE = { side: 0.003, rake: 0.0015, height: 0.0015, twist: 0.0015 } as const;
/** How much a shell gives before a hanger hangs free, metres (estimate). */
export const SHELL_GIVE_METRES = 0.0015;
const TURN_PENALTY = 0.001;

type Problem = {
  /** What `ROUNDING_SCALE.height` is where it is not the usual one. */
  heightScaleMetres?: number;
  plane: Plane;
  target: DeckTarget;
  span: DeckSpan;
  hangers: readonly Hanger[];
  /** Where the deck's weight hangs; the middle of the hangers where the sheet does not say. */
  centreOfGravity?: Point;
  /** False when a hanger was found unloaded before: then nothing can be said about load. */
  allLoadedBefore?: boolean;
};

/** The plane the tips should lie in. */
export function targetPlane({ target, span }: { target: DeckTarget; span: DeckSpan }): Plane {
  const slopeRight = target.sideMetres / span.widthMetres;
  const slopeForward = target.rakeMetres / span.tipCircleMetres;
  const height = target.heightMetres - slopeRight * target.reference.x - slopeForward * target.reference.y;
  return { height, slopeRight, slopeForward };
}

/** The turns each hanger wants, unrounded, in order of `hangers`; positive lifts the deck. */
export function exactTurns(problem: Pick<Problem, "plane" | "target" | "span" | "hangers">): number[] {
  const wanted = targetPlane(problem);
  return problem.hangers.map((hanger) => (planeHeight(wanted, hanger) - planeHeight(problem.plane, hanger)) / hanger.liftPerTurn);
}

/**
 * Turns for every hanger, rounded jointly: floor and ceiling of each tried together for the least
 * J = (side/3)² + (rake error/1.5)² + (height error/1.5)² + (twist/1.5)² in mm + 0.001·Σ|turns|, never past an adjuster's travel.
 * Where an adjuster would end short, level and rake come first: they are set at the height nearest to the wanted that every adjuster reaches,
 * and where none does, height counts for next to nothing. What is left of the height is the lift's.
 * Then the load: a hanger the shell cannot follow is named, and the plane after is that of the three that stay loaded.
 * Needs three hangers not on one line.
 */
export function planTurns(problem: Problem): { kind: "planned"; plan: TurnPlan } | { kind: "refused"; issue: TurnIssue } {
  const { hangers } = problem;
  if (hangers.length < 3) return { kind: "refused", issue: { code: "too-few-hangers", needed: 3, given: hangers.length } };
  if (fitPlane(hangers.map((hanger) => ({ ...hanger, z: 0 }))).kind === "refused") {
    return { kind: "refused", issue: { code: "collinear-hangers" } };
  }
  const exact = exactTurns(problem);
  const linkage = linkageOf(hangers);
  const isShort = hangers.some((hanger, k) => endsShort(hanger, exact[k] ?? 0));
  const best = isShort ? levelFirst(problem, linkage) : bestRounding(problem, exact, linkage);
  return { kind: "planned", plan: withLoad({ problem, exact, ...best }) };
}

/** A height error of this much weighs like 3 mm of side where level cannot be had at any height, metres (estimate). */
const HEIGHT_LAST_METRES = 0.1;

/** Level and rake as they are wanted, at the nearest height that can be reached; never a plan that levels less than leaving the deck alone. */
function levelFirst(problem: Problem, linkage: Linkage): Scored {
  const { least, most } = heightsInReach(problem);
  const isReached = least <= most;
  const nearest = isReached ? Math.min(most, Math.max(least, 0)) : (least + most) / 2;
  const target = { ...problem.target, heightMetres: problem.target.heightMetres + nearest };
  const level: Problem = isReached ? { ...problem, target } : { ...problem, target, heightScaleMetres: HEIGHT_LAST_METRES };
  const untouched = problem.hangers.map(() => 0);
  const starts = [bestRounding(level, exactTurns(level), linkage), { turns: untouched, scored: scoreTurns(level, untouched, linkage) }];
  return starts.map((from) => descend(level, from, linkage)).reduce((a, b) => (b.scored.penalty < a.scored.penalty ? b : a));
}

/**
 * How much lower (least) and higher (most) than wanted the deck can be levelled with every hanger inside its travel, metres. Least over most:
 * level is not to be had at any height.
 */
function heightsInReach(problem: Problem): { least: number; most: number } {
  const exact = exactTurns(problem);
  return {
    least: Math.max(...problem.hangers.map((hanger, k) => (-hanger.turnsLeftDown - (exact[k] ?? 0)) * hanger.liftPerTurn)),
    most: Math.min(...problem.hangers.map((hanger, k) => (hanger.turnsLeftUp - (exact[k] ?? 0)) * hanger.liftPerTurn)),
  };
}

/** J of one set of turns and what it leads to; the measure the rounding is chosen by. */
export function scoreTurns(problem: Problem, turns: readonly number[], linkage: Linkage = linkageOf(problem.hangers)) {
  const lifts = problem.hangers.map((hanger, k) => (turns[k] ?? 0) * hanger.liftPerTurn);
  const after = addPlanes(problem.plane, liftPlane(linkage.shares, lifts));
  const { target, span } = problem;
  const twist = twistOf(linkage.twists, lifts);
  const side = after.slopeRight * span.widthMetres - target.sideMetres;
  const rake = after.slopeForward * span.tipCircleMetres - target.rakeMetres;
  const height = planeHeight(after, target.reference) - target.heightMetres;
  const penalty =
    (side / ROUNDING_SCALE.side) ** 2 +
    (rake / ROUNDING_SCALE.rake) ** 2 +
    (height / (problem.heightScaleMetres ?? ROUNDING_SCALE.height)) ** 2 +
    (twist / ROUNDING_SCALE.twist) ** 2 +
    TURN_PENALTY * turns.reduce((sum, turn) => sum + Math.abs(turn), 0);
  return { penalty, after, lifts, twist };
}

function bestRounding(problem: Problem, exact: readonly number[], linkage: Linkage) {
  const choices = problem.hangers.map((hanger, k) => roundings(hanger, exact[k] ?? 0));
  let best: { turns: number[]; scored: ReturnType<typeof scoreTurns> } | undefined;
  for (const turns of combinations(choices)) {
    const scored = scoreTurns(problem, turns, linkage);
    if (!best || scored.penalty < best.scored.penalty) best = { turns, scored };
  }
  if (!best) throw new Error("no rounding to choose from");
  return best;
}

function endsShort(hanger: Hanger, exact: number): boolean {
  return exact > hanger.turnsLeftUp || -exact > hanger.turnsLeftDown;
}

type Scored = { turns: number[]; scored: ReturnType<typeof scoreTurns> };

/** Where one adjuster ends, the others' exact turns are no longer the best to round: go down J a step at a time, all of four hangers together. */
function descend(problem: Problem, from: Scored, linkage: Linkage): Scored {
  const count = problem.hangers.length;
  const together = count <= 4 ? count : 2;
  const moves = combinations(Array.from({ length: count }, () => [-1, 0, 1])).filter((move) => move.filter(Boolean).length <= together);
  let best = from;
  for (let round = 0; round < MOST_DESCENT_ROUNDS; round++) {
    const tried = moves.map((move) => {
      const turns = problem.hangers.map((hanger, k) => stepped(hanger, best.turns[k] ?? 0, move[k] ?? 0));
      return { turns, scored: scoreTurns(problem, turns, linkage) };
    });
    const next = tried.reduce((a, b) => (b.scored.penalty < a.scored.penalty ? b : a), best);
    if (next === best) return best;
    best = next;
  }
  return best;
}

const MOST_DESCENT_ROUNDS = 200;

function stepped(hanger: Hanger, turns: number, steps: number): number {
  const wanted = turns + steps * STEP_TURNS[hanger.step];
  return wanted > hanger.turnsLeftUp || -wanted > hanger.turnsLeftDown ? turns : wanted;
}

/** Floor and ceiling in steps, inside the travel. */
function roundings(hanger: Hanger, turns: number): number[] {
  const step = STEP_TURNS[hanger.step];
  const most = Math.floor(hanger.turnsLeftUp / step + 1e-9) * step;
  const least = -Math.floor(hanger.turnsLeftDown / step + 1e-9) * step;
  const within = (value: number) => Math.min(most, Math.max(least, value));
  const steps = turns / step;
  return [...new Set([within(Math.floor(steps + 1e-9) * step), within(Math.ceil(steps - 1e-9) * step)])];
}

function combinations(choices: readonly (readonly number[])[]): number[][] {
  return choices.reduce<number[][]>((sets, options) => sets.flatMap((set) => options.map((option) => [...set, option])), [[]]);
}

/** What each hanger's lift adds to the plane, by least squares where there are more than three: one plane a metre of lift. */
function liftShares(hangers: readonly Point[]): Plane[] {
  return hangers.map((_, k) => {
    const solved = solveLeastSquares(
      hangers.map(({ x, y }) => [1, x, y]),
      hangers.map((__, j) => (j === k ? 1 : 0)),
    );
    if (solved.kind === "refused") throw new Error("hangers lie on one line");
    const [height = 0, slopeRight = 0, slopeForward = 0] = solved.fit.coefficients;
    return { height, slopeRight, slopeForward };
  });
}

/** The plane that lifts at the hangers make. */
function liftPlane(shares: readonly Plane[], lifts: readonly number[]): Plane {
  const plane = { height: 0, slopeRight: 0, slopeForward: 0 };
  shares.forEach((share, k) => {
    const lift = lifts[k] ?? 0;
    plane.height += share.height * lift;
    plane.slopeRight += share.slopeRight * lift;
    plane.slopeForward += share.slopeForward * lift;
  });
  return plane;
}

/** What the rounding search needs of the hangers' places, worked out once. */
type Linkage = { twists: number[][]; shares: Plane[] };

function linkageOf(hangers: readonly Point[]): Linkage {
  return { twists: twistVectors(hangers), shares: liftShares(hangers) };
}

/**
 * For every four hangers the vector n with Σn = Σn·x = Σn·y = 0, largest entry 1, spread over all hangers (0 for those not in it).
 * Σ nᵢ·liftᵢ is what a rigid deck cannot follow: for a rectangle, LF + RR − RF − LR.
 */
export function twistVectors(hangers: readonly Point[]): number[][] {
  const fours = subsets(hangers.length, 4);
  return fours.map((four) => {
    const places = four.map((k) => hangers[k] as Point);
    const areas = places.map((_, k) => signedArea(places.filter((_, other) => other !== k)) * (k % 2 === 0 ? 1 : -1));
    const most = Math.max(...areas.map(Math.abs));
    const vector = new Array<number>(hangers.length).fill(0);
    four.forEach((k, position) => {
      vector[k] = most === 0 ? 0 : (areas[position] ?? 0) / most;
    });
    return vector;
  });
}

function signedArea([a, b, c]: readonly Point[]): number {
  if (!a || !b || !c) return 0;
  return (b.x - a.x) * (c.y - a.y) - (c.x - a.x) * (b.y - a.y);
}

function subsets(count: number, size: number): number[][] {
  if (size === 0) return [[]];
  if (count < size) return [];
  const without = subsets(count - 1, size);
  const withLast = subsets(count - 1, size - 1).map((set) => [...set, count - 1]);
  return [...without, ...withLast];
}

function twistOf(twists: readonly (readonly number[])[], lifts: readonly number[]): number {
  return Math.max(0, ...twists.map((n) => Math.abs(n.reduce((sum, share, k) => sum + share * (lifts[k] ?? 0), 0))));
}

function withLoad(args: {
  problem: Problem;
  exact: readonly number[];
  turns: readonly number[];
  scored: ReturnType<typeof scoreTurns>;
}): TurnPlan {
  const { problem, exact, turns, scored } = args;
  const free = problem.allLoadedBefore === false ? undefined : hangerThatHangsFree(problem, scored.lifts, exact);
  return {
    hangers: problem.hangers.map((hanger, k) => ({
      id: hanger.id,
      exactTurns: exact[k] ?? 0,
      turns: turns[k] ?? 0,
      liftMetres: scored.lifts[k] ?? 0,
      endsShort: endsShort(hanger, exact[k] ?? 0),
      ...(free?.index === k ? { slackMetres: free.slack } : {}),
    })),
    after: free ? addPlanes(problem.plane, free.plane) : scored.after,
    twistMetres: scored.twist,
    penalty: scored.penalty,
  };
}

/** With four hangers: the one a rigid deck would leave, the others' triangle holding the centre of gravity; over the shell's give. */
function hangerThatHangsFree(problem: Problem, lifts: readonly number[], exact: readonly number[]) {
  const { hangers } = problem;
  if (hangers.length !== 4) return undefined;
  const centre = problem.centreOfGravity ?? middleOf(hangers);
  const candidates = hangers.flatMap((hanger, index) => {
    const loaded = hangers.filter((_, k) => k !== index);
    if (!holds(loaded, centre)) return [];
    const plane = liftPlane(
      liftShares(loaded),
      lifts.filter((_, k) => k !== index),
    );
    const slack = planeHeight(plane, hanger) - (lifts[index] ?? 0);
    const missing = (exact[index] ?? 0) * hanger.liftPerTurn - (lifts[index] ?? 0);
    return slack > SHELL_GIVE_METRES ? [{ index, slack, plane, missing }] : [];
  });
  // With the weight on a diagonal both ends of the other one qualify: the one left lowest against its wish goes first.
  return candidates.sort((a, b) => b.missing - a.missing)[0];
}

function middleOf(points: readonly Point[]): Point {
  return {
    x: points.reduce((sum, p) => sum + p.x, 0) / points.length,
    y: points.reduce((sum, p) => sum + p.y, 0) / points.length,
  };
}

/** Whether a triangle holds a point, its edges counted in. */
function holds([a, b, c]: readonly Point[], p: Point): boolean {
  if (!a || !b || !c) return false;
  const signs = [signedArea([a, b, p]), signedArea([b, c, p]), signedArea([c, a, p])];
  const slack = 1e-9;
  return signs.every((sign) => sign >= -slack) || signs.every((sign) => sign <= slack);
}

/** What a ruler will read at each tip once the plan is carried out: its height now plus the plane's movement there. */
export function rulerAfter(args: { tips: readonly HeightAt[]; before: Plane; after: Plane }): HeightAt[] {
  return args.tips.map((tip) => ({ ...tip, z: tip.z + planeHeight(args.after, tip) - planeHeight(args.before, tip) }));
}
