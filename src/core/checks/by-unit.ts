import * as z from "zod";
import { type Figure, type Finding, judgeDeviation, type Standing, type Verdict } from "@/core/basics/findings";
import type { Caution, CheckId } from "@/core/catalogue";
import { kindById } from "@/core/catalogue/kinds";
import { type Machine, pointOf, type Unit, unitsAcross } from "@/core/machine";
import { type Field, type Form, readAt } from "./form";
import { isPastGauge, pointsAt, settled } from "./settled";
import type { Assessment, At, Check } from "./types";
import { unknownPlaces } from "./verdicts";

type Read = Readonly<Record<string, string | number | undefined>>;
/** `isOptional` may only point at a cause, never show it: what is not read clears nothing. */
type Common = { key: string; label: string; isOptional?: boolean; isAskedOf?: (machine: Machine, unit: Unit, read: Read) => boolean };
/** What an answer means: `Code` is what is found, `Do` what is to be done about it. */
type Means<Code extends string, Do extends string> = {
  code: Code;
  verdict: Verdict;
  causes?: Finding["causes"];
  do?: Do;
};
type ChoiceOfUnit<Code extends string, Do extends string> = Common & {
  kind: "choice";
  options: readonly { id: string; label: string; means?: Means<Code, Do> }[];
};
type SizeOfUnit<Code extends string, Do extends string> = Common & {
  kind: "size";
  figure: string;
  instrument: "tape" | "gauge" | "fine";
  range: { least: number; most: number; usualLeast?: number; usualMost?: number };
  /** The most it may be; where it hangs on the unit, by its width. */
  most: number | ((unit: Unit) => number);
  standing: Standing;
  means: Omit<Means<Code, Do>, "verdict">;
  /** Sizes that should all come out like this one: over its limit while none of the others is, it is as likely a slip, and accuses nothing. */
  alike?: readonly string[];
};
export type OfUnit<Code extends string, Do extends string> = ChoiceOfUnit<Code, Do> | SizeOfUnit<Code, Do>;

type ReadOfUnits = Record<string, Record<string, string | number | undefined>>;
export type UnitReadings = { units: ReadOfUnits; standing?: ReadOfUnits | undefined };
type AtUnit<Do extends string> = Do extends string ? { code: Do; place: string } : never;
export type UnitSays<Do extends string> = {
  action: AtUnit<Do>;
  provisional: { code: "unit-unread"; place: string };
  problem: { code: "unknown-unit"; place: string };
};

/** Readings by unit, and what the record brings of units that were read in this job and not touched since. */
export const byUnitSchema = <U extends z.ZodType>(unit: U) =>
  z.object({ units: z.record(z.string(), unit).default({}), standing: z.record(z.string(), unit).optional() });

type ByUnit = { units: Record<string, object>; standing?: Record<string, object> | undefined };

/** A unit of which anything was read now is read anew; of the others what stands counts. */
const isReadNow = (read: object | undefined): boolean => Object.values(read ?? {}).some((value) => value !== undefined);

/**
 * A check by unit that is read again only where something was done: units of which nothing was typed keep what the record says still stands of
 * them. Which they are is told.
 */
export function keepsUnits<R extends ByUnit, D, S>(check: Check<R, D, S>): Check<R, D, S> {
  return {
    ...check,
    wants: "units-standing",
    assess: (machine, readings) => {
      const stands = unitsAcross(machine).flatMap(({ id }) => (readings.standing?.[id] && !isReadNow(readings.units[id]) ? [id] : []));
      const kept = Object.fromEntries(stands.map((unit) => [unit, readings.standing?.[unit]]));
      const found = check.assess(machine, { ...readings, units: { ...readings.units, ...kept } });
      return stands.length === 0 ? found : { ...found, stands };
    },
  };
}

/** A machine without units has none of these checks. */
export const noUnits = (machine: Machine): string[] =>
  machine.units.length === 0 || kindById(machine.kind).cutsWith !== "reel" ? ["no-units"] : [];

export const unknownUnits = (machine: Machine, read: Readonly<Record<string, unknown>>): ({ code: "unknown-unit"; place: string } & At)[] =>
  unknownPlaces({ read, known: machine.units, path: "units", code: "unknown-unit" });

/** The height of cut a machine's units are to stand at, asked once for all of them. */
export const heightOfAll = ({ sheet }: Machine, group: string): Field => ({
  kind: "quantity",
  path: ["heightMetres"],
  group,
  label: "Height of cut",
  dimension: "length",
  instrument: "fine",
  range: { least: 0.001, most: 0.1, usualLeast: sheet.heightLeastMetres ?? 0.002, usualMost: sheet.heightMostMetres ?? 0.03 },
});

