"use client";

import type { DeckReadings } from "@/core/checks";
import type { Machine } from "@/core/machine";
import { fromSi, shownUnit, unitById } from "@/core/units";
import { useSeat } from "@/ui/person";
import { sayQuantityIssue } from "@/ui/words/issues";
import { floorPlaces } from "./places";
import type { Worksheet } from "./use-worksheet";

/** The bay's floor, for when it is not flat: heights on any datum under wheels and tips. A floor that is merely out of level needs none. */
export function FloorMap({ machine, lastFloor, worksheet }: { machine: Machine; lastFloor: DeckReadings["floor"]; worksheet: Worksheet }) {
  const { system } = useSeat();
  const id = shownUnit({ dimension: "length", system });
  const floor = worksheet.draft.floor;
  const asLast = () => {
    const wheels = (lastFloor?.wheels ?? []).map(({ wheelId, heightMetres }) => [wheelId, heightMetres] as const);
    const tips = (lastFloor?.places ?? []).map(
      ({ spindleId, direction, heightMetres }) => [`${spindleId}:${direction}`, heightMetres] as const,
    );
    const texts = [...wheels, ...tips].map(([key, metres]) => [key, String(Math.round(fromSi(metres, id) * 1000) / 1000)]);
    worksheet.change((draft) => ({ ...draft, floor: Object.fromEntries(texts) }));
  };
  return (
    <details className="py-1" open={Object.keys(floor).length > 0}>
      <summary className="min-h-11 cursor-pointer py-2">The floor here is uneven: map it</summary>
      <p className="text-sm text-soft">
        Height of the floor under each wheel and tip, on any datum, lower as minus. A plane floor of any slope needs no map.
      </p>
      {lastFloor && (
        <button type="button" className="btn my-1" onClick={asLast}>
          As mapped last time
        </button>
      )}
      {floorPlaces(machine, worksheet.places).map(({ key, label }) => {
        const entry = worksheet.floorEntries[key];
        const trouble =
          entry?.kind === "unread"
            ? sayQuantityIssue(entry.issue)
            : entry?.kind === "refused"
              ? "No bay floor is that uneven. Read it again."
              : undefined;
        return (
          <div key={key} className="py-0.5">
            <label className="grid grid-cols-[1fr_7.5rem] items-center gap-2">
              <span className="leading-tight">Floor: {label}</span>
              <span className="relative">
                <input
                  className="input num pr-9 text-right"
                  value={floor[key] ?? ""}
                  autoComplete="off"
                  aria-invalid={trouble !== undefined}
                  onChange={(event) =>
                    worksheet.change((draft) => {
                      const { [key]: _, ...others } = draft.floor;
                      return { ...draft, floor: event.target.value === "" ? others : { ...others, [key]: event.target.value } };
                    })
                  }
                />
                <span className="pointer-events-none absolute inset-y-0 right-2 flex items-center text-sm text-soft">
                  {unitById(id).symbol}
                </span>
              </span>
            </label>
            {trouble && (
              <p className="trouble" role="alert">
                {trouble}
              </p>
            )}
          </div>
        );
      })}
    </details>
  );
}
