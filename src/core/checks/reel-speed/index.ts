import * as z from "zod";
import { type Figure, type Finding, judgeDeviation, type Verdict } from "@/core/basics/findings";
import { physical } from "@/core/basics/units/physical";
import { isRider, type Machine, unitSheetOf, unitsAcross } from "@/core/machine";
import {
  bladesSuit,
  CLIP_SHARE,
  callClip,
  clipOf,
  DRAW,
  fourthOf,
  type RippleCandidate,
  rippleCusp,
  rippleRise,
  rippleSources,
  secondSpeedParts,
  turnsForClip,
  turnsFromRipples,
} from "@/core/physics/reel";
import { heightOfAll, noUnits, unitGroups, unknownUnits } from "../by-unit";
import { choices, type Form } from "../form";
import { FASTEST_METRES_PER_SECOND, NEAR_SHARE } from "../ground-speed";
import { bySize, pointsAt, settled, shows } from "../settled";
import { timedRun } from "../timed-run";
import type { Assessment, Check } from "../types";

/** Under the sheet's reel speed by more than this share, loaded: engine, belt or oil is slow. Estimate. */
export const SLOW_SHARE = 0.05;

const ripplesSchema = z.object({
  lengthMetres: physical("metres", 20).optional(),
  count: z.number().int().min(1).max(200).optional(),
  secondLengthMetres: physical("metres", 20).optional(),
  secondCount: z.number().int().min(1).max(200).optional(),
  /** How much faster or slower the second time. */
  speedRatio: z.number().min(0.2).max(5).optional(),
});

const asKept = z.object({
  distanceMetres: physical("metres", 2000).optional(),
  seconds: z.array(physical("seconds", 3600)).max(20).default([]),
  heightMetres: physical("metres", 0.1).optional(),
  /** Of all reels that say nothing else for themselves. */
  loaded: z.enum(["loaded", "idle"]).optional(),
  units: z
    .record(
      z.string(),
      z.object({
        revolutionsPerMinute: physical("revolutionsPerMinute", 10_000).optional(),
        loaded: z.enum(["loaded", "idle"]).optional(),
      }),
    )
    .default({}),
  ripples: ripplesSchema.optional(),
});

/** Readings of an older rule say it unit by unit: where all say the same, the question for all is answered too. */
export const reelSpeedReadingsSchema = asKept.transform((readings) => {
  const [only, ...more] = new Set(Object.values(readings.units).map(({ loaded }) => loaded));
  return only === undefined || more.length > 0 || readings.loaded !== undefined ? readings : { ...readings, loaded: only };
});
export type ReelSpeedReadings = z.output<typeof reelSpeedReadingsSchema>;

const loadedOf = ({ units, loaded }: ReelSpeedReadings, id: string) => units[id]?.loaded ?? loaded;
const READ_WHILE = choices(["loaded", "Mowing"], ["idle", "Without grass"]);

export type Clip = {
  unit: string;
  clipMetres: number;
  call: ReturnType<typeof callClip>;
  fastestMetresPerSecond: number;
  slowestMetresPerSecond: number;
};
export type ReelSpeedDetail = {
  metresPerSecond?: number;
  heightMetres?: number;
  clips: Clip[];
  ripples?: {
    spacingMetres: number;
    sources: RippleCandidate[];
    asksSecondSpeed: boolean;
    turns: { revolutionsPerMinute: number; plusMinus: number };
  };
};

type Says = {
  action:
    | { code: "drive-between"; leastMetresPerSecond: number; mostMetresPerSecond: number }
    | { code: "reel-faster"; place: string; revolutions: number }
    | { code: "reel-slower"; place: string; revolutions: number }
    | { code: "full-throttle-first" }
    | { code: "look-at-own-drive"; place: string }
    | { code: "height-for-clip"; leastMetres: number; mostMetres: number }
    | { code: "second-speed" };
  warning:
    | { code: "blades-for-height"; place: string; blades: number; says: string }
    | { code: "ground-driven" }
    | { code: "both-fall" }
    | { code: "operating-finding" };
  provisional:
    | { code: "unit-unread"; place: string }
    | { code: "no-speed" }
    | { code: "no-height" }
    | { code: "one-run" }
    | { code: "not-loaded"; place: string };
  problem: { code: "unknown-unit"; place: string };
};

