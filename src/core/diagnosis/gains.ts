import type { CauseId, CheckId, SymptomId } from "@/core/catalogue";
import { type Assembled, assemble, type Case, moved } from "./case";
import type { Knowledge, KnownCheck } from "./knowledge";
import { jointPresences, logEvidence, presences, presencesGiven } from "./network";
import type { Network } from "./network-shape";

/** How one figure may come out: the chance of each way, and what each cause's presence would then be. */
export type Outlook = { positive: number; ifPositive: Float64Array; ifNegative: Float64Array };

/** With more findings than this one more of them for each figure takes longer than it tells: what else moves it is left aside. Measured. */
const MOST_FOR_MOVERS = 8;

/**
 * With more symptoms than this what checks would tell is worked out from those that say most: the joint posteriors double with every one of them,
 * and an order of looks does not hang on the ninth. The judgement itself takes them all. Measured.
 */
const MOST_SYMPTOMS = 8;

/** The case with its most telling symptoms only: those that the fewest causes can show, by how likely each is before anything is known. */
function atMost(knowledge: Knowledge, given: Case, most: number): Case {
  const present = knowledge.symptoms.filter((symptom) => given.symptoms[symptom] === "present");
  if (present.length <= most) return given;
  const usual = (symptom: SymptomId) =>
    knowledge.causes.reduce((sum, { prior, links }) => sum + prior * (links.find((link) => link.symptom === symptom)?.probability ?? 0), 0);
  const dropped = [...present].sort((a, b) => usual(a) - usual(b)).slice(most);
  return { ...given, symptoms: Object.fromEntries(Object.entries(given.symptoms).filter(([id]) => !dropped.includes(id as SymptomId))) };
}

/**
 * What checks would tell, worked out from the joint posteriors of the causes they speak to. One is made for one case and asked for many
 * checks: each cause is supposed to be there once, whatever number of checks speak to it.
 */
export class Prospect {
  readonly causes: readonly CauseId[];
  readonly now: Float64Array;
  readonly assembled: Assembled;
  /** Of the linked causes, two by two. */
  private readonly pairs: readonly Float64Array[];
  private logTotal: number | undefined;
  private readonly supposed = new Map<string, { there: Float64Array; probability: number }>();
  private readonly shared = new Map<string, Outlook>();
  private readonly known: ReadonlySet<string>;

  constructor(knowledge: Knowledge, given: Case) {
    this.known = new Set(knowledge.causes.map(({ id }) => id));
    this.assembled = assemble(knowledge, atMost(knowledge, given, MOST_SYMPTOMS));
    const { network, linked, apart } = this.assembled;
    this.causes = [...linked.map(({ id }) => id), ...apart.keys()];
    this.pairs = jointPresences(network);
    this.now = Float64Array.from([...this.pairs.map((row, index) => row[index] as number), ...apart.values()]);
  }

  /** How a figure that speaks to these causes may come out, with all else that moves it. A cause it names that does not exist here is left aside. */
  outlook(figure: readonly CauseId[], check: Pick<KnownCheck, "sensitivity" | "specificity"> & { id?: CheckId }): Outlook {
    const movers = moved({ check: check.id ?? "", causes: figure, share: check.sensitivity, isKnown: (cause) => this.known.has(cause) });
    const hasRoom = this.assembled.network.findings.length < MOST_FOR_MOVERS;
    return movers.size > 0 && hasRoom ? this.asFinding(figure, movers, check) : this.alone(figure, check);
  }

  /** One more finding of the network: what it would be found with, and by the whole what it would not. */
  private asFinding(figure: readonly CauseId[], movers: ReadonlyMap<string, number>, check: Parameters<Prospect["outlook"]>[1]): Outlook {
    const key = `${check.id}:${figure.join()}:${check.specificity}`;
    const kept = this.shared.get(key);
    if (kept) return kept;
    const { network, linked, apart } = this.assembled;
    const shares = new Map<string, number>([...movers, ...figure.map((id): [string, number] => [id, check.sensitivity])]);
    const finding = network.findings.length;
    const link = (id: CauseId) => (shares.has(id) ? [{ finding, probability: shares.get(id) as number }] : []);
    const asides = [...apart].filter(([id]) => shares.has(id));
    const withIt: Network = {
      findings: [...network.findings, { leak: 1 - check.specificity, isSymptom: false }],
      causes: [
        ...network.causes.map((cause, index) => ({ ...cause, links: [...cause.links, ...link((linked[index] as { id: CauseId }).id)] })),
        ...asides.map(([id, there]) => ({ odds: there / (1 - there), silence: 1, links: link(id) })),
      ],
    };
    this.logTotal ??= logEvidence(network);
    const logAsides = asides.reduce((sum, [, there]) => sum - Math.log1p(-there), 0);
    const positive = Math.min(1, Math.exp(logEvidence(withIt) - this.logTotal - logAsides));
    const found = presences(withIt);
    const ifPositive = this.now.slice();
    for (let index = 0; index < linked.length; index++) ifPositive[index] = found[index] as number;
    for (const [at, [id]] of asides.entries()) ifPositive[this.causes.indexOf(id)] = found[linked.length + at] as number;
    const ifNegative = this.now.map((there, index) => ratio(there - positive * (ifPositive[index] as number), 1 - positive));
    const outlook = { positive, ifPositive, ifNegative };
    this.shared.set(key, outlook);
    return outlook;
  }

