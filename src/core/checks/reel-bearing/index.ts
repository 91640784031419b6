import { unitCheck } from "../by-unit";
import { shows } from "../settled";

/** Lift of a reel's end against its bearing. Estimate: 0.003 in. */
export const REEL_LIFT_METRES = 0.00008;

type Code = "left-lifts" | "right-lifts" | "rough" | "weeps" | "wound";
type Do = "change-reel-bearings" | "clear-winding";

const end = (key: "left" | "right", label: string) =>
  [
    {
      kind: "choice",
      key: `${key}Feel`,
      label: `${label} end, lifted`,
      options: [
        { id: "none", label: "No lift" },
        { id: "axial", label: "Only along its axis" },
        {
          id: "lifts",
          label: "Lifts",
          means: { code: `${key}-lifts`, verdict: "out", causes: shows("reel-bearing-worn"), do: "change-reel-bearings" },
        },
      ],
    },
    {
      kind: "size",
      key: `${key}LiftMetres`,
      label: `${label} end, lift by the gauge`,
      figure: `${key}-lift`,
      instrument: "fine",
      range: { least: 0, most: 0.01, usualLeast: 0, usualMost: 0.002 },
      most: REEL_LIFT_METRES,
      standing: "estimate",
      means: { code: `${key}-lifts`, causes: shows("reel-bearing-worn"), do: "change-reel-bearings" },
    },
  ] as const;

/** Lift of a reel in its bearings. Spring play along the axis is by design; a reel that lifts drops on to the knife when the unit is set down. */
export const reelBearing = unitCheck<Code, Do>({
  id: "reel-bearing",
  ruleVersion: 1,
  cautions: ["reels-isolated"],
  asked: [
    ...end("left", "Left"),
    ...end("right", "Right"),
    {
      kind: "choice",
      key: "turns",
      label: "Turned by its handle",
      options: [
        { id: "smooth", label: "Smooth" },
        {
          id: "rough",
          label: "Rough",
          means: { code: "rough", verdict: "out", causes: shows("reel-bearing-worn"), do: "change-reel-bearings" },
        },
      ],
    },
    {
      kind: "choice",
      key: "ends",
      label: "Both ends",
      options: [
        { id: "dry", label: "Dry" },
        {
          id: "weeps",
          label: "Grease or oil weeps",
          means: { code: "weeps", verdict: "watch", causes: [{ cause: "reel-bearing-worn", result: "suspect" }] },
        },
      ],
    },
    {
      kind: "choice",
      key: "wrap",
      label: "Wound on its shaft",
      options: [
        { id: "none", label: "Nothing" },
        {
          id: "wound",
          label: "Grass, string or wire",
          means: { code: "wound", verdict: "out", causes: shows("shaft-wrapped"), do: "clear-winding" },
        },
      ],
    },
  ],
});