/** One group a unit, touched on the plan. */
export const unitGroups = (machine: Machine): Form["groups"] =>
  unitsAcross(machine).map((unit) => ({ id: unit.id, label: unit.label, at: pointOf(unit) }));

/**
 * A check that asks the same of every unit: choices and sizes, each with what it means. A cause is cleared only where everything that could show it was
 * read of every unit.
 */
export function unitCheck<Code extends string, Do extends string>(args: {
  id: CheckId;
  ruleVersion: number;
  cautions?: readonly Caution[];
  asked: readonly OfUnit<Code, Do>[];
  /** What follows from a unit's readings by its geometry. */
  reckon?: (machine: Machine, unit: Unit, read: UnitReadings["units"][string]) => Figure[];
}): Check<UnitReadings, { read: number }, UnitSays<Do>> {
  const { id, ruleVersion, cautions, asked, reckon } = args;
  // What was read counts, whether or not another answer made it worth asking.
  const askedOf = (machine: Machine, unit: Unit, read: Read) =>
    asked.filter(({ key, isAskedOf }) => read[key] !== undefined || (isAskedOf?.(machine, unit, read) ?? true));
  const schema = byUnitSchema(
    z.object(
      Object.fromEntries(
        asked.map((one) => [
          one.key,
          one.kind === "choice"
            ? z.enum(one.options.map((option) => option.id) as [string, ...string[]]).optional()
            : z.number().min(one.range.least).max(one.range.most).optional(),
        ]),
      ),
    ),
  ) as unknown as z.ZodType<UnitReadings>;

  const findingsAt = (machine: Machine, unit: Unit, read: UnitReadings["units"][string]): (Finding & { do?: Do })[] => {
    const own = askedOf(machine, unit, read);
    const off = onceEach(own.flatMap((one) => meant(one, unit, read))).map((means) => ({ place: unit.id, ...means }));
    return off.length === 0 && isTold(own, read) ? [{ place: unit.id, code: "sound", verdict: "in-tolerance" }] : off;
  };

  const assess = (machine: Machine, { units }: UnitReadings): Assessment<{ read: number }, UnitSays<Do>> => {
    const across = unitsAcross(machine);
    const told = across.filter((unit) => isTold(askedOf(machine, unit, units[unit.id] ?? {}), units[unit.id] ?? {}));
    const findings = across.flatMap((unit) => findingsAt(machine, unit, units[unit.id] ?? {}));
    const unread = across.filter((unit) => !told.includes(unit));
    return {
      check: id,
      ruleVersion,
      ...settled({
        check: id,
        findings: findings.map(({ do: _, ...finding }) => finding),
        clears: clearsOf(asked, (one) =>
          across.every(
            (unit) => one.isAskedOf?.(machine, unit, units[unit.id] ?? {}) === false || isClear(one, unit, units[unit.id] ?? {}),
          ),
        ),
        told: told.map((unit) => unit.id),
        isComplete: unread.length === 0,
      }),
      provisional: unread.map((unit) => ({ code: "unit-unread" as const, place: unit.id })),
      figures: across.flatMap((unit) => [
        ...askedOf(machine, unit, units[unit.id] ?? {}).flatMap((one) => figureOf(one, unit, units[unit.id]?.[one.key])),
        ...(reckon?.(machine, unit, units[unit.id] ?? {}) ?? []),
      ]),
      actions: across.flatMap(({ id: place }) =>
        [...new Set(findings.flatMap((one) => (one.place === place && one.do !== undefined ? [one.do] : [])))].map(
          (code) => ({ code, place }) as AtUnit<Do>,
        ),
      ),
      warnings: [],
      detail: { read: told.length },
    };
  };

  return keepsUnits({
    id,
    ruleVersion,
    ...(cautions ? { cautions } : {}),
    readingsSchema: schema,
    missing: noUnits,
    problems: (machine, { units }) => unknownUnits(machine, units),
    form: (machine, soFar) => ({
      groups: unitGroups(machine),
      fields: unitsAcross(machine).flatMap((unit) =>
        askedOf(machine, unit, (readAt(soFar, ["units", unit.id]) ?? {}) as Read).map((one) => fieldOf(one, unit.id)),
      ),
    }),
    assess,
  });
}

type Any = OfUnit<string, string>;

function fieldOf(one: Any, unit: string): Field {
  const common = {
    path: ["units", unit, one.key],
    group: unit,
    label: one.label,
    ...(one.isOptional ? { isOptional: true } : {}),
  };
  if (one.kind === "choice") return { ...common, kind: "choice", options: one.options.map(({ id, label }) => ({ id, label })) };
  return { ...common, kind: "quantity", dimension: "length", instrument: one.instrument, range: one.range };
}

