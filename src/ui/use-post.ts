"use client";

import { useState } from "react";
import type { Ticket } from "./draft";
import { askWho, useSeat } from "./person";
import { useWriting } from "./reread";
import type { Problem } from "./send";
import { sayError, sayIssue } from "./words/issues";

type More = { method?: string; ticket?: Ticket };

/**
 * Sends one change at a time under the initials of whoever sits here, says in words what kept it from being written, and draws the page anew once it was.
 * `post` answers what came back, or nothing where it was refused or the line was lost: what was typed stays.
 */
export function usePost() {
  const { who, system } = useSeat();
  const { submit, reread, isBusy } = useWriting();
  const [issues, setIssues] = useState<Problem[]>([]);
  const [trouble, setTrouble] = useState("");
  const post = async <T>(path: string, body: Record<string, unknown>, more: More = {}): Promise<T | undefined> => {
    if (!who) askWho();
    const sent = await submit<T>(path, { who: who ?? "", ...body }, more);
    if (!sent) return undefined;
    if (sent.ok) {
      setIssues([]);
      setTrouble("");
      reread();
      return sent.answer;
    }
    // It may stand otherwise than this page shows, where another was first.
    if (sent.error !== "invalid" && sent.error !== "offline") reread();
    setIssues(sent.error === "invalid" ? sent.issues : []);
    const [first] = sent.issues;
    setTrouble(first && sent.error === "invalid" ? sayIssue(first, system) : sayError(who ? sent.error : "unknown-person"));
    return undefined;
  };
  /** What is wrong at one field of what was sent. */
  const troubleAt = (...path: string[]): string | undefined => {
    const found = issues.find((issue) => path.every((part, k) => String(issue.path[k]) === part));
    return found && sayIssue(found, system);
  };
  return { post, isBusy, trouble, issues, troubleAt };
}
