import type { Evidence, Figure, Finding } from "@/core/basics/findings";
import { table } from "@/core/basics/tables";
import type { Machine } from "@/core/machine";
import { tipCircleOf } from "@/core/physics/blades/tip-circle";
import { paperWay } from "@/core/physics/drive/paper";
import { bite, type SpindlePattern, TEARS_BELOW, TIP_SPEED_LIMIT } from "@/core/physics/drive/tip-speed";
import { settled } from "../settled";
import type { Assessment, Check } from "../types";
import { unknownPlaces } from "../verdicts";
import { evidenceOf, patternOf } from "./evidence";
import { figuresOf, MOST_SLIP } from "./figures";
import { speedForm } from "./form";
import { RADIANS, type ReadSpindle, readSpindle } from "./read";
import { type SpeedReadings, speedReadingsSchema } from "./schema";

export { type SpeedReadings, speedReadingsSchema } from "./schema";

export type SpeedDetail = {
  pattern: SpindlePattern;
  /** Spindles that were read, as they ran without load. */
  spindles: { spindleId: string; revolutionsPerMinute: number; metresPerSecond: number }[];
  /** Every spindle with all that is known of its speed: absent from what rule version 1 wrote. */
  known?: ReadSpindle[];
  biteMetres?: number;
};

type Says = {
  action:
    | { code: "look-for-load" }
    | { code: "charge-sooner" }
    | { code: "full-throttle" }
    | { code: "read-speed-again"; place: string }
    | { code: "see-to-clutch"; how: "slips-in" | "drags-off" };
  warning:
    | { code: "over-tip-speed-limit"; place: string; limitMetresPerSecond: number; mostRevolutions?: number | undefined }
    | { code: "faster-than-paper"; place: string }
    | { code: "off-rated-speed"; place: string; revolutions: number; ratedRevolutions: number }
    | { code: "blade-stands"; place: string }
    | { code: "too-slow-to-cut"; place: string; leastMetresPerSecond: number };
  provisional:
    | { code: "spindle-unread"; place: string }
    | { code: "tip-circle-estimated"; place: string }
    | { code: "tip-circle-contradicted"; place: string; metres: number; otherMetres: number };
  problem: { code: "unknown-spindle"; place: string };
};

export const tipSpeedCheck: Check<SpeedReadings, SpeedDetail, Says> = {
  id: "tip-speed",
  ruleVersion: 9,
  cautions: ["covers-stay-on"],
  readingsSchema: speedReadingsSchema,
  missing: (machine) => (machine.spindles.length === 0 ? ["no-spindles"] : []),
  problems: (machine, { spindles }) =>
    unknownPlaces({ read: spindles, known: machine.spindles, path: "spindles", code: "unknown-spindle" }),
  form: speedForm,
  isOnPaper: ({ spindles, groundMetresPerSecond }) =>
    groundMetresPerSecond === undefined &&
    Object.values(spindles).every((one) => Object.keys(one).every((key) => key === "drivenPitchMetres")),
  assess,
};

