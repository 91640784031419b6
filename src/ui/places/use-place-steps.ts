import { type RefObject, useState } from "react";
import type { Place } from "./places";

/** The place in hand, and going on to the next or back; in the table the keyboard goes along. */
export function usePlaceSteps(places: readonly Place[], fields: RefObject<Map<string, HTMLInputElement>>) {
  const [active, setActive] = useState<string>();
  const step = (by: 1 | -1) => {
    const order = places.map(({ key }) => key);
    const here = active === undefined ? -1 : order.indexOf(active);
    const next = order[Math.min(order.length - 1, Math.max(0, here + by))];
    if (next === undefined) return;
    const isInTable = document.activeElement?.id.startsWith("place-");
    setActive(next);
    if (isInTable) fields.current.get(next)?.focus();
  };
  return { active, setActive, step };
}
