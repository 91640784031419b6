import * as z from "zod";
import { CAUSES, CHECKS, type CheckId, CONTEXTS, type ContextId, SYMPTOMS, type SymptomId } from "@/core/catalogue";
import { FEATURE_IDS, type FeatureId } from "@/core/catalogue/kinds";
import type { Case } from "./case";
import { contradictionIn } from "./context";
import { diagnose, type RankedCause } from "./diagnose";
import { allFeatures, knowledgeOf } from "./knowledge";
import { MOST_FINDINGS } from "./network";
import { planChecks } from "./next-checks";

const RESULTS = ["seen", "suspect", "not-found", "unclear"] as const;
const id = z.string().min(1).max(60);

/** Places that were read, where one of them alone points at it. */
const onePlaceOf = z.number().int().min(1).max(60).optional();

/** Evidence as `assess` returns it. A measured ratio may name its check, so that a later reading of it replaces this one. */
export const evidenceSchema = z.union([
  z.object({ check: id, causes: z.array(id).min(1).max(10), result: z.literal("suspect"), onePlaceOf }).strict(),
  z.object({ check: id, cause: id, result: z.enum(RESULTS), onePlaceOf }).strict(),
  z.object({ check: id.optional(), cause: id, likelihoodRatio: z.number().positive().max(1e6) }).strict(),
]);

const STATES = ["running", "parked", "locked-out", "raised", "bench"] as const;

export const diagnoseRequestSchema = z.object({
  kind: z.enum(["rotary", "reel"]),
  features: z.array(z.string()).max(40).optional(),
  symptoms: z.record(z.string(), z.enum(["present", "denied"])).default({}),
  context: z.array(z.string()).max(60).default([]),
  /** Asked, and not so. */
  deniedContext: z.array(z.string()).max(60).default([]),
  evidence: z.array(evidenceSchema).max(300).default([]),
  state: z.enum(STATES).default("parked"),
  done: z.array(z.string()).max(100).default([]),
  stale: z.array(z.string()).max(100).default([]),
  order: z.enum(["information", "walk-round"]).default("information"),
});

export type DiagnoseRequest = z.output<typeof diagnoseRequestSchema>;
export type RequestIssue = { code: string; path: (string | number)[]; [detail: string]: unknown };

export type DiagnoseAnswer = {
  causes: AnsweredCause[];
  alsoWorthALook: AnsweredCause[];
  nextChecks: { id: string; label: string; minutes: number; bitsPerMinute: number; waitsFor: string[]; again?: string[] }[];
  unexplained: string[];
  operationProbability: number;
};

type AnsweredCause = Pick<RankedCause, "id" | "label" | "probability" | "presence" | "reasons" | "rivalOf">;

export type DiagnoseOutcome = { kind: "answered"; answer: DiagnoseAnswer } | { kind: "invalid"; issues: RequestIssue[] };

const labelOf = new Map<string, string>([...SYMPTOMS, ...CONTEXTS, ...CHECKS].map(({ id: known, label }) => [known, label]));

/**
 * The diagnosis as the public API gives it: probabilities 0 to 1, causes by falling probability; minutes with the set-up a check brings
 * in this order. Unknown ids, ids of the other kind, contradictory contexts and too many symptoms come back as issues that name them.
 */
export function answerDiagnose(request: DiagnoseRequest): DiagnoseOutcome {
  const issues = issuesOf(request);
  if (issues.length > 0) return { kind: "invalid", issues };
  const features = (request.features as FeatureId[] | undefined) ?? allFeatures(request.kind);
  const knowledge = knowledgeOf({ cutsWith: request.kind, features });
  const given: Case = {
    symptoms: request.symptoms as Case["symptoms"],
    context: [...new Set(request.context)] as ContextId[],
    deniedContext: [...new Set(request.deniedContext)] as ContextId[],
    evidence: request.evidence.map(withoutEmptyCheck),
    stale: request.stale as CheckId[],
  };
  const diagnosis = diagnose(knowledge, given);
  const plan = planChecks({ knowledge, given, diagnosis, state: request.state, done: request.done as CheckId[], order: request.order });
  return {
    kind: "answered",
    answer: {
      causes: diagnosis.causes.map(answered),
      alsoWorthALook: diagnosis.alsoWorthALook.map(answered),
      nextChecks: plan.checks.map(({ id: check, label, minutes, bitsPerMinute, waitsFor, again }) => ({
        id: check,
        label,
        minutes,
        bitsPerMinute,
        waitsFor,
        ...(again ? { again } : {}),
      })),
      unexplained: diagnosis.symptoms.filter(({ status }) => status === "nothing-explains").map(({ id: symptom }) => symptom),
      operationProbability: diagnosis.operationProbability,
    },
  };
}

