import { changing } from "@/app/api/answer";
import { preferencesSchema, setPreferences } from "@/data/people";

export async function PATCH(request: Request, { params }: { params: Promise<{ initials: string }> }) {
  const { initials } = await params;
  return changing(request, preferencesSchema, (db, { now }, preferences) =>
    setPreferences(db, { initials: decodeURIComponent(initials).toUpperCase(), preferences, now }),
  );
}
