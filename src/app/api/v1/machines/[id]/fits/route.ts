import { reading } from "@/app/api/answer";
import { getMachine } from "@/data/machine/machines";
import { whatFits } from "@/data/service/parts";

export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return reading(request, (db) => ({ fits: whatFits(db, getMachine(db, id).machine) }));
}