/** Reel speed, ground speed and height: how far the machine goes from one reel blade's cut to the next, and what that leaves. */
export const reelSpeed: Check<ReelSpeedReadings, ReelSpeedDetail, Says> = {
  id: "reel-speed",
  ruleVersion: 3,
  readingsSchema: reelSpeedReadingsSchema,
  missing: (machine) => [
    ...noUnits(machine),
    ...(machine.units.some(({ id }) => !unitSheetOf(machine, id).reel) ? ["no-blade-count"] : []),
  ],
  problems: (machine, { units }) => unknownUnits(machine, units),
  form: formOf,
  assess,
};

function formOf(machine: Machine): Form {
  return {
    groups: [
      { id: "run", label: "Timed over a distance, mowing" },
      ...unitGroups(machine),
      { id: "ripples", label: "Ripples on the turf", isFolded: true, note: "Measure over several and count them." },
    ],
    fields: [
      ...timedRun("run"),
      heightOfAll(machine, "run"),
      // Asked once, before the figures: an answer between two of them would take the next one's first digit.
      { kind: "choice", path: ["loaded"], group: "run", label: "Reels read", options: READ_WHILE },
      ...unitsAcross(machine).flatMap(({ id }) => [
        {
          kind: "quantity" as const,
          path: ["units", id, "revolutionsPerMinute"],
          group: id,
          label: "Reel turns at",
          dimension: "rotation" as const,
          instrument: "gauge" as const,
          range: { least: 1, most: 10_000, usualLeast: 300, usualMost: 2600 },
        },
      ]),
      ...(
        [
          ["lengthMetres", "count", "Length over all of them", "How many ripples that is"],
          ["secondLengthMetres", "secondCount", "At a second speed: length", "How many ripples that is"],
        ] as const
      ).flatMap(([size, count, sizeLabel, countLabel]) => [
        {
          kind: "quantity" as const,
          path: ["ripples", size],
          group: "ripples",
          label: sizeLabel,
          isOptional: true,
          dimension: "length" as const,
          instrument: "gauge" as const,
          range: { least: 0.002, most: 20, usualLeast: 0.01, usualMost: 8 },
        },
        {
          kind: "number" as const,
          path: ["ripples", count],
          group: "ripples",
          label: countLabel,
          isOptional: true,
          least: 1,
          most: 200,
          isWhole: true,
        },
      ]),
      {
        kind: "number",
        path: ["ripples", "speedRatio"],
        group: "ripples",
        label: "Second speed, as a share of the first",
        isOptional: true,
        least: 0.2,
        most: 5,
      },
    ],
  };
}

const speedOf = ({ distanceMetres, seconds }: ReelSpeedReadings): number | undefined =>
  distanceMetres === undefined || seconds.length === 0
    ? undefined
    : (distanceMetres * seconds.length) / seconds.reduce((sum, one) => sum + one, 0);

function clipAt(machine: Machine, unit: string, readings: ReelSpeedReadings): Clip[] {
  const speed = speedOf(readings);
  const blades = unitSheetOf(machine, unit).reel?.blades;
  const turns = readings.units[unit]?.revolutionsPerMinute;
  const { heightMetres: height } = readings;
  if (speed === undefined || blades === undefined || turns === undefined || height === undefined) return [];
  const clipMetres = clipOf({ groundMetresPerSecond: speed, blades, revolutionsPerMinute: turns });
  const window = fourthOf({ blades, revolutionsPerMinute: turns, heightMetres: height })?.window ?? { least: 0, most: 0 };
  return [
    { unit, clipMetres, call: callClip(clipMetres, height), fastestMetresPerSecond: window.most, slowestMetresPerSecond: window.least },
  ];
}

const VERDICT_OF: Record<Clip["call"], Verdict> = { ripples: "out", browns: "out", short: "watch", best: "in-tolerance" };
/** How a clip stands to the height of cut: a little longer it is watched, as a speed a little over is. */
function judgeClip({ clipMetres, call }: Clip, heightMetres: number | undefined): Verdict {
  const isNear = call === "ripples" && heightMetres !== undefined && clipMetres <= heightMetres * CLIP_SHARE.ripples * (1 + NEAR_SHARE);
  return isNear ? "watch" : VERDICT_OF[call];
}

/** Share by which a reel is under its sheet, loaded. */
function slowBy(machine: Machine, turns: number): number | undefined {
  const rated = machine.sheet.reelDrive?.isGroundDriven ? undefined : machine.sheet.reelDrive?.revolutionsPerMinute;
  return rated === undefined ? undefined : 1 - turns / rated;
}

/** How slow a reel is against its sheet. `undefined` where it was not read or has no speed of its own. */
function slowness(machine: Machine, place: string, readings: ReelSpeedReadings): { share: number; verdict: Verdict } | undefined {
  const { revolutionsPerMinute: turns } = readings.units[place] ?? {};
  const share = turns === undefined ? undefined : slowBy(machine, turns);
  return share === undefined ? undefined : { share, verdict: judgeDeviation({ deviation: Math.max(0, share), tolerance: SLOW_SHARE }) };
}

