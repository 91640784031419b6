export const LOOKS = [
  ["all-alike", "All alike"],
  ["better", "Better"],
  ["same", "Same"],
  ["worse", "Worse"],
] as const;

export const NOW = [
  ["gone", "Gone"],
  ["still-there", "Still there"],
] as const;

export const TURFS = [
  ["good", "Good turf"],
  ["thin", "Thin grass"],
  ["other-lawn", "Another lawn"],
] as const;

export const PATCHES = [
  ["same", "The same patch"],
  ["other", "Another patch"],
] as const;

export const DRYNESS = [
  ["dry", "Dry"],
  ["damp", "Damp or dew"],
  ["wet", "Wet"],
] as const;

export const LIGHTS = [
  ["day", "Daylight"],
  ["dawn-or-dusk", "Dawn or dusk"],
] as const;

export const HEIGHTS = [
  ["as-complained", "As complained"],
  ["other", "Another"],
] as const;

export const DRIVERS = [
  ["same", "Same operator"],
  ["other", "Somebody else"],
] as const;
