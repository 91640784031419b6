import type { Metadata } from "next";
import Link from "next/link";
import { CHECKS, type CheckRow, WAYS } from "@/core/catalogue";
import { worksheetsFor } from "@/core/checks";
import { listMachines } from "@/data/machine/machines";
import { database } from "@/data/open";
import { MoreLink } from "@/ui/more-link";
import { PlanPicture } from "@/ui/plan-picture";
import { LINES_SHOWN, shortened } from "@/ui/shortened";
import { stateFrom } from "./state";

export const metadata: Metadata = { title: "Reckoner" };

const rows: readonly CheckRow[] = CHECKS;

/** Every worksheet for a quick sum, without a job: the machine first, then what to work out. */
export default async function ReckonerPage({ searchParams }: { searchParams: Promise<Record<string, string | string[] | undefined>> }) {
  const asked = await searchParams;
  const { machineId } = stateFrom(asked);
  const machines = listMachines(database());
  const chosen = machines.find(({ id }) => id === machineId) ?? machines[0];
  if (!chosen) {
    return (
      <main className="p-4">
        <h1 className="text-3xl">Reckoner</h1>
        <p className="mt-2">No machine yet. Add one through the API, or load the demo depot.</p>
      </main>
    );
  }
  const { shown, left } = shortened(
    machines.filter(({ id }) => id !== chosen.id || machines.length <= LINES_SHOWN),
    { isAll: asked.all === "yes" },
  );
  return (
    <main className="mx-auto max-w-6xl p-4">
      <h1 className="text-3xl">Reckoner</h1>
      <p className="text-soft">A quick sum with a machine’s own sheet. Nothing is written down until it is taken to a job.</p>
      <div className="mt-3 grid gap-6 lg:grid-cols-[21rem_1fr]">
        <nav aria-label="Machine">
          <ul className="ruled">
            {(shown.includes(chosen) ? shown : [chosen, ...shown]).map(({ id, fleetNumber, name, sheetVersion }) => (
              <li key={id}>
                <Link
                  href={`/reckoner?machine=${id}`}
                  scroll={false}
                  prefetch={false}
                  aria-current={id === chosen.id ? "true" : undefined}
                  className="flex min-h-11 items-center gap-3 px-1 py-0.5 aria-[current]:bg-ink aria-[current]:text-paper"
                >
                  <PlanPicture machineId={id} sheetVersion={sheetVersion} width={52} height={40} label="" />
                  <span className="num w-14 font-bold">{fleetNumber}</span>
                  <span className="leading-tight">{name}</span>
                </Link>
              </li>
            ))}
          </ul>
          <MoreLink left={left} href={`/reckoner?machine=${chosen.id}&all=yes`} />
        </nav>
        <section aria-label={`Worksheets for ${chosen.fleetNumber}`}>
          <h2 className="text-xl">
            What to work out for <span className="num">{chosen.fleetNumber}</span>
          </h2>
          <ul className="ruled mt-2">
            {worksheetsFor(chosen.machine).map(({ id }) => (
              <li key={id}>
                <Link href={`/reckoner/${id}?machine=${chosen.id}`} className="block min-h-11 py-2 hover:bg-sheet">
                  <span className="text-lg font-semibold underline decoration-1 underline-offset-4">
                    {rows.find((row) => row.id === id)?.label}
                  </span>
                  <span className="block text-sm leading-snug text-soft">{WAYS[id].how}</span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      </div>
    </main>
  );
}
