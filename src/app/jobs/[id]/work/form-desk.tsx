"use client";

import { memo, useEffect } from "react";
import type { CheckRow } from "@/core/catalogue";
import { type Assessment, worksheetById } from "@/core/checks";
import type { WorkUp } from "@/core/diagnosis";
import type { Standpoint } from "@/core/machine";
import type { JobView } from "@/data/job/job-view";
import { faceOf } from "@/ui/checks/faces";
import { useDraft } from "@/ui/draft";
import { LeftBy } from "@/ui/left-by";
import { useSeat } from "@/ui/person";
import { SheetDesk } from "@/ui/sheet/desk";
import { formKey } from "@/ui/sheet/draft-key";
import { type Evaluated, retyped, type Typed, typedAgain } from "@/ui/sheet/evaluate";
import { WayOf } from "@/ui/way";
import { cautionsOf } from "@/ui/words/cautions";
import { placeName } from "@/ui/words/quantities";
import type { Act } from "../act";
import { Looked, LookForm } from "../case/look-panel";
import { LookAgain, WhyThis } from "../case/why-this";
import { KeptPictures, Photographs } from "../close/photographs";
import type { PanelId } from "../panel-id";
import { Cautions, SafeGate } from "../safe/gate";
import { isSafeFor, latestTake, wantsReading } from "../steps";
import { Trouble } from "../trouble";
import { CorrectionReason, holdsMachine, newestTake, ReadSince, readSince } from "./read-since";
import { StaleNote } from "./stale-note";

type Args = {
  view: JobView;
  workUp: WorkUp | undefined;
  row: CheckRow;
  standpoint: Standpoint;
  onStandpoint: (one: Standpoint) => void;
  act: Act;
  open: (panel: PanelId) => void;
  /** What the readings as typed come to, for the diagnosis. */
  onLive: (live: { checkId: string; assessment: Assessment } | undefined) => void;
  timeOf: (iso: string) => string;
};

type FormDraft = Typed & { correctsStepId?: number; isOpen: boolean; reason?: string; seenStepId?: number };
/** Where the readings of a worksheet are typed. */
const HAND = "#in-hand, [aria-label=Drawing]";
const EMPTY_FORM: FormDraft = { text: {}, sure: {}, isOpen: false };

