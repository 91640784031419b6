"use client";

import Link from "next/link";
import type { Verdict } from "@/core/basics/findings";
import type { Drift } from "@/core/checks/baseline";
import { figureValue } from "@/ui/checks/words";
import { useSeat } from "@/ui/person";
import { dateOnly } from "@/ui/time";

type Read = Drift & { isStale: boolean };
/** One figure, and what each machine read of it last; a machine that was never read has none. */
export type ReadRow = { check: string; name: string; byMachine: Readonly<Record<string, Read>> };
type Member = { id: string; fleetNumber: string };

const BAD: readonly (Verdict | undefined)[] = ["out", "stop"];
const isTold = (row: ReadRow) =>
  Object.values(row.byMachine).some(({ figure, moved }) => moved === "moved" || BAD.includes(figure.verdict));

/**
 * What was last read of each sister, figure by figure, against what it read when it was right for the first time; first what has moved or is out. A figure
 * without a baseline, or with nothing to hold a difference against, is not said to stand as it was.
 */
export function ReadingsTable({ members, rows }: { members: readonly Member[]; rows: readonly ReadRow[] }) {
  const told = rows.filter(isTold);
  const others = rows.filter((row) => !isTold(row));
  return (
    <section aria-label="Readings">
      <h2 className="mt-4 border-b-2 border-ink text-xl">Readings against each one’s own baseline</h2>
      <p className="py-1 text-sm text-soft">
        The baseline of a figure is what it read when its check was in tolerance for the first time. It has moved when the difference is
        more than twice its own scatter, or than its tolerance where the scatter is not known.
      </p>
      {rows.length === 0 && <p className="text-lg">None of them was read yet.</p>}
      {rows.length > 0 && told.length === 0 && <p className="text-lg">No reading is out, and none is known to have moved.</p>}
      {told.length > 0 && <Rows members={members} rows={told} />}
      {others.length > 0 && (
        <details className="mt-2">
          <summary className="min-h-11 cursor-pointer py-2 text-lg">
            {others.length} {others.length === 1 ? "figure" : "figures"} not known to have moved on any of them
          </summary>
          <Rows members={members} rows={others} />
        </details>
      )}
    </section>
  );
}

function Rows({ members, rows }: { members: readonly Member[]; rows: readonly ReadRow[] }) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full">
        <thead>
          <tr className="border-b border-ink text-left">
            <th className="py-1 pr-3">Read last</th>
            {members.map(({ id, fleetNumber }) => (
              <th key={id} className="num pr-3 text-lg">
                {fleetNumber}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="ruled">
          {rows.map(({ check, name, byMachine }) => (
            <tr key={`${check} ${name}`} className="align-top">
              <th scope="row" className="py-1 pr-3 text-left font-medium">
                {name}
                <span className="block text-sm font-normal text-soft">{check}</span>
              </th>
              {members.map(({ id }) => (
                <td key={id} className="py-1 pr-3">
                  {byMachine[id] ? <Cell read={byMachine[id]} /> : <span className="text-soft">not read</span>}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Cell({ read: { figure, at, jobId, baseline, moved, isStale } }: { read: Read }) {
  const { system } = useSeat();
  const isBad = BAD.includes(figure.verdict);
  return (
    <>
      <Link href={`/jobs/${jobId}`} prefetch={false} className={`num underline ${isBad ? "font-bold text-mark" : ""}`}>
        {figureValue(figure, system)}
      </Link>
      <span className="block text-sm text-soft">
        {dateOnly(at)}
        {isBad ? ", out" : ""}
        {isStale ? "; stale: something changed since" : ""}
      </span>
      {moved === "moved" && baseline && (
        <span className="block text-sm font-semibold">
          moved: {figureValue(baseline.figure, system)} on {dateOnly(baseline.at)}
        </span>
      )}
      {!baseline && <span className="block text-sm text-soft">never yet right: no baseline</span>}
    </>
  );
}
