import type { Metadata } from "next";
import Link from "next/link";
import { fleetRows } from "@/data/fleet/fleet";
import { database } from "@/data/open";
import { SpoiltNote } from "../spoilt-note";
import { viewFrom } from "./fleet-columns";
import { FleetTable } from "./fleet-table";

export const metadata: Metadata = { title: "Machines" };

type Props = { searchParams: Promise<Record<string, string | string[] | undefined>> };

export default async function Machines({ searchParams }: Props) {
  const db = database();
  const rows = fleetRows(db, new Date().toISOString());
  const asked = Object.entries(await searchParams).flatMap(([key, value]) =>
    typeof value === "string" ? [[key, value] as [string, string]] : [],
  );
  return (
    <main className="mx-auto max-w-[80rem] p-4">
      <div className="flex flex-wrap items-center gap-2">
        <h1 className="grow text-2xl">Machines</h1>
        <Link href="/machines/new" className="btn btn-go" prefetch={false}>
          A new machine
        </Link>
        <Link href="/machines/sisters" className="btn" prefetch={false}>
          Sisters side by side
        </Link>
        <Link href="/labels" className="btn" prefetch={false}>
          Labels to print
        </Link>
      </div>
      <SpoiltNote db={db} />
      <FleetTable rows={rows} start={viewFrom(new URLSearchParams(asked))} />
    </main>
  );
}
