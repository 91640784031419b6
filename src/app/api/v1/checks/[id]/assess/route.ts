import * as z from "zod";
import { answered, parse, readJson } from "@/app/api/answer";
import { worksheetById } from "@/core/checks";
import { refuseProblems } from "@/data/catalogue/known";
import { AppError } from "@/data/store/errors";
import { reckonOffThread } from "@/server/reckoning/pool";

const bodySchema = z.object({ machine: z.unknown(), readings: z.unknown() });

/** Assesses readings of a machine. Pure: stores nothing, needs no Origin. */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answered(async () => {
    const { id } = await params;
    if (!worksheetById(id)) throw new AppError("check-not-found");
    const { machine, readings } = parse(bodySchema, await readJson(request)) as { machine: unknown; readings: unknown };
    const { outcome, problems } = await reckonOffThread({ kind: "assess", check: id, machine, readings });
    if (outcome.kind === "unknown-check") throw new AppError("check-not-found");
    if (outcome.kind === "invalid") throw new AppError("invalid", { issues: outcome.issues });
    // Of the record's own machines a sheet that contradicts itself is measured on all the same; one that comes from outside is refused.
    refuseProblems(problems);
    return outcome.assessment;
  });
}
