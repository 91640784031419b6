import { changing, reading } from "@/app/api/answer";
import { getMachine } from "@/data/machine/machines";
import { dueOfMachine } from "@/data/service/due";
import { logService, serviceDoneSchema } from "@/data/service/service";
import { serviceEntries } from "@/data/service/service-log";

/** `lines`: everything that is to be done to it; `standings`: its tasks as they were answered before, one line a task, kept for one version. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return reading(request, (db) => {
    const lines = dueOfMachine(db, getMachine(db, id), new Date().toISOString());
    const first = lines.filter(({ what }, index) => what !== "owed" && lines.findIndex((one) => one.what === what) === index);
    const standings = first.map(({ machineId: _, fleetNumber: __, name: ___, site: ____, ...standing }) => ({
      ...standing,
      state: standing.state === "unknown" ? "never" : standing.state,
    }));
    return { lines, standings, entries: serviceEntries(db, id) };
  });
}

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, serviceDoneSchema, (db, doing, input) => logService(db, doing, { machineId: id, ...input }));
}
