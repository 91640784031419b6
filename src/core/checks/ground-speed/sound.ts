import { isRider } from "@/core/machine";
import type { Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, noise }) =>
  isRider(machine)
    ? { distanceMetres: 30, seconds: [16.4 + noise(0.2), 16.6 + noise(0.2)], throttle: "full" }
    : { distanceMetres: 30, seconds: [24.6 + noise(0.2), 24.9 + noise(0.2)], throttle: "full" };
