import { changing, idFrom } from "@/app/api/answer";
import { postponeOwed, postponeOwedSchema } from "@/data/service/owed";

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, postponeOwedSchema, (db, doing, input) =>
    postponeOwed(db, doing, { owedId: idFrom(id, "owed-not-found"), ...input }),
  );
}
