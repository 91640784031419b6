import { changing, reading } from "@/app/api/answer";
import {
  addMachinePhotograph,
  type MachinePhotograph,
  machinePhotographs,
  newMachinePhotographSchema,
} from "@/data/machine/machine-photographs";
import { getMachine } from "@/data/machine/machines";
import { madeAnew, type Picture } from "@/data/store/pictures";

type Params = { params: Promise<{ id: string }> };

export async function GET(request: Request, { params }: Params) {
  const { id } = await params;
  return reading(request, (db) => ({ photographs: machinePhotographs(db, getMachine(db, id).id) }));
}

export async function POST(request: Request, { params }: Params) {
  const { id } = await params;
  return changing(
    request,
    newMachinePhotographSchema,
    (db, doing, input: { about: MachinePhotograph["about"]; picture: Picture }) =>
      addMachinePhotograph(db, doing, { machineId: id, ...input }),
    async ({ about, dataUrl }) => ({ about, picture: await madeAnew(dataUrl) }),
  );
}
