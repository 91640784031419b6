"use client";

import Link from "next/link";
import type { SheetDifference } from "@/core/machine/specification";
import type { SisterDifference } from "@/data/fleet/sisters";
import { useSeat } from "@/ui/person";
import { differenceTitle, sayValue } from "@/ui/words/sheet";

type Member = { id: string; fleetNumber: string; name: string; site: string; labels: Record<string, string> };

/** What one of a row says that most of them do not. */
function oddOnes(values: readonly string[]): boolean[] {
  const counts = new Map<string, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  const most = Math.max(...counts.values());
  return values.map((value) => (counts.get(value) ?? 0) < most);
}

/** Every value they do not all agree on, a column a machine, the odd one standing out; under it what has drifted since each one's first sheet. */
export function SisterTable(args: {
  title: string;
  members: readonly Member[];
  differences: readonly SisterDifference[];
  drifted: readonly { id: string; differences: readonly SheetDifference[] }[];
}) {
  const { members, differences, drifted } = args;
  const { system } = useSeat();
  const labels = Object.assign({}, ...members.map((one) => one.labels)) as Record<string, string>;
  const labelOf = (place: string) => labels[place] ?? "";
  return (
    <>
      <p className="py-1 text-2xl font-bold">
        {args.title}:{" "}
        {differences.length === 0
          ? "their sheets agree in everything."
          : `${differences.length} ${differences.length === 1 ? "value differs" : "values differ"}.`}
      </p>
      <div className="overflow-x-auto" hidden={differences.length === 0}>
        <table className="w-full">
          <thead>
            <tr className="border-b-2 border-ink text-left align-bottom">
              <th className="py-1 pr-3">What its sheet says</th>
              {members.map(({ id, fleetNumber, site }) => (
                <th key={id} className="pr-3">
                  <Link href={`/machines/${id}`} prefetch={false} className="num text-lg underline">
                    {fleetNumber}
                  </Link>
                  <span className="block text-sm font-normal text-soft">{site}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody className="ruled">
            {differences.map(({ key, example, byMachine }) => {
              const values = members.map(({ id }) => sayValue(example.field, byMachine[id], system, Object.values(byMachine)));
              const odd = oddOnes(values);
              return (
                <tr key={key} className="align-top">
                  <th scope="row" className="py-1 pr-3 text-left font-medium">
                    {differenceTitle(example, labelOf)}
                  </th>
                  {members.map(({ id }, k) => (
                    <td key={id} className={`py-1 pr-3 ${odd[k] ? "font-bold text-mark" : ""}`}>
                      {values[k]}
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <h2 className="mt-4 border-b-2 border-ink text-xl">Drifted since their first sheet</h2>
      <ul className="ruled">
        {drifted.map(({ id, differences: own }) => (
          <li key={id} className="py-1">
            <span className="num mr-2 text-lg font-bold">{members.find((one) => one.id === id)?.fleetNumber}</span>
            {own.length === 0 ? <span className="text-soft">as it began</span> : null}
            {own.map((one) => (
              <span key={one.key} className="mr-3 inline-block">
                {differenceTitle(one, labelOf)}: {sayValue(one.field, one.a, system, [one.a, one.b])} →{" "}
                <b>{sayValue(one.field, one.b, system, [one.a, one.b])}</b>
              </span>
            ))}
          </li>
        ))}
      </ul>
    </>
  );
}
