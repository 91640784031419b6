/** What a closed job still owes, in words. */
export const OWED_WORDS: Record<string, string> = {
  "second-look": "second look for browning",
  "bolts-after-first-run": "blade bolts re-checked after the first run",
  "bolts-by-wrench": "a wrench on the blade bolts that were tightened by feel",
  "left-loose": "gearbox bolts tightened that were left loose on purpose",
  "oil-after-standing": "gearbox oil checked again after standing",
};
