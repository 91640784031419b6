import type { Evidence, Finding, Verdict } from "@/core/basics/findings";
import type { CauseId, CheckId, CheckRow } from "@/core/catalogue";
import { featuresOf, kindById } from "@/core/catalogue/kinds";
import { knowledgeOf } from "@/core/diagnosis";
import type { Machine } from "@/core/machine";
import { worksheetsFor } from "./registry";
import { settled } from "./settled";
import type { Assessment } from "./types";

/** What a look without measuring tells of a cause. */
export const LOOK_RESULTS = ["seen", "suspect", "not-found", "unclear"] as const;
export type LookResult = (typeof LOOK_RESULTS)[number];
export type Looked = { cause: string; result: LookResult };
export type LookDetail = { note: string; each: Looked[] };

/** Seen, these are not run with, whoever looked and however; the worksheets that measure them stop likewise. Common practice. */
export const STOPS_WHEN_SEEN: readonly CauseId[] = [
  "blade-loose",
  "blade-bent",
  "crankshaft-bent",
  "key-sheared",
  "gear-teeth-broken",
  "gearbox-pin-sheared",
  "gearbox-mistimed",
];

const VERDICT_OF: Record<LookResult, Verdict> = {
  seen: "out",
  suspect: "watch",
  "not-found": "in-tolerance",
  unclear: "not-enough-readings",
};

/** A look has no places: of the whole machine, one cause is told at a time. */
export const LOOK_PLACE = "machine";

/**
 * A check that was only looked at, as an assessment: `ruleVersion` 0, one finding a cause. Where this machine has a worksheet for it the
 * result is provisional. With no cause named, `otherwise` is all that is known.
 */
export function assessLook(args: {
  machine: Machine;
  row: CheckRow;
  each: readonly Looked[];
  otherwise: LookResult;
  note: string;
}): Assessment<LookDetail> {
  const { machine, row, each, otherwise, note } = args;
  const findings = each.map(findingOf);
  const verdicts = findings.length === 0 ? [{ place: LOOK_PLACE, code: otherwise, verdict: VERDICT_OF[otherwise] }] : findings;
  const hasSheet = worksheetsFor(machine).some(({ id }) => id === row.id);
  return {
    check: row.id as CheckId,
    ruleVersion: 0,
    ...settled({
      check: row.id,
      findings: verdicts,
      evidence: evidenceOf(machine, row.id, each),
      told: each.flatMap(({ cause, result }) => (result === "unclear" ? [] : [`${LOOK_PLACE}#${cause}`])),
      isComplete: !verdicts.some(({ verdict }) => verdict === "not-enough-readings"),
    }),
    provisional: hasSheet ? [{ code: "only-looked-at" }] : [],
    figures: [],
    actions: [],
    warnings: [],
    detail: { note, each: [...each] },
  };
}

function findingOf({ cause, result }: Looked): Finding {
  const isStop = result === "seen" && (STOPS_WHEN_SEEN as readonly string[]).includes(cause);
  const causes = result === "seen" || result === "suspect" ? [{ cause, result }] : [];
  return { place: LOOK_PLACE, on: cause, code: result, verdict: isStop ? "stop" : VERDICT_OF[result], causes };
}

/** Several suspected by one figure of a check are one piece of evidence: one reading must not count once for each. */
function evidenceOf(machine: Machine, checkId: string, found: readonly Looked[]): Evidence[] {
  const knowledge = knowledgeOf({ cutsWith: kindById(machine.kind).cutsWith, features: featuresOf(machine) });
  const figures: readonly (readonly string[])[] = knowledge.checks.find(({ id }) => id === checkId)?.figures ?? [];
  const shared = figures
    .map((figure) => found.filter(({ cause, result }) => result === "suspect" && figure.includes(cause)).map(({ cause }) => cause))
    .filter(({ length }) => length > 1);
  const alone = found.filter(({ cause }) => !shared.flat().includes(cause));
  return [
    ...shared.map((causes) => ({ check: checkId, causes, result: "suspect" as const })),
    ...alone.map(({ cause, result }) => ({ check: checkId, cause, result })),
  ];
}
