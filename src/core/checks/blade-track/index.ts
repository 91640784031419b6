import * as z from "zod";
import { type Figure, type Finding, judgeDeviation } from "@/core/basics/findings";
import { physical } from "@/core/basics/units/physical";
import { featuresOf } from "@/core/catalogue/kinds";
import { type Machine, pointOf, spindlesAcross } from "@/core/machine";
import { type Form, readAt } from "../form";
import { evidenceOf, settled, shows } from "../settled";
import type { Assessment, Check } from "../types";
import { unknownPlaces } from "../verdicts";

/** Ends of a straight blade on a straight shaft pass one point within this. Common practice: 1/16 in. */
export const TRACK_TOLERANCE_METRES = 0.0015;

const height = physical("metres", 0.4);

export const trackReadingsSchema = z.object({
  blades: z
    .record(
      z.string(),
      z.object({
        /** End at the side of the shaft that was marked, and the other end, past one point of the deck's edge. */
        markedMetres: height.optional(),
        otherMetres: height.optional(),
        /** The same with the blade turned end for end; the mark stays on the shaft. */
        swappedMarkedMetres: height.optional(),
        swappedOtherMetres: height.optional(),
      }),
    )
    .default({}),
});

export type TrackReadings = z.output<typeof trackReadingsSchema>;

export type Track = {
  spindleId: string;
  /** Marked less other, as found. */
  firstMetres: number;
  /** The same after the swap. */
  secondMetres?: number;
  /** What stays with the shaft and what swaps with the blade. */
  shaftMetres?: number;
  bladeMetres?: number;
};

type Says = {
  action:
    | { code: "swap-blade"; place: string }
    | { code: "scrap-blade"; place: string; reason: string }
    | { code: "change-shaft"; place: string }
    | { code: "hold-for-crankshaft"; place: string };
  warning: { code: "never-straighten" };
  provisional: { code: "place-unread"; place: string } | { code: "not-swapped"; place: string };
  problem: { code: "unknown-spindle"; place: string };
};

export const bladeTrack: Check<TrackReadings, { tracks: Track[] }, Says> = {
  id: "blade-track",
  ruleVersion: 3,
  cautions: ["turn-by-hand"],
  readingsSchema: trackReadingsSchema,
  missing: (machine) => (machine.spindles.length === 0 ? ["no-spindles"] : []),
  problems: (machine, { blades }) => unknownPlaces({ read: blades, known: machine.spindles, path: "blades", code: "unknown-spindle" }),
  form: formOf,
  assess,
};

/**
 * Shaft and blade told apart by the swap (physics): d1 = shaft + blade, d2 = shaft − blade, so the shaft's part is (d1 + d2)/2 and the
 * blade's (d1 − d2)/2. Without the swap only d1. `undefined` until both ends were read.
 */
export function trackOf(spindleId: string, read: TrackReadings["blades"][string]): Track | undefined {
  if (read.markedMetres === undefined || read.otherMetres === undefined) return undefined;
  const firstMetres = read.markedMetres - read.otherMetres;
  if (read.swappedMarkedMetres === undefined || read.swappedOtherMetres === undefined) return { spindleId, firstMetres };
  const secondMetres = read.swappedMarkedMetres - read.swappedOtherMetres;
  return {
    spindleId,
    firstMetres,
    secondMetres,
    shaftMetres: (firstMetres + secondMetres) / 2,
    bladeMetres: (firstMetres - secondMetres) / 2,
  };
}

const END_RANGE = { least: 0.003, most: 0.4, usualLeast: 0.012, usualMost: 0.2 } as const;

function formOf(machine: Machine, soFar: unknown): Form {
  const across = spindlesAcross(machine);
  return {
    groups: across.map((spindle) => ({ id: spindle.id, label: spindle.label, at: pointOf(spindle) })),
    fields: across.flatMap(({ id }): Form["fields"] => {
      const read = readAt(soFar, ["blades", id]) as TrackReadings["blades"][string] | undefined;
      const track = read && trackOf(id, read);
      const wantsSwap = track !== undefined && isOver(track.firstMetres);
      const end = (name: keyof TrackReadings["blades"][string], label: string, isOptional = false) => ({
        kind: "quantity" as const,
        path: ["blades", id, name],
        group: id,
        label,
        dimension: "length" as const,
        instrument: "tape" as const,
        range: END_RANGE,
        ...(isOptional ? { isOptional } : {}),
      });
      return [
        end("markedMetres", "End at the marked side"),
        end("otherMetres", "Other end, same point"),
        ...(wantsSwap || read?.swappedMarkedMetres !== undefined
          ? [
              end("swappedMarkedMetres", "Blade turned end for end: end at the mark", true),
              end("swappedOtherMetres", "Turned: other end", true),
            ]
          : []),
      ];
    }),
  };
}

const isOver = (metres: number) => judgeDeviation({ deviation: metres, tolerance: TRACK_TOLERANCE_METRES }) === "out";

