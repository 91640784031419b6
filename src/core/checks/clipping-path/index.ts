import * as z from "zod";
import type { Finding } from "@/core/basics/findings";
import { type UnitReadings, type UnitSays, unitCheck } from "../by-unit";
import { choices } from "../form";
import { evidenceOf, pointsAt, settled, shows } from "../settled";
import type { Assessment, Check } from "../types";

type Code = "hood-open" | "hood-closed" | "shield-bent" | "shield-missing" | "basket-low" | "basket-full" | "packed";
type Do = "set-hood" | "mend-shield" | "seat-basket" | "empty-basket" | "clear-path";

const HOOD = shows("hood-misset");

const RULE_VERSION = 2;

/** Hood, shield, basket and what lies inside, unit by unit. */
const ways = unitCheck<Code, Do>({
  id: "clipping-path",
  ruleVersion: RULE_VERSION,
  cautions: ["reels-isolated"],
  asked: [
    {
      kind: "choice",
      key: "hood",
      label: "Hood, by its adjuster",
      options: [
        { id: "as-set", label: "As for these clippings" },
        { id: "open", label: "Too far open", means: { code: "hood-open", verdict: "out", causes: HOOD, do: "set-hood" } },
        { id: "closed", label: "Too far closed", means: { code: "hood-closed", verdict: "out", causes: HOOD, do: "set-hood" } },
      ],
    },
    {
      kind: "choice",
      key: "shield",
      label: "Shield",
      options: [
        { id: "sound", label: "Sound and in place" },
        { id: "bent", label: "Bent", means: { code: "shield-bent", verdict: "out", causes: HOOD, do: "mend-shield" } },
        { id: "missing", label: "Missing", means: { code: "shield-missing", verdict: "out", causes: HOOD, do: "mend-shield" } },
      ],
    },
    {
      kind: "choice",
      key: "path",
      label: "Inside hood and shield",
      options: [
        { id: "clear", label: "Clear" },
        { id: "packed", label: "Packed", means: { code: "packed", verdict: "out", do: "clear-path" } },
      ],
    },
    {
      kind: "choice",
      key: "basket",
      label: "Basket",
      options: [
        { id: "seated", label: "Seated, with room" },
        { id: "low", label: "Hangs low or rubs", means: { code: "basket-low", verdict: "out", causes: HOOD, do: "seat-basket" } },
        { id: "full", label: "Full", means: { code: "basket-full", verdict: "watch", do: "empty-basket" } },
        { id: "none", label: "Mown without" },
      ],
    },
  ],
});

/** Both clump with every hood right, and each wants another answer: wet grass waits, tall grass is mown twice (common practice). */
const grassSchema = z.object({
  wet: z.enum(["dry", "damp", "wet"]).optional(),
  /** Whether more than a third of the leaf comes off in one pass. */
  tall: z.enum(["within-a-third", "more"]).optional(),
});
export type PathReadings = UnitReadings & { grass?: z.output<typeof grassSchema> | undefined };

const GRASS = "grass";
const WET_OR_TALL = pointsAt("too-wet-or-tall");

type Says = Omit<UnitSays<Do>, "action"> & {
  action: UnitSays<Do>["action"] | { code: "wait-until-dry"; place: typeof GRASS } | { code: "mow-twice"; place: typeof GRASS };
};
export type PathDetail = { read: number };

function grassFindings({ wet, tall }: NonNullable<PathReadings["grass"]>): Finding[] {
  const off: Finding[] = [
    ...(wet === "wet" ? [{ place: GRASS, code: "grass-wet", verdict: "watch" as const, causes: WET_OR_TALL }] : []),
    ...(tall === "more" ? [{ place: GRASS, code: "grass-tall", verdict: "watch" as const, causes: WET_OR_TALL }] : []),
  ];
  const isTold = wet !== undefined && tall !== undefined;
  return off.length === 0 && isTold ? [{ place: GRASS, code: "grass-fair", verdict: "in-tolerance" }] : off;
}

/** The way of the clippings out of each unit; wet and tall grass told apart from it and from each other. */
export const clippingPath: Check<PathReadings, PathDetail, Says> = {
  ...ways,
  readingsSchema: (ways.readingsSchema as unknown as z.ZodObject).extend({
    grass: grassSchema.optional(),
  }) as unknown as z.ZodType<PathReadings>,
  form: (machine, soFar) => {
    const { groups = [], fields = [] } = ways.form?.(machine, soFar) ?? {};
    return {
      groups: [...groups, { id: GRASS, label: "The grass" }],
      fields: [
        ...fields,
        {
          kind: "choice",
          path: ["grass", "wet"],
          group: GRASS,
          label: "How wet it was mown",
          isOptional: true,
          options: choices(["dry", "Dry"], ["damp", "Damp, dew"], ["wet", "Wet"]),
        },
        {
          kind: "choice",
          path: ["grass", "tall"],
          group: GRASS,
          label: "How much comes off",
          isOptional: true,
          options: choices(["within-a-third", "A third of the leaf at most"], ["more", "More than a third"]),
        },
      ],
    };
  },
  assess,
};

function assess(machine: Parameters<typeof ways.assess>[0], readings: PathReadings): Assessment<PathDetail, Says> {
  const { grass = {}, ...units } = readings;
  const found = ways.assess(machine, units);
  const ofGrass = grassFindings(grass);
  const isGrassTold = grass.wet !== undefined && grass.tall !== undefined;
  return {
    ...found,
    ...settled({
      check: "clipping-path",
      findings: [...found.findings, ...ofGrass],
      evidence: [...found.evidence, ...evidenceOf({ check: "clipping-path", findings: ofGrass, clears: {} })],
      told: [...found.told, ...(isGrassTold ? [GRASS] : [])],
      isComplete: found.provisional.length === 0,
    }),
    actions: [
      ...found.actions,
      ...(grass.wet === "wet" ? [{ code: "wait-until-dry" as const, place: GRASS } as const] : []),
      ...(grass.tall === "more" ? [{ code: "mow-twice" as const, place: GRASS } as const] : []),
    ],
  };
}
