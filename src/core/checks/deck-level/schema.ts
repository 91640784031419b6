import * as z from "zod";
import { physical } from "@/core/basics/units/physical";
import { DIRECTIONS, type Direction } from "@/core/machine";
import { byPlace, textAt } from "../listed";

const placeId = z.string().min(1).max(60);
const tipSchema = z.object({ heightMetres: physical("metres", 0.4) });
const floorSchema = z.object({ heightMetres: z.number().min(-1).max(3) });

export const FORMS = ["quick", "twist", "full"] as const;
/** How many tips are read: four; front and rear of both outer blades too; both ends of every blade all round. */
export type DeckForm = (typeof FORMS)[number];

type Listed = Record<string, unknown>;
const tipKeyOf = (one: Listed): string | undefined => {
  const [spindleId, direction, end] = [textAt(one, "spindleId"), textAt(one, "direction"), textAt(one, "end")];
  return spindleId && direction ? stationKey({ spindleId, direction, end }) : undefined;
};
const byTip = byPlace(tipKeyOf, ["spindleId", "direction", "end"]);
const byWheel = byPlace((one) => textAt(one, "wheelId"), ["wheelId"]);

/** One name for a tip reading's place, used by drawings, drafts and the record. */
export function stationKey(station: { spindleId: string; direction: string; end?: string | undefined }): string {
  return [station.spindleId, station.direction, station.end].filter(Boolean).join(":");
}

/** The place a key names; `undefined` for none of this form. */
export function stationOf(key: string): { spindleId: string; direction: Direction; end?: "A" | "B" } | undefined {
  const [spindleId = "", direction, end, ...more] = key.split(":");
  const isDirection = (DIRECTIONS as readonly string[]).includes(direction ?? "");
  if (spindleId === "" || !isDirection || more.length > 0 || (end !== undefined && end !== "A" && end !== "B")) return undefined;
  return { spindleId, direction: direction as Direction, ...(end ? { end } : {}) };
}

/** Rule version 1 wrote lists, the loose hangers by their ids, and a yes for one end carried round: what was kept then can still be read. */
function fromLists(value: unknown): unknown {
  const given = z.looseObject({}).safeParse(value);
  if (!given.success) return value;
  const { looseHangerIds, isCarriedRound, ...rest } = given.data as Listed;
  const loose = z.array(placeId).max(6).safeParse(looseHangerIds);
  return {
    ...(loose.success && loose.data.length > 0 ? { hangers: Object.fromEntries(loose.data.map((id) => [id, "loose"])) } : {}),
    ...(isCarriedRound === true ? { ends: "one-carried-round" } : {}),
    ...rest,
  };
}

const readingsSchema = z.object({
  /** What heights were read from: the floor the wheels stand on, or a laser or water level. */
  datum: z.enum(["floor", "level"]).default("floor"),
  form: z.enum(FORMS).optional(),
  /** By blade and where its tip pointed, with the end of the blade where both were read: `left:front:A`. */
  tips: z.preprocess(byTip, z.record(placeId, tipSchema).default({})),
  /** The bay's floor on any datum of its own. */
  floor: z
    .object({
      wheels: z.preprocess(byWheel, z.record(placeId, floorSchema).default({})),
      places: z.preprocess(byTip, z.record(placeId, floorSchema).default({})),
    })
    .optional(),
  /** Height of cut to set while at it; without it the deck keeps its height and is only levelled. */
  wantedCutHeightMetres: physical("metres", 0.3).optional(),
  /** Whether each carried its share before anything was turned. */
  hangers: z.record(placeId, z.enum(["loaded", "loose"])).default({}),
  /** One and the same end of each blade was turned to every place: its other end may be bent and does not matter. */
  ends: z.enum(["one-carried-round", "as-they-stood"]).optional(),
  /** Whether tyre pressures were taken and found right in the same job. */
  tyres: z.enum(["right", "not-right", "not-checked"]).default("not-checked"),
  /** A drop, a strike or a refit since the last level: rake is then wanted on both outer blades. */
  isAfterDropOrRefit: z.boolean().default(false),
  /** Whether the blades it is read on were tracked and found straight, and nothing touched them since. */
  blades: z.enum(["straight", "not-known"]).default("not-known"),
  /** A drop or a strike, and the hangers not looked at since: a level then says nothing of the adjusters. */
  isBeforeHangers: z.boolean().default(false),
});

const QUICK_READINGS = 4;

/** The form that holds a place for each of these readings. */
function formOf(tips: Readonly<Record<string, unknown>>): DeckForm | undefined {
  const keys = Object.keys(tips);
  if (keys.length === 0) return undefined;
  if (keys.some((key) => stationOf(key)?.end !== undefined)) return "full";
  return keys.length > QUICK_READINGS ? "twist" : "quick";
}

export const deckReadingsSchema = z.preprocess(
  fromLists,
  readingsSchema.transform((readings) => {
    const form = readings.form ?? formOf(readings.tips);
    return form ? { ...readings, form } : readings;
  }),
);

export type DeckReadings = z.output<typeof readingsSchema>;
/** A height at a place; `key` is its name. */
export type TipReading = { key: string; spindleId: string; direction: Direction; end?: "A" | "B"; heightMetres: number };

/** The tips read, in the order they stand. */
export function tipsOf({ tips }: Pick<DeckReadings, "tips">): TipReading[] {
  return Object.entries(tips).flatMap(([key, { heightMetres }]) => {
    const station = stationOf(key);
    return station ? [{ key, ...station, heightMetres }] : [];
  });
}
