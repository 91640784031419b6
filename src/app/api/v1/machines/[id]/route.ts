import { reading } from "@/app/api/answer";
import { takesOfMachine } from "@/data/checks/takes";
import { jobsOfMachine } from "@/data/fleet/bay";
import { getMachine } from "@/data/machine/machines";
import { listEvents } from "@/data/service/events";

export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return reading(request, (db) => ({
    ...getMachine(db, id),
    jobs: jobsOfMachine(db, id),
    takes: takesOfMachine(db, id),
    events: listEvents(db, id),
  }));
}
