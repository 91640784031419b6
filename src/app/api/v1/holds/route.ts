import { reading } from "@/app/api/answer";
import { holdsOf } from "@/data/fleet/holds";

export function GET(request: Request) {
  return reading(request, (db) => holdsOf(db, new Date().toISOString()));
}
