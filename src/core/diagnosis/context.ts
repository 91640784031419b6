import type { ContextId } from "@/core/catalogue";
import type { KnownCause } from "./knowledge";

/** Several things that changed on one day are not told twice: the most that contexts together raise a cause by. Estimate. */
export const MOST_FROM_CONTEXT = 15;
/** Every machine on this turf does it: what is wrong with this one machine becomes less likely. Estimate. */
const MACHINE_WHEN_ALL = 0.2;
const WET_WHEN_ALL = 3;
/** The others cut the same turf well: what lies in turf or operation becomes less likely. Estimate. */
const OPERATION_WHEN_ONE = 0.3;

const EXCLUSIVE: readonly [ContextId, ContextId] = ["one-machine-only", "all-machines"];

/** The two that cannot both be true, if both are there. */
export function contradictionIn(contexts: readonly string[]): readonly [ContextId, ContextId] | undefined {
  return EXCLUSIVE.every((context) => contexts.includes(context)) ? EXCLUSIVE : undefined;
}

/**
 * What the contexts multiply a cause's odds by. Of several factors above 1 the largest counts in full and the others as their square
 * root, together at most 15; factors below 1 count in full. Estimate.
 */
export function contextFactor(cause: KnownCause, contexts: readonly ContextId[], denied: readonly ContextId[] = []): number {
  const factors = contexts.map((context) => single(cause, context));
  const raising = factors.filter((factor) => factor > 1).sort((a, b) => b - a);
  const raised = raising.reduce((product, factor, rank) => product * (rank === 0 ? factor : Math.sqrt(factor)), 1);
  const lowered = factors.filter((factor) => factor < 1).reduce((product, factor) => product * factor, 1);
  const isElsewhere = cause.onlyWhen !== undefined && denied.includes(cause.onlyWhen) && !contexts.includes(cause.onlyWhen);
  return Math.min(raised, MOST_FROM_CONTEXT) * lowered * (isElsewhere ? WHEN_ELSEWHERE : deniedFactor(cause, contexts, denied));
}

/** How often something of the list changed lately, where nobody has said yet. Estimate. */
export const CONTEXT_RATE = 0.08;
/** Half of the sites are mown back and forth; of a fleet the others mostly mow well, and seldom all badly. Estimates. */
const RATES: Partial<Record<ContextId, number>> = { "mown-up-and-down": 0.5, "one-machine-only": 0.3, "all-machines": 0.1 };
export const rateOf = (context: ContextId): number => RATES[context] ?? CONTEXT_RATE;
/** It was asked whether it shows only where this cause can show, and it shows everywhere; people misjudge where. Estimate. */
const WHEN_ELSEWHERE = 0.05;
/** However much was denied: people forget. Estimate. */
const LEAST_WHEN_DENIED = 0.1;

/**
 * What did not happen speaks against what mostly follows from it: of a cause that it makes `f` times likelier a share `f × rate` had it happen
 * before (Bayes, rates as of the unsaid), so its not happening leaves `(1 − f × rate) / (1 − rate)`.
 */
function deniedFactor(cause: KnownCause, contexts: readonly ContextId[], denied: readonly ContextId[]): number {
  const factors = denied
    .filter((context) => !contexts.includes(context) && !EXCLUSIVE.includes(context))
    .map((context) => {
      const [factor, rate] = [single(cause, context), rateOf(context)];
      return factor > 1 ? Math.max(LEAST_WHEN_DENIED, (1 - Math.min(1, factor * rate)) / (1 - rate)) : 1;
    });
  return Math.max(
    LEAST_WHEN_DENIED,
    factors.reduce((product, factor) => product * factor, 1),
  );
}

function single(cause: KnownCause, context: ContextId): number {
  if (context === "all-machines") return allMachines(cause);
  if (context === "one-machine-only") return cause.group === "machine" ? 1 : OPERATION_WHEN_ONE;
  return cause.oddsWhen[context] ?? 1;
}

function allMachines(cause: KnownCause): number {
  if (cause.id === "too-wet-or-tall") return WET_WHEN_ALL;
  return cause.group === "machine" ? MACHINE_WHEN_ALL : 1;
}
