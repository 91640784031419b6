import Link from "next/link";
import { SYMPTOMS, type SymptomId } from "@/core/catalogue";
import type { JobState } from "@/core/job/jobs";
import { stopsMowing } from "@/core/job/safety";
import { type BayJob, getBay, type HeldMachine } from "@/data/fleet/bay";
import { awayNow } from "@/data/job/handover";
import { getMachine } from "@/data/machine/machines";
import { database } from "@/data/open";
import { type DueLine, dueNow, dueThisWeek } from "@/data/service/due";
import { MoreLink } from "@/ui/more-link";
import { PlanPicture } from "@/ui/plan-picture";
import { shortened } from "@/ui/shortened";
import { dateOnly, sinceWords } from "@/ui/time";
import { sayUnsafe } from "@/ui/words/state";
import { sayDue } from "./due";
import { SpoiltNote } from "./spoilt-note";

const SHELVES: readonly { state: JobState; title: string; empty: string }[] = [
  { state: "in-work", title: "On the stands", empty: "Nothing is in work." },
  { state: "awaiting-proof", title: "Awaits proof", empty: "Nothing waits for proof." },
  { state: "waiting", title: "Waits", empty: "Nobody has complained." },
];

/** Lines of what is due shown at once. */
const DUE_SHOWN = 12;
/** Jobs of a shelf: the longest waiting and the urgent stand first. */
const JOBS_SHOWN = 12;

