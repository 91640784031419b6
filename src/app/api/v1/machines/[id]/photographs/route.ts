import { changing, reading } from "@/app/api/answer";
import { addMachinePhotograph, machinePhotographs, newMachinePhotographSchema } from "@/data/machine-photographs";

type Params = { params: Promise<{ id: string }> };

export async function GET(request: Request, { params }: Params) {
  const { id } = await params;
  return reading(request, (db) => ({ photographs: machinePhotographs(db, id) }));
}

export async function POST(request: Request, { params }: Params) {
  const { id } = await params;
  return changing(request, newMachinePhotographSchema, (db, doing, input) => addMachinePhotograph(db, doing, { machineId: id, ...input }));
}
