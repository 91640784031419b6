import { randomBytes } from "node:crypto";
import { type NextRequest, NextResponse } from "next/server";
import { HEADERS } from "@/server/headers";
import { isHostAllowed, ownOrigins } from "@/server/origins";

export { HEADERS };

/** A nonce for every page: no inline script runs without it, and nothing is fetched from anywhere but here. */
function policyWith(nonce: string): string {
  const isDevelopment = process.env.NODE_ENV === "development";
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${isDevelopment ? " 'unsafe-eval'" : ""}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
}

const isApi = ({ nextUrl }: NextRequest) => nextUrl.pathname.startsWith("/api/");

/** A name this server is not reached by: a page of somebody else's that was pointed here gets nothing of the record. */
function notReachedHere(request: NextRequest): NextResponse {
  const settled = { ...HEADERS, "cache-control": "no-store" };
  if (isApi(request)) return NextResponse.json({ error: "not-reached-here", issues: [] }, { status: 421, headers: settled });
  // The addresses it has are not told: whoever asks under a foreign name may be anybody's page.
  const text =
    "Zygometer is not reached under this name. Open the address it printed when it was started.\n\nWhoever runs it adds a name with ZYGOMETER_PUBLIC_URL (docs/operations.md).\n";
  return new NextResponse(text, { status: 421, headers: { ...settled, "content-type": "text/plain; charset=utf-8" } });
}

/** A path whose % are no letters is nobody's. */
function isReadable(path: string): boolean {
  try {
    decodeURIComponent(path);
    return true;
  } catch {
    return false;
  }
}

export function proxy(request: NextRequest) {
  if (!isHostAllowed(request.headers.get("host"), ownOrigins())) return notReachedHere(request);
  if (!isReadable(request.nextUrl.pathname))
    return NextResponse.json({ error: "not-found", issues: [] }, { status: 404, headers: { ...HEADERS, "cache-control": "no-store" } });
  const nonce = randomBytes(16).toString("base64");
  const policy = policyWith(nonce);
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("content-security-policy", policy);
  const response = NextResponse.next({ request: { headers } });
  for (const [name, value] of Object.entries({ ...HEADERS, "content-security-policy": policy })) response.headers.set(name, value);
  return response;
}

/** Every path: a page that is not found is a page of this record too. */
export const config = { matcher: "/:path*" };
