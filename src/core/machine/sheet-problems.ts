import { crossingSides } from "@/core/basics/geometry";
import { featuresOf, kindById } from "@/core/catalogue/kinds";
import { pointOf } from "./geometry";
import { placesOf } from "./places";
import type { Machine, UnitSheet } from "./schema";
import { type SideView, sideProblems, stanceOf } from "./side-view";

export type SheetProblem = { code: SheetProblemCode; path: (string | number)[]; [detail: string]: unknown };
export type SheetProblemCode =
  | "id-twice"
  | "least-above-most"
  | "pressure-above-moulded"
  | "not-on-sheet"
  | "cuts-with-another"
  | "nothing-to-cut-with"
  | "rollers-overlap"
  | "rollers-crossed"
  | "rollers-above-knife"
  | "outline-crosses"
  | "blades-would-strike"
  | "stack-twice";

/** Lists whose members are named by id; two of one name cannot be told apart in any reading. */
const NAMED: readonly { path: readonly string[]; ids: (machine: Machine) => readonly string[] }[] = [
  { path: ["wheels"], ids: ({ wheels }) => wheels.map(({ id }) => id) },
  { path: ["spindles"], ids: ({ spindles }) => spindles.map(({ id }) => id) },
  { path: ["units"], ids: ({ units }) => units.map(({ id }) => id) },
  { path: ["pivotedAxles"], ids: ({ pivotedAxles }) => pivotedAxles.map(({ axle }) => axle) },
  { path: ["deck", "hangers"], ids: ({ deck }) => (deck?.hangers ?? []).map(({ id }) => id) },
  { path: ["deck", "antiScalpWheels"], ids: ({ deck }) => (deck?.antiScalpWheels ?? []).map(({ id }) => id) },
  { path: ["sheet", "gearboxes"], ids: ({ sheet }) => (sheet.gearboxes ?? []).map(({ id }) => id) },
  { path: ["sheet", "belt", "pulleys"], ids: ({ sheet }) => (sheet.belt?.pulleys ?? []).map(({ id }) => id) },
  { path: ["sheet", "deckOff", "steps"], ids: ({ sheet }) => (sheet.deckOff?.steps ?? []).map(({ id }) => id) },
];

function idsTwice(machine: Machine): SheetProblem[] {
  return NAMED.flatMap(({ path, ids }) => {
    const all = ids(machine);
    return all.flatMap((id, index) => (all.indexOf(id) < index ? [{ code: "id-twice" as const, path: [...path, index, "id"], id }] : []));
  });
}

/** Every unit's sheet a machine has: the one for all of them, and what is some unit's own. */
function unitSheetsOf({ sheet, units }: Pick<Machine, "sheet" | "units">): { own: UnitSheet; path: (string | number)[] }[] {
  return [
    ...(sheet.unit ? [{ own: sheet.unit, path: ["sheet", "unit"] }] : []),
    ...units.flatMap(({ own }, k) => (own ? [{ own, path: ["units", k, "own"] }] : [])),
  ];
}

/** Rollers that overlap or stand above the knife carry nothing. */
function cannotStand(machine: Machine): SheetProblem[] {
  return unitSheetsOf(machine).flatMap(({ own: { sideView }, path }) => {
    if (!sideView) return [];
    const codes = sideProblems(sideView);
    const height = stanceOf(sideView as SideView)?.heightMetres;
    const isUnder = height !== undefined && height <= 0;
    return [...codes, ...(isUnder ? (["rollers-above-knife"] as const) : [])].map((code) => ({ code, path: [...path, "sideView"] }));
  });
}

/** Pairs of which the first must not be more than the second; one that is not on the sheet says nothing. */
function pairsOf({
  sheet,
  wheels,
  units,
}: Machine): { least?: number | undefined; most?: number | undefined; path: (string | number)[] }[] {
  const { blade } = sheet;
  return [
    { least: sheet.heightLeastMetres, most: sheet.heightMostMetres, path: ["sheet", "heightLeastMetres"] },
    { least: blade?.leastLengthMetres, most: blade?.lengthMetres, path: ["sheet", "blade", "leastLengthMetres"] },
    { least: blade?.leastWidthMetres, most: blade?.widthMetres, path: ["sheet", "blade", "leastWidthMetres"] },
    {
      least: sheet.grease?.topUpHours,
      most: sheet.grease?.purgeHours,
      path: ["sheet", "grease", "topUpHours"],
    },
    ...unitSheetsOf({ sheet, units }).flatMap(({ own, path }) => [
      { least: own.reel?.scrapDiameterMetres, most: own.reel?.newDiameterMetres, path: [...path, "reel", "scrapDiameterMetres"] },
      {
        least: own.bedknife?.leastThicknessMetres,
        most: own.bedknife?.thicknessMetres,
        path: [...path, "bedknife", "leastThicknessMetres"],
      },
      { least: own.bedknife?.leastDepthMetres, most: own.bedknife?.depthMetres, path: [...path, "bedknife", "leastDepthMetres"] },
      { least: own.bedknife?.fromHeightMetres, most: own.bedknife?.toHeightMetres, path: [...path, "bedknife", "fromHeightMetres"] },
      {
        least: own.adjusters?.heightTravel?.leastZMetres,
        most: own.adjusters?.heightTravel?.mostZMetres,
        path: [...path, "adjusters", "heightTravel"],
      },
      { least: own.attitude?.leastRadians, most: own.attitude?.mostRadians, path: [...path, "attitude", "leastRadians"] },
    ]),
    ...wheels.map((wheel, index) => ({
      least: wheel.leastPressurePascals,
      most: wheel.sheetPressurePascals,
      path: ["wheels", index, "leastPressurePascals"],
    })),
  ];
}

