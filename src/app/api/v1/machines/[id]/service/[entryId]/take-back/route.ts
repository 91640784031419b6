import * as z from "zod";
import { changing } from "@/app/api/answer";
import { takeBackService } from "@/data/service/service";

export async function POST(request: Request, { params }: { params: Promise<{ id: string; entryId: string }> }) {
  const { id, entryId } = await params;
  return changing(request, z.object({}), (db, doing) => takeBackService(db, doing, { machineId: id, entryId: Number(entryId) }));
}
