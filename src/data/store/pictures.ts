import sharp from "sharp";
import * as z from "zod";
import type { Db } from "./db";
import { AppError } from "./errors";

/** What a photograph may weigh as it comes: a telephone's picture made smaller by the page that sends it. */
const MOST_BASE64 = 220_000;
const HEAD = /^data:image\/(?:jpeg|png|webp);base64,/;
const BODY = /^[A-Za-z0-9+/]+={0,2}$/;

const isBase64 = (body: string): boolean => body.length % 4 === 0 && BODY.test(body);

/** As the browser gives it. What lies in it is looked at when it is made anew. */
export const dataUrlSchema = z
  .string()
  .max(MOST_BASE64)
  .refine((url) => HEAD.test(url) && isBase64(url.replace(HEAD, "")), "not-a-picture");

export type Picture = { mime: string; bytes: Buffer };

const LONGEST_PIXELS = 1600;
/** A picture of few bytes can unfold to more than a server holds. */
const MOST_PIXELS = 40_000_000;
const KINDS: readonly (string | undefined)[] = ["jpeg", "png", "webp"];

/**
 * A picture made anew from what is seen in it: turned upright, no larger than needed, as a JPEG that carries neither place nor camera nor
 * anything hidden behind the picture. Throws `invalid` with `not-a-picture` for what only calls itself one.
 */
export async function madeAnew(dataUrl: string): Promise<Picture> {
  try {
    const given = sharp(Buffer.from(dataUrl.replace(HEAD, ""), "base64"), { limitInputPixels: MOST_PIXELS, failOn: "error" });
    if (!KINDS.includes((await given.metadata()).format)) throw new TypeError("another kind");
    const bytes = await given
      .rotate()
      .resize({ width: LONGEST_PIXELS, height: LONGEST_PIXELS, fit: "inside", withoutEnlargement: true })
      .flatten({ background: "white" })
      .jpeg({ quality: 80 })
      .toBuffer();
    return { mime: "image/jpeg", bytes };
  } catch (cause) {
    throw new AppError("invalid", { issues: [{ code: "not-a-picture", path: ["dataUrl"] }], cause });
  }
}

/** Of one job, or one machine. Estimate: a deck off and on takes a dozen. */
export const MOST_PHOTOGRAPHS = 80;
const MEGABYTE = 1_000_000;
/** Of the whole record: at 100 kB each, twenty thousand. ZYGOMETER_PHOTOGRAPHS_MB sets another. */
const MOST_MEGABYTES = 2000;

/** Every table that keeps a picture: one count over all of them, of what is really kept. */
const TABLES = ["photographs", "machine_photographs", "site_pictures"] as const;
type Pictured = "job" | "machine" | "site";
const COUNTED: Record<Pictured, string> = {
  job: "SELECT count(*) AS n FROM photographs p JOIN steps s ON s.id = p.step_id WHERE s.job_id = ?",
  machine: "SELECT count(*) AS n FROM machine_photographs WHERE machine_id = ?",
  site: "SELECT count(*) AS n FROM site_pictures WHERE site = ?",
};

/** Throws `photographs-full` where a job, a machine, a site or the record has as many as it may keep. Inside the transaction. */
export function requireRoom(db: Db, args: { of: Pictured; id: number | string; bytes: number }): void {
  const own = db.prepare(COUNTED[args.of]).get(args.id);
  if ((own as { n: number }).n >= MOST_PHOTOGRAPHS)
    throw new AppError("photographs-full", { issues: [{ code: "photographs-full", path: [], of: args.of, most: MOST_PHOTOGRAPHS }] });
  const { bytes } = db
    .prepare(`SELECT ${TABLES.map((name) => `(SELECT coalesce(sum(length(bytes)), 0) FROM ${name})`).join(" + ")} AS bytes`)
    .get() as {
    bytes: number;
  };
  const most = Number(process.env.ZYGOMETER_PHOTOGRAPHS_MB ?? MOST_MEGABYTES);
  if (bytes + args.bytes > most * MEGABYTE)
    throw new AppError("photographs-full", { issues: [{ code: "photographs-full", path: [], of: "record", most }] });
}
