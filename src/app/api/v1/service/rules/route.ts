import { changing, reading } from "@/app/api/answer";
import { addRule, listRules, newRuleSchema } from "@/data/service/service-rules";

export function GET(request: Request) {
  return reading(request, (db) => ({ rules: listRules(db) }));
}

export function POST(request: Request) {
  return changing(request, newRuleSchema, addRule);
}
