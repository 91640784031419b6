import { kindById } from "@/core/catalogue/kinds";
import type { Unit } from "@/core/machine";
import { SKEW_RADIANS } from "@/core/physics/reel";
import { unitCheck } from "../by-unit";
import { shows } from "../settled";

/** At the yoke, rocked by hand. Estimate. */
export const ARM_PLAY_METRES = 0.002;
/** One end of a unit ahead of the other, square to travel: one degree over the width of the unit. Estimate. */
const skewMost = ({ widthMetres }: Pick<Unit, "widthMetres">): number => widthMetres * Math.sin(SKEW_RADIANS);

type Code = "yoke-play" | "skewed" | "bushing-worn" | "bent" | "cracked";
type Do = "new-bushings" | "straighten-arm" | "hold-arm";

const ARM = shows("arm-worn-or-bent");

/** Lift arm, yoke and bushings of each unit, and whether it stands square to travel. */
export const armPlay = unitCheck<Code, Do>({
  id: "arm-play",
  ruleVersion: 2,
  cautions: ["reels-isolated"],
  asked: [
    {
      kind: "choice",
      key: "arm",
      label: "Arm and yoke",
      options: [
        { id: "sound", label: "Sound" },
        { id: "bent", label: "Bent", means: { code: "bent", verdict: "out", causes: ARM, do: "straighten-arm" } },
        { id: "cracked", label: "Cracked", means: { code: "cracked", verdict: "stop", causes: ARM, do: "hold-arm" } },
      ],
    },
    {
      kind: "choice",
      key: "bushings",
      label: "Bushings and pivot",
      options: [
        { id: "firm", label: "Firm" },
        { id: "worn", label: "Worn", means: { code: "bushing-worn", verdict: "out", causes: ARM, do: "new-bushings" } },
      ],
    },
    {
      kind: "size",
      key: "playMetres",
      label: "Play at the yoke, rocked up and down",
      figure: "yoke-play",
      instrument: "fine",
      range: { least: 0, most: 0.1, usualLeast: 0, usualMost: 0.015 },
      most: ARM_PLAY_METRES,
      standing: "estimate",
      means: { code: "yoke-play", causes: ARM, do: "new-bushings" },
    },
    {
      kind: "size",
      key: "skewMetres",
      label: "One end ahead of the other",
      isAskedOf: (machine) => kindById(machine.kind).isRider,
      figure: "skew",
      instrument: "tape",
      range: { least: 0, most: 0.3, usualLeast: 0, usualMost: 0.05 },
      most: skewMost,
      standing: "estimate",
      means: { code: "skewed", causes: ARM, do: "straighten-arm" },
    },
  ],
});
