"use client";

import type { ProofGap } from "@/core/job/jobs";
import type { JobView } from "@/data/job/job-view";
import { TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { sayGap } from "@/ui/words/proof";
import { sayReason } from "@/ui/words/state";
import type { Act } from "../act";
import { causesOffered, suspectedCauses } from "../case/causes";
import type { PanelId } from "../panel-id";
import { panelOf } from "../safe/clearing";
import { ClosedPanel } from "./closed-panel";
import { Credit } from "./credit";

function gapPanel(gap: ProofGap): PanelId {
  if ("check" in gap) return `check:${gap.check}`;
  if (gap.code === "open-on-machine") return panelOf(gap.reason.clears);
  if (gap.code === "released-unread") return gap.cause.kind === "stop" ? `check:${gap.cause.check}` : "put-back";
  return gap.code === "nothing-changed" ? "fix" : "cut";
}

/** Proof as worked out from the readings, with what is missing; closing without it asks why. */
export function ClosePanel({
  view,
  act,
  open,
  timeOf,
}: {
  view: JobView;
  act: Act;
  open: (panel: PanelId) => void;
  timeOf: (iso: string) => string;
}) {
  const fixed = view.steps.flatMap((step) => (step.kind === "fix" && !step.isUndone ? [step.data.cause] : []));
  const {
    value: draft,
    set,
    clear,
    ticket,
  } = useDraft<{ causes: string[]; words: string; unproved: string }>(`job:${view.id}:close`, {
    causes: [...new Set(fixed)],
    words: "",
    unproved: "",
  });
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
    const close = {
      causes: draft.causes,
      words: draft.words,
      ...(draft.unproved.trim() && !proof.isProved ? { unprovedReason: draft.unproved } : {}),
    };
    const sent = await act.send("close", close, ticket);
    if (sent) clear();
  };
  if (view.state === "closed") return <ClosedPanel view={view} act={act} guessed={guessed} timeOf={timeOf} />;
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
              → {gap.code === "open-on-machine" ? `${sayReason(gap.reason, view.machine.machine, timeOf)}.` : sayGap(gap)}
            </button>
          </li>
        ))}
      </ul>
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
        <>
          <TextField
            id="close-unproved"
            label="Close it unproved, because"
            value={draft.unproved}
            onChange={(unproved) => set((before) => ({ ...before, unproved }))}
          />
          <p className="text-sm text-soft">What is missing above is then owed on the machine.</p>
        </>
      )}
      <button type="submit" className="btn btn-go mt-2 w-full" disabled={act.isBusy}>
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
