import type { CauseId, CheckId, CheckState, SymptomId } from "@/core/catalogue";
import type { Case } from "./case";
import type { Diagnosis } from "./diagnose";
import { type Outline, outlineOf } from "./foresight";
import { boundToComplaint, entropy, type Gain, gainsOf, Prospect } from "./gains";
import type { Knowledge } from "./knowledge";
import { EXPLAINED_LEVEL } from "./levels";
import { byInformation, foreseen, LEAST_BITS, type Offered, walkRound } from "./order";
import { missedLooks, secondLooks } from "./second-looks";
import { setUpMinutes } from "./set-up";

export type CheckOrder = "information" | "walk-round";

export type NextCheck = {
  id: CheckId;
  label: string;
  state: CheckState;
  /** Of the check alone. */
  checkMinutes: number;
  /** To make ready for it, coming from the check before it in the list. */
  setUpMinutes: number;
  /** Both together. */
  minutes: number;
  /** Expected fall of the summed entropy of the causes in question. */
  bits: number;
  bitsPerMinute: number;
  /** To be put right before this one may be *set*; a look is allowed, and provisional. */
  waitsFor: CheckId[];
  /** The causes of the complaint it speaks to, the likeliest first. */
  tells: CauseId[];
  /** Made already: only what stands on one look of it is looked at once more. */
  again?: CauseId[];
};

export type Plan = {
  checks: NextCheck[];
  /** For the whole list. */
  minutes: number;
  /** Until the cause is found, going down the list and stopping there. */
  expectedMinutes: number;
};

/** What must be right before something that rests on it is set (common practice). */
const RESTS_ON: Partial<Record<CheckId, readonly CheckId[]>> = {
  "deck-level": ["tyre-pressure"],
  "reel-contact": ["roller-square"],
  "cutting-height": ["roller-square", "reel-contact"],
  "groomer-depth": ["roller-square", "reel-contact", "cutting-height"],
};

/**
 * The checks still to make, in the order of a school, with what each tells and what it costs. By information: visits to a state are valued
 * as runs, the best prefix of its checks by gain against set-up and minutes. Walk-round: always the same,
 * every check the machine can have. `minutesLeft` keeps to what fits.
 */
export function planChecks(args: {
  knowledge: Knowledge;
  given: Case;
  diagnosis: Pick<Diagnosis, "causes" | "symptoms">;
  state: CheckState;
  done: readonly CheckId[];
  /** Left out by the mechanic: not offered, whether or not a reading of it has gone stale. */
  skipped?: readonly CheckId[];
  order: CheckOrder;
  minutesLeft?: number;
  /** Where one is at hand for this very case: it is by far the dearest part. */
  prospect?: Prospect;
}): Plan {
  const { knowledge, given, diagnosis, order } = args;
  const isDone = (id: CheckId) => args.done.includes(id) && !given.stale?.includes(id);
  const unmade = knowledge.checks.filter(({ id }) => !isDone(id) && !args.skipped?.includes(id));
  const agains = order === "information" ? secondLooks({ knowledge, given, isOut: (id) => args.skipped?.includes(id) ?? false }) : [];
  const offered: Offered[] = [...unmade.map((check) => withoutKnown(check, given)), ...agains];
  const settled = diagnosis.causes.filter(isSettled).map(({ id }) => id);
  const bound = boundToComplaint(knowledge, openSymptoms(diagnosis)).filter((id) => !settled.includes(id));
  const prospect = args.prospect ?? new Prospect(knowledge, given);
  const gains = gainsOf(prospect, offered, bound);
  const proving = toProve({ knowledge, diagnosis, offered });
  const likely = proving.length > 0 ? gainsOf(prospect, offered, proving).filter(({ check }) => speaksTo(offered, check, proving)) : [];
  const struck = given.context.includes("struck-object")
    ? gains.filter(({ check, bits }) => AFTER_STRIKE.includes(check) && bits >= LEAST_BITS)
    : [];
  const limits = { offered, state: args.state, minutesLeft: args.minutesLeft };
  const informed = () =>
    foreseen({
      ...limits,
      gains,
      first: likely.length > 0 ? likely : struck,
      outline: () => outlineIn({ prospect, diagnosis }),
      likeliest: likelierThanNot(diagnosis),
    });
  const told = order === "walk-round" ? walkRound({ ...args, offered }) : informed();
  const isOpen = diagnosis.symptoms.some(({ status }) => status !== "found");
  if (order === "information" && told.length === 0 && isOpen) return missed({ ...args, prospect, bound, isDone });
  const sequence = order === "walk-round" || args.minutesLeft !== undefined ? told : restedFirst(told, offered);
  return planOf({ sequence, gains, knowledge, isDone, bound, diagnosis, state: args.state });
}

