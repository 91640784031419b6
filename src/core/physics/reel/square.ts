/** Between the ends of a front roller on the plate: more than this and it is not square. Common practice: 0.002 in. */
export const SQUARE_TOLERANCE_METRES = 0.00005;

/**
 * How far to turn the adjuster of one end, in turns, and which end: the end that hangs clear goes down by the whole difference. `throwMetres`: how
 * far one turn moves that end. Sizes in metres, gaps 0 or more.
 */
export function squaringTurn(args: { leftGapMetres: number; rightGapMetres: number; throwMetres: number }): {
  end: "left" | "right";
  turns: number;
} {
  const { leftGapMetres, rightGapMetres, throwMetres } = args;
  return {
    end: leftGapMetres > rightGapMetres ? "left" : "right",
    turns: Math.abs(leftGapMetres - rightGapMetres) / throwMetres,
  };
}
