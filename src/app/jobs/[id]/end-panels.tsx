"use client";

import { CAUSES, CHECKS, FIX_LABELS, type FixId } from "@/core/diagnosis";
import type { ProofGap } from "@/core/jobs";
import { RETURN_TO_SERVICE, TEST_CUT_CAUTION } from "@/core/safety";
import type { JobView } from "@/data/job-view";
import { Choice, TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { VERDICT_WORDS } from "@/ui/words/checks";
import type { Act } from "./act";
import { causesOffered, suspectedCauses } from "./causes";
import { Cautions } from "./gate";
import type { PanelId } from "./steps";
import { Trouble } from "./trouble";
import { GRADE_WORDS } from "./words";

type CutDraft = {
  looks: "all-alike" | "better" | "same" | "worse" | "";
  turf: "good" | "thin" | "other-lawn" | "";
  dryness: "dry" | "damp" | "wet";
  place: string;
  operator: string;
  words: string;
};

/** What the cut looked like afterwards, where and on what: graded by what it can prove. */
export function CutPanel({ view, act }: { view: JobView; act: Act }) {
  const {
    value: draft,
    set,
    clear,
  } = useDraft<CutDraft>(`job:${view.id}:cut`, {
    looks: "",
    turf: "",
    dryness: "dry",
    place: view.complaints[0]?.place ?? "",
    operator: "",
    words: "",
  });
  const save = async () => {
    const sent = await act.send("test-cuts", draft);
    if (sent) clear();
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <Cautions lines={[TEST_CUT_CAUTION, "Cut good turf: poor turf hides the result. The run ends the safe state."]} />
      <Choice
        label="The cut now"
        value={draft.looks}
        options={[
          ["all-alike", "All alike"],
          ["better", "Better"],
          ["same", "Same"],
          ["worse", "Worse"],
        ]}
        onChange={(looks) => set((before) => ({ ...before, looks }))}
      />
      <Choice
        label="Cut on"
        value={draft.turf}
        options={[
          ["good", "Good turf"],
          ["thin", "Thin grass"],
          ["other-lawn", "Another lawn"],
        ]}
        onChange={(turf) => set((before) => ({ ...before, turf }))}
      />
      <Choice
        label="It was"
        value={draft.dryness}
        options={[
          ["dry", "Dry"],
          ["damp", "Damp"],
          ["wet", "Wet"],
        ]}
        onChange={(dryness) => set((before) => ({ ...before, dryness }))}
      />
      <div className="grid grid-cols-2 gap-2">
        <TextField id="cut-place" label="Where" value={draft.place} onChange={(place) => set((before) => ({ ...before, place }))} />
        <TextField
          id="cut-operator"
          label="Who drove"
          value={draft.operator}
          onChange={(operator) => set((before) => ({ ...before, operator }))}
        />
      </div>
      <TextField
        id="cut-words"
        label="In words"
        rows={2}
        value={draft.words}
        onChange={(words) => set((before) => ({ ...before, words }))}
      />
      <button type="submit" className="btn btn-go mt-2 w-full" disabled={act.isBusy || draft.looks === "" || draft.turf === ""}>
        Write the test cut down
      </button>
      <Trouble act={act} />
    </form>
  );
}

const checkLabel = (id: string) => CHECKS.find((check) => check.id === id)?.label ?? id;

function sayGap(gap: ProofGap): string {
  switch (gap.code) {
    case "nothing-changed":
      return "Nothing was out and nothing was changed: there is nothing a cut could prove.";
    case "not-read-again":
      return `${checkLabel(gap.check)}: read again after the change.`;
    case "still-out":
      return `${checkLabel(gap.check)}: ${VERDICT_WORDS[gap.verdict].toLowerCase()}, not in tolerance.`;
    case "stale":
      return `${checkLabel(gap.check)}: something was changed after it was read.`;
    case "provisional":
      return `${checkLabel(gap.check)}: rests on something missing (provisional).`;
    case "no-test-cut":
      return "No test cut.";
    case "test-cut-older-than-change":
      return "Something was changed after the test cut.";
    case "test-cut-not-proof":
      return `Test cut: ${GRADE_WORDS[gap.grade]}.`;
  }
}

function gapPanel(gap: ProofGap): PanelId {
  if ("check" in gap) return `check:${gap.check}`;
  return gap.code === "nothing-changed" ? "fix" : "cut";
}

/** Proof as worked out from the readings, with what is missing; closing without it asks why. */
export function ClosePanel({ view, act, open }: { view: JobView; act: Act; open: (panel: PanelId) => void }) {
  const fixed = view.steps.flatMap((step) => (step.kind === "fix" && !step.isUndone ? [step.data.cause] : []));
  const {
    value: draft,
    set,
    clear,
  } = useDraft<{ causes: string[]; words: string; unproved: string; aftermath: string[] }>(`job:${view.id}:close`, {
    causes: [...new Set(fixed)],
    words: "",
    unproved: "",
    aftermath: [],
  });
  const looked = draft.aftermath ?? [];
  const unasked = view.aftermath.filter(({ id }) => !looked.includes(id)).length;
  const { proof } = view;
  const guess = view.steps.findLast((step) => step.kind === "guess" && !step.isUndone);
  const guessed = guess?.kind === "guess" ? guess.data.cause : undefined;
  const first = [...new Set([...fixed, ...suspectedCauses(view)])];
  const options = [...causesOffered(view)].sort((a, b) => Number(first.includes(b.id)) - Number(first.includes(a.id)));
  const toggle = (id: string) =>
    set((before) => ({
      ...before,
      causes: before.causes.includes(id) ? before.causes.filter((one) => one !== id) : [...before.causes, id],
    }));
  const save = async () => {
    const sent = await act.send("close", {
      causes: draft.causes,
      words: draft.words,
      aftermath: view.aftermath.filter(({ id }) => looked.includes(id)).map(({ id }) => id),
      ...(draft.unproved.trim() && !proof.isProved ? { unprovedReason: draft.unproved } : {}),
    });
    if (sent) clear();
  };
  if (view.state === "closed") return <ClosedPanel view={view} act={act} guessed={guessed} />;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <p className={`text-2xl font-bold ${proof.isProved ? "text-good" : "text-mark"}`} style={{ fontStretch: "84%" }}>
        {proof.isProved ? "Proved." : "Not proved yet."}
      </p>
      {proof.isProved ? <Credit view={view} /> : null}
      <ul className="mt-1">
        {proof.gaps.map((gap) => (
          <li key={JSON.stringify(gap)}>
            <button type="button" className="btn btn-quiet w-full justify-start text-left" onClick={() => open(gapPanel(gap))}>
              → {sayGap(gap)}
            </button>
          </li>
        ))}
      </ul>
      <Aftermath
        asked={view.aftermath}
        looked={looked}
        onTurn={(id) =>
          set((before) => {
            const earlier = before.aftermath ?? [];
            return { ...before, aftermath: earlier.includes(id) ? earlier.filter((one) => one !== id) : [...earlier, id] };
          })
        }
      />
      <Cautions lines={RETURN_TO_SERVICE} />
      <fieldset className="py-1">
        <legend className="caps mb-1">What it was</legend>
        <div className="flex max-h-48 flex-wrap gap-1 overflow-y-auto" tabIndex={0}>
          {[...options.filter(({ id }) => first.includes(id)), ...options.filter(({ id }) => !first.includes(id))].map(({ id, label }) => (
            <button
              key={id}
              type="button"
              aria-pressed={draft.causes.includes(id)}
              className={`btn px-3 ${draft.causes.includes(id) ? "btn-on" : ""}`}
              onClick={() => toggle(id)}
            >
              {label}
            </button>
          ))}
          <button
            type="button"
            aria-pressed={draft.causes.includes("nothing-found")}
            className={`btn px-3 ${draft.causes.includes("nothing-found") ? "btn-on" : ""}`}
            onClick={() => toggle("nothing-found")}
          >
            Nothing found
          </button>
        </div>
      </fieldset>
      <TextField
        id="close-words"
        label="For whoever has it next"
        rows={2}
        value={draft.words}
        onChange={(words) => set((before) => ({ ...before, words }))}
      />
      {!proof.isProved && (
        <TextField
          id="close-unproved"
          label="Close it unproved, because"
          value={draft.unproved}
          onChange={(unproved) => set((before) => ({ ...before, unproved }))}
        />
      )}
      {unasked > 0 && (
        <p className="mt-2 font-semibold">
          {unasked === 1 ? "One thing" : `${unasked} things`} this work could have broken {unasked === 1 ? "is" : "are"} not yet looked at.
        </p>
      )}
      <button type="submit" className="btn btn-go mt-2 w-full" disabled={act.isBusy || unasked > 0}>
        {proof.isProved ? "Close the job" : draft.unproved.trim() ? "Close it unproved" : "Close the job"}
      </button>
      {act.trouble && (
        <p className="trouble mt-2" role="alert">
          {act.error === "not-proved"
            ? "Not closed: it is not proved. Do what is listed above, or say why it goes out unproved."
            : act.trouble}
        </p>
      )}
    </form>
  );
}

