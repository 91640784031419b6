import { seededRandom } from "@/core/basics/random";
import { soundReadings, spoiled } from "@/core/checks/sound";
import type { Machine } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { type Field, keyOf } from "./form";
import { worksheetsFor } from "./registry";
import { machineOf } from "./sheets.fixtures";
import type { Assessment, Check } from "./types";

const SEED = 20_261_126;

export type Sheet = { name: string; machine: Machine; check: Check; fields: readonly Field[]; sound: Record<string, unknown> };
/** One answer changed on a sound machine. */
export type Spoil = { path: string; value: unknown; isChoice: boolean };

/** One machine of each make of form in the depot: the others ask the same. */
const MACHINES = FLEET.filter(({ fleetNumber }) =>
  ["ZT-1", "ZT-2", "FD-1", "GR-1", "BD-1", "WP-1", "WC-1", "RT-1", "RF-1", "RW-1"].includes(fleetNumber),
);

/** What the sheet says a new blade is: told in full, so that a wrong part can be cleared. */
function partOf({ sheet: { blade }, spindles }: Machine): object {
  const { lengthMetres, thicknessMetres, offsetMetres, widthMetres, lift, hole } = blade ?? {};
  const sizes = {
    lengthMetres,
    thicknessMetres,
    offsetMetres,
    widthMetres,
    lift,
    hole: hole?.shape,
    holeMetres: hole?.acrossMetres,
    secondMetres: hole?.secondMetres,
  };
  return Object.fromEntries(Object.entries({ ...sizes, turns: spindles[0]?.turns }).filter(([, value]) => value !== undefined));
}

/** Every worksheet with a form, each with readings on which it finds nothing and leaves nothing untold. Throws where there are none. */
export const SHEETS: readonly Sheet[] = MACHINES.flatMap(({ fleetNumber }) => {
  const machine = machineOf(fleetNumber);
  return worksheetsFor(machine).flatMap((check): Sheet[] => {
    if (!check.form) return [];
    const read = soundReadings({ machine, check: check.id, random: seededRandom(SEED), turf: "Verge" });
    if (!read) throw new Error(`no sound readings for ${check.id}`);
    const sound =
      check.id === "blade-fit"
        ? { ...read, use: machine.sheet.blade?.lift === "mulching" ? "mulch" : "discharge", part: partOf(machine) }
        : read;
    return [{ name: `${check.id} of ${fleetNumber}`, machine, check, fields: check.form(machine, sound).fields, sound }];
  });
});

/** Answers that could be given to a field: every other choice, and of a quantity its ends and a few on either side of what is read. */
function answersTo(field: Field, now: unknown): unknown[] {
  if (field.kind === "choice") return field.options.map(({ id }) => id).filter((id) => id !== now);
  if (field.kind === "number") return [field.least, (field.least + field.most) / 2, field.most].filter((value) => value !== now);
  if (field.kind !== "quantity") return [];
  const { least, most, usualLeast = least, usualMost = most } = field.range;
  const about = typeof now === "number" ? [0.5, 0.8, 0.95, 1.05, 1.2, 2].map((by) => now * by) : [];
  return [usualLeast, (usualLeast + usualMost) / 2, usualMost, ...about].filter(
    (value) => value >= least && value <= most && value !== now,
  );
}

function valueAt(tree: unknown, path: readonly string[]): unknown {
  return path.reduce<unknown>((here, part) => (here as Record<string, unknown> | undefined)?.[part], tree);
}

export function spoilsOf({ fields, sound }: Sheet): Spoil[] {
  return fields.flatMap((field) =>
    answersTo(field, valueAt(sound, field.path)).map((value) => ({ path: keyOf(field.path), value, isChoice: field.kind === "choice" })),
  );
}

/** With these answers changed; `undefined` where they contradict the machine and are refused. */
export function with_(sheet: Sheet, ...spoils: readonly Pick<Spoil, "path" | "value">[]): Assessment | undefined {
  const readings = spoiled(sheet.sound, Object.fromEntries(spoils.map(({ path, value }) => [path, value])));
  const parsed = sheet.check.readingsSchema.safeParse(JSON.parse(JSON.stringify(readings)));
  if (!parsed.success || sheet.check.problems(sheet.machine, parsed.data).length > 0) return undefined;
  return sheet.check.assess(sheet.machine, parsed.data);
}

/** What is said of each cause by results: a measured ratio counts as not there under one, as suspected over it. */
export function saidOf({ evidence }: Assessment): Map<string, "seen" | "suspect" | "not-found" | "unclear"> {
  return new Map(
    evidence.flatMap((one) =>
      "likelihoodRatio" in one
        ? [[one.cause, one.likelihoodRatio < 1 ? ("not-found" as const) : ("suspect" as const)] as const]
        : "causes" in one
          ? one.causes.map((cause) => [cause, one.result] as const)
          : [[one.cause, one.result] as const],
    ),
  );
}

/** What a stop is known by, and what clears it. */
export const keyOfFinding = ({ place, on }: { place: string; on?: string }) => (on === undefined ? place : `${place}#${on}`);
