"use client";

import { useCallback, useRef, useState } from "react";
import { RECORD_HEADER } from "@/core/basics/validation";
import type { Ticket } from "./draft";
import { newSubmissionId } from "./kept";

export type Problem = { code: string; path: (string | number)[]; [detail: string]: unknown };
export type Sent<T> = { ok: true; answer: T } | { ok: false; error: string; issues: Problem[] };

/** The record this page was opened on, as its frame has it. */
const ofRecord = (): Record<string, string> => {
  const { record } = document.documentElement.dataset;
  return record ? { [RECORD_HEADER]: record } : {};
};

/** Changes on their way from this page. */
let underWay = 0;
export const isUnderWay = (): boolean => underWay > 0;

/** One request to our own API; a lost line is the error `offline`. */
export async function send<T>(path: string, body: unknown, method = "POST"): Promise<Sent<T>> {
  underWay += 1;
  try {
    const response = await fetch(path, {
      method,
      headers: { "content-type": "application/json", ...ofRecord() },
      body: JSON.stringify(body),
    });
    const answer = (await response.json()) as { error?: string; issues?: Problem[] };
    if (response.ok) return { ok: true, answer: answer as T };
    return { ok: false, error: answer.error ?? "internal", issues: answer.issues ?? [] };
  } catch {
    return { ok: false, error: "offline", issues: [] };
  } finally {
    underWay -= 1;
  }
}

/** Another program holds the record: so often it is asked again, and so long apart. */
const TURNS = 4;
const TURN_MILLISECONDS = 1500;

/** Waits its turn where the record is busy; what is sent again under its id is done once. */
export async function sendInTurn<T>(path: string, body: unknown, method: string, pause = TURN_MILLISECONDS): Promise<Sent<T>> {
  let sent = await send<T>(path, body, method);
  for (let turn = 0; turn < TURNS && !sent.ok && sent.error === "record-busy"; turn++) {
    await new Promise((resolve) => setTimeout(resolve, pause));
    sent = await send<T>(path, body, method);
  }
  return sent;
}

type Submit = <T>(path: string, body: Record<string, unknown>, more?: { method?: string; ticket?: Ticket }) => Promise<Sent<T> | undefined>;

/**
 * Sends one submission at a time, with an id that stays the same until it was answered: pressing twice, or again after a lost
 * connection, does it once. With a draft's ticket the id is the draft's, in this tab and every other, and after a reload.
 */
export function useSubmission() {
  const held = useRef<{ key: string; id: string } | undefined>(undefined);
  const [isBusy, setBusy] = useState(false);
  const busy = useRef(false);
  const submit = useCallback<Submit>(async <T>(path: string, body: Record<string, unknown>, more: Parameters<Submit>[2] = {}) => {
    if (busy.current) return undefined;
    busy.current = true;
    setBusy(true);
    const { method = "POST", ticket } = more;
    const key = `${method} ${path} ${JSON.stringify(body)}`;
    if (held.current?.key !== key) held.current = { key, id: newSubmissionId() };
    const submissionId = ticket?.id() ?? held.current.id;
    ticket?.sending();
    const sent = await sendInTurn<T>(path, { ...body, submissionId }, method);
    const isAnswered = sent.ok || sent.error !== "offline";
    if (isAnswered) held.current = undefined;
    if (isAnswered) ticket?.answered({ isReused: !sent.ok && sent.error === "submission-reused" });
    busy.current = false;
    setBusy(false);
    return sent;
  }, []);
  return { submit, isBusy };
}