/** What can fly or run out of true is looked at before all else once something hard was struck; any one of them first (common practice). */
const AFTER_STRIKE: readonly CheckId[] = [
  "blade-track",
  "blade-edge",
  "blade-fit",
  "spindle-play",
  "blade-timing",
  "reel-edge",
  "reel-contact",
];

/** What somebody has seen already no check has to tell: a blade that stands needs no tachometer. */
const SEEN_ALREADY: readonly { look: SymptomId; check: CheckId; cause: CauseId }[] = [
  { look: "blade-stopped", check: "tip-speed", cause: "belt-off" },
];

function withoutKnown(check: Offered, given: Case): Offered {
  const seen = SEEN_ALREADY.filter((one) => one.check === check.id && given.symptoms[one.look] === "present").map(({ cause }) => cause);
  if (seen.length === 0) return check;
  return { ...check, figures: check.figures.filter((figure) => !figure.some((cause) => seen.includes(cause))) };
}

/** A look is made again only where it may well have missed something. Estimate. */
const LEAST_MISSED_BITS = 0.02;

/** Nothing else is left that would tell: what the looks so far may have missed. */
function missed(args: {
  knowledge: Knowledge;
  given: Case;
  diagnosis: Pick<Diagnosis, "causes" | "symptoms">;
  state: CheckState;
  skipped?: readonly CheckId[];
  minutesLeft?: number;
  prospect: Prospect;
  bound: readonly CauseId[];
  isDone: (id: CheckId) => boolean;
}): Plan {
  const { knowledge, given, bound } = args;
  const offered = missedLooks({ knowledge, given, isOut: (id) => args.skipped?.includes(id) ?? false });
  const gains = gainsOf(args.prospect, offered, bound).filter(({ bits }) => bits >= LEAST_MISSED_BITS);
  return planOf({ ...args, gains, sequence: byInformation({ ...args, offered, gains, first: [] }) });
}

function planOf(args: Parameters<typeof costed>[0]): Plan {
  const checks = costed(args);
  return {
    checks,
    minutes: checks.reduce((sum, { minutes }) => sum + minutes, 0),
    expectedMinutes: expectedMinutes(args.knowledge, checks, args.diagnosis),
  };
}

/** Estimate. */
const WORTH_MAKING_FIRST = 0.5;

/** Where the check that comes next rests on one that takes half its minutes or less, that one is made first, or it would be made again. */
function restedFirst(sequence: readonly Offered[], offered: readonly Offered[]): Offered[] {
  const [next] = sequence;
  if (!next) return [];
  const rests = (RESTS_ON[next.id] ?? []).flatMap((id) => offered.find((one) => one.id === id) ?? []);
  return [...new Set([...rests.filter((one) => one.minutes <= WORTH_MAKING_FIRST * next.minutes), ...sequence])];
}

/** Found: a check speaks for it, and little doubt is left. What more could be learnt of it is worth no minutes. */
function isSettled({ isBackedByCheck, presence }: Diagnosis["causes"][number]): boolean {
  return isBackedByCheck && presence >= EXPLAINED_LEVEL;
}

/** The case small enough to look ahead in: what is ranked, and what is not found yet. */
function outlineIn({ prospect, diagnosis }: { prospect: Prospect; diagnosis: Pick<Diagnosis, "causes" | "symptoms"> }): Outline {
  return outlineOf({
    assembled: prospect.assembled,
    presence: new Map(
      diagnosis.causes.map((one) => [
        one.id,
        { probability: one.presence, shown: isSettled(one) ? 0 : one.probability, isBacked: one.isBackedByCheck },
      ]),
    ),
    open: openSymptoms(diagnosis),
  });
}

/** The likeliest cause that is not found yet, where it is likelier than not. */
const likelierThanNot = ({ causes }: Pick<Diagnosis, "causes">): CauseId | undefined =>
  causes.find((cause) => !isSettled(cause) && cause.probability >= 0.5)?.id;

/** Those not yet explained by a cause that a check speaks for; once all are, all of them: more than one cause may have shown them. */
export function openSymptoms({ symptoms }: Pick<Diagnosis, "symptoms">) {
  const open = symptoms.filter(({ status }) => status !== "found");
  return (open.length > 0 ? open : symptoms).map(({ id }) => id);
}

/**
 * What is as good as found and only wants a look: the causes above the level that no check speaks for yet, where together they can show
 * everything still open. A very likely cause has little left to tell in bits, yet nobody mends on a likelihood.
 */
function toProve(args: {
  knowledge: Knowledge;
  diagnosis: Pick<Diagnosis, "causes" | "symptoms">;
  offered: readonly Offered[];
}): CauseId[] {
  const { knowledge, diagnosis, offered } = args;
  const open = diagnosis.symptoms.filter(({ status }) => status !== "found").map(({ id }) => id);
  const likely = diagnosis.causes
    .filter(({ presence, isBackedByCheck }) => presence >= EXPLAINED_LEVEL && !isBackedByCheck)
    .map(({ id }) => id);
  const shows = (cause: CauseId) => knowledge.causes.find(({ id }) => id === cause)?.links.map(({ symptom }) => symptom) ?? [];
  const able = likely.filter((cause) => shows(cause).some((symptom) => open.includes(symptom)));
  const isCovered = open.length > 0 && open.every((symptom) => able.some((cause) => shows(cause).includes(symptom)));
  return isCovered ? able.filter((cause) => offered.some(({ figures }) => figures.flat().includes(cause))) : [];
}

