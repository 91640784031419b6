import { createHash } from "node:crypto";
import { headers } from "next/headers";
import { NextResponse } from "next/server";
import * as z from "zod";
import { RECORD_HEADER, shapeProblem, unknownKeys } from "@/core/basics/validation";
import { database } from "@/data/open";
import type { Doing } from "@/data/store/audit";
import { recordId } from "@/data/store/connection";
import type { Db } from "@/data/store/db";
import { AppError, type ErrorCode, type Issue, ofDriver } from "@/data/store/errors";
import { log } from "@/server/log";
import { isOwnAddress, ownOrigins } from "@/server/origins";

/** No honest body is larger: the fullest deck form is some 6 kB. */
export const MOST_BODY_BYTES = 256 * 1024;

export const envelopeSchema = z.object({ who: z.string().trim().toUpperCase().min(2).max(4), submissionId: z.uuid().optional() });

/** On plain http a browser says of a read neither its origin nor its site, only the page it comes from. */
function isOwnPage(request: Request): boolean {
  if (request.headers.get("sec-fetch-site") !== null || request.headers.get("origin") !== null) return false;
  return isOwnAddress(request.headers.get("referer"), request.headers.get("host"), ownOrigins());
}

/** Writes need the page's own Origin; reads of the record that, a browser's word that the page itself asks, or the page's own address. */
export function requireOwnOrigin(request: Request): void {
  if (isOwnAddress(request.headers.get("origin"), request.headers.get("host"), ownOrigins())) return;
  const site = request.headers.get("sec-fetch-site");
  const isRead = request.method === "GET" || request.method === "HEAD";
  if (isRead && (site === "same-origin" || site === "none" || isOwnPage(request))) return;
  throw new AppError("foreign-origin");
}

async function bytesOf(request: Request): Promise<Buffer> {
  if (Number(request.headers.get("content-length") ?? 0) > MOST_BODY_BYTES) throw new AppError("body-too-large");
  const reader = request.body?.getReader();
  const chunks: Uint8Array[] = [];
  let size = 0;
  while (reader) {
    const { done, value } = await reader.read().catch((cause) => {
      // The door cuts a body that takes too long; its own end broke off otherwise, and hears nothing of the answer.
      throw new AppError("request-too-slow", { cause });
    });
    if (done) break;
    size += value.byteLength;
    if (size > MOST_BODY_BYTES) {
      await reader.cancel();
      throw new AppError("body-too-large");
    }
    chunks.push(value);
  }
  return Buffer.concat(chunks);
}

/** What says of itself that it is JSON: a page of somebody else's cannot send that without asking first, and is never answered then. */
const isJson = (request: Request): boolean => /^application\/(?:[\w.-]+\+)?json\s*(?:;|$)/i.test(request.headers.get("content-type") ?? "");

/**
 * The body as JSON. Throws `json-only` for what does not say that it is, `body-too-large` before reading on, `bad-json`, `request-too-slow`, and `invalid`
 * for a shape no body has.
 */
export async function readJson(request: Request): Promise<unknown> {
  if (!isJson(request)) throw new AppError("json-only");
  const bytes = await bytesOf(request);
  let body: unknown;
  try {
    body = JSON.parse(new TextDecoder("utf-8", { fatal: true }).decode(bytes));
  } catch (cause) {
    throw new AppError("bad-json", { cause });
  }
  const problem = shapeProblem(body);
  if (problem) throw new AppError("invalid", { issues: [{ ...problem, path: problem.path.slice(0, 3) }] });
  return body;
}

export function issuesOf(error: z.ZodError): Issue[] {
  return error.issues.map(({ code, path, message }) => ({
    code: code.replaceAll("_", "-"),
    path: path.map((part) => (typeof part === "number" ? part : String(part))),
    message,
  }));
}

/** Parses with zod; throws `invalid` with an issue for every path, and for every key nobody understands. */
export function parse<S extends z.ZodType>(schema: S, input: unknown): z.output<S> {
  const parsed = schema.safeParse(input);
  if (!parsed.success) throw new AppError("invalid", { issues: issuesOf(parsed.error) });
  const unknown = unknownKeys(input, parsed.data);
  if (unknown.length > 0) throw new AppError("invalid", { issues: unknown });
  return parsed.data;
}

