"use client";

import { useSeat } from "@/ui/person";
import { show } from "@/ui/words/quantities";

/** A size in the reader's own units. */
export function KnifeFigure({ metres }: { metres: number | undefined }) {
  const { system } = useSeat();
  return <span className="num">{metres === undefined ? "–" : show(metres, "length", system, "fine")}</span>;
}
