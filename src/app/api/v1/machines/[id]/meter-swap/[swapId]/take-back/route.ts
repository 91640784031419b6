import * as z from "zod";
import { changing } from "@/app/api/answer";
import { takeBackMeterSwap } from "@/data/machine/hours";

export async function POST(request: Request, { params }: { params: Promise<{ id: string; swapId: string }> }) {
  const { id, swapId } = await params;
  return changing(request, z.object({}), (db, doing) => takeBackMeterSwap(db, doing, { machineId: id, swapId: Number(swapId) }));
}
