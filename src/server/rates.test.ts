import { describe, expect, it } from "vitest";
import { holderOf, Limiter, RATES, type RateName, rateOf } from "./rates";

const SECOND = 1000;

describe("rates", () => {
  it.each([
    ["POST", "/api/v1/people", "people"],
    ["PATCH", "/api/v1/people/AK", "writes"],
    ["POST", "/api/v1/jobs/3/photographs", "photographs"],
    ["POST", "/api/v1/machines/zt-1/photographs", "photographs"],
    ["POST", "/api/v1/diagnose", "reckoning"],
    ["POST", "/api/v1/jobs/3/takes", "writes"],
    ["PUT", "/api/v1/machines/zt-1/sheet", "writes"],
    ["POST", "/api/v1/checks/deck-level/assess", "reckoning"],
    ["POST", "/api/v1/sites/pictures", "photographs"],
    ["GET", "/api/v1/people", undefined],
    ["GET", "/jobs/3", undefined],
  ])("%s %s counts as %s", (method, path, name) => {
    expect(rateOf(method, path)).toBe(name);
  });

  it.each(Object.keys(RATES) as RateName[])(
    "%s: as many as it holds at once, then one again after its time, each address by itself",
    (name) => {
      const limiter = new Limiter();
      const { burst, aMinute } = RATES[name];
      for (let k = 0; k < burst; k++) expect(limiter.take(name, "a", 0)).toBe(0);
      const wait = limiter.take(name, "a", 0);
      expect(wait).toBe(Math.ceil(60 / aMinute));
      expect(limiter.take(name, "b", 0)).toBe(0);
      // A moment too early it is refused, then one is given, and only one.
      expect(limiter.take(name, "a", (60 / aMinute) * SECOND * 0.9)).toBeGreaterThan(0);
      expect(limiter.take(name, "a", (60 / aMinute) * SECOND * 1.01)).toBe(0);
      expect(limiter.take(name, "a", (60 / aMinute) * SECOND * 1.02)).toBeGreaterThan(0);
    },
  );

  it("a clock that runs backwards gives nothing away, times widen a rate, and nought is none", () => {
    const limiter = new Limiter();
    for (let k = 0; k < RATES.people.burst; k++) limiter.take("people", "a", 1e6);
    expect(limiter.take("people", "a", 0)).toBeGreaterThan(0);
    const wide = new Limiter(3);
    for (let k = 0; k < 3 * RATES.people.burst; k++) expect(wide.take("people", "a", 0)).toBe(0);
    expect(wide.take("people", "a", 0)).toBeGreaterThan(0);
    const open = new Limiter(0);
    for (let k = 0; k < 1000; k++) expect(open.take("people", "a", 0)).toBe(0);
  });

  it("does not grow with the addresses that asked", () => {
    const limiter = new Limiter();
    for (let k = 0; k < 30_000; k++) limiter.take("writes", `address ${k}`, k);
    expect((limiter as unknown as { buckets: Map<string, unknown> }).buckets.size).toBeLessThanOrEqual(10_000 + Object.keys(RATES).length);
  });

  it("a crowd of addresses gives nobody back what they have used, and shares one measure among its newcomers", () => {
    const limiter = new Limiter();
    const { burst } = RATES.people;
    for (let k = 0; k < burst; k++) expect(limiter.take("people", "10.0.0.1", 0)).toBe(0);
    let given = 0;
    for (let k = 0; k < 20_000; k++) if (limiter.take("people", `11.${k >> 16}.${(k >> 8) & 255}.${k & 255}`, 1) === 0) given++;
    expect(limiter.take("people", "10.0.0.1", 2)).toBeGreaterThan(0);
    expect(given).toBeLessThanOrEqual(10_000 + burst);
    // Quarter of an hour later the crowd's buckets are full again, let go, and a newcomer has one of his own.
    expect(limiter.take("people", "12.0.0.1", 15 * 60 * SECOND)).toBe(0);
  });

  it.each([
    ["192.168.4.7", "192.168.4.7"],
    ["::ffff:192.168.4.7", "192.168.4.7"],
    ["2001:db8:0:17:aaaa::1", "2001:db8:0:17"],
    ["2001:db8:0:17:bbbb:1:2:3", "2001:db8:0:17"],
    ["2001:db8::17", "2001:db8:0:0"],
    ["fe80::1%eth0", "fe80:0:0:0"],
    ["::1", "0:0:0:0"],
  ])("%s is held as %s", (address, holder) => {
    expect(holderOf(address)).toBe(holder);
  });
});
