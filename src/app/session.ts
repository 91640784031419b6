import { cookies } from "next/headers";
import { findPerson, initialsSchema, type Person } from "@/data/catalogue/people";
import { database } from "@/data/open";

export const WHO_COOKIE = "zygometer-who";

/** Whoever's initials this browser last picked. */
export async function currentPerson(): Promise<Person | undefined> {
  // A cookie can hold anything: what is no initials is nobody.
  const initials = written((await cookies()).get(WHO_COOKIE)?.value ?? "");
  const read = initialsSchema.safeParse(initials);
  return read.success ? findPerson(database(), read.data) : undefined;
}

function written(cookie: string): string {
  try {
    return decodeURIComponent(cookie);
  } catch {
    return "";
  }
}
