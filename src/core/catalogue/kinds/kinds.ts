export type CutsWith = "rotary" | "reel";
export type Power = "combustion" | "battery";

export const FEATURES = [
  { id: "belt", label: "Blades or units driven by belt" },
  { id: "gears", label: "Blades timed by gearboxes" },
  { id: "hangers", label: "Deck hung on links" },
  { id: "self-carried-deck", label: "Deck rides on its own wheels" },
  { id: "air-tyres", label: "Air-filled tyres" },
  { id: "several-blades", label: "Two or more blades on one deck" },
  { id: "direct-drive", label: "Blade on the engine's or motor's own shaft" },
  { id: "catcher", label: "Catcher or basket" },
  { id: "groomer", label: "Groomers or brushes" },
  { id: "wide-unit-overlap", label: "Units that overlap widely" },
  { id: "several-units", label: "Two or more reel units" },
  { id: "combustion", label: "Engine" },
  { id: "battery", label: "Electric motor on a battery" },
  { id: "anti-scalp-wheels", label: "Anti-scalp wheels under the deck" },
  { id: "ground-driven-reels", label: "Reels driven by the ground" },
] as const;

export type FeatureId = (typeof FEATURES)[number]["id"];
export const FEATURE_IDS = FEATURES.map(({ id }) => id) as [FeatureId, ...FeatureId[]];

/** All of these groups, any one of each: `[["hangers", "several-blades"]]` is hangers or several blades; `[]` needs nothing. */
export type Need = readonly (readonly FeatureId[])[];

export type KindRow = {
  id: string;
  label: string;
  cutsWith: CutsWith;
  /** What a machine of this kind has unless its sheet says otherwise. */
  usual: readonly FeatureId[];
  /** What it may also have; nothing else can be claimed for it. */
  possible: readonly FeatureId[];
  isRider: boolean;
};

export const KINDS = [
  {
    id: "zero-turn",
    label: "Zero-turn",
    cutsWith: "rotary",
    usual: ["belt", "hangers", "air-tyres", "several-blades", "combustion"],
    possible: ["catcher", "battery"],
    isRider: true,
  },
  {
    id: "front-deck",
    label: "Front-deck rider",
    cutsWith: "rotary",
    usual: ["belt", "hangers", "air-tyres", "several-blades", "combustion"],
    possible: ["self-carried-deck", "catcher", "battery"],
    isRider: true,
  },
  {
    id: "belly-deck",
    label: "Belly-deck tractor",
    cutsWith: "rotary",
    usual: ["belt", "hangers", "air-tyres", "several-blades", "combustion"],
    possible: ["catcher", "self-carried-deck"],
    isRider: true,
  },
  {
    id: "geared-rider",
    label: "Geared rider",
    cutsWith: "rotary",
    usual: ["gears", "hangers", "air-tyres", "several-blades", "combustion"],
    possible: ["catcher"],
    isRider: true,
  },
  {
    id: "walk-petrol",
    label: "Walk-behind, petrol",
    cutsWith: "rotary",
    usual: ["direct-drive", "combustion"],
    possible: ["catcher", "air-tyres"],
    isRider: false,
  },
  {
    id: "walk-cordless",
    label: "Walk-behind, cordless",
    cutsWith: "rotary",
    usual: ["direct-drive", "battery"],
    possible: ["catcher"],
    isRider: false,
  },
  {
    id: "reel-ride-on",
    label: "Reel mower, ride-on",
    cutsWith: "reel",
    usual: ["air-tyres", "several-units", "combustion"],
    possible: ["groomer", "catcher", "battery", "belt"],
    isRider: true,
  },
  {
    id: "reel-walking",
    label: "Reel mower, walking",
    cutsWith: "reel",
    usual: ["catcher", "combustion"],
    possible: ["groomer", "battery", "belt"],
    isRider: false,
  },
] as const satisfies readonly KindRow[];

export type KindId = (typeof KINDS)[number]["id"];
export const KIND_IDS = KINDS.map(({ id }) => id) as [KindId, ...KindId[]];

type CuttingWith<With extends CutsWith> = Extract<(typeof KINDS)[number], { cutsWith: With }>["id"];
const idsWith = <With extends CutsWith>(cutsWith: With) =>
  KINDS.filter((kind) => kind.cutsWith === cutsWith).map(({ id }) => id) as [CuttingWith<With>, ...CuttingWith<With>[]];
export const ROTARY_KIND_IDS = idsWith("rotary");
export const REEL_KIND_IDS = idsWith("reel");

/** The row of a kind. Throws on an id not in the table. */
export function kindById(id: KindId): KindRow {
  const row = KINDS.find((kind) => kind.id === id);
  if (!row) throw new Error(`no kind ${id}`);
  return row;
}

/** Past this a unit that has come askew by a couple of degrees still covers its neighbour's edge: 2° at 0.45 m of arm. Estimate, by geometry. */
const WIDE_OVERLAP_METRES = 0.016;

type Across = { xMetres: number; widthMetres: number };

/** The least of what neighbours share; infinite for one. */
function leastShared(units: readonly Across[]): number {
  const across = [...units].sort((a, b) => a.xMetres - b.xMetres);
  return Math.min(
    ...across.slice(1).map((unit, k) => {
      const other = across[k] as Across;
      return other.xMetres + other.widthMetres / 2 - (unit.xMetres - unit.widthMetres / 2);
    }),
  );
}

/** Everything a machine of this kind may have: what can be claimed for it, and what its own parts make. */
export function everyFeature({ usual, possible, cutsWith, isRider }: KindRow): FeatureId[] {
  return [...usual, ...possible, ...(cutsWith === "rotary" && isRider ? (["anti-scalp-wheels"] as const) : [])];
}

/** The features of one machine: those its sheet lists, or its kind's usual ones, and what its units' layout and its deck's parts make. */
export function featuresOf(machine: {
  kind: KindId;
  features?: readonly FeatureId[];
  units?: readonly Across[];
  deck?: { antiScalpWheels?: readonly unknown[] } | undefined;
  sheet?: { reelDrive?: { isGroundDriven?: boolean } | undefined };
}): readonly FeatureId[] {
  const listed = machine.features ?? kindById(machine.kind).usual;
  const { units = [], deck, sheet } = machine;
  const own: FeatureId[] = [
    ...(units.length > 1 && leastShared(units) >= WIDE_OVERLAP_METRES ? (["wide-unit-overlap"] as const) : []),
    ...(deck?.antiScalpWheels?.length ? (["anti-scalp-wheels"] as const) : []),
    ...(sheet?.reelDrive?.isGroundDriven ? (["ground-driven-reels"] as const) : []),
  ];
  const more = own.filter((feature) => !listed.includes(feature));
  return more.length === 0 ? listed : [...listed, ...more];
}

/** Whether features meet a need; what they do not meet does not exist for that machine. */
export function meetsNeed(features: readonly FeatureId[], need: Need): boolean {
  return need.every((anyOf) => anyOf.some((feature) => features.includes(feature)));
}
