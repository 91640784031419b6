"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { table } from "@/core/basics/tables";
import { CAUSES, type CauseRow, CONTEXTS, type ContextId, SYMPTOMS, type Symptom, type SymptomId } from "@/core/catalogue";
import { featuresOf, kindById, meetsNeed } from "@/core/catalogue/kinds";
import { stopsMowing } from "@/core/job/safety";
import type { Machine } from "@/core/machine";
import type { Intake } from "@/data/fleet/intake";
import type { MachineName } from "@/data/machine/machines";
import { SwathPicker, type SwathPlace } from "@/drawings/swath-picker";
import { TurfPicture } from "@/drawings/turf-picture";
import { TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { HazardNote } from "@/ui/hazard-note";
import { askWho, useSeat } from "@/ui/person";
import { type Problem, useSubmission } from "@/ui/send";
import { isStrikeTold, NO_STRIKE, type StrikeDraft, StrikeTold, strikeFrom } from "@/ui/strike-told";
import { sayError, sayIssue } from "@/ui/words/issues";
import { useIntake } from "./use-intake";
import { useLikelyContexts } from "./use-likely-contexts";

type Draft = {
  machineId: string;
  words: string;
  saidBy: string;
  place: string;
  since: string;
  symptoms: string[];
  swath?: SwathPlace;
  contexts: string[];
  joinJobId: string;
  /** Of a strike told with it. */
  strike: StrikeDraft;
};

const symptomRows: readonly Symptom[] = SYMPTOMS;
const causeRows: readonly CauseRow[] = CAUSES;
const SINCE = ["today", "yesterday", "this week", "longer"] as const;

/** How it behaves, as against what was done to the machine. */
const BEHAVIOUR: readonly string[] = [
  "one-machine-only",
  "all-machines",
  "only-on-turns-or-slopes",
  "now-and-then",
  "always-same-direction",
  "mown-up-and-down",
  "mown-in-dew",
  "one-unit-only",
];
const OPPOSITES: Record<string, string> = table({ "one-machine-only": "all-machines", "all-machines": "one-machine-only" });

/** Whether anything this machine can suffer from depends on that context. */
function canApply(context: ContextId, machine: Machine): boolean {
  if (context === "one-machine-only" || context === "all-machines") return true;
  const { cutsWith } = kindById(machine.kind);
  if (context === "old-blades-kept") return cutsWith === "rotary";
  return causeRows.some(
    ({ on, needs, oddsWhen, shows }) =>
      on.includes(cutsWith) &&
      meetsNeed(featuresOf(machine), needs) &&
      (context in oddsWhen || shows.some(({ hardlyWhen }) => hardlyWhen === context)),
  );
}

/** One minute on a phone: which machine, what it looks like, where in the swath, what changed, who says so. */
export function ComplaintForm({
  machines,
  startWith,
}: {
  machines: readonly MachineName[];
  /** The machine it is asked about, where the page knows. */
  startWith: Intake | undefined;
}) {
  const { who, system } = useSeat();
  const router = useRouter();
  const { submit, isBusy } = useSubmission();
  const {
    value: draft,
    set,
    clear,
    wasKept,
    ticket,
  } = useDraft<Draft>(`complaint:${startWith?.machineId ?? ""}`, {
    machineId: startWith?.machineId ?? "",
    words: "",
    saidBy: "",
    place: "",
    since: "",
    symptoms: [],
    contexts: [],
    joinJobId: "",
    strike: NO_STRIKE,
  });
  const [failed, setFailed] = useState<{ error: string; issues: Problem[] }>({ error: "", issues: [] });
  const { intake, isLost } = useIntake(draft.machineId, startWith);
  const machine = intake?.machine;
  const cutsWith = machine && kindById(machine.kind).cutsWith;
  const looks = symptomRows.filter(({ on }) => cutsWith && on.includes(cutsWith));
  const joinable = intake?.openJobs ?? [];
  const known: readonly string[] = intake?.ticked ?? [];
  const likely = useLikelyContexts({ machine, symptoms: draft.symptoms, known });
  const strike = draft.strike ?? NO_STRIKE;
  const isStruck = draft.contexts.includes("struck-object");
  const isTold = !isStruck || isStrikeTold(strike);
  const rank = (id: string) => (known.includes(id) ? 2 : (likely[id] ?? 0));
  const contexts = CONTEXTS.filter(({ id }) => machine && canApply(id, machine)).sort((a, b) => rank(b.id) - rank(a.id));
  const behaviour = contexts.filter(({ id }) => BEHAVIOUR.includes(id));
  const changes = contexts.filter(({ id }) => !BEHAVIOUR.includes(id));
  const toggle = (id: string) =>
    set((before) => ({
      ...before,
      symptoms: before.symptoms.includes(id) ? before.symptoms.filter((one) => one !== id) : [...before.symptoms, id],
    }));
  const turnContext = (id: string) =>
    set((before) => {
      if (before.contexts.includes(id)) return { ...before, contexts: before.contexts.filter((one) => one !== id) };
      const opposite = OPPOSITES[id];
      return { ...before, contexts: [...before.contexts.filter((one) => one !== opposite), id] };
    });
  const troubleAt = (field: string) => {
    const issue = failed.issues.find(({ path }) => path[0] === field);
    return issue && sayIssue(issue, system);
  };
  const save = async () => {
    if (!who) {
      setFailed({ error: "unknown-person", issues: [] });
      askWho();
      return;
    }
    const { machineId, words, saidBy, place, since, symptoms, swath } = draft;
    const complaint = {
      who,
      machineId,
      words,
      saidBy,
      place,
      ...(since ? { since } : {}),
      // What its log says already comes from its log.
      looks: {
        symptoms,
        contexts: draft.contexts.filter((id) => !known.includes(id) && contexts.some((one) => one.id === id)),
        ...(swath ? { swath } : {}),
      },
      ...(isStruck ? { strike: strikeFrom(strike, place) } : {}),
      ...(draft.joinJobId ? { joinJobId: Number(draft.joinJobId) } : {}),
    };
    const sent = await submit<{ jobId: number }>("/api/v1/complaints", complaint, { ticket });
    if (!sent) return;
    if (!sent.ok) {
      setFailed({ error: sent.error, issues: sent.issues });
      return;
    }
    clear();
    router.push(`/jobs/${sent.answer.jobId}`);
  };
  return (
    <main className="mx-auto max-w-4xl p-4">
      <h1 className="text-3xl">What is wrong with the cut?</h1>
      {wasKept && <p className="mt-1 text-sm text-soft">Taken up where it was left.</p>}
      <form
        className="mt-3 grid gap-5"
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <label className="block">
          <span className="caps mb-1 block">Machine</span>
          <select
            className="input text-lg"
            value={draft.machineId}
            onChange={(event) => set((before) => ({ ...before, machineId: event.target.value, symptoms: [], joinJobId: "" }))}
          >
            <option value="">Which one?</option>
            {machines.map(({ id, fleetNumber, name, site }) => (
              <option key={id} value={id}>
                {fleetNumber} · {name} · {site}
              </option>
            ))}
          </select>
        </label>
        {isLost && (
          <p className="trouble" role="alert">
            The pictures of this machine did not come. Say it in words: it can be handed in all the same.
          </p>
        )}
        {intake && <HazardNote site={intake.site} {...intake.hazards} />}
        {joinable.length > 0 && (
          <label className="block">
            <span className="caps mb-1 block">There is an open job on it</span>
            <select
              className="input"
              value={draft.joinJobId}
              onChange={(event) => set((before) => ({ ...before, joinJobId: event.target.value }))}
            >
              <option value="">This is something else: a job of its own</option>
              {joinable.map(({ jobId, words }) => (
                <option key={jobId} value={jobId}>
                  Belongs to job {jobId}: “{words}”
                </option>
              ))}
            </select>
          </label>
        )}
        {machine && (
          <>
            <fieldset>
              <legend className="caps mb-1">What it looks like, touch all that fit</legend>
              <div className="grid grid-cols-2 gap-2 sm:grid-cols-3 lg:grid-cols-4">
                {looks.map(({ id, label, seen }) => (
                  <button
                    key={id}
                    type="button"
                    aria-pressed={draft.symptoms.includes(id)}
                    title={seen}
                    onClick={() => toggle(id)}
                    className={`border-2 bg-sheet p-1 text-left ${draft.symptoms.includes(id) ? "border-dye ring-2 ring-[var(--dye-text)]" : "border-rule"}`}
                  >
                    <TurfPicture symptom={id} system={system} />
                    <span className="block min-h-11 px-1 py-0.5 leading-tight font-semibold">{label}</span>
                  </button>
                ))}
              </div>
            </fieldset>
            {stopsMowing(draft.symptoms as SymptomId[]).length > 0 && (
              <p role="alert" className="border-l-4 border-mark px-2 py-1 text-lg leading-snug font-semibold">
                Stop mowing with it until it has been looked at: blades off, engine off.
              </p>
            )}
            <SwathPicker machine={machine} value={draft.swath} onChange={(swath) => set((before) => ({ ...before, swath }))} />
          </>
        )}
        <TextField
          id="words"
          label="In their own words"
          rows={2}
          value={draft.words}
          onChange={(words) => set((before) => ({ ...before, words }))}
          trouble={troubleAt("words")}
        />
        <div className="grid gap-3 sm:grid-cols-3">
          <TextField
            id="said-by"
            label="Who noticed it"
            value={draft.saidBy}
            onChange={(saidBy) => set((before) => ({ ...before, saidBy }))}
            trouble={troubleAt("saidBy")}
          />
          <TextField
            id="place"
            label="Where"
            value={draft.place}
            onChange={(place) => set((before) => ({ ...before, place }))}
            trouble={troubleAt("place")}
          />
          <label className="block py-1">
            <span className="caps mb-1 block">Since</span>
            <select className="input" value={draft.since} onChange={(event) => set((before) => ({ ...before, since: event.target.value }))}>
              <option value="">not said</option>
              {SINCE.map((since) => (
                <option key={since}>{since}</option>
              ))}
            </select>
          </label>
        </div>
        {machine && (
          <>
            <ContextButtons legend="How it shows" rows={behaviour} known={known} chosen={draft.contexts} onTurn={turnContext} />
            <ContextButtons
              legend={draft.symptoms.length > 0 ? "What changed lately, the likeliest first" : "What changed lately"}
              rows={changes}
              known={known}
              chosen={draft.contexts}
              onTurn={turnContext}
            />
          </>
        )}
        {machine && isStruck && (
          <StrikeTold
            value={strike}
            machine={machine}
            onChange={(change) => set((before) => ({ ...before, strike: { ...(before.strike ?? NO_STRIKE), ...change } }))}
          />
        )}
        {failed.error && (
          <p className="trouble text-base" role="alert">
            {sayError(failed.error)} {failed.issues.map((issue) => sayIssue(issue, system)).join(" ")}
          </p>
        )}
        <button type="submit" className="btn btn-go min-h-14 text-lg" disabled={isBusy || draft.machineId === "" || !isTold}>
          {isBusy
            ? "Sending …"
            : draft.machineId === ""
              ? "Pick the machine first"
              : isTold
                ? "Hand it to the bay"
                : strike.words.trim() === ""
                  ? "What did it strike?"
                  : "The drive: stopped at once?"}
        </button>
      </form>
    </main>
  );
}

function ContextButtons({
  legend,
  rows,
  known,
  chosen,
  onTurn,
}: {
  legend: string;
  rows: readonly { id: string; label: string }[];
  known: readonly string[];
  chosen: readonly string[];
  onTurn: (id: string) => void;
}) {
  if (rows.length === 0) return null;
  return (
    <fieldset>
      <legend className="caps mb-1">{legend}</legend>
      <div className="flex flex-wrap gap-1">
        {rows.map(({ id, label }) => {
          // A strike on its log does not keep another from being told.
          const isAgain = id === "struck-object" && known.includes(id);
          const isKnown = known.includes(id) && !isAgain;
          const isOn = isKnown || chosen.includes(id);
          return (
            <button
              key={id}
              type="button"
              aria-pressed={isOn}
              disabled={isKnown}
              className={`btn px-3 ${isOn ? "btn-on" : ""}`}
              onClick={() => onTurn(id)}
            >
              {label}
              {isAgain && <span className="text-sm font-normal">again (one is on its log)</span>}
              {isKnown && <span className="text-sm font-normal">(on its log)</span>}
            </button>
          );
        })}
      </div>
    </fieldset>
  );
}
