"use client";

import Link from "next/link";
import { ALIKE_WITHIN, type UnitProperty } from "@/core/checks";
import type { Alike, FleetUnit } from "@/data/checks/units-alike";
import { PROPERTY_WORDS } from "@/ui/checks/unit-match/property-words";
import { PropertyValue } from "@/ui/checks/unit-match/value";
import { useSeat } from "@/ui/person";
import { dateOnly } from "@/ui/time";
import { show } from "@/ui/words/quantities";

/** Units across by machine, properties down; whatever differs from most of them is framed and says so. */
export function AlikeMatrix({ alike: { units, matrix, builds } }: { alike: Alike }) {
  const { system } = useSeat();
  const rows = matrix.filter(({ cells }) => Object.keys(cells).length > 0);
  const machines = [...new Set(units.map(({ machineId }) => machineId))].map((id) => units.filter((one) => one.machineId === id));
  const odd = rows.flatMap(({ property, cells }) => units.filter(({ key }) => cells[key]?.isOdd).map((unit) => ({ property, unit })));
  const within = (property: keyof typeof ALIKE_WITHIN) => show(ALIKE_WITHIN[property], "length", system, "fine");
  return (
    <>
      <p className="py-1 text-2xl leading-tight font-bold" aria-live="polite">
        {odd.length === 0 ? sayEven(units) : sayOdd(odd)}
      </p>
      {sayOpen(units).map((words) => (
        <p key={words} className="font-semibold text-mark">
          {words}
        </p>
      ))}
      {builds.length > 1 && <p>{sayBuilds(units, builds)}</p>}
      <div className="relative overflow-x-auto">
        <table className="w-full min-w-[50rem] table-fixed text-left">
          <thead>
            <tr>
              <td />
              {machines.map(([first, ...more]) =>
                first ? (
                  <th key={first.machineId} scope="colgroup" colSpan={1 + more.length} className="border-l-2 border-ink px-2">
                    <Link href={`/machines/${first.machineId}`} className="num text-lg underline" prefetch={false}>
                      {first.fleetNumber}
                    </Link>
                  </th>
                ) : null,
              )}
            </tr>
            <tr className="align-top">
              <td />
              {machines.flatMap((of) =>
                of.map((unit, k) => (
                  <th key={unit.key} scope="col" className={`px-2 pb-1 ${k === 0 ? "border-l-2 border-ink" : ""}`}>
                    {unit.label.replace(/ unit$/i, "")}
                    <span className={`block text-sm font-normal ${unit.isStale || !unit.readAt ? "text-mark" : "text-soft"}`}>
                      {unit.readAt ? `${dateOnly(unit.readAt)}${unit.isStale ? ", touched since" : ""}` : "not read"}
                    </span>
                  </th>
                )),
              )}
            </tr>
          </thead>
          <tbody className="ruled">
            {rows.map(({ property, cells }) => (
              <tr key={property}>
                <th scope="row" className="py-1.5 pr-2 font-normal">
                  {PROPERTY_WORDS[property]}
                </th>
                {machines.flatMap((of) =>
                  of.map((unit, k) => {
                    const isSheets = unit.bySheet.includes(property);
                    return (
                      <td
                        key={unit.key}
                        className={`num px-2 py-1.5 ${k === 0 ? "border-l-2 border-ink" : ""} ${isSheets ? "text-soft italic" : ""}`}
                      >
                        <PropertyValue cell={cells[unit.key]} property={property} system={system} oddInk="border-mark text-mark" />
                      </td>
                    );
                  }),
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="py-2 text-sm text-soft">
        As they were last read side by side; what stands slanted nobody read: it is the sheet&apos;s, and the grinder&apos;s tally of the
        knife. Framed: not as most of those built like it, within {within("diameterMetres")} for a reel, {within("benchMetres")} for the
        bench height.
      </p>
    </>
  );
}

const nameOf = ({ fleetNumber, label }: FleetUnit) => `${fleetNumber} ${label.toLowerCase()}`;
const isOpen = ({ readAt, isStale }: FleetUnit) => readAt === undefined || isStale;

/** Blades on a reel and how large it is make a build. */
function sayBuilds(units: readonly FleetUnit[], builds: readonly string[][]): string {
  const numbers = (ids: readonly string[]) =>
    ids.map((id) => units.find(({ machineId }) => machineId === id)?.fleetNumber ?? id).join(", ");
  return `${builds.length} builds, each compared with its own alone: ${builds.map(numbers).join("; ")}.`;
}

/** Alike is said only of units that were read and not touched since. */
function sayEven(units: readonly FleetUnit[]): string {
  const standing = units.filter((unit) => !isOpen(unit)).length;
  if (standing === units.length) return `All ${units.length} units alike.`;
  return standing === 0
    ? "None of them stands read: nothing differs by what is known."
    : `Nothing differs; ${standing} of ${units.length} units stand read.`;
}

/** What no verdict stands on: units touched since they were read, and such as nobody read. */
function sayOpen(units: readonly FleetUnit[]): string[] {
  const stale = units.filter(({ isStale }) => isStale);
  const unread = units.filter(({ readAt }) => readAt === undefined);
  return [
    ...(stale.length > 0 ? [`Touched since, read again: ${stale.map(nameOf).join(", ")}.`] : []),
    ...(unread.length > 0 ? [`Not read side by side, by the sheet alone: ${unread.map(nameOf).join(", ")}.`] : []),
  ];
}

type Odd = { property: UnitProperty; unit: FleetUnit };

/** The machine that stands out most, by how many of its units differ in what. */
function sayOdd(odd: readonly Odd[]): string {
  const machines = [...new Set(odd.map(({ unit }) => unit.fleetNumber))];
  const said = machines.map((fleetNumber) => {
    const properties = [
      ...new Set(odd.filter(({ unit }) => unit.fleetNumber === fleetNumber).map(({ property }) => PROPERTY_WORDS[property])),
    ];
    return `${fleetNumber}: ${properties.map((words) => words.toLowerCase()).join(", ")}`;
  });
  return `Not alike. ${said.join("; ")}.`;
}
