import type { CheckId } from "./checks";

/** How a check is done where it has no worksheet, or before its first reading: what to bring, and the way of it. Common practice. */
export type Way = { bring: readonly string[]; how: string };

// biome-ignore format: a table is read by rows
export const WAYS: Record<CheckId, Way> = {
  "turf-condition": { bring: ["ruler or prism"], how: "Read the height before the cut at a few places, feel how wet it is, part the leaves to see thatch, and look how the other machines left it. More than a third of the leaf taken at once, or thin turf, spoils any judgement of the machine." },
  "tyre-pressure": { bring: ["low-pressure gauge, 0 to 30 psi"], how: "Cold, on level ground, every wheel, the same gauge for all." },
  "cutting-height": { bring: ["prism or ruler"], how: "Ten readings of the stubble or more, on firm turf, across the swath; then compare with what the dial, pin or bench said." },
  "hanger-inspection": { bring: ["lamp", "block for the deck"], how: "Each hanger, link, pin, clip and bracket by eye and hand: worn, bent, elongated, missing, or a clip that is not the right one. Lift the corner and feel for play." },
  "deck-level": { bring: ["ruler or height gauge", "cut-resistant gloves"], how: "Heights of the blade tips, not of the shell: left and right, front and rear, deck at its usual height." },
  "anti-scalp-wheels": { bring: ["ruler", "wrench for the wheel bolts"], how: "At the set height each wheel clears the ground by a finger's breadth, turns freely, and sits in the same hole as its twin." },
  "deck-cleanliness": { bring: ["scraper", "lamp"], how: "Depth of the pack at its worst place, washout port, chute, baffles; and while there, the shell itself for cracks." },
  "blade-edge": { bring: ["lamp", "ruler", "cut-resistant gloves"], how: "Every blade, both ends: nicks, roundness of the edge, length lost, thickness of the sail, and any crack at all." },
  "blade-fit": { bring: ["ruler", "the machine's sheet", "socket and torque wrench"], how: "Sail towards the deck, edge leading in the direction it turns; the right part; washers with their hollow the way they belong; bolt grade; torque from the sheet." },
  "blade-track": { bring: ["ruler or a block", "chalk"], how: "One point at the deck's edge, both ends of the blade turned past it. If they differ, turn the blade end for end on its shaft and read again: what stays is the shaft, what swaps is the blade." },
  "blade-balance": { bring: ["balancer", "small weights"], how: "Clean the blade, hang it on the balancer, and find the weight at the light end that brings it level." },
  "blade-overlap": { bring: ["ruler"], how: "Blade lengths corner to corner and the distance between spindles across the machine: what the circles share, straight and in a turn." },
  "blade-timing": { bring: ["chalk"], how: "Plug lead off; turn by hand through a whole turn and watch the gap between neighbours. They must come past each other without touching, and always at the same angle." },
  "belt-inspection": { bring: ["lamp", "the routing picture of this machine"], how: "Seated in every groove, cracks, glaze, frayed cord, width under the rim; idlers and their bearings by hand; the spring at its length." },
  "spindle-play": { bring: ["dial or ruler", "gloves"], how: "Rock each blade tip up and down, turn the spindle slowly by hand and feel; look for grass or wire wound on; after a run compare the heat of the hubs." },
  "gearbox-inspection": { bring: ["tray for the parts", "clean rag", "oil of the sheet's kind"], how: "Cover off: teeth, pin, metal in the oil, oil level, seal and the face it runs on." },
  "tip-speed": { bring: ["tachometer and reflective tape, or the pulley sizes"], how: "Work it out from pulleys first. Tape on while locked out; read each spindle through an opening, from outside, at full throttle with the deck clear." },
  "vibration-reading": { bring: ["feel by hand, or a telephone fixed to the frame"], how: "Fix it while locked out, read from a distance: what is felt, where, and at which speed it is worst." },
  "ground-speed": { bring: ["tape or marked distance", "watch"], how: "Time it over a measured distance at the setting the operator really uses." },
  "pass-overlap": { bring: ["tape"], how: "Measure from join to join over several passes; watch a turn; ask what the operator steers by." },
  "unit-match": { bring: ["height gauge", "calliper"], how: "Side by side for every unit: blades on the reel, knife, rollers, bracket, diameter, bench height. What differs from its sisters stands out." },
  "roller-clean": { bring: ["scraper"], how: "Build-up at three places of every roller; scraper or brush set and working." },
  "roller-bearing": { bring: ["gloves"], how: "Lift each end of each roller: any rise that can be felt is a bearing." },
  "reel-bearing": { bring: ["gloves", "a lever with a soft end"], how: "Lift each end of the reel. Movement along the axis is by design, movement up and down is wear." },
  "arm-play": { bring: ["square", "lever"], how: "Lever each arm, yoke and bushing; sight the unit square to the way it travels." },
  "reel-edge": { bring: ["lamp", "gloves"], how: "Along the whole knife and every blade of the reel: rounded, nicked, land worn wide; a line on the turf points at its place." },
  "reel-contact": { bring: ["test paper"], how: "Left, middle and right of every blade of the reel: cut clean, pinched, or passed. Turn the reel backwards by hand, fingers away." },
  "roller-square": { bring: ["flat plate with its bar", "feeler"], how: "Reel on the bar, knife against its stop, front roller on the plate: light or feeler under its two ends." },
  "reel-cone": { bring: ["calliper or tape"], how: "Diameter over the blades at both ends and the middle." },
  "bedknife-attitude": { bring: ["flat plate", "angle gauge", "calliper"], how: "Angle of the knife's top face to the ground line, thickness of the knife, and what clears at heel and toe." },
  "groomer-depth": { bring: ["height gauge", "spacer"], how: "Depth against the height of cut, both ends alike." },
  "roller-position": { bring: ["the unit's sheet"], how: "Number and facing of the bracket against the sheet's row for this height, with or without groomer." },
  "unit-layout": { bring: ["tape", "square"], how: "Overlap of front and rear units, each square to the way it travels; where rollers run twice." },
  "reel-speed": { bring: ["tachometer", "watch and marked distance"], how: "Reel speed under load and travel as it is really driven: the clip is what the machine travels for each blade of the reel." },
  "clipping-path": { bring: ["lamp"], how: "Hood and shield where they belong for these clippings, catcher's path open from reel to basket." },
};
