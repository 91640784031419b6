import { type Figure, type Finding, judgeDeviation } from "@/core/basics/findings";
import { featuresOf } from "@/core/catalogue/kinds";
import { type Machine, spindlesAcross } from "@/core/machine";
import { clampForce, isIncredibleTorque, type Socket, socketsFor, TORQUE_WITHIN } from "@/core/physics/blades/bolts";
import { againstUse, isNearPart, judgeGrade, type Mismatch, mismatches, newAgainstOld } from "@/core/physics/blades/fit";
import { bladesOf, clearances, widthOfCut } from "@/core/physics/blades/overlap";
import { wayUp } from "@/core/physics/blades/way-up";
import { pointsAt, settled, shows } from "../settled";
import type { Assessment, At, Check } from "../types";
import { unknownPlaces } from "../verdicts";
import { fitForm } from "./form";
import { type FitBlade, type FitReadings, fitReadingsSchema } from "./schema";

export type { FitReadings } from "./schema";

export type FitDetail = {
  mismatches: Mismatch[];
  againstOld: ReturnType<typeof newAgainstOld>;
  /** Blades that want a wrench put on them again after the first run. */
  recheck: string[];
  sockets: Socket[];
  strikes: boolean;
};

type Says = {
  action:
    | { code: "turn-over"; place: string }
    | { code: "turn-washer"; place: string; hollow: WasherHollow }
    | { code: "compare-imprint"; place: string }
    | { code: "look-at-signs"; place: string; signs: string }
    | { code: "mend-stack"; place: string }
    | { code: "change-bolt"; place: string; found: string; wanted: string; way: string }
    | { code: "re-check-bolt"; place: string }
    | { code: "torque-by-wrench"; place: string; torqueNewtonMetres: number }
    | { code: "fit-right-blade"; strikes: number }
    | { code: "measure-not-remember" }
    | { code: "ask-sheet-torque" }
    | { code: "write-stack-down" };
  warning:
    | { [Code in Mismatch["code"]]: { code: `fit-${Code}`; byMetres?: number } }[Mismatch["code"]]
    | { code: "differs-from-old"; what: string; byMetres?: number }
    | { code: "set-for-other-use" }
    | { code: "left-hand-thread" }
    | { code: "no-blade-on-sheet" }
    | { code: "count-the-blades"; count: number }
    | { code: "socket-too-small"; byMetres: number }
    | { code: "socket-too-loose"; byMetres: number };
  provisional: { code: "place-unread"; place: string } | { code: "size-remembered" } | { code: "no-stack-on-sheet" };
  problem:
    | { code: "unknown-spindle"; place: string }
    | { code: "torque-without-wrench"; place: string }
    | { code: "torque-not-credible"; place: string; wantedNewtonMetres: number };
};
type Problem = Says["problem"] & At;

export const bladeFit: Check<FitReadings, FitDetail, Says> = {
  id: "blade-fit",
  ruleVersion: 5,
  cautions: ["freed-blade"],
  readingsSchema: fitReadingsSchema,
  missing: (machine) => (machine.spindles.length === 0 ? ["no-spindles"] : []),
  problems,
  form: fitForm,
  assess,
};

function problems(machine: Machine, { blades }: FitReadings): Problem[] {
  const contradictory = Object.entries(blades).flatMap(([place, { tightened, torqueNewtonMetres }]): Problem[] =>
    torqueNewtonMetres !== undefined && (tightened === "feel" || tightened === "loose")
      ? [{ code: "torque-without-wrench" as const, path: ["blades", place, "torqueNewtonMetres"], place }]
      : [],
  );
  const wanted = machine.sheet.bladeBoltTorqueNewtonMetres;
  const incredible = Object.entries(blades).flatMap(([place, { torqueNewtonMetres }]): Problem[] =>
    wanted !== undefined && isIncredibleTorque(torqueNewtonMetres, wanted)
      ? [{ code: "torque-not-credible" as const, path: ["blades", place, "torqueNewtonMetres"], place, wantedNewtonMetres: wanted }]
      : [],
  );
  return [
    ...unknownPlaces({ read: blades, known: machine.spindles, path: "blades", code: "unknown-spindle" }),
    ...contradictory,
    ...incredible,
  ];
}

