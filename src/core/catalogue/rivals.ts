import type { CauseId } from "./causes";
import type { CheckId } from "./checks";

/** What is in no table and moves a figure as a listed cause does: how it is named, and where to look for it. */
export type Rival = {
  id: string;
  label: string;
  /** It shows what this one shows, and moves what this one moves. */
  like: CauseId;
  on: "rotary" | "reel";
  /** Probability of its being there before anything is known: some one in eight of what the listed one is. Estimate, from the trial by worksheets. */
  prior: number;
  /** The checks whose figure it moves. */
  moves: readonly CheckId[];
  /** Causes besides that a check points at when it was this that moved it: a valve slows one reel as its bearings do. */
  takenFor?: readonly CauseId[];
  /** What to look at, and whom to ask. */
  look: string;
};

// biome-ignore format: a table is read by rows
export const RIVALS: readonly Rival[] = [
  { id: "unlisted-side", like: "deck-out-of-level", on: "rotary", prior: 0.012, moves: ["deck-level"], label: "Something else tilts the deck",
    look: "Frame, axle and the deck's own mounts: measure both sides of the frame above level ground, with right tyres. A bent frame or axle is for who straightens frames." },
  { id: "unlisted-rake", like: "deck-rake-wrong", on: "rotary", prior: 0.012, moves: ["deck-level"], label: "Something else tips the deck",
    look: "Lift arms, front axle and casters: their pivots for play, their height against the machine's manual." },
  { id: "unlisted-height", like: "height-misset", on: "rotary", prior: 0.012, moves: ["cutting-height"], label: "Something else holds the deck at this height",
    look: "Lift linkage, its stops and the height pin's holes for wear; what the deck rests on at work." },
  { id: "unlisted-blade-speed", like: "engine-speed-low", on: "rotary", prior: 0.01, moves: ["tip-speed"], label: "Something else slows the blades",
    look: "Governor and throttle travel, fuel and air to the engine; on a hydraulic drive pump, motor and valve by pressure and flow. Ask who services the engine or the hydraulics." },
  { id: "unlisted-reel-speed", like: "engine-speed-low", on: "reel", prior: 0.013, moves: ["reel-speed"], takenFor: ["reel-bearing-worn", "contact-tight"], label: "Something else slows the reels",
    look: "Pump, reel motors and the valve: pressure and flow warm, against the machine's manual. Ask who services the hydraulics." },
  { id: "unlisted-unit-height", like: "units-not-alike", on: "reel", prior: 0.013, moves: ["cutting-height", "unit-match"], label: "Something else sets a unit apart",
    look: "The unit's frame and lift arm, its down pressure and springs, against the unit beside it." },
];

/** The rivals whose figure a check reads when it points at these causes. */
export const rivalsMoving = (check: string, causes: readonly string[]): readonly Rival[] =>
  RIVALS.filter(
    ({ like, takenFor = [], moves }) =>
      (moves as readonly string[]).includes(check) && [like, ...takenFor].some((cause) => causes.includes(cause)),
  );
