import type { Metadata } from "next";
import { notFound, redirect } from "next/navigation";
import { checkRow, isOffered, worksheetById, worksheetsFor } from "@/core/checks";
import { getReckonerView } from "@/data/checks/reckoner";
import { listMachines } from "@/data/machine/machines";
import { database } from "@/data/open";
import { stateFrom } from "../state";
import { ReckonerScreen } from "./reckoner-screen";

type Props = { params: Promise<{ check: string }>; searchParams: Promise<Record<string, string | string[] | undefined>> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: `${checkRow((await params).check)?.label ?? "Worksheet"} · Reckoner` };
}

/** One worksheet without a job, its state in the address. */
export default async function ReckonerCheckPage({ params, searchParams }: Props) {
  const { check } = await params;
  const row = checkRow(check);
  if (!row || !worksheetById(check)) notFound();
  const state = stateFrom(await searchParams);
  const fit = listMachines(database()).filter(
    ({ machine }) => isOffered(row, machine) && worksheetsFor(machine).some(({ id }) => id === check),
  );
  const chosen = fit.find(({ id }) => id === state.machineId) ?? fit[0];
  if (!chosen) redirect("/reckoner");
  const view = getReckonerView(database(), chosen.id, new Date().toISOString());
  return (
    <ReckonerScreen
      key={`${check} ${chosen.id}`}
      row={row}
      view={view}
      machines={fit.map(({ id, fleetNumber, name }) => ({ id, fleetNumber, name }))}
      initial={chosen.id === state.machineId ? state : { text: {} }}
    />
  );
}
