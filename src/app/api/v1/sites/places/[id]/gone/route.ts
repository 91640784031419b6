import { changing, idFrom } from "@/app/api/answer";
import { goneSchema, placeGone } from "@/data/machine/site-places";

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, goneSchema, (db, doing, input) => placeGone(db, doing, { placeId: idFrom(id, "place-not-found"), ...input }));
}
