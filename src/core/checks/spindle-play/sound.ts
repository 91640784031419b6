import { featuresOf } from "@/core/catalogue/kinds";
import type { Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, noise }) => {
  const isDirect = featuresOf(machine).includes("direct-drive");
  return {
    spindles: Object.fromEntries(
      machine.spindles.map(({ id }) => [
        id,
        {
          playMetres: Math.max(0, 0.0004 + noise(0.0001)),
          feel: "smooth",
          wrap: "none",
          ...(isDirect ? { key: "whole", shaftEnd: "true" } : { seat: "flush" }),
        },
      ]),
    ),
  };
};
