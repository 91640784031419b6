import { changing, idFrom } from "@/app/api/answer";
import { logSet, setEntrySchema } from "@/data/service/parts";

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, setEntrySchema, (db, doing, entry) => logSet(db, doing, { setId: idFrom(id, "set-not-found"), entry }));
}
