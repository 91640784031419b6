"use client";

import Link from "next/link";
import { type ReactNode, useState } from "react";
import { presses } from "@/core/fleet/service/standings";
import { taskRow } from "@/core/fleet/service/tasks";
import type { DueLine } from "@/data/service/due";
import { ReasonForm } from "@/ui/reason-form";
import { dateOnly, dayIn } from "@/ui/time";
import { usePost } from "@/ui/use-post";
import { sayOwed } from "@/ui/words/owed";
import { STATE_LABELS, STATE_MARKS, STATE_TONES, sayDay, sayRaised, sayRule, taskLabel } from "@/ui/words/service";

type Named = { id: string; label: string };

/** Something to be done to a machine, whatever it is: how it stands, done at a touch, put off with a reason. */
export function TaskLine(args: {
  line: DueLine;
  /** Where it stands among those of other machines. */
  isTitled?: boolean;
  places: readonly Named[];
  lastEntry?: { id: number; kind: string } | undefined;
  now: string;
}) {
  const { line, now } = args;
  const { machineId, what, state, owed } = line;
  const { post, isBusy, trouble } = usePost();
  const [isPutting, setPutting] = useState(false);
  const [left, setLeft] = useState<readonly string[]>([]);
  const at = (line.places ?? []).filter((id) => !left.includes(id));
  const path = owed ? `/api/v1/owed/${owed.id}` : `/api/v1/machines/${machineId}/service`;
  const body = owed ? {} : { what, ...(at.length > 0 ? { places: at } : {}) };
  return (
    <li className="py-1.5">
      <div className="flex flex-wrap items-center gap-x-3">
        <span className={`w-28 shrink-0 font-bold ${STATE_TONES[state]}`}>
          <span aria-hidden="true">{STATE_MARKS[state]} </span>
          {STATE_LABELS[state]}
        </span>
        <Told line={line} isTitled={args.isTitled ?? false}>
          <Places
            places={(line.places ?? []).map((id) => args.places.find((one) => one.id === id) ?? { id, label: id })}
            left={left}
            onLeave={setLeft}
          />
        </Told>
        <span className="num text-right text-sm">{sayDay(line, now)}</span>
        <span className="flex gap-1">
          {!owed && taskRow(what)?.isCounted ? (
            <Link href={`/complaint?machine=${machineId}`} className="btn px-3">
              Count it in a job
            </Link>
          ) : (
            <button
              type="button"
              className="btn px-3"
              disabled={isBusy || (line.places !== undefined && at.length === 0)}
              onClick={() => post(owed ? `${path}/done` : path, body)}
            >
              {taskRow(what)?.goesBy ? "Ordered" : "Done"}
            </button>
          )}
          {(presses(state) || owed) && (
            <button type="button" className="btn px-3" aria-expanded={isPutting} onClick={() => setPutting(!isPutting)}>
              Put off
            </button>
          )}
          {args.lastEntry && (
            <button
              type="button"
              className="btn btn-quiet"
              disabled={isBusy}
              onClick={() => post(`/api/v1/machines/${machineId}/service/${args.lastEntry?.id}/take-back`, {})}
            >
              Undo
            </button>
          )}
        </span>
      </div>
      {isPutting && (
        <PutOff
          keep={`put-off:${machineId}:${owed ? `owed-${owed.id}` : what}`}
          isBusy={isBusy}
          onSend={async (untilDay, words) => {
            const sent = await post(`${path}/postpone`, { ...body, untilDay, words });
            if (sent) setPutting(false);
            return sent;
          }}
        />
      )}
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </li>
  );
}

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** What it is, by whose rule, when it was last done, and why it presses. */
function Told({ line, isTitled, children }: { line: DueLine; isTitled: boolean; children: ReactNode }) {
  const { machineId, fleetNumber, what, owed, rule, last, postponed } = line;
  const raised = sayRaised(line);
  const facts = [
    owed ? (owed.jobId === undefined ? "" : `job ${owed.jobId}`) : sayRule(rule),
    last ? `last ${dateOnly(last.at)}, ${last.who}` : "",
    raised ? `raised: ${raised}` : "",
    postponed ? `put off to ${dateOnly(postponed.untilDay)} by ${postponed.who}: ${postponed.words}` : "",
  ];
  return (
    <span className="min-w-52 grow leading-tight">
      {isTitled && (
        <Link
          href={owed?.jobId === undefined ? `/machines/${machineId}#service` : `/jobs/${owed.jobId}`}
          prefetch={false}
          className="num text-lg font-bold underline"
        >
          {fleetNumber}
        </Link>
      )}{" "}
      <span className="text-lg font-semibold">{owed ? capital(sayOwed(owed)) : taskLabel(what)}</span>
      {children}
      <span className="block text-sm text-soft">{facts.filter(Boolean).join(" · ")}</span>
    </span>
  );
}

/** Where it is; of several, those that were left out this time are touched first. */
function Places({ places, left, onLeave }: { places: readonly Named[]; left: readonly string[]; onLeave: (left: string[]) => void }) {
  if (places.length === 0) return null;
  if (places.length === 1) return <span>: {places[0]?.label.toLowerCase()}</span>;
  return (
    <span className="ml-1 inline-flex flex-wrap gap-1 align-middle">
      {places.map(({ id, label }) => {
        const isLeft = left.includes(id);
        return (
          <button
            key={id}
            type="button"
            className={`btn px-2 text-sm ${isLeft ? "text-soft line-through" : "btn-on"}`}
            aria-pressed={!isLeft}
            onClick={() => onLeave(isLeft ? left.filter((one) => one !== id) : [...left, id])}
          >
            {label.toLowerCase()}
          </button>
        );
      })}
    </span>
  );
}

/** Until when, and why. */
function PutOff(args: { keep: string; isBusy: boolean; onSend: (untilDay: string, words: string) => Promise<unknown> }) {
  const [untilDay, setUntil] = useState(() => dayIn(7));
  return (
    <div className="border-l-4 border-ink pl-2">
      <ReasonForm
        keep={args.keep}
        label="Because"
        button="Put it off"
        isBusy={args.isBusy}
        most={500}
        onSend={(words) => args.onSend(untilDay, words)}
      >
        <label>
          <span className="caps">Until</span>
          <input type="date" className="input" value={untilDay} onChange={(event) => setUntil(event.target.value)} />
        </label>
      </ReasonForm>
    </div>
  );
}
