"use client";

import type { MatchDetail } from "@/core/checks";
import { unitsAcross } from "@/core/machine";
import type { PictureArgs } from "../face";
import { Waiting } from "../framed";
import { PROPERTY_WORDS } from "./property-words";
import { PropertyValue } from "./value";

/** Units across, properties down; whatever differs from most of them stands out, by a frame and a word as well as by ink. */
export function Picture({ machine, assessment, system }: PictureArgs) {
  const matrix = (assessment?.detail as MatchDetail | undefined)?.matrix ?? [];
  const units = unitsAcross(machine);
  const rows = matrix.filter(({ cells }) => Object.keys(cells).length > 0);
  if (rows.length === 0) return <Waiting words="The same of every unit, side by side: what differs from the others stands out here" />;
  return (
    <div className="min-h-0 flex-1 overflow-auto p-2">
      <table className="w-full text-[var(--chalk)]">
        <thead>
          <tr>
            <td />
            {units.map(({ id, label }) => (
              <th key={id} scope="col" className="px-2 text-right">
                {label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ property, cells }) => (
            <tr key={property} className="border-t border-[var(--chalk-faint)]">
              <th scope="row" className="py-1 text-left font-normal text-[var(--chalk-soft)]">
                {PROPERTY_WORDS[property]}
              </th>
              {units.map(({ id }) => (
                <td key={id} className="num px-2 py-1 text-right">
                  <PropertyValue
                    cell={cells[id]}
                    property={property}
                    system={system}
                    oddInk="border-[var(--out-chalk)] text-[var(--out-chalk)]"
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
