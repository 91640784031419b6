import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import { type Check, checkRow, isOffered, WORKSHEETS } from "@/core/checks";
import { groupOf } from "@/core/diagnosis";
import { staleReasons } from "@/core/events";
import { featuresOf } from "@/core/kinds";
import { cutters, type Machine } from "@/core/machine";
import { gearboxes } from "@/core/sequences/rebuild";
import { greasedSpindles, greaseRule } from "@/core/service/spindles";
import { CAUSES, EVENTS, type EventRow } from "@/core/trade";
import { jobsOfMachine } from "@/data/bay";
import { database } from "@/data/connection";
import { AppError } from "@/data/errors";
import { canTakeBack, HOLDING_EVENTS, listEvents } from "@/data/events";
import { machinePhotographs } from "@/data/machine-photographs";
import { stateOfMachine } from "@/data/machine-state";
import { getMachine, type MachineRecord } from "@/data/machines";
import { listOwed } from "@/data/owed";
import { listSpindleLog, type SpindleRecord, spindlesOf } from "@/data/spindle-log";
import { type Take, takesOfMachine } from "@/data/takes";
import { fitInto } from "@/drawings/fit";
import { MachinePlan } from "@/drawings/plan";
import { planScene } from "@/drawings/plan/scene";
import { faceOf } from "@/ui/checks/faces";
import { BeltPicture } from "@/ui/sheet/belt-picture";
import { dateOnly } from "@/ui/time";
import { VerdictLine } from "@/ui/verdict";
import { sayOwed } from "@/ui/words/owed";
import { KeepLive } from "./keep-live";
import { KeptPictures } from "./kept-pictures";
import { LazyTrend } from "./lazy-trend";
import { LogPanel } from "./log-panel";
import { SheetTable } from "./sheet-table";
import { type SpindleLine, SpindlesPanel } from "./spindles-panel";
import { Standing } from "./standing";
import type { TrendPoint } from "./trend";

type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ before?: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: (await params).id.toUpperCase() };
}

function findMachine(id: string): MachineRecord | undefined {
  try {
    return getMachine(database(), id);
  } catch (error) {
    if (error instanceof AppError && error.code === "machine-not-found") return undefined;
    throw error;
  }
}

/** Events that say something about this machine: those that make one of its checks stale, or that anybody logs. */
const ALWAYS = ["run", "struck", "operator-changed", "site-changed", "held-out"];
/** A hold is let go by a release with its reasons, in a job. */
const NEVER = ["released"];
const eventRows: readonly EventRow[] = EVENTS;

function eventsFor(machine: Machine): string[] {
  return eventRows
    .filter(({ id, makesStale }) => {
      const concerns = makesStale.some((check) => {
        const row = checkRow(check);
        return row && isOffered(row, machine);
      });
      return !NEVER.includes(id) && (ALWAYS.includes(id) || concerns);
    })
    .map(({ id }) => id);
}

/** What a check follows over time, from its takes; `undefined` where there is nothing yet. */
function trendOf(check: Check, machine: Machine, takes: readonly Take[]) {
  const { trend } = check;
  const words = faceOf(check.id).trend;
  if (!trend || !words) return undefined;
  const points = takes.flatMap((take): TrendPoint[] => {
    const values = take.checkId === check.id && take.result.ruleVersion > 0 ? trend.values(take.result) : undefined;
    return values ? [{ at: take.at, jobId: take.jobId, values }] : [];
  });
  if (points.length === 0) return undefined;
  const lines = trend.lines(machine).map(({ id, label }) => ({ id, label: label ?? words.lines[id] ?? id }));
  return { id: check.id, title: words.title, points, lines, dimension: trend.dimension, toleranceSi: trend.toleranceSi(machine) };
}

const SPINDLE_WORDS = { "topped-up": "greased", purged: "purged until it ran clean", "bearings-new": "new bearings" } as const;

const GROUP_WORDS = { machine: "", operation: " (operation)", turf: " (turf)" } as const;

/** A closing cause; what was no fault of the machine is told apart. */
function sayCause(id: string): string {
  const cause = CAUSES.find((one) => one.id === id);
  return cause ? `${cause.label}${GROUP_WORDS[groupOf(cause.id)]}` : "Nothing found";
}

