import { idFrom, reading } from "@/app/api/answer";
import { getRound } from "@/data/fleet/rounds";

export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return reading(request, (db) => getRound(db, idFrom(id, "round-not-found")));
}
