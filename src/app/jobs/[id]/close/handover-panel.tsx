"use client";

import type { JobView } from "@/data/job/job-view";
import { TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import type { Act } from "../act";
import { Trouble } from "../trouble";

type HandoverDraft = { what: string; to: string; owes: string; dueAt: string };

/** A box or part that leaves without its machine: to whom, what is owed on it, by when. The job stays open. */
export function HandoverPanel({ view, act }: { view: JobView; act: Act }) {
  const apart = view.boxes.filter(({ where }) => where !== "on").map(({ box }) => box);
  const { value, set, clear, ticket } = useDraft<HandoverDraft>(`job:${view.id}:handover`, {
    what: apart[0]?.replaceAll("-", " ") ?? "",
    to: "",
    owes: "",
    dueAt: "",
  });
  const owes = value.owes.split("\n").filter((line) => line.trim() !== "");
  const isComplete = value.what.trim() !== "" && value.to.trim() !== "" && owes.length > 0;
  const trouble = (field: string) => act.issues.find(({ path }) => path[0] === field) && "Say it in a few words.";
  const past = view.steps.flatMap((step) => (step.kind === "handover" && !step.isUndone ? [step] : []));
  return (
    <form
      onSubmit={async (event) => {
        event.preventDefault();
        const { what, to, dueAt } = value;
        if (isComplete && (await act.send("handover", { what, to, owes, ...(dueAt ? { dueAt } : {}) }, ticket))) clear();
      }}
    >
      <p className="text-sm leading-snug text-soft">
        What leaves the bay without its machine goes with what is owed on it. The job stays open until it is back and proved.
      </p>
      <TextField
        id="handover-what"
        label="What leaves"
        value={value.what}
        trouble={trouble("what")}
        onChange={(what) => set((d) => ({ ...d, what }))}
      />
      <TextField id="handover-to" label="To whom" value={value.to} trouble={trouble("to")} onChange={(to) => set((d) => ({ ...d, to }))} />
      <TextField
        id="handover-owes"
        label="What is owed on it, a line each"
        rows={3}
        value={value.owes}
        trouble={trouble("owes")}
        onChange={(text) => set((d) => ({ ...d, owes: text }))}
      />
      <label className="block py-1">
        <span className="caps mb-1 block">By when</span>
        <input type="date" className="input" value={value.dueAt} onChange={(event) => set((d) => ({ ...d, dueAt: event.target.value }))} />
      </label>
      <button type="submit" className="btn btn-go mt-2 w-full" disabled={!isComplete || act.isBusy}>
        Hand it over
      </button>
      {past.length > 0 && (
        <ul className="ruled mt-3" aria-label="Handed over">
          {past.map((step) => (
            <li key={step.id} className="py-1 leading-snug">
              <span className="font-semibold">{step.data.what}</span> to {step.data.to}, {step.who}: {step.data.owes.join("; ")}
            </li>
          ))}
        </ul>
      )}
      <Trouble act={act} />
    </form>
  );
}
