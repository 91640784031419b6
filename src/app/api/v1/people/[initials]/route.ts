import { changing, parse } from "@/app/api/answer";
import { initialsSchema, preferencesSchema, setPreferences } from "@/data/catalogue/people";

export async function PATCH(request: Request, { params }: { params: Promise<{ initials: string }> }) {
  const named = (await params).initials;
  return changing(request, preferencesSchema, (db, doing, preferences) =>
    setPreferences(db, doing, { initials: parse(initialsSchema, decoded(named)), preferences }),
  );
}

/** As it was written before it went into an address. What is no address as it stands is looked for as it stands. */
function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