function assess(machine: Machine, { blades }: TrackReadings): Assessment<{ tracks: Track[] }, Says> {
  const tracks = spindlesAcross(machine).flatMap(({ id }): Track[] => {
    const read = blades[id];
    const track = read && trackOf(id, read);
    return track ? [track] : [];
  });
  const unread = machine.spindles.filter(({ id }) => !tracks.some(({ spindleId }) => spindleId === id));
  const findings = tracks.flatMap((track) => findingsAt(machine, track));
  const open = tracks.some(needsSwap);
  const shaft = shaftCause(machine);
  const isClear = unread.length === 0 && !open;
  const told = evidenceOf({ check: "blade-track", findings, clears: clearsOf(shaft, isClear) });
  return {
    check: "blade-track",
    ruleVersion: bladeTrack.ruleVersion,
    ...settled({
      check: "blade-track",
      findings,
      // Until it is turned end for end it is one of the two, and one reading does not count for each.
      evidence: [...(open ? [{ check: "blade-track", causes: ["blade-bent", shaft], result: "suspect" as const }] : []), ...told],
      told: tracks.filter((track) => !needsSwap(track)).map(({ spindleId }) => spindleId),
      isComplete: unread.length === 0,
    }),
    provisional: [
      ...unread.map(({ id }) => ({ code: "place-unread" as const, place: id })),
      ...tracks.filter(needsSwap).map(({ spindleId }) => ({ code: "not-swapped" as const, place: spindleId })),
    ],
    figures: tracks.flatMap(figuresOf),
    actions: tracks.flatMap((track) => actionsOf(machine, track)),
    warnings: tracks
      .filter(({ bladeMetres }) => bladeMetres !== undefined && isOver(bladeMetres))
      .map(() => ({ code: "never-straighten" as const }))
      .slice(0, 1),
    detail: { tracks },
  };
}

/** Of a blade on the engine's own shaft a track that runs true clears the crankshaft, and no key: a sheared one bends nothing. */
function clearsOf(shaft: string, isClear: boolean): Record<string, boolean> {
  return { "blade-bent": isClear, [shaft]: isClear };
}

const needsSwap = ({ firstMetres, bladeMetres }: Track) => bladeMetres === undefined && isOver(firstMetres);

/** What a track shows: blade and shaft apart once it was turned end for end, both where both are bent. */
function findingsAt(machine: Machine, { spindleId: place, firstMetres, bladeMetres, shaftMetres }: Track): Finding[] {
  const verdict = judgeDeviation({ deviation: firstMetres, tolerance: TRACK_TOLERANCE_METRES });
  if (bladeMetres === undefined || shaftMetres === undefined)
    return [{ place, code: verdict === "out" ? "blade-or-shaft" : "straight", verdict }];
  const bent: Finding[] = [
    ...(isOver(bladeMetres) ? [{ place, code: "blade-bent", verdict: "out" as const, causes: shows("blade-bent") }] : []),
    ...(isOver(shaftMetres) ? [{ place, code: "shaft-bent", verdict: "out" as const, causes: shows(shaftCause(machine)) }] : []),
  ];
  return bent.length > 0 ? bent : [{ place, code: "straight", verdict: verdict === "out" ? "watch" : verdict }];
}

function figuresOf({ spindleId, firstMetres, bladeMetres, shaftMetres }: Track): Figure[] {
  const figure = (id: string, value: number): Figure => ({
    id,
    place: spindleId,
    value,
    dimension: "length",
    instrument: "fine",
    tolerance: { kind: "about", target: 0, plusMinus: TRACK_TOLERANCE_METRES, standing: "common-practice" },
    verdict: judgeDeviation({ deviation: value, tolerance: TRACK_TOLERANCE_METRES }),
    standing: "measured",
  });
  return [
    figure("end-to-end", firstMetres),
    ...(bladeMetres === undefined ? [] : [figure("blade-part", bladeMetres)]),
    ...(shaftMetres === undefined ? [] : [figure("shaft-part", shaftMetres)]),
  ];
}

/** What bends where a shaft is the engine's own. */
function shaftCause(machine: Machine): string {
  const features = featuresOf(machine);
  return features.includes("direct-drive") && features.includes("combustion") ? "crankshaft-bent" : "spindle-shaft-bent";
}

function actionsOf(machine: Machine, track: Track): Says["action"][] {
  const place = track.spindleId;
  if (needsSwap(track)) return [{ code: "swap-blade", place }];
  const isShaft = track.shaftMetres !== undefined && isOver(track.shaftMetres);
  const isCrank = shaftCause(machine) === "crankshaft-bent";
  return [
    ...(track.bladeMetres !== undefined && isOver(track.bladeMetres) ? [{ code: "scrap-blade" as const, place, reason: "bend" }] : []),
    ...(isShaft ? [{ code: isCrank ? ("hold-for-crankshaft" as const) : ("change-shaft" as const), place }] : []),
  ];
}
