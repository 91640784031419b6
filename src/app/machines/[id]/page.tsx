import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import { checkRow } from "@/core/checks";
import { groupOf } from "@/core/diagnosis";
import { featuresOf } from "@/core/kinds";
import { cutters, type Machine } from "@/core/machine";
import { gearboxes } from "@/core/sequences/rebuild";
import { greasedSpindles, greaseRule } from "@/core/service/spindles";
import { EVENTS, FIX_LABELS, type FixId } from "@/core/trade";
import { database } from "@/data/connection";
import { AppError } from "@/data/errors";
import type { LastDone } from "@/data/last-done";
import { type Followed, getMachineView, type MachineView } from "@/data/machine-view";
import type { SpindleRecord } from "@/data/spindle-log";
import { fitInto } from "@/drawings/fit";
import { MachinePlan } from "@/drawings/plan";
import { planScene } from "@/drawings/plan/scene";
import { faceOf } from "@/ui/checks/faces";
import { BeltPicture } from "@/ui/sheet/belt-picture";
import { dateOnly } from "@/ui/time";
import { VerdictLine } from "@/ui/verdict";
import { labelOfCause, labelOfSymptom } from "@/ui/words/diagnosis";
import { sayOwed } from "@/ui/words/owed";
import { placeName } from "@/ui/words/quantities";
import { BenchPanel } from "./bench-panel";
import { KeepLive } from "./keep-live";
import { KeptPictures } from "./kept-pictures";
import { KnivesPanel } from "./knives-panel";
import { LazyTrend } from "./lazy-trend";
import { LogPanel } from "./log-panel";
import { SheetTable } from "./sheet-table";
import { type SpindleLine, SpindlesPanel } from "./spindles-panel";
import { Standing } from "./standing";

type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ before?: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: (await params).id.toUpperCase() };
}

function findView(id: string, before: number | undefined): MachineView | undefined {
  try {
    return getMachineView(database(), id, { now: new Date().toISOString(), before });
  } catch (error) {
    if (error instanceof AppError && error.code === "machine-not-found") return undefined;
    throw error;
  }
}

/** A trend with the words of its check. */
function trendOf({ check, lines, breaks, ...followed }: Followed, machine: Machine) {
  const words = faceOf(check).trend;
  const named = lines.map(({ id, label }) => ({ id, label: label ?? words?.lines[id] ?? id }));
  const said = breaks.map(({ at, event, place }) => {
    const label = EVENTS.find(({ id }) => id === event)?.label ?? event;
    return { at, label: place ? `${label}, ${placeName(machine, place)}` : label };
  });
  return { ...followed, check, title: words?.title ?? "", lines: named, breaks: said };
}

const SPINDLE_WORDS = { "topped-up": "greased", purged: "purged until it ran clean", "bearings-new": "new bearings" } as const;

const GROUP_WORDS = { machine: "", operation: " (operation)", turf: " (turf)" } as const;

/** A closing cause; what was no fault of the machine is told apart. */
function sayCause(id: string): string {
  return id === "nothing-found" ? "Nothing found" : `${labelOfCause(id)}${GROUP_WORDS[groupOf(id)]}`;
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

/** When each thing was last done to it, and where that is written down. */
function LastDoneList({ done, machine }: { done: readonly LastDone[]; machine: Machine }) {
  return (
    <section aria-label="Last done" className="mb-4">
      <h2 className="border-b-2 border-ink text-xl">Last done</h2>
      <ul className="ruled">
        {done.map(({ fix, at, who, jobId, units }) => (
          <li key={fix}>
            <Link href={`/jobs/${jobId}`} prefetch={false} className="flex min-h-11 items-center gap-3 py-1 leading-tight hover:bg-sheet">
              <span className="grow">
                {FIX_LABELS[fix as FixId] ?? fix}
                {units.length > 0 && (
                  <span className="text-soft">: {units.map((unit) => placeName(machine, unit).toLowerCase()).join(", ")}</span>
                )}
              </span>
              <span className="num shrink-0 text-sm text-soft">
                {dateOnly(at)}, {who}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

export default async function MachinePage({ params, searchParams }: Props) {
  const asked = Number((await searchParams).before);
  const before = Number.isSafeInteger(asked) && asked > 0 ? asked : undefined;
  const view = findView((await params).id, before);
  if (!view) notFound();
  const { record, state, owed, sheets, jobs, spindles, pictures } = view;
  const { machine } = record;
  const scene = planScene(machine, "behind");
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
      <Standing state={state} machine={machine} machineId={record.id} />
      {view.bench.length > 0 && <BenchPanel bench={view.bench} machine={machine} machineId={record.id} />}
      {view.knives.length > 0 && <KnivesPanel knives={view.knives} machine={machine} />}
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
              {sheets.map(({ check, last }) => (
                <li key={check} className="flex flex-wrap items-center gap-x-3 py-1.5">
                  <span className="grow">{checkRow(check)?.label}</span>
                  {last ? (
                    <>
                      <VerdictLine verdict={last.verdict} />
                      <span className="text-sm text-soft">
                        {dateOnly(last.at)}
                        {last.isStale ? ", stale: something changed since" : ""}
                      </span>
                    </>
                  ) : (
                    <span className="text-soft">never measured</span>
                  )}
                </li>
              ))}
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
            <Link href={`/machines/${record.id}/sheet`} className="btn mb-2 w-full" prefetch={false}>
              Draw or type it anew
            </Link>
            <SheetTable machine={machine} />
          </section>
        </div>
        <div className="min-w-0">
          {view.lastDone.length > 0 && <LastDoneList done={view.lastDone} machine={machine} />}
          {view.followed
            .map((one) => trendOf(one, machine))
            .map(({ check, ...trend }) => (
              <div key={check} className="mb-4">
                <LazyTrend {...trend} />
              </div>
            ))}
          {spindles.length > 0 && (
            <SpindlesPanel
              machineId={record.id}
              standings={spindles}
              rule={greaseRule(machine)}
              places={greasedSpindles(machine).map(({ id, label }) => ({ id, label }))}
              isRotated={machine.sheet.spindlePlaces === "rotated"}
              sheet={{ machine, version: record.sheetVersion }}
              log={spindleLines(machine, view.spindleLog)}
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
                      <span className="grow">
                        {job.words ? `“${job.words}”` : job.symptoms.map(labelOfSymptom).join(", ") || "nothing said"}
                      </span>
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
              {view.olderThan && (
                <Link href={`/machines/${record.id}?before=${view.olderThan}#history`} className="btn">
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
          events={view.canLog}
          places={[...cutters(machine), ...(machine.deck?.hangers ?? [])].map(({ id, label }) => ({ id, label }))}
          log={view.log.map((event) => ({
            id: event.id,
            label: EVENTS.find(({ id }) => id === event.event)?.label ?? event.event,
            at: event.at,
            who: event.who,
            canTakeBack: event.canTakeBack,
            isHolding: event.isHolding,
            ...(event.where ? { where: event.where } : {}),
            ...(event.words ? { words: event.words } : {}),
            ...(event.droveOn === undefined ? {} : { droveOn: event.droveOn }),
          }))}
        />
      </div>
    </main>
  );
}
