import type { z } from "zod";
import type { Evidence, Figure, Finding, Verdict } from "@/core/basics/findings";
import type { Caution, CheckId, EventId } from "@/core/catalogue";
import type { Machine } from "@/core/machine";
import type { Form } from "./form";

/** What is said by a code, with the details its words need. */
export type Said = { code: string; place?: string };

/** As it is read from the record or handed to anyone who knows no check by name. */
export type Told = { code: string; place?: string; [detail: string]: string | number | boolean | undefined };

/**
 * The codes of one check, each kind a union tagged by its code: what to do, remarks, why it is only provisional, and what readings it refuses.
 * A word or a detail that is missing does not compile.
 */
export type Saying = { action?: Said; warning?: Said; provisional?: Said; problem?: Said };
type AnySaying = { action: Told; warning: Told; provisional: Told; problem: Told };
/** The codes of one kind; none where the check has none of that kind. */
export type Of<S, Kind extends keyof Saying> = S extends { [K in Kind]: infer Codes } ? Codes : never;

export type Action = Told;

/** What was found at one place, for the drawing. */
export type Mark = { place: string; verdict: Verdict; code?: string };

export type Assessment<Detail = unknown, S = AnySaying> = {
  check: CheckId;
  ruleVersion: number;
  verdict: Verdict;
  provisional: Of<S, "provisional">[];
  figures: Figure[];
  evidence: Evidence[];
  actions: Of<S, "action">[];
  warnings: Of<S, "warning">[];
  /** Everything found, as many things a place as there are; verdict, marks and evidence follow from it. */
  findings: Finding[];
  /** Places read in full (with `#` and what of it was read, where a place is read in two ways): only they clear what was found there. */
  told: string[];
  /** The findings for the drawing, gravest first. */
  marks: Mark[];
  /** Units not read now whose readings of this job still stand, and count. */
  stands?: string[];
  /** What the drawing needs beyond the figures; also answered by the API. */
  detail: Detail;
};

/** A check: a pure function from a machine's sheet and readings to a verdict and what lies behind it. */
export type Check<Readings = unknown, Detail = unknown, S = AnySaying> = {
  id: CheckId;
  ruleVersion: number;
  readingsSchema: z.ZodType<Readings>;
  /** Names that readings of an older rule had and that are still understood. */
  olderKeys?: readonly string[];
  /** What of a machine it uses, as codes, that this one lacks: empty when the check can be done. */
  missing: (machine: Machine) => string[];
  /** Readings that contradict the machine: unknown wheel, one place twice, above the moulded maximum is a verdict, not this. */
  problems: (machine: Machine, readings: Readings) => (Of<S, "problem"> & At)[];
  assess: (machine: Machine, readings: Readings) => Assessment<Detail, S>;
  /** What to read and answer, in the order of the work; what is asked may hang on what was answered so far. */
  form?: (machine: Machine, soFar: unknown) => Form;
  /** What can hurt while it is made; shown with it every time. */
  cautions?: readonly Caution[];
  /** What the record itself brings to its readings; nobody types it. */
  wants?: Want;
  /** What of readings stays true for this machine's next: offered again. */
  keeps?: (readings: Readings) => object | undefined;
  /** By field: what was read there, and what it should read after what was to be done. SI. */
  expects?: (assessment: Assessment<Detail, S>) => Record<string, { was: number; should?: number }>;
  /** What is followed over time, as departures from what is right. */
  trend?: Trend<Detail, S>;
  /** Whether these readings were worked out without going near the machine: its safe state does not matter to them. */
  isOnPaper?: (readings: Readings) => boolean;
};

/** Where in the readings a problem lies. */
export type At = { path: (string | number)[] };

/** What a record can bring: how a level stands, units that still stand, the visits to a turf, how a site's decks were found, greasing that is due, how blades were tracked, whether a belt's path is held. */
export type Want = "level-standing" | "units-standing" | "visits" | "site-packs" | "grease-due" | "blade-tracks" | "belt-picture";

export type Trend<Detail = unknown, S = AnySaying> = {
  dimension: "length" | "pressure";
  /** A line's name where it is a place of the machine. */
  lines: (machine: Machine) => readonly { id: string; label?: string }[];
  toleranceSi: (machine: Machine) => number;
  /** Departures by line; `undefined` where a take has none. */
  values: (assessment: Assessment<Detail, S>) => Record<string, number> | undefined;
  /** What is only followed among its own kind, one at a time: the turf it was read on. */
  group?: (assessment: Assessment<Detail, S>) => string | undefined;
  /** Events from which on it is another run of figures. */
  startsAnew?: readonly EventId[];
};

export type ReadingProblem = { code: string; path: (string | number)[]; [detail: string]: unknown };
