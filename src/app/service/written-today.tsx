"use client";

import Link from "next/link";
import type { TaskId } from "@/core/fleet/service/tasks";
import { dateOnly } from "@/ui/time";
import { usePost } from "@/ui/use-post";
import { taskLabel } from "@/ui/words/service";

const KIND_WORDS = { done: "done", rechecked: "looked at again", postponed: "put off" } as const;

/** What was written down today, each to be taken back where it was a slip: a task that was done is in no list of what is due. */
export function WrittenToday({ entries }: { entries: readonly WrittenEntry[] }) {
  if (entries.length === 0) return null;
  return (
    <section aria-label="Written down today" className="my-3">
      <h2 className="border-b border-ink text-xl">Written down today</h2>
      <ul className="ruled">
        {entries.map((entry) => (
          <Line key={entry.id} entry={entry} />
        ))}
      </ul>
    </section>
  );
}

export type WrittenEntry = {
  id: number;
  machineId: string;
  fleetNumber: string;
  what: string;
  kind: keyof typeof KIND_WORDS;
  who: string;
  words: string;
  untilDay?: string;
};

function Line({ entry }: { entry: WrittenEntry }) {
  const { post, isBusy, trouble } = usePost();
  const until = entry.untilDay ? ` to ${dateOnly(entry.untilDay)}` : "";
  return (
    <li className="flex flex-wrap items-center gap-3 py-1">
      <Link href={`/machines/${entry.machineId}#service`} prefetch={false} className="num w-16 text-lg font-bold underline">
        {entry.fleetNumber}
      </Link>
      <span className="grow">
        {taskLabel(entry.what as TaskId)}: {KIND_WORDS[entry.kind]}
        {until}
        {entry.words && `, ${entry.words}`}
        <span className="text-soft">, {entry.who}</span>
      </span>
      <button
        type="button"
        className="btn btn-quiet"
        aria-label={`Undo: ${entry.fleetNumber} ${taskLabel(entry.what as TaskId).toLowerCase()}`}
        disabled={isBusy}
        onClick={() => post(`/api/v1/machines/${entry.machineId}/service/${entry.id}/take-back`, {})}
      >
        Undo
      </button>
      {trouble && (
        <p className="trouble w-full" role="alert">
          {trouble}
        </p>
      )}
    </li>
  );
}
