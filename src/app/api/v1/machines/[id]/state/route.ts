import { reading } from "@/app/api/answer";
import { mayRun } from "@/core/job/status";
import { getMachine } from "@/data/machine/machines";
import { stateOfMachine } from "@/data/projections/machine-state";

/** How a machine stands, and every reason why it may not be cut with now. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return reading(request, (db) => {
    getMachine(db, id);
    const state = stateOfMachine(db, id);
    return { state, mayCut: mayRun(state, { to: "cut" }).reasons };
  });
}
