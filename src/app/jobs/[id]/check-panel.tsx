"use client";

import dynamic from "next/dynamic";
import type { RefObject } from "react";
import type { DeckDetail } from "@/core/checks";
import type { WorkUp } from "@/core/diagnosis";
import type { Standpoint } from "@/core/machine";
import { CHECK_CAUTIONS } from "@/core/safety";
import type { CheckRow } from "@/core/trade";
import type { UnitSystem } from "@/core/units";
import type { JobView } from "@/data/job-view";
import { AnswerDetails, AnswerHead } from "@/ui/answer";
import { useSeat } from "@/ui/person";
import { PlaceFields } from "@/ui/places/place-fields";
import type { Worksheet } from "@/ui/places/use-worksheet";
import { show } from "@/ui/words/checks";
import type { Act } from "./act";
import { correctionOf } from "./correction";
import { Cautions, SafeGate } from "./gate";
import { CorrectionReason, holdsMachine, ReadSince, readSince } from "./read-since";
import { StaleNote } from "./stale-note";
import { isSafeFor, latestTake, type PanelId, wantsReading } from "./steps";
import { Trouble } from "./trouble";
import { WhyThis } from "./why-this";

// The words come by themselves: the first load is what the readings need.
const WayOf = dynamic(() => import("@/ui/way").then((module) => module.WayOf));

type Args = {
  view: JobView;
  workUp: WorkUp | undefined;
  row: CheckRow;
  worksheet: Worksheet;
  standpoint: Standpoint;
  act: Act;
  open: (panel: PanelId) => void;
  onActive: (key: string) => void;
  fields: RefObject<Map<string, HTMLInputElement>>;
  save: () => void;
  step: (by: 1 | -1) => void;
  timeOf: (iso: string) => string;
};

/** A worksheet: cautions, a field for every place in measuring order, the answer as it is typed. */
export function CheckPanel(args: Args) {
  const { view, row, worksheet, act } = args;
  const { system } = useSeat();
  const take = latestTake(view, row.id);
  const isClosed = view.state === "closed";
  const isOpen = wantsReading(view, row.id) || worksheet.draft.isOpen || worksheet.isStarted;
  if (!isOpen || (isClosed && !worksheet.isStarted))
    return take ? <TakenPanel {...args} take={take} isClosed={isClosed} /> : <p>Not taken in this job.</p>;
  return (
    <div>
      {worksheet.assessment && <AnswerHead assessment={worksheet.assessment} machine={view.machine.machine} />}
      {!worksheet.isStarted && <WhyThis view={view} workUp={args.workUp} row={row} act={act} />}
      {!worksheet.isStarted && <WayOf checkId={row.id} />}
      <Cautions lines={CHECK_CAUTIONS[row.id as keyof typeof CHECK_CAUTIONS] ?? []} />
      {take && take.stale.length > 0 && <StaleNote view={view} stale={take.stale} timeOf={args.timeOf} />}
      {isSafeFor(view, row.state) ? (
        <PlaceFields
          checkId={row.id}
          machine={view.machine.machine}
          worksheet={worksheet}
          hints={worksheet.draft.correctsStepId ? {} : shouldRead(take, system)}
          lastFloor={view.lastFloor}
          onActive={args.onActive}
          fields={args.fields}
          onSubmit={args.save}
          step={args.step}
          foot={<SaveBar {...args} />}
        />
      ) : (
        <SafeGate needs={row.state} open={args.open} />
      )}
      {worksheet.troubles.general.map((sentence) => (
        <p key={sentence} className="trouble" role="alert">
          {sentence}
        </p>
      ))}
      {worksheet.assessment && (
        <AnswerDetails assessment={worksheet.assessment} machine={view.machine.machine} standpoint={args.standpoint} timeOf={args.timeOf} />
      )}
      <Trouble act={act} />
    </div>
  );
}

function SaveBar({ worksheet, act, view, row, timeOf }: Pick<Args, "worksheet" | "act" | "view" | "row" | "timeOf">) {
  const { who } = useSeat();
  const { draft, wrongCount: wrong } = worksheet;
  const take = latestTake(view, row.id);
  const other = readSince({ view, checkId: row.id, seenStepId: draft.seenStepId, who });
  const seen = () => worksheet.change(({ seenStepId: _, ...before }) => before);
  return (
    <>
      {other && <ReadSince take={other} timeOf={timeOf} onSeen={seen} />}
      {draft.correctsStepId !== undefined && take && holdsMachine(take) && (
        <CorrectionReason value={draft.reason ?? ""} onChange={(reason) => worksheet.change((before) => ({ ...before, reason }))} />
      )}
      <div className="sticky -bottom-4 -mx-4 mt-2 flex gap-2 border-t border-rule bg-sheet px-4 py-2">
        <button type="submit" className="btn btn-go grow" disabled={act.isBusy || other !== undefined || !worksheet.isStarted || wrong > 0}>
          {act.isBusy ? "Saving …" : draft.correctsStepId ? "Save the correction" : "Save the readings"}
        </button>
        {(worksheet.isStarted || draft.isOpen) && (
          <button type="button" className="btn" onClick={worksheet.clear}>
            Clear
          </button>
        )}
      </div>
      {wrong > 0 && (
        <p className="trouble mt-1">
          {wrong === 1 ? "One reading needs" : `${wrong} readings need`} another look before this can be saved.
        </p>
      )}
    </>
  );
}

/** What each place read last time, and what it should read after the turns. */
function shouldRead(take: ReturnType<typeof latestTake>, system: UnitSystem): Record<string, string> {
  if (take?.checkId !== "deck-level") return {};
  const { tips } = take.result.detail as DeckDetail;
  return Object.fromEntries(
    tips.map((tip) => {
      const was = show(tip.readMetres, "length", system);
      return [tip.key, tip.afterMetres === undefined ? `was ${was}` : `was ${was}, should read ${show(tip.afterMetres, "length", system)}`];
    }),
  );
}

function TakenPanel(args: Args & { take: NonNullable<ReturnType<typeof latestTake>>; isClosed: boolean }) {
  const { take, worksheet, view } = args;
  const { system } = useSeat();
  const again = () => worksheet.change((draft) => ({ ...draft, isOpen: true }));
  const correct = () => worksheet.change((draft) => ({ ...draft, ...correctionOf(take, system) }));
  return (
    <div>
      <p className="text-sm text-soft">
        Taken {args.timeOf(take.at)} by {take.who}, sheet version {take.sheetVersion}, rule version {take.ruleVersion}
        {take.correctsStepId ? ", as a correction" : ""}.
      </p>
      <AnswerHead assessment={take.result} machine={view.machine.machine} stale={take.stale} />
      <AnswerDetails
        assessment={take.result}
        machine={view.machine.machine}
        standpoint={args.standpoint}
        stale={take.stale}
        timeOf={args.timeOf}
      />
      {!args.isClosed && (
        <div className="mt-3 flex gap-2">
          <button type="button" className="btn grow" onClick={again}>
            Read again
          </button>
          <button type="button" className="btn grow" onClick={correct}>
            Correct a slip
          </button>
        </div>
      )}
    </div>
  );
}
