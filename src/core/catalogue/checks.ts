// All figures are estimates to start from; a shop's own closed jobs replace them. Ids are public: they are part of the JSON API.
import type { CutsWith, Need } from "@/core/catalogue/kinds";

export type CheckState = "running" | "parked" | "locked-out" | "raised" | "bench";

export type CheckRow = {
  id: string;
  on: readonly CutsWith[];
  needs: Need;
  label: string;
  minutes: number;
  state: CheckState;
  sensitivity: number;
  specificity: number;
  /** Place in the fixed walk-round, by what the machine cuts with. */
  place: Partial<Record<CutsWith, number>>;
};

// biome-ignore format: a table is read by rows
export const CHECKS = [
  { id: "turf-condition", on: ["rotary", "reel"], needs: [], label: "The turf itself", minutes: 3, state: "parked", sensitivity: 0.8, specificity: 0.8, place: { rotary: 1, reel: 1 } },
  { id: "tyre-pressure", on: ["rotary", "reel"], needs: [["air-tyres"]], label: "Tyre pressures", minutes: 4, state: "parked", sensitivity: 0.97, specificity: 0.97, place: { rotary: 2, reel: 2 } },
  { id: "cutting-height", on: ["rotary", "reel"], needs: [], label: "Cutting height against stubble", minutes: 6, state: "parked", sensitivity: 0.9, specificity: 0.92, place: { rotary: 3, reel: 15 } },
  { id: "hanger-inspection", on: ["rotary"], needs: [["hangers"]], label: "Hangers, links and pins", minutes: 4, state: "locked-out", sensitivity: 0.92, specificity: 0.96, place: { rotary: 4 } },
  { id: "deck-level", on: ["rotary"], needs: [["hangers", "several-blades"]], label: "Deck level and rake", minutes: 12, state: "locked-out", sensitivity: 0.95, specificity: 0.95, place: { rotary: 5 } },
  { id: "anti-scalp-wheels", on: ["rotary"], needs: [["anti-scalp-wheels"]], label: "Anti-scalp wheels", minutes: 3, state: "parked", sensitivity: 0.92, specificity: 0.95, place: { rotary: 6 } },
  { id: "deck-cleanliness", on: ["rotary"], needs: [], label: "Underside and discharge", minutes: 5, state: "raised", sensitivity: 0.95, specificity: 0.92, place: { rotary: 7 } },
  { id: "blade-edge", on: ["rotary"], needs: [], label: "Blade edge and wear", minutes: 8, state: "raised", sensitivity: 0.92, specificity: 0.93, place: { rotary: 8 } },
  { id: "blade-fit", on: ["rotary"], needs: [], label: "Blade fit and fastening", minutes: 6, state: "raised", sensitivity: 0.95, specificity: 0.97, place: { rotary: 9 } },
  { id: "blade-track", on: ["rotary"], needs: [], label: "Blade track", minutes: 8, state: "raised", sensitivity: 0.93, specificity: 0.94, place: { rotary: 10 } },
  { id: "blade-balance", on: ["rotary"], needs: [], label: "Blade balance", minutes: 12, state: "bench", sensitivity: 0.93, specificity: 0.93, place: { rotary: 11 } },
  { id: "blade-overlap", on: ["rotary"], needs: [["several-blades"]], label: "Blade overlap", minutes: 5, state: "raised", sensitivity: 0.93, specificity: 0.96, place: { rotary: 12 } },
  { id: "blade-timing", on: ["rotary"], needs: [["gears"]], label: "Timing of geared blades", minutes: 8, state: "raised", sensitivity: 0.95, specificity: 0.97, place: { rotary: 13 } },
  { id: "belt-inspection", on: ["rotary"], needs: [["belt"]], label: "Belts and idlers", minutes: 6, state: "locked-out", sensitivity: 0.92, specificity: 0.94, place: { rotary: 14 } },
  { id: "spindle-play", on: ["rotary"], needs: [], label: "Spindle or shaft play", minutes: 6, state: "raised", sensitivity: 0.88, specificity: 0.92, place: { rotary: 15 } },
  { id: "gearbox-inspection", on: ["rotary"], needs: [["gears"]], label: "Inside the gearbox", minutes: 15, state: "locked-out", sensitivity: 0.96, specificity: 0.98, place: { rotary: 16 } },
  { id: "tip-speed", on: ["rotary"], needs: [], label: "Blade tip speed", minutes: 6, state: "running", sensitivity: 0.94, specificity: 0.95, place: { rotary: 17 } },
  { id: "vibration-reading", on: ["rotary"], needs: [], label: "Vibration", minutes: 6, state: "running", sensitivity: 0.85, specificity: 0.88, place: { rotary: 18 } },
  { id: "ground-speed", on: ["rotary", "reel"], needs: [], label: "Ground speed", minutes: 4, state: "running", sensitivity: 0.85, specificity: 0.88, place: { rotary: 19, reel: 20 } },
  { id: "pass-overlap", on: ["rotary", "reel"], needs: [], label: "Pass spacing and turns", minutes: 5, state: "running", sensitivity: 0.88, specificity: 0.9, place: { rotary: 20, reel: 21 } },
  { id: "unit-match", on: ["reel"], needs: [["several-units"]], label: "Units alike", minutes: 6, state: "locked-out", sensitivity: 0.95, specificity: 0.95, place: { reel: 3 } },
  { id: "roller-clean", on: ["reel"], needs: [], label: "Rollers clean", minutes: 2, state: "locked-out", sensitivity: 0.95, specificity: 0.95, place: { reel: 4 } },
  { id: "roller-bearing", on: ["reel"], needs: [], label: "Roller bearing play", minutes: 5, state: "raised", sensitivity: 0.92, specificity: 0.93, place: { reel: 5 } },
  { id: "reel-bearing", on: ["reel"], needs: [], label: "Reel bearing lift", minutes: 5, state: "raised", sensitivity: 0.92, specificity: 0.94, place: { reel: 6 } },
  { id: "arm-play", on: ["reel"], needs: [], label: "Arms, yokes and bushings", minutes: 6, state: "raised", sensitivity: 0.88, specificity: 0.92, place: { reel: 7 } },
  { id: "reel-edge", on: ["reel"], needs: [], label: "Reel and bedknife edges", minutes: 6, state: "locked-out", sensitivity: 0.92, specificity: 0.93, place: { reel: 9 } },
  { id: "reel-contact", on: ["reel"], needs: [], label: "Reel-to-bedknife contact", minutes: 8, state: "locked-out", sensitivity: 0.94, specificity: 0.94, place: { reel: 12 } },
  { id: "roller-square", on: ["reel"], needs: [], label: "Front roller square", minutes: 12, state: "bench", sensitivity: 0.96, specificity: 0.96, place: { reel: 11 } },
  { id: "reel-cone", on: ["reel"], needs: [], label: "Reel diameter end to end", minutes: 10, state: "bench", sensitivity: 0.95, specificity: 0.96, place: { reel: 10 } },
  { id: "bedknife-attitude", on: ["reel"], needs: [], label: "Bedknife attitude and thickness", minutes: 12, state: "bench", sensitivity: 0.9, specificity: 0.93, place: { reel: 13 } },
  { id: "groomer-depth", on: ["reel"], needs: [["groomer"]], label: "Groomer depth", minutes: 6, state: "bench", sensitivity: 0.92, specificity: 0.93, place: { reel: 16 } },
  { id: "roller-position", on: ["reel"], needs: [], label: "Front roller bracket", minutes: 4, state: "parked", sensitivity: 0.93, specificity: 0.94, place: { reel: 14 } },
  { id: "unit-layout", on: ["reel"], needs: [["several-units"]], label: "Unit and roller overlap", minutes: 6, state: "parked", sensitivity: 0.88, specificity: 0.92, place: { reel: 17 } },
  { id: "reel-speed", on: ["reel"], needs: [], label: "Reel speed and clip", minutes: 6, state: "running", sensitivity: 0.94, specificity: 0.94, place: { reel: 19 } },
  { id: "clipping-path", on: ["reel"], needs: [], label: "Hood, shield and catcher", minutes: 4, state: "locked-out", sensitivity: 0.88, specificity: 0.9, place: { reel: 18 } },
] as const satisfies readonly CheckRow[];

export type CheckId = (typeof CHECKS)[number]["id"];
