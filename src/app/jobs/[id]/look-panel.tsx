"use client";

import { useState } from "react";
import { CAUSES, type CauseRow, type CheckRow } from "@/core/diagnosis";
import { featuresOf, kindById, meetsNeed } from "@/core/kinds";
import { CHECK_CAUTIONS } from "@/core/safety";
import type { JobView } from "@/data/job-view";
import { Choice, TextField } from "@/ui/choice";
import type { Act } from "./act";
import { Cautions, SafeGate } from "./gate";
import { isSafeFor, latestTake, type PanelId } from "./steps";

type Args = { view: JobView; row: CheckRow; act: Act; open: (panel: PanelId) => void; timeOf: (iso: string) => string };

const causeRows: readonly CauseRow[] = CAUSES;

/** A check without a worksheet: what was seen, for which causes. */
export function LookPanel({ view, row, act, open, timeOf }: Args) {
  const [result, setResult] = useState<"seen" | "suspect" | "not-found" | "unclear" | "">("");
  const [causes, setCauses] = useState<string[]>([]);
  const [note, setNote] = useState("");
  const { machine } = view.machine;
  const features = featuresOf(machine);
  const speaksTo = causeRows.filter(
    (cause) =>
      (cause.checks as readonly string[]).includes(row.id) &&
      cause.on.includes(kindById(machine.kind).cutsWith) &&
      meetsNeed(features, cause.needs),
  );
  const take = latestTake(view, row.id);
  const save = async () => {
    const named = result === "not-found" || result === "unclear" ? speaksTo.map(({ id }) => id) : causes;
    const sent = await act.send("findings", { checkId: row.id, result, causes: named, note });
    if (!sent) return;
    setResult("");
    setCauses([]);
    setNote("");
  };
  const isBad = result === "seen" || result === "suspect";
  return (
    <div>
      <Cautions lines={CHECK_CAUTIONS[row.id as keyof typeof CHECK_CAUTIONS] ?? []} />
      {take && (
        <p className="my-2 border-l-4 border-dye pl-2">
          {timeOf(take.at)}, {take.who}: {FOUND[String((take.result.detail as { result?: string }).result)]}.{" "}
          {String((take.result.detail as { note?: string }).note ?? "")}
        </p>
      )}
      {view.state === "closed" ? null : !isSafeFor(view, row.state) ? (
        <SafeGate needs={row.state} open={open} />
      ) : (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            save();
          }}
        >
          <Choice
            label="What was found"
            value={result}
            options={[
              ["seen", "Seen"],
              ["suspect", "Suspect"],
              ["not-found", "Not there"],
              ["unclear", "Could not tell"],
            ]}
            onChange={setResult}
          />
          {isBad && (
            <fieldset className="py-1">
              <legend className="caps mb-1">Which</legend>
              <div className="flex flex-wrap gap-1">
                {speaksTo.map(({ id, label }) => (
                  <button
                    key={id}
                    type="button"
                    className={`btn px-3 ${causes.includes(id) ? "btn-on" : ""}`}
                    aria-pressed={causes.includes(id)}
                    onClick={() => setCauses((before) => (before.includes(id) ? before.filter((one) => one !== id) : [...before, id]))}
                  >
                    {label}
                  </button>
                ))}
              </div>
            </fieldset>
          )}
          <TextField id="look-note" label="In words" value={note} rows={2} onChange={setNote} />
          <button type="submit" className="btn btn-go mt-2 w-full" disabled={act.isBusy || result === "" || (isBad && causes.length === 0)}>
            Save what was found
          </button>
        </form>
      )}
      {act.trouble && (
        <p className="trouble mt-2" role="alert">
          {act.trouble}
        </p>
      )}
    </div>
  );
}

const FOUND: Record<string, string> = { seen: "seen", suspect: "suspected", "not-found": "not there", unclear: "could not tell" };
