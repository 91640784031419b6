import { MILLIMETRE, type Sound, taped } from "../sound-basics";

/** What this worksheet reads where nothing is wrong. */
export const sound: Sound = ({ machine, noise }) => ({
  wheels: Object.fromEntries(
    (machine.deck?.antiScalpWheels ?? []).map(({ id }) => [
      id,
      { clearanceMetres: taped(0.0127 + noise(MILLIMETRE)), turns: "free", hole: 3 },
    ]),
  ),
});
