"use client";

import { useState } from "react";
import { EVENTS, type EventRow } from "@/core/catalogue";
import { Choice } from "@/ui/choice";
import { type Ticket, useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { useWriting } from "@/ui/reread";
import type { Problem } from "@/ui/send";
import { dateOnly } from "@/ui/time";
import { sayError, sayIssue } from "@/ui/words/issues";

const eventRows: readonly EventRow[] = EVENTS;
/** What happens most, in one touch. */
const QUICK = [
  ["struck", "Struck something"],
  ["mown-wet-or-tall", "Mown wet or tall"],
  ["operator-changed", "Other operator"],
  ["site-changed", "Other site"],
  ["deck-dropped", "Deck dropped"],
  ["top-dressed", "Top-dressed"],
] as const;

export type LogEntry = {
  id: number;
  label: string;
  at: string;
  who: string;
  words?: string;
  droveOn?: boolean;
  canTakeBack: boolean;
  isHolding: boolean;
  where?: string;
};

type EventDraft = { event: string; words: string; place: string; where: string; droveOn: "" | "yes" | "no" };
const NO_EVENT: EventDraft = { event: "", words: "", place: "", where: "", droveOn: "" };
const NO_HOURS = { hours: "", isCorrection: false };

/** Hours off the meter and what happened, in a few touches; and the log, from which anything logged by hand can be taken back. */
export function LogPanel({
  machineId,
  meterHours,
  events,
  places,
  log,
}: {
  machineId: string;
  /** Blades, units and hangers a strike may have met. */
  places: readonly { id: string; label: string }[];
  meterHours: number | undefined;
  events: readonly string[];
  log: readonly LogEntry[];
}) {
  const { who, system, timeZone } = useSeat();
  const { submit, reread, isBusy } = useWriting();
  const meterDraft = useDraft(`machine:${machineId}:hours`, NO_HOURS);
  const eventDraft = useDraft<EventDraft>(`machine:${machineId}:event`, NO_EVENT);
  const backDraft = useDraft(`machine:${machineId}:take-back`, { id: 0, reason: "" });
  const { hours, isCorrection } = meterDraft.value;
  const { event, words, place, where, droveOn } = eventDraft.value;
  const put = (change: Partial<EventDraft>) => eventDraft.set((before) => ({ ...before, ...change }));
  const taking = backDraft.value;
  const isStrike = event === "struck";
  const [failed, setFailed] = useState<{ error: string; issues: Problem[]; at: "hours" | "event" | "log" }>();
  /** `takes`: the line it takes back, whose reason is asked for where it wants one. */
  const post = async (
    path: string,
    body: Record<string, unknown>,
    at: "hours" | "event" | "log",
    ticket?: Ticket | undefined,
    takes?: number,
  ) => {
    const sent = await submit(`/api/v1/machines/${machineId}/${path}`, { who: who ?? "", ...body }, ticket ? { ticket } : {});
    if (!sent) return false;
    setFailed(sent.ok ? undefined : { error: who ? sent.error : "unknown-person", issues: sent.issues, at });
    if (!sent.ok && takes !== undefined && sent.issues.some(({ code }) => code === "reason-of-substance"))
      backDraft.set((before) => ({ id: takes, reason: before.id === takes ? before.reason : "" }));
    if (sent.ok) reread();
    return sent.ok;
  };
  const meter = Number(hours.replace(",", "."));
  const isReadable = hours.trim() !== "" && Number.isFinite(meter) && meter >= 0;
  const isTooFast = failed?.at === "hours" && failed.issues.some(({ code }) => code === "hours-run-too-fast");
  const logIt = async (how: { isCorrection: boolean; isSure?: boolean }) => {
    if (isReadable && (await post("hours", { meterHours: meter, ...how }, "hours", meterDraft.ticket))) meterDraft.clear();
  };
  const trouble = (at: "hours" | "event" | "log") =>
    failed?.at === at ? (
      <p className="trouble" role="alert">
        {failed.issues.length > 0 && failed.error === "invalid"
          ? failed.issues.map((issue) => sayIssue(issue, system)).join(" ")
          : sayError(failed.error)}
      </p>
    ) : null;
  return (
    <div className="grid content-start gap-4">
      <form
        onSubmit={async (submitted) => {
          submitted.preventDefault();
          await logIt({ isCorrection });
        }}
      >
        <label className="caps block" htmlFor="meter">
          Hour meter{meterHours === undefined ? "" : `, last ${meterHours} h`}
        </label>
        <div className="flex gap-2">
          <input
            id="meter"
            className="input num"
            inputMode="decimal"
            value={hours}
            onChange={(e) => meterDraft.set((before) => ({ ...before, hours: e.target.value }))}
            aria-invalid={hours !== "" && !isReadable}
          />
          <button type="submit" className="btn whitespace-nowrap" disabled={!isReadable || isBusy}>
            Log hours
          </button>
        </div>
        {hours !== "" && !isReadable && <p className="trouble">Hours as the meter shows them, like 1240.5.</p>}
        {trouble("hours")}
        {isTooFast && (
          <button type="button" className="btn my-1 w-full" disabled={isBusy} onClick={() => logIt({ isCorrection, isSure: true })}>
            {hours} h is right
          </button>
        )}
        {((failed?.at === "hours" && !isTooFast) || isCorrection) && (
          <label className="flex min-h-11 items-center gap-2">
            <input
              type="checkbox"
              className="size-5"
              checked={isCorrection}
              onChange={(e) => meterDraft.set((before) => ({ ...before, isCorrection: e.target.checked }))}
            />{" "}
            This is a correction
          </label>
        )}
      </form>
      <form
        onSubmit={async (submitted) => {
          submitted.preventDefault();
          const strike = isStrike ? { ...(droveOn ? { droveOn: droveOn === "yes" } : {}), ...(where ? { where } : {}) } : {};
          const told = { event, ...(words ? { words } : {}), ...(place ? { place } : {}), ...strike };
          if (event && (await post("events", told, "event", eventDraft.ticket))) eventDraft.clear();
        }}
      >
        <label className="caps block" htmlFor="event">
          What happened
        </label>
        <div className="mb-1 flex flex-wrap gap-1">
          {QUICK.filter(([id]) => events.includes(id)).map(([id, label]) => (
            <button
              key={id}
              type="button"
              aria-pressed={event === id}
              className={`btn px-3 ${event === id ? "btn-on" : ""}`}
              onClick={() => put({ event: event === id ? "" : id })}
            >
              {label}
            </button>
          ))}
        </div>
        <select id="event" className="input" value={event} onChange={(e) => put({ event: e.target.value })}>
          <option value="">Pick one</option>
          {eventRows
            .filter(({ id }) => events.includes(id))
            .map(({ id, label }) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
        </select>
        {event && (
          <input
            className="input mt-2"
            aria-label="In words: what, where"
            placeholder={isStrike ? "what it hit" : "what, where"}
            value={words}
            onChange={(e) => put({ words: e.target.value })}
          />
        )}
        {isStrike && (
          <>
            <input
              className="input mt-2"
              aria-label="Where on the site"
              placeholder="where on the site"
              value={where}
              onChange={(e) => put({ where: e.target.value })}
            />
            <label className="caps mt-2 block" htmlFor="strike-place">
              Which blade, unit or hanger
            </label>
            <select id="strike-place" className="input" value={place} onChange={(e) => put({ place: e.target.value })}>
              <option value="">not known</option>
              {places.map(({ id, label }) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </select>
            <Choice
              label="The drive"
              value={droveOn}
              options={[
                ["no", "Stopped at once"],
                ["yes", "Ran on"],
              ]}
              onChange={(next) => put({ droveOn: next })}
            />
            <p className="text-sm leading-snug text-soft">
              A strike puts blades, shaft, hanger and gearbox under suspicion until each was looked at.
            </p>
          </>
        )}
        <button type="submit" className="btn mt-2" disabled={event === "" || isBusy}>
          Log it
        </button>
        {trouble("event")}
      </form>
      <section aria-label="Log">
        <h3 className="caps">Log</h3>
        {log.length === 0 && <p className="text-soft">Nothing logged yet.</p>}
        <ul className="ruled max-h-72 overflow-y-auto" tabIndex={0}>
          {log.map((entry) => (
            <li key={entry.id} className="flex flex-wrap items-center gap-2 py-1">
              <span className="grow leading-tight">
                {entry.label}
                {entry.words ? `: ${entry.words}` : ""}
                {entry.where ? `, ${entry.where}` : ""}
                {entry.droveOn === undefined ? "" : entry.droveOn ? "; the drive ran on" : "; stopped at once"}
                <span className="block text-sm text-soft">
                  {dateOnly(entry.at, timeZone)}, {entry.who}
                </span>
              </span>
              {entry.canTakeBack && (
                <button
                  type="button"
                  className="btn btn-quiet"
                  disabled={isBusy}
                  onClick={() =>
                    entry.isHolding
                      ? backDraft.set({ id: entry.id, reason: "" })
                      : post(`events/${entry.id}/void`, {}, "log", undefined, entry.id)
                  }
                  aria-label={`Take back: ${entry.label}`}
                >
                  Take back
                </button>
              )}
              {taking.id === entry.id && (
                <form
                  className="w-full"
                  onSubmit={async (submitted) => {
                    submitted.preventDefault();
                    if (await post(`events/${entry.id}/void`, { reason: taking.reason }, "log", backDraft.ticket)) backDraft.clear();
                  }}
                >
                  <label className="block text-sm font-semibold" htmlFor="take-back-reason">
                    It keeps the machine from running. Why was it not so?
                  </label>
                  <input
                    id="take-back-reason"
                    className="input"
                    value={taking.reason}
                    onChange={(e) => backDraft.set({ id: entry.id, reason: e.target.value })}
                  />
                  <button type="submit" className="btn mt-1" disabled={isBusy || taking.reason.trim() === ""}>
                    Take it back
                  </button>
                </form>
              )}
            </li>
          ))}
        </ul>
        {trouble("log")}
      </section>
    </div>
  );
}