function speaksTo(checks: readonly Offered[], check: CheckId, causes: readonly CauseId[]): boolean {
  return (
    checks
      .find(({ id }) => id === check)
      ?.figures.flat()
      .some((cause) => causes.includes(cause)) ?? false
  );
}

function costed(args: {
  sequence: readonly Offered[];
  gains: readonly Gain[];
  knowledge: Knowledge;
  isDone: (id: CheckId) => boolean;
  bound: readonly CauseId[];
  diagnosis: Pick<Diagnosis, "causes" | "symptoms">;
  state: CheckState;
}): NextCheck[] {
  let { state } = args;
  return args.sequence.map((check) => {
    const ready = setUpMinutes(state, check.state);
    state = check.state;
    const bits = args.gains.find((gain) => gain.check === check.id)?.bits ?? 0;
    const minutes = ready + check.minutes;
    const exists = (id: CheckId) => args.knowledge.checks.some((one) => one.id === id);
    return {
      id: check.id,
      label: check.label,
      state: check.state,
      checkMinutes: check.minutes,
      setUpMinutes: ready,
      minutes,
      bits,
      bitsPerMinute: bits / minutes,
      waitsFor: (RESTS_ON[check.id] ?? []).filter((id) => exists(id) && !args.isDone(id)),
      tells: args.diagnosis.causes.filter(({ id }) => args.bound.includes(id) && check.figures.flat().includes(id)).map(({ id }) => id),
      ...(check.again ? { again: check.again } : {}),
    };
  });
}

/**
 * Minutes until the cause is found, were the list followed and left there: each check's minutes by the chance that it is still needed. The cause
 * is taken as one of those ranked, in proportion to their probability, and as found by the first check that speaks to it, as often as
 * that check finds. An estimate to compare lists by.
 */
function expectedMinutes(knowledge: Knowledge, checks: readonly NextCheck[], { causes }: Pick<Diagnosis, "causes">): number {
  const total = causes.reduce((sum, { probability }) => sum + probability, 0);
  const hidden = new Map(causes.map(({ id, probability }) => [id, total > 0 ? probability / total : 0]));
  let expected = 0;
  for (const next of checks) {
    expected += next.minutes * [...hidden.values()].reduce((sum, share) => sum + share, 0);
    const check = knowledge.checks.find(({ id }) => id === next.id);
    for (const id of check?.figures.flat() ?? []) hidden.set(id, (hidden.get(id) ?? 0) * (1 - (check?.sensitivity ?? 0)));
  }
  return expected;
}

/** The check that would best tell two causes apart for its minutes: expected fall of the doubt between them alone. */
export function tellApart(args: {
  knowledge: Knowledge;
  given: Case;
  pair: readonly [CauseId, CauseId];
  state: CheckState;
  done: readonly CheckId[];
  skipped?: readonly CheckId[];
  prospect?: Prospect;
}): { id: CheckId; minutes: number; bits: number } | undefined {
  const prospect = args.prospect ?? new Prospect(args.knowledge, args.given);
  const isOut = (id: CheckId) => args.skipped?.includes(id) || (args.done.includes(id) && !args.given.stale?.includes(id));
  const places: readonly [number, number] = [prospect.causes.indexOf(args.pair[0]), prospect.causes.indexOf(args.pair[1])];
  if (places.includes(-1)) return undefined;
  const doubt = (presence: Float64Array) => doubtBetween(presence, places);
  const open = args.knowledge.checks.filter(({ id, figures }) => !isOut(id) && figures.some((f) => args.pair.some((c) => f.includes(c))));
  return open
    .map((check) => {
      const bits = check.figures.reduce((sum, figure) => {
        const { positive, ifPositive, ifNegative } = prospect.outlook(figure, check);
        return sum + Math.max(0, doubt(prospect.now) - positive * doubt(ifPositive) - (1 - positive) * doubt(ifNegative));
      }, 0);
      return { id: check.id, minutes: check.minutes + setUpMinutes(args.state, check.state), bits };
    })
    .filter(({ bits }) => bits >= LEAST_BITS)
    .sort((x, y) => y.bits / y.minutes - x.bits / x.minutes)[0];
}

/** Doubt between two causes alone, in bits. */
function doubtBetween(presence: Float64Array, [a, b]: readonly [number, number]): number {
  const one = presence[a] as number;
  const other = presence[b] as number;
  return one + other > 0 ? entropy(one / (one + other)) : 0;
}
