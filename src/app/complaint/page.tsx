import type { Metadata } from "next";
import { getBay } from "@/data/bay";
import { database } from "@/data/connection";
import { listEvents } from "@/data/events";
import { tickedSinceProof } from "@/data/job-view";
import { listMachines } from "@/data/machines";
import { ComplaintForm } from "./complaint-form";

export const metadata: Metadata = { title: "Complaint" };

export default async function ComplaintPage({ searchParams }: { searchParams: Promise<{ machine?: string }> }) {
  const db = database();
  const { machine } = await searchParams;
  const machines = listMachines(db);
  const openJobs = getBay(db).jobs;
  const now = new Date().toISOString();
  const ticked = Object.fromEntries(
    machines.map(({ id }) => [
      id,
      tickedSinceProof(db, { machineId: id, events: listEvents(db, id), openedAt: now }).map(({ context }) => context),
    ]),
  );
  return (
    <ComplaintForm
      machines={machines}
      openJobs={openJobs}
      ticked={ticked}
      startWith={machines.some(({ id }) => id === machine) ? machine : undefined}
    />
  );
}
