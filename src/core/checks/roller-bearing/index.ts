import type { Machine, Unit } from "@/core/machine";
import { unitCheck } from "../by-unit";
import { shows } from "../settled";

/** Rise of a roller's end, lifted by hand: more is its bearing. Estimate: 0.006 in; the trade condemns any that is felt. */
export const ROLLER_LIFT_METRES = 0.00015;

type Code = "front-rises" | "rear-rises" | "front-rough" | "rear-rough";

const end = (key: "front" | "rear", label: string) =>
  [
    {
      kind: "choice",
      key: `${key}Feel`,
      label: `${label}, both ends lifted by hand`,
      options: [
        { id: "none", label: "No rise" },
        { id: "axial", label: "Only along its axis" },
        {
          id: "rises",
          label: "Rises",
          means: { code: `${key}-rises`, verdict: "out", causes: shows("roller-bearing-worn"), do: "change-roller-bearings" },
        },
      ],
    },
    {
      kind: "choice",
      key: `${key}Turns`,
      label: `${label}, turned by hand`,
      options: [
        { id: "smooth", label: "Smooth" },
        {
          id: "rough",
          label: "Rough",
          means: { code: `${key}-rough`, verdict: "out", causes: shows("roller-bearing-worn"), do: "change-roller-bearings" },
        },
      ],
    },
    {
      kind: "size",
      key: `${key}LiftMetres`,
      label: `${label}, rise of the worse end`,
      // An end that does not rise has none to measure.
      isAskedOf: (_machine: Machine, _unit: Unit, read: Readonly<Record<string, unknown>>) =>
        read[`${key}Feel`] !== "none" && read[`${key}Feel`] !== "axial",
      figure: `${key}-lift`,
      instrument: "fine",
      range: { least: 0, most: 0.02, usualLeast: 0, usualMost: 0.003 },
      most: ROLLER_LIFT_METRES,
      standing: "estimate",
      means: { code: `${key}-rises`, causes: shows("roller-bearing-worn"), do: "change-roller-bearings" },
    },
  ] as const;

/** Play of a unit's rollers. Only up and down counts; play along the axis is by design. */
export const rollerBearing = unitCheck<Code, "change-roller-bearings">({
  id: "roller-bearing",
  ruleVersion: 2,
  asked: [...end("front", "Front roller"), ...end("rear", "Rear roller")],
});
