import type { Metadata } from "next";
import Link from "next/link";
import { kindById } from "@/core/kinds";
import { database } from "@/data/connection";
import { listMachines } from "@/data/machines";
import { PlanPicture } from "@/ui/plan-picture";
import { SpoiltNote } from "../spoilt-note";

export const metadata: Metadata = { title: "Machines" };

export default function Machines() {
  const db = database();
  const machines = listMachines(db);
  return (
    <main className="mx-auto max-w-[80rem] p-4">
      <div className="flex flex-wrap items-center gap-2">
        <h1 className="grow text-2xl">Machines</h1>
        <Link href="/machines/new" className="btn btn-go" prefetch={false}>
          A new machine
        </Link>
        <Link href="/labels" className="btn" prefetch={false}>
          Labels to print
        </Link>
      </div>
      <SpoiltNote db={db} />
      <ul className="mt-3 grid gap-x-8 sm:grid-cols-2 lg:grid-cols-3">
        {machines.map((record) => (
          <li key={record.id} className="border-b border-rule">
            <Link
              href={`/machines/${record.id}`}
              prefetch={false}
              className="grid min-h-20 grid-cols-[5.5rem_1fr] items-center gap-3 py-2 hover:bg-sheet"
            >
              <PlanPicture machineId={record.id} sheetVersion={record.sheetVersion} label={`${record.fleetNumber} from above`} />
              <span>
                <span className="num text-xl font-bold">{record.fleetNumber}</span> {record.name}
                <span className="block text-sm text-soft">
                  {kindById(record.machine.kind).label} · {record.site}
                  {record.meterHours === undefined ? "" : ` · ${record.meterHours} h`}
                </span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </main>
  );
}