/**
 * What slow reels speak to: all of them to the engine that drives them all, by how slow the least slow is; one among others that are not, to what
 * drags or drives that one. While a reel is unread, the slow ones only point at the engine.
 */
function causesOfSlow(machine: Machine, readings: ReelSpeedReadings): Finding["causes"] {
  const all = machine.units.map(({ id }) => slowness(machine, id, readings));
  const read = all.filter((one) => one !== undefined);
  if (read.some(({ verdict }) => verdict !== "out")) return pointsAt("reel-bearing-worn", "contact-tight");
  if (read.length < all.length) return pointsAt("engine-speed-low");
  return bySize(Math.min(...read.map(({ share }) => share)), SLOW_SHARE, "engine-speed-low");
}

function findingsAt(machine: Machine, place: string, readings: ReelSpeedReadings, [clip]: readonly Clip[]): Finding[] {
  const speed = slowness(machine, place, readings)?.verdict;
  const isOver = clip !== undefined && judgeClip(clip, readings.heightMetres) === "out";
  const off: Finding[] = [
    ...(clip?.call === "ripples" && !isOver
      ? [{ place, code: "clip-longish", verdict: "watch" as const, causes: pointsAt("clip-too-long") }]
      : []),
    ...(clip?.call === "ripples" && isOver ? [{ place, code: "clip-long", verdict: "out" as const, causes: shows("clip-too-long") }] : []),
    ...(clip?.call === "browns" ? [{ place, code: "clip-short", verdict: "out" as const, causes: shows("clip-too-short") }] : []),
    ...(clip?.call === "short" ? [{ place, code: "clip-shortish", verdict: "watch" as const }] : []),
    ...(speed === "out" ? [{ place, code: "reel-slow", verdict: "out" as const, causes: causesOfSlow(machine, readings) ?? [] }] : []),
    ...(speed === "watch" ? [{ place, code: "reel-near-slow", verdict: "watch" as const }] : []),
  ];
  return off.length === 0 && clip ? [{ place, code: "right", verdict: "in-tolerance" }] : off;
}

function assess(machine: Machine, readings: ReelSpeedReadings): Assessment<ReelSpeedDetail, Says> {
  const across = unitsAcross(machine);
  const clips = across.flatMap(({ id }) => clipAt(machine, id, readings));
  const speed = speedOf(readings);
  const isTold = (id: string) => clips.some(({ unit }) => unit === id) && loadedOf(readings, id) !== undefined;
  const told = across.filter(({ id }) => isTold(id)).map(({ id }) => id);
  const isComplete = told.length === across.length;
  const findings = across.flatMap(({ id }) =>
    findingsAt(
      machine,
      id,
      readings,
      clips.filter(({ unit }) => unit === id),
    ),
  );
  const isLoaded = across.every(({ id }) => loadedOf(readings, id) === "loaded");
  const { isGroundDriven = false, fallsWithEngine, revolutionsPerMinute: rated } = machine.sheet.reelDrive ?? {};
  const ripples = ripplesOf(machine, readings);
  const isOperating = clips.some(({ call }) => call === "ripples" || call === "browns");
  return {
    check: "reel-speed",
    ruleVersion: reelSpeed.ruleVersion,
    ...settled({
      check: "reel-speed",
      findings,
      clears: {
        "clip-too-long": isComplete && !findings.some(({ code }) => code === "clip-longish"),
        "clip-too-short": isComplete,
        // Only a reel that works shows an engine that sags, and only against its sheet.
        "engine-speed-low": isComplete && isLoaded && rated !== undefined && !isGroundDriven,
      },
      told,
      isComplete,
    }),
    provisional: [
      ...(speed === undefined ? [{ code: "no-speed" as const }] : []),
      ...(readings.heightMetres === undefined ? [{ code: "no-height" as const }] : []),
      ...(readings.seconds.length === 1 ? [{ code: "one-run" as const }] : []),
      ...across.flatMap(({ id }): Says["provisional"][] => {
        if (readings.units[id]?.revolutionsPerMinute === undefined || loadedOf(readings, id) === undefined)
          return [{ code: "unit-unread", place: id }];
        return loadedOf(readings, id) === "idle" ? [{ code: "not-loaded", place: id }] : [];
      }),
    ],
    figures: [...figuresOf(machine, readings, clips, speed), ...measuredRipples(readings, ripples)],
    actions: [...actionsOf(machine, readings, clips, findings), ...(ripples?.asksSecondSpeed ? [{ code: "second-speed" as const }] : [])],
    warnings: [
      ...across.flatMap(({ id }): Says["warning"][] => {
        const blades = unitSheetOf(machine, id).reel?.blades;
        if (blades === undefined || readings.heightMetres === undefined) return [];
        const says = bladesSuit(blades, readings.heightMetres);
        return says === "suits" ? [] : [{ code: "blades-for-height", place: id, blades, says }];
      }),
      ...(isGroundDriven ? [{ code: "ground-driven" as const }] : []),
      ...(fallsWithEngine === "reel-and-travel" && findings.some(({ code }) => code === "reel-slow")
        ? [{ code: "both-fall" as const }]
        : []),
      ...(isOperating && !isGroundDriven ? [{ code: "operating-finding" as const }] : []),
    ],
    detail: {
      clips,
      ...(speed === undefined ? {} : { metresPerSecond: speed }),
      ...(readings.heightMetres === undefined ? {} : { heightMetres: readings.heightMetres }),
      ...(ripples ? { ripples } : {}),
    },
  };
}

