import { changing } from "@/app/api/answer";
import { logEvent, newEventSchema } from "@/data/service/events";

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, newEventSchema, (db, doing, input) => logEvent(db, doing, { machineId: id, ...input }));
}
