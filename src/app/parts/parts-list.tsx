"use client";

import Link from "next/link";
import { useState } from "react";
import type { PartRecord } from "@/data/service/parts";
import { money, PART_WORDS } from "@/ui/words/parts";

/** All parts, found as they are typed. */
export function PartsList({
  parts,
  setsByPart,
  start,
}: {
  parts: readonly PartRecord[];
  setsByPart: Record<number, number>;
  start: string;
}) {
  const [query, setQuery] = useState(start);
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = parts.filter(({ part, byLot }) => {
    const text = [part.label, part.supplier, PART_WORDS[part.kind], part.notes, ...byLot.map(({ lot }) => lot ?? "")]
      .join(" ")
      .toLowerCase();
    return words.every((word) => text.includes(word));
  });
  if (parts.length === 0) return null;
  return (
    <>
      <label className="block max-w-[30rem] py-1">
        <span className="caps">Find</span>
        <input
          className="input"
          type="search"
          value={query}
          onChange={(event) => {
            setQuery(event.target.value);
            window.history.replaceState(
              null,
              "",
              event.target.value ? `?q=${encodeURIComponent(event.target.value)}` : window.location.pathname,
            );
          }}
        />
      </label>
      {shown.length === 0 && <p className="py-2 text-lg">No part has all of these words.</p>}
      <ul className="ruled">
        {shown.map(({ id, part, stock, byLot, isLow }) => (
          <li key={id}>
            <Link
              href={`/parts/${id}`}
              prefetch={false}
              className="grid min-h-14 grid-cols-[4.5rem_minmax(0,1fr)_auto] items-center gap-x-3 py-1 hover:bg-sheet"
            >
              <span className={`num text-right text-2xl font-bold ${isLow ? "text-mark" : ""}`}>{stock}</span>
              <span className="min-w-0">
                <span className="text-lg leading-tight font-semibold">{part.label}</span>
                <span className="block text-sm text-soft">
                  {[
                    PART_WORDS[part.kind],
                    part.supplier,
                    byLot.length > 0 ? `lots ${byLot.map((one) => `${one.lot ?? "none"}: ${one.stock}`).join(", ")}` : "",
                    setsByPart[id] ? `${setsByPart[id]} ${setsByPart[id] === 1 ? "set" : "sets"}` : "",
                  ]
                    .filter(Boolean)
                    .join(" · ")}
                </span>
              </span>
              <span className="num text-right">
                {part.price === undefined ? "" : money(part.price, part.currency)}
                {isLow && <span className="block text-sm font-bold text-mark">to buy</span>}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </>
  );
}
