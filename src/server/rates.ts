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
/** Buckets kept at most. Full ones are let go then, for they hold nobody; when none are, whoever is new shares one bucket a rate. */
const MOST_BUCKETS = 10_000;
const NEWCOMERS = "newcomers";

/**
 * Whose bucket it is: an IPv4 address whole, an IPv6 address by its first four groups, since one house owns all that follow them (RFC 6177) and could ask from a
 * new address each time.
 */
export function holderOf(address: string): string {
  const plain = address.replace(/^::ffff:(?=\d+\.)/i, "").replace(/%.*$/, "");
  if (!plain.includes(":")) return plain;
  const [head = "", tail] = plain.split("::");
  const groups = (text: string) => (text === "" ? [] : text.split(":"));
  const before = groups(head);
  const after = tail === undefined ? [] : groups(tail);
  const whole = [...before, ...Array.from({ length: Math.max(0, 8 - before.length - after.length) }, () => "0"), ...after];
  return whole
    .slice(0, 4)
    .map((group) => (Number.parseInt(group, 16) || 0).toString(16))
    .join(":");
}

type Bucket = { name: RateName; left: number; atMilliseconds: number };

/** Counts requests by address and rate: a bucket that runs out and fills again evenly. `times` widens every rate; nought is no limit. */
export class Limiter {
  private readonly buckets = new Map<string, Bucket>();
  private letGoAtMilliseconds = Number.NEGATIVE_INFINITY;

  constructor(private readonly times = 1) {}

  /** Takes one; answers nought, or the whole seconds until there is one again. */
  take(name: RateName, address: string, nowMilliseconds: number): number {
    if (this.times === 0) return 0;
    const { burst, perMillisecond } = this.paceOf(name);
    const key = this.keyOf(name, holderOf(address), nowMilliseconds);
    const left = this.leftIn(this.buckets.get(key), name, nowMilliseconds) ?? burst;
    const isGiven = left >= 1;
    this.buckets.set(key, { name, left: isGiven ? left - 1 : left, atMilliseconds: nowMilliseconds });
    return isGiven ? 0 : Math.ceil((1 - left) / perMillisecond / 1000);
  }

  private paceOf(name: RateName): { burst: number; perMillisecond: number } {
    return { burst: RATES[name].burst * this.times, perMillisecond: (RATES[name].aMinute * this.times) / MINUTE };
  }

  private leftIn(bucket: Bucket | undefined, name: RateName, nowMilliseconds: number): number | undefined {
    if (bucket === undefined) return undefined;
    const { burst, perMillisecond } = this.paceOf(name);
    return Math.min(burst, bucket.left + Math.max(0, nowMilliseconds - bucket.atMilliseconds) * perMillisecond);
  }

  /** Nobody who has asked too much is forgotten for a crowd of others. */
  private keyOf(name: RateName, holder: string, nowMilliseconds: number): string {
    const own = `${name} ${holder}`;
    if (this.buckets.has(own) || this.buckets.size < MOST_BUCKETS) return own;
    if (nowMilliseconds - this.letGoAtMilliseconds >= 1000 || nowMilliseconds < this.letGoAtMilliseconds) {
      this.letGoAtMilliseconds = nowMilliseconds;
      for (const [key, bucket] of this.buckets)
        if ((this.leftIn(bucket, bucket.name, nowMilliseconds) ?? 0) >= this.paceOf(bucket.name).burst) this.buckets.delete(key);
    }
    return this.buckets.size < MOST_BUCKETS ? own : `${name} ${NEWCOMERS}`;
  }
}
