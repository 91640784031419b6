import * as z from "zod";
import { changing, idFrom } from "@/app/api/answer";
import { takeBackMachinePhotograph } from "@/data/machine/machine-photographs";

export async function POST(request: Request, { params }: { params: Promise<{ id: string; photographId: string }> }) {
  const { id, photographId } = await params;
  return changing(request, z.object({}), (db, doing) =>
    takeBackMachinePhotograph(db, doing, { machineId: id, photographId: idFrom(photographId, "photograph-not-found") }),
  );
}
