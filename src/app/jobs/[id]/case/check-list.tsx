"use client";

import dynamic from "next/dynamic";
import { useEffect, useState } from "react";
import type { WorkUp } from "@/core/diagnosis";
import type { JobView } from "@/data/job/job-view";
import { useSeat } from "@/ui/person";
import { send } from "@/ui/send";
import type { Desk } from "./use-diagnosis";

const Within = dynamic(() => import("../within").then((module) => module.Within));

const minutes = (value: number) => Math.max(1, Math.round(value));

/** The head of the list of checks: which school orders it, how long it is expected to take, and the minutes there are. */
export function CheckListHead({
  view,
  desk,
  order,
  setOrder,
}: {
  view: JobView;
  desk: Desk;
  order: "information" | "walk-round";
  setOrder: (order: "information" | "walk-round") => void;
}) {
  const seat = useSeat();
  const { workUp } = desk;
  if (!workUp || workUp.diagnosis.symptoms.length === 0 || workUp.advice.code === "found") return null;
  const turn = (next: typeof order) => {
    setOrder(next);
    if (seat.who) send(`/api/v1/people/${encodeURIComponent(seat.who)}`, { who: seat.who, checkOrder: next }, "PATCH");
  };
  return (
    <div className="mt-2">
      <h2 className="caps">Check next</h2>
      <div className="flex items-center gap-1">
        <fieldset className="flex grow" aria-label="Order of checks">
          {(["information", "walk-round"] as const).map((school) => (
            <button
              key={school}
              type="button"
              aria-pressed={order === school}
              className={`btn min-h-11 grow flex-col !gap-0 !px-1 text-sm leading-none whitespace-nowrap ${order === school ? "btn-on" : ""}`}
              onClick={() => turn(school)}
            >
              {school === "information" ? "Tells most" : "Walk-round"}
              <span className="text-xs font-normal">{expected(workUp, school, order)}</span>
            </button>
          ))}
        </fieldset>
        <MinutesLeft desk={desk} />
      </div>
      {desk.minutesLeft !== undefined && <Within view={view} workUp={workUp} minutesLeft={desk.minutesLeft} />}
    </div>
  );
}

function expected({ plan, other }: WorkUp, school: string, order: string): string {
  const value = school === order ? plan.expectedMinutes : other.expectedMinutes;
  return value > 0 ? `≈${minutes(value)} min` : "";
}

/** A working day and a bit: more is no plan. */
const MOST_MINUTES = 600;

/** "I have 20 minutes": only what fits is listed, making ready counted. */
function MinutesLeft({ desk }: { desk: Desk }) {
  const [text, setText] = useState("");
  const { setMinutesLeft } = desk;
  const value = Number(text.replace(",", "."));
  const isEmpty = text.trim() === "";
  const isReadable = Number.isFinite(value) && value >= 0 && value <= MOST_MINUTES;
  useEffect(() => {
    setMinutesLeft(!isEmpty && isReadable ? value : undefined);
  }, [isEmpty, isReadable, value, setMinutesLeft]);
  return (
    <label className="flex items-center gap-1 text-sm">
      <span className="sr-only">I have</span>
      <input
        className="input num w-14 !px-1 text-center"
        inputMode="numeric"
        aria-label="Minutes I have"
        value={text}
        placeholder="–"
        aria-invalid={!isEmpty && !isReadable}
        onChange={(event) => setText(event.target.value)}
      />
      {isEmpty || isReadable ? "min" : <span className="trouble">like 20</span>}
    </label>
  );
}
