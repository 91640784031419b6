"use client";

import Link from "next/link";
import { useState } from "react";
import { plusMinus95 } from "@/core/basics/findings";
import { fromSi } from "@/core/basics/units";
import type { HeightReadings } from "@/core/checks";
import { speedsAt } from "@/core/job/bench/set-up";
import { unitSheetOf } from "@/core/machine";
import { stanceOf } from "@/core/physics/reel";
import type { MachineRecord } from "@/data/machine/machines";
import { length } from "@/ui/checks/shared";
import { SideStage } from "@/ui/checks/side-stage";
import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { QuantityField } from "@/ui/quantity-field";
import { useWriting } from "@/ui/reread";
import { sayError, sayIssue } from "@/ui/words/issues";
import { show } from "@/ui/words/quantities";
import { sayMove, sayUnsuited } from "@/ui/words/set-up";
import {
  asItStands,
  drawnUnits,
  firstDraft,
  formerSettings,
  isOfAnotherSheet,
  MOST_METRES,
  type Move,
  onSheetNow,
  readSetting,
  type SettingDraft,
  settingsForAll,
  withHeight,
  withMove,
  withTurf,
  written,
} from "./setting";
import { UnitPlan } from "./unit-plan";

type Visits = HeightReadings["unitVisits"];
const STEP_METRES = 0.00005;

const MOVES: readonly { move: Move; words: string }[] = [
  { move: "front", words: "Front roller up" },
  { move: "rear", words: "Rear roller up" },
  { move: "onFront", words: "Packed on the front" },
  { move: "onRear", words: "Packed on the rear" },
];

/** The bench setting of every unit of a reel machine: what if apart from what stands, and kept once it is meant. */
export function BenchDesk({ record, visits, unit }: { record: MachineRecord; visits: Visits; unit: string | undefined }) {
  const { system } = useSeat();
  const key = `bench:${record.id}:${system}`;
  return <Desk key={`${key}:${record.sheetVersion}`} record={record} visits={visits} unit={unit} draftKey={key} />;
}

type Kept = { chosen: string; units: string[]; before: ReturnType<typeof formerSettings>; machineVersion: number };
/** What was kept last on this page, so that it can be taken back though the page was made anew for the new sheet. */
const lastKept = new Map<string, Kept>();

