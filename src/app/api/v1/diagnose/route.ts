import { answered, parse, readJson } from "@/app/api/answer";
import { answerDiagnose, type DiagnoseRequest, diagnoseRequestSchema } from "@/core/diagnosis";
import { AppError } from "@/data/errors";
import { diagnoseOffThread } from "@/workers/diagnosis/pool";

/** From so many looks on a diagnosis takes long enough to keep others waiting. */
const OFF_THREAD_FROM = 10;

function looksIn({ symptoms, evidence }: DiagnoseRequest): number {
  return Object.values(symptoms).filter((state) => state === "present").length + evidence.filter((one) => "causes" in one).length;
}

/** Holds no data and changes nothing: no account, no Origin. */
export function POST(request: Request) {
  return answered(async () => {
    const asked = parse(diagnoseRequestSchema, await readJson(request));
    const outcome = looksIn(asked) >= OFF_THREAD_FROM ? await diagnoseOffThread(asked) : answerDiagnose(asked);
    if (outcome.kind === "invalid") throw new AppError("invalid", { issues: outcome.issues });
    return outcome.answer;
  });
}
