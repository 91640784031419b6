import { NextResponse } from "next/server";
import * as z from "zod";
import { type Db, database } from "@/data/connection";
import type { Doing } from "@/data/context";
import { AppError, type Issue } from "@/data/errors";

/** No honest body is larger: the fullest deck form is some 6 kB. */
export const MOST_BODY_BYTES = 256 * 1024;

export const envelopeSchema = z.object({ who: z.string().trim().toUpperCase().min(2).max(4), submissionId: z.uuid().optional() });

function isOwnOrigin(request: Request): boolean {
  const origin = request.headers.get("origin");
  if (!origin) return false;
  try {
    return new URL(origin).host === request.headers.get("host");
  } catch {
    return false;
  }
}

/** On plain http a browser says of a read neither its origin nor its site, only the page it comes from. */
function isOwnPage(request: Request): boolean {
  if (request.headers.get("sec-fetch-site") !== null || request.headers.get("origin") !== null) return false;
  try {
    return new URL(request.headers.get("referer") ?? "").host === request.headers.get("host");
  } catch {
    return false;
  }
}

/** Writes need the page's own Origin; reads of the record that, a browser's word that the page itself asks, or the page's own address. */
export function requireOwnOrigin(request: Request): void {
  if (isOwnOrigin(request)) return;
  const site = request.headers.get("sec-fetch-site");
  const isRead = request.method === "GET" || request.method === "HEAD";
  if (isRead && (site === "same-origin" || site === "none" || isOwnPage(request))) return;
  throw new AppError("foreign-origin");
}

/** The body as JSON. Throws `body-too-large` before reading on, `bad-json`. */
export async function readJson(request: Request): Promise<unknown> {
  if (Number(request.headers.get("content-length") ?? 0) > MOST_BODY_BYTES) throw new AppError("body-too-large");
  const reader = request.body?.getReader();
  const chunks: Uint8Array[] = [];
  let size = 0;
  while (reader) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.byteLength;
    if (size > MOST_BODY_BYTES) {
      await reader.cancel();
      throw new AppError("body-too-large");
    }
    chunks.push(value);
  }
  try {
    return JSON.parse(Buffer.concat(chunks).toString("utf8"));
  } catch (cause) {
    throw new AppError("bad-json", { cause });
  }
}

export function issuesOf(error: z.ZodError): Issue[] {
  return error.issues.map(({ code, path, message }) => ({
    code: code.replaceAll("_", "-"),
    path: path.map((part) => (typeof part === "number" ? part : String(part))),
    message,
  }));
}

/** Parses with zod; throws `invalid` with an issue for every path. */
export function parse<S extends z.ZodType>(schema: S, input: unknown): z.output<S> {
  const parsed = schema.safeParse(input);
  if (!parsed.success) throw new AppError("invalid", { issues: issuesOf(parsed.error) });
  return parsed.data;
}

/** The one place where a failure becomes HTTP. What is not ours is logged and answered as `internal`. */
export function failure(error: unknown): NextResponse {
  if (error instanceof AppError) return NextResponse.json({ error: error.code, issues: error.issues }, { status: error.status });
  console.error(error);
  return NextResponse.json({ error: "internal", issues: [] }, { status: 500 });
}

export function answered(work: () => unknown | Promise<unknown>, status = 200): Promise<NextResponse> {
  return Promise.resolve()
    .then(work)
    .then((body) => NextResponse.json(body, { status }))
    .catch(failure);
}

/** A read of the record. */
export function reading(request: Request, work: (db: Db) => unknown): Promise<NextResponse> {
  return answered(() => {
    requireOwnOrigin(request);
    return work(database());
  });
}

/** A kept picture; it never changes under its number. */
export async function picture(request: Request, find: (db: Db) => { mime: string; bytes: Buffer }): Promise<NextResponse> {
  try {
    requireOwnOrigin(request);
    const { mime, bytes } = find(database());
    return new NextResponse(new Uint8Array(bytes), {
      headers: { "content-type": mime, "cache-control": "private, max-age=31536000, immutable" },
    });
  } catch (error) {
    return failure(error);
  }
}

/** A change of the record: own origin, bounded body, who does it, then one function of the data. */
export function changing<S extends z.ZodType>(
  request: Request,
  schema: S,
  change: (db: Db, doing: Doing, input: z.output<S>) => unknown,
): Promise<NextResponse> {
  return answered(async () => {
    requireOwnOrigin(request);
    const body = await readJson(request);
    const { who, submissionId } = parse(envelopeSchema, body);
    const input = parse(schema, body);
    return change(database(), { who, now: new Date().toISOString(), ...(submissionId ? { submissionId } : {}) }, input);
  }, 201);
}

/** A whole positive number out of a path. Throws `notFound` otherwise. */
export function idFrom(text: string, notFound: "job-not-found" | "owed-not-found" | "machine-not-found" | "photograph-not-found"): number {
  if (!/^\d{1,9}$/.test(text)) throw new AppError(notFound);
  return Number(text);
}