/** What mending could itself have put wrong: each looked at before the job can be closed. */
function Aftermath({ asked, looked, onTurn }: { asked: JobView["aftermath"]; looked: readonly string[]; onTurn: (id: string) => void }) {
  if (asked.length === 0) return null;
  return (
    <fieldset className="py-1">
      <legend className="caps mb-1">What this work could have broken</legend>
      <ul className="ruled">
        {asked.map(({ id, asks }) => (
          <li key={id}>
            <label className="flex min-h-11 items-center gap-3 leading-tight">
              <input type="checkbox" className="size-6 shrink-0" checked={looked.includes(id)} onChange={() => onTurn(id)} />
              {asks}
            </label>
          </li>
        ))}
      </ul>
    </fieldset>
  );
}

/** A cure is credited only to what lies between the bad reading and the good one. */
function Credit({ view }: { view: JobView }) {
  const fixes = view.steps.flatMap((step) =>
    step.kind === "fix" && !step.isUndone ? [{ id: step.id, label: FIX_LABELS[step.data.fix as FixId] }] : [],
  );
  return (
    <ul className="mt-1 text-sm">
      {view.proof.required
        .filter(({ changedBetween }) => changedBetween.length > 0)
        .map(({ check, changedBetween }) => (
          <li key={check}>
            {checkLabel(check)} came good after {changedBetween.length > 1 ? `one of these ${changedBetween.length}: ` : ""}
            {changedBetween.map((id) => fixes.find((fix) => fix.id === id)?.label.toLowerCase()).join("; ")}.
          </li>
        ))}
    </ul>
  );
}

