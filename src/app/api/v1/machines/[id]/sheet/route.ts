import * as z from "zod";
import { changing } from "@/app/api/answer";
import { triedOut } from "@/app/api/tried-out";
import { machineSchema } from "@/core/machine";
import { replaceSheet } from "@/data/machine/machines";

const bodySchema = z.object({
  basedOnVersion: z.number().int(),
  machine: machineSchema,
  reason: z.string().trim().min(1, "say-why").max(300),
});

export async function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, bodySchema, (db, doing, input) => replaceSheet(db, doing, { machineId: id, ...input }), triedOut);
}