/** A worksheet with a form, in a job: drawn anew when it is typed in, not when the diagnosis beside it moves. */
export const FormDesk = memo(function FormDesk({ view, workUp, row, standpoint, onStandpoint, act, open, onLive, timeOf }: Args) {
  const { system, who } = useSeat();
  const check = worksheetById(row.id);
  const {
    value: draft,
    set,
    clear,
    ticket,
    left,
  } = useDraft<FormDraft>(formKey(view.id, row.id), EMPTY_FORM, {
    retype: (typed, from, to) => (check ? { ...typed, ...retyped({ check, machine: view.machine.machine, typed, from, to }) } : typed),
  });
  const { machine } = view.machine;
  const take = latestTake(view, row.id);
  // A look that was written down without measuring has no figures to show.
  const isLook = take?.result.ruleVersion === 0;
  const newest = newestTake(view, row.id);
  const other = readSince({ view, checkId: row.id, seenStepId: draft.seenStepId, who });
  const isTyped = Object.values(draft.text).some((text) => text.trim() !== "");
  const isOpen = isTyped || (view.state !== "closed" && (wantsReading(view, row.id) || draft.isOpen));
  const contexts: Partial<Record<string, object>> = view.contexts;
  useEffect(() => () => onLive(undefined), [onLive]);
  const face = faceOf(row.id);
  if (!check) return null;
  // A slip put right stands on what stood when it was made; the record does the same.
  const stood = check.wants === "units-standing" && draft.correctsStepId !== undefined && take ? standingIn(take.input) : undefined;
  const context = stood ? { standing: stood } : contexts[row.id];
  const save = async ({ readings, asTyped, assessment, wrongCount }: Evaluated) => {
    if (!assessment || wrongCount > 0) return;
    const { correctsStepId, reason } = draft;
    const take = {
      checkId: row.id,
      readings,
      asTyped,
      seenStepId: draft.seenStepId ?? newest,
      ...(correctsStepId ? { correctsStepId } : {}),
      ...(correctsStepId && reason ? { reason } : {}),
    };
    const sent = await act.send("takes", take, ticket);
    if (sent) {
      onLive(undefined);
      clear();
    }
  };
  return (
    <SheetDesk
      check={check}
      title={row.label}
      machine={machine}
      system={system}
      standpoint={standpoint}
      onStandpoint={onStandpoint}
      context={context}
      typed={draft}
      // What stood there when the first figure was typed is what whoever types has seen.
      change={(change) => set((before) => ({ ...before, ...change(before), seenStepId: before.seenStepId ?? newest }))}
      taken={take && !isLook ? { assessment: take.result, input: take.input, stale: take.stale } : undefined}
      isOpen={isOpen}
      canEnter={isSafeFor(view, row.state)}
      timeOf={timeOf}
      expected={draft.correctsStepId === undefined && take && !isLook ? check.expects?.(take.result) : undefined}
      lastTime={view.lastKept[row.id as keyof typeof view.lastKept]}
      gate={<SafeGate needs={row.state} open={open} />}
      onEvaluated={({ assessment, isStarted }) => onLive(isOpen && isStarted && assessment ? { checkId: row.id, assessment } : undefined)}
      foot={(evaluated) => (
        <>
          {other && (
            <ReadSince take={other} machine={machine} timeOf={timeOf} onSeen={() => set((before) => ({ ...before, seenStepId: newest }))} />
          )}
          {draft.correctsStepId !== undefined && take && holdsMachine(take) && (
            <CorrectionReason value={draft.reason ?? ""} onChange={(reason) => set((before) => ({ ...before, reason }))} />
          )}
          <SaveBar
            evaluated={evaluated}
            isBusy={act.isBusy}
            isWaiting={other !== undefined}
            isCorrection={draft.correctsStepId !== undefined}
            canClear={isTyped || draft.isOpen}
            onSave={() => save(evaluated)}
            onClear={clear}
          />
          {face.keptPictures && <KeptPictures view={view} about={face.keptPictures} />}
          {face.photographs && <Photographs view={view} act={act} about={face.photographs} />}
          {!isTyped && (
            <details className="mt-2">
              <summary className="min-h-11 cursor-pointer py-2">Only looked at, not measured</summary>
              <LookForm view={view} workUp={workUp} row={row} act={act} onSaved={clear} />
            </details>
          )}
          <Trouble act={act} />
        </>
      )}
      takenFoot={
        take &&
        view.state !== "closed" && (
          <div className="mt-3 flex gap-2">
            <button type="button" className="btn grow" onClick={() => set((before) => ({ ...before, isOpen: true }))}>
              Read again
            </button>
            {!isLook && (
              <button
                type="button"
                className="btn grow"
                onClick={() =>
                  set({ ...typedAgain({ check, machine, input: take.input, system }), correctsStepId: take.stepId, isOpen: true })
                }
              >
                Correct a slip
              </button>
            )}
          </div>
        )
      }
    >
      {!isOpen && take && !isLook && (
        <p className="text-sm text-soft">
          Taken {timeOf(take.at)} by {take.who}, by version {take.sheetVersion} of its sheet
          {take.correctsStepId ? ", as a correction" : ""}.
        </p>
      )}
      {!isOpen && take && <LookAgain view={view} workUp={workUp} row={row} act={act} open={open} />}
      {take && isLook && <Looked take={take} timeOf={timeOf} />}
      {!isOpen && !take && <p>Not taken in this job.</p>}
      {isOpen && <LeftBy left={left} />}
      {isOpen && !isTyped && <WhyThis view={view} workUp={workUp} row={row} act={act} open={open} />}
      {isOpen && !isTyped && !take && <WayOf checkId={row.id} />}
      {isOpen && <Standing units={Object.keys(standingIn(context))} view={view} />}
      {isOpen && <Cautions lines={cautionsOf(row.id)} />}
      {isOpen && take && take.stale.length > 0 && <StaleNote view={view} stale={take.stale} timeOf={timeOf} />}
    </SheetDesk>
  );
});

const standingIn = (from: unknown): object => (from as { standing?: object } | undefined)?.standing ?? {};

/** Units that were read in this job and not touched since: they need not be read again. */
function Standing({ units, view }: { units: readonly string[]; view: JobView }) {
  if (units.length === 0) return null;
  const names = units.map((unit) => placeName(view.machine.machine, unit).toLowerCase()).join(", ");
  return (
    <p className="border-l-4 border-rule pl-2 text-sm leading-snug">
      Still stands from this job: {names}. Read again only what was touched.
    </p>
  );
}

/** In a field of another panel: what is sent there is none of this one's. */
function isTypedElsewhere(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.matches("input, textarea, select") && !target.closest(HAND);
}

function SaveBar(args: {
  evaluated: Evaluated;
  isBusy: boolean;
  /** Another reading has to be looked at first. */
  isWaiting: boolean;
  isCorrection: boolean;
  canClear: boolean;
  onSave: () => void;
  onClear: () => void;
}) {
  const { evaluated, isBusy, isWaiting, isCorrection, canClear, onSave, onClear } = args;
  const { wrongCount } = evaluated;
  const isHeld = isBusy || isWaiting;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!event.ctrlKey || event.key !== "Enter" || isTypedElsewhere(event.target)) return;
      event.preventDefault();
      if (!isHeld) onSave();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [onSave, isHeld]);
  return (
    <>
      <div className="sticky -bottom-4 -mx-4 mt-2 flex gap-2 border-t border-rule bg-sheet px-4 py-2">
        <button type="button" className="btn btn-go grow" disabled={isHeld || !evaluated.assessment || wrongCount > 0} onClick={onSave}>
          {isBusy ? "Saving …" : isCorrection ? "Save the correction" : "Save the readings"}
        </button>
        {canClear && (
          <button type="button" className="btn" onClick={onClear}>
            Clear
          </button>
        )}
      </div>
      {wrongCount > 0 && (
        <p className="trouble mt-1">
          {wrongCount === 1 ? "One field needs" : `${wrongCount} fields need`} another look before this can be saved.
        </p>
      )}
    </>
  );
}
