import type { z } from "zod";
import type { Evidence, Figure, Finding, ProvisionalReason, Verdict, Warning } from "@/core/findings";
import type { Machine } from "@/core/machine";
import type { CheckId } from "@/core/trade";
import type { Form } from "./form";

export type Action =
  | { code: "set-pressure"; place: string; fromPascals: number; toPascals: number }
  | { code: "ask-sheet-pressure"; place: string }
  | { code: "find-leak"; place: string }
  | { code: "turn-hanger"; place: string; turns: number; exactTurns: number; liftMetres: number; endsShort: boolean; slackMetres?: number }
  | { code: "read-next"; place: string; why: string }
  | { code: "block-deck" }
  | { code: "tyres-first" }
  | Told;

/** Something to do that its code and details say by themselves; the interface makes the sentence. */
export type Told = { code: ToldCode; place?: string; [detail: string]: string | number | undefined };

export type ToldCode =
  | "set-height"
  | "mend-hanger"
  | "level-again"
  | "repair-shell"
  | "move-wheel"
  | "free-wheel"
  | "same-hole"
  | "scrape-deck"
  | "open-port"
  | "mend-baffle"
  | "wash-sooner"
  | "scrap-blade"
  | "swap-blade"
  | "change-shaft"
  | "hold-for-crankshaft"
  | "sharpen-set"
  | "replace-set"
  | "leave-set"
  | "turn-over"
  | "fit-right-blade"
  | "turn-washer"
  | "mend-stack"
  | "change-bolt"
  | "torque-by-wrench"
  | "re-check-bolt"
  | "ask-sheet-torque"
  | "measure-not-remember"
  | "take-off-heavy-end"
  | "replace-unbalanced"
  | "replace-short-set"
  | "wider-turns"
  | "cut-in-stages"
  | "wait-for-dry"
  | "mow-within"
  | "judge-elsewhere"
  | "vary-direction"
  | "retime"
  | "clear-winding"
  | "seat-bearing"
  | "change-bearings"
  | "photograph-belt"
  | "seat-belt"
  | "change-belt"
  | "change-spring"
  | "change-idler"
  | "guards-on"
  | "drive-slower"
  | "drive-faster"
  | "full-throttle"
  | "closer-passes"
  | "wider-passes"
  | "mark-the-edge"
  | "turn-wider"
  | "rebuild-box"
  | "change-pin"
  | "change-seal"
  | "change-oil"
  | "fill-oil"
  | "let-oil-out"
  | "oil-again"
  | "look-at-engine"
  | "look-at-wheels"
  | "look-at-blades"
  | "grease-spindle"
  | "belt-of-length"
  | "look-for-load"
  | "charge-sooner";

/** What was found at one place, for the drawing. */
export type Mark = { place: string; verdict: Verdict; code?: string };

export type Assessment<Detail = unknown> = {
  check: CheckId;
  ruleVersion: number;
  verdict: Verdict;
  provisional: ProvisionalReason[];
  figures: Figure[];
  evidence: Evidence[];
  actions: Action[];
  warnings: Warning[];
  /** Everything found, as many things a place as there are; verdict, marks and evidence follow from it. */
  findings: Finding[];
  /** Places read in full (with `#` and what of it was read, where a place is read in two ways): only they clear what was found there. */
  told: string[];
  /** The findings for the drawing, gravest first. */
  marks: Mark[];
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
  /** What to read and answer, in the order of the work; what is asked may hang on what was answered so far. */
  form?: (machine: Machine, soFar: unknown) => Form;
  /** Whether these readings were worked out without going near the machine: its safe state does not matter to them. */
  isOnPaper?: (readings: Readings) => boolean;
};

export type ReadingProblem = { code: string; path: (string | number)[]; [detail: string]: unknown };
