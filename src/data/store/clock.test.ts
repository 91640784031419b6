import { afterEach, describe, expect, it } from "vitest";
import { localDay } from "./clock";

describe("the shop's own day", () => {
  const zone = process.env.TZ;
  afterEach(() => {
    if (zone === undefined) delete process.env.TZ;
    else process.env.TZ = zone;
  });

  it.each([
    ["America/Los_Angeles", "2026-05-24"],
    ["Europe/London", "2026-05-25"],
    ["Pacific/Auckland", "2026-05-25"],
  ])("half past three of Greenwich on the 25th is in %s the %s", (tz, day) => {
    process.env.TZ = tz;
    expect(localDay("2026-05-25T03:30:00.000Z")).toBe(day);
  });

  it("at nine in the evening of Greenwich it is tomorrow in Auckland", () => {
    process.env.TZ = "Pacific/Auckland";
    expect(localDay("2026-12-31T21:00:00.000Z")).toBe("2027-01-01");
  });
});
