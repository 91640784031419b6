import type { z } from "zod";
import type { CheckId } from "@/core/diagnosis";
import type { Evidence, Figure, ProvisionalReason, Verdict, Warning } from "@/core/findings";
import type { Machine } from "@/core/machine";

export type Action =
  | { code: "set-pressure"; place: string; fromPascals: number; toPascals: number }
  | { code: "ask-sheet-pressure"; place: string }
  | { code: "find-leak"; place: string }
  | { code: "turn-hanger"; place: string; turns: number; exactTurns: number; liftMetres: number; endsShort: boolean; slackMetres?: number }
  | { code: "read-next"; place: string; why: string }
  | { code: "block-deck" }
  | { code: "tyres-first" };

export type Assessment<Detail = unknown> = {
  check: CheckId;
  ruleVersion: number;
  verdict: Verdict;
  provisional: ProvisionalReason[];
  figures: Figure[];
  evidence: Evidence[];
  actions: Action[];
  warnings: Warning[];
  /** What the drawing needs beyond the figures; also answered by the API. */
  detail: Detail;
};

/** A check: a pure function from a machine's sheet and readings to a verdict and what lies behind it. */
export type Check<Readings = unknown, Detail = unknown> = {
  id: CheckId;
  ruleVersion: number;
  readingsSchema: z.ZodType<Readings>;
  /** What of a machine it uses, as codes, that this one lacks: empty when the check can be done. */
  missing: (machine: Machine) => string[];
  /** Readings that contradict the machine: unknown wheel, one place twice, above the moulded maximum is a verdict, not this. */
  problems: (machine: Machine, readings: Readings) => ReadingProblem[];
  assess: (machine: Machine, readings: Readings) => Assessment<Detail>;
};

export type ReadingProblem = { code: string; path: (string | number)[]; [detail: string]: unknown };
