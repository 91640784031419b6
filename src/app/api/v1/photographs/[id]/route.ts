import { idFrom, picture } from "@/app/api/answer";
import { photographOf } from "@/data/job/deck";

export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return picture(request, (db) => photographOf(db, idFrom(id, "photograph-not-found")));
}
