import { featuresOf } from "@/core/catalogue/kinds";
import { type BladeSheet, type Machine, unitSheetOf } from "@/core/machine";
import { judgeGrade, type Mismatch, mismatches } from "@/core/physics/blades/fit";
import { bladesOf, clearances } from "@/core/physics/blades/overlap";
import type { Part } from "./schema";

/** One reason why a part does not go on a machine, or may not. */
export type FitReason =
  | Mismatch
  | { code: "strikes"; byMetres: number }
  | { code: "other-length"; byMetres: number }
  | { code: "other-width"; byMetres: number }
  | { code: "other-diameter"; byMetres: number }
  | { code: "other-blades"; found: number; wanted: number }
  | { code: "not-for-this-height" }
  | { code: "other-roller" }
  | { code: "other-grade"; way: "weaker" | "harder" }
  | { code: "other-thread" };

/**
 * Whether a part goes on a machine by every dimension that decides it. *cannot-tell*: nothing speaks against it, and not everything was compared;
 * `untold` names what the part does not say, `unsaid` what the machine's sheet does not; `places` where that holds, if not at all of them.
 */
export type Fit = {
  verdict: "fits" | "does-not-fit" | "cannot-tell";
  reasons: FitReason[];
  untold: string[];
  unsaid: string[];
  places?: string[];
};

/** The best first. */
export const FIT_VERDICTS: readonly Fit["verdict"][] = ["fits", "cannot-tell", "does-not-fit"];

/** Where spindles turn against each other, or units have sheets of their own: the best there is, and by their labels where. */
function bestFit<Place extends { label: string }>(places: readonly Place[], fitAt: (place: Place) => Fit): Fit {
  const all = places.map((place) => ({ label: place.label, fit: fitAt(place) }));
  const verdict = FIT_VERDICTS.find((one) => all.some(({ fit }) => fit.verdict === one));
  const best = all.filter(({ fit }) => fit.verdict === verdict);
  if (!best[0]) return { verdict: "cannot-tell", reasons: [], untold: [], unsaid: ["size"] };
  return { ...best[0].fit, ...(best.length < all.length ? { places: best.map(({ label }) => label) } : {}) };
}

/** A belt within this is the one on the sheet; what a tape reads of a belt. Estimate. */
const BELT_WITHIN_METRES = 0.008;
/** Two makers' knives, reels and rollers of one size differ by less. Estimate. */
const WIDTH_WITHIN_METRES = 0.004;
const KNIFE_WITHIN_METRES = 0.0003;
const DIAMETER_WITHIN_METRES = 0.0005;

type Compared = { what: string; wanted: unknown; found: unknown; reason?: FitReason | undefined };

/** Nothing is passed over: a size that either side does not say is named, and no part fits by what was not compared. */
function fitOf(compared: readonly Compared[], more: readonly FitReason[] = []): Fit {
  const reasons = [...more, ...compared.flatMap(({ reason }) => reason ?? [])];
  const unsaid = compared.filter(({ wanted }) => wanted === undefined).map(({ what }) => what);
  const untold = compared.filter(({ wanted, found }) => wanted !== undefined && found === undefined).map(({ what }) => what);
  const isAll = untold.length === 0 && unsaid.length < compared.length && compared.length > 0;
  return { verdict: reasons.length > 0 ? "does-not-fit" : isAll && unsaid.length === 0 ? "fits" : "cannot-tell", reasons, untold, unsaid };
}

const apart = (found: number | undefined, wanted: number | undefined, within: number): number | undefined => {
  if (found === undefined || wanted === undefined) return undefined;
  const by = found - wanted;
  return Math.abs(by) > within * (1 + 1e-9) ? by : undefined;
};

function bladeFit(part: Extract<Part, { kind: "blade" }>, machine: Machine, { turns }: Machine["spindles"][number]): Fit {
  const sheet: BladeSheet | undefined = machine.sheet.blade;
  if (!sheet) return { verdict: "cannot-tell", reasons: [], untold: [], unsaid: ["lengthMetres"] };
  // A new part that is short or narrow is another part: wear is no excuse on the shelf.
  const found = mismatches(sheet, part, { turns, hasCatcher: false });
  const strikes = strikeOf(machine, part.lengthMetres);
  return fitOf(
    [
      { what: "lengthMetres", wanted: sheet.lengthMetres, found: part.lengthMetres },
      { what: "hole", wanted: sheet.hole?.shape, found: part.hole },
      { what: "holeMetres", wanted: sheet.hole?.acrossMetres, found: part.holeMetres },
      ...(sheet.hole?.secondMetres === undefined
        ? []
        : [{ what: "secondMetres", wanted: sheet.hole.secondMetres, found: part.secondMetres }]),
      { what: "thicknessMetres", wanted: sheet.thicknessMetres, found: part.thicknessMetres },
      { what: "offsetMetres", wanted: sheet.offsetMetres, found: part.offsetMetres },
      { what: "widthMetres", wanted: sheet.widthMetres, found: part.widthMetres },
      { what: "lift", wanted: sheet.lift, found: part.lift },
      { what: "turns", wanted: turns, found: part.turns },
    ],
    [...found, ...(strikes === undefined ? [] : [{ code: "strikes" as const, byMetres: strikes }])],
  );
}