function ClosedPanel({ view, act, guessed }: { view: JobView; act: Act; guessed: string | undefined }) {
  const close = view.steps.findLast((step) => step.kind === "close" && !step.isUndone);
  if (close?.kind !== "close") return null;
  const label = (id: string) => CAUSES.find((cause) => cause.id === id)?.label ?? "Nothing found";
  return (
    <div>
      <p className={`text-2xl font-bold ${close.data.isProved ? "text-good" : "text-mark"}`} style={{ fontStretch: "84%" }}>
        {close.data.isProved ? "Closed, proved." : "Closed, not proved."}
      </p>
      <p className="text-lg">{close.data.causes.map(label).join("; ")}.</p>
      {close.data.unprovedReason && <p>Went out unproved: {close.data.unprovedReason}</p>}
      {close.data.words && <p className="mt-1">“{close.data.words}”</p>}
      {guessed && (
        <p className="mt-1 text-sm text-soft">
          First guess: {label(guessed)}, {close.data.causes.includes(guessed) ? "and it was." : "and it was not."}
        </p>
      )}
      <Credit view={view} />
      <button
        type="button"
        className="btn mt-3"
        disabled={act.isBusy}
        onClick={() => act.send("undo", { stepId: close.id, reason: "reopened" })}
      >
        Reopen
      </button>
      <Trouble act={act} />
    </div>
  );
}
