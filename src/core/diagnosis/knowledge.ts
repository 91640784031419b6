import {
  CAUSES,
  type CauseId,
  type CauseRow,
  CHECKS,
  type CheckId,
  type CheckRow,
  type CheckState,
  type ContextId,
  FIGURES,
  type Prior,
  RIVALS,
  type Strength,
  SYMPTOMS,
  type SymptomId,
} from "@/core/catalogue";
import { type CutsWith, everyFeature, type FeatureId, KINDS, meetsNeed } from "@/core/catalogue/kinds";

/** Whether it is mended on the machine, or with a word to the operator, or is the ground's own. */
export type CauseGroup = "machine" | "operation" | "turf";

export type KnownCause = {
  id: CauseId;
  label: string;
  group: CauseGroup;
  /** Probability of its being there before anything is known of the machine. */
  prior: number;
  /** Probability that, being there, it shows the symptom. */
  links: readonly { symptom: SymptomId; probability: number; hardlyWhen?: ContextId }[];
  /** Shows at most one of these. */
  oneOf: readonly SymptomId[];
  oddsWhen: Partial<Record<ContextId, number>>;
  /** Shows nowhere else. */
  onlyWhen?: ContextId;
  /** In no table: stands for whatever else moves a figure. Nothing is mended by it; it says where to look when the listed causes are through. */
  rivalOf?: CauseId;
};

export type KnownCheck = {
  id: CheckId;
  label: string;
  minutes: number;
  state: CheckState;
  sensitivity: number;
  specificity: number;
  /** Place in the fixed walk-round. */
  place: number;
  /** What it reads, figure by figure: the causes each figure speaks to. */
  figures: readonly (readonly CauseId[])[];
};

export type Knowledge = {
  cutsWith: CutsWith;
  symptoms: readonly SymptomId[];
  causes: readonly KnownCause[];
  checks: readonly KnownCheck[];
  /** Probability that a symptom is seen with no listed cause. */
  leak: number;
};

/** Estimates to start from, as all of this. */
export const PRIORS: Record<Prior, number> = { common: 0.1, occasional: 0.04, rare: 0.012 };
export const STRENGTHS: Record<Exclude<Strength, number>, number> = { strong: 0.8, moderate: 0.45, weak: 0.15 };
export const LEAK = 0.01;

const OPERATION: readonly string[] = [
  "ground-speed-high",
  "ground-speed-low",
  "pass-overlap-small",
  "turn-too-tight",
  "clip-too-long",
  "clip-too-short",
  "too-wet-or-tall",
  "same-direction",
];
const TURF: readonly string[] = ["ground-undulates", "thatch-build-up", "roller-overlap"];

export function groupOf(cause: string): CauseGroup {
  if (OPERATION.includes(cause)) return "operation";
  return TURF.includes(cause) ? "turf" : "machine";
}

const causeRows: readonly CauseRow[] = CAUSES;
const checkRows: readonly CheckRow[] = CHECKS;

/**
 * The one place the diagnosis gets its priors, links and checks from: what can be wrong with, seen on, and looked at on a machine that
 * cuts so and has these features. A shop's own closed jobs may one day replace the estimates here and nowhere else.
 */
export function knowledgeOf(args: { cutsWith: CutsWith; features: readonly FeatureId[] }): Knowledge {
  const known = `${args.cutsWith}:${[...args.features].sort().join(",")}`;
  const kept = memo.get(known);
  if (kept) return kept;
  const knowledge = build(args);
  memo.set(known, knowledge);
  return knowledge;
}

const memo = new Map<string, Knowledge>();

function build({ cutsWith, features }: { cutsWith: CutsWith; features: readonly FeatureId[] }): Knowledge {
  const exists = (row: { on: readonly CutsWith[]; needs: CauseRow["needs"] }) =>
    row.on.includes(cutsWith) && meetsNeed(features, row.needs);
  // What is only said in words shows nothing that could be reckoned with.
  const causes = causeRows.filter((row) => exists(row) && row.shows.length > 0);
  return {
    cutsWith,
    symptoms: SYMPTOMS.filter(({ on }) => (on as readonly CutsWith[]).includes(cutsWith)).map(({ id }) => id),
    causes: withRivals(
      causes.map((row) => knownCause(row, cutsWith, features)),
      cutsWith,
    ),
    checks: checkRows.filter(exists).map((row) => knownCheck(row, cutsWith, causes)),
    leak: LEAK,
  };
}

/** What is in no table and moves a figure as a listed cause does. */
function withRivals(causes: readonly KnownCause[], cutsWith: CutsWith): KnownCause[] {
  const rivals = RIVALS.filter(({ on }) => on === cutsWith).flatMap(({ id, label, like, prior }): KnownCause[] => {
    const listed = causes.find((cause) => cause.id === like);
    return listed ? [{ ...listed, id: id as CauseId, label, prior, oddsWhen: {}, rivalOf: like }] : [];
  });
  return [...causes, ...rivals];
}

function knownCause(row: CauseRow, cutsWith: CutsWith, features: readonly FeatureId[]): KnownCause {
  const id = row.id as CauseId;
  const links = row.shows
    .filter(({ on, without }) => (on === undefined || on === cutsWith) && !(without && features.includes(without)))
    .map(({ symptom, strength, hardlyWhen }) => ({
      symptom,
      probability: typeof strength === "number" ? strength : STRENGTHS[strength],
      ...(hardlyWhen ? { hardlyWhen } : {}),
    }));
  return {
    id,
    label: row.label,
    group: groupOf(id),
    prior: PRIORS[row.prior],
    links,
    oneOf: (row.oneOf ?? []).filter((symptom) => links.some((link) => link.symptom === symptom)),
    oddsWhen: row.oddsWhen,
    ...(row.onlyWhen ? { onlyWhen: row.onlyWhen } : {}),
  };
}

function knownCheck(row: CheckRow, cutsWith: CutsWith, causes: readonly CauseRow[]): KnownCheck {
  const id = row.id as CheckId;
  const spokenTo = causes.filter(({ checks }) => checks.includes(id)).map((cause) => cause.id as CauseId);
  const shared = (FIGURES[id] ?? []).map((figure) => figure.filter((cause) => spokenTo.includes(cause))).filter(({ length }) => length > 0);
  const alone = spokenTo.filter((cause) => !shared.flat().includes(cause)).map((cause) => [cause]);
  const { label, minutes, state, sensitivity, specificity } = row;
  return { id, label, minutes, state, sensitivity, specificity, place: row.place[cutsWith] ?? 99, figures: [...shared, ...alone] };
}

/** What a machine has that only takes symptoms away. */
const TAKES_AWAY = new Set(causeRows.flatMap(({ shows }) => shows.flatMap(({ without }) => without ?? [])));

/** Every feature a machine that cuts so may have, but for those that rule something out. */
export function allFeatures(cutsWith: CutsWith): FeatureId[] {
  const every = KINDS.filter((kind) => kind.cutsWith === cutsWith).flatMap(everyFeature);
  return [...new Set(every)].filter((feature) => !TAKES_AWAY.has(feature));
}
