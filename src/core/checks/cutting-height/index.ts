import { type Evidence, type Figure, judgeDeviation, measuredLikelihoodRatio, type Verdict } from "@/core/basics/findings";
import { instrument } from "@/core/basics/instruments";
import { type CutsWith, kindById } from "@/core/catalogue/kinds";
import { type Machine, unitsAcross } from "@/core/machine";
import { type LearntOffset, learnOffset, type Stubble, stubbleOf, WANTED_READINGS } from "@/core/physics/turf/stubble";
import { evidenceOf as evidenceOfFindings, findingsOf, settled } from "../settled";
import type { Assessment, Check } from "../types";
import { unknownPlaces } from "../verdicts";
import { formOf } from "./form";
import { type HeightReadings, heightReadingsSchema } from "./schema";
import {
  alikeOf,
  BENCH_TOLERANCE_METRES,
  benchOf,
  HEIGHT_TOLERANCE,
  type Suggested,
  suggestedFor,
  type UnitHeight,
  unitHeightsOf,
  visitNow,
  visitsTo,
  WHOLE_BENCH,
} from "./units";

export { type HeightReadings, heightReadingsSchema } from "./schema";
export { HEIGHT_TOLERANCE } from "./units";

export type HeightDetail = {
  heightsMetres: number[];
  /** As the shop calls it, where it was told. */
  turf?: string;
  stubble?: Stubble;
  settingMetres?: number;
  offsetMetres?: number;
  learnt: LearntOffset;
  suggested?: Suggested;
  rakeLowersMetres?: number;
  /** Of a reel machine with several units: each by itself. */
  units?: Record<string, UnitHeight>;
};

type SetHeight = Suggested & { visits: number };

type Says = {
  action: ({ code: "set-height" } & SetHeight) | ({ code: "set-unit-height"; place: string } & SetHeight);
  warning: { code: "rake-cuts-lower"; byMetres: number };
  problem: { code: "unknown-unit"; place: string };
  provisional: { code: "few-pricks"; count: number; wanted: number } | { code: "soft-ground" } | { code: "wanted-not-told" };
};

export const cuttingHeight: Check<HeightReadings, HeightDetail, Says> = {
  id: "cutting-height",
  ruleVersion: 6,
  readingsSchema: heightReadingsSchema,
  missing: () => [],
  problems: (machine, { unitHeights = {}, unitSettings = {} }) => [
    ...unknownPlaces({ read: unitHeights, known: machine.units, path: "unitHeights", code: "unknown-unit" }),
    ...unknownPlaces({ read: unitSettings, known: machine.units, path: "unitSettings", code: "unknown-unit" }),
  ],
  form: formOf,
  wants: "visits",
  trend: {
    dimension: "length",
    lines: (machine) => [{ id: "machine" }, ...(hasUnits(machine) ? unitsAcross(machine).map(({ id, label }) => ({ id, label })) : [])],
    toleranceSi: ({ kind }) => HEIGHT_TOLERANCE[kindById(kind).cutsWith].metres,
    values: valuesOf,
    group: ({ detail }) => detail.turf,
    startsAnew: ["roller-changed"],
  },
  assess,
};

/** Several units, each of which is set by itself. */
const hasUnits = ({ kind, units }: Machine): boolean => kindById(kind).cutsWith === "reel" && units.length > 1;

/** Stubble over the setting, of the machine and of each unit that was read. */
function valuesOf({ detail }: Assessment<HeightDetail, Says>): Record<string, number> | undefined {
  const units = Object.entries(detail.units ?? {}).flatMap(([id, { offsetMetres }]) =>
    offsetMetres === undefined ? [] : [[id, offsetMetres]],
  );
  const values = { ...(detail.offsetMetres === undefined ? {} : { machine: detail.offsetMetres }), ...Object.fromEntries(units) };
  return Object.keys(values).length === 0 ? undefined : values;
}

