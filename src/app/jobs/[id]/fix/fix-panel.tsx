"use client";

import { useMemo } from "react";
import { fromSi, parseQuantity, shownUnit } from "@/core/basics/units";
import { CHECKS, EVENTS, FIX_CAUTIONS, FIX_LABELS, FIXES, type FixRow, GRINDS_KNIFE, isByUnit, SPINS_REEL } from "@/core/catalogue";
import type { WorkUp } from "@/core/diagnosis";
import { isIncredibleTorque } from "@/core/physics/blades/bolts";
import type { JobView } from "@/data/job/job-view";
import { TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { walkOnEnter } from "@/ui/walk";
import { sayCautions } from "@/ui/words/cautions";
import { sayIssue, sayQuantityIssue } from "@/ui/words/issues";
import { show } from "@/ui/words/quantities";
import type { Act } from "../act";
import { causesOffered, suspectedCauses } from "../case/causes";
import { SecondLook } from "../case/second-look";
import type { PanelId } from "../panel-id";
import { Cautions, SafeGate } from "../safe/gate";
import { isSafeFor } from "../steps";
import { Trouble } from "../trouble";
import { FigureInput } from "./figure-input";
import { EMPTY, type FixDraft } from "./fix-draft";
import { figuresOf, plannedTurns, pressureTargets } from "./fix-figures";
import { guideOf, reelKnown, troubleWithUnits, unitsAccused } from "./fix-units";
import { groundOf, NO_GROUND } from "./grind-draft";
import { GrindTally } from "./grind-tally";

const fixRows: readonly FixRow[] = FIXES;

/** What was done: the cause it is for, the fix of the tables, and its figures before and after. */
export function FixPanel({
  view,
  workUp,
  act,
  open,
}: {
  view: JobView;
  workUp: WorkUp | undefined;
  act: Act;
  open: (panel: PanelId) => void;
}) {
  const { system } = useSeat();
  const likelihood = new Map<string, number>(workUp?.diagnosis.causes.map(({ id, presence }) => [id, presence]));
  const likelier = (a: string, b: string) => (likelihood.get(b) ?? 0) - (likelihood.get(a) ?? 0);
  const suspects = suspectedCauses(view).sort(likelier);
  const offered = causesOffered(view);
  const {
    value: draft,
    set,
    clear,
    ticket,
  } = useDraft<FixDraft>(
    `job:${view.id}:fix`,
    { ...EMPTY, cause: suspects[0] ?? "", fix: fixRows.find(({ cause }) => cause === suspects[0])?.fix ?? "" },
    { isMeasured: true },
  );
  const fixes = fixRows.filter(({ cause }) => cause === draft.cause);
  const row = fixes.find(({ fix }) => fix === draft.fix) ?? fixes[0];
  const planned = useMemo(() => plannedTurns(view), [view]);
  const wheels = useMemo(() => pressureTargets(view), [view]);
  const { units } = view.machine.machine;
  const isOfUnits = row !== undefined && units.length > 1 && isByUnit(row.event);
  const doneOn = draft.units ?? unitsAccused(view, draft.cause);
  const isGround = row !== undefined && GRINDS_KNIFE.includes(row.fix);
  const reel = row !== undefined && SPINS_REEL.includes(row.fix) ? reelKnown(view, doneOn) : undefined;
  const tally = isGround ? groundOf(draft.ground ?? NO_GROUND, system, reel) : undefined;
  const unitTrouble = isOfUnits ? troubleWithUnits({ view, row, doneOn, hasTally: tally !== undefined }) : undefined;
  const figures = row ? figuresOf({ row, draft, planned, wheels, system }) : { kind: "none" as const };
  const torque =
    draft.torque.trim() === ""
      ? undefined
      : parseQuantity({ text: draft.torque, dimension: "torque", bareUnit: shownUnit({ dimension: "torque", system }) });
  const save = async () => {
    if (!row) return;
    const fix = {
      fix: row.fix,
      cause: row.cause,
      words: draft.words,
      ...(draft.parts ? { parts: draft.parts } : {}),
      ...(torque?.ok
        ? { torqueNewtonMetres: torque.valueSi, torqueHow: draft.torqueHow || "wrench" }
        : draft.torqueHow === "by-feel"
          ? { torqueHow: "by-feel" }
          : {}),
      ...(figures.kind === "turns" ? { turns: figures.turns } : {}),
      ...(figures.kind === "pressures" ? { pressures: figures.pressures } : {}),
      ...(isOfUnits && doneOn.length > 0 ? { units: doneOn } : {}),
      ...(tally ? { ground: tally } : {}),
    };
    const sent = await act.send("fixes", fix, ticket);
    if (sent) clear();
  };
  const wanted = view.machine.machine.sheet.bladeBoltTorqueNewtonMetres;
  const sheetTorque = wanted === undefined ? undefined : show(wanted, "torque", system);
  const torqueTrouble =
    torque && !torque.ok
      ? sayQuantityIssue(torque.issue)
      : draft.torqueHow === "wrench" && !torque?.ok
        ? sayIssue({ code: "wrench-without-figure" }, system)
        : draft.torqueHow === "by-feel" && torque?.ok
          ? sayIssue({ code: "torque-without-wrench" }, system)
          : torque?.ok && isIncredibleTorque(torque.valueSi, wanted)
            ? sayIssue({ code: "torque-not-credible", wantedNewtonMetres: wanted }, system)
            : undefined;
  const wordsIssue = act.lastAction === "fixes" ? act.issues.find(({ path }) => path[0] === "words") : undefined;
  const wordsTrouble = wordsIssue && draft.words.trim() === "" ? sayIssue(wordsIssue, system) : undefined;
  const isBlades = row !== undefined && (row.event === "blade-changed" || row.event === "blade-refitted");
  const sorted = [...offered].sort((a, b) => Number(suspects.includes(b.id)) - Number(suspects.includes(a.id)) || likelier(a.id, b.id));
  return (
    <form
      onKeyDown={walkOnEnter}
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <p className="text-sm text-soft">One change at a time where two suspects must be told apart.</p>
      <label className="block py-1">
        <span className="caps mb-1 block">For which cause</span>
        <select
          className="input"
          value={draft.cause}
          onChange={(event) =>
            // Units and tally were of the other cause's fix.
            set(({ units: _, ground: __, ...before }) => ({ ...before, cause: event.target.value, fix: "" }))
          }
        >
          <option value="">Pick one</option>
          {sorted.map(({ id, label }) => (
            <option key={id} value={id}>
              {suspects.includes(id) ? `${label} (readings say so)` : label}
            </option>
          ))}
        </select>
      </label>
      <SecondLook view={view} workUp={workUp} cause={draft.cause} act={act} open={open} />
      {row && (
        <>
          <label className="block py-1">
            <span className="caps mb-1 block">What was done</span>
            <select className="input" value={row.fix} onChange={(event) => set((before) => ({ ...before, fix: event.target.value }))}>
              {fixes.map(({ fix }) => (
                <option key={fix} value={fix}>
                  {FIX_LABELS[fix as keyof typeof FIX_LABELS]}
                </option>
              ))}
            </select>
          </label>
          <Cautions lines={sayCautions(FIX_CAUTIONS[row.fix as keyof typeof FIX_CAUTIONS])} />
          {!isSafeFor(view, row.state) && <SafeGate needs={row.state} open={open} />}
          {isOfUnits && (
            <fieldset className="py-1">
              <legend className="caps mb-1">Done on</legend>
              <div className="flex flex-wrap gap-x-4">
                {units.map(({ id, label }) => (
                  <label key={id} className="flex min-h-11 items-center gap-2">
                    <input
                      type="checkbox"
                      className="size-6"
                      checked={doneOn.includes(id)}
                      onChange={(event) => {
                        const rest = doneOn.filter((one) => one !== id);
                        set((before) => ({ ...before, units: event.target.checked ? [...rest, id] : rest }));
                      }}
                    />
                    {label}
                  </label>
                ))}
              </div>
              <p className="text-sm text-soft">
                {doneOn.length === 0
                  ? "None ticked: written down for all of them."
                  : "Only these are to be read again; their sisters stand."}
              </p>
            </fieldset>
          )}
          {isGround && (
            <GrindTally
              draft={draft.ground ?? NO_GROUND}
              system={system}
              reel={reel}
              change={(change) => set((before) => ({ ...before, ground: change(before.ground ?? NO_GROUND) }))}
            />
          )}
          {row.fix === "adjust-hangers" && (
            <fieldset className="py-1">
              <legend className="caps mb-1">Turns made, up as plus</legend>
              {(view.machine.machine.deck?.hangers ?? []).map(({ id, label }) => (
                <FigureInput
                  key={id}
                  id={`turns-${id}`}
                  label={label}
                  unit="turns"
                  value={draft.turns[id] ?? planned[id] ?? "0"}
                  trouble={"troubles" in figures ? figures.troubles[id] : undefined}
                  onChange={(text) => set((before) => ({ ...before, turns: { ...before.turns, [id]: text } }))}
                />
              ))}
            </fieldset>
          )}
          {row.fix === "set-pressures" && (
            <fieldset className="py-1">
              <legend className="caps mb-1">Reads now, cold</legend>
              {wheels.map(({ wheelId, label, toPascals }) => (
                <FigureInput
                  key={wheelId}
                  id={`pressure-${wheelId}`}
                  label={label}
                  unit={system === "us" ? "psi" : "kPa"}
                  value={
                    draft.pressures[wheelId] ??
                    fromSi(toPascals, shownUnit({ dimension: "pressure", system }))
                      .toFixed(1)
                      .replace(/\.0$/, "")
                  }
                  trouble={"troubles" in figures ? figures.troubles[wheelId] : undefined}
                  onChange={(text) => set((before) => ({ ...before, pressures: { ...before.pressures, [wheelId]: text } }))}
                />
              ))}
            </fieldset>
          )}
          {isBlades && draft.torqueHow === "by-feel" && (
            <p className="border-l-4 border-watch pl-2 text-sm leading-snug">
              By feel is written down as such: a wrench is owed on these bolts.
            </p>
          )}
          {isBlades && (
            <div className="grid grid-cols-2 gap-2">
              <TextField
                id="fix-torque"
                label={sheetTorque ? `Wrench set to (sheet ${sheetTorque})` : "Wrench set to"}
                value={draft.torque}
                onChange={(text) => set((before) => ({ ...before, torque: text }))}
                trouble={torqueTrouble}
              />
              <label className="block py-1">
                <span className="caps mb-1 block">Tightened</span>
                <select
                  className="input"
                  value={draft.torqueHow}
                  onChange={(event) => set((before) => ({ ...before, torqueHow: event.target.value as FixDraft["torqueHow"] }))}
                >
                  <option value="">not said</option>
                  <option value="wrench">with a torque wrench</option>
                  <option value="by-feel">by feel</option>
                </select>
              </label>
            </div>
          )}
          <TextField
            id="fix-parts"
            label="Parts fitted"
            value={draft.parts}
            onChange={(parts) => set((before) => ({ ...before, parts }))}
          />
          <TextField
            id="fix-words"
            label={row.cause === "something-else" ? "In words: what it was, and what was done" : "In words"}
            rows={2}
            value={draft.words}
            onChange={(words) => set((before) => ({ ...before, words }))}
            trouble={wordsTrouble}
          />
          <p className="text-sm leading-snug text-soft">
            Takes about {row.minutes} min. To be read again after it:{" "}
            {row.provedBy.map((id) => CHECKS.find((check) => check.id === id)?.label.toLowerCase()).join(", ")}. Goes on the log as “
            {EVENTS.find(({ id }) => id === row.event)?.label.toLowerCase()}”.
          </p>
          {guideOf(row.fix, view) && (
            <button type="button" className="btn mt-2 w-full" onClick={() => open(guideOf(row.fix, view) as PanelId)}>
              Do it step by step, every part counted
            </button>
          )}
          <button
            type="submit"
            className="btn btn-go mt-2 w-full"
            disabled={
              act.isBusy ||
              !isSafeFor(view, row.state) ||
              ("troubles" in figures && Object.keys(figures.troubles).length > 0) ||
              torqueTrouble !== undefined ||
              unitTrouble !== undefined
            }
          >
            Write the fix down
          </button>
        </>
      )}
      <Trouble act={act} />
    </form>
  );
}
