import { reading } from "@/app/api/answer";
import { awayNow, owedByMachine } from "@/data/job/handover";

export function GET(request: Request) {
  return reading(request, (db) => ({ away: awayNow(db), machines: owedByMachine(db) }));
}
