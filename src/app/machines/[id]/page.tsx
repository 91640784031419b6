import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import { EVENTS, FIX_LABELS, type FixId } from "@/core/catalogue";
import { featuresOf } from "@/core/catalogue/kinds";
import { checkRow } from "@/core/checks";
import { greasedSpindles, greaseRule } from "@/core/fleet/service/spindles";
import { cutters, gearboxes, isPlaceOf, type Machine } from "@/core/machine";
import { takesOfPlace } from "@/data/checks/place-readings";
import { type Followed, getMachineView, type MachineView } from "@/data/fleet/machine-view";
import { lastMeterSwap } from "@/data/machine/hours";
import { hazardsOf } from "@/data/machine/site-places";
import { database } from "@/data/open";
import type { LastDone } from "@/data/record/last-done";
import { type DueLine, dueOfMachine } from "@/data/service/due";
import { listSets, whatFits } from "@/data/service/parts";
import { serviceEntries } from "@/data/service/service-log";
import type { SpindleRecord } from "@/data/service/spindle-log";
import { AppError } from "@/data/store/errors";
import { faceOf } from "@/ui/checks/faces";
import { HazardNote } from "@/ui/hazard-note";
import { BeltPicture } from "@/ui/sheet/belt-picture";
import { dateOnly } from "@/ui/time";
import { VerdictLine } from "@/ui/verdict";
import { sayOwed } from "@/ui/words/owed";
import { placeName } from "@/ui/words/quantities";
import { taskLabel } from "@/ui/words/service";
import { TaskLine } from "../../service/task-line";
import { currentPerson } from "../../session";
import { askedFrom, Book } from "./book/book";
import { KeepLive } from "./keep-live";
import { LazyTrend } from "./lazy-trend";
import { MachineAdmin } from "./machine-admin";
import { BenchPanel } from "./service/bench-panel";
import { KnivesPanel } from "./service/knives-panel";
import { LogPanel } from "./service/log-panel";
import { type SpindleLine, SpindlesPanel } from "./service/spindles-panel";
import { FitsPanel } from "./specification/fits-panel";
import { KeptPictures } from "./specification/kept-pictures";
import { PlaceCard } from "./specification/place-card";
import { PlanIndex } from "./specification/plan-index";
import { SheetTable } from "./specification/sheet-table";
import { Standing } from "./standing";

type Props = { params: Promise<{ id: string }>; searchParams: Promise<Record<string, string | string[] | undefined>> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: (await params).id.toUpperCase() };
}

