"use client";

import { table } from "@/core/basics/tables";
import { CAUSES, type CauseRow, type CheckRow } from "@/core/catalogue";
import { featuresOf, kindById, meetsNeed } from "@/core/catalogue/kinds";
import type { WorkUp } from "@/core/diagnosis";
import type { JobView } from "@/data/job/job-view";
import { TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { WayOf } from "@/ui/way";
import { cautionsOf } from "@/ui/words/cautions";
import { labelOfCause, percent } from "@/ui/words/diagnosis";
import type { Act } from "../act";
import type { PanelId } from "../panel-id";
import { Cautions, SafeGate } from "../safe/gate";
import { isSafeFor, latestTake } from "../steps";
import { Trouble } from "../trouble";
import { WhyThis } from "./why-this";

type Args = {
  view: JobView;
  workUp: WorkUp | undefined;
  row: CheckRow;
  act: Act;
  open: (panel: PanelId) => void;
  timeOf: (iso: string) => string;
};

const causeRows: readonly CauseRow[] = CAUSES;
const RESULTS = [
  ["seen", "Seen"],
  ["suspect", "Suspect"],
  ["not-found", "Not there"],
  ["unclear", "Can’t tell"],
] as const;
type Result = (typeof RESULTS)[number][0];
type Found = { cause: string; result: Result }[];

/** A check without a worksheet: cause by cause, what a look told. */
export function LookPanel(args: Args) {
  const { view, workUp, row, act, open, timeOf } = args;
  const take = latestTake(view, row.id);
  const isOpen = view.state !== "closed";
  return (
    <div>
      <WhyThis view={view} workUp={workUp} row={row} act={act} open={open} />
      <WayOf checkId={row.id} />
      <Cautions lines={cautionsOf(row.id)} />
      {take && <Looked take={take} timeOf={timeOf} />}
      {isOpen && !isSafeFor(view, row.state) && <SafeGate needs={row.state} open={open} />}
      {isOpen && isSafeFor(view, row.state) && <LookForm view={view} workUp={workUp} row={row} act={act} />}
      <Trouble act={act} />
    </div>
  );
}

/** What a look told, cause by cause: seen, suspected, not there, or could not tell. */
export function LookForm({ view, workUp, row, act, onSaved }: Pick<Args, "view" | "workUp" | "row" | "act"> & { onSaved?: () => void }) {
  const { machine } = view.machine;
  const features = featuresOf(machine);
  const { value, set, clear, ticket } = useDraft<{ results: Record<string, Result>; note: string }>(`job:${view.id}:look:${row.id}`, {
    results: {},
    note: "",
  });
  const likelihood = new Map<string, number>(workUp?.diagnosis.causes.map(({ id, probability }) => [id, probability]));
  const speaksTo = causeRows
    .filter(
      (cause) =>
        (cause.checks as readonly string[]).includes(row.id) &&
        cause.on.includes(kindById(machine.kind).cutsWith) &&
        meetsNeed(features, cause.needs),
    )
    .sort((a, b) => (likelihood.get(b.id) ?? 0) - (likelihood.get(a.id) ?? 0));
  const each = speaksTo.flatMap(({ id }) => (value.results[id] ? [{ cause: id, result: value.results[id] }] : []));
  const put = (results: Record<string, Result>) => set((before) => ({ ...before, results: { ...before.results, ...results } }));
  const save = async () => {
    const sent = await act.send("findings", { checkId: row.id, result: each[0]?.result ?? "unclear", each, note: value.note }, ticket);
    if (!sent) return;
    clear();
    onSaved?.();
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <ul className="ruled">
        {speaksTo.map(({ id, label }) => (
          <li key={id} className="py-1.5">
            <OneResult
              label={label}
              hint={likelihood.has(id) ? percent(likelihood.get(id) ?? 0) : ""}
              value={value.results[id]}
              onChange={(result) => put({ [id]: result })}
            />
          </li>
        ))}
      </ul>
      {speaksTo.length > 1 && (
        <button
          type="button"
          className="btn mt-1 w-full"
          onClick={() =>
            put(Object.fromEntries(speaksTo.filter(({ id }) => !value.results[id]).map(({ id }) => [id, "not-found" as const])))
          }
        >
          {each.length === 0 ? "None of these" : "None of the others"}
        </button>
      )}
      <TextField id="look-note" label="In words" value={value.note} rows={2} onChange={(note) => set((before) => ({ ...before, note }))} />
      <button type="submit" className="btn btn-go mt-2 w-full" disabled={act.isBusy || each.length === 0}>
        Save what was found
      </button>
    </form>
  );
}

function OneResult({
  label,
  hint,
  value,
  onChange,
}: {
  label: string;
  hint: string;
  value: Result | undefined;
  onChange: (result: Result) => void;
}) {
  return (
    <fieldset>
      <legend className="flex w-full items-baseline gap-2 leading-tight font-semibold">
        {label} <span className="text-sm font-normal tabular-nums text-soft">{hint}</span>
      </legend>
      <div className="mt-1 grid grid-cols-4 gap-1">
        {RESULTS.map(([id, words]) => (
          <button
            key={id}
            type="button"
            aria-pressed={value === id}
            aria-label={`${label}: ${words}`}
            className={`btn !px-1 text-sm ${value === id ? "btn-on" : ""}`}
            onClick={() => onChange(id)}
          >
            {words}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

const FOUND: Record<string, string> = table({ seen: "seen", suspect: "suspected", "not-found": "not there", unclear: "could not tell" });

/** What a look wrote down. */
export function Looked({ take, timeOf }: { take: JobView["takes"][number]; timeOf: (iso: string) => string }) {
  const { note, each } = foundIn(take);
  return (
    <div className="my-2 border-l-4 border-dye pl-2">
      <p className="text-sm text-soft">
        {timeOf(take.at)}, {take.who}
        {take.stale.length > 0 ? ", something was changed since" : ""}
      </p>
      <ul>
        {each.map(({ cause, result }) => (
          <li key={cause}>
            {labelOfCause(cause)}:{" "}
            <span className={result === "seen" || result === "suspect" ? "font-bold text-mark" : ""}>{FOUND[result]}</span>
          </li>
        ))}
      </ul>
      {note && <p>“{note}”</p>}
    </div>
  );
}

/** What a look wrote down, now cause by cause; earlier ones had one result for all. */
function foundIn(take: JobView["takes"][number]): { note: string; each: Found } {
  const detail = take.result.detail as { note?: string; each?: Found; result?: Result; causes?: string[] };
  const each = detail.each ?? (detail.causes ?? []).map((cause) => ({ cause, result: detail.result ?? "unclear" }));
  return { note: detail.note ?? "", each };
}
