/** One gearbox as it is drawn: what stands of it, and the oil against where it should be. */
export type BoxRead = {
  id: string;
  label: string;
  /** From the cover's face down to the oil, as on the sheet and as read. Metres. */
  wantedMetres?: number | undefined;
  readMetres?: number | undefined;
  /** By part: what it was found to be, and whether that is off. */
  parts: readonly { part: BoxPart; words: string; isOff: boolean }[];
};

export type BoxPart = "teeth" | "pin" | "bearings" | "seal" | "oil";

export type BoxScene = {
  id: string;
  label: string;
  /** Left edge, in shares of the whole width; all boxes are alike. */
  x: number;
  width: number;
  /** Depths under the cover in shares of the box; `undefined` where not known. */
  wanted?: number;
  oil?: number;
  parts: BoxRead["parts"];
};

/** A box is drawn so deep, with the deepest oil of all of them at this share of it. */
const DEEPEST_SHARE = 0.62;
const GAP = 0.04;

/** Boxes side by side as they sit on the deck, one scale of depth for all, so that a low one is seen beside its neighbours. */
export function gearboxScene(boxes: readonly BoxRead[]): BoxScene[] {
  const depths = boxes.flatMap(({ wantedMetres, readMetres }) => [wantedMetres, readMetres]).filter((depth) => depth !== undefined);
  const deepest = Math.max(0, ...depths);
  const width = boxes.length === 0 ? 0 : (1 - GAP * (boxes.length + 1)) / boxes.length;
  const share = (metres: number) => (deepest > 0 ? (metres / deepest) * DEEPEST_SHARE : 0);
  return boxes.map(({ id, label, wantedMetres, readMetres, parts }, k) => ({
    id,
    label,
    x: GAP + k * (width + GAP),
    width,
    ...(wantedMetres === undefined ? {} : { wanted: share(wantedMetres) }),
    ...(readMetres === undefined ? {} : { oil: share(readMetres) }),
    parts,
  }));
}
