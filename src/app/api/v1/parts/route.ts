import { changing, reading } from "@/app/api/answer";
import { addPart, listParts, newPartSchema } from "@/data/service/parts";

export function GET(request: Request) {
  return reading(request, (db) => ({ parts: listParts(db) }));
}

export function POST(request: Request) {
  return changing(request, newPartSchema, addPart);
}
