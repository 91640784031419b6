"use client";

import type { Machine } from "@/core/machine";
import type { UnitKnife } from "@/data/knives";
import { useSeat } from "@/ui/person";
import { dateOnly } from "@/ui/time";
import { show } from "@/ui/words/quantities";

/** Bedknives by unit: what is left of them by what was booked, beside what shops expect of thin ones. */
export function KnivesPanel({ knives, machine }: { knives: readonly UnitKnife[]; machine: Machine }) {
  const { system } = useSeat();
  const size = (metres: number | undefined) => (metres === undefined ? "–" : show(metres, "length", system, "fine"));
  const labelOf = (unit: string) => machine.units.find(({ id }) => id === unit)?.label ?? unit;
  const toOrder = knives.filter(({ life }) => life.isToOrder).map(({ unit }) => labelOf(unit).toLowerCase());
  return (
    <section aria-label="Bedknives" className="mb-4">
      <h2 className="border-b-2 border-ink text-xl">Bedknives</h2>
      {toOrder.length > 0 && <p className="py-1 font-semibold text-mark">Order the next knife: {toOrder.join(", ")}.</p>}
      <table className="w-full text-left">
        <thead className="text-sm text-soft">
          <tr>
            <th scope="col">Unit</th>
            <th scope="col">Lip</th>
            <th scope="col">Front</th>
            <th scope="col">Ground</th>
            <th scope="col">Grinds left</th>
          </tr>
        </thead>
        <tbody className="ruled">
          {knives.map(({ unit, life, lastAt }) => (
            <tr key={unit}>
              <th scope="row" className="py-1 font-normal">
                {labelOf(unit)}
              </th>
              <td className="num">{size(life.topMetres)}</td>
              <td className="num">{size(life.frontMetres)}</td>
              <td>
                {life.grindsMade === 0 ? "not yet" : `${life.grindsMade} ×`}
                {lastAt && <span className="block text-sm text-soft">{dateOnly(lastAt)}</span>}
              </td>
              <td className="num font-bold">
                {life.left ? life.left.grinds : "–"}
                {life.left && (
                  <span className="block text-sm font-normal text-soft">
                    by its {life.left.by}, about {Math.round(life.left.hours)} h
                  </span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="py-1 text-sm text-soft">
        By what was counted on the grinder, off the sheet's new sizes. Shops expect anything from one grind to five of a thin knife; the
        arithmetic decides.
      </p>
    </section>
  );
}
