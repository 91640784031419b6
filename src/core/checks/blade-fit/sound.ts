import { eachBlade, type Sound } from "../sound-basics";

/** What a wrench is set to where the sheet gives no figure. */
const USUAL_TORQUE = 60;

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine }) => {
  const { blade } = machine.sheet;
  return eachBlade(machine, () => ({
    sail: "to-deck",
    leads: "edge",
    stack: "as-sheet",
    imprint: "same",
    seated: "flush",
    ...(blade?.bolt ? { bolt: blade.bolt.grade } : {}),
    tightened: "wrench",
    torqueNewtonMetres: machine.sheet.bladeBoltTorqueNewtonMetres ?? USUAL_TORQUE,
  }));
};
