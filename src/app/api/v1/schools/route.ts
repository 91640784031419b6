import { changing, reading } from "@/app/api/answer";
import { schoolSchema, schoolStandings, setSchool } from "@/data/machine/schools";

export function GET(request: Request) {
  return reading(request, (db) => ({ schools: schoolStandings(db) }));
}

export function POST(request: Request) {
  return changing(request, schoolSchema, setSchool);
}
