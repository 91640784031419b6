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

/** A random id (RFC 9562, version 4), also on plain http, where browsers keep `crypto.randomUUID` to themselves. */
export function newSubmissionId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join("-");
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
    if (held.current?.key !== key) held.current = { key, id: newSubmissionId() };
    const sent = await send<T>(path, { ...body, submissionId: held.current.id }, method);
    if (sent.ok || sent.error !== "offline") held.current = undefined;
    busy.current = false;
    setBusy(false);
    return sent;
  }, []);
  return { submit, isBusy };
}
