import * as z from "zod";
import { changing } from "@/app/api/answer";
import { changeFeedKey } from "@/data/fleet/feed-key";

/** Gives the calendar's address another key; the old one opens nothing any more. */
export function POST(request: Request) {
  return changing(request, z.object({}), (db, doing) => changeFeedKey(db, doing));
}