/** What only wear may have made is watched, and suspected of being another part; anything else is one. */
function partFinding(found: readonly Mismatch[]): Finding {
  return found.every(({ consequence }) => consequence === "worn-or-another-part")
    ? { place: "set", code: "worn-or-other", verdict: "watch", causes: pointsAt("blade-wrong-part") }
    : { place: "set", code: "wrong-part", verdict: "out", causes: shows("blade-wrong-part") };
}

function assess(machine: Machine, readings: FitReadings): Assessment<FitDetail, Says> {
  const { part, old, blades } = readings;
  const sheet = machine.sheet.blade;
  const found = sheet
    ? mismatches(sheet, part, {
        turns: machine.spindles[0]?.turns,
        hasCatcher: featuresOf(machine).includes("catcher"),
        use: readings.use,
      })
    : [];
  const againstOld = newAgainstOld(part, old);
  const strikes = wouldStrike(machine, part.lengthMetres);
  const torques = torqueFigures(machine, readings);
  const unread = machine.spindles.filter(({ id }) => !isTold(blades[id]));
  const findings: Finding[] = [
    ...Object.entries(blades).flatMap(([place, read]) => findingsAt(machine, place, read)),
    ...torques.flatMap(torqueFinding),
    ...(strikes ? [{ place: "set", code: "strikes", verdict: "stop" as const, causes: shows("blade-wrong-part") }] : []),
    ...(found.length > 0 ? [partFinding(found)] : []),
    ...(found.length === 0 && sheet && isNearPart(sheet, part) ? [{ place: "set", code: "part-near", verdict: "watch" as const }] : []),
  ];
  // Without a stack on the sheet nobody can say that it lies as it should.
  const hasStack = machine.sheet.blade?.stack !== undefined;
  const isComplete = unread.length === 0 && hasStack;
  // One sign that is wrong leaves open which of the two it is.
  const areRightWayUp = Object.values(blades).every((read) => wayUp(read).code === "right");
  return {
    check: "blade-fit",
    ruleVersion: bladeFit.ruleVersion,
    ...settled({
      check: "blade-fit",
      findings,
      clears: {
        "blade-upside-down": unread.length === 0 && areRightWayUp,
        "blade-wrong-part": isComplete && isPartTold(machine, readings) && areRightWayUp,
        "blade-loose": isComplete && !findings.some(({ code }) => code === "by-feel"),
      },
      told: [
        ...machine.spindles.filter((spindle) => hasStack && !unread.includes(spindle)).map(({ id }) => id),
        ...(part.lengthMetres === undefined ? [] : ["set"]),
      ],
      isComplete,
    }),
    provisional: [
      ...unread.map(({ id }) => ({ code: "place-unread" as const, place: id })),
      ...(hasStack ? [] : [{ code: "no-stack-on-sheet" as const }]),
      ...(part.standing === "remembered" ? [{ code: "size-remembered" as const }] : []),
    ],
    figures: [...torques, ...widthFigure(machine, part.lengthMetres)],
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
    read !== undefined &&
    wayUp(read).code !== "untold" &&
    read.stack !== undefined &&
    read.imprint !== undefined &&
    read.seated !== undefined &&
    read.tightened !== undefined &&
    // By wrench is said with its figure, or it is only said.
    (read.tightened !== "wrench" || read.torqueNewtonMetres !== undefined)
  );
}

/** Whether a set of this length would strike itself; geared blades may overlap. */
function wouldStrike(machine: Machine, lengthMetres: number | undefined): boolean {
  if (lengthMetres === undefined || featuresOf(machine).includes("gears")) return false;
  return clearances(bladesOf(machine).map((one) => ({ ...one, lengthMetres }))).some(({ clearanceMetres }) => clearanceMetres <= 0);
}

/** Sizes of a part that this sheet gives something to compare with; nothing is cleared before all of them were told. */
function isPartTold(machine: Machine, { part, use }: FitReadings): boolean {
  const sheet = machine.sheet.blade;
  if (!sheet) return false;
  const wanted: [boolean, unknown][] = [
    [true, part.lengthMetres],
    [sheet.hole !== undefined, part.hole],
    [sheet.hole !== undefined, part.holeMetres],
    [sheet.hole?.secondMetres !== undefined, part.secondMetres],
    [sheet.thicknessMetres !== undefined, part.thicknessMetres],
    [sheet.offsetMetres !== undefined, part.offsetMetres],
    [sheet.widthMetres !== undefined, part.widthMetres],
    [sheet.lift !== undefined || featuresOf(machine).includes("catcher"), part.lift],
    [sheet.lift !== undefined || featuresOf(machine).includes("catcher"), use],
    [machine.spindles[0]?.turns !== undefined, part.turns],
  ];
  return wanted.every(([isCompared, value]) => !isCompared || value !== undefined);
}