/** By how much a set of this length would reach into its neighbours; geared ones are timed past each other. */
function strikeOf(machine: Machine, lengthMetres: number | undefined): number | undefined {
  if (lengthMetres === undefined || featuresOf(machine).includes("gears")) return undefined;
  const least = Math.min(0, ...clearances(bladesOf(machine).map((one) => ({ ...one, lengthMetres }))).map((one) => one.clearanceMetres));
  return least < 0 ? -least : undefined;
}

/** A size that is wrong, as a reason. */
const wrongSize = (code: "other-width" | "other-diameter" | "other-length", by: number | undefined): FitReason | undefined =>
  by === undefined ? undefined : { code, byMetres: by };

function unitFit(part: Extract<Part, { kind: "bedknife" | "reel" | "roller" }>, machine: Machine, unit: Machine["units"][number]): Fit {
  const sheet = unitSheetOf(machine, unit.id);
  const width: Compared = {
    what: "widthMetres",
    wanted: unit.widthMetres,
    found: part.widthMetres,
    reason: wrongSize("other-width", apart(part.widthMetres, unit.widthMetres, WIDTH_WITHIN_METRES)),
  };
  if (part.kind === "roller") {
    const kinds = [sheet?.frontRoller?.kind, sheet?.rearRoller?.kind].filter((kind) => kind !== undefined);
    const isOther = part.roller !== undefined && kinds.length > 0 && !kinds.includes(part.roller);
    return fitOf([width, { what: "roller", wanted: kinds[0], found: part.roller, reason: isOther ? { code: "other-roller" } : undefined }]);
  }
  if (part.kind === "reel") {
    const { reel } = sheet ?? {};
    const isOther = part.blades !== undefined && reel !== undefined && part.blades !== reel.blades;
    return fitOf([
      width,
      {
        what: "diameterMetres",
        wanted: reel?.newDiameterMetres,
        found: part.diameterMetres,
        reason: wrongSize("other-diameter", apart(part.diameterMetres, reel?.newDiameterMetres, DIAMETER_WITHIN_METRES)),
      },
      {
        what: "blades",
        wanted: reel?.blades,
        found: part.blades,
        reason: isOther ? { code: "other-blades", found: part.blades as number, wanted: reel.blades } : undefined,
      },
    ]);
  }
  const { bedknife } = sheet ?? {};
  const thickness = apart(part.thicknessMetres, bedknife?.thicknessMetres, KNIFE_WITHIN_METRES);
  const isForAnother =
    part.toHeightMetres !== undefined && bedknife?.fromHeightMetres !== undefined && part.toHeightMetres < bedknife.fromHeightMetres;
  return fitOf([
    width,
    {
      what: "thicknessMetres",
      wanted: bedknife?.thicknessMetres,
      found: part.thicknessMetres,
      reason: thickness === undefined ? undefined : { code: "other-thickness", consequence: "clamps-elsewhere", byMetres: thickness },
    },
    {
      what: "toHeightMetres",
      wanted: bedknife?.toHeightMetres,
      found: part.toHeightMetres,
      reason: isForAnother ? { code: "not-for-this-height" } : undefined,
    },
  ]);
}

function boltFit(part: Extract<Part, { kind: "bolt" }>, machine: Machine): Fit {
  const bolt = machine.sheet.blade?.bolt;
  const grade = part.grade && bolt ? judgeGrade(part.grade, bolt.grade) : "right";
  return fitOf([
    {
      what: "diameterMetres",
      wanted: bolt?.diameterMetres,
      found: part.diameterMetres,
      reason: wrongSize("other-diameter", apart(part.diameterMetres, bolt?.diameterMetres, DIAMETER_WITHIN_METRES)),
    },
    { what: "grade", wanted: bolt?.grade, found: part.grade, reason: grade === "right" ? undefined : { code: "other-grade", way: grade } },
    {
      what: "thread",
      wanted: bolt?.thread,
      found: part.thread,
      reason: part.thread !== undefined && bolt !== undefined && part.thread !== bolt.thread ? { code: "other-thread" } : undefined,
    },
  ]);
}

/** Whether a part is of a sort that goes on such a machine at all. */
export function isOfItsSort(part: Pick<Part, "kind">, machine: Machine): boolean {
  const isReel = machine.units.length > 0;
  switch (part.kind) {
    case "blade":
    case "bolt":
      return !isReel;
    case "bedknife":
    case "reel":
    case "roller":
      return isReel;
    case "belt":
      return featuresOf(machine).includes("belt");
    default:
      return true;
  }
}

/** Whether a part goes on a machine, by every dimension that decides it; `undefined` for what is not of its sort. Bearings and other parts: nobody's sheet says. */
export function fitsMachine(part: Part, machine: Machine): Fit | undefined {
  if (!isOfItsSort(part, machine)) return undefined;
  switch (part.kind) {
    case "blade":
      return bestFit(machine.spindles, (spindle) => bladeFit(part, machine, spindle));
    case "bedknife":
    case "reel":
    case "roller":
      return bestFit(machine.units, (unit) => unitFit(part, machine, unit));
    case "bolt":
      return boltFit(part, machine);
    case "belt":
      return fitOf([
        {
          what: "lengthMetres",
          wanted: machine.sheet.belt?.lengthMetres,
          found: part.lengthMetres,
          reason: wrongSize("other-length", apart(part.lengthMetres, machine.sheet.belt?.lengthMetres, BELT_WITHIN_METRES)),
        },
      ]);
    default:
      return { verdict: "cannot-tell", reasons: [], untold: [], unsaid: ["size"] };
  }
}
