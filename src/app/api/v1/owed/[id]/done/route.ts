import * as z from "zod";
import { changing, idFrom } from "@/app/api/answer";
import { settleOwed } from "@/data/service/owed";

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, z.object({}), (db, doing) => settleOwed(db, doing, { owedId: idFrom(id, "owed-not-found") }));
}
