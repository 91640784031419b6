"use client";

import type { Machine } from "@/core/machine";
import { mergedSheets, sheetDifferences, sheetPlaces, valueAt } from "@/core/machine/specification";
import { useSeat } from "@/ui/person";
import { differenceTitle, sayValue } from "@/ui/words/sheet";

/** Another has changed the sheet since this was begun: what stood, what they made of it, what stands here; nothing is lost, whatever is picked. */
export function Meanwhile(args: {
  base: Machine;
  mine: Machine;
  theirs: Machine;
  by: string;
  reason: string;
  onTake: (machine: Machine, words: string) => void;
}) {
  const { base, mine, theirs, onTake } = args;
  const { system } = useSeat();
  const changes = sheetDifferences(base, theirs);
  const { merged, both } = mergedSheets({ base, mine, theirs });
  const labels = new Map([...sheetPlaces(mine), ...sheetPlaces(theirs)].map(({ id, label }) => [id, label]));
  return (
    <section aria-label="Changed meanwhile" className="my-2 border-l-4 border-watch pl-3" role="alert">
      <p className="text-lg font-bold">
        {args.by} changed this sheet meanwhile: {args.reason}.
      </p>
      <table className="w-full text-sm">
        <thead>
          <tr className="text-left align-bottom">
            <th className="pr-2">What</th>
            <th className="pr-2">Stood</th>
            <th className="pr-2">{args.by}</th>
            <th>Yours</th>
          </tr>
        </thead>
        <tbody className="ruled">
          {changes.map((one) => {
            const isBoth = both.includes(one.key);
            const own = valueAt(mine, one.key);
            const said = (value: unknown) => sayValue(one.field, value, system, [one.a, one.b, own]);
            return (
              <tr key={one.key} className={`align-top ${isBoth ? "font-bold text-mark" : ""}`}>
                <td className="py-1 pr-2">{differenceTitle(one, (place) => labels.get(place) ?? "")}</td>
                <td className="py-1 pr-2">{said(one.a)}</td>
                <td className="py-1 pr-2">{said(one.b)}</td>
                <td className="py-1">{said(own)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {both.length > 0 && <p className="py-1">Where both of you changed the same thing, yours stays; type theirs where theirs is right.</p>}
      <div className="flex flex-wrap gap-2 py-1">
        <button type="button" className="btn btn-go" onClick={() => onTake(merged, "put together")}>
          Put both together
        </button>
        <button type="button" className="btn" onClick={() => onTake(theirs, "theirs")}>
          Take {args.by}'s, drop mine
        </button>
      </div>
    </section>
  );
}