function assess(machine: Machine, readings: HeightReadings): Assessment<HeightDetail, Says> {
  const { cutsWith } = kindById(machine.kind);
  const { settingMetres, heightsMetres, wantedMetres, turf } = readings;
  const isReel = cutsWith === "reel";
  const stubble = stubbleOf(heightsMetres, instrument(isReel ? "prism" : "stubble-ruler").resolution);
  const offsetMetres = stubble && settingMetres !== undefined ? stubble.meanMetres - settingMetres : undefined;
  const earlier = visitsTo(turf, readings.visits);
  const learnt = learnOffset([...earlier, ...visitNow(stubble, offsetMetres)], cutsWith);
  const suggested = suggestedFor(wantedMetres ?? settingMetres, learnt);
  const rakeLowersMetres = readings.rakeMetres === undefined ? undefined : Math.abs(readings.rakeMetres) / 2;
  const figures = judgedFigures({ stubble, settingMetres, wantedMetres: isReel ? wantedMetres : undefined, cutsWith });
  const { judged, offset } = figures;
  const units = hasUnits(machine) ? unitHeightsOf(machine, readings) : {};
  const bench = isReel ? benches({ machine, readings, units, earlier, judged: wantedMetres === undefined ? undefined : judged }) : NONE;
  const alike = isReel ? alikeOf(machine, units) : { ...NONE, isAll: false };
  const byReel = [...bench.findings, ...alike.findings];
  return {
    check: "cutting-height",
    ruleVersion: cuttingHeight.ruleVersion,
    ...settled({
      check: "cutting-height",
      findings: [...(judged ? findingsOf([judged]) : []), ...byReel],
      evidence: [
        ...(judged && offset ? evidenceOf({ cutsWith, judged, offset, hasWanted: wantedMetres !== undefined }) : []),
        ...evidenceOfFindings({
          check: "cutting-height",
          findings: byReel,
          clears: { ...(bench.findings.length > 0 ? { "height-misset": true } : {}) },
        }),
      ],
      told: [
        ...(offset ? ["machine"] : []),
        ...(bench.findings.length > 0 ? [WHOLE_BENCH] : []),
        ...(alike.isAll ? machine.units.map(({ id }) => id) : []),
      ],
      isComplete: offset !== undefined && (!isReel || wantedMetres !== undefined),
    }),
    provisional: [
      ...(offset && heightsMetres.length < WANTED_READINGS
        ? [{ code: "few-pricks" as const, count: heightsMetres.length, wanted: WANTED_READINGS }]
        : []),
      ...(readings.ground === "soft" ? [{ code: "soft-ground" as const }] : []),
      ...(isReel && wantedMetres === undefined ? [{ code: "wanted-not-told" as const }] : []),
    ],
    figures: [
      ...stubbleFigures(stubble, cutsWith),
      ...(judged ? [judged] : []),
      ...(offset && offset !== judged ? [offset] : []),
      ...bench.figures,
      ...alike.figures,
      ...learntFigures(learnt, cutsWith),
      ...Object.entries(units).flatMap(([place, one]) => learntFigures(one.learnt, "reel", place)),
    ],
    actions: actionsOf({ isWanted: wantedMetres !== undefined, verdict: judged?.verdict, suggested, learnt, units }),
    warnings:
      rakeLowersMetres !== undefined && rakeLowersMetres > 0.0005 ? [{ code: "rake-cuts-lower" as const, byMetres: rakeLowersMetres }] : [],
    detail: {
      heightsMetres,
      learnt,
      ...(turf ? { turf } : {}),
      ...(stubble ? { stubble } : {}),
      ...(settingMetres === undefined ? {} : { settingMetres }),
      ...(offsetMetres === undefined ? {} : { offsetMetres }),
      ...(suggested ? { suggested } : {}),
      ...(rakeLowersMetres === undefined ? {} : { rakeLowersMetres }),
      ...(hasUnits(machine) ? { units } : {}),
    },
  };
}

const NONE = { findings: [], figures: [] };

type Judged = Figure & { verdict: Verdict };

/**
 * What the cut is judged by: the stubble against the height that is wanted, on a reel machine that has told it; else against the setting. The offset,
 * stubble over the setting, is told in any case.
 */
function judgedFigures(args: {
  stubble: Stubble | undefined;
  settingMetres: number | undefined;
  wantedMetres: number | undefined;
  cutsWith: CutsWith;
}): { judged?: Judged; offset?: Figure } {
  const { stubble, settingMetres, wantedMetres, cutsWith } = args;
  if (!stubble || settingMetres === undefined) return {};
  const standardError = stubble.spreadMetres / Math.sqrt(stubble.count);
  const { metres: plusMinus, standing } = HEIGHT_TOLERANCE[cutsWith];
  const plain = (id: string, over: number) => ({
    id,
    value: stubble.meanMetres - over,
    standardError,
    degrees: stubble.count - 1,
    dimension: "length" as const,
    instrument: "fine" as const,
    standing: "measured" as const,
  });
  const judge = (figure: ReturnType<typeof plain>): Judged => ({
    ...figure,
    tolerance: { kind: "about", target: 0, plusMinus, standing },
    verdict: judgeDeviation({ deviation: figure.value, tolerance: plusMinus, standardError }),
  });
  const offset = plain("over-the-setting", settingMetres);
  if (wantedMetres !== undefined) return { judged: judge(plain("over-wanted", wantedMetres)), offset };
  const judged = judge(offset);
  return { judged, offset: judged };
}

