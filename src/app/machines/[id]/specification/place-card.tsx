import Link from "next/link";
import { type Dimension, formatQuantity, type UnitSystem } from "@/core/basics/units";
import { checkRow } from "@/core/checks";
import type { Machine } from "@/core/machine";
import type { PlaceTake } from "@/data/checks/place-readings";
import { dateOnly } from "@/ui/time";
import { placeName } from "@/ui/words/quantities";

const SUFFIXES: readonly (readonly [RegExp, Dimension])[] = [
  [/pascals$/, "pressure"],
  [/square_metres$|cubic/, "share"],
  [/kilogram_metres$/, "imbalance"],
  [/metres_per_second$/, "speed"],
  [/metres$/, "length"],
  [/kelvin$/, "temperature"],
  [/revolutions_per_minute$/, "rotation"],
  [/newton_metres$/, "torque"],
  [/kilograms$/, "mass"],
  [/radians$/, "angle"],
  [/seconds$/, "seconds"],
];

/** A stored value with its unit; one whose name carries no unit is a count. */
function sayReading({ quantity, value }: PlaceTake["readings"][number], system: UnitSystem): string {
  const dimension = SUFFIXES.find(([end]) => end.test(quantity))?.[1];
  return dimension ? formatQuantity({ valueSi: value, dimension, system, instrument: "fine" }).text : String(Number(value.toPrecision(4)));
}

const nameOf = (quantity: string) =>
  quantity
    .replace(/_(pascals|metres_per_second|metres|kelvin|revolutions_per_minute|newton_metres|kilograms|radians|seconds)$/, "")
    .replaceAll("_", " ");

const sayPicked = ({ label, says }: PlaceTake["answers"][number]) => `${label.toLowerCase()}: ${says.toLowerCase()}`;

/** A number read at a place; one of its tips or ends by that name first. */
function sayNumber(reading: PlaceTake["readings"][number], place: string, system: UnitSystem): string {
  const path = reading.place.split(":");
  const within = path.slice(path.indexOf(place) + 1).join(" ");
  return [within, nameOf(reading.quantity), sayReading(reading, system)].filter(Boolean).join(" ");
}

/** One place of a machine: what was read there, the newest first; its fixes and strikes stand in the history beside it. */
export function PlaceCard(args: { machine: Machine; machineId: string; place: string; takes: readonly PlaceTake[]; system: UnitSystem }) {
  const { machine, place, takes, system } = args;
  return (
    <section aria-label={placeName(machine, place)} className="my-2 border-l-4 border-ink pl-2">
      <h2 className="flex items-baseline gap-2 text-lg">
        <span className="grow">{placeName(machine, place)}</span>
        <Link href={`/machines/${args.machineId}#history`} scroll={false} className="text-base font-normal underline">
          everywhere
        </Link>
      </h2>
      {takes.length === 0 && <p className="text-soft">Nothing was ever read here.</p>}
      <ul className="ruled">
        {takes.map((take) => (
          <li key={take.stepId} className="py-1 leading-tight">
            <Link href={`/jobs/${take.jobId}`} prefetch={false} className="hover:underline">
              <span className="text-sm text-soft">
                {dateOnly(take.at)}, {take.who}: {checkRow(take.checkId)?.label ?? take.checkId}
              </span>
              <span className="num block">
                {[...take.answers.map(sayPicked), ...take.readings.map((one) => sayNumber(one, place, system))].join(" · ")}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
