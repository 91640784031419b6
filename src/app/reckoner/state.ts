import * as z from "zod";
import type { UnitSystem } from "@/core/basics/units";

/** What a link to the reckoner holds: machine, units, and every field as it was typed; nothing of it is kept anywhere else. */
export type ReckonerState = {
  machineId?: string;
  system?: UnitSystem;
  /** Typed text by field. */
  text: Record<string, string>;
};

const MOST_LETTERS = 8000;
const MOST_FIELDS = 400;

const querySchema = z.record(z.string().max(200), z.union([z.string().max(MOST_LETTERS), z.array(z.string().max(MOST_LETTERS))])).catch({});
const systemSchema = z.enum(["us", "metric"]).optional().catch(undefined);
const RESERVED = ["machine", "units"];

/** The state in a page's query. Whatever cannot be read is left out; a link never fails. */
export function stateFrom(query: unknown): ReckonerState {
  const parsed = querySchema.parse(query);
  const one = Object.fromEntries(
    Object.entries(parsed)
      .slice(0, MOST_FIELDS)
      .map(([key, value]) => [key, Array.isArray(value) ? (value[0] ?? "") : value]),
  );
  const system = systemSchema.parse(one.units);
  return {
    text: Object.fromEntries(Object.entries(one).filter(([key, value]) => !RESERVED.includes(key) && value !== "")),
    ...(one.machine ? { machineId: one.machine.toLowerCase() } : {}),
    ...(system ? { system } : {}),
  };
}

/** The query that holds a state; the inverse of `stateFrom`. */
export function queryOf(state: ReckonerState): string {
  const query = new URLSearchParams();
  if (state.machineId) query.set("machine", state.machineId);
  if (state.system) query.set("units", state.system);
  for (const [key, value] of Object.entries(state.text)) if (value !== "" && !RESERVED.includes(key)) query.set(key, value);
  return query.toString();
}
