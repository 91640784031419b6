import * as z from "zod";
import type { UnitSystem } from "@/core/units";

/** What a link to the reckoner holds: machine, units, and every field as it was typed; nothing of it is kept anywhere else. */
export type ReckonerState = {
  machineId?: string;
  system?: UnitSystem;
  /** Typed text by field. */
  text: Record<string, string>;
  /** Of the deck's level: which form, the height wanted, hangers found loose, the floor; of the tyres: the gauge's step. */
  form?: "quick" | "twist" | "full";
  wantedHeight?: string;
  gaugeStepPsi?: string;
  loose?: string[];
  floor?: Record<string, string>;
};

const FLOOR = "floor.";
const MOST_LETTERS = 8000;
const MOST_FIELDS = 400;

const querySchema = z.record(z.string().max(200), z.union([z.string().max(MOST_LETTERS), z.array(z.string().max(MOST_LETTERS))])).catch({});
const formSchema = z.enum(["quick", "twist", "full"]).optional().catch(undefined);
const systemSchema = z.enum(["us", "metric"]).optional().catch(undefined);
const RESERVED = ["machine", "units", "form", "wanted", "step", "loose"];

/** The state in a page's query. Whatever cannot be read is left out; a link never fails. */
export function stateFrom(query: unknown): ReckonerState {
  const parsed = querySchema.parse(query);
  const one = Object.fromEntries(
    Object.entries(parsed)
      .slice(0, MOST_FIELDS)
      .map(([key, value]) => [key, Array.isArray(value) ? (value[0] ?? "") : value]),
  );
  const floor = pick(one, (key) => key.startsWith(FLOOR), FLOOR.length);
  const form = formSchema.parse(one.form);
  const system = systemSchema.parse(one.units);
  return {
    text: pick(one, (key) => !key.startsWith(FLOOR) && !RESERVED.includes(key)),
    ...(one.machine ? { machineId: one.machine.toLowerCase() } : {}),
    ...(system ? { system } : {}),
    ...(form ? { form } : {}),
    ...(one.wanted ? { wantedHeight: one.wanted } : {}),
    ...(one.step ? { gaugeStepPsi: one.step } : {}),
    ...(one.loose ? { loose: one.loose.split(",") } : {}),
    ...(Object.keys(floor).length > 0 ? { floor } : {}),
  };
}

function pick(all: Record<string, string>, isWanted: (key: string) => boolean, from = 0): Record<string, string> {
  return Object.fromEntries(
    Object.entries(all).flatMap(([key, value]) => (isWanted(key) && value !== "" ? [[key.slice(from), value]] : [])),
  );
}

/** The query that holds a state; the inverse of `stateFrom`. */
export function queryOf(state: ReckonerState): string {
  const query = new URLSearchParams();
  if (state.machineId) query.set("machine", state.machineId);
  if (state.system) query.set("units", state.system);
  if (state.form && state.form !== "quick") query.set("form", state.form);
  if (state.wantedHeight) query.set("wanted", state.wantedHeight);
  if (state.gaugeStepPsi && state.gaugeStepPsi !== "0.5") query.set("step", state.gaugeStepPsi);
  if (state.loose?.length) query.set("loose", state.loose.join(","));
  for (const [key, value] of Object.entries(state.floor ?? {})) if (value !== "") query.set(`${FLOOR}${key}`, value);
  for (const [key, value] of Object.entries(state.text)) if (value !== "" && !RESERVED.includes(key)) query.set(key, value);
  return query.toString();
}
