import { hostname, networkInterfaces } from "node:os";

/** Where this server may be reached: everything else is refused, so that a foreign name that is pointed at it reads and writes nothing. */
export type Reach = {
  port: number;
  /** The address it listens on; one of loopback is reached by this machine only. */
  listensOn: string;
  isTls: boolean;
  /** Set by the shop: `https://mowers.example`, as a proxy in front of it or the shop's own name server has it. */
  publicUrls: readonly string[];
  ownAddresses: readonly string[];
  ownNames: readonly string[];
};

const LOOPBACK = ["127.0.0.1", "localhost", "[::1]"];

const isLoopback = (address: string) => address === "localhost" || address === "::1" || address.startsWith("127.");

/** An origin as browsers write it, without the port that goes without saying. Throws on what is no address of the web. */
function originOf(text: string): string {
  const url = new URL(text);
  if (url.protocol !== "http:" && url.protocol !== "https:") throw new TypeError(`no http address: ${text}`);
  return url.origin;
}

/** Every origin a browser on the right page can have: scheme, name and port. */
export function allowedOrigins(reach: Reach): Set<string> {
  const scheme = reach.isTls ? "https" : "http";
  const isOpen = !isLoopback(reach.listensOn);
  const names = isOpen ? [...LOOPBACK, ...reach.ownAddresses, ...reach.ownNames] : LOOPBACK;
  return new Set([...names.map((name) => originOf(`${scheme}://${name}:${reach.port}`)), ...reach.publicUrls.map(originOf)]);
}

/** Whether a request's Host is one of them; a browser leaves out the port that goes without saying. */
export function isHostAllowed(host: string | null | undefined, origins: ReadonlySet<string>): boolean {
  if (!host) return false;
  return [...origins].some((origin) => new URL(origin).host === host.toLowerCase());
}

/** Whether what a page says of itself, in Origin or Referer, is one of them and the very one it asks. */
export function isOwnAddress(text: string | null | undefined, host: string | null | undefined, origins: ReadonlySet<string>): boolean {
  if (!text || !URL.canParse(text)) return false;
  const { origin, host: named } = new URL(text);
  return named === host?.toLowerCase() && origins.has(origin);
}

/** Addresses come and go with the network: they are looked up again so often. */
const LOOKED_UP_MILLISECONDS = 10_000;
const DEFAULT_PORT = 3000;
let known: { until: number; origins: Set<string> } | undefined;

/** What this process may be reached at, by its environment: PORT, HOST, ZYGOMETER_TLS, ZYGOMETER_PUBLIC_URL (several by commas). */
export function ownOrigins(): Set<string> {
  if (known && known.until > performance.now()) return known.origins;
  const origins = allowedOrigins(reachOf(process.env));
  known = { until: performance.now() + LOOKED_UP_MILLISECONDS, origins };
  return origins;
}

/** The environment is looked at again when it is next asked. */
export function forgetOrigins(): void {
  known = undefined;
}

export function reachOf(environment: Partial<Record<string, string>>): Reach {
  const { PORT, HOST = "127.0.0.1", ZYGOMETER_TLS, ZYGOMETER_PUBLIC_URL = "" } = environment;
  const addresses = Object.values(networkInterfaces()).flatMap((cards) => cards ?? []);
  const own = hostname().toLowerCase();
  return {
    port: Number(PORT) || DEFAULT_PORT,
    listensOn: HOST,
    isTls: ZYGOMETER_TLS === "1",
    publicUrls: ZYGOMETER_PUBLIC_URL.split(",").flatMap((url) => (url.trim() === "" ? [] : [url.trim()])),
    // An address that names its network card ("fe80::1%eth0") is none a browser can ask for.
    ownAddresses: addresses.flatMap(({ address, family }) =>
      address.includes("%") || address.startsWith("fe80") ? [] : [family === "IPv6" ? `[${address}]` : address],
    ),
    ownNames: own.includes(".") ? [own] : [own, `${own}.local`],
  };
}
