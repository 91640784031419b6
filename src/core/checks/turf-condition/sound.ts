import type { Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = () => ({
  beforeMetres: [0.076, 0.079, 0.077],
  cutMetres: 0.0635,
  moisture: "dry",
  density: "usual",
  ground: "flat",
  lie: "upright",
});
