import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { kindById } from "@/core/catalogue/kinds";
import { heightContext } from "@/data/checks/check-context";
import { getMachine } from "@/data/machine/machines";
import { database } from "@/data/open";
import { AppError } from "@/data/store/errors";
import { BenchDesk } from "./bench-desk";

type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ unit?: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: `Bench setting ${(await params).id.toUpperCase()}` };
}

export default async function BenchPage({ params, searchParams }: Props) {
  const { id } = await params;
  const { unit } = await searchParams;
  try {
    const record = getMachine(database(), id);
    if (kindById(record.machine.kind).cutsWith !== "reel") notFound();
    const { unitVisits, visits } = heightContext(database(), { machineId: id, now: new Date().toISOString() });
    const [only] = record.machine.units;
    // Of one unit, the machine's visits are its own.
    const own = record.machine.units.length === 1 && only ? { [only.id]: visits } : unitVisits;
    return <BenchDesk record={record} visits={own} unit={typeof unit === "string" ? unit : undefined} />;
  } catch (error) {
    if (error instanceof AppError && error.code === "machine-not-found") notFound();
    throw error;
  }
}
