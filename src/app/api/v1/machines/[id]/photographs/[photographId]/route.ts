import { idFrom, picture } from "@/app/api/answer";
import { machinePhotographOf } from "@/data/machine/machine-photographs";

export async function GET(request: Request, { params }: { params: Promise<{ id: string; photographId: string }> }) {
  const { id, photographId } = await params;
  return picture(request, (db) => machinePhotographOf(db, id, idFrom(photographId, "photograph-not-found")));
}
