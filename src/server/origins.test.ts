import { describe, expect, it } from "vitest";
import { allowedOrigins, isHostAllowed, isOwnAddress, type Reach, reachOf } from "./origins";

const SHOP: Reach = {
  port: 3000,
  listensOn: "0.0.0.0",
  isTls: false,
  publicUrls: ["https://mowers.example", "http://bay.shop.test:8080/"],
  ownAddresses: ["192.168.1.20", "[fd00::2]"],
  ownNames: ["bay", "bay.local"],
};

describe("where it may be reached", () => {
  it("is its loopback, its own names and addresses, and what the shop set; a port that goes without saying is left out", () => {
    expect([...allowedOrigins(SHOP)]).toEqual([
      "http://127.0.0.1:3000",
      "http://localhost:3000",
      "http://[::1]:3000",
      "http://192.168.1.20:3000",
      "http://[fd00::2]:3000",
      "http://bay:3000",
      "http://bay.local:3000",
      "https://mowers.example",
      "http://bay.shop.test:8080",
    ]);
    expect([...allowedOrigins({ ...SHOP, port: 443, isTls: true, publicUrls: [] })]).toContain("https://bay.local");
  });

  it("is this machine alone where it listens to loopback alone", () => {
    expect([...allowedOrigins({ ...SHOP, listensOn: "127.0.0.1", publicUrls: [] })]).toEqual([
      "http://127.0.0.1:3000",
      "http://localhost:3000",
      "http://[::1]:3000",
    ]);
  });

  it.each([
    ["bay.local:3000", true],
    ["BAY.local:3000", true],
    ["mowers.example", true],
    ["bay.local", false],
    ["bay.local:3001", false],
    ["evil.example:3000", false],
    ["bay.local.evil.example:3000", false],
    ["", false],
    [undefined, false],
  ])("a request for %s is taken: %s", (host, isTaken) => {
    expect(isHostAllowed(host, allowedOrigins(SHOP))).toBe(isTaken);
  });

  it.each([
    ["http://bay.local:3000", "bay.local:3000", true],
    ["http://bay.local:3000/jobs/3?x=1", "bay.local:3000", true],
    ["https://bay.local:3000", "bay.local:3000", false],
    ["http://127.0.0.1:3000", "bay.local:3000", false],
    ["http://evil.example:3000", "evil.example:3000", false],
    ["https://mowers.example", "mowers.example", true],
    ["http://mowers.example", "mowers.example", false],
    ["null", "bay.local:3000", false],
    ["", "bay.local:3000", false],
    ["not an address", "bay.local:3000", false],
  ])("a page at %s asking %s is its own: %s", (page, host, isOwn) => {
    expect(isOwnAddress(page, host, allowedOrigins(SHOP))).toBe(isOwn);
  });

  it("comes from the environment, and a wrong setting is said at once", () => {
    expect(
      reachOf({ PORT: "8443", HOST: "::", ZYGOMETER_TLS: "1", ZYGOMETER_PUBLIC_URL: " https://a.example , https://b.example" }),
    ).toMatchObject({
      ...{ port: 8443, listensOn: "::", isTls: true },
      publicUrls: ["https://a.example", "https://b.example"],
    });
    expect(reachOf({})).toMatchObject({ port: 3000, listensOn: "127.0.0.1", isTls: false, publicUrls: [] });
    for (const wrong of ["mowers.example", "ftp://mowers.example"])
      expect(() => allowedOrigins({ ...SHOP, publicUrls: [wrong] }), wrong).toThrow();
  });
});
