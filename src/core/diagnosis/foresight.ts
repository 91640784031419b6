import type { CauseId, CheckState } from "@/core/catalogue";
import { type Assembled, moved } from "./case";
import type { KnownCheck } from "./knowledge";
import { EXPLAINED_LEVEL } from "./levels";
import { setUpMinutes } from "./set-up";

/** More causes and findings than these cost more than they tell: the likeliest, and what is still open. Measured. */
const MOST_CAUSES = 16;
const MOST_FINDINGS = 5;
/** Worlds looked into: what is left of them is a tenth at most. */
const MOST_WORLDS = 12;
const MOST_STEPS = 20;

/**
 * The case, small enough to look ahead in: the likeliest causes, the findings still to be explained. `kept[set * causes + c]`: the chance that cause
 * c shows none of the findings in the set.
 */
export type Outline = {
  causes: readonly CauseId[];
  odds: Float64Array;
  kept: Float64Array;
  /** Per set of findings: its sign times the chance that nothing shows any of them by itself. */
  signed: Float64Array;
  isBacked: readonly boolean[];
  /** That each is there and has shown something, of those not found yet: what the worlds weigh. */
  shown: readonly number[];
};

export function outlineOf(args: {
  assembled: Assembled;
  /** Of the causes in the network, how likely each is to be there, and to be what showed; `isBacked` where a check speaks for it. */
  presence: ReadonlyMap<CauseId, { probability: number; shown: number; isBacked: boolean }>;
  /** Symptoms not found yet. */
  open: readonly string[];
}): Outline {
  const { assembled, presence } = args;
  const { network, linked, present } = assembled;
  const told = (id: CauseId) => presence.get(id)?.probability ?? 0;
  const chosen = linked
    .map(({ id }, index) => ({ id, index }))
    .sort((a, b) => told(b.id) - told(a.id))
    .slice(0, MOST_CAUSES);
  const open = network.findings.map((_, at) => at).filter((at) => args.open.includes(present[at] ?? ""));
  const readings = network.findings.map((_, at) => at).filter((at) => at >= present.length);
  const findings = [...open.slice(0, MOST_FINDINGS), ...readings].slice(0, MOST_FINDINGS);
  const links = chosen.map(({ index }) =>
    findings.map((finding) => network.causes[index]?.links.find((link) => link.finding === finding)?.probability ?? 0),
  );
  const sets = 1 << findings.length;
  const kept = new Float64Array(sets * chosen.length).fill(1);
  const signed = new Float64Array(sets).fill(1);
  for (let set = 1; set < sets; set++) {
    const last = Math.floor(Math.log2(set));
    const before = set ^ (1 << last);
    signed[set] = -(signed[before] as number) * (1 - (network.findings[findings[last] as number]?.leak ?? 0));
    for (let c = 0; c < chosen.length; c++) {
      kept[set * chosen.length + c] = (kept[before * chosen.length + c] as number) * (1 - (links[c]?.[last] ?? 0));
    }
  }
  return {
    causes: chosen.map(({ id }) => id),
    odds: Float64Array.from(chosen, ({ index }) => (network.causes[index]?.odds ?? 0) * (network.causes[index]?.silence ?? 1)),
    kept,
    signed,
    isBacked: chosen.map(({ id }) => presence.get(id)?.isBacked ?? false),
    shown: chosen.map(({ id }) => presence.get(id)?.shown ?? 0),
  };
}

/** That each cause is there, by inclusion and exclusion over the findings (Heckerman's Quickscore): sound in doubles for so few of them. */
function presenceIn({ kept, signed }: Outline, odds: Float64Array, into: Float64Array): void {
  const count = odds.length;
  into.fill(0);
  let whole = 0;
  for (let set = 0; set < signed.length; set++) {
    let product = signed[set] as number;
    const at = set * count;
    for (let c = 0; c < count; c++) product *= 1 + (odds[c] as number) * (kept[at + c] as number);
    whole += product;
    for (let c = 0; c < count; c++) {
      const shown = (odds[c] as number) * (kept[at + c] as number);
      into[c] = (into[c] as number) + (product * shown) / (1 + shown);
    }
  }
  for (let c = 0; c < count; c++) into[c] = whole > 0 ? Math.min(1, Math.max(0, (into[c] as number) / whole)) : 0;
}

/**
 * Minutes until the cause is named, should this check be made first and what tells most after it: over the worlds in which each suspect alone is what shows,
 * weighed by how likely each is. In each the looks come out as they would there, and it ends once that suspect stands above the level with a check that
 * speaks for it, or no check is left. Rollout of a base policy (published: Bertsekas and Castañon 1999, from memory).
 */
export function minutesToName(args: {
  offered: readonly KnownCheck[];
  outline: Outline;
  state: CheckState;
}): (first: KnownCheck) => number {
  const { offered, outline } = args;
  const worlds = outline.shown
    .map((weight, world) => ({ world, weight }))
    .filter(({ weight }) => weight > 0)
    .sort((a, b) => b.weight - a.weight)
    .slice(0, MOST_WORLDS);
  const figuresOf: Figures = new Map(offered.map((check) => [check, figuresIn(outline, check)]));
  const whole = worlds.reduce((sum, { weight }) => sum + weight, 0);
  return (first) => {
    const useful = offered.filter((check) => check === first || (figuresOf.get(check)?.length ?? 0) > 0);
    return worlds.reduce((sum, { world, weight }) => sum + (weight / whole) * minutesIn({ ...args, first, world, useful, figuresOf }), 0);
  };
}

