import { reading } from "@/app/api/answer";
import { fleetRows } from "@/data/fleet/fleet";

export function GET(request: Request) {
  return reading(request, (db) => ({ machines: fleetRows(db, new Date().toISOString()) }));
}
