"use client";

import dynamic from "next/dynamic";
import type { RefObject } from "react";
import type { DeckDetail } from "@/core/checks";
import type { CheckRow, WorkUp } from "@/core/diagnosis";
import type { Standpoint } from "@/core/machine";
import { CHECK_CAUTIONS } from "@/core/safety";
import { fromSi, toSi, type UnitSystem } from "@/core/units";
import type { JobView } from "@/data/job-view";
import { AnswerDetails, AnswerHead } from "@/ui/answer";
import { Choice } from "@/ui/choice";
import { useSeat } from "@/ui/person";
import { QuantityField } from "@/ui/quantity-field";
import { show } from "@/ui/words/checks";
import type { Act } from "./act";
import { correctionOf } from "./correction";
import { FloorMap } from "./floor-map";
import { Cautions, SafeGate } from "./gate";
import { StaleNote } from "./stale-note";
import { isSafeFor, latestTake, type PanelId, wantsReading } from "./steps";
import { Trouble } from "./trouble";
import { WANTED_KEY, type Worksheet } from "./use-worksheet";
import { WhyThis } from "./why-this";

// The words come by themselves: the first load is what the readings need.
const WayOf = dynamic(() => import("./way").then((module) => module.WayOf));

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
  const take = latestTake(view, row.id);
  const isClosed = view.state === "closed";
  const isOpen = wantsReading(view, row.id) || worksheet.draft.isOpen || worksheet.isStarted;
  if (!isOpen || isClosed) return take ? <TakenPanel {...args} take={take} isClosed={isClosed} /> : <p>Not taken in this job.</p>;
  return (
    <div>
      {worksheet.assessment && <AnswerHead assessment={worksheet.assessment} machine={view.machine.machine} />}
      {!worksheet.isStarted && <WhyThis view={view} workUp={args.workUp} row={row} act={act} />}
      {!worksheet.isStarted && <WayOf checkId={row.id} />}
      <Cautions lines={CHECK_CAUTIONS[row.id as keyof typeof CHECK_CAUTIONS] ?? []} />
      {take && take.stale.length > 0 && <StaleNote view={view} stale={take.stale} timeOf={args.timeOf} />}
      {isSafeFor(view, row.state) ? <Fields {...args} /> : <SafeGate needs={row.state} open={args.open} />}
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

function Fields(args: Args) {
  const { view, row, worksheet, act } = args;
  const { system } = useSeat();
  const { change, draft } = worksheet;
  const wrong = worksheet.wrongCount;
  const hints = draft.correctsStepId ? {} : shouldRead(latestTake(view, row.id), system);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        args.save();
      }}
    >
      {row.id === "deck-level" && (
        <Choice
          label="Form"
          value={draft.form}
          options={[
            ["quick", "Quick, 4"],
            ["twist", "Twist"],
            ["full", "Full, both ends"],
          ]}
          onChange={(form) => change((before) => ({ ...before, form }))}
        />
      )}
      <div className="ruled">
        {worksheet.places.map((place, order) => (
          <QuantityField
            key={place.key}
            id={`place-${place.key}`}
            label={`${order + 1}. ${place.label}`}
            hint={hints[place.key]}
            text={draft.text[place.key] ?? ""}
            entry={worksheet.entries[place.key] ?? { kind: "empty" }}
            dimension={place.dimension}
            instrument={place.instrument}
            system={system}
            trouble={worksheet.troubles.byPlace[place.key]}
            inputRef={(element) => {
              if (element) args.fields.current?.set(place.key, element);
              else args.fields.current?.delete(place.key);
            }}
            onFocus={() => args.onActive(place.key)}
            onText={(text) => change((before) => ({ ...before, text: { ...before.text, [place.key]: text } }))}
            onSure={(text) => change((before) => ({ ...before, sure: { ...before.sure, [place.key]: text } }))}
            onKeyDown={(event) => {
              if (event.key !== "Enter" || event.ctrlKey) return;
              event.preventDefault();
              args.step(event.shiftKey ? -1 : 1);
            }}
          />
        ))}
        {row.id === "deck-level" && (
          <QuantityField
            id="wanted-height"
            label="Height of cut to set (leave empty: only level)"
            text={draft.wantedHeight}
            entry={worksheet.wanted}
            dimension="length"
            instrument="tape"
            system={system}
            onText={(wantedHeight) => change((before) => ({ ...before, wantedHeight }))}
            onSure={(text) => change((before) => ({ ...before, sure: { ...before.sure, [WANTED_KEY]: text } }))}
          />
        )}
        {row.id === "tyre-pressure" && (
          <label className="grid grid-cols-[1fr_9.5rem] items-center gap-2 py-1">
            <span>Gauge steps by</span>
            <select
              className="input num"
              value={draft.gaugeStepPsi}
              onChange={(event) => change((before) => ({ ...before, gaugeStepPsi: event.target.value }))}
            >
              {[0.1, 0.5, 1, 2, 5].map((step) => (
                <option key={step} value={step}>
                  {system === "us" ? `${step} psi` : `${Math.round(fromSi(toSi(step, "psi"), "kpa"))} kPa`}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      {row.id === "deck-level" && (view.machine.machine.deck?.hangers.length ?? 0) > 0 && <Loose {...args} />}
      {row.id === "deck-level" && <FloorMap view={view} worksheet={worksheet} />}
      <div className="sticky -bottom-4 -mx-4 mt-2 flex gap-2 border-t border-rule bg-sheet px-4 py-2">
        <button type="submit" className="btn btn-go grow" disabled={act.isBusy || !worksheet.isStarted || wrong > 0}>
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
    </form>
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

function Loose({ view, worksheet }: Args) {
  const toggle = (id: string) =>
    worksheet.change((draft) => ({
      ...draft,
      loose: draft.loose.includes(id) ? draft.loose.filter((one) => one !== id) : [...draft.loose, id],
    }));
  return (
    <details className="py-1" open={worksheet.draft.loose.length > 0}>
      <summary className="min-h-11 cursor-pointer py-2">Hangers found loose before turning</summary>
      <div className="flex flex-wrap gap-1">
        {view.machine.machine.deck?.hangers.map(({ id, label }) => (
          <button
            key={id}
            type="button"
            aria-pressed={worksheet.draft.loose.includes(id)}
            className={`btn px-3 ${worksheet.draft.loose.includes(id) ? "btn-on" : ""}`}
            onClick={() => toggle(id)}
          >
            {label}
          </button>
        ))}
      </div>
    </details>
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
