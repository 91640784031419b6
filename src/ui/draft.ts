"use client";

import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { UnitSystem } from "@/core/basics/units";
import { addressOf, dropAt, type Keeper, type Kept, keepAt, keptAt, keptIn, NOBODY, newSubmissionId, othersAt, setAside } from "./kept";
import { useSeat } from "./person";

/** Under which a draft is sent, and what became of it: handed to whatever sends it. */
export type Ticket = {
  id: () => string;
  /** It is on its way: should the answer be lost, it is asked for again after a reload. */
  sending: () => void;
  /** Answered; where its id turned out to be used for something else, the next is sent under another. */
  answered: (outcome: { isReused: boolean }) => void;
};

export type Draft<T> = {
  value: T;
  set: (change: T | ((before: T) => T)) => void;
  clear: () => void;
  wasKept: boolean;
  /** This browser cannot keep it: a reload would lose it. */
  isUnkept: boolean;
  ticket: Ticket;
  /** Another has typed here and not sent it. */
  left: { by: string; take: () => void } | undefined;
};

type Options<T> = {
  /** Bare numbers in it are in the units of whoever typed them: under other units it is another draft, */
  isMeasured?: boolean;
  /** or it is written again in those. */
  retype?: (value: T, from: UnitSystem, to: UnitSystem) => T;
  /** What is ticked under no name is nobody's; without this, initials picked while typing take it along. */
  isOnesOwn?: boolean;
};

/** What of a draft this tab knows to be kept: its id, whether it is on its way, and when it was written. */
type Held = { address: string; id: string; isSent: boolean; at: string };
const NOTHING_HELD = { id: "", isSent: false, at: "" };

/** Said when what was sent before a reload turns out to have arrived. */
export const FOUND = "zygometer:found";

/**
 * What is being typed, kept in this browser for its record and its person until it is cleared: a reload or a lost line loses nothing, and
 * every tab shows the same. Starts from `initial` and takes up what was kept after the first paint, so that server and browser draw the same.
 */
export function useDraft<T>(key: string, initial: T, options: Options<T> = {}): Draft<T> {
  const { recordId = "", who = NOBODY, system } = useSeat();
  const { isMeasured = false, isOnesOwn = false, retype } = options;
  const own = isMeasured ? `${key}:${system}` : key;
  const address = addressOf({ recordId, who }, own);
  const [value, setValue] = useState<T>(initial);
  const [wasKept, setWasKept] = useState(false);
  const [isUnkept, setUnkept] = useState(false);
  const [others, setOthers] = useState<{ who: string; address: string }[]>([]);
  const start = useRef(initial);
  start.current = initial;
  const retyped = useRef(retype);
  retyped.current = retype;
  const current = useRef(initial);
  const put = useCallback((next: T) => {
    current.current = next;
    setValue(next);
  }, []);
  const held = useRef<Held>({ address, ...NOTHING_HELD });

  const keep = useCallback(
    (next: T, change: { id?: string; isSent?: boolean } = {}) => {
      if (held.current.address !== address) held.current = { address, ...NOTHING_HELD };
      held.current.id = change.id ?? (held.current.id || newSubmissionId());
      held.current.isSent = change.isSent ?? false;
      const { id, isSent } = held.current;
      const at = new Date().toISOString();
      const kept: Kept = { value: next, id, system, at, ...(isSent ? { isSent } : {}) };
      const isKept = keepAt(address, kept);
      // What could not be kept is not missed when the tab wakes.
      held.current.at = isKept ? at : "";
      setUnkept(!isKept);
    },
    [address, system],
  );

  /** Takes up what is kept, in these units; what is of another shape is set aside. */
  const take = useCallback(
    (kept: Kept | undefined) => {
      const isFit = kept !== undefined && isLike(kept.value, start.current);
      if (kept && !isFit) setAside(address, JSON.stringify(kept));
      held.current = isFit ? { address, id: kept.id, isSent: kept.isSent === true, at: kept.at } : { address, ...NOTHING_HELD };
      if (!isFit) {
        put(start.current);
        return false;
      }
      const found = kept.value as T;
      // Shown in one's own units and written in them with the next letter: two tabs in two units would write each other's for ever.
      put(kept.system !== system && retyped.current ? retyped.current(found, kept.system, system) : found);
      return true;
    },
    [address, system, put],
  );

  useEffect(() => {
    if (!isOnesOwn && who !== NOBODY) adopt({ recordId, who }, own);
    // Under another key nothing of the last one may stay.
    const isTaken = take(keptAt(address));
    setWasKept(isTaken);
    setOthers(isTaken || who === NOBODY ? [] : othersAt({ recordId, who }, own).filter((other) => other.who !== NOBODY));
  }, [address, take, recordId, who, own, isOnesOwn]);

  // What is typed in another tab stands here at once; one that slept looks when it wakes.
  useEffect(() => {
    const onStore = (event: StorageEvent) => {
      if (event.key === address) take(keptIn(event.newValue));
    };
    const onWake = () => {
      if (document.visibilityState !== "visible") return;
      const kept = keptAt(address);
      if ((kept?.at ?? "") !== held.current.at) take(kept);
    };
    window.addEventListener("storage", onStore);
    document.addEventListener("visibilitychange", onWake);
    return () => {
      window.removeEventListener("storage", onStore);
      document.removeEventListener("visibilitychange", onWake);
    };
  }, [address, take]);

  const clear = useCallback(() => {
    dropAt(address);
    held.current = { address, ...NOTHING_HELD };
    setWasKept(false);
    setUnkept(false);
    put(start.current);
  }, [address, put]);

  useFound({ address, who, take, clear });

  const set = useCallback(
    (change: T | ((before: T) => T)) => {
      const next = typeof change === "function" ? (change as (before: T) => T)(current.current) : change;
      put(next);
      keep(next);
    },
    [keep, put],
  );

  const ticket = useMemo<Ticket>(
    () => ({
      id: () => {
        if (held.current.address !== address || held.current.id === "") held.current = { address, ...NOTHING_HELD, id: newSubmissionId() };
        return held.current.id;
      },
      sending: () => keep(current.current, { isSent: true }),
      answered: ({ isReused }) => {
        // What was cleared meanwhile, here or in another tab, does not come back by its answer.
        if (keptAt(address) === undefined) return;
        keep(current.current, { isSent: false, ...(isReused ? { id: newSubmissionId() } : {}) });
      },
    }),
    [address, keep],
  );

  const [other] = others;
  const left = other && {
    by: other.who,
    take: () => {
      const kept = keptAt(other.address);
      dropAt(other.address);
      setOthers([]);
      if (!kept || !isLike(kept.value, start.current)) return;
      keep(kept.value as T);
      take(keptAt(address));
    },
  };
  return { value, set, clear, wasKept, isUnkept, ticket, left };
}

