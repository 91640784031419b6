import { unitSheetOf } from "@/core/machine";
import { eachUnit, type Sound } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) =>
  eachUnit(machine, ({ id }) => ({
    frontState: "clean",
    rearState: "clean",
    scraper: unitSheetOf(machine, id).hasScraper ? "works" : "none",
  }));
