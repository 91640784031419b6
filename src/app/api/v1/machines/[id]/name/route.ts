import { changing } from "@/app/api/answer";
import { machineNameSchema, renameMachine } from "@/data/machine/machines";

export async function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, machineNameSchema, (db, doing, input) => renameMachine(db, doing, { machineId: id, ...input }));
}
