import { schoolOf } from "@/core/machine";
import { eachUnit, type Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) =>
  eachUnit(machine, ({ id }) => ({
    bearing: "sound",
    turns: schoolOf(machine, id) === "no-contact" ? "free" : "light-drag",
    worst: { left: "cut", middle: "cut", right: "cut" },
    closer: "cuts",
  }));
