import { reading } from "@/app/api/answer";
import { sistersOf } from "@/data/fleet/sisters";

export function GET(request: Request) {
  const of = new URL(request.url).searchParams.get("of") ?? undefined;
  return reading(request, (db) => sistersOf(db, of));
}
