import { DIRECTIONS, type Direction, type Machine, referenceSpindle, spindlesAcross, tipAt } from "@/core/machine";
import type { Station } from "@/core/physics/deck";
import { stationKey } from "./schema";

export type TipStation = Station & { direction: Direction; end?: "A" | "B"; key: string };

function station(machine: Machine, spindleId: string, direction: Direction, end?: "A" | "B"): TipStation[] {
  const spindle = machine.spindles.find(({ id }) => id === spindleId);
  if (!spindle) return [];
  const base = { spindleId, direction, ...tipAt(spindle, direction) };
  return [end ? { ...base, end, key: stationKey({ spindleId, direction, end }) } : { ...base, key: stationKey(base) }];
}

/** Outer left tip, outer right tip, then front and rear of the middle blade: the order the tape is moved. */
export function quickForm(machine: Machine): TipStation[] {
  const across = spindlesAcross(machine);
  const [first] = across;
  const last = across.at(-1);
  const middle = referenceSpindle(machine);
  if (!first || !last || !middle) return [];
  return [
    ...station(machine, first.id, "left"),
    ...station(machine, last.id, "right"),
    ...station(machine, middle.id, "front"),
    ...station(machine, middle.id, "rear"),
  ];
}

/** Quick form plus front and rear of both outer blades: what a drop, a strike or a refit asks for. */
export function twistForm(machine: Machine): TipStation[] {
  const across = spindlesAcross(machine);
  const outer = [across[0], across.at(-1)].flatMap((spindle) => (spindle ? [spindle] : []));
  const extra = outer.flatMap(({ id }) => [...station(machine, id, "front"), ...station(machine, id, "rear")]);
  const quick = quickForm(machine);
  return [...quick, ...extra.filter(({ key }) => !quick.some((taken) => taken.key === key))];
}

/** Both ends of every blade at left, front, right and rear: end A round the four, then end B, blade by blade from the left. */
export function fullForm(machine: Machine): TipStation[] {
  return spindlesAcross(machine).flatMap(({ id }) =>
    (["A", "B"] as const).flatMap((end) => DIRECTIONS.flatMap((direction) => station(machine, id, direction, end))),
  );
}

/** Every place a tip can point to, ends not told apart. */
export function allStations(machine: Machine): TipStation[] {
  return spindlesAcross(machine).flatMap(({ id }) => DIRECTIONS.flatMap((direction) => station(machine, id, direction)));
}