/** What was typed before initials were picked goes with whoever picks them. */
function adopt({ recordId, who }: Keeper, key: string): void {
  const [mine, nobodys] = [addressOf({ recordId, who }, key), addressOf({ recordId, who: NOBODY }, key)];
  const kept = keptAt(nobodys);
  if (!kept || keptAt(mine)) return;
  if (keepAt(mine, kept)) dropAt(nobodys);
}

/** Sent before a reload and never answered: whether it arrived is asked, again whenever the line comes back. */
function useFound(args: { address: string; who: string; take: (kept: Kept | undefined) => boolean; clear: () => void }): void {
  const { address, who, take, clear } = args;
  useEffect(() => {
    let isWanted = true;
    const ask = async () => {
      const kept = keptAt(address);
      if (!kept?.isSent || who === NOBODY) return;
      const arrived = await hasArrived(kept.id, who);
      if (!isWanted || arrived === undefined || keptAt(address)?.id !== kept.id) return;
      if (arrived) {
        clear();
        window.dispatchEvent(new Event(FOUND));
        return;
      }
      const unsent: Kept = { ...kept, isSent: false };
      keepAt(address, unsent);
      take(unsent);
    };
    ask();
    window.addEventListener("online", ask);
    return () => {
      isWanted = false;
      window.removeEventListener("online", ask);
    };
  }, [address, who, take, clear]);
}

/** Whether the server has done what was sent under an id; `undefined` where it could not be asked. */
async function hasArrived(id: string, who: string): Promise<boolean | undefined> {
  try {
    const { status } = await fetch(`/api/v1/submissions/${id}?who=${encodeURIComponent(who)}`);
    return status === 200 ? true : status === 404 ? false : undefined;
  } catch {
    return undefined;
  }
}

/** Keeps something under a key for whichever page opens it next, and reads what is kept there. */
export function useKeeping(): { keep: (key: string, value: unknown, system: UnitSystem) => void; kept: (key: string) => unknown } {
  const { recordId = "", who = NOBODY } = useSeat();
  return useMemo(
    () => ({
      keep: (key, value, system) => {
        const address = addressOf({ recordId, who }, key);
        keepAt(address, { value, id: keptAt(address)?.id ?? newSubmissionId(), system, at: new Date().toISOString() });
      },
      kept: (key) => keptAt(addressOf({ recordId, who }, key))?.value,
    }),
    [recordId, who],
  );
}

/** Whether what was kept has the shape of what it is taken up for: what has not, whoever wrote it, is set aside. */
export function isLike(kept: unknown, model: unknown): boolean {
  if (typeof model !== "object" || model === null) return typeof kept === typeof model;
  if (typeof kept !== "object" || kept === null || Array.isArray(kept) !== Array.isArray(model)) return false;
  // Other keys may be there or not; of what every draft starts with, each is there and like it.
  return Object.entries(model).every(([key, value]) => value === undefined || isLike((kept as Record<string, unknown>)[key], value));
}
