import { kindById } from "@/core/catalogue/kinds";
import { benchHeight, type Machine } from "@/core/machine";
import { pricks, type Sound } from "../sound-basics";

const reelStubble = (machine: Machine) => ({
  settingMetres: benchHeight(machine),
  offsetMetres: 0,
  spreadMetres: 0.0003,
  stepMetres: 0.0001,
});

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, random, turf }) =>
  kindById(machine.kind).cutsWith === "reel"
    ? { ...pricks({ ...reelStubble(machine), random, turf }), wantedMetres: benchHeight(machine) }
    : pricks({ settingMetres: 0.0635, offsetMetres: 0, spreadMetres: 0.0025, random, turf });
