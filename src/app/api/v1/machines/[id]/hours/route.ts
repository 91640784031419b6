import * as z from "zod";
import { changing } from "@/app/api/answer";
import { physicalOrNought } from "@/core/basics/units/physical";
import { logHours } from "@/data/machine/hours";

const bodySchema = z.object({
  meterHours: physicalOrNought("hours", 100_000),
  isCorrection: z.boolean().default(false),
  isSure: z.boolean().optional(),
});

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, bodySchema, (db, doing, input) => logHours(db, doing, { machineId: id, ...input }));
}