function Desk({ record, visits, unit, draftKey }: { record: MachineRecord; visits: Visits; unit: string | undefined; draftKey: string }) {
  const { who, system } = useSeat();
  const { submit, reread, isBusy } = useWriting();
  const { machine } = record;
  const kept = lastKept.get(record.id);
  const isKept = kept?.machineVersion === record.sheetVersion;
  // The unit in hand stays in hand on the sheet that was just kept.
  const {
    value: typed,
    set,
    clear,
    ticket,
  } = useDraft<SettingDraft>(draftKey, firstDraft(machine, isKept ? kept?.chosen : unit, record.sheetVersion));
  const [sure, setSure] = useState<Record<string, string>>({});
  const [failed, setFailed] = useState("");
  const isOld = isOfAnotherSheet(typed, record.sheetVersion);
  // Where nothing is typed yet, what is typed next is of the sheet as it is now.
  const draft = isOld ? typed : { ...typed, version: record.sheetVersion };
  const args = { machine, draft, system, visits, sure };
  const read = readSetting(args);
  const chosen = machine.units.find(({ id }) => id === draft.unit);
  const labelsOf = (units: readonly string[]) =>
    units.length === machine.units.length && units.length > 1
      ? "all units"
      : units.map((id) => machine.units.find((one) => one.id === id)?.label.toLowerCase() ?? id).join(", ");

  const send = async (settings: Record<string, object>, reason: string) => {
    const units = Object.keys(settings);
    const before = formerSettings(machine, units);
    const sent = await submit<{ sheetVersion: number }>(
      `/api/v1/machines/${record.id}/bench-setting`,
      { who: who ?? "", basedOnVersion: record.sheetVersion, settings, reason },
      { ticket },
    );
    if (!sent) return;
    if (sent.ok) {
      lastKept.set(record.id, { chosen: draft.unit, units, before, machineVersion: sent.answer.sheetVersion });
      clear();
      setFailed("");
      reread();
      return;
    }
    // Another's change is shown, and what was typed stays beside it.
    if (sent.error === "changed-since") reread();
    const first = sent.issues[0];
    setFailed(first && sent.error === "invalid" ? sayIssue(first, system) : sayError(who ? sent.error : "unknown-person"));
  };

  if (!read || !chosen)
    return (
      <main className="mx-auto max-w-[50rem] p-4">
        <Title record={record} />
        <p className="mt-3 text-lg">
          No unit of this machine has its side view on the sheet yet: rollers, edge, heel and toe. Without it nothing of its setting can be
          reckoned; it is measured on the bench, worksheet by worksheet.
        </p>
      </main>
    );

  const drags = read.unsuited.some((one) => (one.code === "no-heel" || one.code === "no-toe") && one.clearMetres < 0);
  const isAsked = read.isMoved || read.setUp !== undefined;
  const canKeep = isAsked && read.isMeant && !drags && !isBusy && !isOld;
  const moves = read.setUp && read.isMoved ? `: ${sayMove(read.setUp, system)}` : "";
  const stance = stanceOf(read.set);
  const rides = stanceOf(read.rides);
  const turfs = turfsOf(visits[draft.unit] ?? []);
  const all = settingsForAll(machine, draft.unit, read.set);
  const beyond = Object.entries(all).filter(([, setting]) => setting === undefined);
  const speeds = stance && speedsAt({ machine, unit: draft.unit, heightMetres: stance.heightMetres });
  const heightWords = stance ? length(stance.heightMetres, system) : "";
  const keep = (units: readonly string[]) =>
    send(
      Object.fromEntries(units.flatMap((id) => (all[id] ? [[id, all[id]]] : []))),
      `Bench setting ${heightWords}, ${labelsOf(units)}${moves}`.slice(0, 300),
    );
  return (
    <main className="grid grid-cols-1 lg:h-[calc(100dvh-3.25rem-var(--notes,0px))] lg:grid-cols-[minmax(0,1fr)_25rem] lg:grid-rows-[minmax(0,1fr)_auto]">
      <section aria-label="Side view" className="dye flex min-h-64 flex-col pb-1 lg:min-h-0">
        <SideStage label={chosen.label} sheet={unitSheetOf(machine, draft.unit)} stands={read.stands} moved={read.rides} system={system} />
      </section>
      <section aria-label="Adjusters" className="grid gap-x-6 bg-sheet px-3 py-1 max-lg:order-2 sm:grid-cols-2">
        {MOVES.map(({ move, words }) => (
          <MoveRow
            key={move}
            id={`bench-${move}`}
            label={words}
            hint={move === "front" || move === "rear" ? "minus is down" : "minus is sunk in"}
            text={draft.units[draft.unit]?.[move] ?? ""}
            entry={read.entries[move]}
            most={MOST_METRES[move]}
            onText={(text) => set(withMove(args, move, text))}
            onSure={(text) => setSure((all) => ({ ...all, [`${draft.unit}.${move}`]: text }))}
          />
        ))}
      </section>
      <section
        aria-label="Bench setting"
        className="min-h-0 overflow-y-auto bg-sheet p-3 max-lg:order-1 lg:col-start-2 lg:row-span-2 lg:row-start-1 lg:border-l lg:border-rule"
      >
        <Title record={record} />
        {machine.units.length > 1 && (
          <UnitPlan
            machine={machine}
            chosen={draft.unit}
            can={drawnUnits(machine).map(({ id }) => id)}
            onChoose={(id) => set({ ...draft, unit: id })}
          />
        )}
        <p className="mt-1 text-2xl leading-tight font-bold" aria-live="polite">
          {chosen.label}: {heightWords}
          {read.isMoved ? ", what if" : ", as it stands"}
        </p>
        {rides && read.isPacked && <p className="text-lg">Rides at {length(rides.heightMetres, system)} with what is on its rollers.</p>}
        <QuantityField
          id="bench-height"
          label="Height to cut"
          hint={turfs.length === 0 ? undefined : draft.turf === "" ? "over the plate" : `on ${draft.turf}`}
          text={draft.units[draft.unit]?.height ?? ""}
          entry={read.entries.height}
          dimension="length"
          instrument="fine"
          system={system}
          onText={(text) => set(withHeight(args, text))}
          onSure={(text) => {
            const next = { ...sure, [`${draft.unit}.height`]: text };
            setSure(next);
            set(withHeight({ ...args, sure: next }, text));
          }}
        />
        {turfs.length > 0 && (
          <fieldset className="flex flex-wrap gap-1 py-1">
            <legend className="caps">On which turf</legend>
            {["", ...turfs].map((turf) => (
              <button
                key={turf}
                type="button"
                className={`btn ${turf === draft.turf ? "btn-on" : ""}`}
                aria-pressed={turf === draft.turf}
                onClick={() => set(withTurf(args, turf))}
              >
                {turf === "" ? "None" : turf}
              </button>
            ))}
          </fieldset>
        )}
        {read.setUp && (
          <p className="py-1 text-lg leading-snug font-semibold" aria-live="polite">
            {read.plusMinusMetres !== undefined && read.benchMetres !== undefined && (
              <>
                Set {length(read.benchMetres, system)} on the bench, ± {length(plusMinus95(read.plusMinusMetres), system)} from{" "}
                {read.learnt.visits} {read.learnt.visits === 1 ? "visit" : "visits"}.{" "}
              </>
            )}
            {sayMove(read.setUp, system)}
            {read.setUp.bracket && ` Front bracket in hole ${read.setUp.bracket.number}, facing ${read.setUp.bracket.facing}.`}
          </p>
        )}
        <ul className="ruled">
          {[...(read.setUp && !read.setUp.view ? read.setUp.unsuited : []), ...read.unsuited].map((one) => (
            <li key={one.code} className="py-1 leading-snug text-mark">
              {sayUnsuited(one, system)}
            </li>
          ))}
          {read.unsuited.length === 0 && stance && <li className="py-1 text-good">Reel, knife, rollers and travel suit this height.</li>}
          {speeds && (
            <li className="py-1">
              Clip right from {show(speeds.least, "speed", system)} to {show(speeds.most, "speed", system)} at its reel speed.
            </li>
          )}
        </ul>
        <p className="py-1 text-sm leading-snug text-soft">
          Set on the bench, unit clamped, all reels isolated: never in the field. What is kept here is what the unit is to be set to; its
          later steps are measured again.
        </p>
        {isOld && (
          <div className="my-1 border-l-4 border-watch pl-2" role="alert">
            <p>
              {record.sheetBy} changed the sheet since this was typed: {record.sheetReason.toLowerCase()}. Moves were reckoned from what
              stood then.
            </p>
            <button type="button" className="btn my-1" onClick={() => set(onSheetNow(args, record.sheetVersion))}>
              Reckon my heights from what stands now
            </button>
          </div>
        )}
        {failed && (
          <p className="trouble" role="alert">
            {failed}
          </p>
        )}
        <div className="grid gap-1">
          <button type="button" className="btn btn-go" disabled={!canKeep} onClick={() => keep([draft.unit])}>
            Keep {heightWords} for the {chosen.label.toLowerCase()}
          </button>
          {machine.units.length > 1 && (
            <button type="button" className="btn" disabled={!canKeep || beyond.length > 0} onClick={() => keep(Object.keys(all))}>
              Keep it for all {Object.keys(all).length} units
            </button>
          )}
          {drags && <p className="text-sm text-mark">So it would stand on its knife, not on its rollers: this height is not to be kept.</p>}
          {read.isMoved && beyond.length > 0 && (
            <p className="text-sm text-mark">The {labelsOf(beyond.map(([id]) => id))} cannot be brought to this height.</p>
          )}
          {(read.isMoved || read.isPacked) && (
            <button type="button" className="btn" onClick={() => set(asItStands(draft))}>
              Back to what stands
            </button>
          )}
          {isKept && kept && (
            <p className="flex flex-wrap items-center gap-2">
              <span className="grow font-semibold text-good">Kept for {labelsOf(kept.units)}.</span>
              <button
                type="button"
                className="btn"
                disabled={isBusy}
                onClick={() => send(kept.before, `Bench setting taken back, ${labelsOf(kept.units)}`)}
              >
                Undo
              </button>
            </p>
          )}
        </div>
      </section>
    </main>
  );
}

