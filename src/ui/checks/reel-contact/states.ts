/** What a place was found to be. */
export const states = {
  right: "right",
  tight: "too tight",
  "everywhere-loose": "loose all along",
  "one-end": "loose at one end",
  hollow: "loose in the middle",
  crowned: "loose at both ends",
  "one-blade": "one reel blade does not reach",
  mixed: "uneven along the knife",
  "in-part": "off where it was read, not read all along",
  "will-not-cut": "will not cut however close",
  "bearing-lifts": "reel bearing lifts",
  "gap-near": "gap near its limits",
  "held-elsewhere": "stiff, and not by the knife",
};
