import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { gearboxes } from "@/core/machine";
import { getMachine } from "@/data/machine/machines";
import { database } from "@/data/open";
import { AppError } from "@/data/store/errors";
import { DipstickSheet } from "./dipstick-sheet";

type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ box?: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: `Dipstick ${(await params).id.toUpperCase()}` };
}

export default async function DipstickPage({ params, searchParams }: Props) {
  const [{ id }, { box }] = await Promise.all([params, searchParams]);
  try {
    const record = getMachine(database(), id);
    const boxes = gearboxes(record.machine);
    if (boxes.length === 0) notFound();
    return <DipstickSheet machineId={record.id} fleetNumber={record.fleetNumber} boxes={boxes} first={box} />;
  } catch (error) {
    if (error instanceof AppError && error.code === "machine-not-found") notFound();
    throw error;
  }
}
