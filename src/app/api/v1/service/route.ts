import { reading } from "@/app/api/answer";
import { serviceDue } from "@/data/service";

export function GET(request: Request) {
  return reading(request, (db) => ({ due: serviceDue(db, new Date().toISOString()) }));
}
