import * as z from "zod";
import { answered, parse, reading, readJson, requireOwnOrigin } from "@/app/api/answer";
import { addPerson, initialsSchema, listPeople } from "@/data/catalogue/people";
import { database } from "@/data/open";

export function GET(request: Request) {
  return reading(request, (db) => ({ people: listPeople(db) }));
}

/** Adds initials to the list: the one change nobody on the list need make. */
export function POST(request: Request) {
  return answered(async () => {
    requireOwnOrigin(request);
    const { initials } = parse(z.object({ initials: initialsSchema }), await readJson(request));
    return addPerson(database(), { initials, now: new Date().toISOString() });
  }, 201);
}
