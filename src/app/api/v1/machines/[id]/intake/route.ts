import { reading } from "@/app/api/answer";
import { getIntake } from "@/data/fleet/intake";

/** What a complaint about this machine is taken with. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return reading(request, (db) => getIntake(db, id, new Date().toISOString()));
}
