import { answered, parse, readJson } from "@/app/api/answer";
import { answerDiagnose, diagnoseRequestSchema } from "@/core/diagnosis";
import { AppError } from "@/data/errors";

/** Holds no data and changes nothing: no account, no Origin. */
export function POST(request: Request) {
  return answered(async () => {
    const outcome = answerDiagnose(parse(diagnoseRequestSchema, await readJson(request)));
    if (outcome.kind === "invalid") throw new AppError("invalid", { issues: outcome.issues });
    return outcome.answer;
  });
}
