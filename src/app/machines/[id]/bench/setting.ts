import type { UnitSystem } from "@/core/basics/units";
import type { HeightReadings } from "@/core/checks";
import { visitsTo } from "@/core/checks/cutting-height/units";
import { type BenchSetting, type SetUp, settingOf, setUpFor, type Unsuited, unsuitedBy } from "@/core/job/bench/set-up";
import { heightEndOf, type Machine, unitSheetOf, unitsAcross } from "@/core/machine";
import { type End, laidOn, movedRoller, type SideView, stanceOf } from "@/core/physics/reel";
import { type LearntOffset, learnOffset, settingFor } from "@/core/physics/turf/stubble";
import { type Entry, readEntry, writeQuantity } from "@/ui/entry";

/** Of one unit as it is typed: height to cut, and by how much each roller goes up, is packed (or sinks, with a minus). */
export type UnitDraft = { height: string; front: string; rear: string; onFront: string; onRear: string };
export type Move = Exclude<keyof UnitDraft, "height">;
export type SettingDraft = {
  unit: string;
  turf: string;
  units: Record<string, UnitDraft>;
  /** Of the sheet its moves are reckoned from. */
  version: number;
};

const NOTHING: UnitDraft = { height: "", front: "", rear: "", onFront: "", onRear: "" };

/** How far a slider goes either way. */
export const MOST_METRES: Record<Move, number> = { front: 0.006, rear: 0.006, onFront: 0.002, onRear: 0.002 };
const moveRange = (move: Move) => {
  // What a height asks of its screws is never asked about again.
  const [most, usual] = move === "front" || move === "rear" ? [0.06, 0.03] : [0.01, 0.003];
  return { least: -most, most, usualLeast: -usual, usualMost: usual };
};

export const drawnUnits = (machine: Machine) => unitsAcross(machine).filter(({ id }) => unitSheetOf(machine, id).sideView !== undefined);

export function firstDraft(machine: Machine, unit: string | undefined, version: number): SettingDraft {
  const drawn = drawnUnits(machine);
  return {
    unit: drawn.find(({ id }) => id === unit)?.id ?? drawn[0]?.id ?? "",
    turf: "",
    version,
    units: Object.fromEntries(drawn.map(({ id }) => [id, NOTHING])),
  };
}

/** To a hundredth of what a gauge shows: typed again it is the same setting. */
export const written = (metres: number, system: UnitSystem): string =>
  String(Number(Number(writeQuantity({ valueSi: metres, dimension: "length", system })).toFixed(system === "us" ? 5 : 4)));

export type ReadSetting = {
  entries: Record<keyof UnitDraft, Entry>;
  /** As the sheet has it; as it would be set; and as it then rides on the turf. */
  stands: SideView;
  set: SideView;
  rides: SideView;
  isMoved: boolean;
  isPacked: boolean;
  /** Every field reads, and the height that was typed is one its screws reach: what is shown is what was meant, and may be kept. */
  isMeant: boolean;
  learnt: LearntOffset;
  /** Height on the bench for the height to cut, by what this turf made of it before. */
  benchMetres?: number;
  plusMinusMetres?: number;
  unsuited: Unsuited[];
  setUp?: SetUp;
};

type Args = {
  machine: Machine;
  draft: SettingDraft;
  system: UnitSystem;
  visits: HeightReadings["unitVisits"];
  sure?: Readonly<Record<string, string>>;
};

const siOf = (entry: Entry): number => (entry.kind === "read" ? entry.valueSi : 0);

/** What a draft comes to; `undefined` where its unit has no side view on the sheet. */
export function readSetting({ machine, draft, system, visits, sure = {} }: Args): ReadSetting | undefined {
  const { unit, turf } = draft;
  const sheet = unitSheetOf(machine, unit);
  const stands = sheet.sideView;
  if (!stands) return undefined;
  const typed = draft.units[unit] ?? NOTHING;
  const { heightLeastMetres, heightMostMetres } = machine.sheet;
  const height = { least: 0.001, most: 0.1, usualLeast: heightLeastMetres ?? 0.002, usualMost: heightMostMetres ?? 0.03 };
  const read = (key: keyof UnitDraft): Entry =>
    readEntry({
      text: typed[key],
      place: { dimension: "length", range: key === "height" ? height : moveRange(key) },
      system,
      sure: sure[`${unit}.${key}`],
    });
  const entries = { height: read("height"), front: read("front"), rear: read("rear"), onFront: read("onFront"), onRear: read("onRear") };
  const set = movedRoller(movedRoller(stands, "front", siOf(entries.front)), "rear", siOf(entries.rear));
  const rides = laidOn(set, { front: siOf(entries.onFront), rear: siOf(entries.onRear) });
  const learnt = learnOffset(turf === "" ? [] : visitsTo(turf, visits[unit] ?? []), "reel");
  const target = entries.height.kind === "read" ? settingFor(entries.height.valueSi, learnt) : undefined;
  const withGroomer = sheet.groomer !== undefined && sheet.groomer !== "none";
  const setUp =
    target &&
    setUpFor({ machine, unit, heightMetres: target.settingMetres, withGroomer, view: otherEndMoved({ machine, unit, stands, set }) });
  return {
    entries,
    stands,
    set,
    rides,
    isMoved: JSON.stringify(settingOf(set)) !== JSON.stringify(settingOf(stands)),
    isPacked: siOf(entries.onFront) !== 0 || siOf(entries.onRear) !== 0,
    isMeant:
      Object.values(entries).every(({ kind }) => kind === "read" || kind === "empty") &&
      (target === undefined || setUp?.view !== undefined),
    learnt,
    ...(target ? { benchMetres: target.settingMetres } : {}),
    ...(target && learnt.visits > 0 ? { plusMinusMetres: target.plusMinusMetres } : {}),
    unsuited: unsuitedBy({ machine, unit, view: set, withGroomer }),
    ...(setUp ? { setUp } : {}),
  };
}