/** The record is nobody's to keep: not a browser's, not a proxy's. */
const NOT_KEPT = { "cache-control": "no-store" };

/** The one place where a failure becomes HTTP. What is not ours is logged with the request's id and answered as `internal`. */
export async function failure(thrown: unknown): Promise<NextResponse> {
  const error = ofDriver(thrown);
  if (error instanceof AppError) {
    if (error.status >= 500) log().error({ id: await requestId(), err: error.cause ?? error, code: error.code }, error.code);
    const after: Record<string, string> = error.code === "record-busy" ? { "retry-after": "2" } : {};
    return NextResponse.json({ error: error.code, issues: error.issues }, { status: error.status, headers: { ...NOT_KEPT, ...after } });
  }
  log().error({ id: await requestId(), err: error }, "internal");
  return NextResponse.json({ error: "internal", issues: [] }, { status: 500, headers: NOT_KEPT });
}

async function requestId(): Promise<string | undefined> {
  try {
    return (await headers()).get("x-request-id") ?? undefined;
  } catch {
    // Asked outside a request of the server, as tests do.
    return undefined;
  }
}

export function answered(work: () => unknown | Promise<unknown>, status = 200): Promise<NextResponse> {
  return Promise.resolve()
    .then(work)
    .then((body) => NextResponse.json(body, { status, headers: NOT_KEPT }))
    .catch(failure);
}

/** A read of the record. */
export function reading(request: Request, work: (db: Db) => unknown): Promise<NextResponse> {
  return answered(() => {
    requireOwnOrigin(request);
    return work(database());
  });
}

/** A kept picture. Taken back, it is gone: so no browser keeps it either. */
export async function picture(request: Request, find: (db: Db) => { mime: string; bytes: Buffer }): Promise<NextResponse> {
  try {
    requireOwnOrigin(request);
    const { mime, bytes } = find(database());
    return new NextResponse(new Uint8Array(bytes), {
      headers: { "content-type": mime, ...NOT_KEPT, "content-security-policy": "default-src 'none'; sandbox" },
    });
  } catch (error) {
    return failure(error);
  }
}

/** What was asked, by whom, of what: the same again has the same, anything else another. */
function digestOf(request: Request, who: string, input: unknown): string {
  const { pathname } = new URL(request.url);
  return createHash("sha256")
    .update(JSON.stringify([request.method, pathname, who, input]))
    .digest("base64url");
}

/** A change of the record: own origin, bounded body, who does it, then one function of the data. `ready` works on the input before that. */
export function changing<S extends z.ZodType, Input = z.output<S>>(
  request: Request,
  schema: S,
  change: (db: Db, doing: Doing, input: Input) => unknown,
  ready: (input: z.output<S>) => Promise<Input> = (input) => Promise.resolve(input as unknown as Input),
): Promise<NextResponse> {
  return answered(async () => {
    requireOwnOrigin(request);
    const { who, submissionId, input } = splitEnvelope(await readJson(request));
    const parsed = parse(schema, input);
    requireSameRecord(request);
    const now = new Date().toISOString();
    const doing = { who, now, digest: digestOf(request, who, parsed), ...(submissionId ? { submissionId } : {}) };
    return change(database(), doing, await ready(parsed));
  }, 201);
}

/** A page says which record it was opened on: job 32 of another is another job. Programs that say none mean the one that is there. */
function requireSameRecord(request: Request): void {
  const named = request.headers.get(RECORD_HEADER);
  if (named !== null && named !== recordId(database())) throw new AppError("another-record");
}

/** Who sends it, apart from what is sent. */
function splitEnvelope(body: unknown): z.output<typeof envelopeSchema> & { input: unknown } {
  const envelope = envelopeSchema.safeParse(body);
  if (!envelope.success) throw new AppError("invalid", { issues: issuesOf(envelope.error) });
  const { who: _who, submissionId: _id, ...input } = body as Record<string, unknown>;
  return { ...envelope.data, input };
}

/** A whole positive number out of a path. Throws `notFound` otherwise. */
export function idFrom(text: string, notFound: Extract<ErrorCode, `${string}-not-found`>): number {
  if (!/^\d{1,9}$/.test(text)) throw new AppError(notFound);
  return Number(text);
}
