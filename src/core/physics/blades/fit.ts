import type { BladeSheet, BoltGrade, HoleShape } from "@/core/machine";

/** A blade as it lies on the bench; what was not measured is left out. */
export type BladePart = {
  lengthMetres?: number | undefined;
  hole?: HoleShape | undefined;
  holeMetres?: number | undefined;
  thicknessMetres?: number | undefined;
  /** Over the flats, or from pin to pin. */
  secondMetres?: number | undefined;
  offsetMetres?: number | undefined;
  widthMetres?: number | undefined;
  lift?: "low" | "medium" | "high" | "mulching" | undefined;
  /** Seen from above, as it stands on the machine: the way it must turn for its edge to lead. */
  turns?: "clockwise" | "anticlockwise" | undefined;
};

/** What follows when part and machine do not agree (common practice); each is one reason why a blade does not fit. */
export type Mismatch =
  | { code: "longer"; consequence: "may-strike"; byMetres: number }
  | { code: "shorter"; consequence: "leaves-a-strip"; byMetres: number }
  | { code: "worn-shorter"; consequence: "worn-or-another-part"; byMetres: number }
  | { code: "other-hole"; consequence: "not-centred" }
  | { code: "hole-too-wide"; consequence: "not-centred"; byMetres: number }
  | { code: "hole-too-narrow"; consequence: "does-not-go-on"; byMetres: number }
  | { code: "other-offset"; consequence: "cuts-at-another-height"; byMetres: number }
  | { code: "other-thickness"; consequence: "clamps-elsewhere"; byMetres: number }
  | { code: "narrower"; consequence: "worn-or-another-part"; byMetres: number }
  | { code: "other-second"; consequence: "does-not-go-on"; byMetres: number }
  | { code: "mulching-with-catcher"; consequence: "does-not-fill" }
  | { code: "low-lift-with-bag"; consequence: "does-not-fill" }
  | { code: "high-lift-on-mulching"; consequence: "blows-and-wears" }
  | { code: "other-lift"; consequence: "moves-other-air" }
  | { code: "turns-the-other-way"; consequence: "cuts-with-its-back" };

/** How far a tape or calliper and making may be apart before it is another part. Estimates. */
export const FIT_WITHIN = { length: 0.003, hole: 0.0006, offset: 0.0015, thickness: 0.0008, width: 0.006 } as const;

/** Every way in which a blade does not agree with what the machine wants; empty where all that was told agrees. */
export function mismatches(
  wanted: BladeSheet,
  part: BladePart,
  machine: { turns?: "clockwise" | "anticlockwise" | undefined; hasCatcher: boolean; use?: DeckUse | undefined },
): Mismatch[] {
  return [
    ...sizeMismatches(wanted, part),
    ...holeMismatches(wanted, part),
    ...liftMismatches(wanted, part, machine.use ?? (machine.hasCatcher ? "bag" : undefined)),
    ...turnMismatch(part, machine.turns),
  ];
}

function off(value: number | undefined, wanted: number | undefined, within: number): number | undefined {
  if (value === undefined || wanted === undefined) return undefined;
  const by = value - wanted;
  return Math.abs(by) > within * (1 + 1e-9) ? by : undefined;
}

/** Whether a size that still agrees is so near to not agreeing, over two thirds of what it may be off, that the next reading may say otherwise. */
export function isNearPart(wanted: BladeSheet, part: BladePart): boolean {
  const sizes: [number | undefined, number | undefined, number][] = [
    [part.lengthMetres, wanted.lengthMetres, FIT_WITHIN.length],
    [part.offsetMetres, wanted.offsetMetres, FIT_WITHIN.offset],
    [part.thicknessMetres, wanted.thicknessMetres, FIT_WITHIN.thickness],
    [part.holeMetres, wanted.hole?.acrossMetres, FIT_WITHIN.hole],
    [part.secondMetres, wanted.hole?.secondMetres, FIT_WITHIN.hole],
  ];
  return sizes.some(([value, sheet, within]) => off(value, sheet, (within * 2) / 3) !== undefined);
}

function sizeMismatches(wanted: BladeSheet, part: BladePart): Mismatch[] {
  const length = off(part.lengthMetres, wanted.lengthMetres, FIT_WITHIN.length);
  const offset = off(part.offsetMetres, wanted.offsetMetres, FIT_WITHIN.offset);
  const thickness = off(part.thicknessMetres, wanted.thicknessMetres, FIT_WITHIN.thickness);
  const width = off(part.widthMetres, wanted.widthMetres, FIT_WITHIN.width);
  return [
    ...(length === undefined ? [] : [length > 0 ? longer(length) : isWear(wanted, part) ? wornShorter(-length) : shorter(-length)]),
    ...(offset === undefined ? [] : [{ code: "other-offset", consequence: "cuts-at-another-height", byMetres: offset } as const]),
    ...(thickness === undefined ? [] : [{ code: "other-thickness", consequence: "clamps-elsewhere", byMetres: thickness } as const]),
    ...(width === undefined || width > 0 ? [] : [{ code: "narrower", consequence: "worn-or-another-part", byMetres: -width } as const]),
  ];
}

