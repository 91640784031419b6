import { changing, idFrom } from "@/app/api/answer";
import { voidEvent, voidEventSchema } from "@/data/service/events";

export async function POST(request: Request, { params }: { params: Promise<{ id: string; eventId: string }> }) {
  const { id, eventId } = await params;
  return changing(request, voidEventSchema, (db, doing, { reason }) =>
    voidEvent(db, doing, { machineId: id, eventId: idFrom(eventId, "machine-not-found"), reason }),
  );
}
