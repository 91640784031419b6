import { changing, reading } from "@/app/api/answer";
import { addSet, listSets, newSetSchema } from "@/data/parts";

export function GET(request: Request) {
  return reading(request, (db) => ({ sets: listSets(db, new Date().toISOString()) }));
}

export function POST(request: Request) {
  return changing(request, newSetSchema, addSet);
}