/** Short, and still over the least the sheet lets it wear to: a tape cannot tell wear from another part. */
const isWear = ({ leastLengthMetres }: BladeSheet, { lengthMetres }: BladePart): boolean =>
  leastLengthMetres !== undefined && lengthMetres !== undefined && lengthMetres >= leastLengthMetres;

const wornShorter = (byMetres: number): Mismatch => ({ code: "worn-shorter", consequence: "worn-or-another-part", byMetres });
const longer = (byMetres: number): Mismatch => ({ code: "longer", consequence: "may-strike", byMetres });
const shorter = (byMetres: number): Mismatch => ({ code: "shorter", consequence: "leaves-a-strip", byMetres });

function holeMismatches({ hole }: BladeSheet, part: BladePart): Mismatch[] {
  if (!hole) return [];
  if (part.hole !== undefined && part.hole !== hole.shape) return [{ code: "other-hole", consequence: "not-centred" }];
  const by = off(part.holeMetres, hole.acrossMetres, FIT_WITHIN.hole);
  const second = off(part.secondMetres, hole.secondMetres, FIT_WITHIN.hole);
  const across: Mismatch[] =
    by === undefined
      ? []
      : by > 0
        ? [{ code: "hole-too-wide", consequence: "not-centred", byMetres: by }]
        : [{ code: "hole-too-narrow", consequence: "does-not-go-on", byMetres: -by }];
  return [
    ...across,
    ...(second === undefined ? [] : [{ code: "other-second" as const, consequence: "does-not-go-on" as const, byMetres: second }]),
  ];
}

/** What the clippings are to do today; a catcher that the machine has is taken as used where nobody says. */
export type DeckUse = "bag" | "mulch" | "discharge";

/** The lift read off the blade against today's use; then against the sheet. */
function liftMismatches({ lift: wanted }: BladeSheet, { lift }: BladePart, use: DeckUse | undefined): Mismatch[] {
  if (lift === undefined) return [];
  const forUse = againstUse(lift, use);
  if (forUse) return [forUse];
  if (lift === "high" && wanted === "mulching") return [{ code: "high-lift-on-mulching", consequence: "blows-and-wears" }];
  return wanted !== undefined && lift !== wanted ? [{ code: "other-lift", consequence: "moves-other-air" }] : [];
}

/** What is wrong with a lift for what the deck is to do today. */
export function againstUse(lift: NonNullable<BladePart["lift"]>, use: DeckUse | undefined): Mismatch | undefined {
  if (lift === "mulching" && use === "bag") return { code: "mulching-with-catcher", consequence: "does-not-fill" };
  if (lift === "low" && use === "bag") return { code: "low-lift-with-bag", consequence: "does-not-fill" };
  return lift === "high" && use === "mulch" ? { code: "high-lift-on-mulching", consequence: "blows-and-wears" } : undefined;
}

function turnMismatch({ turns }: BladePart, machineTurns: BladePart["turns"]): Mismatch[] {
  return turns !== undefined && machineTurns !== undefined && turns !== machineTurns
    ? [{ code: "turns-the-other-way", consequence: "cuts-with-its-back" }]
    : [];
}

/** What differs between the new blade and the one taken off, before it is unwrapped. */
export function newAgainstOld(fresh: BladePart, old: BladePart): { what: keyof BladePart; byMetres?: number }[] {
  const sizes = [
    ["lengthMetres", FIT_WITHIN.length],
    ["holeMetres", FIT_WITHIN.hole],
    ["secondMetres", FIT_WITHIN.hole],
    ["thicknessMetres", FIT_WITHIN.thickness],
    ["offsetMetres", FIT_WITHIN.offset],
  ] as const;
  const kinds = ["hole", "lift", "turns"] as const;
  return [
    ...sizes.flatMap(([what, within]) => {
      const byMetres = off(fresh[what], old[what], within);
      return byMetres === undefined ? [] : [{ what, byMetres }];
    }),
    ...kinds.flatMap((what) => (fresh[what] !== undefined && old[what] !== undefined && fresh[what] !== old[what] ? [{ what }] : [])),
  ];
}

/** Marks on a bolt's head by which its grade is read (published, from memory: SAE J429 radial lines; ISO 898-1 stamps the class). */
export const HEAD_MARKS: Record<BoltGrade, { lines: number; stamp?: string }> = {
  "sae-2": { lines: 0 },
  "sae-5": { lines: 3 },
  "sae-8": { lines: 6 },
  "iso-8-8": { lines: 0, stamp: "8.8" },
  "iso-10-9": { lines: 0, stamp: "10.9" },
  "iso-12-9": { lines: 0, stamp: "12.9" },
};

/** Weakest first; what answers to what across the two systems (published, from memory). */
const STRENGTH: Record<BoltGrade, number> = { "sae-2": 1, "sae-5": 2, "iso-8-8": 2, "sae-8": 3, "iso-10-9": 3, "iso-12-9": 4 };

/** Whether a bolt of this grade may stand in for the sheet's: weaker can fail, harder is not an upgrade. */
export function judgeGrade(found: BoltGrade, wanted: BoltGrade): "right" | "weaker" | "harder" {
  const difference = STRENGTH[found] - STRENGTH[wanted];
  return difference === 0 ? "right" : difference < 0 ? "weaker" : "harder";
}