function withoutEmptyCheck(evidence: DiagnoseRequest["evidence"][number]): Case["evidence"][number] {
  if (!("likelihoodRatio" in evidence) || evidence.check !== undefined) return evidence as Case["evidence"][number];
  return { cause: evidence.cause, likelihoodRatio: evidence.likelihoodRatio };
}

function answered({ id: cause, label, probability, presence, reasons, rivalOf }: RankedCause): AnsweredCause {
  const told = reasons.map((reason) => ({ ...reason, label: sourceLabel(reason) }));
  return { id: cause, label, probability, presence, reasons: told, ...(rivalOf ? { rivalOf } : {}) };
}

function sourceLabel(reason: RankedCause["reasons"][number]): string {
  if (reason.kind === "place") return "Where it shows in the swath";
  const named = reason.kind === "evidence" ? reason.check : reason.id;
  return labelOf.get(named ?? "") ?? "A measured figure";
}

function issuesOf(request: DiagnoseRequest): RequestIssue[] {
  const { kind } = request;
  const ofKind = <T extends { id: string; on: readonly string[] }>(rows: readonly T[]) => ({
    all: rows.map((row) => row.id),
    here: rows.filter(({ on }) => on.includes(kind)).map((row) => row.id),
  });
  const symptoms = ofKind(SYMPTOMS);
  const checks = ofKind(CHECKS);
  const causes = ofKind(CAUSES);
  const every = (known: readonly string[]) => ({ all: known, here: known });
  const judge = (name: string, path: (string | number)[], known: { all: readonly string[]; here: readonly string[] }): RequestIssue[] => {
    if (!known.all.includes(name)) return [{ code: "unknown-id", path, id: name }];
    return known.here.includes(name) ? [] : [{ code: "not-on-this-kind", path, id: name, kind }];
  };
  const list = (field: string, names: readonly string[], known: { all: readonly string[]; here: readonly string[] }) =>
    names.flatMap((name, index) => judge(name, [field, index], known));
  const evidence = request.evidence.flatMap((one, index) => [
    ...("check" in one && one.check !== undefined ? judge(one.check, ["evidence", index, "check"], checks) : []),
    ...("causes" in one
      ? one.causes.flatMap((cause, at) => judge(cause, ["evidence", index, "causes", at], causes))
      : judge(one.cause, ["evidence", index, "cause"], causes)),
  ]);
  return [
    ...list("features", request.features ?? [], every(FEATURE_IDS)),
    ...Object.keys(request.symptoms).flatMap((name) => judge(name, ["symptoms", name], symptoms)),
    ...list("context", request.context, every(CONTEXTS.map(({ id: context }) => context))),
    ...list("deniedContext", request.deniedContext, every(CONTEXTS.map(({ id: context }) => context))),
    ...evidence,
    ...list("done", request.done, checks),
    ...list("stale", request.stale, checks),
    ...contradictions(request.context),
    ...tooMany(request),
  ];
}

function contradictions(context: readonly string[]): RequestIssue[] {
  const pair = contradictionIn(context);
  return pair ? [{ code: "contradictory-contexts", path: ["context"], ids: [...pair] }] : [];
}

function tooMany({ symptoms, evidence }: DiagnoseRequest): RequestIssue[] {
  const present = (Object.keys(symptoms) as SymptomId[]).filter((symptom) => symptoms[symptom] === "present").length;
  const shared = evidence.filter((one) => "causes" in one && one.causes.length > 1).length;
  return present + shared > MOST_FINDINGS
    ? [{ code: "too-many-present", path: ["symptoms"], most: MOST_FINDINGS, given: present + shared }]
    : [];
}
