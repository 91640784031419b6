import { randomBytes, timingSafeEqual } from "node:crypto";
import { once } from "@/data/projections/context";
import { audit, type Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";

const BYTES = 24;
const newKey = (): string => randomBytes(BYTES).toString("base64url");

/** What a calendar programme shows to fetch what is due: it opens nothing else, is told by nothing else of the record, and the last one given is the only good one. */
export function feedKey(db: Db): string {
  const row = db.prepare("SELECT key FROM feed_keys ORDER BY id DESC LIMIT 1").get() as { key: string } | undefined;
  return row?.key ?? "";
}

/** A record that never had a key gets one when it is opened. */
export function ensureFeedKey(db: Db, now: string): void {
  if (feedKey(db) === "") db.prepare("INSERT INTO feed_keys (key, who, at) VALUES (?, NULL, ?)").run(newKey(), now);
}

/** Another key: whoever has the old one fetches nothing any more. */
export function changeFeedKey(db: Db, doing: Doing): { key: string } {
  return once(db, doing, "feed-key-changed", () => {
    const key = newKey();
    db.prepare("INSERT INTO feed_keys (key, who, at) VALUES (?, ?, ?)").run(key, doing.who, doing.now);
    audit(db, doing, { action: "feed-key-changed", subject: "calendar" });
    return { key };
  });
}

export function isFeedKey(db: Db, given: string): boolean {
  const [own, other] = [Buffer.from(feedKey(db)), Buffer.from(given)];
  return own.length > 0 && own.length === other.length && timingSafeEqual(own, other);
}
