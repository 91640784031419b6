"use client";

import { isSubstantial } from "@/core/job/safety";
import { isBroken, isLetGoByWord, mayRun, type Stands, type Unsafe } from "@/core/job/status";
import type { JobView } from "@/data/job/job-view";
import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { STATE_WORDS } from "@/ui/words/issues";
import { sayUnsafe } from "@/ui/words/state";
import type { Act } from "../act";
import type { PanelId } from "../panel-id";
import { Trouble } from "../trouble";
import { RunReasons } from "./run-reasons";

type Args = { view: JobView; act: Act; open: (panel: PanelId) => void; timeOf: (iso: string) => string };

/** What keeps the machine from running, whoever found it in whichever job; what may be let go by word, and holding it by word. */
export function HeldPanel({ view, act, open, timeOf }: Args) {
  const { who } = useSeat();
  const { machineState } = view;
  const { reasons } = mayRun(machineState, { to: "cut", who });
  const others = machineState.locks.filter((lock) => lock.who !== who);
  const isOpen = view.state !== "closed";
  const letGoByWord = machineState.unsafe.filter(isLetGoByWord);
  const flying = machineState.unsafe.filter((cause) => !isLetGoByWord(cause));
  return (
    <div>
      {reasons.length === 0 && <p className="text-lg font-semibold">Nothing keeps it from running.</p>}
      <RunReasons view={view} reasons={reasons} open={open} here="held" timeOf={timeOf} />
      {isOpen && others.map((lock) => <LiftForm view={view} key={lock.who} lock={lock} act={act} />)}
      {isOpen && flying.length > 0 && <NotByWord view={view} causes={flying} />}
      {isOpen && letGoByWord.length > 0 && <ReleaseForm view={view} act={act} causes={letGoByWord} timeOf={timeOf} />}
      {machineState.released.length > 0 && (
        <section aria-label="Released without reading" className="mt-3">
          <h3 className="caps">Released without reading, still owed</h3>
          <ul className="ruled">
            {machineState.released.map(({ cause, by, at, reason }) => (
              <li key={cause.key} className="py-1 leading-snug">
                <span className="font-semibold">{sayUnsafe(cause, view.machine.machine)}.</span> {by}, {timeOf(at)}: “{reason}”
                {cause.kind === "stop" && (
                  <button type="button" className="btn mt-1 w-full" onClick={() => open(`check:${cause.check}`)}>
                    Read it
                  </button>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      {isOpen && <HoldForm view={view} act={act} />}
      {!isOpen && <p className="mt-2 text-soft">This job is closed: take a complaint, or reopen it, to work on the machine.</p>}
      <Trouble act={act} />
    </div>
  );
}

const WANTED = "In a few words why: what was done, seen or agreed. “ok” is none.";

function ReasonField({ id, label, value, onChange }: { id: string; label: string; value: string; onChange: (value: string) => void }) {
  const isShort = value.trim() !== "" && !isSubstantial(value);
  return (
    <div className="py-1">
      <label htmlFor={id} className="block leading-snug font-semibold">
        {label}
      </label>
      <input
        id={id}
        className="input mt-1"
        value={value}
        autoComplete="off"
        aria-invalid={isShort}
        aria-describedby={`${id}-help`}
        onChange={(event) => onChange(event.target.value)}
      />
      <p id={`${id}-help`} className={isShort ? "trouble mt-1" : "text-sm text-soft"}>
        {WANTED}
      </p>
    </div>
  );
}

/** What could fly: no word lets go of it, and what does. */
function NotByWord({ view, causes }: { view: JobView; causes: readonly Unsafe[] }) {
  return (
    <section aria-label="No word releases it" className="mt-3 border-t-2 border-ink pt-2">
      <h3 className="text-lg">No word releases it</h3>
      <ul className="ruled">
        {causes.map((cause) => (
          <li key={cause.key} className="py-1 leading-snug">
            <span className="font-semibold">{sayUnsafe(cause, view.machine.machine)}:</span>{" "}
            {isBroken(cause) ? "another part in its place, written down as fitted; then read it right." : "mend it, then read it right."}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A reason for each cause: what was read stays owed until it is read right. */
function ReleaseForm({
  view,
  act,
  causes,
  timeOf,
}: {
  view: JobView;
  act: Act;
  causes: readonly Unsafe[];
  timeOf: (iso: string) => string;
}) {
  const { value, set, clear, ticket } = useDraft<Record<string, string>>(`job:${view.id}:release`, {}, { isOnesOwn: true });
  const given = causes.filter(({ key }) => isSubstantial(value[key] ?? ""));
  return (
    <form
      className="mt-3 border-t-2 border-ink pt-2"
      onSubmit={async (event) => {
        event.preventDefault();
        const reasons = given.map(({ key }) => ({ key, reason: value[key] ?? "" }));
        if (reasons.length > 0 && (await act.send("release", { reasons }, ticket))) clear();
      }}
    >
      <h3 className="text-lg">Release by word</h3>
      <p className="text-sm leading-snug text-soft">
        Better is to read it right: then it falls by itself. Released by word it is written down as not read, and stays owed on the machine.
      </p>
      {causes.map((cause) => (
        <ReasonField
          key={cause.key}
          id={`release-${cause.key}`}
          label={`${sayUnsafe(cause, view.machine.machine)}, ${cause.who}, ${timeOf(cause.at)}. Why may it go?`}
          value={value[cause.key] ?? ""}
          onChange={(reason) => set((before) => ({ ...before, [cause.key]: reason }))}
        />
      ))}
      <button type="submit" className="btn btn-stop mt-1 w-full" disabled={given.length === 0 || act.isBusy}>
        {given.length < causes.length && given.length > 0 ? `Release ${given.length} of ${causes.length}` : "Release"}
      </button>
    </form>
  );
}

function LiftForm({ view, lock, act }: { view: JobView; lock: Stands; act: Act }) {
  const { value, set, clear, ticket } = useDraft(`job:${view.id}:lift:${lock.who}`, { reason: "" }, { isOnesOwn: true });
  const { reason } = value;
  return (
    <form
      className="mt-3 border-t-2 border-ink pt-2"
      onSubmit={async (event) => {
        event.preventDefault();
        if (await act.send("lift", { owner: lock.who, reason }, ticket)) clear();
      }}
    >
      <h3 className="text-lg">Lift {lock.who}’s lock-out</h3>
      <p className="text-sm leading-snug text-soft">
        {lock.who} may have hands in it: {STATE_WORDS[lock.state]}. Speak to {lock.who} first. Your employer’s lock-out rules come first.
      </p>
      <ReasonField
        id={`lift-${lock.who}`}
        label={`Why ${lock.who}’s lock-out may be lifted`}
        value={reason}
        onChange={(words) => set({ reason: words })}
      />
      <button type="submit" className="btn btn-stop mt-1 w-full" disabled={!isSubstantial(reason) || act.isBusy}>
        Lift it
      </button>
    </form>
  );
}

function HoldForm({ view, act }: { view: JobView; act: Act }) {
  const { value, set, clear, ticket } = useDraft<{ reason: string }>(`job:${view.id}:hold`, { reason: "" });
  return (
    <form
      className="mt-3 border-t-2 border-ink pt-2"
      onSubmit={async (event) => {
        event.preventDefault();
        if (value.reason.trim() && (await act.send("hold", value, ticket))) clear();
      }}
    >
      <label htmlFor="hold-reason" className="block text-lg font-semibold">
        Hold it out of service
      </label>
      <input
        id="hold-reason"
        className="input mt-1"
        value={value.reason}
        autoComplete="off"
        placeholder="Why it is held"
        onChange={(event) => set({ reason: event.target.value })}
      />
      <button type="submit" className="btn btn-stop mt-1 w-full" disabled={value.reason.trim() === "" || act.isBusy}>
        Hold
      </button>
    </form>
  );
}
