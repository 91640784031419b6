"use client";

import { useMemo } from "react";
import { emptyTable, table } from "@/core/basics/tables";
import { formatTurns, fromSi, parseQuantity, shownUnit, toSi, type UnitSystem } from "@/core/basics/units";
import { CHECKS, EVENTS, FIX_CAUTIONS, FIX_LABELS, FIXES, type FixRow, GRINDS_KNIFE, isByUnit, SPINS_REEL } from "@/core/catalogue";
import type { DeckDetail, TyreDetail } from "@/core/checks";
import type { WorkUp } from "@/core/diagnosis";
import { offBench } from "@/core/job/status";
import { reelBladesOf, unitSheetOf } from "@/core/machine";
import { isIncredibleTorque } from "@/core/physics/blades/bolts";
import type { JobView } from "@/data/job/job-view";
import { TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { walkOnEnter } from "@/ui/walk";
import { sayCautions } from "@/ui/words/cautions";
import { sayIssue, sayQuantityIssue } from "@/ui/words/issues";
import { placeName, show } from "@/ui/words/quantities";
import type { Act } from "../act";
import { causesOffered, suspectedCauses } from "../case/causes";
import { SecondLook } from "../case/second-look";
import type { PanelId } from "../panel-id";
import { Cautions, SafeGate } from "../safe/gate";
import { isSafeFor, latestTake } from "../steps";
import { Trouble } from "../trouble";
import { GrindTally, type GroundDraft, groundOf, NO_GROUND, type ReelKnown } from "./grind-tally";

const fixRows: readonly FixRow[] = FIXES;

type FixDraft = {
  cause: string;
  fix: string;
  words: string;
  parts: string;
  torque: string;
  torqueHow: "" | "wrench" | "by-feel";
  turns: Record<string, string>;
  pressures: Record<string, string>;
  /** Of a machine with several units: those it was done on. */
  units?: string[];
  ground?: GroundDraft;
};
const EMPTY: FixDraft = { cause: "", fix: "", words: "", parts: "", torque: "", torqueHow: "", turns: {}, pressures: {} };

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

/** The reel of the one unit that is ground: by its sheet, and as its ends were measured last in this job. */
function reelKnown(view: JobView, doneOn: readonly string[]): ReelKnown {
  const { machine } = view.machine;
  const unit = doneOn[0] ?? machine.units[0]?.id ?? "";
  const take = latestTake(view, "reel-cone");
  // Ground since, its ends are no longer as they were measured.
  const stands = take?.stale.every(({ place }) => place !== undefined && place !== unit) === true;
  const figures = stands ? take.result.figures : [];
  const read = (id: string) => figures.find((one) => one.id === id && one.place === unit)?.value;
  const [taperMetres, smallestMetres] = [read("taper"), read("smallest-diameter")];
  const scrapMetres = unitSheetOf(machine, unit).reel?.scrapDiameterMetres;
  return {
    blades: reelBladesOf(machine, unit),
    ...(scrapMetres === undefined ? {} : { scrapMetres }),
    ...(taperMetres === undefined ? {} : { taperMetres }),
    ...(smallestMetres === undefined ? {} : { smallestMetres }),
  };
}

/** Why the ticked units cannot be written down so; the server asks the same. */
function troubleWithUnits(args: { view: JobView; row: FixRow; doneOn: readonly string[]; hasTally: boolean }): string | undefined {
  const { view, row, doneOn, hasTally } = args;
  if (hasTally && doneOn.length !== 1) return sayIssue({ code: "one-knife-a-tally" }, "metric");
  const [off] = row.state === "bench" ? offBench(view.machineState, doneOn) : [];
  return off === undefined
    ? undefined
    : sayIssue({ code: "not-on-bench", place: placeName(view.machine.machine, off).toLowerCase() }, "metric");
}

/** Units at which readings of this job found the cause. */
function unitsAccused(view: JobView, cause: string): string[] {
  const units = view.machine.machine.units.map(({ id }) => id);
  const places = view.takes
    .filter(({ stale }) => stale.length === 0)
    .flatMap(({ result }) =>
      result.findings.filter(({ causes = [] }) => causes.some((one) => one.cause === cause)).map(({ place }) => place),
    );
  return units.filter((unit) => places.includes(unit));
}

const GUIDES: Readonly<Record<string, PanelId>> = table({
  "rebuild-gearbox": "box",
  "reseal-gearbox": "box",
  "replace-pin": "box",
  "sharpen-blades": "blade",
  "replace-blades": "blade",
  "balance-blades": "blade",
  "refit-blades": "blade",
  "replace-bearings": "spindle",
  "replace-shaft": "spindle",
  "repair-shell": "deck",
});

/** The guided round that a fix is made by, where this machine has one. */
function guideOf(fix: string, view: JobView): PanelId | undefined {
  const guide = GUIDES[fix];
  if (guide === "box") return view.boxes.length > 0 ? guide : undefined;
  if (guide === "deck") return view.deck.next ? guide : undefined;
  return guide;
}

function FigureInput({
  id,
  label,
  unit,
  value,
  trouble,
  onChange,
}: {
  id: string;
  label: string;
  unit: string;
  value: string;
  trouble?: string | undefined;
  onChange: (text: string) => void;
}) {
  return (
    <div className="py-0.5">
      <div className="grid grid-cols-[1fr_9rem] items-center gap-2">
        <label htmlFor={id}>{label}</label>
        <div className="relative">
          <input
            id={id}
            className="input num pr-12 text-right"
            value={value}
            autoComplete="off"
            aria-invalid={trouble !== undefined}
            aria-describedby={trouble ? `${id}-trouble` : undefined}
            onChange={(event) => onChange(event.target.value)}
          />
          <span className="pointer-events-none absolute inset-y-0 right-2 flex items-center text-sm text-soft">{unit}</span>
        </div>
      </div>
      {trouble && (
        <p id={`${id}-trouble`} className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </div>
  );
}

/** The turns the last level asked for, as they would be typed. */
/** Of a hanger whose sheet says nothing of its turns the plan is in lengths: how many it took is for whoever turned it to say. */
const isInLengths = (view: JobView, hangerId: string): boolean =>
  view.machine.machine.deck?.hangers.find(({ id }) => id === hangerId)?.liftPerTurnMetres === undefined;

function plannedTurns(view: JobView): Record<string, string> {
  const plan = (latestTake(view, "deck-level")?.result.detail as DeckDetail | undefined)?.plan;
  return Object.fromEntries(
    (plan?.hangers ?? []).map(({ id, turns }) => [
      id,
      isInLengths(view, id) ? "" : turns === 0 ? "0" : `${turns < 0 ? "-" : ""}${spelled(turns)}`,
    ]),
  );
}

const GLYPHS: Record<string, string> = table({ "¼": "1/4", "½": "1/2", "¾": "3/4" });
const spelled = (turns: number) =>
  formatTurns(turns)
    .replace(/([¼½¾])/, (glyph) => ` ${GLYPHS[glyph]}`)
    .trim();

function pressureTargets(view: JobView): { wheelId: string; label: string; fromPascals: number; toPascals: number }[] {
  const read = (latestTake(view, "tyre-pressure")?.result.detail as TyreDetail | undefined)?.wheels ?? [];
  return read.flatMap(({ wheelId, coldPressurePascals, targetPascals }) => {
    const label = view.machine.machine.wheels.find(({ id }) => id === wheelId)?.label ?? wheelId;
    return [{ wheelId, label, fromPascals: coldPressurePascals, toPascals: targetPascals ?? coldPressurePascals }];
  });
}

type FixFigures =
  | { kind: "none" }
  | { kind: "turns"; turns: { hangerId: string; turns: number }[]; troubles: Record<string, string> }
  | { kind: "pressures"; pressures: { wheelId: string; fromPascals: number; toPascals: number }[]; troubles: Record<string, string> };

const MOST_TURNS = 60;
const MOST_PRESSURE = toSi(100, "psi");

function figuresOf(args: {
  row: FixRow;
  draft: FixDraft;
  planned: Record<string, string>;
  wheels: ReturnType<typeof pressureTargets>;
  system: UnitSystem;
}): FixFigures {
  const { row, draft, planned, wheels, system } = args;
  const troubles: Record<string, string> = emptyTable();
  if (row.fix === "adjust-hangers") {
    const texts = { ...planned, ...draft.turns };
    const turns = Object.entries(texts).flatMap(([hangerId, text]) => {
      const parsed = parseQuantity({ text, dimension: "rotation", bareUnit: "rpm" });
      if (!parsed.ok || parsed.hadUnit || Math.abs(parsed.valueSi) > MOST_TURNS) {
        troubles[hangerId] = "Turns as said: 2 1/4, or -2 1/4 for down.";
        return [];
      }
      return [{ hangerId, turns: parsed.valueSi }];
    });
    return { kind: "turns", turns, troubles };
  }
  if (row.fix !== "set-pressures") return { kind: "none" };
  const pressures = wheels.flatMap(({ wheelId, fromPascals, toPascals }) => {
    const text = draft.pressures[wheelId];
    if (text === undefined) return [{ wheelId, fromPascals, toPascals }];
    const parsed = parseQuantity({ text, dimension: "pressure", bareUnit: shownUnit({ dimension: "pressure", system }) });
    if (!parsed.ok) {
      troubles[wheelId] = sayQuantityIssue(parsed.issue);
      return [];
    }
    if (parsed.valueSi < 0 || parsed.valueSi > MOST_PRESSURE) {
      troubles[wheelId] = "No tyre of this trade holds that. Read it again.";
      return [];
    }
    return [{ wheelId, fromPascals, toPascals: parsed.valueSi }];
  });
  return { kind: "pressures", pressures, troubles };
}
