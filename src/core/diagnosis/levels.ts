/** Above this a cause is taken as the one, once a check has spoken for it (estimate). */
export const EXPLAINED_LEVEL = 0.85;
/** More likely than not: nothing on the list has shown the symptom. */
export const NOTHING_EXPLAINS_LEVEL = 0.5;
/** A cause that can show nothing of the complaint is named all the same from here on. Estimate. */
export const WORTH_A_LOOK_LEVEL = 0.2;
/** Where what moved a cause is that something was done about it, and no check. */
export const MENDED = "mended";

/** With more looks than this the reasons take longer than a blink: the answer without them comes first. Measured. */
const QUICK_ABOVE = 8;
export const takesLong = ({ symptoms }: { symptoms: Readonly<Record<string, string | undefined>> }): boolean =>
  Object.values(symptoms).filter((state) => state === "present").length > QUICK_ABOVE;
