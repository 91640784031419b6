import { clampForce, type Socket, socketsFor } from "@/core/blades/bolts";
import { judgeGrade, type Mismatch, mismatches, newAgainstOld } from "@/core/blades/fit";
import { bladesOf, clearances, widthOfCut } from "@/core/blades/overlap";
import type { Evidence, Figure, Verdict, Warning } from "@/core/findings";
import { featuresOf } from "@/core/kinds";
import { type Machine, spindlesAcross } from "@/core/machine";
import type { Action, Assessment, Check, Mark, ReadingProblem } from "../types";
import { overall, tell, unknownPlaces } from "../verdicts";
import { fitForm } from "./form";
import { type FitBlade, type FitReadings, fitReadingsSchema } from "./schema";

export type { FitReadings } from "./schema";

/** A wrench reads to about this. Common practice. */
export const TORQUE_WITHIN = 0.1;

export type FitDetail = {
  mismatches: Mismatch[];
  againstOld: ReturnType<typeof newAgainstOld>;
  /** Blades that want a wrench put on them again after the first run. */
  recheck: string[];
  sockets: Socket[];
  strikes: boolean;
};

export const bladeFit: Check<FitReadings, FitDetail> = {
  id: "blade-fit",
  ruleVersion: 1,
  readingsSchema: fitReadingsSchema,
  missing: (machine) => (machine.spindles.length === 0 ? ["no-spindles"] : []),
  problems,
  form: fitForm,
  assess,
};

function problems(machine: Machine, { blades }: FitReadings): ReadingProblem[] {
  const contradictory = Object.entries(blades).flatMap(([place, { tightened, torqueNewtonMetres }]): ReadingProblem[] =>
    torqueNewtonMetres !== undefined && (tightened === "feel" || tightened === "loose")
      ? [{ code: "torque-without-wrench", path: ["blades", place, "torqueNewtonMetres"], place }]
      : [],
  );
  return [...unknownPlaces({ read: blades, known: machine.spindles, path: "blades", code: "unknown-spindle" }), ...contradictory];
}

function assess(machine: Machine, readings: FitReadings): Assessment<FitDetail> {
  const { part, old, blades } = readings;
  const sheet = machine.sheet.blade;
  const found = sheet
    ? mismatches(sheet, part, { turns: machine.spindles[0]?.turns, hasCatcher: featuresOf(machine).includes("catcher") })
    : [];
  const againstOld = newAgainstOld(part, old);
  const strikes = wouldStrike(machine, part.lengthMetres);
  const marks = Object.entries(blades).flatMap(([place, read]) => markOf(machine, place, read));
  const torques = torqueFigures(machine, readings);
  const unread = machine.spindles.filter(({ id }) => !isTold(blades[id]));
  const partVerdict: Verdict[] = strikes ? ["stop"] : found.length > 0 ? ["out"] : [];
  return {
    check: "blade-fit",
    ruleVersion: bladeFit.ruleVersion,
    verdict: overall(
      [...marks.map(({ verdict }) => verdict), ...partVerdict, ...torques.flatMap(({ verdict }) => (verdict ? [verdict] : []))],
      unread.length === 0,
    ),
    provisional: [
      ...unread.map(({ id }) => ({ code: "place-unread", place: id })),
      ...(part.standing === "remembered" ? [{ code: "size-remembered" }] : []),
    ],
    figures: [...torques, ...widthFigure(machine, part.lengthMetres)],
    marks,
    evidence: evidenceOf({
      machine,
      marks,
      blades,
      mismatched: found,
      isComplete: unread.length === 0,
      hasPart: Object.keys(part).length > 0,
    }),
    actions: actionsOf({ machine, readings, found, strikes }),
    warnings: warningsOf({ machine, readings, found, againstOld }),
    detail: {
      mismatches: found,
      againstOld,
      recheck: recheckOf(blades),
      sockets: socketsFor(readings.headMetres ?? sheet?.bolt?.headMetres ?? 0).filter(({ sizeMetres }) => sizeMetres > 0.004),
      strikes,
    },
  };
}

/** What must be told of a blade before it counts as looked at. */
function isTold(read: FitBlade | undefined): boolean {
  return (
    read?.sail !== undefined &&
    read.leads !== undefined &&
    read.stack !== undefined &&
    read.seated !== undefined &&
    read.tightened !== undefined
  );
}

