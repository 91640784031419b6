/** So many at once, and so many a minute after that, from one address. */
export type Rate = { burst: number; aMinute: number };

/**
 * What one address may ask in a minute (estimate). A shop's tablets may all come from one address: the figures are for a dozen people who
 * work, and far under what fills a disk or keeps the reckoning busy.
 */
export const RATES = {
  /** New initials on the list. */
  people: { burst: 20, aMinute: 6 },
  photographs: { burst: 40, aMinute: 30 },
  /** The page reckons by itself; what asks here is another program. */
  reckoning: { burst: 120, aMinute: 240 },
  /** Everything else that writes. */
  writes: { burst: 300, aMinute: 300 },
} as const satisfies Record<string, Rate>;

export type RateName = keyof typeof RATES;

/**
 * The path a router sees of what was asked, or nothing where there are two ways to read it: dots that climb, doubled or back slashes, slashes and dots written
 * as %. A rate that looked at another path than the router would hold nobody.
 */
export function canonicalPath(url: string): string | undefined {
  const path = url.split(/[?#]/)[0] ?? "";
  if (!path.startsWith("/") || /\/\/|\\|%2e|%2f|%5c/i.test(path) || path.split("/").some((part) => part === "." || part === ".."))
    return undefined;
  return path;
}

/** Which rate a request counts against; reads count against none. */
export function rateOf(method: string, path: string): RateName | undefined {
  if (method === "GET" || method === "HEAD" || method === "OPTIONS") return undefined;
  if (path.startsWith("/api/v1/people")) return method === "POST" ? "people" : "writes";
  if (path.endsWith("/photographs") || path.endsWith("/pictures")) return "photographs";
  if (path === "/api/v1/diagnose" || path.startsWith("/api/v1/checks/")) return "reckoning";
  return "writes";
}

const MINUTE = 60_000;
/** Buckets kept at most: beyond that the ones that are full again are let go. */
const MOST_BUCKETS = 10_000;

type Bucket = { left: number; atMilliseconds: number };

/** Counts requests by address and rate: a bucket that runs out and fills again evenly. `times` widens every rate; nought is no limit. */
export class Limiter {
  private readonly buckets = new Map<string, Bucket>();

  constructor(private readonly times = 1) {}

  /** Takes one; answers nought, or the whole seconds until there is one again. */
  take(name: RateName, address: string, nowMilliseconds: number): number {
    if (this.times === 0) return 0;
    const rate = RATES[name];
    const [burst, perMillisecond] = [rate.burst * this.times, (rate.aMinute * this.times) / MINUTE];
    const key = `${name} ${address}`;
    const before = this.buckets.get(key) ?? { left: burst, atMilliseconds: nowMilliseconds };
    const gone = Math.max(0, nowMilliseconds - before.atMilliseconds);
    const left = Math.min(burst, before.left + gone * perMillisecond);
    const isGiven = left >= 1;
    if (this.buckets.size >= MOST_BUCKETS) this.letGo(nowMilliseconds);
    this.buckets.set(key, { left: isGiven ? left - 1 : left, atMilliseconds: nowMilliseconds });
    return isGiven ? 0 : Math.ceil((1 - left) / perMillisecond / 1000);
  }

  /** Nobody who asked within the last minutes is forgotten; the rest is as if it had never asked. */
  private letGo(nowMilliseconds: number): void {
    for (const [key, { atMilliseconds }] of this.buckets) if (nowMilliseconds - atMilliseconds > 10 * MINUTE) this.buckets.delete(key);
    if (this.buckets.size >= MOST_BUCKETS) this.buckets.clear();
  }
}
