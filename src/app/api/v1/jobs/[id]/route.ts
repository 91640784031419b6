import { idFrom, reading } from "@/app/api/answer";
import { getJobView } from "@/data/job/job-view";

export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return reading(request, (db) => getJobView(db, idFrom(id, "job-not-found")));
}
