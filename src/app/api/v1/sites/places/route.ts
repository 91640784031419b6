import { changing } from "@/app/api/answer";
import { addPlace, newPlaceSchema } from "@/data/machine/site-places";

export function POST(request: Request) {
  return changing(request, newPlaceSchema, addPlace);
}
