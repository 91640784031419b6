import { idFrom, reading } from "@/app/api/answer";
import { getSet } from "@/data/service/parts";

export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return reading(request, (db) => getSet(db, idFrom(id, "set-not-found"), new Date().toISOString()));
}
