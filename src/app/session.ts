import { cookies } from "next/headers";
import { database } from "@/data/connection";
import { findPerson, type Person } from "@/data/people";

export const WHO_COOKIE = "zygometer-who";

/** Whoever's initials this browser last picked. */
export async function currentPerson(): Promise<Person | undefined> {
  const initials = (await cookies()).get(WHO_COOKIE)?.value;
  return initials ? findPerson(database(), decodeURIComponent(initials)) : undefined;
}
