import type { Db } from "./db";

/** A clock that is off by less is nobody's trouble: order goes by the log. Estimate. */
const SLACK_MILLISECONDS = 10 * 60_000;

/** The day it is where the server stands, as `2026-05-04`: what is put off to a day is put off to one of the shop's, not of Greenwich. */
export function localDay(now: string): string {
  // A page asks for the same moment's day a thousand times.
  const asked = `${now} ${process.env.TZ ?? ""}`;
  if (last.asked === asked) return last.day;
  const date = new Date(now);
  const two = (value: number) => String(value).padStart(2, "0");
  last = { asked, day: `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}` };
  return last.day;
}
let last = { asked: "", day: "" };

/** When what was written last was written, where that lies ahead of now: the server's clock was set back, or was ahead before. */
export function writtenAhead(db: Db, now: string): string | undefined {
  const last = db.prepare("SELECT at FROM audit ORDER BY id DESC LIMIT 1").get() as { at: string } | undefined;
  return last && Date.parse(last.at) - Date.parse(now) > SLACK_MILLISECONDS ? last.at : undefined;
}
