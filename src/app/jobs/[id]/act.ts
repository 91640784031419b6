"use client";

import { useCallback, useMemo, useState } from "react";
import type { Ticket } from "@/ui/draft";
import { askWho, useSeat } from "@/ui/person";
import { useWriting } from "@/ui/reread";
import type { Problem } from "@/ui/send";
import { sayError, sayIssue } from "@/ui/words/issues";

export type Act = {
  /** Sends one action of the job; `undefined` when it was refused, and then `trouble` and `issues` say why. */
  send: <T>(action: string, body: Record<string, unknown>, ticket?: Ticket) => Promise<T | undefined>;
  /** On its way, or written and the page not yet drawn anew: what is asked may be answered already. */
  isBusy: boolean;
  trouble: string;
  error: string;
  issues: Problem[];
  /** The action last sent, which trouble and issues are about. */
  lastAction: string;
  /** How often this screen wrote something, and the step it wrote last: what others write does not count. */
  sent: { times: number; stepId: number };
  clear: () => void;
};

/** What a panel does to its job, with the sentence for what went wrong; after a success the page is read anew. */
export function useAct(jobId: number): Act {
  const { who, system } = useSeat();
  const { submit, reread, isBusy } = useWriting();
  const [failed, setFailed] = useState<{ error: string; issues: Problem[] }>({ error: "", issues: [] });
  const [lastAction, setLastAction] = useState("");
  const [sent, setSent] = useState({ times: 0, stepId: 0 });
  const sendAction = useCallback(
    async <T>(action: string, body: Record<string, unknown>, ticket?: Ticket): Promise<T | undefined> => {
      if (!who) {
        setFailed({ error: "unknown-person", issues: [] });
        askWho();
        return undefined;
      }
      setLastAction(action);
      const outcome = await submit<T>(`/api/v1/jobs/${jobId}/${action}`, { who, ...body }, ticket ? { ticket } : {});
      if (!outcome) return undefined;
      setFailed(outcome.ok ? { error: "", issues: [] } : { error: outcome.error, issues: outcome.issues });
      if (!outcome.ok) return undefined;
      const { stepId = 0 } = outcome.answer as { stepId?: number };
      setSent(({ times }) => ({ times: times + 1, stepId }));
      reread();
      return outcome.answer;
    },
    [who, jobId, submit, reread],
  );
  const clear = useCallback(() => setFailed({ error: "", issues: [] }), []);
  const sentences = failed.issues.map((issue) => sayIssue(issue, system));
  const trouble = failed.error === "" ? "" : [sayError(failed.error), ...(failed.error === "not-proved" ? [] : sentences)].join(" ");
  // The same object while nothing of it changed: what it is handed to need not be drawn anew with every key.
  return useMemo(
    () => ({ send: sendAction, isBusy, trouble, error: failed.error, issues: failed.issues, lastAction, sent, clear }),
    [sendAction, isBusy, trouble, failed, lastAction, sent, clear],
  );
}