/** The unit with its other roller as it is meant to be, and the one its height screws move as it stands: the move is reckoned from there. */
function otherEndMoved(args: { machine: Machine; unit: string; stands: SideView; set: SideView }): SideView {
  const { stands, set } = args;
  const end: End = heightEndOf(args);
  return { ...set, [end]: stands[end] };
}

/** A draft with another height to cut: its height screws follow, as far as they reach. */
export function withHeight(args: Args, text: string): SettingDraft {
  const { draft, system, machine } = args;
  const next = change(draft, { height: text });
  const upMetres = readSetting({ ...args, draft: next })?.setUp?.upMetres;
  if (upMetres === undefined) return next;
  return change(next, { [heightEndOf({ machine, unit: draft.unit })]: written(upMetres, system) });
}

/** A draft with a roller moved, or packed; a height that was typed is what it comes to now. */
export function withMove(args: Args, move: Move, text: string): SettingDraft {
  const next = change(args.draft, { [move]: text });
  const read = readSetting({ ...args, draft: next });
  const stance = read && stanceOf(read.set);
  const isTyped = (args.draft.units[args.draft.unit] ?? NOTHING).height !== "";
  const { kind = "unread" } = read?.entries[move] ?? {};
  if (!stance || !isTyped || move === "onFront" || move === "onRear" || (kind !== "read" && kind !== "empty")) return next;
  return change(next, { height: written(stance.heightMetres + read.learnt.offsetMetres, args.system) });
}

/** A draft with the height of every unit that has one typed reckoned anew. */
function reckonedAnew(args: Args, start: SettingDraft): SettingDraft {
  let made = start;
  for (const [unit, { height }] of Object.entries(args.draft.units)) {
    if (height !== "") made = withHeight({ ...args, draft: { ...made, unit } }, height);
  }
  return { ...made, unit: start.unit };
}

/** A draft on another turf: heights to cut stay, the bench of every unit follows. */
export const withTurf = (args: Args, turf: string): SettingDraft => reckonedAnew(args, { ...args.draft, turf });

const change = (draft: SettingDraft, changes: Partial<UnitDraft>): SettingDraft => ({
  ...draft,
  units: { ...draft.units, [draft.unit]: { ...(draft.units[draft.unit] ?? NOTHING), ...changes } },
});

/** Whether anything was typed that is reckoned from a sheet that another has changed since. */
export const isOfAnotherSheet = (draft: SettingDraft, version: number): boolean =>
  draft.version !== version && Object.values(draft.units).some((unit) => Object.values(unit).some((text) => text !== ""));

/** The draft on the sheet as it is now: heights that were meant are reckoned anew, moves by hand were from what stood then and are let go. */
export function onSheetNow(args: Args, version: number): SettingDraft {
  const { draft } = args;
  const bare = Object.fromEntries(Object.entries(draft.units).map(([id, { onFront, onRear }]) => [id, { ...NOTHING, onFront, onRear }]));
  return reckonedAnew(args, { ...draft, units: bare, version });
}

/** As it stands again, of this unit. */
export const asItStands = (draft: SettingDraft): SettingDraft => ({ ...draft, units: { ...draft.units, [draft.unit]: NOTHING } });

/**
 * The setting of one unit for all that have a side view: those built like it as it is; others to the same height with their own screws. `undefined` for
 * one that cannot be brought there.
 */
export function settingsForAll(machine: Machine, unit: string, set: SideView): Record<string, BenchSetting | undefined> {
  const own = unitSheetOf(machine, unit).sideView;
  const heightMetres = stanceOf(set)?.heightMetres;
  return Object.fromEntries(
    drawnUnits(machine).map(({ id }) => {
      const view = unitSheetOf(machine, id).sideView;
      if (id === unit || JSON.stringify(view) === JSON.stringify(own)) return [id, settingOf(set)];
      const reached =
        heightMetres === undefined || !view ? undefined : setUpFor({ machine, unit: id, heightMetres, withGroomer: false, view })?.view;
      return [id, reached && settingOf(reached)];
    }),
  );
}

/** What is set back where it was. */
export const formerSettings = (machine: Machine, units: readonly string[]): Record<string, BenchSetting> =>
  Object.fromEntries(
    units.flatMap((id) => {
      const view = unitSheetOf(machine, id).sideView;
      return view ? [[id, settingOf(view)]] : [];
    }),
  );