function assess(machine: Machine, readings: SpeedReadings): Assessment<SpeedDetail, Says> {
  const known = machine.spindles.map((spindle) => readSpindle(machine, spindle, readings));
  const read = known.flatMap(({ spindleId, noLoad }) => (noLoad === undefined ? [] : [{ spindleId, ...noLoad }]));
  const unread = known.filter(({ noLoad }) => noLoad === undefined);
  const biteMetres = biteOf(machine, known, readings.groundMetresPerSecond);
  const figures = figuresOf({ machine, known, biteMetres });
  const pattern = patternOf(machine, known);
  const findings = known.flatMap((one) => findingsAt(machine, one, figures));
  return {
    check: "tip-speed",
    ruleVersion: tipSpeedCheck.ruleVersion,
    ...settled({
      check: "tip-speed",
      findings: [...findings, ...clutchFindings(readings.clutch)],
      figures,
      evidence: [
        ...evidenceOf({
          machine,
          known,
          pattern,
          isLabouring: figures.some(({ id, verdict }) => id === "droop" && verdict === "out"),
        }),
        ...clutchEvidence(readings.clutch),
      ],
      told: known
        .flatMap(({ spindleId, paper, noLoad }) => [
          ...(noLoad ? [spindleId] : []),
          // Measured is better than reckoned: it clears what paper said, never the other way round.
          ...(paper || noLoad ? [`${spindleId}#${ON_PAPER}`] : []),
        ])
        .concat(readings.clutch === undefined ? [] : [CLUTCH]),
      isComplete: unread.length === 0,
    }),
    provisional: [
      ...unread.map(({ spindleId }) => ({ code: "spindle-unread" as const, place: spindleId })),
      ...machine.spindles.flatMap((spindle) => circleDoubts(machine, spindle)),
    ],
    figures,
    actions: [
      ...actionsOf(figures),
      ...findings.filter(({ code }) => code === "not-as-geared").map(({ place }) => ({ code: "read-speed-again" as const, place })),
      ...(readings.clutch === "slips-in" || readings.clutch === "drags-off"
        ? [{ code: "see-to-clutch" as const, how: readings.clutch }]
        : []),
    ],
    warnings: known.flatMap((one) => warningsFor(machine, one)),
    detail: { pattern, spindles: read, known, ...(biteMetres === undefined ? {} : { biteMetres }) },
  };
}

/** A speed stands on the circle it was reckoned with. */
function circleDoubts(machine: Machine, spindle: Machine["spindles"][number]): Says["provisional"][] {
  const { metres, otherMetres, doubt } = tipCircleOf(machine, spindle);
  const place = spindle.id;
  if (doubt === "estimated") return [{ code: "tip-circle-estimated", place }];
  return doubt === "contradicted" && otherMetres !== undefined ? [{ code: "tip-circle-contradicted", place, metres, otherMetres }] : [];
}

const ON_PAPER = "paper";
const CLUTCH = "clutch";

function clutchFindings(clutch: SpeedReadings["clutch"]): Finding[] {
  return clutch === undefined ? [] : [{ place: CLUTCH, code: clutch, verdict: clutch === "at-once" ? "in-tolerance" : "out" }];
}

function clutchEvidence(clutch: SpeedReadings["clutch"]): Evidence[] {
  if (clutch === undefined) return [];
  return [{ check: "tip-speed", cause: "pto-failing", result: clutch === "at-once" ? "not-found" : "seen" }];
}

/** What a figure that is off says of its spindle. */
const FOUND: Readonly<Record<string, string>> = table({
  "tip-speed": "too-slow",
  "spindle-speed": "slower",
  slip: "slips",
  "loaded-tip-speed": "too-slow",
  droop: "loses-speed",
  "low-charge-tip-speed": "sags",
});

/** No pulley is mistaken by this much without another being on it, or the governor set up. Estimate. */
const MUCH_FASTER = 0.1;

/** All that is off at a spindle, each thing once; right only where it was measured and nothing is. */
function findingsAt(machine: Machine, { spindleId: place, noLoad, slip }: ReadSpindle, figures: readonly Figure[]): Finding[] {
  const own = figures.filter((figure) => figure.place === place);
  const stops = own.filter(({ verdict }) => verdict === "stop");
  const over = [
    ...(stops.some(({ id }) => id === "paper-tip-speed") ? [{ place, on: ON_PAPER, code: "over-limit", verdict: "stop" as const }] : []),
    ...(stops.some(({ id }) => id !== "paper-tip-speed") ? [{ place, code: "over-limit", verdict: "stop" as const }] : []),
  ];
  if (noLoad === undefined) return over;
  if (noLoad.revolutionsPerMinute === 0) return [...over, { place, code: "stands", verdict: "out" }];
  const out = [...new Set(own.flatMap(({ id, verdict }) => (verdict === "out" ? (FOUND[id] ?? []) : [])))];
  const off: Finding[] = [...over, ...out.map((code): Finding => ({ place, code, verdict: "out" }))];
  // Paper and tachometer disagree: one of the two is wrong, and until it is known which, neither clears the drive.
  const isFast = slip !== undefined && slip < -FASTER_THAN_PAPER;
  if (isFast) return [...off, { place, code: "faster-than-paper", verdict: slip < -MUCH_FASTER ? "out" : "watch" }];
  // Teeth and shafts do not slip: a blade slower than they give was read wrong, or the engine runs slower than was told.
  if (slip !== undefined && paperWay(machine) !== "belt" && slip > FASTER_THAN_PAPER)
    return [...off, { place, code: "not-as-geared", verdict: slip > MOST_SLIP ? "out" : "watch" }];
  if (off.length > 0) return off;
  return own.some(({ verdict }) => verdict === "watch")
    ? [{ place, code: "near-limit", verdict: "watch" }]
    : [{ place, code: "right", verdict: "in-tolerance" }];
}

