import type { Machine } from "@/core/machine";

/** The dimensions of the blade a machine's sheet wants, as a part's are named; metres, `undefined` where the sheet does not say. */
export function wantedBlade({ sheet, spindles }: Machine) {
  const { blade } = sheet;
  return {
    lengthMetres: blade?.lengthMetres,
    hole: blade?.hole?.shape,
    holeMetres: blade?.hole?.acrossMetres,
    secondMetres: blade?.hole?.secondMetres,
    thicknessMetres: blade?.thicknessMetres,
    widthMetres: blade?.widthMetres,
    offsetMetres: blade?.offsetMetres,
    lift: blade?.lift,
    turns: spindles[0]?.turns,
  };
}
