import type { Metadata } from "next";
import { getIntake } from "@/data/fleet/intake";
import { listMachineNames } from "@/data/machine/machines";
import { database } from "@/data/open";
import { ComplaintForm } from "./complaint-form";

export const metadata: Metadata = { title: "Complaint" };

export default async function ComplaintPage({ searchParams }: { searchParams: Promise<{ machine?: string }> }) {
  const db = database();
  const { machine } = await searchParams;
  const machines = listMachineNames(db);
  const chosen = machines.find(({ id }) => id === machine);
  return <ComplaintForm machines={machines} startWith={chosen && getIntake(db, chosen.id, new Date().toISOString())} />;
}
