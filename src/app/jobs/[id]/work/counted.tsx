"use client";

import { Minus, Plus } from "lucide-react";
import { type ReactNode, useEffect, useState } from "react";
import { parseQuantity, shownUnit, unitById } from "@/core/basics/units";
import { type Ask, asksOf, type SequenceState, stepProblems } from "@/core/job/sequences/counted";
import { TORQUE_WITHIN } from "@/core/physics/blades/bolts";
import { Choice, TextField } from "@/ui/choice";
import { type Ticket, useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { REFUSED_WORDS, sayIssue, sayQuantityIssue } from "@/ui/words/issues";
import { show } from "@/ui/words/quantities";

/** What was done at a step: parts counted, what was asked answered, sizes in SI. */
export type Done = { counts: Record<string, number>; answers: Record<string, string>; sizes: Record<string, number> };

type CountedDraft = { counts: Record<string, number>; answers: Record<string, string>; texts: Record<string, string> };
const NOTHING_DONE: CountedDraft = { counts: {}, answers: {}, texts: {} };

/**
 * The step in hand: what to do, what is asked at it, its parts counted, and done. What is wrong with it is the core's to say, the same as the
 * server's. What is counted and typed stays through a reload and a refusal.
 */
export function CountedStep(args: {
  /** Of the draft: job, round and place. */
  draftKey: string;
  next: NonNullable<SequenceState["next"]>;
  tray: SequenceState["tray"];
  /** What the round is called each way. */
  words: { off: string; on: string; done?: string };
  isBusy: boolean;
  /** Answers whether it was taken. */
  onDone: (done: Done, ticket: Ticket) => Promise<unknown>;
  /** Keeps what this machine really has of a step's parts as its own list. */
  onOwnList?: ((counts: Record<string, number>) => void) | undefined;
  children?: ReactNode;
}) {
  const { next, tray, words } = args;
  const { way, step } = next;
  const asks = asksOf(step, way);
  const { system } = useSeat();
  const { value, set, clear, ticket } = useDraft<CountedDraft>(`${args.draftKey}:${way}:${step.id}`, NOTHING_DONE);
  const { answers, texts } = value;
  const wanted = (id: string, count: number) => (way === "on" ? (tray.find((one) => one.id === id)?.inTray ?? count) : count);
  const counts = Object.fromEntries(step.parts.map(({ id }) => [id, value.counts[id] ?? 0]));
  const read = Object.fromEntries(asks.map((ask) => [ask.id, sizeOf(ask, texts[ask.id] ?? "", system)]));
  const sizes = Object.fromEntries(Object.entries(read).flatMap(([id, one]) => (one?.ok ? [[id, one.valueSi]] : [])));
  const isShort = step.parts.some(({ id, count }) => (counts[id] ?? 0) < wanted(id, count));
  const problems = stepProblems(step, tray, { way, counts, answers, sizes });
  const refused = problems.flatMap((one) => (one.code === "refused-answer" ? [one.why] : []));
  const isNothing = problems.some(({ code }) => code === "nothing-counted");
  // A new part that never lay in the tray is counted on as well.
  const isStuck = problems.length > 0 || (way === "on" && isShort) || Object.values(read).some((one) => one?.ok === false);
  const troubleAt = (ask: Ask): string | undefined => {
    const one = read[ask.id];
    if (one?.ok === false) return sayQuantityIssue(one.issue);
    const found = one === undefined ? undefined : problems.find((problem) => "ask" in problem && problem.ask === ask.id);
    return found && sayIssue(found, system);
  };
  const [isTaken, setTaken] = useState(false);
  useEffect(() => {
    if (!args.isBusy) setTaken(false);
  }, [args.isBusy]);
  const done = async () => {
    if (!(await args.onDone({ counts, answers, sizes }, ticket))) return;
    setTaken(true);
    clear();
  };
  const head = (
    <>
      <p className="caps">{words[way]}</p>
      <p className="text-xl leading-snug font-semibold">{way === "on" ? (step.backWords ?? step.words) : step.words}</p>
    </>
  );
  // Written, and the next step not here yet: asked anew it would be answered twice.
  if (isTaken && args.isBusy)
    return (
      <section aria-label="Next step" aria-busy="true" className="mt-2 border-2 border-ink p-3">
        {head}
        <p className="mt-2 font-semibold">Written down.</p>
      </section>
    );
  return (
    <section aria-label="Next step" className="mt-2 border-2 border-ink p-3">
      {head}
      {asks.map((ask) =>
        ask.kind === "choice" ? (
          <Choice
            key={ask.id}
            label={ask.label}
            value={answers[ask.id] ?? ""}
            options={ask.options.map(({ id, label }) => [id, label])}
            onChange={(id) => set((before) => ({ ...before, answers: { ...before.answers, [ask.id]: id } }))}
          />
        ) : (
          <SizeAsked
            key={ask.id}
            ask={ask}
            text={texts[ask.id] ?? ""}
            valueSi={sizes[ask.id]}
            trouble={troubleAt(ask)}
            onText={(text) => set((before) => ({ ...before, texts: { ...before.texts, [ask.id]: text } }))}
          />
        ),
      )}
      {refused.map((why) => (
        <p key={why} role="alert" className="mt-1 border-l-4 border-mark pl-2 leading-snug font-semibold">
          {REFUSED_WORDS[why] ?? "Not like this."}
        </p>
      ))}
      {step.parts.map(({ id, label, count }) => (
        <Counter
          key={id}
          label={label}
          count={counts[id] ?? 0}
          wanted={wanted(id, count)}
          most={Math.max(count, wanted(id, count))}
          onCount={(number) => set((before) => ({ ...before, counts: { ...before.counts, [id]: number } }))}
        />
      ))}
      {args.children}
      {step.parts.length > 0 && isShort && (
        <button
          type="button"
          className="btn mt-2 w-full"
          onClick={() =>
            set((before) => ({ ...before, counts: Object.fromEntries(step.parts.map(({ id, count }) => [id, wanted(id, count)])) }))
          }
        >
          All there: {step.parts.map(({ id, label, count }) => `${wanted(id, count)} ${label.toLowerCase()}`).join(", ")}
        </button>
      )}
      {step.parts.length > 0 && isShort && way === "off" && !isNothing && (
        <p className="mt-1 text-sm text-watch">Fewer than there should be: look for the rest, or write it down as short.</p>
      )}
      <button type="button" className="btn btn-go mt-2 w-full" disabled={args.isBusy || isStuck} onClick={done}>
        {words.done ?? "Done"}
      </button>
      {isNothing && <p className="mt-1 text-sm text-soft">Count what came off first.</p>}
      {args.onOwnList && way === "off" && step.parts.length > 0 && (
        <OwnList parts={step.parts} isBusy={args.isBusy} onKeep={args.onOwnList} />
      )}
    </section>
  );
}

function sizeOf(ask: Ask, text: string, system: "us" | "metric") {
  if (ask.kind === "choice" || text.trim() === "") return undefined;
  const dimension = ask.kind;
  return parseQuantity({ text, dimension, bareUnit: shownUnit({ dimension, system }) });
}

/** A size read at a step, against what it should be. */
function SizeAsked({
  ask,
  text,
  valueSi,
  trouble,
  onText,
}: {
  ask: Exclude<Ask, { kind: "choice" }>;
  text: string;
  valueSi: number | undefined;
  trouble: string | undefined;
  onText: (text: string) => void;
}) {
  const { system } = useSeat();
  const dimension = ask.kind;
  const say = (si: number) => show(si, dimension, system, ask.kind === "length" ? "fine" : "gauge");
  const isOff = valueSi !== undefined && trouble === undefined && isAstray(ask, valueSi);
  const wanted =
    ask.kind === "length" ? ask.within && `flush within ${say(ask.within)}, estimate` : ask.wanted && `sheet ${say(ask.wanted)}`;
  return (
    <div className="mt-2">
      <TextField
        id={`size-${ask.id}`}
        label={`${ask.label}, ${unitById(shownUnit({ dimension, system })).symbol}${wanted ? ` (${wanted})` : ""}`}
        value={text}
        onChange={onText}
        trouble={trouble}
      />
      {isOff && <p className="text-sm font-semibold text-watch">Not as it should be: look again before it goes on.</p>}
    </div>
  );
}

/** Credible, and yet further from the sheet's figure than a wrench reads. */
const isAstray = (ask: Exclude<Ask, { kind: "choice" }>, valueSi: number): boolean =>
  ask.kind === "torque" && ask.wanted !== undefined && Math.abs(valueSi - ask.wanted) > TORQUE_WITHIN * ask.wanted;

/** After its last step it is not offered for taking apart again, but for who wants to. */
export function Together({ words, again, onAgain }: { words: string; again: string; onAgain: () => void }) {
  return (
    <p className="mt-2 leading-snug">
      {words}{" "}
      <button type="button" className="min-h-11 underline" onClick={onAgain}>
        {again}
      </button>
    </p>
  );
}

const MOST_OF_ONE = 40;

/** What this machine really has of them, kept from now on as its own list. */
function OwnList({
  parts,
  isBusy,
  onKeep,
}: {
  parts: readonly { id: string; label: string; count: number }[];
  isBusy: boolean;
  onKeep: (counts: Record<string, number>) => void;
}) {
  const [counts, setCounts] = useState<Record<string, number>>({});
  return (
    <details className="mt-2">
      <summary className="min-h-11 cursor-pointer py-2 text-sm">This machine has other parts than these</summary>
      {parts.map(({ id, label, count }) => (
        <Counter
          key={id}
          label={label}
          count={counts[id] ?? count}
          wanted={counts[id] ?? count}
          most={MOST_OF_ONE}
          onCount={(value) => setCounts((before) => ({ ...before, [id]: value }))}
        />
      ))}
      <button
        type="button"
        className="btn mt-2"
        disabled={isBusy || Object.keys(counts).length === 0}
        onClick={() => onKeep({ ...Object.fromEntries(parts.map(({ id, count }) => [id, count])), ...counts })}
      >
        Keep as this machine’s own list
      </button>
    </details>
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
