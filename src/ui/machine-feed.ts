"use client";

import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";

/** How long a lost line is left before it is tried again. */
const TRY_AGAIN_MILLISECONDS = 2000;

/**
 * Reads the page anew whenever anything is written about a machine, by anybody in any job. Answers whether the line to the server stands: a
 * screen that lost it says so, and asks again until it has it.
 */
export function useMachineFeed(machineId: string): boolean {
  const router = useRouter();
  const [isLive, setLive] = useState(true);
  useEffect(() => {
    let source: EventSource | undefined;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let isOver = false;
    let wasLost = false;
    const connect = () => {
      source = new EventSource(`/api/v1/machines/${encodeURIComponent(machineId)}/live`);
      source.addEventListener("open", () => {
        setLive(true);
        // What was written while the line was down was not heard.
        if (wasLost) router.refresh();
        wasLost = false;
      });
      source.addEventListener("moved", () => router.refresh());
      source.addEventListener("error", () => {
        source?.close();
        if (isOver) return;
        wasLost = true;
        setLive(false);
        timer = setTimeout(connect, TRY_AGAIN_MILLISECONDS);
      });
    };
    connect();
    return () => {
      isOver = true;
      clearTimeout(timer);
      source?.close();
    };
  }, [machineId, router]);
  return isLive;
}
