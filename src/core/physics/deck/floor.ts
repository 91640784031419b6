import { fitPlane, type HeightAt, type Plane, type Point, planeHeight } from "@/core/basics/geometry";

/** Heights of the floor on any datum, metres: under each wheel, and under tips that were mapped. */
export type FloorMap = { wheels: readonly HeightAt[]; places: readonly HeightAt[] };

export type HeightDatum = "floor" | "level";

/** A tip counts as mapped when the floor was read within this distance of it. */
const SAME_PLACE_METRES = 0.08;

/** The plane of the wheel contacts, or `undefined` with fewer than three mapped. */
export function wheelPlane(floor: FloorMap): Plane | undefined {
  const fitted = fitPlane(floor.wheels);
  return fitted.kind === "fitted" ? fitted.planeFit.plane : undefined;
}

/**
 * Heights above the plane of the wheel contacts, from heights as read (physics; on a plane floor of any slope, read from that
 * floor, nothing changes). Read from the floor: h′ = h + f(tip) − P_w(tip), f the floor's height under the tip.
 * Read from a laser or water level: h′ = h − P_w(tip). A tip whose floor was not mapped keeps its height and is counted.
 */
export function correctForFloor(args: { heights: readonly HeightAt[]; datum: HeightDatum; floor?: FloorMap }): {
  heights: HeightAt[];
  unmapped: number;
} {
  const plane = args.floor ? wheelPlane(args.floor) : undefined;
  if (!args.floor || !plane) return { heights: [...args.heights], unmapped: args.heights.length };
  let unmapped = 0;
  const heights = args.heights.map((reading) => {
    if (args.datum === "level") return { ...reading, z: reading.z - planeHeight(plane, reading) };
    const floorHere = nearestPlace(args.floor?.places ?? [], reading);
    if (!floorHere) {
      unmapped += 1;
      return reading;
    }
    return { ...reading, z: reading.z + floorHere.z - planeHeight(plane, reading) };
  });
  return { heights, unmapped };
}

function nearestPlace(places: readonly HeightAt[], at: Point): HeightAt | undefined {
  const near = places.filter((place) => Math.hypot(place.x - at.x, place.y - at.y) <= SAME_PLACE_METRES);
  return near.sort((a, b) => Math.hypot(a.x - at.x, a.y - at.y) - Math.hypot(b.x - at.x, b.y - at.y))[0];
}
