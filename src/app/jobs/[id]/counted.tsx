"use client";

import { Minus, Plus } from "lucide-react";
import { type ReactNode, useState } from "react";
import type { SequenceState } from "@/core/sequences/counted";

/** The step in hand: what to do, its parts counted, and done. Nothing goes on while a part that came off is not counted back. */
export function CountedStep(args: {
  next: NonNullable<SequenceState["next"]>;
  tray: SequenceState["tray"];
  /** What the round is called each way. */
  words: { off: string; on: string; done?: string };
  isBusy: boolean;
  onDone: (counts: Record<string, number>) => void;
  children?: ReactNode;
}) {
  const { next, tray, words } = args;
  const { way, step } = next;
  const [counts, setCounts] = useState<Record<string, number>>({});
  const wanted = (id: string, count: number) => (way === "on" ? (tray.find((one) => one.id === id)?.inTray ?? count) : count);
  const isShort = step.parts.some(({ id, count }) => (counts[id] ?? 0) < wanted(id, count));
  return (
    <section aria-label="Next step" className="mt-2 border-2 border-ink p-3">
      <p className="caps">{words[way]}</p>
      <p className="text-xl leading-snug font-semibold">{way === "on" ? (step.backWords ?? step.words) : step.words}</p>
      {step.parts.map(({ id, label, count }) => (
        <Counter
          key={id}
          label={label}
          count={counts[id] ?? 0}
          wanted={wanted(id, count)}
          most={count}
          onCount={(value) => setCounts((before) => ({ ...before, [id]: value }))}
        />
      ))}
      {args.children}
      {step.parts.length > 0 && isShort && way === "off" && (
        <p className="mt-1 text-sm text-watch">Fewer than there should be: look for the rest, or write it down as short.</p>
      )}
      <button
        type="button"
        className="btn btn-go mt-2 w-full"
        disabled={args.isBusy || (way === "on" && isShort)}
        onClick={() => args.onDone(Object.fromEntries(step.parts.map(({ id }) => [id, counts[id] ?? 0])))}
      >
        {words.done ?? "Done"}
      </button>
    </section>
  );
}

/** So many of a part counted, of so many. */
function Counter(args: { label: string; count: number; wanted: number; most: number; onCount: (count: number) => void }) {
  const { label, count, wanted, most, onCount } = args;
  return (
    <div className="mt-2 flex items-center gap-2">
      <span className="grow leading-tight">{label}</span>
      <button
        type="button"
        className="btn px-3"
        aria-label={`${label}: one less`}
        disabled={count === 0}
        onClick={() => onCount(count - 1)}
      >
        <Minus size={18} aria-hidden="true" />
      </button>
      <span className={`num w-20 text-center text-xl font-bold ${count === wanted ? "text-good" : ""}`} aria-live="polite">
        {count} of {wanted}
      </span>
      <button
        type="button"
        className="btn px-3"
        aria-label={`${label}: one more`}
        disabled={count >= most}
        onClick={() => onCount(count + 1)}
      >
        <Plus size={18} aria-hidden="true" />
      </button>
    </div>
  );
}

/** What lies in the tray, and what was short when it came off. */
export function Tray({ tray }: { tray: SequenceState["tray"] }) {
  return (
    <table className="mt-2 w-full">
      <caption className="caps text-left">In the tray</caption>
      <tbody className="ruled">
        {tray.map(({ id, label, inTray, missing }) => (
          <tr key={id}>
            <td className="py-1">{label}</td>
            <td className="num py-1 text-right text-lg font-bold">{inTray}</td>
            <td className="py-1 pl-3 text-sm">
              {missing > 0 ? <strong className="text-mark">{missing} short when it came off</strong> : ""}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Steps behind one, folded. */
export function StepsDone({ done }: { done: SequenceState["done"] }) {
  if (done.length === 0) return null;
  return (
    <details className="mt-3">
      <summary className="min-h-11 cursor-pointer py-2">{done.length} steps done</summary>
      <ol className="list-decimal pl-6 text-sm leading-snug">
        {done.map(({ way, step }) => (
          <li key={`${way} ${step.id}`}>{way === "on" ? (step.backWords ?? step.words) : step.words}</li>
        ))}
      </ol>
    </details>
  );
}