/** Whether a set of this length would strike itself; geared blades may overlap. */
function wouldStrike(machine: Machine, lengthMetres: number | undefined): boolean {
  if (lengthMetres === undefined || featuresOf(machine).includes("gears")) return false;
  return clearances(bladesOf(machine).map((one) => ({ ...one, lengthMetres }))).some(({ clearanceMetres }) => clearanceMetres <= 0);
}

function markOf(machine: Machine, place: string, read: FitBlade): Mark[] {
  const wanted = machine.sheet.blade?.bolt?.grade;
  if (read.sail === "to-ground") return [{ place, verdict: "out", code: "upside-down" }];
  // Sail to the deck and yet the back leads: made for the other direction.
  if (read.leads === "back") return [{ place, verdict: "out", code: read.sail === "to-deck" ? "other-direction" : "back-leads" }];
  if (read.tightened === "loose") return [{ place, verdict: "stop", code: "loose" }];
  if (read.stack !== undefined && read.stack !== "as-sheet") return [{ place, verdict: "out", code: read.stack }];
  if (read.seated === "proud") return [{ place, verdict: "out", code: "proud" }];
  if (read.bolt && wanted && judgeGrade(read.bolt, wanted) !== "right")
    return [{ place, verdict: "out", code: `bolt-${judgeGrade(read.bolt, wanted)}` }];
  if (read.tightened === "feel") return [{ place, verdict: "watch", code: "by-feel" }];
  return isTold(read) ? [{ place, verdict: "in-tolerance", code: "right" }] : [];
}

/** Each wrench against the sheet, and what it clamps with. No figure of ours stands in for a sheet that gives none. */
function torqueFigures(machine: Machine, { blades }: FitReadings): Figure[] {
  const wanted = machine.sheet.bladeBoltTorqueNewtonMetres;
  const bolt = machine.sheet.blade?.bolt;
  return Object.entries(blades).flatMap(([place, { torqueNewtonMetres: torque }]): Figure[] => {
    if (torque === undefined) return [];
    const isRight = wanted === undefined || Math.abs(torque - wanted) <= wanted * TORQUE_WITHIN;
    return [
      {
        id: "torque",
        place,
        value: torque,
        dimension: "torque",
        instrument: "gauge",
        ...(wanted === undefined
          ? {}
          : {
              tolerance: { kind: "about", target: wanted, plusMinus: wanted * TORQUE_WITHIN, standing: "sheet" } as const,
              verdict: isRight ? ("in-tolerance" as const) : ("out" as const),
            }),
        standing: "measured",
      },
      ...(bolt
        ? [
            {
              id: "clamp-force",
              place,
              value: clampForce({ torqueNewtonMetres: torque, diameterMetres: bolt.diameterMetres, thread: bolt.surface }),
              dimension: "force" as const,
              instrument: "gauge" as const,
              standing: "published-from-memory" as const,
            },
          ]
        : []),
    ];
  });
}

function widthFigure(machine: Machine, lengthMetres: number | undefined): Figure[] {
  if (lengthMetres === undefined || machine.spindles.length < 2) return [];
  const value = widthOfCut(bladesOf(machine).map((one) => ({ ...one, lengthMetres })));
  return [{ id: "width-of-cut", value, dimension: "length", instrument: "tape", standing: "physics" }];
}

const recheckOf = (blades: FitReadings["blades"]): string[] =>
  Object.entries(blades).flatMap(([place, { tightened }]) => (tightened === "feel" || tightened === "loose" ? [place] : []));

const LOOSE: readonly string[] = ["loose", "washer-reversed", "part-missing", "other-order", "proud", "bolt-weaker", "bolt-harder"];
const UPSIDE_DOWN: readonly string[] = ["upside-down", "back-leads"];

