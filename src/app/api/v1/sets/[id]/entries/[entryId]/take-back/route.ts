import * as z from "zod";
import { changing, idFrom } from "@/app/api/answer";
import { takeBackSetEntry } from "@/data/service/parts";

export async function POST(request: Request, { params }: { params: Promise<{ id: string; entryId: string }> }) {
  const { id, entryId } = await params;
  return changing(request, z.object({}), (db, doing) =>
    takeBackSetEntry(db, doing, { setId: idFrom(id, "set-not-found"), entryId: idFrom(entryId, "set-not-found") }),
  );
}