/** All that is off with a blade as it sits; right only where everything was told and nothing is. */
function findingsAt(machine: Machine, place: string, read: FitBlade): Finding[] {
  const wanted = machine.sheet.blade?.bolt?.grade;
  const grade = read.bolt && wanted ? judgeGrade(read.bolt, wanted) : "right";
  const out = (code: string, causes: Finding["causes"]): Finding => ({ place, code, verdict: "out", ...(causes ? { causes } : {}) });
  const way = wayUp(read);
  const off: Finding[] = [
    ...(read.tightened === "loose" ? [{ place, code: "loose", verdict: "stop" as const, causes: shows("blade-loose") }] : []),
    ...(way.code === "upside-down" ? [out("upside-down", shows("blade-upside-down"))] : []),
    ...(way.code === "another-blade"
      ? [out(way.why === "back-leads" ? "other-direction" : "sail-down-edge-leads", shows("blade-wrong-part"))]
      : []),
    ...(way.code === "signs-disagree" ? [out("signs-disagree", pointsAt("blade-upside-down", "blade-wrong-part"))] : []),
    ...(read.imprint === "other" ? [out("imprint-differs", pointsAt("blade-loose"))] : []),
    ...(read.stack !== undefined && read.stack !== "as-sheet" ? [out(read.stack, shows("blade-loose"))] : []),
    ...(read.seated === "proud" ? [out("proud", shows("blade-loose"))] : []),
    ...(grade === "right" ? [] : [out(`bolt-${grade}`, pointsAt("blade-loose"))]),
    ...(read.tightened === "feel" ? [{ place, code: "by-feel", verdict: "watch" as const }] : []),
  ];
  return off.length === 0 && isTold(read) && machine.sheet.blade?.stack !== undefined
    ? [{ place, code: "right", verdict: "in-tolerance" }]
    : off;
}

/** A wrench set far from the sheet's figure: too little may let the blade go. */
function torqueFinding({ id, place, value, verdict, tolerance }: Figure): Finding[] {
  if (id !== "torque" || place === undefined || (verdict !== "out" && verdict !== "watch")) return [];
  if (verdict === "watch") return [{ place, code: "torque-near", verdict }];
  const isLow = tolerance?.kind === "about" && value < tolerance.target;
  return [{ place, code: isLow ? "torque-low" : "torque-high", verdict, causes: isLow ? pointsAt("blade-loose") : [] }];
}

