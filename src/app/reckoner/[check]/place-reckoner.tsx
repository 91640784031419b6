"use client";

import { useRef, useState } from "react";
import type { Standpoint } from "@/core/machine";
import type { Dimension } from "@/core/units";
import { AnswerDetails, AnswerHead } from "@/ui/answer";
import { type Entry, writeQuantity } from "@/ui/entry";
import { useSeat } from "@/ui/person";
import { DrawingPanel } from "@/ui/places/drawing-panel";
import { PlaceFields } from "@/ui/places/place-fields";
import { usePlaceSteps } from "@/ui/places/use-place-steps";
import { type Draft, EMPTY_DRAFT, useWorksheet } from "@/ui/places/use-worksheet";
import { WayOf } from "@/ui/way";
import { Attach, type ReckonerArgs } from "./reckoner-screen";

const NO_JOB = { tyres: "not-checked", isAfterDropOrRefit: false, blades: "not-known", isBeforeHangers: false } as const;

/** Tyres, deck level and tip speed by themselves: read on the drawing, or in the table. */
export function PlaceReckoner({ row, view, state, change, homeSystem, attach }: ReckonerArgs) {
  const seat = useSeat();
  const { machine } = view.machine;
  const [sure, setSure] = useState<Record<string, string>>({});
  const [standpoint, setStandpoint] = useState<Standpoint>(seat.standsAt);
  const fields = useRef(new Map<string, HTMLInputElement>());
  const value: Draft = {
    ...EMPTY_DRAFT,
    text: state.text,
    sure,
    form: state.form ?? "quick",
    wantedHeight: state.wantedHeight ?? "",
    gaugeStepPsi: state.gaugeStepPsi ?? "0.5",
    loose: state.loose ?? [],
    floor: state.floor ?? {},
  };
  const set = (next: Draft | ((before: Draft) => Draft)) => {
    const after = typeof next === "function" ? next(value) : next;
    setSure(after.sure);
    const { text, form, wantedHeight, gaugeStepPsi, loose, floor } = after;
    change((before) => ({ ...before, text, form, wantedHeight, gaugeStepPsi, loose, floor }));
  };
  const worksheet = useWorksheet({
    kept: { value, set, clear: () => set(EMPTY_DRAFT) },
    machine,
    checkId: row.id,
    system: seat.system,
    deckContext: NO_JOB,
  });
  const { active, setActive, step } = usePlaceSteps(worksheet.places, fields);
  // A job reads bare numbers in the units of whoever sits there.
  const inHomeUnits = (): Draft => {
    if (homeSystem === seat.system) return value;
    const written = (entry: Entry | undefined, dimension: Dimension) =>
      entry?.kind === "read" ? writeQuantity({ valueSi: entry.valueSi, dimension, system: homeSystem }) : "";
    const text = Object.fromEntries(worksheet.places.map(({ key, dimension }) => [key, written(worksheet.entries[key], dimension)]));
    const floor = Object.fromEntries(Object.keys(value.floor).map((key) => [key, written(worksheet.floorEntries[key], "length")]));
    return { ...value, text, sure: text, floor, wantedHeight: written(worksheet.wanted, "length") };
  };
  const { assessment } = worksheet;
  return (
    <>
      <DrawingPanel
        machine={machine}
        standpoint={standpoint}
        onStandpoint={setStandpoint}
        worksheet={worksheet}
        assessment={assessment}
        active={active}
        onActive={setActive}
        onStep={step}
        canEnter
      />
      <section aria-label="In hand" className="relative min-h-0 overflow-y-auto bg-sheet p-4 lg:border-l lg:border-rule" tabIndex={-1}>
        <h2 className="text-xl">What was read</h2>
        {assessment && <AnswerHead assessment={assessment} machine={machine} />}
        {!worksheet.isStarted && <WayOf checkId={row.id} />}
        <PlaceFields
          checkId={row.id}
          machine={machine}
          worksheet={worksheet}
          onActive={setActive}
          fields={fields}
          onSubmit={() => undefined}
          step={step}
          foot={
            <Attach
              view={view}
              canAttach={assessment !== undefined && worksheet.wrongCount === 0}
              onAttach={(jobId) => attach(jobId, `job:${jobId}:${row.id}`, { ...inHomeUnits(), isOpen: true })}
            />
          }
        />
        {worksheet.troubles.general.map((sentence) => (
          <p key={sentence} className="trouble" role="alert">
            {sentence}
          </p>
        ))}
        {assessment && <AnswerDetails assessment={assessment} machine={machine} standpoint={standpoint} timeOf={(iso) => iso} />}
      </section>
    </>
  );
}
