import { choice, type Move, type Order, part, type SequenceState, type Step, sequenceState } from "./counted";
import { BEARING_FLUSH_METRES, type OwnList, withOwnList } from "./guided";

const yesNo = (id: string, label: string, yes: string, no: string, refuses: string) =>
  choice(id, label, { id: "yes", label: yes }, { id: "no", label: no, refuses });

/** A gearbox's round: each step with what is laid out at it, and what to mind on the way back (common practice). */
const STEPS: readonly Step[] = [
  {
    id: "timing-marks",
    words: "One line across both shafts and the coupling, the blades as they stand; photograph it from above",
    backWords: "Turn every blade by hand through a full turn against the photograph: marks in line, nothing touches",
    parts: [],
  },
  {
    id: "oil",
    words: "Oil into a pan; look for metal in it",
    backWords: "Fill to the dipstick's mark on level ground; a box connected to another is looked at again after standing",
    parts: [],
  },
  {
    id: "blade",
    words: "Blade off; its nut back on the thread before the shaft is tapped",
    backWords: "Blade and collar on, hollow the way it was, bolt by torque wrench",
    parts: [part("blade-bolt", "Blade bolt or nut", 1), part("collar", "Collar", 1), part("washers", "Washers", 1)],
    backAsks: [yesNo("seats", "Blade's seat and collar", "Brushed clean", "Not clean", "seat-not-clean")],
  },
  {
    id: "box-off",
    words: "Box unbolted from the deck and out",
    backWords: "Box to the deck with every bolt started by hand and loose, drawn down evenly, then torqued gently: soft housings strip",
    parts: [part("box-bolts", "Box bolts", 4)],
    backAsks: [yesNo("face", "Mounting face of box and deck", "Clean and flat", "Dirt or burrs", "face-not-clean")],
  },
  {
    id: "cover",
    words: "Cover off, its face cleaned",
    backWords: "Cover on a clean face: a gasket, no sealant that cures, where the box is aligned to the deck later",
    parts: [part("cover-bolts", "Cover bolts", 6), part("gasket", "Gasket, a new one back", 1)],
    backAsks: [
      choice(
        "casing",
        "Casing bolts",
        { id: "torqued", label: "Torqued gently, evenly" },
        { id: "stripped", label: "One strips", refuses: "casing-stripped" },
      ),
    ],
  },
  {
    id: "rings",
    words: "Snap rings out under a rag, eyes covered",
    backWords: "Snap rings in, seen to snap and turned round in their grooves",
    parts: [part("snap-rings", "Snap rings", 2)],
  },
  {
    id: "gears",
    words: "Shaft tapped out, gears and pin with it; the pair stays a pair",
    backWords: "Gears in as a mated pair, the pin of the sheet, shims as they were counted",
    parts: [part("gears", "Gears", 2), part("pin", "Drive pin", 1), part("shims", "Shims", 2)],
  },
  {
    id: "bearings",
    words: "Bearings and seals out; suspect the lowest bearing first, debris falls to it",
    backWords:
      "Burrs dressed first; the inner bearing in while there is room; new seals square and level all round, spring toward the oil, lip oiled, no extra sealant on a coated one",
    parts: [part("bearings", "Bearings", 3), part("seals", "Seals, new ones back", 2)],
    backAsks: [
      { kind: "length", id: "projection", label: "Bearing proud of its seat", most: 0.02, within: BEARING_FLUSH_METRES },
      yesNo("square", "Seals", "Square and level all round", "Cocked", "seal-not-square"),
      { kind: "length", id: "seal-depth", label: "Seal in from the face", most: 0.05 },
      choice(
        "seal-place",
        "The seal sits",
        { id: "usual", label: "At its usual depth" },
        { id: "beside", label: "Beside its usual place, on clean shaft", isOdd: true },
      ),
    ],
  },
];

/** One move of a rebuild; `loose`: parts put back loose on purpose. */
export type RebuildMove = Move & { box: string; loose?: readonly string[] };
/** A part that was left loose, tightened later. */
export type Tightened = { box: string; tightened: string };

/** As usual; what a box really holds is told and kept as that machine's own list. */
export const REBUILD: Order = { off: STEPS, on: [...STEPS].reverse() };
export const rebuildOrder = (own?: OwnList): Order => withOwnList(REBUILD, own);

/** Whether a move is the last of a round: the box is together, all of it counted and asked about. */
export const finishesRebuild = (move: RebuildMove | Tightened): boolean =>
  "way" in move && move.way === "on" && move.step === REBUILD.on.at(-1)?.id;

export type RebuildState = SequenceState & {
  box: string;
  /** Parts left loose on purpose and not tightened since. */
  loose: string[];
};

/** Where one box is. What was left loose stays so until it is tightened, also after the round is done. */
export function rebuildState(box: string, moves: readonly (RebuildMove | Tightened)[], list?: OwnList): RebuildState {
  const own = moves.filter((move) => move.box === box);
  const loose = new Set<string>();
  for (const move of own) {
    if ("tightened" in move) loose.delete(move.tightened);
    else for (const id of move.loose ?? []) loose.add(id);
  }
  return {
    ...sequenceState(
      rebuildOrder(list),
      own.filter((move): move is RebuildMove => !("tightened" in move)),
    ),
    box,
    loose: [...loose],
  };
}

/** What may be left loose on purpose at a step of putting together: its bolts. */
export function mayStayLoose(step: Step): string[] {
  return step.parts.filter(({ id }) => id.endsWith("bolts") || id.endsWith("bolt")).map(({ id }) => id);
}

export function partLabel(id: string): string {
  return STEPS.flatMap(({ parts }) => parts).find((one) => one.id === id)?.label ?? id;
}