  private alone(figure: readonly CauseId[], { sensitivity, specificity }: Pick<KnownCheck, "sensitivity" | "specificity">): Outlook {
    const named = figure.map((id) => this.causes.indexOf(id)).filter((index) => index >= 0);
    const isAlone = named.length === 1;
    const ifPositive = new Float64Array(this.causes.length);
    const ifNegative = new Float64Array(this.causes.length);
    let positive = 0;
    for (const { count, probability, joint } of this.combinations(named)) {
      const miss = count === 0 ? specificity : isAlone ? 1 - sensitivity : specificity * (1 - sensitivity) ** count;
      positive += probability * (1 - miss);
      for (let index = 0; index < joint.length; index++) {
        ifPositive[index] = (ifPositive[index] as number) + (joint[index] as number) * (1 - miss);
        ifNegative[index] = (ifNegative[index] as number) + (joint[index] as number) * miss;
      }
    }
    return { positive, ifPositive: ifPositive.map((w) => ratio(w, positive)), ifNegative: ifNegative.map((w) => ratio(w, 1 - positive)) };
  }

  /** Every way the named causes can be there or not: how many are, how likely that is, and each cause's presence together with it. */
  private combinations(named: readonly number[]): { count: number; probability: number; joint: Float64Array }[] {
    const size = 1 << named.length;
    const atLeast = Array.from({ length: size }, (_, set) => this.withAll(named.filter((_, k) => set & (1 << k))));
    return Array.from({ length: size }, (_, set) => {
      let probability = 0;
      const joint = new Float64Array(this.causes.length);
      for (let wider = set; wider < size; wider = (wider + 1) | set) {
        const sign = bits(wider ^ set) % 2 === 0 ? 1 : -1;
        const supposed = atLeast[wider] as { there: Float64Array; probability: number };
        probability += sign * supposed.probability;
        for (let index = 0; index < joint.length; index++) {
          joint[index] = (joint[index] as number) + sign * (supposed.there[index] as number) * supposed.probability;
        }
      }
      return { count: bits(set), probability: Math.max(0, probability), joint: joint.map((w) => Math.max(0, w)) };
    });
  }

  /** Presences, were all of these there, and how likely it is that all of these are. */
  private withAll(indices: readonly number[]): { there: Float64Array; probability: number } {
    const key = indices.join(",");
    const kept = this.supposed.get(key);
    if (kept) return kept;
    const made = this.suppose(indices);
    this.supposed.set(key, made);
    return made;
  }

  private suppose(indices: readonly number[]): { there: Float64Array; probability: number } {
    if (indices.length === 0) return { there: this.now, probability: 1 };
    const linkedCount = this.assembled.linked.length;
    const linked = indices.filter((index) => index < linkedCount);
    const aside = indices.filter((index) => index >= linkedCount);
    const asideProbability = aside.reduce((product, index) => product * (this.now[index] as number), 1);
    const there = this.now.slice();
    for (const index of aside) there[index] = 1;
    const probability = asideProbability * (linked.length > 0 ? this.supposeLinked(linked, there) : 1);
    return { there, probability };
  }

  /** Writes into `there` what the linked causes would be, were these there; returns how likely that is. */
  private supposeLinked(linked: readonly number[], there: Float64Array): number {
    const [one] = linked as [number];
    const alone = this.now[one] as number;
    if (linked.length === 1) {
      const row = this.pairs[one] as Float64Array;
      for (let index = 0; index < row.length; index++) there[index] = index === one ? 1 : ratio(row[index] as number, alone);
      return alone;
    }
    const { network } = this.assembled;
    const given = presencesGiven(network, linked);
    there.set(given.presences);
    this.logTotal ??= logEvidence(network);
    return Math.exp(given.logJoint - this.logTotal);
  }
}

function ratio(part: number, whole: number): number {
  return whole > 0 ? Math.min(1, Math.max(0, part / whole)) : 0;
}

function bits(set: number): number {
  let count = 0;
  for (let rest = set; rest; rest &= rest - 1) count++;
  return count;
}

/** Entropy of a yes-or-no of this probability, in bits. */
export function entropy(probability: number): number {
  if (probability <= 0 || probability >= 1) return 0;
  return -probability * Math.log2(probability) - (1 - probability) * Math.log2(1 - probability);
}

/** Expected fall, in bits, of the summed entropy of the causes at these places, once the figure is known. Never negative but for rounding. */
export function expectedFall(now: Float64Array, { positive, ifPositive, ifNegative }: Outlook, places: readonly number[]): number {
  let fall = 0;
  for (const place of places) {
    fall += entropy(now[place] as number);
    fall -= positive * entropy(ifPositive[place] as number) + (1 - positive) * entropy(ifNegative[place] as number);
  }
  return fall;
}

/**
 * The causes a check should be judged by: those that can show a symptom of `open`; all of them when no symptom is there.
 * Summing over everything instead sends a mechanic to the tyres for a hot spindle.
 */
export function boundToComplaint(knowledge: Knowledge, open: readonly SymptomId[]): CauseId[] {
  if (open.length === 0) return knowledge.causes.map(({ id }) => id);
  return knowledge.causes.filter(({ links }) => links.some(({ symptom }) => open.includes(symptom))).map(({ id }) => id);
}

export type Gain = { check: CheckId; bits: number };

/**
 * What each of these checks is expected to tell about the bound causes, in bits: figure by figure, added. Figures of one check seldom
 * speak to the same causes; how far the sum strays from all figures together is measured in the tests.
 */
export function gainsOf(prospect: Prospect, checks: readonly KnownCheck[], bound: readonly CauseId[]): Gain[] {
  const places = bound.map((id) => prospect.causes.indexOf(id)).filter((place) => place >= 0);
  return checks.map((check) => ({
    check: check.id,
    bits: check.figures.reduce((sum, figure) => sum + Math.max(0, expectedFall(prospect.now, prospect.outlook(figure, check), places)), 0),
  }));
}
