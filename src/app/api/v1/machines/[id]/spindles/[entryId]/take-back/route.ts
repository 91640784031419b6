import * as z from "zod";
import { changing } from "@/app/api/answer";
import { takeBackSpindleEntry } from "@/data/service/spindle-log";
import { AppError } from "@/data/store/errors";

export async function POST(request: Request, { params }: { params: Promise<{ id: string; entryId: string }> }) {
  const { id, entryId } = await params;
  return changing(request, z.object({ reason: z.string().trim().max(500).optional() }), (db, doing, { reason }) => {
    if (!/^\d{1,9}$/.test(entryId)) throw new AppError("nothing-to-undo");
    return takeBackSpindleEntry(db, doing, { machineId: id, entryId: Number(entryId), reason });
  });
}
