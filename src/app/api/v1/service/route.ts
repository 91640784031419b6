import { reading } from "@/app/api/answer";
import { dueNow } from "@/data/service/due";

/** What presses over the fleet, without what is owed. */
export function GET(request: Request) {
  return reading(request, (db) => ({ due: dueNow(db, new Date().toISOString()).filter(({ what }) => what !== "owed") }));
}
