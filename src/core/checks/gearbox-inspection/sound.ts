import { gearboxes } from "@/core/machine";
import { type Sound, taped } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, noise }) => ({
  boxes: Object.fromEntries(
    gearboxes(machine).map(({ id, coverToOilMetres = 0.05 }) => [
      id,
      {
        teeth: "whole",
        pin: "straight",
        metal: "none",
        bearings: "smooth",
        seal: "dry",
        sealFace: "unworn",
        oil: "clean",
        depthMetres: taped(coverToOilMetres + noise(0.0004)),
        stood: "hours",
      },
    ]),
  ),
});