/** Each wrench against the sheet, and what it clamps with. No figure of ours stands in for a sheet that gives none. */
function torqueFigures(machine: Machine, { blades }: FitReadings): Figure[] {
  const wanted = machine.sheet.bladeBoltTorqueNewtonMetres;
  const bolt = machine.sheet.blade?.bolt;
  return Object.entries(blades).flatMap(([place, { torqueNewtonMetres: torque }]): Figure[] => {
    if (torque === undefined) return [];
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
              verdict: judgeDeviation({ deviation: torque - wanted, tolerance: wanted * TORQUE_WITHIN }),
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

function actionsOf(args: { machine: Machine; readings: FitReadings; found: readonly Mismatch[]; strikes: boolean }): Says["action"][] {
  const { machine, readings, found, strikes } = args;
  const torque = machine.sheet.bladeBoltTorqueNewtonMetres;
  const wanted = machine.sheet.blade?.bolt?.grade;
  const each = Object.entries(readings.blades).flatMap(([place, read]): Says["action"][] => [
    ...wayActions(place, read),
    ...(read.stack === "washer-reversed" ? [{ code: "turn-washer" as const, place, hollow: hollowOf(machine.sheet.blade?.stack) }] : []),
    ...(read.imprint === "other" ? [{ code: "compare-imprint" as const, place }] : []),
    ...(read.stack === "part-missing" || read.stack === "other-order" || read.seated === "proud"
      ? [{ code: "mend-stack" as const, place }]
      : []),
    ...(read.bolt && wanted && judgeGrade(read.bolt, wanted) !== "right"
      ? [{ code: "change-bolt" as const, place, found: read.bolt, wanted, way: judgeGrade(read.bolt, wanted) }]
      : []),
    ...(read.tightened === "feel" || read.tightened === "loose" || isOffTorque(read.torqueNewtonMetres, torque)
      ? [
          torque === undefined
            ? { code: "re-check-bolt" as const, place }
            : { code: "torque-by-wrench" as const, place, torqueNewtonMetres: torque },
        ]
      : []),
  ]);
  const isOtherWay = Object.values(readings.blades).some((read) => wayUp(read).code === "another-blade");
  const lacksStack = machine.sheet.blade !== undefined && machine.sheet.blade.stack === undefined;
  const isTightening = Object.values(readings.blades).some(({ tightened }) => tightened !== undefined);
  return [
    ...(strikes || found.length > 0 || isOtherWay ? [{ code: "fit-right-blade" as const, strikes: strikes ? 1 : 0 }] : []),
    ...each,
    ...(readings.part.standing === "remembered" ? [{ code: "measure-not-remember" as const }] : []),
    ...(torque === undefined && isTightening ? [{ code: "ask-sheet-torque" as const }] : []),
    ...(lacksStack && each.length + Object.keys(readings.blades).length > 0 ? [{ code: "write-stack-down" as const }] : []),
  ];
}

/** A bolt tightened to another figure than the sheet's is tightened again. */
const isOffTorque = (torque: number | undefined, wanted: number | undefined): boolean =>
  torque !== undefined && wanted !== undefined && Math.abs(torque - wanted) > wanted * TORQUE_WITHIN;

function wayActions(place: string, read: FitBlade): Says["action"][] {
  const way = wayUp(read);
  if (way.code === "upside-down") return [{ code: "turn-over", place }];
  return way.code === "signs-disagree" ? [{ code: "look-at-signs", place, signs: way.signs.join(",") }] : [];
}

/**
 * Which way the hollow of this machine's cupped washer faces, by the stack on its sheet: it lies under the blade, so up is toward it. Nothing of
 * ours stands in for a stack that has none.
 */
export type WasherHollow = "toward-blade" | "toward-head" | "by-imprint";

export function hollowOf(stack: readonly string[] | undefined): WasherHollow {
  if (!stack) return "by-imprint";
  const blade = stack.indexOf("blade");
  const at = stack.findIndex((part) => part.startsWith("cupped-washer"));
  if (at < 0 || blade < 0) return "by-imprint";
  const facesUp = stack[at] === "cupped-washer-hollow-up";
  return facesUp === at < blade ? "toward-blade" : "toward-head";
}

function warningsOf(args: {
  machine: Machine;
  readings: FitReadings;
  found: readonly Mismatch[];
  againstOld: FitDetail["againstOld"];
}): Says["warning"][] {
  const { machine, readings, found, againstOld } = args;
  const head = readings.headMetres ?? machine.sheet.blade?.bolt?.headMetres;
  const { socketMetres } = readings;
  const play = head !== undefined && socketMetres !== undefined ? socketMetres - head : undefined;
  const sheetLift = machine.sheet.blade?.lift;
  const isLeftHand = machine.sheet.blade?.bolt?.thread === "left";
  return [
    ...found.map((one) => ({ code: `fit-${one.code}` as const, ...("byMetres" in one ? { byMetres: one.byMetres } : {}) })),
    ...againstOld.map(({ what, byMetres }) => ({
      code: "differs-from-old" as const,
      what,
      ...(byMetres === undefined ? {} : { byMetres }),
    })),
    // What was not read off the blade is no other part; that the sheet's set is for another use is said all the same.
    ...(readings.part.lift === undefined && sheetLift && againstUse(sheetLift, readings.use)
      ? [{ code: "set-for-other-use" as const }]
      : []),
    ...(play === undefined ? [] : socketWarning(play)),
    ...(isLeftHand ? [{ code: "left-hand-thread" as const }] : []),
    ...(machine.sheet.blade ? [] : [{ code: "no-blade-on-sheet" as const }]),
    ...(spindlesAcross(machine).length > 1 && Object.values(readings.blades).some(({ tightened }) => tightened === "loose")
      ? [{ code: "count-the-blades" as const, count: machine.spindles.length }]
      : []),
  ];
}

/** Play as the socket finder has it. */
function socketWarning(playMetres: number): Says["warning"][] {
  if (playMetres < -0.00002) return [{ code: "socket-too-small", byMetres: -playMetres }];
  return playMetres > 0.0003 ? [{ code: "socket-too-loose", byMetres: playMetres }] : [];
}
