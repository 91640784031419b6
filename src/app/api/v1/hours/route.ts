import { changing } from "@/app/api/answer";
import { hoursImportSchema, importHours } from "@/data/machine/hours";

export function POST(request: Request) {
  return changing(request, hoursImportSchema, importHours);
}
