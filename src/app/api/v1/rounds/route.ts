import { changing, reading } from "@/app/api/answer";
import { addRound, listRounds, newRoundSchema } from "@/data/fleet/rounds";

export function GET(request: Request) {
  return reading(request, (db) => ({ rounds: listRounds(db) }));
}

export function POST(request: Request) {
  return changing(request, newRoundSchema, addRound);
}