function findView(id: string): MachineView | undefined {
  try {
    return getMachineView(database(), id, { now: new Date().toISOString() });
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

/** Whether a line of service is of this one: at one of its places, where both say which. */
const isOf = ({ what, owedId, places }: ReturnType<typeof serviceEntries>[number], line: DueLine): boolean =>
  line.owed
    ? owedId === line.owed.id
    : what === line.what && (!places || !line.places || places.some((place) => line.places?.includes(place) ?? false));

type Done = { key: string; at: string; who: string; words: string; where: string; href: string };

/** What was last done of each sort, in a job or as service, whichever was written down: when were its blades last ground. */
function lastDoneOf(fixes: readonly LastDone[], service: readonly DueLine[], machine: Machine): Done[] {
  const ofJobs = fixes.map(
    ({ fix, at, who, jobId, units }): Done => ({
      ...{ key: fix, at, who, words: FIX_LABELS[fix as FixId] ?? fix, href: `/jobs/${jobId}` },
      where: units.map((unit) => placeName(machine, unit).toLowerCase()).join(", "),
    }),
  );
  const asService = service.flatMap(({ what, state, places = [], last }): Done[] => {
    if (last?.how !== "service") return [];
    const where = places.map((place) => placeName(machine, place).toLowerCase()).join(", ");
    return [{ key: `service ${what} ${state}`, at: last.at, who: last.who, words: taskLabel(what), href: "#service", where }];
  });
  return [...ofJobs, ...asService].sort((a, b) => b.at.localeCompare(a.at));
}

/** When each thing was last done to it, and where that is written down. */
function LastDoneList({ done }: { done: readonly Done[] }) {
  return (
    <section aria-label="Last done" className="mb-4">
      <h2 className="border-b-2 border-ink text-xl">Last done</h2>
      <ul className="ruled">
        {done.map(({ key, at, who, words, where, href }) => (
          <li key={key}>
            <Link href={href} prefetch={false} className="flex min-h-11 items-center gap-3 py-1 leading-tight hover:bg-sheet">
              <span className="grow">
                {words}
                {where && <span className="text-soft">: {where}</span>}
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
  const asked = askedFrom(await searchParams);
  const view = findView((await params).id);
  if (!view) notFound();
  const db = database();
  const now = new Date().toISOString();
  const { record, state, sheets, spindles, pictures } = view;
  const { machine, retired } = record;
  const system = (await currentPerson())?.unitSystem ?? "us";
  const isReel = machine.units.length > 0;
  const places = [...machine.spindles, ...machine.units, ...machine.wheels].map(({ id, label }) => ({ id, label }));
  const entries = serviceEntries(db, record.id);
  const service = dueOfMachine(db, record, now);
  const owed = service.flatMap((line) => line.owed ?? []);
  const done = lastDoneOf(view.lastDone, service, machine);
  const hours = record.totalHours ?? record.meterHours;
  return (
    <main className="mx-auto max-w-[80rem] p-4">
      <KeepLive machineId={record.id} />
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2 border-b-2 border-ink pb-2">
        <h1 className="text-3xl">
          <span className="num">{record.fleetNumber}</span> <span className="text-xl font-medium">{record.name}</span>
        </h1>
        <span className="text-soft">{record.site}</span>
        {hours !== undefined && (
          <span className="num text-lg">
            {hours} h{record.totalHours === undefined ? "" : `, meter ${record.meterHours} h`}
          </span>
        )}
        <span className="ml-auto flex flex-wrap gap-2">
          <Link href={`/machines/${record.id}/sheet`} className="btn" prefetch={false}>
            Its sheet
          </Link>
          <Link href={`/machines/${record.id}/history`} className="btn" prefetch={false}>
            Print its history
          </Link>
          {!retired && (
            <Link href={`/complaint?machine=${record.id}`} className="btn btn-go">
              Take a complaint
            </Link>
          )}
        </span>
      </div>
      {retired && (
        <p className="mt-2 text-lg font-bold text-mark">
          Retired {dateOnly(retired.at)} by {retired.who}: {retired.reason}.
        </p>
      )}
      {owed.length > 0 && <p className="mt-2 font-semibold text-mark">Still owed: {owed.map(sayOwed).join("; ")}.</p>}
      <HazardNote site={record.site} {...hazardsOf(db, record.site, now)} />
      <Standing state={state} machine={machine} machineId={record.id} />
      <nav aria-label="Parts of its book" className="flex flex-wrap gap-x-4 py-1">
        {[
          ["#history", "History"],
          ["#service", "Service"],
          ["#fits", "What fits"],
          ...(view.bench.length > 0 ? [["#bench", "Bench"]] : []),
          ...(spindles.length > 0 ? [["#spindles", "Spindles"]] : []),
          ...(view.followed.length > 0 ? [["#trends", "Trends"]] : []),
          ["#sheet", "Sheet"],
          ["#pictures", "Photographs"],
        ].map(([href, words]) => (
          <a key={href} href={href} className="min-h-11 py-2 underline">
            {words}
          </a>
        ))}
      </nav>
      <div className="mt-2 grid gap-6 lg:grid-cols-[22rem_minmax(0,1fr)_19rem]">
        <div>
          <PlanIndex
            machine={machine}
            machineId={record.id}
            label={`${record.fleetNumber} from above, to scale: touch a place for its book`}
            here={asked.place}
          />
          {asked.place && isPlaceOf(machine, asked.place) && (
            <PlaceCard
              machine={machine}
              machineId={record.id}
              place={asked.place}
              takes={takesOfPlace(db, { machineId: record.id, machine, place: asked.place })}
              system={system}
            />
          )}
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
        </div>
        <div className="min-w-0">
          <Book db={db} machineId={record.id} machine={machine} system={system} asked={asked} now={now} />
        </div>
        <div>
          {done.length > 0 && <LastDoneList done={done} />}
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
      </div>
      {view.bench.length > 0 && (
        <div id="bench">
          <BenchPanel bench={view.bench} machine={machine} machineId={record.id} />
        </div>
      )}
      {view.knives.length > 0 && <KnivesPanel knives={view.knives} machine={machine} />}
      <section id="service" aria-label="Service" className="my-4">
        <h2 className="border-b-2 border-ink text-xl">Service</h2>
        <ul className="ruled">
          {service.map((line) => (
            <TaskLine
              key={`${line.what} ${line.state} ${line.owed?.id ?? ""}`}
              line={line}
              now={now}
              places={places}
              lastEntry={entries.findLast((entry) => isOf(entry, line))}
            />
          ))}
        </ul>
      </section>
      <FitsPanel
        fits={whatFits(db, machine)}
        sets={listSets(db, now, { machineId: record.id })}
        machineId={record.id}
        labels={Object.fromEntries([...machine.spindles, ...machine.units].map(({ id, label }) => [id, label]))}
        isReel={isReel}
      />
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
      {view.followed.length > 0 && (
        <div id="trends" className="grid gap-6 lg:grid-cols-2">
          {view.followed
            .map((one) => trendOf(one, machine))
            .map(({ check, ...trend }) => (
              <div key={check} className="mb-4 min-w-0">
                <LazyTrend {...trend} />
              </div>
            ))}
        </div>
      )}
      <div className="grid gap-8 lg:grid-cols-2">
        <section id="sheet" aria-label="Sheet" className="mt-4">
          <h2 className="border-b-2 border-ink text-xl">Sheet, version {record.sheetVersion}</h2>
          <p className="mb-2 text-sm text-soft">
            {record.sheetReason}, {record.sheetBy}, {dateOnly(record.sheetAt)}.
          </p>
          <Link href={`/machines/${record.id}/sheet`} className="btn mb-2 w-full" prefetch={false}>
            Draw or type it anew
          </Link>
          <SheetTable machine={machine} />
        </section>
        <div id="pictures">
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
          <section aria-label="Photographs" className="mt-4">
            <h2 className="border-b-2 border-ink text-xl">Photographs</h2>
            <div className="grid gap-x-4 sm:grid-cols-2">
              {(["washer-stack", "damage", "turf", "lifting", "isolation"] as const)
                .filter((about) => !(isReel && about === "washer-stack"))
                .map((about) => (
                  <KeptPictures key={about} machineId={record.id} about={about} pictures={pictures} />
                ))}
            </div>
          </section>
        </div>
      </div>
      <MachineAdmin
        machineId={record.id}
        name={record.name}
        site={record.site}
        meterHours={record.meterHours}
        isRetired={retired !== undefined}
        swap={lastMeterSwap(db, record.id)}
      />
    </main>
  );
}
