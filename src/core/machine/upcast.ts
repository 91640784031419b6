import { KINDS } from "@/core/catalogue/kinds";

/** Version of the schema that sheets are written in; without a number a sheet is of the first. */
export const SHEET_SCHEMA_VERSION = 4;

type Sheet = Record<string, unknown>;
const isSheet = (value: unknown): value is Sheet => typeof value === "object" && value !== null && !Array.isArray(value);

/** What only a machine with blades has, and what only one with reel units has. */
const OF_BLADES = {
  machine: ["deck"],
  sheet: ["blade", "belt", "gearboxes", "deckOff", "drive", "bladeBoltTorqueNewtonMetres", "spindlePlaces"],
} as const;
const OF_REELS = { machine: [], sheet: ["unit", "reelDrive"] } as const;

const without = (sheet: Sheet, keys: readonly string[]): Sheet =>
  Object.fromEntries(Object.entries(sheet).filter(([key]) => !keys.includes(key)));

/**
 * A machine is what it cuts with. The first version took a deck and blades on a reel machine, and units on a rotary one; the second still took what a
 * sheet says of them. Nothing ever read them there.
 */
function apartByWhatCuts(machine: Sheet): Sheet {
  const cutsWith = KINDS.find(({ id }) => id === machine.kind)?.cutsWith;
  if (cutsWith === undefined) return machine;
  const others = cutsWith === "reel" ? OF_BLADES : OF_REELS;
  return {
    ...without(machine, others.machine),
    ...(cutsWith === "reel" ? { spindles: [] } : { units: [] }),
    ...(isSheet(machine.sheet) ? { sheet: without(machine.sheet, others.sheet) } : {}),
  };
}

/** The fourth lets a hanger go without its lift per turn and says whose word a value is: what an earlier one says stands as it is. */
const asItIs = (machine: Sheet): Sheet => machine;

/** From each version to the next, the first at nought. */
const UPCASTERS: readonly ((machine: Sheet) => Sheet)[] = [apartByWhatCuts, apartByWhatCuts, asItIs];

/**
 * A stored sheet in today's form, before it is parsed: stored ones never change, they are brought up each time they are read. What is no sheet at all
 * comes back as it is, for the schema to refuse. Throws on one written by a newer program.
 */
export function upcastSheet(stored: unknown): unknown {
  if (!isSheet(stored)) return stored;
  const { schemaVersion = 1, ...machine } = stored;
  if (typeof schemaVersion !== "number" || !Number.isInteger(schemaVersion) || schemaVersion < 1) throw new Error("sheet of no version");
  if (schemaVersion > SHEET_SCHEMA_VERSION)
    throw new Error(`sheet of version ${schemaVersion}, this program reads ${SHEET_SCHEMA_VERSION}`);
  return UPCASTERS.slice(schemaVersion - 1).reduce((sheet, step) => step(sheet), machine as Sheet);
}

/** A sheet as it is stored: today's form with its version. */
export const storedSheet = (machine: object): object => ({ schemaVersion: SHEET_SCHEMA_VERSION, ...machine });