/** Ripples on the turf, read back to what made them; told with the first unit's reel, as the sheet's speed where none was read. */
function ripplesOf(machine: Machine, readings: ReelSpeedReadings): ReelSpeedDetail["ripples"] {
  const { lengthMetres, count, secondLengthMetres, secondCount, speedRatio } = readings.ripples ?? {};
  const speed = speedOf(readings);
  const [unit] = unitsAcross(machine);
  const sheet = unit && unitSheetOf(machine, unit.id);
  const turns = unit && (readings.units[unit.id]?.revolutionsPerMinute ?? machine.sheet.reelDrive?.revolutionsPerMinute);
  if (!sheet?.reel || speed === undefined || turns === undefined || lengthMetres === undefined || count === undefined) return undefined;
  const spacingMetres = lengthMetres / count;
  const second =
    secondLengthMetres !== undefined && secondCount !== undefined && speedRatio !== undefined
      ? { second: { spacingMetres: secondLengthMetres / secondCount, speedRatio } }
      : {};
  const driven = machine.wheels.find(({ isDriven }) => isDriven) ?? machine.wheels[0];
  const { sideView } = sheet;
  const sources = rippleSources(
    {
      groundMetresPerSecond: speed,
      blades: sheet.reel.blades,
      revolutionsPerMinute: turns,
      ...(sideView ? { frontRollerMetres: 2 * sideView.front.radiusMetres, rearRollerMetres: 2 * sideView.rear.radiusMetres } : {}),
      ...(driven ? { tyreMetres: driven.diameterMetres } : {}),
      isGroundDriven: machine.sheet.reelDrive?.isGroundDriven ?? false,
    },
    { spacingMetres, isTimed: true, ...second },
  );
  return {
    spacingMetres,
    sources,
    asksSecondSpeed: !("second" in second) && secondSpeedParts(sources),
    turns: turnsFromRipples({ groundMetresPerSecond: speed, blades: sheet.reel.blades, spacingMetres, speedError: 0.03 }),
  };
}

function figuresOf(machine: Machine, readings: ReelSpeedReadings, clips: readonly Clip[], speed: number | undefined): Figure[] {
  const { heightMetres: height } = readings;
  return [
    ...(speed === undefined
      ? []
      : [{ id: "travels", value: speed, dimension: "speed" as const, instrument: "fine" as const, standing: "measured" as const }]),
    ...clips.flatMap((clip): Figure[] => [
      {
        id: "clip",
        place: clip.unit,
        value: clip.clipMetres,
        dimension: "length",
        instrument: "fine",
        ...(height === undefined
          ? {}
          : {
              tolerance: {
                kind: "between" as const,
                least: height * CLIP_SHARE.browns,
                most: height * CLIP_SHARE.ripples,
                standing: "common-practice" as const,
              },
            }),
        verdict: judgeClip(clip, height),
        standing: "measured",
      },
      ...(height === undefined ? [] : rippleFigures(machine, clip, height)),
    ]),
    ...unitsAcross(machine).flatMap(({ id }): Figure[] => {
      const turns = readings.units[id]?.revolutionsPerMinute;
      const rated = machine.sheet.reelDrive?.isGroundDriven ? undefined : machine.sheet.reelDrive?.revolutionsPerMinute;
      return turns === undefined
        ? []
        : [
            {
              id: "reel-turns",
              place: id,
              value: turns,
              dimension: "rotation",
              instrument: "gauge",
              ...(rated === undefined
                ? {}
                : { tolerance: { kind: "between" as const, least: rated * (1 - SLOW_SHARE), standing: "estimate" as const } }),
              standing: "measured",
            },
          ];
    }),
  ];
}

