import type { Metadata } from "next";
import { headers } from "next/headers";
import Link from "next/link";
import { SERVICE_TASKS } from "@/core/fleet/service/tasks";
import { feedKey } from "@/data/fleet/feed-key";
import { isThrough, listRounds } from "@/data/fleet/rounds";
import { getMachine, listMachineNames } from "@/data/machine/machines";
import { database } from "@/data/open";
import { dueNow, dueThisWeek } from "@/data/service/due";
import { entriesToday } from "@/data/service/service-log";
import { listRules } from "@/data/service/service-rules";
import { MoreLink } from "@/ui/more-link";
import { shortened } from "@/ui/shortened";
import { dateOnly } from "@/ui/time";
import { taskLabel } from "@/ui/words/service";
import { paperAddress } from "../paper/address";
import { currentPerson } from "../session";
import { CalendarAddress } from "./calendar-address";
import { HoursImport } from "./hours-import";
import { RulesPanel } from "./rules-panel";
import { TaskLine } from "./task-line";
import { WrittenToday } from "./written-today";

export const metadata: Metadata = { title: "Service" };

type Props = { searchParams: Promise<{ what?: string; all?: string }> };
const SHOWN = 40;

/** What is to be done by hours, by the calendar and because of what happened; rounds over many machines; the shop's rules. */
export default async function Service({ searchParams }: Props) {
  const db = database();
  const now = new Date().toISOString();
  const { what, all } = await searchParams;
  const due = dueNow(db, now);
  const own = due.filter((one) => !what || one.what === what);
  const { shown, left } = shortened(own, { isAll: all === "yes", most: SHOWN });
  const week = dueThisWeek(due, now);
  const { origin } = paperAddress((await headers()).get("host"));
  const person = await currentPerson();
  const rounds = listRounds(db);
  const tasks = [...SERVICE_TASKS.map(({ id }) => id), "owed" as const].filter((id) => due.some((one) => one.what === id));
  return (
    <main className="mx-auto max-w-[80rem] p-4">
      <div className="flex flex-wrap items-center gap-2">
        <h1 className="grow text-2xl">Service</h1>
        <Link href="/rounds/new" className="btn btn-go" prefetch={false}>
          A round of many machines
        </Link>
        <a href="/api/v1/due/calendar" className="btn">
          As a calendar file
        </a>
      </div>
      <p className={`py-1 text-2xl font-bold ${week > 0 ? "text-mark" : "text-good"}`}>
        {week === 0 ? "Nothing is due this week." : `${week} due this week.`}
      </p>
      {rounds.filter((round) => !isThrough(round)).length > 0 && (
        <section aria-label="Rounds" className="mb-3">
          <h2 className="border-b border-ink text-xl">Rounds under way</h2>
          <ul className="ruled">
            {rounds
              .filter((round) => !isThrough(round))
              .map((round) => (
                <li key={round.id}>
                  <Link
                    href={`/rounds/${round.id}`}
                    prefetch={false}
                    className="flex min-h-11 flex-wrap items-center gap-x-3 py-1 hover:bg-sheet"
                  >
                    <span className="grow text-lg font-semibold">{round.title}</span>
                    <span className="num">
                      {round.lines.filter(({ done }) => done).length} of {round.lines.length} done
                    </span>
                    <span className="num text-sm text-soft">by {dateOnly(round.byDay)}</span>
                  </Link>
                </li>
              ))}
          </ul>
        </section>
      )}
      <nav aria-label="Which service" className="flex flex-wrap gap-1 py-1">
        {[undefined, ...tasks].map((id) => (
          <Link
            key={id ?? "all"}
            href={id ? `/service?what=${id}` : "/service"}
            className={`btn ${what === id ? "btn-on" : ""}`}
            aria-current={what === id ? "page" : undefined}
          >
            {id ? taskLabel(id) : "All"} <span className="num">{due.filter((one) => !id || one.what === id).length}</span>
          </Link>
        ))}
      </nav>
      <ul className="ruled" aria-label="Due">
        {shown.map((one) => {
          const { machine } = getMachine(db, one.machineId);
          return (
            <TaskLine
              key={`${one.machineId} ${one.what} ${one.state} ${one.owed?.id ?? ""}`}
              line={one}
              isTitled
              now={now}
              places={[...machine.spindles, ...machine.units, ...machine.wheels].map(({ id, label }) => ({ id, label }))}
            />
          );
        })}
        {shown.length === 0 && <li className="py-2 text-lg text-soft">Nothing of that is due or soon.</li>}
      </ul>
      <MoreLink left={left} href={`/service?all=yes${what ? `&what=${what}` : ""}`} />
      <WrittenToday entries={entriesToday(db, now)} />
      {person && <CalendarAddress address={`${origin}/api/v1/due/calendar?key=${feedKey(db)}`} />}
      <HoursImport />
      <RulesPanel rules={listRules(db)} machines={listMachineNames(db).map(({ id, fleetNumber }) => ({ id, fleetNumber }))} />
    </main>
  );
}