function Title({ record }: { record: MachineRecord }) {
  return (
    <h1 className="text-xl">
      <Link href={`/machines/${record.id}`} className="underline">
        {record.fleetNumber}
      </Link>
      , bench setting
    </h1>
  );
}

/** Turfs it was read on, newest first, each once. */
function turfsOf(visits: Visits[string]): string[] {
  const named = visits.flatMap(({ turf }) => turf ?? []);
  return named.filter((name, k) => named.findIndex((other) => other.toLowerCase() === name.toLowerCase()) === k);
}

/** One adjuster as a number and as a slider: whichever is touched, the other follows. */
function MoveRow(args: {
  id: string;
  label: string;
  hint: string;
  text: string;
  entry: NonNullable<ReturnType<typeof readSetting>>["entries"]["front"];
  most: number;
  onText: (text: string) => void;
  onSure: (text: string) => void;
}) {
  const { system } = useSeat();
  const value = args.entry.kind === "read" ? args.entry.valueSi : 0;
  return (
    <div>
      <QuantityField
        id={args.id}
        label={args.label}
        hint={args.hint}
        text={args.text}
        entry={args.entry}
        dimension="length"
        instrument="fine"
        system={system}
        onText={args.onText}
        onSure={args.onSure}
      />
      <input
        type="range"
        className="h-11 w-full accent-ink"
        min={-args.most}
        max={args.most}
        step={STEP_METRES}
        value={Math.min(args.most, Math.max(-args.most, value))}
        aria-label={`${args.label}, by slider`}
        aria-valuetext={`${fromSi(value, system === "us" ? "in" : "mm").toFixed(system === "us" ? 3 : 2)} ${system === "us" ? "in" : "mm"}`}
        onChange={(event) => args.onText(written(Number(event.target.value), system))}
      />
    </div>
  );
}
