import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { getMachine, type MachineRecord } from "@/data/machine/machines";
import { database } from "@/data/open";
import { AppError } from "@/data/store/errors";
import { SheetDesk } from "../../sheet-desk/sheet-desk";

type Props = { params: Promise<{ id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: `${(await params).id.toUpperCase()}, its sheet` };
}

function found(id: string): MachineRecord {
  try {
    return getMachine(database(), id);
  } catch (error) {
    if (error instanceof AppError && error.code === "machine-not-found") notFound();
    throw error;
  }
}

/** A machine's sheet drawn and typed anew: kept as a version with its reason. */
export default async function SheetPage({ params }: Props) {
  const record = found((await params).id);
  return <SheetDesk record={record} start={record.machine} sites={[]} sisters={[]} />;
}