type Figure = { named: readonly number[]; movers: readonly [number, number][] };
type Figures = ReadonlyMap<KnownCheck, readonly Figure[]>;

/** What a check reads, by the outline's causes: those it names, and what else would move it. */
function figuresIn({ causes }: Outline, { id, figures, sensitivity }: KnownCheck): Figure[] {
  const index = new Map<string, number>(causes.map((cause, c) => [cause, c]));
  return figures.flatMap((figure) => {
    const named = figure.flatMap((cause) => index.get(cause) ?? []);
    if (named.length === 0) return [];
    const movers = moved({ check: id, causes: figure, share: sensitivity, isKnown: (cause) => index.has(cause) });
    return [{ named, movers: [...movers].map(([cause, share]): [number, number] => [index.get(cause) as number, share]) }];
  });
}

function minutesIn(args: {
  first: KnownCheck;
  outline: Outline;
  state: CheckState;
  world: number;
  useful: readonly KnownCheck[];
  figuresOf: Figures;
}): number {
  const { world, figuresOf } = args;
  let { outline } = args;
  const odds = outline.odds.slice();
  const presence = new Float64Array(odds.length);
  const isBacked = [...outline.isBacked];
  let [left, state, minutes] = [args.useful, args.state, 0];
  for (let k = 0; k < MOST_STEPS; k++) {
    presenceIn(outline, odds, presence);
    if (isBacked[world] && (presence[world] as number) >= EXPLAINED_LEVEL) return minutes;
    const next = k === 0 ? args.first : telling({ left, figuresOf, presence, isBacked, state });
    if (!next) return minutes;
    minutes += setUpMinutes(state, next.state) + next.minutes;
    state = next.state;
    left = left.filter((check) => check !== next);
    const { sensitivity, specificity } = next;
    for (const { named, movers } of figuresOf.get(next) ?? []) {
      const isPositive = named.includes(world) || movers.some(([c, share]) => c === world && share >= OFTEN_MOVED);
      if (isPositive) for (const c of named) isBacked[c] = true;
      if (isPositive && (named.length > 1 || movers.length > 0) && outline.signed.length < MOST_SETS) {
        outline = withFinding(outline, Math.min(1 - specificity, sensitivity / LOOK_RATIO), [
          ...movers,
          ...named.map((c): [number, number] => [c, sensitivity]),
        ]);
        continue;
      }
      const ratio = isPositive ? Math.max(LOOK_RATIO, sensitivity / (1 - specificity)) : (1 - sensitivity) / specificity;
      for (const c of named) odds[c] = (odds[c] as number) * ratio;
    }
  }
  return minutes;
}

/** Beyond so many sets of findings a reading that several would have brought about speaks to each of them alone. Measured. */
const MOST_SETS = 128;
/** What a plain look is worth in a world looked ahead into: less than one seen for certain, more than a suspicion. Estimate. */
const LOOK_RATIO = 30;
/** What moves a reading at least so often is taken to have moved it. Estimate. */
const OFTEN_MOVED = 0.5;

/** The case with one more finding: a reading that several would have brought about. */
function withFinding(outline: Outline, leak: number, shares: readonly [number, number][]): Outline {
  const { kept, signed, odds } = outline;
  const shown = Float64Array.from(odds, () => 1);
  for (const [c, share] of shares) shown[c] = 1 - share;
  const wider = new Float64Array(kept.length * 2);
  wider.set(kept);
  for (let at = 0; at < kept.length; at++) wider[kept.length + at] = (kept[at] as number) * (shown[at % odds.length] as number);
  const signs = new Float64Array(signed.length * 2);
  signs.set(signed);
  for (let set = 0; set < signed.length; set++) signs[signed.length + set] = -(signed[set] as number) * (1 - leak);
  return { ...outline, kept: wider, signed: signs };
}

const LEAST_HIDDEN = 1e-4;
const STATES: readonly CheckState[] = ["parked", "locked-out", "raised", "bench", "running"];

/** Of the state whose best run of checks finds most of what is still hidden for its minutes, its set-up counted once, the check to begin with. */
function telling(args: {
  left: readonly KnownCheck[];
  figuresOf: Figures;
  presence: Float64Array;
  isBacked: readonly boolean[];
  state: CheckState;
}): KnownCheck | undefined {
  const { left, figuresOf, presence } = args;
  const worth = new Map<KnownCheck, number>();
  for (const check of left) {
    let found = 0;
    for (const figure of figuresOf.get(check) ?? []) {
      for (const c of figure.named) {
        const p = presence[c] as number;
        if (!(args.isBacked[c] && p >= EXPLAINED_LEVEL)) found += p;
      }
    }
    if (found > LEAST_HIDDEN) worth.set(check, found * check.sensitivity);
  }
  let [best, most] = [undefined as KnownCheck | undefined, 0];
  for (const to of STATES) {
    const there = left.filter((check) => check.state === to && worth.has(check));
    there.sort((a, b) => (worth.get(b) as number) / b.minutes - (worth.get(a) as number) / a.minutes);
    let [sum, minutes] = [0, setUpMinutes(args.state, to)];
    for (const check of there) {
      sum += worth.get(check) as number;
      minutes += check.minutes;
      if (sum / minutes > most) [best, most] = [there[0], sum / minutes];
    }
  }
  return best;
}
