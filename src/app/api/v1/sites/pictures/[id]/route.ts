import { idFrom, picture } from "@/app/api/answer";
import { sitePicture } from "@/data/machine/site-places";

export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return picture(request, (db) => sitePicture(db, idFrom(id, "photograph-not-found")));
}
