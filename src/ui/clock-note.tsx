"use client";

import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { useSeat } from "./person";
import { dateAndTime } from "./time";

const SLACK_MILLISECONDS = 10 * 60_000;

/** Says a clock that is off: the server's, by what is on the record; this device's, by the server's. Order never hangs on either. */
export function ClockNote({ now, writtenAhead }: { now: string; writtenAhead: string | undefined }) {
  const { timeZone } = useSeat();
  const [here, setHere] = useState<string>();
  useEffect(() => {
    const own = Date.now();
    setHere(Math.abs(own - Date.parse(now)) > SLACK_MILLISECONDS ? new Date(own).toISOString() : undefined);
  }, [now]);
  const note = useRef<HTMLParagraphElement>(null);
  const isShown = writtenAhead !== undefined || here !== undefined;
  // Screens that fill the window leave it room.
  useLayoutEffect(() => {
    const height = isShown ? (note.current?.offsetHeight ?? 0) : 0;
    document.documentElement.style.setProperty("--notes", `${height}px`);
  }, [isShown]);
  if (!isShown) return null;
  return (
    <p ref={note} className="bg-mark px-3 py-1 font-bold text-paper print:hidden" role="status">
      {writtenAhead
        ? `The server’s clock says ${dateAndTime(now, timeZone)}, but the record was written up to ${dateAndTime(writtenAhead, timeZone)}. The order of things stands; set the clock right.`
        : `This device’s clock says ${dateAndTime(here ?? now, timeZone)}, the server’s ${dateAndTime(now, timeZone)}. Times on the record are the server’s.`}
    </p>
  );
}
