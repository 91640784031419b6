"use client";

import type { DeckDetail } from "@/core/checks";
import type { PictureArgs } from "../face";
import { placeName, show } from "../shared";

/** Turn until it reads: what the ruler at each tip shows now and when it is right. */
export function More({ assessment, machine, system }: PictureArgs) {
  const { tips = [] } = (assessment?.detail ?? {}) as Partial<DeckDetail>;
  if (!tips.some(({ afterMetres }) => afterMetres !== undefined)) return null;
  return (
    <table className="mt-2 w-full text-sm">
      <caption className="caps text-left">Turn until it reads</caption>
      <tbody className="ruled">
        {tips.map((tip) => (
          <tr key={tip.key}>
            <td className="py-0.5">{placeName(machine, tip.key)}</td>
            <td className="num py-0.5 text-right text-soft">{show(tip.readMetres, "length", system)}</td>
            <td className="num py-0.5 text-right text-base font-bold">→ {show(tip.afterMetres ?? tip.readMetres, "length", system)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
