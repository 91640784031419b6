"use client";

import type { JobView } from "@/data/job/job-view";
import { labelOfCause } from "@/ui/words/diagnosis";
import type { Act } from "../act";
import { Trouble } from "../trouble";
import { Account } from "./account";
import { BeforeAfter } from "./before-after";
import { Credit } from "./credit";

export function ClosedPanel({
  view,
  act,
  guessed,
  timeOf,
}: {
  view: JobView;
  act: Act;
  guessed: string | undefined;
  timeOf: (iso: string) => string;
}) {
  const close = view.steps.findLast((step) => step.kind === "close" && !step.isUndone);
  if (close?.kind !== "close") return null;
  const label = (id: string) => (id === "nothing-found" ? "Nothing found" : labelOfCause(id));
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
      <BeforeAfter view={view} act={act} />
      <Account view={view} timeOf={timeOf} />
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
