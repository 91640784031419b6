"use client";

import Link from "next/link";
import { useState } from "react";
import type { SetEntry } from "@/core/fleet/parts";
import type { SetRecord } from "@/data/service/parts";
import { Choice } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { dateOnly } from "@/ui/time";
import { usePost } from "@/ui/use-post";

type Machines = readonly { id: string; fleetNumber: string; places: readonly { id: string; label: string }[] }[];
const WORK = ["fine turf", "rough", "leaves"] as const;

/** Every physical set of a part: where it is, what it has run, and what is done to it next. */
export function SetsPanel({ partId, sets, machines }: { partId: number; sets: readonly SetRecord[]; machines: Machines }) {
  const { post, isBusy, trouble } = usePost();
  const { value, set, clear, ticket } = useDraft(`set:${partId}`, { mark: "", lot: "" });
  const numberOf = (id: string) => machines.find((one) => one.id === id)?.fleetNumber ?? id.toUpperCase();
  const [open, setOpen] = useState<number>();
  const add = async () => {
    const sent = await post("/api/v1/sets", { partId, mark: value.mark, ...(value.lot.trim() ? { lot: value.lot } : {}) }, { ticket });
    if (sent) clear();
  };
  return (
    <section aria-label="Sets" className="py-2">
      <h2 className="text-xl">Its sets, each by its mark</h2>
      <ul className="ruled">
        {sets.map((one) => (
          <li key={one.id} className="py-1">
            <button
              type="button"
              className="flex min-h-11 w-full flex-wrap items-baseline gap-x-3 text-left"
              aria-expanded={open === one.id}
              onClick={() => setOpen(open === one.id ? undefined : one.id)}
            >
              <span className="num w-20 text-lg font-bold">{one.mark}</span>
              <span className="grow">{sayStanding(one, numberOf)}</span>
              <span className="num">
                {one.standing.hours.toFixed(1)} h{one.standing.hasUnreadStretch ? " and a stretch nobody read" : ""}, edge{" "}
                {one.standing.edgeHours.toFixed(1)} h
              </span>
            </button>
            {open === one.id && <SetDetail record={one} machines={machines} />}
          </li>
        ))}
        {sets.length === 0 && (
          <li className="py-1 text-soft">None is marked yet. A mark of its own, by punch or paint, is what its hours are counted under.</li>
        )}
      </ul>
      <div className="flex flex-wrap items-end gap-2 py-1">
        <label>
          <span className="caps">Mark of a new set</span>
          <input
            className="input w-32"
            value={value.mark}
            maxLength={20}
            onChange={(event) => set({ ...value, mark: event.target.value })}
          />
        </label>
        <label>
          <span className="caps">Lot</span>
          <input className="input w-32" value={value.lot} maxLength={40} onChange={(event) => set({ ...value, lot: event.target.value })} />
        </label>
        <button type="button" className="btn" disabled={isBusy || value.mark.trim() === ""} onClick={add}>
          Add it
        </button>
      </div>
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </section>
  );
}

function sayStanding({ standing, lot }: SetRecord, numberOf: (id: string) => string): string {
  const { on, lies, finished } = standing;
  const where = finished
    ? `finished: ${finished.why}`
    : on
      ? `on ${numberOf(on.machineId)}${on.place ? `, ${on.place}` : ""}, ${on.work}, since ${dateOnly(on.since)}`
      : lies
        ? `lies at ${lies}`
        : "lies ready";
  return `${where}${lot ? ` · lot ${lot}` : ""}`;
}

const LOG_WORDS: Record<SetEntry["kind"], string> = {
  fitted: "fitted",
  "came-off": "came off",
  sharpened: "sharpened",
  looked: "looked at",
  finished: "finished",
  put: "put",
};

