"use client";

import Link from "next/link";
import type { Fit } from "@/core/fleet/parts";
import type { Lots } from "@/data/service/parts";
import { useSeat } from "@/ui/person";
import { FIT_WORDS, money, sayFit } from "@/ui/words/parts";

const TONES: Record<Fit["verdict"], string> = { fits: "text-good", "cannot-tell": "text-watch", "does-not-fit": "text-mark" };
const MARKS: Record<Fit["verdict"], string> = { fits: "●", "cannot-tell": "◐", "does-not-fit": "✕" };

export function FitMark({ verdict }: { verdict: Fit["verdict"] }) {
  return (
    <span className={`shrink-0 font-semibold ${TONES[verdict]}`}>
      <span aria-hidden="true">{MARKS[verdict]} </span>
      {FIT_WORDS[verdict]}
    </span>
  );
}

const NAMED = 12;
const named = (numbers: readonly string[]): string =>
  numbers.length > NAMED + 1 ? `${numbers.slice(0, NAMED).join(", ")} and ${numbers.length - NAMED} more` : numbers.join(", ");

/** Which machines a part goes on, `good` all of them by their numbers, and why not the others. */
export function FitList({
  fits,
  good,
}: {
  fits: readonly { machine: { id: string; fleetNumber: string; name: string }; fit: Fit }[];
  good: readonly string[];
}) {
  const { system } = useSeat();
  return (
    <section aria-label="Fits" className="py-2">
      <h2 className="text-xl">{good.length > 0 ? `Fits ${named(good)}` : "Fits no machine for sure"}</h2>
      <ul className="ruled">
        {fits.map(({ machine, fit }) => (
          <li key={machine.id} className="grid grid-cols-[4rem_1fr] items-baseline gap-x-3 py-1 sm:grid-cols-[4rem_8.5rem_1fr]">
            <Link href={`/machines/${machine.id}`} prefetch={false} className="num text-lg font-bold underline">
              {machine.fleetNumber}
            </Link>
            <FitMark verdict={fit.verdict} />
            <span className="col-start-2 text-sm sm:col-start-3">{sayFit(fit, system)}</span>
          </li>
        ))}
        {fits.length === 0 && <li className="py-1 text-soft">No machine of the fleet has a place for such a part.</li>}
      </ul>
    </section>
  );
}

const hours = (value: number) => `${value.toFixed(value < 10 ? 1 : 0)} h`;

/** How long each lot lasts and what it costs an hour, with 90 % within; and which is the cheaper, where that can be told. */
export function LotTable({ lots: { lots, against, currency, work } }: { lots: Lots }) {
  return (
    <section aria-label="Lots" className="py-2">
      <h2 className="text-xl">How long its lots last</h2>
      <table className="w-full">
        <thead>
          <tr className="text-left align-bottom text-sm">
            <th className="py-1 pr-3">Lot</th>
            <th className="pr-3 text-right">Worn out</th>
            <th className="pr-3 text-right">Running, or lost otherwise</th>
            <th className="pr-3 text-right">Lasts (90 % within)</th>
            <th className="text-right">Costs an hour (90 % within)</th>
          </tr>
        </thead>
        <tbody className="ruled">
          {lots.map(({ lot, finishedHours, runningHours, life, costAnHour }) => (
            <tr key={lot}>
              <th scope="row" className="py-1 pr-3 text-left">
                {lot}
              </th>
              <td className="num pr-3 text-right">{finishedHours.length}</td>
              <td className="num pr-3 text-right">{runningHours.length}</td>
              <td className="num pr-3 text-right">
                <b>{hours(life.middle)}</b> ({hours(life.low)} to {hours(life.high)})
              </td>
              <td className="num text-right">
                {costAnHour ? (
                  <>
                    <b>{money(costAnHour.middle, currency)}</b> ({money(costAnHour.low, "")} to {money(costAnHour.high, "")})
                  </>
                ) : (
                  "no price"
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {against.map(({ a, b, verdict }) => (
        <p key={`${a} ${b}`} className="py-1 text-lg font-semibold">
          {sayAgainst(a, b, verdict)}
        </p>
      ))}
      {Object.keys(work).length > 1 && (
        <p className="text-sm text-soft">
          An hour of{" "}
          {Object.entries(work)
            .map(([kind, factor]) => `${kind} wears ${factor.toFixed(2)} times`)
            .join(", ")}{" "}
          what a mean hour does; hours are weighed so. Whose word: this depot's own sets, an estimate where few are worn out.
        </p>
      )}
    </section>
  );
}

function sayAgainst(a: string, b: string, { verdict, firstCheaper, why }: Lots["against"][number]["verdict"]): string {
  const share = `${Math.round(Math.max(firstCheaper, 1 - firstCheaper) * 100)} %`;
  if (verdict === "first-cheaper") return `${a} is cheaper an hour than ${b} (${share} sure).`;
  if (verdict === "second-cheaper") return `${b} is cheaper an hour than ${a} (${share} sure).`;
  const reasons = {
    "too-few": "fewer than three of one of them are worn out yet",
    "other-work": "they were not used for the same work",
    "too-near": `${firstCheaper > 0.5 ? a : b} looks cheaper, and only ${share} sure`,
  } as const;
  return `${a} or ${b}: cannot tell, ${reasons[why ?? "too-near"]}.`;
}
