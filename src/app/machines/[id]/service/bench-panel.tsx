import Link from "next/link";
import type { Verdict } from "@/core/basics/findings";
import { EVENTS } from "@/core/catalogue";
import { checkRow } from "@/core/checks";
import type { BenchCell, BenchUnit } from "@/core/job/bench";
import { type Machine, unitSheetOf } from "@/core/machine";
import { sayState } from "@/ui/checks/words";
import { dateOnly } from "@/ui/time";
import { VerdictLine } from "@/ui/verdict";

const eventLabel = (id: string) => EVENTS.find((one) => one.id === id)?.label ?? id;

const WORDS: Record<Verdict, string> = {
  "in-tolerance": "right",
  watch: "watch",
  out: "out",
  stop: "stop",
  "not-enough-readings": "in part",
};
function Cell({ check, status }: BenchCell) {
  if (status.kind === "unread") return <span className="text-soft">not read</span>;
  if (status.kind === "again")
    return (
      <span className="font-semibold text-mark">
        <span aria-hidden="true">↻ </span>again
        <span className="block text-sm font-normal text-soft">
          {eventLabel(status.because.event).toLowerCase()}, {dateOnly(status.because.at)}
        </span>
      </span>
    );
  return (
    <>
      <VerdictLine verdict={status.verdict} words={WORDS[status.verdict]} />
      {status.codes.length > 0 && <span className="block text-sm">{status.codes.map((code) => sayState(check, code)).join("; ")}</span>}
    </>
  );
}

/** Every unit through the bench, in working order: what is right, what is out, what has to be done again and why, and where each goes on. */
export function BenchPanel({ bench, machine, machineId }: { bench: readonly BenchUnit[]; machine: Machine; machineId: string }) {
  const canSet = (unit: string) => unitSheetOf(machine, unit).sideView !== undefined;
  const labelOf = (unit: string) => machine.units.find(({ id }) => id === unit)?.label ?? unit;
  const steps = bench[0]?.cells.map(({ check }) => check) ?? [];
  return (
    <section aria-label="Bench" className="mt-4 overflow-x-auto">
      <h2 className="border-b-2 border-ink text-xl">The bench, unit by unit</h2>
      <p className="py-1 text-sm text-soft">
        In working order. Looking may be done on the machine; setting is for the bench, never the field. Touch a unit for its setting.{" "}
        <Link href={`/alike?machines=${machineId}`} className="inline-flex min-h-11 items-center underline" prefetch={false}>
          Beside the units of other machines
        </Link>
      </p>
      <table className="w-full table-fixed text-left max-lg:table-auto">
        <thead>
          <tr className="align-bottom">
            <td />
            {bench.map(({ unit, next }) => (
              <th key={unit} scope="col" className="px-2 pb-1">
                {canSet(unit) ? (
                  <Link href={`/machines/${machineId}/bench?unit=${unit}`} className="flex min-h-11 items-end underline">
                    {labelOf(unit)}
                  </Link>
                ) : (
                  labelOf(unit)
                )}
                <span className={`block text-sm font-normal ${next ? "text-mark" : "text-good"}`}>
                  {next ? `next: ${checkRow(next)?.label.toLowerCase()}` : "all right"}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="ruled">
          {steps.map((check, k) => (
            <tr key={check} className="align-baseline">
              <th scope="row" className="py-1 pr-2 font-normal">
                <span className="num mr-2 inline-block w-6 text-right text-soft">{k + 1}</span>
                {checkRow(check)?.label}
              </th>
              {bench.map(({ unit, cells }) => {
                const cell = cells[k];
                return (
                  <td key={unit} className="px-2 py-1">
                    {cell && <Cell {...cell} />}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
