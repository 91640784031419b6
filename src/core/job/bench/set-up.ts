import { type Bracket, bracketFor, heightEndOf, type Machine, unitSheetOf } from "@/core/machine";
import {
  bladesSuit,
  CLIP_SHARE,
  type End,
  LEAST_CLEARANCE_SHARE,
  movedRoller,
  type SideView,
  type Stance,
  speedForClip,
  stanceOf,
  travelFor,
} from "@/core/physics/reel";

/** What of a unit does not suit the height it would stand at. */
export type Unsuited =
  | { code: "no-travel-reaches" }
  | { code: "out-of-travel"; leastMetres: number; mostMetres: number }
  | { code: "not-the-machines-height"; leastMetres?: number; mostMetres?: number }
  | { code: "blades-too-many"; blades: number }
  | { code: "blades-too-few"; blades: number }
  | { code: "knife-not-for-height"; type: string; fromMetres?: number; toMetres?: number }
  /** So much more is wanted under it: a knife thinner by as much, or the unit tipped. */
  | { code: "no-heel"; clearMetres: number; lacksMetres: number }
  | { code: "no-toe"; clearMetres: number; lacksMetres: number }
  | { code: "attitude-off"; radians: number; leastRadians: number; mostRadians: number }
  | { code: "no-bracket" };

/** How a unit would be set up for a height. Moves are of the roller's centre in the unit, up positive, from where it stands. */
export type SetUp = {
  /** The roller its height screws move. */
  end: End;
  upMetres?: number;
  /** Of the height screws, positive for the roller up, where the sheet gives their throw. */
  turns?: number;
  view?: SideView;
  bracket?: Bracket;
  unsuited: Unsuited[];
};

type Sheeted = Pick<Machine, "units" | "sheet">;
type Of = { machine: Sheeted; unit: string };

/** Left of the travel by less than this is the arithmetic's. */
const ROUNDING_METRES = 1e-9;

/** Heights the travel of the height screws reaches, with the other roller as in this view; `undefined` where the sheet gives no travel. */
export function heightsReached(args: Of & { view: SideView }): { leastMetres: number; mostMetres: number } | undefined {
  const { heightTravel } = unitSheetOf(args.machine, args.unit).adjusters ?? {};
  if (!heightTravel) return undefined;
  const end = heightEndOf(args);
  const heights = [heightTravel.leastZMetres, heightTravel.mostZMetres].flatMap(
    (z) => stanceOf(movedRoller(args.view, end, z - args.view[end].zMetres))?.heightMetres ?? [],
  );
  return heights.length < 2 ? undefined : { leastMetres: Math.min(...heights), mostMetres: Math.max(...heights) };
}

/** Whether the height screws can bring their roller where this view has it; true where the sheet gives no travel. */
export function isInTravel({ view, ...of }: Of & { view: SideView }): boolean {
  const { heightTravel } = unitSheetOf(of.machine, of.unit).adjusters ?? {};
  const z = view[heightEndOf(of)].zMetres;
  return !heightTravel || (z >= heightTravel.leastZMetres - ROUNDING_METRES && z <= heightTravel.mostZMetres + ROUNDING_METRES);
}

/** What does not suit a unit standing like this, gravest first; empty where everything does, or the unit cannot stand. */
export function unsuitedBy({ view, withGroomer, ...of }: Of & { view: SideView; withGroomer: boolean }): Unsuited[] {
  const { machine, unit } = of;
  const stance = stanceOf(view);
  if (!stance) return [];
  const sheet = unitSheetOf(machine, unit);
  const height = stance.heightMetres;
  const reached = heightsReached({ ...of, view });
  const { heightLeastMetres: least, heightMostMetres: most } = machine.sheet;
  const isMachines = height >= (least ?? 0) - ROUNDING_METRES && height <= (most ?? Number.POSITIVE_INFINITY) + ROUNDING_METRES;
  return [
    ...(!isInTravel({ ...of, view }) && reached ? [{ code: "out-of-travel" as const, ...reached }] : []),
    ...(isMachines
      ? []
      : [
          {
            code: "not-the-machines-height" as const,
            ...(least === undefined ? {} : { leastMetres: least }),
            ...(most === undefined ? {} : { mostMetres: most }),
          },
        ]),
    ...clearancesOf(stance),
    ...attitudeOf(sheet, stance),
    ...knifeOf(sheet, height),
    ...bladesOf(sheet, height),
    ...(sheet.brackets && !bracketFor(machine, unit, height, withGroomer) ? [{ code: "no-bracket" as const }] : []),
  ];
}

function clearancesOf({ heightMetres, heelMetres, toeMetres }: Stance): Unsuited[] {
  const wanted = heightMetres * LEAST_CLEARANCE_SHARE;
  const under = (code: "no-heel" | "no-toe", clear: number | undefined): Unsuited[] =>
    clear === undefined || clear >= wanted - ROUNDING_METRES ? [] : [{ code, clearMetres: clear, lacksMetres: wanted - clear }];
  return [...under("no-heel", heelMetres), ...under("no-toe", toeMetres)];
}

