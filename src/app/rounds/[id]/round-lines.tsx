"use client";

import Link from "next/link";
import { type KeyboardEvent, useRef } from "react";
import type { RoundRecord } from "@/data/fleet/rounds";
import { dateOnly } from "@/ui/time";
import { usePost } from "@/ui/use-post";

/** Arrows go from machine to machine, Enter writes down that it was done; each can be taken back. */
export function RoundLines({ round, now }: { round: RoundRecord; now: string }) {
  const list = useRef<HTMLUListElement>(null);
  const goTo = (from: HTMLElement, by: number) => {
    const buttons = [...(list.current?.querySelectorAll<HTMLButtonElement>("button[data-mark]") ?? [])];
    buttons[buttons.indexOf(from as HTMLButtonElement) + by]?.focus();
  };
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const by = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    if (by === 0) return;
    event.preventDefault();
    goTo(event.currentTarget, by);
  };
  return (
    <ul ref={list} className="ruled" aria-label="Machines of the round">
      {round.lines.map((line) => (
        <Line key={line.machineId} round={round} line={line} now={now} onKeyDown={onKeyDown} onMarked={(from) => goTo(from, 1)} />
      ))}
    </ul>
  );
}

/** One machine of it: busy by itself, so that the next can be marked while this one is being written down. */
function Line(args: {
  round: RoundRecord;
  line: RoundRecord["lines"][number];
  now: string;
  onKeyDown: (event: KeyboardEvent<HTMLElement>) => void;
  onMarked: (from: HTMLElement) => void;
}) {
  const { round, now, onKeyDown } = args;
  const { machineId, fleetNumber, name, site, done, recheck } = args.line;
  const { post, isBusy, trouble } = usePost();
  const path = `/api/v1/machines/${machineId}/service`;
  const mark = async (kind: "done" | "rechecked", from: HTMLElement) => {
    if (await post(path, { what: round.what, kind, roundId: round.id })) args.onMarked(from);
  };
  const said = recheck?.done ?? done;
  const isOpen = done === undefined || (recheck !== undefined && recheck.done === undefined);
  return (
    <li className="flex flex-wrap items-center gap-x-3 py-1">
      <Link href={`/machines/${machineId}`} prefetch={false} className="num w-16 text-xl font-bold underline">
        {fleetNumber}
      </Link>
      <span className="min-w-40 grow leading-tight">
        {name}
        <span className="block text-sm text-soft">{site}</span>
      </span>
      {said && (
        <span className="text-sm text-good">
          {recheck?.done ? "looked at again" : "done"} {dateOnly(said.at)}, {said.who}
        </span>
      )}
      {recheck && !recheck.done && (
        <span className={`text-sm ${recheck.dueAt < now ? "font-bold text-mark" : "text-soft"}`}>again from {dateOnly(recheck.dueAt)}</span>
      )}
      {isOpen && (
        <button
          type="button"
          data-mark
          className={`btn ${done ? "" : "btn-go"}`}
          disabled={isBusy}
          aria-label={`${fleetNumber}: ${done ? "looked at again" : "done"}`}
          onKeyDown={onKeyDown}
          onClick={(event) => mark(done ? "rechecked" : "done", event.currentTarget)}
        >
          {done ? "Looked at again" : "Done"}
        </button>
      )}
      {said && (
        <button
          type="button"
          className="btn btn-quiet"
          disabled={isBusy}
          aria-label={`${fleetNumber}: undo`}
          onClick={() => post(`${path}/${said.entryId}/take-back`, {})}
        >
          Undo
        </button>
      )}
      {trouble && (
        <p className="trouble w-full" role="alert">
          {trouble}
        </p>
      )}
    </li>
  );
}
