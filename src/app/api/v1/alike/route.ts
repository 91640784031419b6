import { reading } from "@/app/api/answer";
import { unitsAlike } from "@/data/checks/units-alike";

export function GET(request: Request) {
  const machines = (new URL(request.url).searchParams.get("machines") ?? "").split(",").filter((id) => id !== "");
  return reading(request, (db) => unitsAlike(db, { machines, now: new Date().toISOString() }));
}
