/** What a closed job still owes, in words. */
export const OWED_WORDS: Record<string, string> = {
  "second-look": "second look for browning",
  "bolts-after-first-run": "blade bolts re-checked after the first run",
  "oil-after-standing": "gearbox oil checked again after standing",
};
