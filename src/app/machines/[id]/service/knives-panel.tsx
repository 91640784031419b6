"use client";

import type { Machine } from "@/core/machine";
import { EXPECTED_GRINDS } from "@/core/physics/reel";
import type { UnitKnife } from "@/data/service/knives";
import { useSeat } from "@/ui/person";
import { dateOnly } from "@/ui/time";
import { placeName, show } from "@/ui/words/quantities";

/** Bedknives and reels by unit: what is left of them by what was booked, when to order, beside what shops expect of thin knives. */
export function KnivesPanel({ knives, machine }: { knives: readonly UnitKnife[]; machine: Machine }) {
  const { system } = useSeat();
  const size = (metres: number | undefined) => (metres === undefined ? "–" : show(metres, "length", system, "fine"));
  const toOrder = knives.filter(({ life }) => life.isToOrder).map(({ unit }) => placeName(machine, unit).toLowerCase());
  const [least, most] = EXPECTED_GRINDS;
  return (
    <section aria-label="Knives and reels" className="mt-4 overflow-x-auto">
      <h2 className="border-b-2 border-ink text-xl">Knives and reels</h2>
      {toOrder.length > 0 && <p className="py-1 font-semibold text-mark">Order the next knife: {toOrder.join(", ")}.</p>}
      <table className="w-full text-left lg:table-fixed">
        <thead className="text-sm text-soft">
          <tr className="align-bottom">
            <th scope="col" className="w-[13%]">
              Unit
            </th>
            <th scope="col" className="w-[17%]">
              Knife: lip, front
            </th>
            <th scope="col">Ground</th>
            <th scope="col">Grinds left</th>
            <th scope="col">Order by</th>
            <th scope="col" className="w-[24%]">
              Reel
            </th>
          </tr>
        </thead>
        <tbody className="ruled">
          {knives.map(({ unit, life, lastAt, orderAt, reel }) => (
            <tr key={unit} className="align-baseline">
              <th scope="row" className="py-1 font-normal">
                {placeName(machine, unit)}
              </th>
              <td className="num">
                {size(life.topMetres)} <span className="text-sm text-soft">{size(life.frontMetres)}</span>
              </td>
              <td>
                {life.grindsMade === 0 ? "not yet" : `${life.grindsMade} ×`}
                {lastAt && <span className="text-sm text-soft"> {dateOnly(lastAt)}</span>}
              </td>
              <td className="num font-bold">
                {life.left ? life.left.grinds : "–"}
                {life.left && (
                  <span className="text-sm font-normal text-soft">
                    {" "}
                    by its {life.left.by}, {Math.round(life.left.hours)} h
                  </span>
                )}
              </td>
              <td>
                {life.isToOrder ? <b className="text-mark">now</b> : orderAt ? dateOnly(orderAt) : "–"}
                {life.left && !life.isToOrder && <span className="text-sm text-soft"> in {Math.round(life.left.orderInHours)} h</span>}
              </td>
              <td className="num">
                {reel ? size(reel.nowMetres) : "–"}
                {reel && (
                  <span className="text-sm text-soft">
                    {" "}
                    {Math.round(reel.share * 100)} % left, {reel.grinds} {reel.grinds === 1 ? "spin" : "spins"}
                    {reel.from === "sheet" && ", by its sheet"}
                  </span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="py-1 text-sm text-soft">
        By what was counted on the grinder, off the sheet&apos;s new sizes; the day by the hours of the last weeks. Of a thin knife one
        school expects {least} grind in all, another {most}: {sayTotals(knives, machine)}
      </p>
    </section>
  );
}

/** What the arithmetic makes of all grinds of a knife, made and left, beside what is expected. */
function sayTotals(knives: readonly UnitKnife[], machine: Machine): string {
  const totals = knives.flatMap(({ unit, life }) => (life.left ? [{ unit, total: life.grindsMade + life.left.grinds }] : []));
  const [first] = totals;
  if (!first) return "the sheet says too little to reckon it.";
  if (totals.every(({ total }) => total === first.total)) return `here the arithmetic makes it ${first.total}.`;
  return `here the arithmetic makes it ${totals.map(({ unit, total }) => `${total} (${placeName(machine, unit).toLowerCase()})`).join(", ")}.`;
}
