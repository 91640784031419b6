// All figures are estimates to start from; a shop's own closed jobs replace them. Ids are public: they are part of the JSON API.

/** What changed lately, or how the complaint behaves: each multiplies the odds of some causes. */
// biome-ignore format: a table is read by rows
export const CONTEXTS = [
  { id: "struck-object", label: "Struck something hard" },
  { id: "deck-dropped", label: "Deck or unit dropped or dragged" },
  { id: "deck-refitted", label: "Deck taken off and put back" },
  { id: "blades-changed", label: "Blades changed or sharpened" },
  { id: "belt-disturbed", label: "Belt changed or taken off" },
  { id: "tyre-work", label: "A tyre repaired, swapped or pumped" },
  { id: "height-changed", label: "Cutting height changed" },
  { id: "unit-bench-work", label: "Reel unit ground, set or rebuilt" },
  { id: "roller-changed", label: "A front or rear roller changed" },
  { id: "top-dressed", label: "Turf top-dressed with sand" },
  { id: "wet-or-tall", label: "Mown wet or tall" },
  { id: "long-gap", label: "A longer gap than usual between cuts" },
  { id: "new-operator", label: "A new or other operator" },
  { id: "new-site", label: "A new site or part of it" },
  { id: "edge-overdue", label: "Sharpening or grinding overdue" },
  { id: "grease-overdue", label: "Greasing overdue" },
  { id: "one-machine-only", label: "Other machines cut the same turf well" },
  { id: "all-machines", label: "Every machine does it on this turf" },
  { id: "only-on-turns-or-slopes", label: "Only in turns or across slopes" },
  { id: "now-and-then", label: "It comes and goes" },
  { id: "always-same-direction", label: "Always mown the same way" },
  { id: "rough-use", label: "Used on brush, cones, leaves or stones too" },
  { id: "mode-changed", label: "Changed between mulch, collect and discharge" },
  { id: "mown-up-and-down", label: "Mown up and down, each pass back beside the last" },
  { id: "mown-in-dew", label: "Mown at dawn, in the dew" },
  { id: "repaired-before", label: "The same was repaired before" },
  { id: "one-unit-only", label: "One unit only, the others cut well" },
  { id: "blades-elsewhere", label: "Blades from another source than before" },
  { id: "old-blades-kept", label: "The old blades are kept" },
  { id: "bolts-by-feel", label: "Blade bolts tightened by feel or impact wrench" },
] as const;

export type ContextId = (typeof CONTEXTS)[number]["id"];
