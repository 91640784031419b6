import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import { SET_KINDS } from "@/core/fleet/parts";
import { listMachines } from "@/data/machine/machines";
import { database } from "@/data/open";
import { fitsWhere, getPart, listSets, lotsOf, movesOf, type SetRecord } from "@/data/service/parts";
import { AppError } from "@/data/store/errors";
import { MoreLink } from "@/ui/more-link";
import { shortened } from "@/ui/shortened";
import { PART_WORDS } from "@/ui/words/parts";
import { PartForm } from "../part-form/part-form";
import { FitList, LotTable } from "./part-tables";
import { SetsPanel } from "./sets-panel";
import { StockPanel } from "./stock-panel";

type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ all?: string }> };
export const metadata: Metadata = { title: "Part" };

/** On a machine first, then ready, then finished. */
const bySight = (sets: SetRecord[]): SetRecord[] => {
  const rank = ({ standing }: SetRecord) => (standing.on ? 0 : standing.finished ? 2 : 1);
  return [...sets].sort((a, b) => rank(a) - rank(b));
};

function found(id: string) {
  try {
    return getPart(database(), /^\d{1,9}$/.test(id) ? Number(id) : 0);
  } catch (error) {
    if (error instanceof AppError && error.code === "part-not-found") notFound();
    throw error;
  }
}

/** One part: how many lie there, which machines it fits, its sets and how long its lots last. */
export default async function PartPage({ params, searchParams }: Props) {
  const db = database();
  const record = found((await params).id);
  const { id, part, stock, isLow } = record;
  const now = new Date().toISOString();
  const { all } = await searchParams;
  const fits = fitsWhere(db, part);
  const shownFits = shortened(fits, { isAll: all === "fits" });
  const sets = SET_KINDS.includes(part.kind) ? bySight(listSets(db, now, { partId: id })) : [];
  const shownSets = shortened(sets, { isAll: all === "sets" });
  const machines = listMachines(db).map(({ id: machineId, fleetNumber, machine }) => ({
    id: machineId,
    fleetNumber,
    places: [...machine.spindles, ...machine.units].map((place) => ({ id: place.id, label: place.label })),
  }));
  const fitting = new Set(fits.filter(({ fit }) => fit.verdict !== "does-not-fit").map(({ machine }) => machine.id));
  return (
    <main className="mx-auto max-w-[80rem] p-4">
      <p>
        <Link href="/parts" className="underline" prefetch={false}>
          Parts
        </Link>{" "}
        · {PART_WORDS[part.kind]}
      </p>
      <h1 className="border-b-2 border-ink pb-1 text-2xl">{part.label}</h1>
      <div className="grid gap-x-8 lg:grid-cols-[22rem_minmax(0,1fr)]">
        <StockPanel
          record={record}
          moves={movesOf(db, id)}
          machines={machines.filter((one) => fitting.has(one.id))}
          isLow={isLow}
          stock={stock}
        />
        <div className="min-w-0">
          <FitList
            fits={shownFits.shown}
            good={fits.filter(({ fit }) => fit.verdict === "fits").map(({ machine }) => machine.fleetNumber)}
          />
          <MoreLink left={shownFits.left} href={`/parts/${id}?all=fits`} />
          {SET_KINDS.includes(part.kind) && (
            <>
              <SetsPanel partId={id} sets={shownSets.shown} machines={machines.filter((one) => fitting.has(one.id))} />
              <MoreLink left={shownSets.left} href={`/parts/${id}?all=sets`} />
              {sets.length > 0 && <LotTable lots={lotsOf(db, id, now)} />}
            </>
          )}
          <details className="border-t-2 border-ink py-1">
            <summary className="min-h-11 cursor-pointer py-2 text-lg font-semibold">What it measures, version {record.version}</summary>
            <PartForm id={id} version={record.version} part={part} />
          </details>
        </div>
      </div>
    </main>
  );
}