function attitudeOf({ attitude }: ReturnType<typeof unitSheetOf>, { attitudeRadians: radians }: Stance): Unsuited[] {
  if (!attitude || radians === undefined || (radians >= attitude.leastRadians && radians <= attitude.mostRadians)) return [];
  return [{ code: "attitude-off", radians, ...attitude }];
}

function knifeOf({ bedknife }: ReturnType<typeof unitSheetOf>, height: number): Unsuited[] {
  if (!bedknife) return [];
  const { type, fromHeightMetres: from, toHeightMetres: to } = bedknife;
  const suits = height >= (from ?? 0) - ROUNDING_METRES && height <= (to ?? Number.POSITIVE_INFINITY) + ROUNDING_METRES;
  return suits
    ? []
    : [
        {
          code: "knife-not-for-height",
          type,
          ...(from === undefined ? {} : { fromMetres: from }),
          ...(to === undefined ? {} : { toMetres: to }),
        },
      ];
}

function bladesOf({ reel }: ReturnType<typeof unitSheetOf>, height: number): Unsuited[] {
  if (!reel) return [];
  const suit = bladesSuit(reel.blades, height);
  return suit === "suits" ? [] : [{ code: `blades-${suit}`, blades: reel.blades }];
}

/**
 * What a chosen height asks of a unit: which roller moves how far and by how many turns of its screws, the front roller's bracket by the sheet's table,
 * and what of knife, reel and machine does not suit it. The height is made at the end its screws are on, from the view it stands in; one that nothing
 * reaches has no view. `undefined` where the sheet has no side view.
 */
export function setUpFor(args: Of & { heightMetres: number; withGroomer: boolean; view?: SideView }): SetUp | undefined {
  const { machine, unit, heightMetres, withGroomer } = args;
  const sheet = unitSheetOf(machine, unit);
  const stands = args.view ?? sheet.sideView;
  if (!stands) return undefined;
  const end = heightEndOf(args);
  const bracket = bracketFor(machine, unit, heightMetres, withGroomer);
  const upMetres = travelFor({ view: stands, end, heightMetres });
  if (upMetres === undefined) return { end, ...(bracket ? { bracket } : {}), unsuited: [{ code: "no-travel-reaches" }] };
  const view = movedRoller(stands, end, upMetres);
  const throwMetres = sheet.adjusters?.heightThrowMetres;
  return {
    end,
    upMetres,
    ...(throwMetres === undefined ? {} : { turns: upMetres / throwMetres }),
    view,
    ...(bracket ? { bracket } : {}),
    unsuited: unsuitedBy({ machine, unit, view, withGroomer }),
  };
}

/** Ground speeds between browning and ripples at a height, by the sheet's reel and its speed; `undefined` where it says neither, or the ground turns it. */
export function speedsAt(args: Of & { heightMetres: number }): { least: number; most: number } | undefined {
  const { reel } = unitSheetOf(args.machine, args.unit);
  const { revolutionsPerMinute, isGroundDriven } = args.machine.sheet.reelDrive ?? {};
  if (!reel || revolutionsPerMinute === undefined || isGroundDriven) return undefined;
  const at = (share: number) => speedForClip({ clipMetres: share * args.heightMetres, blades: reel.blades, revolutionsPerMinute });
  return { least: at(CLIP_SHARE.browns), most: at(CLIP_SHARE.ripples) };
}

/** Where a unit's rollers stand in its own frame: its bench setting. */
export type BenchSetting = { frontZMetres: number; rearZMetres: number };

export const settingOf = ({ front, rear }: Pick<SideView, "front" | "rear">): BenchSetting => ({
  frontZMetres: front.zMetres,
  rearZMetres: rear.zMetres,
});

export const viewSet = (view: SideView, { frontZMetres, rearZMetres }: BenchSetting): SideView => ({
  ...view,
  front: { ...view.front, zMetres: frontZMetres },
  rear: { ...view.rear, zMetres: rearZMetres },
});

/**
 * The machine with these units set so: what becomes one setting of all of them stands on the machine's sheet, what is one unit's own with the unit.
 * Units without a side view are left as they are.
 */
export function withSettings<M extends Sheeted>(machine: M, settings: Readonly<Record<string, BenchSetting>>): M {
  const views = machine.units.map(({ id }) => {
    const view = unitSheetOf(machine, id).sideView;
    const setting = settings[id];
    return view && setting ? (viewSet(view, setting) as typeof view) : view;
  });
  const [first] = views;
  const isOne = first !== undefined && views.every((view) => JSON.stringify(view) === JSON.stringify(first));
  if (isOne)
    return {
      ...machine,
      sheet: { ...machine.sheet, unit: { ...machine.sheet.unit, sideView: first } },
      units: machine.units.map(({ own, ...unit }) => {
        const { sideView: _, ...rest } = own ?? {};
        return Object.keys(rest).length === 0 ? unit : { ...unit, own: rest };
      }),
    };
  return {
    ...machine,
    units: machine.units.map((unit, k) =>
      settings[unit.id] === undefined || !views[k] ? unit : { ...unit, own: { ...unit.own, sideView: views[k] } },
    ),
  };
}
