import { changing } from "@/app/api/answer";
import { postponeSchema, postponeService } from "@/data/service";

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, postponeSchema, (db, doing, input) => postponeService(db, doing, { machineId: id, ...input }));
}
