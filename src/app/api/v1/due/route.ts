import { reading } from "@/app/api/answer";
import { dueNow } from "@/data/due";
import { listOwed } from "@/data/owed";

/** What falls due by the hour meter over the whole fleet, and what closed jobs still owe. */
export function GET(request: Request) {
  return reading(request, (db) => ({ due: dueNow(db, new Date().toISOString()), owed: listOwed(db) }));
}
