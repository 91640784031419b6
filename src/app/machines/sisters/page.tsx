import type { Metadata } from "next";
import Link from "next/link";
import { kindById } from "@/core/catalogue/kinds";
import { checkRow } from "@/core/checks";
import { type Family, families, readingsDrift, sinceBaseline, sisterDifferences } from "@/data/fleet/sisters";
import { database } from "@/data/open";
import { figureName } from "@/ui/checks/words";
import { ReadingsTable, type ReadRow } from "./readings-table";
import { SisterTable } from "./sister-table";

/** So many columns a reader holds against each other. Estimate. */
const SIDE_BY_SIDE = 8;
const NAMED = 4;
const sayFamily = (members: Family["members"]): string => {
  const named = members.slice(0, NAMED).map(({ fleetNumber }) => fleetNumber);
  return members.length > NAMED ? `${named.join(", ")} and ${members.length - NAMED} more` : named.join(", ");
};

export const metadata: Metadata = { title: "Sisters side by side" };

/** Machines that ought to be alike: where their sheets differ from each other, and what has drifted on each since its first. */
export default async function Sisters({ searchParams }: { searchParams: Promise<{ of?: string; from?: string }> }) {
  const db = database();
  const all = families(db);
  const { of, from = "" } = await searchParams;
  const family = all.find(({ key }) => key === of) ?? all.find(({ members }) => members.some(({ id }) => id === of)) ?? all[0];
  const start = family && /^\d{1,4}$/.test(from) && Number(from) < family.members.length ? Number(from) : 0;
  const chosen = family && { ...family, members: family.members.slice(start, start + SIDE_BY_SIDE) };
  return (
    <main className="mx-auto max-w-[80rem] p-4">
      <p>
        <Link href="/machines" className="underline" prefetch={false}>
          Machines
        </Link>
      </p>
      <h1 className="text-2xl">Sisters side by side</h1>
      {all.length === 0 && <p className="py-2 text-lg">No two machines here are of one kind with as many blades or units.</p>}
      <nav aria-label="Which sisters" className="flex flex-wrap gap-1 py-1">
        {all.map(({ key, members }) => (
          <Link
            key={key}
            href={`/machines/sisters?of=${key}`}
            className={`btn ${key === chosen?.key ? "btn-on" : ""}`}
            aria-current={key === chosen?.key ? "page" : undefined}
          >
            {sayFamily(members)}
          </Link>
        ))}
      </nav>
      {family && family.members.length > SIDE_BY_SIDE && (
        <nav aria-label="Which of them" className="flex flex-wrap gap-1 py-1">
          {Array.from({ length: Math.ceil(family.members.length / SIDE_BY_SIDE) }, (_, k) => k * SIDE_BY_SIDE).map((at) => (
            <Link
              key={at}
              href={`/machines/sisters?of=${family.key}&from=${at}`}
              prefetch={false}
              className={`btn ${at === start ? "btn-on" : ""}`}
              aria-current={at === start ? "page" : undefined}
            >
              {family.members[at]?.fleetNumber} to {family.members[Math.min(at + SIDE_BY_SIDE, family.members.length) - 1]?.fleetNumber}
            </Link>
          ))}
        </nav>
      )}
      {chosen && (
        <>
          <SisterTable
            title={kindById(chosen.members[0]?.machine.kind ?? "zero-turn").label}
            members={chosen.members.map(({ id, fleetNumber, name, site, machine }) => ({
              id,
              fleetNumber,
              name,
              site,
              labels: Object.fromEntries(
                [...machine.spindles, ...machine.units, ...machine.wheels, ...(machine.deck?.hangers ?? [])].map((place) => [
                  place.id,
                  place.label,
                ]),
              ),
            }))}
            differences={sisterDifferences(chosen.members)}
            drifted={chosen.members.map(({ id }) => ({ id, differences: sinceBaseline(db, id) }))}
          />
          <ReadingsTable members={chosen.members.map(({ id, fleetNumber }) => ({ id, fleetNumber }))} rows={readRows(chosen)} />
        </>
      )}
    </main>
  );
}

/** Figures of one name across the machines, in the order they were first met. */
function readRows({ members }: Family): ReadRow[] {
  const drifts = readingsDrift(
    database(),
    members.map(({ id }) => id),
  );
  const rows = new Map<string, { check: string; name: string; byMachine: Record<string, ReadRow["byMachine"][string]> }>();
  for (const { id, machine } of members)
    for (const { checkId, isStale, drifts: own } of drifts.get(id) ?? [])
      for (const drift of own) {
        const name = figureName(checkId, drift.figure, machine);
        const key = `${checkId} ${name}`;
        const row = rows.get(key) ?? { check: checkRow(checkId)?.label ?? checkId, name, byMachine: {} };
        row.byMachine[id] = { ...drift, isStale };
        rows.set(key, row);
      }
  return [...rows.values()].sort((a, b) => a.check.localeCompare(b.check));
}
