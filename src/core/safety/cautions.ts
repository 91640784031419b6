import type { CheckId, FixId } from "@/core/trade";
export const DEFER = "The machine's manual, your employer's lock-out rules and local law come first.";

const TURN_BY_HAND = "Turning one blade turns its neighbours: one person, gloves on, hands off every other blade.";
const TYRES = "Never above the maximum moulded on the tyre. Stand to one side while inflating.";
const EDGES = "A freed blade swings: wedge it with wood, never with fingers.";

/** What can hurt in a check; shown with it every time. */
export const CHECK_CAUTIONS: Partial<Record<CheckId, readonly string[]>> = {
  "tyre-pressure": [TYRES],
  "deck-level": [TURN_BY_HAND],
  "hanger-inspection": ["Block the deck before a pin comes out.", TURN_BY_HAND],
  "blade-edge": [EDGES],
  "blade-fit": [EDGES],
  "blade-track": [TURN_BY_HAND],
  "blade-balance": [EDGES],
  "blade-overlap": [TURN_BY_HAND],
  "blade-timing": [TURN_BY_HAND],
  "belt-inspection": ["Idlers are under spring load: use the lever, not the hand."],
  "tip-speed": ["Covers stay on. Read through an opening from outside; no opening, work it out from the pulleys."],
  "vibration-reading": ["Fix the sensor while locked out, read it from a distance."],
  "spindle-play": [TURN_BY_HAND, "Never spin a dry bearing with air."],
  "deck-cleanliness": ["Scrape from the side; nothing and nobody under a load that a jack holds."],
  "reel-contact": ["Never feel for contact with a finger."],
  "roller-clean": ["Every reel stopped and isolated first: freeing one can turn another."],
};

export const FIX_CAUTIONS: Partial<Record<FixId, readonly string[]>> = {
  "set-pressures": [TYRES],
  "mend-tyre": [TYRES],
  "adjust-hangers": ["Blocks under the deck before any hanger is slackened."],
  "replace-hanger": ["Blocks under the deck before any hanger is slackened."],
  "replace-blades": [EDGES, "Heat-treated bolt of the sheet's grade; an ordinary bolt is refused.", "Impact driver for taking off only."],
  "sharpen-blades": [EDGES, "Guards on, eyes and breath protected, sparks away from fuel."],
  "refit-blades": [EDGES],
};

export const TEST_CUT_CAUTION = "Drive off, engine stopped, blades still, before leaving the seat to look.";
