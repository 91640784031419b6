import { SYMPTOMS, type SymptomId } from "@/core/catalogue";
export const CUT_LOOKS = ["all-alike", "better", "same", "worse"] as const;
export const CUT_TURFS = ["good", "thin", "other-lawn"] as const;
export const CUT_DRYNESS = ["dry", "damp", "wet"] as const;
export const CUT_LIGHTS = ["day", "dawn-or-dusk"] as const;
export const CUT_PATCHES = ["same", "other"] as const;
export const CUT_HEIGHTS = ["as-complained", "other"] as const;
export const CUT_DRIVERS = ["same", "other"] as const;
export const SYMPTOM_NOW = ["gone", "still-there"] as const;

/** A cut made to see whether it is cured. What was not asked of earlier ones is missing. */
export type TestCut = {
  seq: number;
  looks: (typeof CUT_LOOKS)[number];
  turf: (typeof CUT_TURFS)[number];
  dryness: (typeof CUT_DRYNESS)[number];
  light?: (typeof CUT_LIGHTS)[number] | undefined;
  /** Where the complaint was, or another piece of the same turf. */
  patch?: (typeof CUT_PATCHES)[number] | undefined;
  height?: (typeof CUT_HEIGHTS)[number] | undefined;
  /** The operator who complained of it, or somebody else. */
  drivenBy?: (typeof CUT_DRIVERS)[number] | undefined;
  /** What was complained of and is not seen in grass, as it was at the cut. */
  symptoms?: Partial<Record<SymptomId, (typeof SYMPTOM_NOW)[number]>> | undefined;
  /** Blades seen to cut. */
  seenCutting?: readonly string[] | undefined;
};

/** What a test cut proves (common practice): all alike on good turf is proof, thin grass shows only that the blades turn. */
export type CutGrade = "proof" | "looks-right" | "blades-turn" | "not-cured";

/** Why a cut that looks right is not proof. */
export type CutDoubt = "not-all-alike" | "other-lawn" | "not-dry" | "low-light" | "other-patch" | "other-height" | "other-driver";

/** What the complaint asks of a cut: the same patch where its look was of a place, the same operator where it was a matter of driving. */
export type CutWanted = { samePatch: boolean; sameDriver: boolean };

/** Why a cut is no proof although nothing is wrong in it; empty where it is proof. */
export function doubtsOf(cut: Omit<TestCut, "seq">, wanted: CutWanted): CutDoubt[] {
  return [
    ...(cut.looks === "better" ? ["not-all-alike" as const] : []),
    ...(cut.turf === "other-lawn" ? ["other-lawn" as const] : []),
    ...(cut.dryness === "dry" ? [] : ["not-dry" as const]),
    ...(cut.light === "dawn-or-dusk" ? ["low-light" as const] : []),
    ...(wanted.samePatch && cut.turf !== "other-lawn" && cut.patch !== "same" ? ["other-patch" as const] : []),
    ...(cut.height === "other" ? ["other-height" as const] : []),
    ...(wanted.sameDriver && cut.drivenBy !== "same" ? ["other-driver" as const] : []),
  ];
}

export function gradeCut(cut: Omit<TestCut, "seq">, wanted: CutWanted): CutGrade {
  if (cut.looks === "same" || cut.looks === "worse") return "not-cured";
  if (cut.turf === "thin") return "blades-turn";
  return doubtsOf(cut, wanted).length === 0 ? "proof" : "looks-right";
}

/** Heard, felt, smelt or caught: a look at the grass does not tell whether these are gone. */
const NOT_IN_GRASS: readonly SymptomId[] = [
  "vibration",
  "grinding-noise",
  "belt-smell-or-squeal",
  "engine-labours",
  "hot-hub",
  "blade-stopped",
  "oil-at-drive",
  "poor-collection",
];

/** Of what was complained, what has to be asked for itself. In the order of the table. */
export function askedForItself(complained: readonly SymptomId[]): SymptomId[] {
  return SYMPTOMS.map(({ id }) => id as SymptomId).filter((id) => complained.includes(id) && NOT_IN_GRASS.includes(id));
}

/** Whether the look of the grass has a say: something was seen in it, or nobody said what. */
export function isSeenInGrass(complained: readonly SymptomId[]): boolean {
  return complained.length === 0 || complained.some((id) => !NOT_IN_GRASS.includes(id));
}
