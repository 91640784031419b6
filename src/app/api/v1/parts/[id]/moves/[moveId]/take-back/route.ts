import * as z from "zod";
import { changing, idFrom } from "@/app/api/answer";
import { takeBackMove } from "@/data/service/parts";

export async function POST(request: Request, { params }: { params: Promise<{ id: string; moveId: string }> }) {
  const { id, moveId } = await params;
  return changing(request, z.object({}), (db, doing) =>
    takeBackMove(db, doing, { partId: idFrom(id, "part-not-found"), moveId: idFrom(moveId, "part-not-found") }),
  );
}
