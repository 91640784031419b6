import * as z from "zod";
import { changing, idFrom } from "@/app/api/answer";
import { placeBack } from "@/data/machine/site-places";

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, z.object({}), (db, doing) => placeBack(db, doing, idFrom(id, "place-not-found")));
}
