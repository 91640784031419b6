import { describe, expect, it } from "vitest";
import type { Reach } from "@/server/origins";
import { addressForPaper } from "./address";

const reach = (more: Partial<Reach> = {}): Reach => ({
  port: 3000,
  listensOn: "127.0.0.1",
  isTls: false,
  publicUrls: [],
  ownAddresses: ["127.0.0.1", "192.0.2.7"],
  ownNames: ["shop.local"],
  ...more,
});

describe("where a code on paper leads", () => {
  it("the shop's public address goes before any name it was asked under", () => {
    expect(addressForPaper("127.0.0.1:3000", reach({ publicUrls: ["https://mowers.example/"] }))).toEqual({
      origin: "https://mowers.example",
      isReachable: true,
    });
  });

  it("the name a page was asked under over the network", () => {
    expect(addressForPaper("shop.local:3000", reach({ listensOn: "0.0.0.0", isTls: true })).origin).toBe("https://shop.local:3000");
  });

  it("asked on the server's own screen: its address in the network where it listens there, else a telephone cannot open it", () => {
    expect(addressForPaper("localhost:3000", reach({ listensOn: "0.0.0.0" }))).toEqual({
      origin: "http://192.0.2.7:3000",
      isReachable: true,
    });
    expect(addressForPaper("127.0.0.1:3000", reach())).toEqual({ origin: "http://127.0.0.1:3000", isReachable: false });
    expect(addressForPaper(null, reach()).isReachable).toBe(false);
  });
});
