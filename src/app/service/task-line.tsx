"use client";

import Link from "next/link";
import { useState } from "react";
import { type ServiceStanding, taskRow } from "@/core/service/tasks";
import { ReasonForm } from "@/ui/reason-form";
import { dateOnly, dayIn } from "@/ui/time";
import { usePost } from "@/ui/use-post";
import { STATE_LABELS, STATE_MARKS, STATE_TONES, sayDay, sayRaised, sayRule, taskLabel } from "@/ui/words/service";

/** One task of one machine: how it stands, done at a touch, put off with a reason. */
export function TaskLine(args: {
  machineId: string;
  title?: string;
  standing: ServiceStanding;
  places: readonly { id: string; label: string }[];
  lastEntry?: { id: number; kind: string } | undefined;
  now: string;
}) {
  const { machineId, standing, title, now } = args;
  const { what, state, last, rule, places, postponed } = standing;
  const { post, isBusy, trouble } = usePost();
  const [isPutting, setPutting] = useState(false);
  const [untilDay, setUntil] = useState(() => dayIn(7));
  const path = `/api/v1/machines/${machineId}/service`;
  const named = (places ?? []).map((id) => args.places.find((one) => one.id === id)?.label.toLowerCase() ?? id);
  const raised = sayRaised(standing);
  const presses = state !== "good" && state !== "never";
  return (
    <li className="py-1.5">
      <div className="flex flex-wrap items-center gap-x-3">
        <span className={`w-28 shrink-0 font-bold ${STATE_TONES[state]}`}>
          <span aria-hidden="true">{STATE_MARKS[state]} </span>
          {STATE_LABELS[state]}
        </span>
        <span className="min-w-52 grow leading-tight">
          {title ? (
            <Link href={`/machines/${machineId}#service`} prefetch={false} className="num text-lg font-bold underline">
              {title}
            </Link>
          ) : null}{" "}
          <span className="text-lg font-semibold">{taskLabel(what)}</span>
          {named.length > 0 && <span>: {named.join(", ")}</span>}
          <span className="block text-sm text-soft">
            {[
              sayRule(rule),
              last ? `last ${dateOnly(last.at)}, ${last.who}` : "",
              raised ? `raised: ${raised}` : "",
              postponed ? `put off to ${dateOnly(postponed.untilDay)} by ${postponed.who}: ${postponed.words}` : "",
            ]
              .filter(Boolean)
              .join(" · ")}
          </span>
        </span>
        <span className="num text-right text-sm">{sayDay(standing, now)}</span>
        <span className="flex gap-1">
          {taskRow(what)?.isCounted ? (
            <Link href={`/complaint?machine=${machineId}`} className="btn px-3">
              Count it in a job
            </Link>
          ) : (
            <button type="button" className="btn px-3" disabled={isBusy} onClick={() => post(path, { what })}>
              Done
            </button>
          )}
          {presses && (
            <button type="button" className="btn px-3" aria-expanded={isPutting} onClick={() => setPutting(!isPutting)}>
              Put off
            </button>
          )}
          {args.lastEntry && (
            <button
              type="button"
              className="btn btn-quiet"
              disabled={isBusy}
              onClick={() => post(`${path}/${args.lastEntry?.id}/take-back`, {})}
            >
              Undo
            </button>
          )}
        </span>
      </div>
      {isPutting && (
        <div className="border-l-4 border-ink pl-2">
          <ReasonForm
            keep={`put-off:${machineId}:${what}`}
            label="Because"
            button="Put it off"
            isBusy={isBusy}
            most={500}
            onSend={async (words) => {
              const sent = await post(`${path}/postpone`, { what, untilDay, words });
              if (sent) setPutting(false);
              return sent;
            }}
          >
            <label>
              <span className="caps">Until</span>
              <input type="date" className="input" value={untilDay} onChange={(event) => setUntil(event.target.value)} />
            </label>
          </ReasonForm>
        </div>
      )}
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </li>
  );
}