function wrongOrder(machine: Machine): SheetProblem[] {
  return pairsOf(machine).flatMap(({ least, most, path }) =>
    least !== undefined && most !== undefined && least > most ? [{ code: "least-above-most" as const, path }] : [],
  );
}

/** The figure moulded on a tyre is what it may never exceed. */
function aboveMoulded({ wheels }: Machine): SheetProblem[] {
  return wheels.flatMap(({ sheetPressurePascals, leastPressurePascals, mouldedMaximumPascals }, index) =>
    mouldedMaximumPascals !== undefined && Math.max(sheetPressurePascals ?? 0, leastPressurePascals ?? 0) > mouldedMaximumPascals
      ? [{ code: "pressure-above-moulded" as const, path: ["wheels", index, "sheetPressurePascals"] }]
      : [],
  );
}

/** What a sheet names and does not have. */
function unknownNames({ wheels, pivotedAxles, spindles, deck, sheet }: Machine): SheetProblem[] {
  const [axles, blades] = [wheels.map(({ axle }) => axle), spindles.map(({ id }) => id)];
  const [casters, steps] = [(deck?.antiScalpWheels ?? []).map(({ id }) => id), (sheet.deckOff?.steps ?? []).map(({ id }) => id)];
  const named: { id: string | undefined; known: readonly string[]; path: (string | number)[] }[] = [
    ...pivotedAxles.map(({ axle }, index) => ({ id: axle, known: axles, path: ["pivotedAxles", index, "axle"] })),
    ...(deck?.antiScalpWheels ?? []).map(({ twin }, k) => ({ id: twin, known: casters, path: ["deck", "antiScalpWheels", k, "twin"] })),
    ...(sheet.belt?.pulleys ?? []).map(({ spindleId }, k) => ({
      id: spindleId,
      known: blades,
      path: ["sheet", "belt", "pulleys", k, "spindleId"],
    })),
    ...(sheet.deckOff?.backFirst ?? []).map((id, k) => ({ id, known: steps, path: ["sheet", "deckOff", "backFirst", k] })),
  ];
  return named.flatMap(({ id, known, path }) =>
    id === undefined || known.includes(id) ? [] : [{ code: "not-on-sheet" as const, path, place: id }],
  );
}

/** A rotary machine cuts with blades, a reel machine with units, and neither with the other's. */
function wrongCutters({ kind, spindles, units }: Machine): SheetProblem[] {
  const [own, others] = kindById(kind).cutsWith === "rotary" ? ([spindles, units] as const) : ([units, spindles] as const);
  const [ownName, othersName] = kindById(kind).cutsWith === "rotary" ? ["spindles", "units"] : ["units", "spindles"];
  return [
    ...(own.length === 0 ? [{ code: "nothing-to-cut-with" as const, path: [ownName as string] }] : []),
    ...(others.length > 0 ? [{ code: "cuts-with-another" as const, path: [othersName as string] }] : []),
  ];
}

/** A shell whose sides cross is none. */
function crossed({ deck }: Machine): SheetProblem[] {
  const sides = deck && crossingSides(deck.outline.map(pointOf));
  return sides ? [{ code: "outline-crosses", path: ["deck", "outline", sides[1]], sides: [...sides] }] : [];
}

/** Circles that meet this little are drawn so by a ruler. */
const DRAWN_METRES = 0.001;

/** Blades that are free to take any position to each other strike where their circles meet; geared ones are timed past each other. */
function striking(machine: Machine): SheetProblem[] {
  if (featuresOf(machine).includes("gears")) return [];
  return machine.spindles.flatMap((one, k) =>
    machine.spindles.slice(k + 1).flatMap((other): SheetProblem[] => {
      const apart = Math.hypot(one.xMetres - other.xMetres, one.yMetres - other.yMetres);
      const reach = (one.tipCircleDiameterMetres + other.tipCircleDiameterMetres) / 2;
      if (apart >= reach - DRAWN_METRES) return [];
      const path = ["spindles", machine.spindles.indexOf(other), "tipCircleDiameterMetres"];
      return [{ code: "blades-would-strike", path, place: one.label, other: other.label, byMetres: reach - apart }];
    }),
  );
}

/** A bolt holds one blade: a stack with two of either was put in twice. */
function stackedTwice({ sheet }: Machine): SheetProblem[] {
  const stack = sheet.blade?.stack ?? [];
  return (["bolt", "blade"] as const).flatMap((part) =>
    stack.filter((one) => one === part).length > 1
      ? [{ code: "stack-twice" as const, path: ["sheet", "blade", "stack", stack.lastIndexOf(part)], part }]
      : [],
  );
}

/**
 * What a sheet that is well formed still contradicts: itself. Sheets that stand in the record are read all the same; a new one, and one that
 * comes from outside, is refused with these.
 */
export function sheetProblems(machine: Machine): SheetProblem[] {
  return [
    ...wrongCutters(machine),
    ...idsTwice(machine),
    ...wrongOrder(machine),
    ...aboveMoulded(machine),
    ...unknownNames(machine),
    ...cannotStand(machine),
    ...crossed(machine),
    ...striking(machine),
    ...stackedTwice(machine),
  ];
}

/** Whether a place somebody names is one of this machine. */
export function isPlaceOf(machine: Machine, place: string): boolean {
  return placesOf(machine).includes(place);
}
