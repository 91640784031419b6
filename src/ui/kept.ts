import * as z from "zod";
import type { UnitSystem } from "@/core/basics/units";

/** Whose draft of which record: the same numbers come again in another record, and another's words are not mine. */
export type Keeper = { recordId: string; who: string };

/** What this browser keeps of something being typed. */
export type Kept = {
  value: unknown;
  /** Under which it is sent: the same from the first letter until it is answered, in every tab. */
  id: string;
  /** The units it was typed in. */
  system: UnitSystem;
  at: string;
  /** Sent, and not answered yet. */
  isSent?: boolean | undefined;
};

const keptSchema = z.object({
  value: z.unknown(),
  id: z.uuid(),
  system: z.enum(["us", "metric"]),
  at: z.iso.datetime(),
  isSent: z.boolean().optional(),
});

const PREFIX = "zygometer/";
const ASIDE = "zygometer-aside/";
export const NOBODY = "-";
/** So long an unsent draft may wait, and what could not be read. The server keeps answers no longer either. */
const KEPT_DAYS = 60;
const DAY = 86_400_000;

export const addressOf = ({ recordId, who }: Keeper, key: string): string => `${PREFIX}${recordId}/${who}/${key}`;

/** A random id (RFC 9562, version 4), also on plain http, where browsers keep `crypto.randomUUID` to themselves. */
export function newSubmissionId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join("-");
}

/** The part of a browser's store that is needed: tests bring their own. */
export type Store = Pick<Storage, "getItem" | "setItem" | "removeItem" | "key" | "length">;

const storeHere = (): Store | undefined => {
  try {
    return globalThis.localStorage;
  } catch {
    // Forbidden by the browser: nothing is kept, and nobody is kept from typing.
    return undefined;
  }
};

/** A text as what was kept; `undefined` where it is none. */
export function keptIn(text: string | null): Kept | undefined {
  if (text === null) return undefined;
  try {
    const parsed = keptSchema.safeParse(JSON.parse(text));
    return parsed.success ? { ...parsed.data, value: parsed.data.value } : undefined;
  } catch {
    return undefined;
  }
}

/** What is kept at an address. What cannot be read is set aside, out of the way of whoever types next. */
export function keptAt(address: string, store = storeHere()): Kept | undefined {
  const text = store?.getItem(address) ?? null;
  const kept = keptIn(text);
  if (text !== null && !kept) setAside(address, text, store);
  return kept;
}

export function setAside(address: string, text: string, store = storeHere()): void {
  store?.removeItem(address);
  write(store, ASIDE + address, text);
}

/** Whether it could be kept: a store that is full or forbidden keeps nothing. */
export function keepAt(address: string, kept: Kept, store = storeHere()): boolean {
  return write(store, address, JSON.stringify(kept));
}

function write(store: Store | undefined, address: string, text: string): boolean {
  try {
    store?.setItem(address, text);
    return store !== undefined;
  } catch {
    return false;
  }
}

export function dropAt(address: string, store = storeHere()): void {
  store?.removeItem(address);
}

function addresses(store: Store | undefined): string[] {
  return Array.from({ length: store?.length ?? 0 }, (_, index) => store?.key(index) ?? "");
}

/** Who else has something kept under a key, in this record and browser. */
export function othersAt({ recordId, who }: Keeper, key: string, store = storeHere()): { who: string; address: string }[] {
  const start = `${PREFIX}${recordId}/`;
  return addresses(store).flatMap((address) => {
    if (!address.startsWith(start) || !address.endsWith(`/${key}`)) return [];
    const other = address.slice(start.length, address.length - key.length - 1);
    return other === who || other.includes("/") ? [] : [{ who: other, address }];
  });
}

/** Lets go of drafts nobody came back to. */
export function pruneKept(now: string, store = storeHere()): void {
  for (const address of addresses(store)) {
    if (address.startsWith(ASIDE)) continue;
    if (!address.startsWith(PREFIX)) continue;
    const kept = keptAt(address, store);
    if (kept && Date.parse(now) - Date.parse(kept.at) > KEPT_DAYS * DAY) store?.removeItem(address);
  }
}
