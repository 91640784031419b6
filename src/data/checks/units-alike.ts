import { kindById } from "@/core/catalogue/kinds";
import { type MatchDetail, matchReadingsSchema, type UnitProperty, unitMatrix } from "@/core/checks";
import { staleReasonsAt } from "@/core/job/staleness";
import { type Bracket, bracketFor, type Machine, unitSheetOf, unitsAcross } from "@/core/machine";
import { stanceOf } from "@/core/physics/reel";
import { listMachines, type MachineRecord } from "@/data/machine/machines";
import { listEvents } from "@/data/record/events-read";
import { takesOfCheck } from "@/data/record/takes-read";
import { knivesOf } from "@/data/service/knives";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";

type Value = string | number;
export type FleetUnit = {
  /** Machine and unit. */
  key: string;
  machineId: string;
  fleetNumber: string;
  unit: string;
  label: string;
  /** When its properties were last read side by side, and whether it was touched since. */
  readAt?: string;
  isStale: boolean;
  /** Properties that nobody read: what the sheet and the grinder's tally say. */
  bySheet: UnitProperty[];
};

export type Alike = {
  /** Machines by how they are built, each only compared with its own: what differs between builds is no fault. */
  builds: string[][];
  units: FleetUnit[];
  matrix: MatchDetail["matrix"];
  choices: { id: string; fleetNumber: string; site: string; isChosen: boolean }[];
};

const isReel = ({ machine }: MachineRecord): boolean => kindById(machine.kind).cutsWith === "reel" && machine.units.length > 0;

/** Machines built alike: as many blades on reels as large. */
const buildOf = ({ machine }: MachineRecord): string => {
  const { reel } = unitSheetOf(machine, unitsAcross(machine)[0]?.id ?? "");
  return `${reel?.blades}/${reel?.newDiameterMetres}`;
};

/** The machine asked for with those on its site and those built like it; without one, all that cut with reels. */
function chosenOf(reels: readonly MachineRecord[], ids: readonly string[]): MachineRecord[] {
  const asked = reels.filter(({ id }) => ids.includes(id));
  if (asked.length === 0) return [...reels];
  const [only] = asked;
  if (asked.length > 1 || !only) return asked;
  return reels.filter((one) => one.id === only.id || one.site === only.site || buildOf(one) === buildOf(only));
}

/** What the sheet says of a unit, and the tally of its knife; nothing that only wear decides. */
function sheetValues(
  machine: Machine,
  unit: string,
  knife: { topMetres?: number } | undefined,
): Partial<Record<UnitProperty, Value | undefined>> {
  const { reel, bedknife, frontRoller, rearRoller, groomer, sideView } = unitSheetOf(machine, unit);
  const benchMetres = sideView && stanceOf(sideView)?.heightMetres;
  const bracket: Bracket | undefined =
    benchMetres === undefined ? undefined : bracketFor(machine, unit, benchMetres, groomer !== undefined && groomer !== "none");
  return {
    blades: reel?.blades,
    knife: bedknife?.type,
    knifeMetres: knife?.topMetres,
    frontRoller: frontRoller?.kind,
    rearRoller: rearRoller?.kind,
    hole: bracket?.number,
    facing: bracket?.facing,
    groomer: groomer === undefined ? undefined : groomer === "none" ? "none" : "fitted",
    benchMetres,
  };
}

function unitsOf(db: Db, { id: machineId, fleetNumber, machine }: MachineRecord, now: string) {
  const takes = takesOfCheck(db, machineId, "unit-match")
    .filter(({ result }) => result.ruleVersion > 0)
    .sort((a, b) => b.seq - a.seq);
  const events = listEvents(db, machineId);
  const knives = knivesOf(db, machineId, now);
  return unitsAcross(machine).map(({ id, label }) => {
    const last = takes.find(({ result }) => result.told.includes(id));
    const readings = last && matchReadingsSchema.safeParse(last.input).data;
    const { knife, ...read } = readings?.units[id] ?? {};
    const sheet = sheetValues(machine, id, knives.find(({ unit }) => unit === id)?.life);
    // A knife "as on the sheet" is that sheet's: across machines its name is what is compared.
    const named = knife === undefined ? {} : { knife: knife === "another" ? "another" : (sheet.knife ?? "as-sheet") };
    const told = Object.fromEntries(Object.entries({ ...read, ...named }).filter(([, value]) => value !== undefined));
    const bySheet = (Object.keys(sheet) as UnitProperty[]).filter(
      (property) => sheet[property] !== undefined && told[property] === undefined,
    );
    const unit: FleetUnit = {
      key: `${machineId}:${id}`,
      machineId,
      fleetNumber,
      unit: id,
      label,
      ...(last ? { readAt: last.at } : {}),
      isStale: last !== undefined && staleReasonsAt({ machine, check: "unit-match", takenSeq: last.seq, events, place: id }).length > 0,
      bySheet,
    };
    return { unit, read: { ...sheet, ...told } };
  });
}

/**
 * Units of several machines against each other, property by property, as they were last read side by side; what nobody read as the sheet has it. Throws
 * `machine-not-found` for a machine that is not there or has no reel units.
 */
export function unitsAlike(db: Db, args: { machines: readonly string[]; now: string }): Alike {
  const reels = listMachines(db).filter(isReel);
  if (args.machines.some((id) => !reels.some((one) => one.id === id))) throw new AppError("machine-not-found");
  const chosen = chosenOf(reels, args.machines);
  const all = chosen.flatMap((record) => unitsOf(db, record, args.now));
  const builds = [...new Set(chosen.map(buildOf))].map((build) => chosen.filter((one) => buildOf(one) === build).map(({ id }) => id));
  const ofBuild = builds.map((ids) =>
    unitMatrix(all.filter(({ unit }) => ids.includes(unit.machineId)).map(({ unit, read }) => ({ id: unit.key, read }))),
  );
  const properties = [...new Set(ofBuild.flatMap((matrix) => matrix.map(({ property }) => property)))];
  return {
    units: all.map(({ unit }) => unit),
    builds,
    matrix: properties.map((property) => ({
      property,
      cells: Object.assign({}, ...ofBuild.map((matrix) => matrix.find((row) => row.property === property)?.cells ?? {})),
    })),
    choices: reels.map(({ id, fleetNumber, site }) => ({ id, fleetNumber, site, isChosen: chosen.some((one) => one.id === id) })),
  };
}