/** The bench of all units, and of each one that stands otherwise. */
function benches(args: {
  machine: Machine;
  readings: HeightReadings;
  units: Readonly<Record<string, UnitHeight>>;
  earlier: HeightReadings["visits"];
  judged: Judged | undefined;
}): ReturnType<typeof benchOf> {
  const { machine, readings, units, earlier, judged } = args;
  const { settingMetres, wantedMetres, unitSettings = {}, unitVisits, turf } = readings;
  const isRight = (mean: number | undefined, standardError: number) =>
    mean !== undefined &&
    wantedMetres !== undefined &&
    judgeDeviation({ deviation: mean - wantedMetres, tolerance: HEIGHT_TOLERANCE.reel.metres, standardError }) === "in-tolerance";
  const all = benchOf({
    place: WHOLE_BENCH,
    settingMetres,
    wantedMetres,
    before: learnOffset(earlier, "reel"),
    cutsAsWanted: judged?.verdict === "in-tolerance",
  });
  const stands = unitsAcross(machine).flatMap(({ id }) => unitSettings[id] ?? settingMetres ?? []);
  const isAsSisters = (setting: number | undefined) =>
    setting !== undefined &&
    stands.length > 1 &&
    stands.filter((other) => Math.abs(other - setting) <= BENCH_TOLERANCE_METRES).length * 2 > stands.length;
  const own = unitsAcross(machine)
    .filter(({ id }) => unitSettings[id] !== undefined)
    .map(({ id }) => {
      const { stubble } = units[id] ?? {};
      return benchOf({
        place: id,
        settingMetres: unitSettings[id],
        wantedMetres,
        isAsSisters: isAsSisters(unitSettings[id]),
        before: learnOffset(visitsTo(turf, unitVisits[id] ?? []), "reel"),
        cutsAsWanted: isRight(stubble?.meanMetres, stubble ? stubble.spreadMetres / Math.sqrt(stubble.count) : 0),
      });
    });
  return { findings: [all, ...own].flatMap(({ findings }) => findings), figures: [all, ...own].flatMap(({ figures }) => figures) };
}

function stubbleFigures(stubble: Stubble | undefined, cutsWith: CutsWith): Figure[] {
  if (!stubble) return [];
  const instrument = cutsWith === "reel" ? "fine" : "gauge";
  const figure = (id: string, value: number): Figure => ({ id, value, dimension: "length", instrument, standing: "measured" });
  return [
    figure("stubble-mean", stubble.meanMetres),
    figure("stubble-95", stubble.plusMinusMetres),
    figure("stubble-spread", stubble.spreadMetres),
  ];
}

function learntFigures({ offsetMetres, plusMinusMetres, visits }: LearntOffset, cutsWith: CutsWith, place?: string): Figure[] {
  if (visits === 0) return [];
  return [
    {
      id: "learnt-offset",
      ...(place === undefined ? {} : { place }),
      value: offsetMetres,
      standardError: plusMinusMetres,
      dimension: "length",
      instrument: cutsWith === "reel" ? "fine" : "gauge",
      standing: "estimate",
    },
  ];
}

/** One figure for several causes on a reel machine: that it is off, not why. */
function evidenceOf(args: { cutsWith: CutsWith; judged: Judged; offset: Figure; hasWanted: boolean }): Evidence[] {
  const { cutsWith, judged, offset, hasWanted } = args;
  const check = "cutting-height";
  const { metres: tolerance } = HEIGHT_TOLERANCE[cutsWith];
  if (cutsWith === "rotary")
    return [
      {
        cause: "height-misset",
        likelihoodRatio: measuredLikelihoodRatio({
          deviation: judged.value,
          tolerance,
          standardUncertainty: judged.standardError ?? 0,
          sides: "two",
        }),
      },
    ];
  // Where the bench was held against what is wanted, what is left between bench and turf is the turf's or the roller's.
  const misset = hasWanted ? [] : ["height-misset"];
  const causes = [...misset, "roller-sinks", "thatch-build-up"];
  const verdict = judgeDeviation({ deviation: offset.value, tolerance, standardError: offset.standardError ?? 0 });
  if (verdict === "out" && judged.verdict !== "in-tolerance") {
    const off = offset.value < 0 ? causes : misset;
    return off.length === 0 ? [] : [{ check, causes: off, result: "suspect" } as Evidence];
  }
  // What turf and rollers take is set into the bench where it cuts as wanted.
  return verdict === "in-tolerance" || judged.verdict === "in-tolerance"
    ? ["roller-sinks", "thatch-build-up"].map((cause) => ({ check, cause, result: "not-found" as const }))
    : [];
}

/** The setting to use: where a height is wanted, or where what is cut is not what is set; unit by unit where all of them were learnt. */
function actionsOf(args: {
  isWanted: boolean;
  verdict: Verdict | undefined;
  suggested: Suggested | undefined;
  learnt: LearntOffset;
  units: Readonly<Record<string, UnitHeight>>;
}): Says["action"][] {
  const { isWanted, verdict, suggested, learnt, units } = args;
  const isOff = verdict !== undefined && verdict !== "in-tolerance";
  const byUnit = Object.entries(units).flatMap(([place, one]) =>
    one.suggested ? [{ code: "set-unit-height" as const, place, ...one.suggested, visits: one.learnt.visits }] : [],
  );
  const hasAll = byUnit.length > 0 && byUnit.length === Object.keys(units).length;
  if (!suggested || !(isWanted || isOff)) return byUnit;
  return [...(hasAll ? [] : [{ code: "set-height" as const, ...suggested, visits: learnt.visits }]), ...byUnit];
}