function evidenceOf(args: {
  machine: Machine;
  marks: readonly Mark[];
  blades: FitReadings["blades"];
  mismatched: readonly Mismatch[];
  isComplete: boolean;
  hasPart: boolean;
}): Evidence[] {
  const { marks, mismatched, isComplete, hasPart } = args;
  const check = "blade-fit";
  const any = (codes: readonly string[]) => marks.some(({ code }) => code !== undefined && codes.includes(code));
  const told = (cause: string, isSeen: boolean, isClear: boolean) => tell({ check, cause, isSeen, isClear });
  return [
    ...told("blade-upside-down", any(UPSIDE_DOWN), isComplete),
    ...told(
      "blade-wrong-part",
      mismatched.length > 0 || any(["other-direction"]),
      hasPart && isComplete && args.machine.sheet.blade !== undefined,
    ),
    ...told("blade-loose", any(LOOSE), isComplete && !any(["by-feel"])),
  ];
}

function actionsOf(args: { machine: Machine; readings: FitReadings; found: readonly Mismatch[]; strikes: boolean }): Action[] {
  const { machine, readings, found, strikes } = args;
  const torque = machine.sheet.bladeBoltTorqueNewtonMetres;
  const wanted = machine.sheet.blade?.bolt?.grade;
  const each = Object.entries(readings.blades).flatMap(([place, read]): Action[] => [
    ...(read.sail === "to-ground" || (read.leads === "back" && read.sail === undefined) ? [{ code: "turn-over" as const, place }] : []),
    ...(read.stack === "washer-reversed" ? [{ code: "turn-washer" as const, place }] : []),
    ...(read.stack === "part-missing" || read.stack === "other-order" || read.seated === "proud"
      ? [{ code: "mend-stack" as const, place }]
      : []),
    ...(read.bolt && wanted && judgeGrade(read.bolt, wanted) !== "right"
      ? [{ code: "change-bolt" as const, place, found: read.bolt, wanted, way: judgeGrade(read.bolt, wanted) }]
      : []),
    ...(read.tightened === "feel" || read.tightened === "loose"
      ? [
          torque === undefined
            ? { code: "re-check-bolt" as const, place }
            : { code: "torque-by-wrench" as const, place, torqueNewtonMetres: torque },
        ]
      : []),
  ]);
  const isOtherWay = Object.values(readings.blades).some(({ sail, leads }) => sail === "to-deck" && leads === "back");
  const isTightening = Object.values(readings.blades).some(({ tightened }) => tightened !== undefined);
  return [
    ...(strikes || found.length > 0 || isOtherWay ? [{ code: "fit-right-blade" as const, strikes: strikes ? 1 : 0 }] : []),
    ...each,
    ...(readings.part.standing === "remembered" ? [{ code: "measure-not-remember" as const }] : []),
    ...(torque === undefined && isTightening ? [{ code: "ask-sheet-torque" as const }] : []),
  ];
}

function warningsOf(args: {
  machine: Machine;
  readings: FitReadings;
  found: readonly Mismatch[];
  againstOld: FitDetail["againstOld"];
}): Warning[] {
  const { machine, readings, found, againstOld } = args;
  const head = readings.headMetres ?? machine.sheet.blade?.bolt?.headMetres;
  const { socketMetres } = readings;
  const play = head !== undefined && socketMetres !== undefined ? socketMetres - head : undefined;
  const isLeftHand = machine.sheet.blade?.bolt?.thread === "left";
  return [
    ...found.map((one) => ({ code: `fit-${one.code}`, ...("byMetres" in one ? { byMetres: one.byMetres } : {}) })),
    ...againstOld.map(({ what, byMetres }) => ({
      code: "differs-from-old",
      what,
      ...(byMetres === undefined ? {} : { byMetres }),
    })),
    ...(play === undefined ? [] : socketWarning(play)),
    ...(isLeftHand ? [{ code: "left-hand-thread" }] : []),
    ...(machine.sheet.blade ? [] : [{ code: "no-blade-on-sheet" }]),
    ...(spindlesAcross(machine).length > 1 && Object.values(readings.blades).some(({ tightened }) => tightened === "loose")
      ? [{ code: "count-the-blades", count: machine.spindles.length }]
      : []),
  ];
}

/** Play as the socket finder has it. */
function socketWarning(playMetres: number): Warning[] {
  if (playMetres < -0.00002) return [{ code: "socket-too-small", byMetres: -playMetres }];
  return playMetres > 0.0003 ? [{ code: "socket-too-loose", byMetres: playMetres }] : [];
}
