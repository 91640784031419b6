import { type Reach, reachOf } from "@/server/origins";

const LOOPBACK = /^(localhost|127\.|\[::1\])/;

/**
 * Where a code on paper leads, for a telephone to open: the shop's own public address, where one is set; else the name this page was asked under; of a
 * page asked on the server's own screen, an address of the network where it listens there. `isReachable`: whether another device can open it at all.
 */
export function addressForPaper(host: string | null, reach: Reach): { origin: string; isReachable: boolean } {
  const scheme = reach.isTls ? "https" : "http";
  const [open] = reach.publicUrls;
  if (open) return { origin: new URL(open).origin, isReachable: true };
  if (host && !LOOPBACK.test(host)) return { origin: `${scheme}://${host}`, isReachable: true };
  const listensHere = LOOPBACK.test(reach.listensOn) || reach.listensOn === "::1";
  const [own] = reach.ownAddresses.filter((address) => !LOOPBACK.test(address) && !address.startsWith("["));
  if (!listensHere && own) return { origin: `${scheme}://${own}:${reach.port}`, isReachable: true };
  return { origin: `${scheme}://${host ?? `127.0.0.1:${reach.port}`}`, isReachable: false };
}

export const paperAddress = (host: string | null) => addressForPaper(host, reachOf(process.env));
