import { changing, idFrom } from "@/app/api/answer";
import { movePart, partMoveSchema } from "@/data/service/parts";

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, partMoveSchema, (db, doing, move) => movePart(db, doing, { partId: idFrom(id, "part-not-found"), move }));
}