/** Of the slowest blade at work, else as it runs without load. */
function biteOf(machine: Machine, known: readonly ReadSpindle[], groundMetresPerSecond: number | undefined): number | undefined {
  const turning = known.flatMap(({ loaded, noLoad }) => (loaded ?? noLoad)?.revolutionsPerMinute ?? []).filter((one) => one > 0);
  if (groundMetresPerSecond === undefined || turning.length === 0) return undefined;
  return bite({
    groundMetresPerSecond,
    edges: machine.sheet.blade?.edges ?? 2,
    radiansPerSecond: Math.min(...turning) * RADIANS,
  });
}

function actionsOf(figures: Assessment["figures"]): Says["action"][] {
  const isOut = (id: string) => figures.some((figure) => figure.id === id && figure.verdict === "out");
  return [
    ...(isOut("droop") ? [{ code: "look-for-load" as const }] : []),
    ...(isOut("low-charge-tip-speed") ? [{ code: "charge-sooner" as const }] : []),
    ...(isOut("bite") ? [{ code: "full-throttle" as const }] : []),
  ];
}

function warningsFor(machine: Machine, one: ReadSpindle): Says["warning"][] {
  const { spindleId: place, noLoad, paper, loaded, lowCharge } = one;
  const rated = machine.sheet.blade?.ratedRevolutionsPerMinute;
  const isOffRated =
    rated !== undefined &&
    noLoad !== undefined &&
    noLoad.revolutionsPerMinute > 0 &&
    Math.abs(noLoad.revolutionsPerMinute / rated - 1) > OFF_RATED;
  const offRated = isOffRated
    ? [{ code: "off-rated-speed" as const, place, revolutions: noLoad.revolutionsPerMinute, ratedRevolutions: rated }]
    : [];
  const over = [noLoad, loaded, lowCharge, paper].some((speed) => speed !== undefined && speed.metresPerSecond >= TIP_SPEED_LIMIT);
  if (over)
    return [
      ...offRated,
      { code: "over-tip-speed-limit" as const, place, limitMetresPerSecond: TIP_SPEED_LIMIT, mostRevolutions: mostTurning(machine, place) },
    ];
  const fast = one.slip !== undefined && one.slip < -FASTER_THAN_PAPER ? [{ code: "faster-than-paper" as const, place }] : [];
  if (noLoad?.revolutionsPerMinute === 0) return [{ code: "blade-stands" as const, place }];
  const slowest = Math.min(...[noLoad, loaded, lowCharge].flatMap((speed) => speed?.metresPerSecond ?? []));
  return [
    ...offRated,
    ...fast,
    ...(slowest < TEARS_BELOW ? [{ code: "too-slow-to-cut" as const, place, leastMetresPerSecond: TEARS_BELOW }] : []),
  ];
}

/** So far from what the sheet says the blade turns at, one of the two is wrong: another pulley, governor or blade than the sheet's. Estimate. */
const OFF_RATED = 0.1;

/** Measured so much over what the pulleys give: outside diameters for pitch diameters, or the governor. Estimate. */
const FASTER_THAN_PAPER = 0.02;

/** A limit is rounded down: the whole revolutions a minute that still stay under it. */
export function mostTurning(machine: Machine, spindleId: string): number {
  const spindle = machine.spindles.find(({ id }) => id === spindleId);
  return spindle ? Math.ceil((2 * TIP_SPEED_LIMIT) / tipCircleOf(machine, spindle).metres / RADIANS) - 1 : 0;
}
