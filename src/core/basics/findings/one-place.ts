import type { Finding } from "./types";

/**
 * How many blades or units were read, where one alone of them points at these causes; `undefined` where several do, or where it is read of the whole
 * machine. `cutters`: their ids; a place is one of them or a part of it (`left`, `left:A`). `told`: places read in full.
 */
export function onePlaceOf(args: {
  cutters: readonly string[];
  findings: readonly Pick<Finding, "place" | "causes">[];
  told: readonly string[];
  causes: readonly string[];
}): number | undefined {
  const { cutters, findings, told, causes } = args;
  const cutterOf = (place: string) => cutters.find((id) => place === id || place.startsWith(`${id}:`));
  const pointing = findings.filter((one) => one.causes?.some(({ cause }) => causes.includes(cause))).map(({ place }) => cutterOf(place));
  const [where, ...others] = new Set(pointing);
  const read = cutters.filter((id) => told.some((place) => cutterOf(place) === id)).length;
  return where !== undefined && others.length === 0 && read > 1 ? read : undefined;
}
