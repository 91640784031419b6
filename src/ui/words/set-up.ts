import type { UnitSystem } from "@/core/basics/units";
import type { SetUp, Unsuited } from "@/core/job/bench/set-up";
import { show } from "./quantities";

type Say<Codes extends { code: string }> = { [Code in Codes["code"]]: (one: Extract<Codes, { code: Code }>, system: UnitSystem) => string };

const fine = (metres: number, system: UnitSystem) => show(metres, "length", system, "fine");
const degrees = (radians: number) => `${((radians * 180) / Math.PI).toFixed(1).replace("-", "−")}°`;

function between(system: UnitSystem, least: number | undefined, most: number | undefined): string {
  if (least === undefined) return most === undefined ? "any height" : `up to ${fine(most, system)}`;
  return most === undefined ? `from ${fine(least, system)}` : `${fine(least, system)} to ${fine(most, system)}`;
}

const SENTENCES: Say<Unsuited> = {
  "no-travel-reaches": () => "No travel of its height screws reaches this height.",
  "out-of-travel": (u, s) =>
    `Past the travel of the height screws: with the front roller here they reach ${between(s, u.leastMetres, u.mostMetres)}.`,
  "not-the-machines-height": (u, s) => `Outside the machine's own range, ${between(s, u.leastMetres, u.mostMetres)}.`,
  "blades-too-many": (u) =>
    `${u.blades} blades are many for this height: from half an inch up a reel of 5 to 8 takes long grass in (common practice).`,
  "blades-too-few": (u) =>
    `${u.blades} blades are few for this height: under half an inch a reel of 11 to 14 cuts evenly (common practice).`,
  "knife-not-for-height": (u, s) =>
    `The knife “${u.type}” is made for ${between(s, u.fromMetres, u.toMetres)}: fit the one for this height.`,
  "no-heel": (u, s) =>
    `Only ${fine(u.clearMetres, s)} under the heel: a third of the height is wanted (estimate). A knife ${fine(u.lacksMetres, s)} thinner, or the front roller by its table.`,
  "no-toe": (u, s) =>
    `Only ${fine(u.clearMetres, s)} under the toe: a third of the height is wanted (estimate). It leans on its nose: front roller first, by its table.`,
  "attitude-off": (u) =>
    `Attitude ${degrees(u.radians)}, the sheet allows ${degrees(u.leastRadians)} to ${degrees(u.mostRadians)}: the front roller's place decides it, never the rear.`,
  "no-bracket": () => "The sheet's table has no bracket for this height.",
};

export const sayUnsuited = (one: Unsuited, system: UnitSystem): string =>
  (SENTENCES[one.code] as (one: Unsuited, system: UnitSystem) => string)(one, system);

/** Which roller goes which way, and by how many turns where the sheet gives a throw. */
export function sayMove({ end, upMetres, turns }: Pick<SetUp, "end" | "upMetres" | "turns">, system: UnitSystem): string {
  const name = end === "rear" ? "Rear roller" : "Front roller";
  if (upMetres === undefined) return "No travel reaches it.";
  if (Math.abs(upMetres) < 5e-6) return `${name} as it stands.`;
  const by = turns === undefined ? "" : `, ${Math.abs(turns).toFixed(2)} ${Math.abs(turns) === 1 ? "turn" : "turns"} of both its screws`;
  return `${name} ${fine(Math.abs(upMetres), system)} ${upMetres > 0 ? "up" : "down"} in the unit${by}.`;
}
