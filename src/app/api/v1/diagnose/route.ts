import { answered, parse, readJson } from "@/app/api/answer";
import { diagnoseRequestSchema } from "@/core/diagnosis";
import { AppError } from "@/data/store/errors";
import { reckonOffThread } from "@/server/reckoning/pool";

/** Holds no data and changes nothing: no account, no Origin. */
export function POST(request: Request) {
  return answered(async () => {
    const asked = parse(diagnoseRequestSchema, await readJson(request));
    const outcome = await reckonOffThread({ kind: "diagnose", request: asked });
    if (outcome.kind === "invalid") throw new AppError("invalid", { issues: outcome.issues });
    return outcome.answer;
  });
}
