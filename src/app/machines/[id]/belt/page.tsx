import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { featuresOf } from "@/core/catalogue/kinds";
import { getMachine } from "@/data/machine/machines";
import { database } from "@/data/open";
import { AppError } from "@/data/store/errors";
import { BeltSketch } from "./belt-sketch";

type Props = { params: Promise<{ id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: `Belt path ${(await params).id.toUpperCase()}` };
}

export default async function BeltPage({ params }: Props) {
  const { id } = await params;
  try {
    const record = getMachine(database(), id);
    if (!featuresOf(record.machine).includes("belt") || record.machine.spindles.length === 0) notFound();
    return <BeltSketch record={record} />;
  } catch (error) {
    if (error instanceof AppError && error.code === "machine-not-found") notFound();
    throw error;
  }
}
