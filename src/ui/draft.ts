"use client";

import { useCallback, useEffect, useRef, useState } from "react";

/**
 * What is being typed, kept in this browser under `key` until it is cleared: a reload or a lost line loses nothing.
 * Starts from `initial` and takes up what was kept after the first paint, so that server and browser draw the same.
 */
export function useDraft<T>(
  key: string,
  initial: T,
): { value: T; set: (change: T | ((before: T) => T)) => void; clear: () => void; wasKept: boolean } {
  const [value, setValue] = useState<T>(initial);
  const [wasKept, setWasKept] = useState(false);

  const start = useRef(initial);
  start.current = initial;
  useEffect(() => {
    const found = keptDraft<T>(key);
    const kept = found !== undefined && isLike(found, start.current) ? found : undefined;
    // Under another key nothing of the last one may stay.
    setValue(kept ?? start.current);
    setWasKept(kept !== undefined);
  }, [key]);

  const set = useCallback(
    (change: T | ((before: T) => T)) =>
      setValue((before) => {
        const next = typeof change === "function" ? (change as (before: T) => T)(before) : change;
        keepDraft(key, next);
        return next;
      }),
    [key],
  );

  const clear = useCallback(() => {
    remove(key);
    setWasKept(false);
    setValue(start.current);
  }, [key]);

  return { value, set, clear, wasKept };
}

/** Whether what was kept has the shape of what it is taken up for: what has not, whoever wrote it, is set aside. */
export function isLike(kept: unknown, model: unknown): boolean {
  if (typeof model !== "object" || model === null) return typeof kept === typeof model;
  if (typeof kept !== "object" || kept === null || Array.isArray(kept) !== Array.isArray(model)) return false;
  // Other keys may be there or not; of what every draft starts with, each is there and like it.
  return Object.entries(model).every(([key, value]) => value === undefined || isLike((kept as Record<string, unknown>)[key], value));
}

const named = (key: string) => `zygometer:${key}`;

/** What this browser keeps under a key. */
export function keptDraft<T>(key: string): T | undefined {
  try {
    const text = localStorage.getItem(named(key));
    return text === null ? undefined : (JSON.parse(text) as T);
  } catch {
    return undefined;
  }
}

/** Keeps something under a key, for whichever page opens it next. */
export function keepDraft(key: string, value: unknown): void {
  try {
    localStorage.setItem(named(key), JSON.stringify(value));
  } catch {
    // A full or forbidden store must not keep anybody from typing.
  }
}

function remove(key: string): void {
  try {
    localStorage.removeItem(named(key));
  } catch {
    // As above.
  }
}
