import { featuresOf } from "@/core/catalogue/kinds";
import { eachUnit, type Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) =>
  eachUnit(machine, () => ({
    hood: "as-set",
    shield: "sound",
    path: "clear",
    basket: featuresOf(machine).includes("catcher") ? "seated" : "none",
  }));
