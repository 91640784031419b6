import { changing } from "@/app/api/answer";
import { meterSwapSchema, swapMeter } from "@/data/machine/hours";

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, meterSwapSchema, (db, doing, input) => swapMeter(db, doing, { machineId: id, ...input }));
}
