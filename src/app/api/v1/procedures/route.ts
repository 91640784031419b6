import { changing, reading } from "@/app/api/answer";
import { keepProcedure, listProcedures, newProcedureSchema } from "@/data/catalogue/procedures";

export function GET(request: Request) {
  return reading(request, (db) => ({ procedures: listProcedures(db) }));
}

export function POST(request: Request) {
  return changing(request, newProcedureSchema, keepProcedure);
}
