import { changing, reading } from "@/app/api/answer";
import { spindlesOf } from "@/data/service/due";
import { listSpindleLog, logSpindles, newSpindleEntrySchema } from "@/data/service/spindle-log";

type Params = { params: Promise<{ id: string }> };

export async function GET(request: Request, { params }: Params) {
  const { id } = await params;
  return reading(request, (db) => ({ standings: spindlesOf(db, id, new Date().toISOString()), log: listSpindleLog(db, id) }));
}

export async function POST(request: Request, { params }: Params) {
  const { id } = await params;
  return changing(request, newSpindleEntrySchema, (db, doing, input) => logSpindles(db, doing, { machineId: id, ...input }));
}
