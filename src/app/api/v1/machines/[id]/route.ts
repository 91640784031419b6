import { reading } from "@/app/api/answer";
import { jobsOfMachine } from "@/data/bay";
import { listEvents } from "@/data/events";
import { getMachine } from "@/data/machines";
import { takesOfMachine } from "@/data/takes";

export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return reading(request, (db) => ({
    ...getMachine(db, id),
    jobs: jobsOfMachine(db, id),
    takes: takesOfMachine(db, id),
    events: listEvents(db, id),
  }));
}
