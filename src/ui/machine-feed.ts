"use client";

import { useEffect, useState } from "react";
import { useAskAnew, wasAskedSince } from "./reread";
import { isUnderWay } from "./send";

/** How long a lost line is left before it is tried again. */
const TRY_AGAIN_MILLISECONDS = 2000;
/** A line that is quiet for longer than two of the server's beats is lost, although nobody said so. */
const QUIET_MILLISECONDS = 45_000;

/** So long what was written waits to be drawn: whoever wrote it here asks for it himself, and once is enough. */
const GATHER_MILLISECONDS = 150;
const LONGEST_GATHER_MILLISECONDS = 3000;

/** So long a tab out of sight keeps its line. */
const REST_MILLISECONDS = 20_000;

/**
 * Reads the page anew whenever anything is written about a machine, by anybody in any job. Answers whether the line to the server stands: a
 * screen that lost it says so, and asks again until it has it.
 */
export function useMachineFeed(machineId: string): boolean {
  const askAnew = useAskAnew();
  const [isLive, setLive] = useState(true);
  useEffect(() => {
    let source: EventSource | undefined;
    let again: ReturnType<typeof setTimeout> | undefined;
    let quiet: ReturnType<typeof setTimeout> | undefined;
    let gathering: ReturnType<typeof setTimeout> | undefined;
    let movedAt = 0;
    let wasLost = false;
    const gather = (since: number) => {
      // What is on its way from here is answered soon, and then the page is asked for anyway; another's stop does not wait for an answer that hangs.
      if (isUnderWay() && performance.now() - since < LONGEST_GATHER_MILLISECONDS) {
        gathering = setTimeout(gather, GATHER_MILLISECONDS, since);
        return;
      }
      gathering = undefined;
      if (!wasAskedSince(movedAt)) askAnew();
    };
    const lose = () => {
      source?.close();
      clearTimeout(quiet);
      clearTimeout(again);
      wasLost = true;
      setLive(false);
      again = setTimeout(connect, TRY_AGAIN_MILLISECONDS);
    };
    const hear = () => {
      clearTimeout(quiet);
      quiet = setTimeout(lose, QUIET_MILLISECONDS);
    };
    const connect = () => {
      source = new EventSource(`/api/v1/machines/${encodeURIComponent(machineId)}/live`);
      source.addEventListener("open", () => {
        hear();
        setLive(true);
        // What was written while the line was down was not heard.
        if (wasLost) askAnew();
        wasLost = false;
      });
      source.addEventListener("beat", hear);
      source.addEventListener("moved", () => {
        hear();
        movedAt = performance.now();
        gathering ??= setTimeout(gather, GATHER_MILLISECONDS, movedAt);
      });
      source.addEventListener("error", lose);
      hear();
    };
    // A browser gives one server six lines at most: a tab nobody looks at lets its own go, and reads anew when it is looked at.
    let resting: ReturnType<typeof setTimeout> | undefined;
    const rest = () => {
      clearTimeout(resting);
      if (document.visibilityState === "visible") {
        if (!source || source.readyState === EventSource.CLOSED) {
          clearTimeout(again);
          wasLost = true;
          connect();
        }
        return;
      }
      resting = setTimeout(() => {
        source?.close();
        clearTimeout(quiet);
        clearTimeout(again);
      }, REST_MILLISECONDS);
    };
    connect();
    document.addEventListener("visibilitychange", rest);
    window.addEventListener("offline", lose);
    return () => {
      document.removeEventListener("visibilitychange", rest);
      clearTimeout(resting);
      window.removeEventListener("offline", lose);
      clearTimeout(again);
      clearTimeout(quiet);
      clearTimeout(gathering);
      source?.close();
    };
  }, [machineId, askAnew]);
  return isLive;
}
