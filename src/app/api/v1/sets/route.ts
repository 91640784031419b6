import { changing } from "@/app/api/answer";
import { addSet, newSetSchema } from "@/data/service/parts";

export function POST(request: Request) {
  return changing(request, newSetSchema, addSet);
}
