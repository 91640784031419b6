import type { z } from "zod";
import { unknownKeys } from "@/core/basics/validation";
import { CHECKS, type CheckRow } from "@/core/catalogue";
import { everyFeature, featuresOf, KINDS, kindById, meetsNeed } from "@/core/catalogue/kinds";
import { type Machine, machineSchema } from "@/core/machine";
import type { Assessment, Check, ReadingProblem } from "./types";

export function checkRow(id: string): CheckRow | undefined {
  const rows: readonly CheckRow[] = CHECKS;
  return rows.find((row) => row.id === id);
}

/** Whether this machine, by what it cuts with and its features, can have this check at all. */
export function isOffered(row: CheckRow, machine: Pick<Machine, "kind" | "features">): boolean {
  return row.on.includes(kindById(machine.kind).cutsWith) && meetsNeed(featuresOf(machine), row.needs);
}

/** Ids of the kinds whose usual or possible features allow the check. */
export function kindsFor(row: CheckRow): string[] {
  return KINDS.filter((kind) => row.on.includes(kind.cutsWith) && meetsNeed(everyFeature(kind), row.needs)).map(({ id }) => id);
}

export type AssessOutcome =
  | { kind: "assessed"; machine: Machine; assessment: Assessment }
  | { kind: "unknown-check" }
  | { kind: "invalid"; issues: ReadingProblem[] };

/** What a value was to keep within. */
function limitsOf(detail: object): { of?: string; least?: number; most?: number } {
  const { minimum, maximum, origin } = detail as { minimum?: unknown; maximum?: unknown; origin?: unknown };
  return {
    ...(typeof origin === "string" ? { of: origin } : {}),
    ...(typeof minimum === "number" ? { least: minimum } : {}),
    ...(typeof maximum === "number" ? { most: maximum } : {}),
  };
}

function zodProblems(error: z.ZodError, root: string): ReadingProblem[] {
  // A schema's own words are codes already.
  return error.issues.map(({ code, path, message, ...detail }) => ({
    ...limitsOf(detail),
    code: code === "custom" ? message : code.replaceAll("_", "-"),
    path: [root, ...path.map(String)],
    message,
  }));
}

const parsedReadings = (check: Check, readings: unknown) => {
  const parsed = check.readingsSchema.safeParse(readings);
  if (!parsed.success) return { ok: false as const, issues: zodProblems(parsed.error, "readings") };
  const unknown = unknownKeys(readings, parsed.data, ["readings"]).filter(
    ({ path: [, key = "", ...deeper] }) => deeper.length > 0 || !check.olderKeys?.includes(key),
  );
  return unknown.length > 0 ? { ok: false as const, issues: unknown } : { ok: true as const, readings: parsed.data };
};

/** What somebody sent as a check's readings, by itself: in today's form, or why it is none. What a record adds to it later hides nothing of it. */
export function readingsAlone(check: Check, readings: unknown): { ok: true; readings: unknown } | { ok: false; issues: ReadingProblem[] } {
  return parsedReadings(check, readings);
}

/** Where in what was reckoned a number is none: divided by nothing, or grown past every bound. It would be kept as nothing at all. */
function endlessIn(value: unknown, path: readonly string[] = []): readonly string[] | undefined {
  if (typeof value === "number") return Number.isFinite(value) ? undefined : path;
  if (typeof value !== "object" || value === null) return undefined;
  for (const [key, inner] of Object.entries(value)) {
    const found = endlessIn(inner, [...path, key]);
    if (found) return found;
  }
  return undefined;
}

/**
 * The one way to a verdict: parses machine and readings (SI), refuses what a machine does not have, then assesses.
 * Pure; the same on server, in the browser and behind the API.
 */
export function assessWith(check: Check, input: { machine: unknown; readings: unknown }): AssessOutcome {
  const row = checkRow(check.id);
  if (!row) return { kind: "unknown-check" };
  const machine = machineSchema.safeParse(input.machine);
  const readings = parsedReadings(check, input.readings);
  const parsing = [...(machine.success ? [] : zodProblems(machine.error, "machine")), ...(readings.ok ? [] : readings.issues)];
  if (!machine.success || !readings.ok) return { kind: "invalid", issues: parsing };
  const unknown = unknownKeys(input.machine, machine.data, ["machine"]);
  if (unknown.length > 0) return { kind: "invalid", issues: unknown };
  if (!isOffered(row, machine.data))
    return { kind: "invalid", issues: [{ code: "check-not-for-this-machine", path: ["machine", "kind"] }] };
  const missing = check.missing(machine.data);
  if (missing.length > 0) return { kind: "invalid", issues: missing.map((code) => ({ code, path: ["machine"] })) };
  const problems = check.problems(machine.data, readings.readings);
  if (problems.length > 0)
    return { kind: "invalid", issues: problems.map((problem) => ({ ...problem, path: ["readings", ...problem.path] })) };
  const assessment = check.assess(machine.data, readings.readings);
  const endless = endlessIn(assessment);
  if (endless) return { kind: "invalid", issues: [{ code: "cannot-be-reckoned", path: ["machine"], at: endless.join(".") }] };
  return { kind: "assessed", machine: machine.data, assessment };
}
