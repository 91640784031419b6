import { createHash, timingSafeEqual } from "node:crypto";
import type { Db } from "./connection";
import { recordId } from "./connection";

const LETTERS = 24;

/** What a calendar programme shows to fetch what is due: it opens nothing else, and another record has another. */
export const feedKey = (db: Db): string =>
  createHash("sha256")
    .update(`calendar ${recordId(db)}`)
    .digest("hex")
    .slice(0, LETTERS);

export function isFeedKey(db: Db, given: string): boolean {
  const [own, other] = [Buffer.from(feedKey(db)), Buffer.from(given)];
  return own.length === other.length && timingSafeEqual(own, other);
}