function SetDetail({ record, machines }: { record: SetRecord; machines: Machines }) {
  const { standing, log } = record;
  const { post, isBusy, trouble } = usePost();
  const [machineId, setMachine] = useState("");
  const [place, setPlace] = useState("");
  const [work, setWork] = useState<string>("rough");
  const [why, setWhy] = useState("");
  const [where, setWhere] = useState("");
  const say = (entry: Record<string, unknown>) => post(`/api/v1/sets/${record.id}/entries`, entry);
  const last = log.at(-1);
  return (
    <div className="border-l-4 border-ink py-1 pl-3">
      {!standing.finished && !standing.on && (
        <div className="flex flex-wrap items-end gap-2">
          <label>
            <span className="caps">Fit it on</span>
            <select className="input w-36" value={machineId} onChange={(event) => setMachine(event.target.value)}>
              <option value="">which machine</option>
              {machines.map(({ id, fleetNumber }) => (
                <option key={id} value={id}>
                  {fleetNumber}
                </option>
              ))}
            </select>
          </label>
          <label>
            <span className="caps">At</span>
            <select className="input w-40" value={place} onChange={(event) => setPlace(event.target.value)}>
              <option value="">all of it</option>
              {machines
                .find(({ id }) => id === machineId)
                ?.places.map(({ id, label }) => (
                  <option key={id} value={id}>
                    {label}
                  </option>
                ))}
            </select>
          </label>
          <Choice label="For" value={work} options={WORK.map((one) => [one, one])} onChange={setWork} />
          <button
            type="button"
            className="btn btn-go"
            disabled={isBusy || machineId === ""}
            onClick={() => say({ kind: "fitted", machineId, work, ...(place ? { place } : {}) })}
          >
            Fitted
          </button>
        </div>
      )}
      {!standing.finished && (
        <div className="flex flex-wrap items-end gap-2 py-1">
          {standing.on ? (
            <>
              <label>
                <span className="caps">Came off because</span>
                <input className="input w-48" value={why} maxLength={80} onChange={(event) => setWhy(event.target.value)} />
              </label>
              <button type="button" className="btn" disabled={isBusy || why.trim() === ""} onClick={() => say({ kind: "came-off", why })}>
                Came off
              </button>
            </>
          ) : (
            <button type="button" className="btn" disabled={isBusy} onClick={() => say({ kind: "sharpened" })}>
              Sharpened
            </button>
          )}
          {!standing.on && (
            <>
              <label>
                <span className="caps">Lies at, or is kept for</span>
                <input
                  className="input w-56"
                  value={where}
                  maxLength={80}
                  placeholder="rack 2; reference of ZT-1"
                  onChange={(event) => setWhere(event.target.value)}
                />
              </label>
              <button type="button" className="btn" disabled={isBusy || where.trim() === ""} onClick={() => say({ kind: "put", where })}>
                Put there
              </button>
            </>
          )}
          <button type="button" className="btn" disabled={isBusy} onClick={() => say({ kind: "looked", isDull: false })}>
            Still sharp
          </button>
          <button type="button" className="btn" disabled={isBusy} onClick={() => say({ kind: "looked", isDull: true })}>
            Dull
          </button>
          {(["worn", "damaged", "lost"] as const).map((one) => (
            <button key={one} type="button" className="btn btn-stop" disabled={isBusy} onClick={() => say({ kind: "finished", why: one })}>
              Finished: {one}
            </button>
          ))}
        </div>
      )}
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
      <ul className="ruled">
        {[...log].reverse().map((entry) => (
          <li key={entry.id} className="flex items-center gap-3 py-0.5">
            <span className="num w-28 shrink-0 text-sm text-soft">{dateOnly(entry.at)}</span>
            <span className="grow">{sayEntry(entry)}</span>
            <span className="text-sm text-soft">{entry.who}</span>
            {entry.id === last?.id && (
              <button
                type="button"
                className="btn btn-quiet"
                disabled={isBusy}
                onClick={() => post(`/api/v1/sets/${record.id}/entries/${entry.id}/take-back`, {})}
              >
                Undo
              </button>
            )}
          </li>
        ))}
        {log.length === 0 && <li className="py-1 text-soft">Nothing written down of it yet.</li>}
      </ul>
    </div>
  );
}

function sayEntry(entry: SetEntry) {
  switch (entry.kind) {
    case "fitted":
      return (
        <>
          fitted on{" "}
          <Link href={`/machines/${entry.machineId}`} className="underline" prefetch={false}>
            {entry.machineId.toUpperCase()}
          </Link>
          {entry.place ? `, ${entry.place}` : ""}, for {entry.work}
          {entry.machineHours === undefined ? "" : `, at ${entry.machineHours.toFixed(1)} h`}
        </>
      );
    case "came-off":
      return `came off: ${entry.why}${entry.machineHours === undefined ? "" : `, at ${entry.machineHours.toFixed(1)} h`}`;
    case "looked":
      return entry.isDull ? "looked at: dull" : "looked at: still sharp";
    case "finished":
      return `finished: ${entry.why}`;
    case "put":
      return `put at ${entry.where}`;
    default:
      return LOG_WORDS[entry.kind];
  }
}
