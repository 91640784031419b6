import type { Metadata } from "next";
import { presses } from "@/core/fleet/service/standings";
import { hasTask, SERVICE_TASKS } from "@/core/fleet/service/tasks";
import { listMachines } from "@/data/machine/machines";
import { database } from "@/data/open";
import { dueNow } from "@/data/service/due";
import { RoundForm } from "./round-form";

export const metadata: Metadata = { title: "A round" };

/** A task over many machines by a day: a season's rush prepared for. */
export default function NewRound() {
  const db = database();
  const due = dueNow(db, new Date().toISOString()).filter(({ state }) => presses(state));
  const machines = listMachines(db).map(({ id, fleetNumber, name, site, machine }) => ({
    id,
    fleetNumber,
    name,
    site,
    tasks: SERVICE_TASKS.filter((task) => hasTask(task, machine)).map((task) => task.id),
    due: due.filter((one) => one.machineId === id).map((one) => one.what),
  }));
  return (
    <main className="mx-auto max-w-[62rem] p-4">
      <h1 className="text-2xl">A round of many machines</h1>
      <RoundForm machines={machines} />
    </main>
  );
}