/** Ripples lie between what the reel's own round leaves and what leaves drawn to the nearer cut would; how far they are drawn nobody knows. */
function rippleFigures(machine: Machine, { unit, clipMetres }: Clip, heightMetres: number): Figure[] {
  const diameter = unitSheetOf(machine, unit).reel?.newDiameterMetres;
  const figure = (id: string, value: number): Figure => ({
    id,
    place: unit,
    value,
    dimension: "length",
    instrument: "gauge",
    standing: "physics",
  });
  return [
    ...(diameter === undefined ? [] : [figure("ripple-cusp", rippleCusp({ clipMetres, reelRadiusMetres: diameter / 2 }))]),
    figure("ripple-rise", rippleRise({ heightMetres, clipMetres, draw: DRAW.usual })),
  ];
}

/** Slow reels among reels that are not want a look at what drives them; all slow, the throttle first. */
function slowActions(machine: Machine, readings: ReelSpeedReadings, findings: readonly Finding[]): Says["action"][] {
  const slow = findings.filter(({ code }) => code === "reel-slow");
  if (slow.length === 0) return [];
  const isOfAll = machine.units.every(({ id }) => (slowness(machine, id, readings)?.verdict ?? "out") === "out");
  return isOfAll ? [{ code: "full-throttle-first" }] : slow.map(({ place }) => ({ code: "look-at-own-drive", place }));
}

/** What all units allow together, no faster than is mown at. */
function actionsOf(machine: Machine, readings: ReelSpeedReadings, clips: readonly Clip[], findings: readonly Finding[]): Says["action"][] {
  const throttle = slowActions(machine, readings, findings);
  const off = clips.filter(({ call }) => call === "ripples" || call === "browns");
  const speed = speedOf(readings);
  const { heightMetres: height } = readings;
  if (off.length === 0 || speed === undefined || height === undefined) return throttle;
  // The ground turns the reel: neither speed changes the clip. What it leaves room for is the height.
  if (machine.sheet.reelDrive?.isGroundDriven) {
    const longest = Math.max(...clips.map(({ clipMetres }) => clipMetres));
    const shortest = Math.min(...clips.map(({ clipMetres }) => clipMetres));
    const [leastMetres, mostMetres] = [longest / CLIP_SHARE.ripples, shortest / CLIP_SHARE.browns];
    return leastMetres > mostMetres ? throttle : [...throttle, { code: "height-for-clip", leastMetres, mostMetres }];
  }
  const practice = isRider(machine) ? FASTEST_METRES_PER_SECOND.riding : FASTEST_METRES_PER_SECOND.walking;
  const most = Math.min(practice, ...clips.map(({ fastestMetresPerSecond }) => fastestMetresPerSecond));
  const least = Math.max(...clips.map(({ slowestMetresPerSecond }) => slowestMetresPerSecond));
  if (least < most) return [...throttle, { code: "drive-between", leastMetresPerSecond: least, mostMetresPerSecond: most }];
  return [
    ...throttle,
    ...off.flatMap(({ unit, call }): Says["action"][] => {
      const blades = unitSheetOf(machine, unit).reel?.blades ?? 0;
      const share = call === "ripples" ? CLIP_SHARE.ripples : CLIP_SHARE.browns;
      const revolutions = turnsForClip({ clipMetres: share * height, groundMetresPerSecond: speed, blades });
      return [{ code: call === "ripples" ? "reel-faster" : "reel-slower", place: unit, revolutions }];
    }),
  ];
}

/** What was counted on the turf, kept like every other reading; the turns that go with it only where a speed stands beside it. */
function measuredRipples({ ripples = {} }: ReelSpeedReadings, told: ReelSpeedDetail["ripples"]): Figure[] {
  const spacing = (id: string, lengthMetres: number | undefined, count: number | undefined): Figure[] =>
    lengthMetres === undefined || count === undefined
      ? []
      : [{ id, value: lengthMetres / count, dimension: "length", instrument: "gauge", standing: "measured" }];
  return [
    ...spacing("ripple-spacing", ripples.lengthMetres, ripples.count),
    ...spacing("ripple-spacing-second", ripples.secondLengthMetres, ripples.secondCount),
    ...(told
      ? [
          {
            id: "ripple-turns",
            value: told.turns.revolutionsPerMinute,
            dimension: "rotation" as const,
            instrument: "gauge" as const,
            standardError: told.turns.plusMinus,
            standing: "physics" as const,
          },
        ]
      : []),
  ];
}