const isTold = (asked: readonly Any[], read: Readonly<Record<string, unknown>>): boolean =>
  asked.every(({ key, isOptional }) => isOptional === true || read[key] !== undefined);

const mostOf = ({ most }: SizeOfUnit<string, string>, unit: Unit): number => (typeof most === "number" ? most : most(unit));

function judged(one: SizeOfUnit<string, string>, unit: Unit, value: number): Verdict {
  return judgeDeviation({ deviation: Math.max(0, value), tolerance: mostOf(one, unit) });
}

/**
 * Read, and neither so near its limit that a gauge might say either, unless all that should be alike are well within it; nor a slip that was not
 * cleared up: those accuse nothing and clear nothing.
 */
function isClear(one: Any, unit: Unit, read: Read): boolean {
  const value = read[one.key];
  if (value === undefined) return false;
  if (one.kind === "choice") return true;
  const others = othersOf(one, unit, read);
  if (judged(one, unit, Number(value)) === "out") return !isAlone(one, unit, read);
  return judged(one, unit, Number(value)) !== "watch" || (others.length > 0 && others.every((verdict) => verdict === "in-tolerance"));
}

/** What an answer means: nothing where it is as it should be. A size near its limit is watched and accuses nothing. */
function meant<Code extends string, Do extends string>(
  one: OfUnit<Code, Do>,
  unit: Unit,
  read: Read,
): (Omit<Finding, "place"> & { do?: Do })[] {
  const value = read[one.key];
  if (value === undefined) return [];
  if (one.kind === "choice") {
    const means = one.options.find(({ id }) => id === value)?.means;
    return means ? [means] : [];
  }
  const verdict = judged(one, unit, Number(value));
  if (verdict === "in-tolerance") return [];
  if (verdict !== "out") return [{ code: "near-limit", verdict }];
  const isSure = isPastGauge(Number(value), mostOf(one, unit));
  const causes = isAlone(one, unit, read)
    ? []
    : isSure
      ? one.means.causes
      : pointsAt(...(one.means.causes ?? []).map(({ cause }) => cause));
  return [{ ...one.means, causes: causes ?? [], verdict }];
}

/** What the other sizes that should be alike say, where there are two of them at least: two cannot say which of both is the slip. */
function othersOf(one: SizeOfUnit<string, string>, unit: Unit, read: Read): Verdict[] {
  const others = (one.alike ?? []).flatMap((key) =>
    key === one.key || read[key] === undefined ? [] : [judged(one, unit, Number(read[key]))],
  );
  return others.length > 1 ? others : [];
}

/** Over its limit among sizes that should be alike, none of which is. */
function isAlone(one: SizeOfUnit<string, string>, unit: Unit, read: Read): boolean {
  const others = othersOf(one, unit, read);
  return others.length > 0 && !others.includes("out");
}

/** What a hand and a gauge both found at a unit is one thing found, as sure as the surer of them. */
function onceEach<F extends Omit<Finding, "place">>(found: readonly F[]): F[] {
  const isShown = ({ causes = [] }: F) => causes.some(({ result }) => result === "seen");
  return found.filter((one, k) => {
    const alike = found.filter(({ code }) => code === one.code);
    return one === (alike.find(isShown) ?? alike[0]) && found.indexOf(one) === k;
  });
}

function figureOf(one: Any, unit: Unit, value: string | number | undefined): Figure[] {
  if (one.kind !== "size" || value === undefined) return [];
  return [
    {
      id: one.figure,
      place: unit.id,
      value: Number(value),
      dimension: "length",
      instrument: one.instrument,
      tolerance: { kind: "between", most: mostOf(one, unit), standing: one.standing },
      verdict: judged(one, unit, Number(value)),
      standing: "measured",
    },
  ];
}

/** By cause: whether all that could show it was read of every unit, and none of it near its limit. An optional size that nobody took holds nothing back. */
function clearsOf<Code extends string, Do extends string>(
  asked: readonly OfUnit<Code, Do>[],
  isRead: (one: OfUnit<Code, Do>) => boolean,
): Record<string, boolean> {
  const showing = (one: OfUnit<Code, Do>) =>
    (one.kind === "choice" ? one.options.map(({ means }) => means) : [one.means]).flatMap((means) => means?.causes ?? []);
  const causes = [...new Set(asked.flatMap(showing).map(({ cause }) => cause))];
  return Object.fromEntries(
    causes.map((cause) => [
      cause,
      asked.filter((one) => showing(one).some((shown) => shown.cause === cause)).every((one) => one.isOptional === true || isRead(one)),
    ]),
  );
}
