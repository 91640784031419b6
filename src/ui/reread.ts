"use client";

import { useRouter } from "next/navigation";
import { useCallback, useTransition } from "react";
import { useSubmission } from "./send";

/** When this page was last asked for anew, on its own clock in milliseconds. */
let lastAsked = Number.NEGATIVE_INFINITY;

/** Whether the page was asked for anew at a moment of `performance.now()` or after it: what it shows then holds everything written before. */
export const wasAskedSince = (moment: number): boolean => lastAsked >= moment;

/** Draws the page anew from the record. Until it stands, what it shows is of before: whoever wrote waits that long before he writes on. */
export function useReread(): { reread: () => void; isRereading: boolean } {
  const router = useRouter();
  const [isRereading, start] = useTransition();
  const reread = useCallback(() => {
    lastAsked = performance.now();
    start(() => router.refresh());
  }, [router]);
  return { reread, isRereading };
}

/** One submission at a time, and the page drawn anew from what it wrote; busy until both are done. */
export function useWriting() {
  const { submit, isBusy } = useSubmission();
  const { reread, isRereading } = useReread();
  return { submit, reread, isBusy: isBusy || isRereading };
}