/** The spindle log in words, newest first. */
function spindleLines(machine: Machine, log: readonly SpindleRecord[]): SpindleLine[] {
  const labelOf = (place: string) => machine.spindles.find(({ id }) => id === place)?.label ?? place;
  return [...log].reverse().map((entry) => ({
    id: entry.id,
    at: entry.at,
    who: entry.who,
    words:
      entry.kind === "moved"
        ? `Moved: ${Object.entries(entry.moves)
            .map(([from, to]) => `${labelOf(from).toLowerCase()} to ${labelOf(to).toLowerCase()}`)
            .join(", ")}`
        : `${labelOf(entry.place)} ${SPINDLE_WORDS[entry.kind]}`,
  }));
}

const DRAWING = { width: 420, height: 420 };

/** Jobs of the history shown at once. */
const HISTORY_PAGE = 20;
/** Lines of the log shown. */
const LOG_SHOWN = 60;

export default async function MachinePage({ params, searchParams }: Props) {
  const record = findMachine((await params).id);
  if (!record) notFound();
  const db = database();
  const { machine } = record;
  const { before } = await searchParams;
  const found = jobsOfMachine(db, record.id, { limit: HISTORY_PAGE + 1, before });
  const jobs = found.slice(0, HISTORY_PAGE);
  const takes = [...takesOfMachine(db, record.id)].reverse();
  const events = listEvents(db, record.id);
  const owed = listOwed(db, record.id);
  const pictures = machinePhotographs(db, record.id);
  const standings = spindlesOf(db, record.id, new Date().toISOString());
  const state = stateOfMachine(db, record.id);
  const scene = planScene(machine, "behind");
  const sheets = WORKSHEETS.filter((check) => {
    const row = checkRow(check.id);
    return row && isOffered(row, machine) && check.missing(machine).length === 0;
  });
  const trends = sheets.flatMap((check) => trendOf(check, machine, takes) ?? []);
  return (
    <main className="mx-auto max-w-[80rem] p-4">
      <KeepLive machineId={record.id} />
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2 border-b-2 border-ink pb-2">
        <h1 className="text-3xl">
          <span className="num">{record.fleetNumber}</span> <span className="text-xl font-medium">{record.name}</span>
        </h1>
        <span className="text-soft">{record.site}</span>
        {record.meterHours !== undefined && <span className="num text-lg">{record.meterHours} h</span>}
        <Link href={`/complaint?machine=${record.id}`} className="btn btn-go ml-auto">
          Take a complaint
        </Link>
      </div>
      {owed.length > 0 && <p className="mt-2 font-semibold text-mark">Still owed: {owed.map(sayOwed).join("; ")}.</p>}
      <Standing state={state} machine={machine} />
      <div className="mt-4 grid gap-8 lg:grid-cols-[26rem_minmax(0,1fr)_20rem]">
        <div>
          <svg
            viewBox={`0 0 ${DRAWING.width} ${DRAWING.height}`}
            className="dye w-full"
            role="img"
            aria-label={`${record.fleetNumber} from above, to scale`}
          >
            <MachinePlan scene={scene} fit={fitInto({ bounds: scene.bounds, ...DRAWING, margin: 30 })} />
          </svg>
          <section aria-label="Where it stands" className="mt-3">
            <h2 className="text-xl">Where it stands</h2>
            <ul className="ruled">
              {sheets.map((check) => {
                const take = takes.findLast(({ checkId }) => checkId === check.id);
                const isStale = take !== undefined && staleReasons({ machine, check: check.id, takenSeq: take.seq, events }).length > 0;
                return (
                  <li key={check.id} className="flex flex-wrap items-center gap-x-3 py-1.5">
                    <span className="grow">{checkRow(check.id)?.label}</span>
                    {take ? (
                      <>
                        <VerdictLine verdict={take.verdict} />
                        <span className="text-sm text-soft">
                          {dateOnly(take.at)}
                          {isStale ? ", stale: something changed since" : ""}
                        </span>
                      </>
                    ) : (
                      <span className="text-soft">never measured</span>
                    )}
                  </li>
                );
              })}
              {sheets.length === 0 && (
                <li className="py-1.5 text-soft">No worksheet for this kind of machine yet: its checks are entered by finding.</li>
              )}
            </ul>
          </section>
          {featuresOf(machine).includes("belt") && machine.spindles.length > 0 && (
            <section aria-label="Belt" className="mt-4">
              <h2 className="border-b-2 border-ink text-xl">Belt path</h2>
              {machine.sheet.belt && (
                <div className="dye mt-2 flex h-64 flex-col">
                  <BeltPicture machine={machine} standpoint="behind" />
                </div>
              )}
              <Link href={`/machines/${record.id}/belt`} className="btn mt-2 w-full">
                {machine.sheet.belt ? "Change the sketch" : "Sketch the belt's path"}
              </Link>
              <KeptPictures machineId={record.id} about="belt-path" pictures={pictures} />
            </section>
          )}
          {gearboxes(machine).length > 0 && (
            <section aria-label="Gearboxes" className="mt-4">
              <h2 className="border-b-2 border-ink text-xl">Gearboxes</h2>
              <Link href={`/machines/${record.id}/dipstick`} className="btn mt-2 w-full">
                Dipstick, worked out and printed
              </Link>
              <KeptPictures machineId={record.id} about="timing" pictures={pictures} />
            </section>
          )}
          <section aria-label="Sheet" className="mt-4">
            <h2 className="text-xl">Sheet, version {record.sheetVersion}</h2>
            <p className="mb-2 text-sm text-soft">
              {record.sheetReason}, {record.sheetBy}, {dateOnly(record.sheetAt)}. Whose word: the machine's sheet.
            </p>
            <SheetTable machine={machine} />
          </section>
        </div>
        <div className="min-w-0">
          {trends.map(({ id, ...trend }) => (
            <div key={id} className="mb-4">
              <LazyTrend {...trend} />
            </div>
          ))}
          {standings.length > 0 && (
            <SpindlesPanel
              machineId={record.id}
              standings={standings}
              rule={greaseRule(machine)}
              places={greasedSpindles(machine).map(({ id, label }) => ({ id, label }))}
              isRotated={machine.sheet.spindlePlaces === "rotated"}
              sheet={{ machine, version: record.sheetVersion }}
              log={spindleLines(machine, listSpindleLog(db, record.id))}
            />
          )}
          <section id="history" aria-label="History" className="mt-4">
            <h2 className="border-b-2 border-ink text-xl">History</h2>
            {jobs.length === 0 && <p className="py-2 text-soft">{before ? "Nothing older." : "No job yet."}</p>}
            <ul className="ruled">
              {jobs.map((job) => (
                <li key={job.jobId}>
                  <Link href={`/jobs/${job.jobId}`} prefetch={false} className="block py-2 hover:bg-sheet">
                    <span className="flex gap-3">
                      <span className="num w-28 shrink-0 text-sm text-soft">{dateOnly(job.openedAt)}</span>
                      <span className="grow">“{job.words}”</span>
                      <span className={`shrink-0 font-semibold ${job.isProved ? "text-good" : ""}`}>
                        {job.state === "closed" ? (job.isProved ? "proved" : "not proved") : "open"}
                      </span>
                    </span>
                    <span className="block pl-31 text-sm text-soft">{job.causes.map(sayCause).join("; ")}</span>
                  </Link>
                </li>
              ))}
            </ul>
            <div className="flex gap-2 py-2">
              {found.length > HISTORY_PAGE && (
                <Link href={`/machines/${record.id}?before=${encodeURIComponent(jobs.at(-1)?.openedAt ?? "")}#history`} className="btn">
                  Older
                </Link>
              )}
              {before && (
                <Link href={`/machines/${record.id}#history`} className="btn">
                  Newest
                </Link>
              )}
            </div>
          </section>
        </div>
        <LogPanel
          machineId={record.id}
          meterHours={record.meterHours}
          events={eventsFor(machine)}
          places={[...cutters(machine), ...(machine.deck?.hangers ?? [])].map(({ id, label }) => ({ id, label }))}
          log={[...events]
            .reverse()
            .slice(0, LOG_SHOWN)
            .map((event) => ({
              id: event.id,
              label: EVENTS.find(({ id }) => id === event.event)?.label ?? event.event,
              at: event.at,
              who: event.who,
              canTakeBack: canTakeBack(db, event),
              isHolding: HOLDING_EVENTS.includes(event.event),
              ...(event.where ? { where: event.where } : {}),
              ...(event.words ? { words: event.words } : {}),
              ...(event.droveOn === undefined ? {} : { droveOn: event.droveOn }),
            }))}
        />
      </div>
    </main>
  );
}
