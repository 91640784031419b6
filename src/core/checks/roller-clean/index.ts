import type { Figure } from "@/core/basics/findings";
import { type Machine, type Unit, unitSheetOf } from "@/core/machine";
import { edgeShare, laidOn, stanceOf } from "@/core/physics/reel";
import { type OfUnit, unitCheck } from "../by-unit";
import { shows } from "../settled";

/** Grass packed on a roller: more, and it is cleaned and everything measured again. Estimate. */
export const PACK_METRES = 0.001;

type Code = "front-even" | "front-lumpy" | "front-thick" | "rear-even" | "rear-lumpy" | "rear-thick" | "scraper-worn";
type Do = "clean-rollers" | "set-scraper";
const ENDS = ["front", "rear"] as const;
const ALONG = ["Left", "Middle", "Right"] as const;

const end = (key: "front" | "rear", label: string): OfUnit<Code, Do>[] => [
  {
    kind: "choice",
    key: `${key}State`,
    label,
    options: [
      { id: "clean", label: "Clean" },
      {
        id: "even",
        label: "Packed, evenly",
        // A film is on every roller that has mown: how thick it is speaks, and the film by itself accuses nobody.
        means: { code: `${key}-even`, verdict: "watch", do: "clean-rollers" },
      },
      {
        id: "lumpy",
        label: "Packed in lumps",
        means: { code: `${key}-lumpy`, verdict: "out", causes: shows("roller-packed"), do: "clean-rollers" },
      },
    ],
  },
  ...ALONG.map(
    (along): OfUnit<Code, Do> => ({
      kind: "size",
      key: `${key}${along}Metres`,
      label: `${label}, how thick at the ${along.toLowerCase()}`,
      isAskedOf: (_machine, _unit, read) => read[`${key}State`] === "even" || read[`${key}State`] === "lumpy",
      figure: `${key}-pack-${along.toLowerCase()}`,
      instrument: "gauge",
      range: { least: 0, most: 0.05, usualLeast: 0, usualMost: 0.012 },
      most: PACK_METRES,
      alike: ALONG.map((other) => `${key}${other}Metres`),
      standing: "estimate",
      means: { code: `${key}-thick`, causes: shows("roller-packed"), do: "clean-rollers" },
    }),
  ),
];

type Read = Readonly<Record<string, string | number | undefined>>;

const packs = (read: Read, key: "front" | "rear"): number[] =>
  ALONG.flatMap((along) => {
    const value = read[`${key}${along}Metres`];
    return typeof value === "number" ? [value] : [];
  });

const mean = (values: readonly number[]) => (values.length === 0 ? 0 : values.reduce((sum, one) => sum + one, 0) / values.length);

/** What the pack does to the cut, by the unit's side view (physics): how much higher it stands, and how much one end stands over the other. */
function reckon(machine: Machine, unit: Unit, read: Read): Figure[] {
  const { sideView } = unitSheetOf(machine, unit.id);
  if (!sideView || ENDS.every((key) => packs(read, key).length === 0)) return [];
  const before = stanceOf(sideView);
  const after = stanceOf(laidOn(sideView, { front: mean(packs(read, "front")), rear: mean(packs(read, "rear")) }));
  if (!before || !after) return [];
  const share = edgeShare(sideView);
  const over = (key: "front" | "rear") => {
    const [left, right] = [read[`${key}LeftMetres`], read[`${key}RightMetres`]];
    return typeof left === "number" && typeof right === "number" ? left - right : 0;
  };
  const figure = (id: string, value: number): Figure => ({
    id,
    place: unit.id,
    value,
    dimension: "length",
    instrument: "fine",
    standing: "physics",
  });
  return [
    figure("raised-by", after.heightMetres - before.heightMetres),
    figure("left-over-right", over("front") * share + over("rear") * (1 - share)),
  ];
}

/** Build-up on both rollers of every unit, and what keeps them clean. */
export const rollerClean = unitCheck<Code, Do>({
  id: "roller-clean",
  ruleVersion: 3,
  cautions: ["reels-isolated"],
  asked: [
    ...end("front", "Front roller"),
    ...end("rear", "Rear roller"),
    {
      kind: "choice",
      key: "scraper",
      label: "Scraper or brush",
      options: [
        { id: "works", label: "Works" },
        { id: "worn", label: "Worn or off the roller", means: { code: "scraper-worn", verdict: "watch", do: "set-scraper" } },
        { id: "none", label: "None fitted" },
      ],
    },
  ],
  reckon,
});
