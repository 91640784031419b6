import type { cutters } from "@/core/machine";

/** Where in the swath a complaint lies, metres to the driver's right of the middle. */
export type SwathPlace = { where: "all-over" | "band" | "between-passes"; fromMetres?: number; toMetres?: number };

type Cutter = ReturnType<typeof cutters>[number];

/** Where neighbours join: a hand to either side of the middle of their overlap. */
const JOIN_HALF_METRES = 0.03;

/** The joins between neighbours, with their words. */
export function joins(all: readonly Cutter[]) {
  return all.slice(1).map((next, k) => {
    const before = all[k] as Cutter;
    const middle = (before.right + next.left) / 2;
    return {
      label: `${short(before.label)} to ${short(next.label).toLowerCase()}`,
      from: middle - JOIN_HALF_METRES,
      to: middle + JOIN_HALF_METRES,
    };
  });
}

const short = (label: string) => label.replace(/ (blade|unit)$/, "");

/** What a touch means: outside the swath the meeting of passes, near a join the join, else the blade or unit there. */
export function placeAt(metres: number, all: readonly Cutter[], edges: { left: number; right: number }): SwathPlace {
  if (metres < edges.left + JOIN_HALF_METRES || metres > edges.right - JOIN_HALF_METRES) return { where: "between-passes" };
  const join = joins(all).find(({ from, to }) => metres >= from && metres <= to);
  if (join) return { where: "band", fromMetres: join.from, toMetres: join.to };
  const cutter = all.find(({ left, right }) => metres >= left && metres <= right);
  return cutter ? { where: "band", fromMetres: cutter.left, toMetres: cutter.right } : { where: "all-over" };
}
