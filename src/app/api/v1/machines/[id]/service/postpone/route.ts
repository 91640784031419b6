import { changing } from "@/app/api/answer";
import { postponeService } from "@/data/service/service";
import { postponeSchema } from "@/data/service/service-log";

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, postponeSchema, (db, doing, input) => postponeService(db, doing, { machineId: id, ...input }));
}
