"use client";

import { useCallback, useRef, useState } from "react";

export type Problem = { code: string; path: (string | number)[]; [detail: string]: unknown };
export type Sent<T> = { ok: true; answer: T } | { ok: false; error: string; issues: Problem[] };

/** One request to our own API; a lost line is the error `offline`. */
export async function send<T>(path: string, body: unknown, method = "POST"): Promise<Sent<T>> {
  try {
    const response = await fetch(path, { method, headers: { "content-type": "application/json" }, body: JSON.stringify(body) });
    const answer = (await response.json()) as { error?: string; issues?: Problem[] };
    if (response.ok) return { ok: true, answer: answer as T };
    return { ok: false, error: answer.error ?? "internal", issues: answer.issues ?? [] };
  } catch {
    return { ok: false, error: "offline", issues: [] };
  }
}

/**
 * Sends one submission at a time, with an id that stays the same until it was answered: pressing twice, or again after a lost
 * connection, does it once.
 */
export function useSubmission() {
  const held = useRef<{ key: string; id: string } | undefined>(undefined);
  const [isBusy, setBusy] = useState(false);
  const busy = useRef(false);
  const submit = useCallback(async <T>(path: string, body: Record<string, unknown>, method = "POST"): Promise<Sent<T> | undefined> => {
    if (busy.current) return undefined;
    busy.current = true;
    setBusy(true);
    const key = `${method} ${path} ${JSON.stringify(body)}`;
    if (held.current?.key !== key) held.current = { key, id: crypto.randomUUID() };
    const sent = await send<T>(path, { ...body, submissionId: held.current.id }, method);
    if (sent.ok || sent.error !== "offline") held.current = undefined;
    busy.current = false;
    setBusy(false);
    return sent;
  }, []);
  return { submit, isBusy };
}