export default async function Bay({ searchParams }: { searchParams: Promise<{ due?: string; shelf?: string }> }) {
  const db = database();
  const asked = await searchParams;
  const { jobs, held, machineCount } = getBay(db);
  const now = new Date().toISOString();
  const due = dueNow(db, now);
  const away = awayNow(db);
  return (
    <main className="mx-auto max-w-[80rem] p-4">
      <h1 className="sr-only">The bay</h1>
      <SpoiltNote db={db} />
      {machineCount === 0 && (
        <p className="flex flex-wrap items-center gap-3 text-lg">
          No machines yet.
          <Link href="/machines/new" className="btn btn-go" prefetch={false}>
            Set up the first
          </Link>
        </p>
      )}
      {machineCount > 0 && <Morning held={held.length} jobs={jobs} away={away.length} due={due} now={now} />}
      <div className="grid gap-x-8 lg:grid-cols-2">
        <Held held={held} jobs={jobs} />
        {SHELVES.map(({ state, title, empty }) => {
          const here = byUrgency(jobs.filter((job) => job.state === state && !job.isHeld));
          const { shown, left } = shortened(here, { isAll: asked.shelf === state, most: JOBS_SHOWN });
          return (
            <section key={state} aria-labelledby={`shelf-${state}`} className="mb-6">
              <h2 id={`shelf-${state}`} className="flex items-baseline gap-2 border-b-2 border-ink pb-1 text-xl">
                {title}
                <span className="num text-base text-soft">{here.length}</span>
              </h2>
              {here.length === 0 ? <p className="py-2 text-soft">{empty}</p> : null}
              <ul className="ruled">
                {shown.map((job) => (
                  <BayRow key={job.jobId} job={job} now={now} />
                ))}
              </ul>
              <MoreLink left={left} href={`/?shelf=${state}#shelf-${state}`} />
            </section>
          );
        })}
      </div>
      {away.length > 0 && (
        <section id="away" aria-labelledby="away-title" className="mb-6">
          <h2 id="away-title" className="flex items-baseline gap-2 border-b-2 border-ink pb-1 text-xl">
            Handed over
            <span className="num grow text-base text-soft">{away.length}</span>
            <Link href="/handover" className="text-base font-normal underline" prefetch={false}>
              All that is away or owed
            </Link>
          </h2>
          <ul className="ruled">
            {away.map(({ stepId, jobId, machineId, what, to, owed: own }) => (
              <li key={stepId}>
                <Link href={`/jobs/${jobId}`} prefetch={false} className="flex min-h-11 flex-wrap items-center gap-x-3 py-1 hover:bg-sheet">
                  <span className="num w-16 text-lg font-bold">{getMachine(db, machineId).fleetNumber}</span>
                  <span className="grow">
                    {what}, to {to}
                  </span>
                  {own[0] && (
                    <span className={`num text-sm ${own[0].dueAt < now ? "font-bold text-mark" : "text-soft"}`}>
                      {own.length} owed, {own[0].dueAt < now ? "was due" : "due"} {dateOnly(own[0].dueAt)}
                    </span>
                  )}
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
      {due.length > 0 && <DueList due={due} isAll={asked.due === "all"} db={db} />}
    </main>
  );
}

/** Where mowing on can hurt somebody or the machine, before anything that only looks bad; then the longest waiting. */
const isUrgent = ({ symptoms }: BayJob): boolean => stopsMowing(symptoms as SymptomId[]).length > 0;
const byUrgency = (jobs: readonly BayJob[]): BayJob[] => [...jobs].sort((a, b) => Number(isUrgent(b)) - Number(isUrgent(a)));

/** The morning in one line: what is held, in hand, waiting, away, due this week and owed; each leads to where it stands. */
function Morning(args: { held: number; jobs: readonly BayJob[]; away: number; due: readonly DueLine[]; now: string }) {
  const { jobs, now } = args;
  const free = jobs.filter(({ isHeld }) => !isHeld);
  const count = (state: JobState) => free.filter((job) => job.state === state).length;
  const urgent = free.filter(isUrgent).length;
  const week = dueThisWeek(args.due, now);
  const owed = args.due.filter(({ what }) => what === "owed").length;
  const parts: { href: string; words: string; isGrave?: boolean }[] = [
    { href: "#shelf-held", words: `${args.held} held`, isGrave: args.held > 0 },
    ...(urgent > 0 ? [{ href: "#shelf-waiting", words: `${urgent} not to mow on`, isGrave: true }] : []),
    { href: "#shelf-in-work", words: `${count("in-work")} on the stands` },
    { href: "#shelf-awaiting-proof", words: `${count("awaiting-proof")} to prove` },
    { href: "#shelf-waiting", words: `${count("waiting")} waiting` },
    ...(args.away > 0 ? [{ href: "#away", words: `${args.away} away` }] : []),
    { href: args.due.length > 0 ? "#due-list" : "/service", words: `${week} due this week` },
    ...(owed > 0 ? [{ href: "/service?what=owed", words: `${owed} owed` }] : []),
  ];
  return (
    <nav aria-label="This morning" className="mb-3 flex flex-wrap gap-x-5 gap-y-1 text-2xl font-bold">
      {parts.map(({ href, words, isGrave }) => (
        <a key={words} href={href} className={`min-h-11 py-1 hover:underline ${isGrave ? "text-mark" : ""}`}>
          {words}
        </a>
      ))}
    </nav>
  );
}

/** What is to be done, whatever it is, the most pressing first; each leads to where it is written down. */
function DueList({ due, isAll, db }: { due: readonly DueLine[]; isAll: boolean; db: ReturnType<typeof database> }) {
  const { shown, left } = shortened(due, { isAll, most: DUE_SHOWN });
  return (
    <section id="due-list" aria-labelledby="due" className="mb-6">
      <h2 id="due" className="flex items-baseline gap-2 border-b-2 border-ink pb-1 text-xl">
        Due
        <span className="num grow text-base text-soft">{due.length}</span>
        <Link href="/service" className="text-base font-normal underline" prefetch={false}>
          Done, put off, rules
        </Link>
        <a href="/api/v1/due/calendar" className="text-base font-normal underline">
          As a calendar file
        </a>
      </h2>
      <ul className="ruled">
        {shown.map((line) => {
          const { machineId, fleetNumber, name, what, places = [], state, owed } = line;
          const { machine } = getMachine(db, machineId);
          return (
            <li key={`${machineId} ${what} ${state} ${places.join(",")} ${owed?.id ?? ""}`}>
              <Link
                href={owed?.jobId === undefined ? `/machines/${machineId}#service` : `/jobs/${owed.jobId}`}
                prefetch={false}
                className="flex min-h-11 flex-wrap items-center gap-x-3 py-1 hover:bg-sheet"
              >
                <span className="num w-16 text-lg font-bold">{fleetNumber}</span>
                <span className="grow">
                  {sayDue(line, [...machine.spindles, ...machine.units, ...machine.wheels])} <span className="text-soft">{name}</span>
                </span>
                <span className={`num text-sm ${state === "due" || state === "overdue" ? "font-bold text-mark" : "text-soft"}`}>
                  {sayWhen(line)}
                </span>
              </Link>
            </li>
          );
        })}
      </ul>
      <MoreLink left={left} href="/?due=all#due" />
    </section>
  );
}

/** When, in a word or two. */
function sayWhen({ what, state, day, postponed }: DueLine): string {
  if (postponed) return `put off to ${dateOnly(postponed.untilDay)}`;
  if (state === "due" || state === "overdue") return what === "order-knife" ? "now" : state;
  const range = day?.early && day.late && day.early !== day.late ? `, ${dateOnly(day.early)} to ${dateOnly(day.late)}` : "";
  return day?.on ? `due ${dateOnly(day.on)}${range}` : "soon";
}

/** Machines that something unsafe keeps from running, with what it is; the jobs open on them. */
function Held({ held, jobs }: { held: readonly HeldMachine[]; jobs: readonly BayJob[] }) {
  return (
    <section aria-labelledby="shelf-held" className="mb-6">
      <h2 id="shelf-held" className={`flex items-baseline gap-2 border-b-2 border-ink pb-1 text-xl ${held.length > 0 ? "text-mark" : ""}`}>
        Held out of service
        <span className="num text-base text-soft">{held.length}</span>
      </h2>
      {held.length === 0 ? <p className="py-2 text-soft">Nothing is held.</p> : null}
      <ul className="ruled">
        {held.map(({ machineId, fleetNumber, name, site, machine, state }) => {
          const open = jobs.filter((job) => job.machineId === machineId);
          return (
            <li key={machineId} className="py-2">
              <Link href={open[0] ? `/jobs/${open[0].jobId}` : `/machines/${machineId}`} className="block min-h-11 hover:bg-sheet">
                <span className="num text-xl font-bold">{fleetNumber}</span>{" "}
                <span className="text-soft">
                  {name}, {site}
                </span>
                {state.unsafe.map((cause) => (
                  <span key={cause.key} className="block text-lg leading-snug font-semibold text-mark">
                    {sayUnsafe(cause, machine)}
                  </span>
                ))}
              </Link>
              <span className="text-sm text-soft">
                {open.length === 0 ? "no job open on it" : open.map(({ jobId, saidBy }) => `job ${jobId}, ${saidBy}`).join("; ")}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function BayRow({ job, now }: { job: BayJob; now: string }) {
  const looks = job.symptoms.map((id) => SYMPTOMS.find((symptom) => symptom.id === id)?.label).join(" · ");
  return (
    <li>
      <Link
        href={`/jobs/${job.jobId}`}
        prefetch={false}
        className="grid min-h-20 grid-cols-[5.5rem_1fr_auto] items-center gap-3 py-2 hover:bg-sheet"
      >
        <PlanPicture machineId={job.machineId} sheetVersion={job.sheetVersion} label={`${job.fleetNumber} from above`} />
        <span className="min-w-0">
          <span className="num text-xl font-bold">{job.fleetNumber}</span> <span className="text-soft">{job.machineName}</span>
          {isUrgent(job) && <span className="ml-2 font-bold text-mark">not to mow on</span>}
          <span className="line-clamp-2 block text-lg leading-snug">{job.words ? `“${job.words}”` : looks}</span>
          <span className="block text-sm text-soft">
            {job.saidBy}, {job.site}
          </span>
        </span>
        <span className="text-right">
          <span className="num block text-lg font-semibold">{sinceWords(job.openedAt, now)}</span>
          <span className="block text-sm text-soft">job {job.jobId}</span>
        </span>
      </Link>
    </li>
  );
}
