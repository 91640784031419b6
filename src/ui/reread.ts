"use client";

import { useRouter } from "next/navigation";
import { useCallback, useEffect, useState, useTransition } from "react";
import { useSubmission } from "./send";

/** When this page was last asked for anew, on its own clock in milliseconds. */
let lastAsked = Number.NEGATIVE_INFINITY;

/** Whether the page was asked for anew at a moment of `performance.now()` or after it: what it shows then holds everything written before. */
export const wasAskedSince = (moment: number): boolean => lastAsked >= moment;

/** A line that hangs does not keep anybody from working: so long is waited for it, and what is written then is the record's to judge. */
const LONGEST_MILLISECONDS = 8000;

/** Asks for the page anew from the record. */
export function useAskAnew(): () => void {
  const router = useRouter();
  return useCallback(() => {
    lastAsked = performance.now();
    router.refresh();
  }, [router]);
}

/** The same, and whether it stands yet. Until it stands, what it shows is of before: whoever wrote waits that long before he writes on. */
export function useReread(): { reread: () => void; isRereading: boolean } {
  const askAnew = useAskAnew();
  const [isPending, start] = useTransition();
  const [isLate, setLate] = useState(false);
  useEffect(() => {
    if (!isPending) return;
    const late = setTimeout(() => setLate(true), LONGEST_MILLISECONDS);
    return () => {
      clearTimeout(late);
      setLate(false);
    };
  }, [isPending]);
  const reread = useCallback(() => start(askAnew), [askAnew]);
  return { reread, isRereading: isPending && !isLate };
}

/** One submission at a time, and the page drawn anew from what it wrote; busy until both are done. */
export function useWriting() {
  const { submit, isBusy } = useSubmission();
  const { reread, isRereading } = useReread();
  return { submit, reread, isBusy: isBusy || isRereading };
}
