import * as z from "zod";
import { once } from "@/data/projections/context";
import { audit, type Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { dataUrlSchema, type Picture, requireRoom } from "@/data/store/pictures";
import { atOnce, ofMachine, whileUnchanged } from "@/data/store/reads";
import { machinesAt } from "./machines";

const share = z.number().min(0).max(1);
export const newPlaceSchema = z
  .object({
    site: z.string().trim().min(1).max(60),
    name: z.string().trim().min(1, "say-what").max(80),
    /** What lies in wait there, and what to do about it. */
    words: z.string().trim().max(300).default(""),
    xShare: share.optional(),
    yShare: share.optional(),
  })
  .refine(({ xShare, yShare }) => (xShare === undefined) === (yShare === undefined), { message: "invalid", path: ["xShare"] });
export const goneSchema = z.object({ reason: z.string().trim().min(1, "say-why").max(300) });
export const sitePictureSchema = z.object({ site: z.string().trim().min(1).max(60), dataUrl: dataUrlSchema });

export type SitePlace = {
  id: number;
  site: string;
  name: string;
  words: string;
  xShare?: number;
  yShare?: number;
  who: string;
  at: string;
};
export type GonePlace = { id: number; name: string; words: string; reason: string; who: string; at: string };
export type Strike = { machineId: string; fleetNumber: string; where: string; words: string; at: string; who: string };

/** A named place of a site where something lies in wait. */
export function addPlace(db: Db, doing: Doing, args: z.output<typeof newPlaceSchema>): { placeId: number } {
  return once(db, doing, "site-place-added", () => {
    if (!listSites(db).includes(args.site)) throw new AppError("place-not-found");
    const { lastInsertRowid } = db
      .prepare("INSERT INTO site_places (site, name, words, x_share, y_share, who, at) VALUES (?, ?, ?, ?, ?, ?, ?)")
      .run(args.site, args.name, args.words, args.xShare ?? null, args.yShare ?? null, doing.who, doing.now);
    audit(db, doing, { action: "site-place-added", subject: `site:${args.site}`, detail: { name: args.name } });
    return { placeId: Number(lastInsertRowid) };
  });
}

/** Says with a reason that a place is no danger any more; it stays on the record. Throws `place-not-found`. */
export function placeGone(db: Db, doing: Doing, args: { placeId: number; reason: string }): { placeId: number } {
  return once(db, doing, "site-place-gone", () => {
    const place = db
      .prepare("SELECT site FROM site_places p WHERE id = ? AND NOT EXISTS (SELECT 1 FROM site_places_gone g WHERE g.place_id = p.id)")
      .get(args.placeId) as { site: string } | undefined;
    if (!place) throw new AppError("place-not-found");
    db.prepare("INSERT INTO site_places_gone (place_id, reason, who, at) VALUES (?, ?, ?, ?)").run(
      args.placeId,
      args.reason,
      doing.who,
      doing.now,
    );
    audit(db, doing, { action: "site-place-gone", subject: `site:${place.site}`, detail: args });
    return { placeId: args.placeId };
  });
}

/** What was said to be gone by a slip, or has come back, stands among the dangers anew; what was said of it stays. Throws `place-not-found`, `place-stands`. */
export function placeBack(db: Db, doing: Doing, placeId: number): { placeId: number } {
  return once(db, doing, "site-place-back", () => {
    const place = db
      .prepare("SELECT p.site, p.name, p.words FROM site_places p JOIN site_places_gone g ON g.place_id = p.id WHERE p.id = ?")
      .get(placeId) as ({ site: string } & Told) | undefined;
    if (!place) throw new AppError("place-not-found");
    if (placesOfSite(db, place.site).some(isSame(place))) throw new AppError("place-stands");
    const { lastInsertRowid } = db
      .prepare(
        `INSERT INTO site_places (site, name, words, x_share, y_share, who, at)
         SELECT site, name, words, x_share, y_share, ?, ? FROM site_places WHERE id = ?`,
      )
      .run(doing.who, doing.now, placeId);
    audit(db, doing, { action: "site-place-back", subject: `site:${place.site}`, detail: { placeId } });
    return { placeId: Number(lastInsertRowid) };
  });
}

type Told = { name: string; words: string };
/** At one spot two things may lie in wait: the same only where it is said in the same words. */
const isSame = (a: Told) => (b: Told) => [a.name, a.words].join("\n").toLowerCase() === [b.name, b.words].join("\n").toLowerCase();

/** So many of what is no danger any more are shown. */
const GONE_SHOWN = 20;

/** Places of a site that are no danger any more, with why, the last first; what is a danger again is not among them. */
export function gonePlaces(db: Db, site: string): GonePlace[] {
  const rows = db
    .prepare(
      `SELECT p.id, p.name, p.words, g.reason, g.who, g.at FROM site_places p JOIN site_places_gone g ON g.place_id = p.id
       WHERE p.site = ? ORDER BY g.rowid DESC`,
    )
    .all(site) as GonePlace[];
  // One that went twice is shown as it went last.
  const last = rows.filter((row, k) => rows.findIndex(isSame(row)) === k);
  const standing = placesOfSite(db, site);
  return last.filter((row) => !standing.some(isSame(row))).slice(0, GONE_SHOWN);
}

/** Another picture of a site takes the place of the last; that one stays. */
export function addSitePicture(db: Db, doing: Doing, { site, picture }: { site: string; picture: Picture }): { pictureId: number } {
  return once(db, doing, "site-picture", () => {
    if (!listSites(db).includes(site)) throw new AppError("place-not-found");
    requireRoom(db, { of: "site", id: site, bytes: picture.bytes.length });
    const { lastInsertRowid } = db
      .prepare("INSERT INTO site_pictures (site, mime, bytes, who, at) VALUES (?, ?, ?, ?, ?)")
      .run(site, picture.mime, picture.bytes, doing.who, doing.now);
    audit(db, doing, { action: "site-picture", subject: `site:${site}` });
    return { pictureId: Number(lastInsertRowid) };
  });
}

/** Throws `photograph-not-found`. */
export function sitePicture(db: Db, id: number): { mime: string; bytes: Buffer } {
  const row = db.prepare("SELECT mime, bytes FROM site_pictures WHERE id = ?").get(id) as { mime: string; bytes: Buffer } | undefined;
  if (!row) throw new AppError("photograph-not-found");
  return row;
}

export function sitePictureId(db: Db, site: string): number | undefined {
  return (db.prepare("SELECT max(id) AS id FROM site_pictures WHERE site = ?").get(site) as { id: number | null }).id ?? undefined;
}

/** Places of a site that are still a danger, the newest first. */
export function placesOfSite(db: Db, site: string): SitePlace[] {
  const rows = db
    .prepare(
      `SELECT id, site, name, words, x_share, y_share, who, at FROM site_places p WHERE site = ?
       AND NOT EXISTS (SELECT 1 FROM site_places_gone g WHERE g.place_id = p.id) ORDER BY id DESC`,
    )
    .all(site) as {
    id: number;
    site: string;
    name: string;
    words: string;
    x_share: number | null;
    y_share: number | null;
    who: string;
    at: string;
  }[];
  return rows.map(({ x_share, y_share, ...row }) => ({
    ...row,
    ...(x_share === null || y_share === null ? {} : { xShare: x_share, yShare: y_share }),
  }));
}

/** Strikes older than these say little of where to look out today. Estimate. */
const RECENT_DAYS = 550;
const DAY = 86_400_000;

/** What was struck on a site by the machines that mow there, the newest first; what was taken back was not struck. */
export function strikesOnSite(db: Db, site: string, now: string): Strike[] {
  const since = new Date(Date.parse(now) - RECENT_DAYS * DAY).toISOString();
  return atOnce(db, () =>
    machinesAt(db, site)
      .flatMap((id) => strikesOf(db, id))
      .filter(({ at }) => at >= since)
      .sort((a, b) => b.seq - a.seq)
      .slice(0, STRIKES_SHOWN)
      .map(({ seq: _, ...strike }) => strike),
  );
}

const STRIKES_SHOWN = 40;

/** What one machine struck, the last first. */
function strikesOf(db: Db, machineId: string): (Strike & { seq: number })[] {
  const read = () => {
    const rows = db
      .prepare(
        `SELECT m.fleet_number, e.data_json, e.at, e.who, e.seq FROM events e JOIN machines m ON m.id = e.machine_id
         WHERE e.machine_id = ? AND e.event = 'struck' AND e.voids_id IS NULL
           AND NOT EXISTS (SELECT 1 FROM events v WHERE v.voids_id = e.id) AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = e.step_id)
         ORDER BY e.seq DESC LIMIT ${STRIKES_SHOWN}`,
      )
      .all(machineId) as { fleet_number: string; data_json: string; at: string; who: string; seq: number }[];
    return rows.map(({ fleet_number, data_json, at, who, seq }) => {
      const { words = "", where = "" } = JSON.parse(data_json) as { words?: string; where?: string };
      return { machineId, fleetNumber: fleet_number, where, words, at, who, seq };
    });
  };
  return whileUnchanged(db, `strikes of ${machineId}`, read, { on: [...ofMachine(machineId, "log"), "fleet"] });
}

/** What whoever goes to a site next is told: its places, and what was struck where. */
export type Hazards = { places: SitePlace[]; strikes: Strike[] };
export const hazardsOf = (db: Db, site: string, now: string): Hazards => ({
  places: placesOfSite(db, site),
  strikes: strikesOnSite(db, site, now).filter(({ where, words }) => where !== "" || words !== ""),
});

export function hazardCount(db: Db): number {
  return [...dangersBySite(db).values()].reduce((sum, n) => sum + n, 0);
}

/** How many places lie in wait on each site that has any. */
export function dangersBySite(db: Db): ReadonlyMap<string, number> {
  const rows = db
    .prepare(
      "SELECT site, count(*) AS n FROM site_places p WHERE NOT EXISTS (SELECT 1 FROM site_places_gone g WHERE g.place_id = p.id) GROUP BY site",
    )
    .all() as { site: string; n: number }[];
  return new Map(rows.map(({ site, n }) => [site, n]));
}

/** Every site a machine mows, or where something lies or lay in wait though none does now, by name. */
export function listSites(db: Db): string[] {
  const rows = db.prepare("SELECT site FROM machines UNION SELECT site FROM site_places ORDER BY site").all() as { site: string }[];
  return rows.map(({ site }) => site);
}
