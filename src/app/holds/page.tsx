import type { Metadata } from "next";
import Link from "next/link";
import { FIX_LABELS, type FixId } from "@/core/catalogue";
import { type HoldRow, holdsOf } from "@/data/fleet/holds";
import { database } from "@/data/open";
import { labelOfCause } from "@/ui/words/diagnosis";
import { RateChart } from "./rate-chart";

export const metadata: Metadata = { title: "Does it hold" };

type Props = { searchParams: Promise<{ since?: string; by?: string }> };

const SPANS = [
  ["", "All of it"],
  ["365", "A year"],
  ["90", "Three months"],
] as const;
const BYS = [
  ["cause", "By cause"],
  ["fix", "By what was done"],
  ["part", "By what was fitted"],
] as const;
const DAY = 86_400_000;
const SHOWN = 20;
const percent = (value: number) => `${(value * 100).toFixed(1)} %`;

/** Share of fixes that came back, each with its interval and its jobs: the charts say no more than their tables. */
export default async function HoldsPage({ searchParams }: Props) {
  const { since = "", by = "cause" } = await searchParams;
  const now = new Date().toISOString();
  const days = Number(since);
  const holds = holdsOf(database(), now, days > 0 ? new Date(Date.parse(now) - days * DAY).toISOString() : undefined);
  const labelOf = (key: string) => (by === "fix" ? (FIX_LABELS[key as FixId] ?? key) : by === "part" ? key : labelOfCause(key));
  const rows = (by === "fix" ? holds.byFix : by === "part" ? holds.byPart : holds.byCause).slice(0, SHOWN);
  const { depot, minutes, guesses, groups, missed } = holds;
  const faults = groups.machine + groups.operation + groups.turf;
  const address = (next: { since?: string; by?: string }) => `/holds?${new URLSearchParams({ since, by, ...next })}`;
  return (
    <main className="mx-auto max-w-[80rem] p-4">
      <h1 className="text-2xl">Does it hold</h1>
      <p className="py-1 text-2xl font-bold">
        {depot.jobs === 0
          ? "No proved job is old enough yet to say."
          : `${depot.cameBack} of ${depot.jobs} proved jobs came back: ${percent(depot.rate.mean)}, with 90 % between ${percent(depot.rate.low)} and ${percent(depot.rate.high)}.`}
      </p>
      <p className="max-w-[55rem] text-sm text-soft">
        Came back: the same machine, a shared look, the same cause, within thirty days or twenty-five hours, whichever is later, and nothing
        happened in between that makes it likely anew. Few jobs lean on the usual 8 % (estimate), from a hundred on the depot’s own.
      </p>
      <div className="flex flex-wrap gap-4 py-2">
        <nav aria-label="How far back" className="flex flex-wrap gap-1">
          {SPANS.map(([id, words]) => (
            <Link
              key={id}
              href={address({ since: id })}
              className={`btn ${since === id ? "btn-on" : ""}`}
              aria-current={since === id ? "page" : undefined}
            >
              {words}
            </Link>
          ))}
        </nav>
        <nav aria-label="By what" className="flex flex-wrap gap-1">
          {BYS.map(([id, words]) => (
            <Link
              key={id}
              href={address({ by: id })}
              className={`btn ${by === id ? "btn-on" : ""}`}
              aria-current={by === id ? "page" : undefined}
            >
              {words}
            </Link>
          ))}
        </nav>
      </div>
      {rows.length > 0 ? (
        <div className="grid gap-6 lg:grid-cols-2">
          <RateChart rows={rows.map(({ key, rate }) => ({ label: labelOf(key), ...rate }))} />
          <HoldTable rows={rows} labelOf={labelOf} />
        </div>
      ) : (
        <p className="py-2 text-lg text-soft">Nothing of that kind is closed, proved and old enough.</p>
      )}
      <dl className="mt-4 grid gap-x-8 gap-y-2 border-t-2 border-ink pt-2 sm:grid-cols-3">
        <div>
          <dt className="caps">From safe to first fix</dt>
          <dd className="text-xl font-bold">
            {minutes ? (
              <>
                <span className="num">{minutes.median.toFixed(0)}</span> min{" "}
                <span className="text-base font-normal text-soft">
                  middle of {minutes.jobs} jobs; 80 % between {minutes.low.toFixed(0)} and {minutes.high.toFixed(0)}
                </span>
              </>
            ) : (
              "not known yet"
            )}
          </dd>
        </div>
        <div>
          <dt className="caps">First guess was right</dt>
          <dd className="text-xl font-bold">{guesses.all === 0 ? "nobody guessed" : `${guesses.right} of ${guesses.all}`}</dd>
        </div>
        <div>
          <dt className="caps">Whose fault it was</dt>
          <dd className="text-xl font-bold">
            {faults === 0 ? "nothing closed yet" : `${groups.machine} machine, ${groups.operation} operation, ${groups.turf} turf`}
          </dd>
        </div>
      </dl>
      {missed.length > 0 && (
        <section aria-label="Missed" className="mt-3">
          <h2 className="border-b border-ink text-xl">The first answer missed it</h2>
          <ul className="flex flex-wrap gap-x-6">
            {missed.slice(-SHOWN).map(({ jobId, by: later, machineId }) => (
              <li key={jobId} className="py-1">
                <span className="num font-bold">{machineId.toUpperCase()}</span>: job{" "}
                <Link href={`/jobs/${jobId}`} prefetch={false} className="num underline">
                  {jobId}
                </Link>
                , found in{" "}
                <Link href={`/jobs/${later}`} prefetch={false} className="num underline">
                  {later}
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
    </main>
  );
}

function HoldTable({ rows, labelOf }: { rows: readonly HoldRow[]; labelOf: (key: string) => string }) {
  return (
    <table className="w-full self-start">
      <thead>
        <tr className="border-b border-ink text-left align-bottom text-sm">
          <th className="py-1 pr-3">What</th>
          <th className="pr-3 text-right">Came back</th>
          <th className="pr-3 text-right">Share (90 % within)</th>
          <th>Jobs</th>
        </tr>
      </thead>
      <tbody className="ruled">
        {rows.map(({ key, counted, rate, jobs, backJobs }) => (
          <tr key={key} className="align-top">
            <th scope="row" className="py-1 pr-3 text-left font-medium">
              {labelOf(key)}
            </th>
            <td className="num py-1 pr-3 text-right">
              {counted.cameBack} of {counted.jobs}
            </td>
            <td className="num py-1 pr-3 text-right">
              <b>{percent(rate.mean)}</b>
              <span className="block text-sm text-soft">
                {(rate.low * 100).toFixed(1)} to {percent(rate.high)}
              </span>
            </td>
            <td className="py-1">
              {[...backJobs, ...jobs.filter((id) => !backJobs.includes(id))].slice(0, 6).map((id) => (
                <Link
                  key={id}
                  href={`/jobs/${id}`}
                  prefetch={false}
                  className={`num mr-2 underline ${backJobs.includes(id) ? "font-bold text-mark" : ""}`}
                >
                  {id}
                </Link>
              ))}
              {jobs.length > 6 && <span className="text-soft">and {jobs.length - 6} more</span>}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
