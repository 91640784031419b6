import { changing, reading } from "@/app/api/answer";
import { getMachine } from "@/data/machines";
import { logService, serviceDoneSchema, serviceEntries, serviceOf } from "@/data/service";

export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return reading(request, (db) => ({
    standings: serviceOf(db, getMachine(db, id), new Date().toISOString()),
    entries: serviceEntries(db, id),
  }));
}

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, serviceDoneSchema, (db, doing, input) => logService(db, doing, { machineId: id, ...input }));
}
