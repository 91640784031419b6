import type { Metadata } from "next";
import Link from "next/link";
import { awayNow, owedByMachine } from "@/data/job/handover";
import { getMachine } from "@/data/machine/machines";
import { database } from "@/data/open";
import { dateOnly, sinceWords } from "@/ui/time";
import { sayOwed } from "@/ui/words/owed";
import { OwedDone } from "./owed-done";

export const metadata: Metadata = { title: "Handed over" };

/** What left the bay: parts without their machine, and machines with something owed on them; to whom, by when. */
export default function Handover() {
  const db = database();
  const now = new Date().toISOString();
  const away = awayNow(db);
  const machines = owedByMachine(db);
  const late = [...away.flatMap(({ owed }) => owed), ...machines.flatMap(({ owed }) => owed)].filter(({ dueAt }) => dueAt < now).length;
  const due = (at: string) => (
    <span className={`num text-sm ${at < now ? "font-bold text-mark" : "text-soft"}`}>
      {at < now ? "was due" : "due"} {dateOnly(at)}
    </span>
  );
  return (
    <main className="mx-auto max-w-[80rem] p-4">
      <h1 className="text-2xl">Handed over</h1>
      <p className={`py-1 text-2xl font-bold ${late > 0 ? "text-mark" : ""}`}>
        {away.length + machines.length === 0
          ? "Nothing is away, and nothing is owed."
          : `${away.length} ${away.length === 1 ? "part is" : "parts are"} away, ${machines.length} ${machines.length === 1 ? "machine" : "machines"} went out owing${late > 0 ? `; ${late} past its day` : ""}.`}
      </p>
      <section aria-label="Parts away" className="mb-4">
        <h2 className="border-b-2 border-ink text-xl">Parts that left without their machine</h2>
        <ul className="ruled">
          {away.map(({ stepId, jobId, machineId, what, to, who, at, owed }) => (
            <li key={stepId} className="py-2">
              <p className="flex flex-wrap items-baseline gap-x-3">
                <Link href={`/jobs/${jobId}`} prefetch={false} className="num text-xl font-bold underline">
                  {getMachine(db, machineId).fleetNumber}
                </Link>
                <span className="text-lg font-semibold">
                  {what}, to {to}
                </span>
                <span className="text-sm text-soft">
                  {sinceWords(at, now)} ago, {who}
                </span>
                <Link href={`/jobs/${jobId}/card`} prefetch={false} className="ml-auto underline">
                  Job card
                </Link>
              </p>
              <ul>
                {owed.map((one) => (
                  <li key={one.id} className="flex flex-wrap items-center gap-3 py-0.5">
                    <span className="grow">{sayOwed(one)}</span>
                    {due(one.dueAt)}
                    <OwedDone owedId={one.id} />
                  </li>
                ))}
              </ul>
            </li>
          ))}
          {away.length === 0 && <li className="py-2 text-soft">Nothing is away. A box or a part is handed over from its job.</li>}
        </ul>
      </section>
      <section aria-label="Machines owing">
        <h2 className="border-b-2 border-ink text-xl">Machines that went out owing</h2>
        <ul className="ruled">
          {machines.map(({ machineId, owed }) => {
            const { fleetNumber, name, site } = getMachine(db, machineId);
            return (
              <li key={machineId} className="py-2">
                <p className="flex flex-wrap items-baseline gap-x-3">
                  <Link href={`/machines/${machineId}`} prefetch={false} className="num text-xl font-bold underline">
                    {fleetNumber}
                  </Link>
                  <span>
                    {name}, at {site}
                  </span>
                </p>
                <ul>
                  {owed.map((one) => (
                    <li key={one.id} className="flex flex-wrap items-center gap-3 py-0.5">
                      <span className="grow">{sayOwed(one)}</span>
                      <Link href={`/jobs/${one.jobId}`} prefetch={false} className="text-sm underline">
                        job {one.jobId}
                      </Link>
                      {due(one.dueAt)}
                      <OwedDone owedId={one.id} />
                    </li>
                  ))}
                </ul>
              </li>
            );
          })}
          {machines.length === 0 && <li className="py-2 text-soft">Nothing is owed on any machine.</li>}
        </ul>
      </section>
    </main>
  );
}
