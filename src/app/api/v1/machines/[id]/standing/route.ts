import { changing } from "@/app/api/answer";
import { setStanding, standingSchema } from "@/data/machine/machines";

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, standingSchema, (db, doing, input) => setStanding(db, doing, { machineId: id, ...input }));
}
