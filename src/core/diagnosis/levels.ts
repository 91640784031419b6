/** Above this a cause is taken as the one, once a check has spoken for it (trade handbook, "a fair trial"; estimate). */
export const EXPLAINED_LEVEL = 0.85;
/** More likely than not: nothing on the list has shown the symptom. */
export const NOTHING_EXPLAINS_LEVEL = 0.5;
/** A cause that can show nothing of the complaint is named all the same from here on. Estimate. */
export const WORTH_A_LOOK_LEVEL = 0.2;
