"use client";

import dynamic from "next/dynamic";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import { type Assessment, checkRow } from "@/core/checks";
import type { WorkUp } from "@/core/diagnosis";
import { cutters, STANDPOINT_LABELS, type Standpoint } from "@/core/machine";
import { SYMPTOMS } from "@/core/trade";
import type { JobView } from "@/data/job-view";
import { useDraft } from "@/ui/draft";
import { LineLost } from "@/ui/line-lost";
import { useMachineFeed } from "@/ui/machine-feed";
import { useSeat } from "@/ui/person";
import { DrawingPanel } from "@/ui/places/drawing-panel";
import { usePlaceSteps } from "@/ui/places/use-place-steps";
import { type Draft, EMPTY_DRAFT, useWorksheet } from "@/ui/places/use-worksheet";
import { send } from "@/ui/send";
import { shortTime, sinceWords } from "@/ui/time";
import { VerdictMark } from "@/ui/verdict";
import { labelOfCause } from "@/ui/words/diagnosis";
import { STATE_WORDS } from "@/ui/words/issues";
import { type Act, useAct } from "./act";
import { CheckListHead } from "./check-list";
import { newestTake } from "./read-since";
import {
  isSafeFor,
  type ListedStep,
  latestTake,
  listSteps,
  nextPanel,
  otherChecks,
  type PanelId,
  sheetKind,
  stateWanted,
  wantsReading,
} from "./steps";
import { Suspects } from "./suspects";
import { Timeline } from "./timeline";
import { useDiagnosis } from "./use-diagnosis";

// Each panel comes when it is opened: the first load is what the worksheet needs.
const CheckPanel = dynamic(() => import("./check-panel").then((module) => module.CheckPanel));
const SafePanel = dynamic(() => import("./safe-panel").then((module) => module.SafePanel));
const FixPanel = dynamic(() => import("./fix-panel").then((module) => module.FixPanel));
const PutBackPanel = dynamic(() => import("./put-back-panel").then((module) => module.PutBackPanel));
const HeldPanel = dynamic(() => import("./held-panel").then((module) => module.HeldPanel));
const HandoverPanel = dynamic(() => import("./handover-panel").then((module) => module.HandoverPanel));
const CutPanel = dynamic(() => import("./end-panels").then((module) => module.CutPanel));
const ClosePanel = dynamic(() => import("./end-panels").then((module) => module.ClosePanel));
const FormDesk = dynamic(() => import("./form-desk").then((module) => module.FormDesk), { loading: () => <DeskComing /> });
const LookPanel = dynamic(() => import("./look-panel").then((module) => module.LookPanel));
const CausePanel = dynamic(() => import("./cause-panel").then((module) => module.CausePanel));
const BringPanel = dynamic(() => import("./bring-panel").then((module) => module.BringPanel));
const DeckPanel = dynamic(() => import("./deck-panel").then((module) => module.DeckPanel));
const RebuildPanel = dynamic(() => import("./rebuild-panel").then((module) => module.RebuildPanel));
const LinksPanel = dynamic(() => import("./links-panel").then((module) => module.LinksPanel));
const PhonePanel = dynamic(() => import("./phone-panel").then((module) => module.PhonePanel));

const STANDPOINTS = Object.keys(STANDPOINT_LABELS) as Standpoint[];

type Order = "information" | "walk-round";

export function JobScreen({
  view,
  initial,
  initialOrder,
  now,
}: {
  view: JobView;
  initial: WorkUp | undefined;
  initialOrder: Order;
  now: string;
}) {
  const seat = useSeat();
  const act = useAct(view.id);
  const isLive = useMachineFeed(view.machine.id);
  const [order, setOrder] = useState<Order>(initialOrder);
  // What is saved decides what to do next; what is being typed only moves the picture.
  const [settled, setSettled] = useState(initial);
  const suggested = nextPanel(view, settled, seat.who);
  const { value: chosen, set: setChosen } = useDraft<Chosen>(`job:${view.id}:panel`, { atStep: -1 });
  const lastStep = view.steps.at(-1)?.id ?? 0;
  // A form starts anew after a step of one's own, not under one's hands when another writes.
  const lastOwn = view.steps.findLast(({ who }) => who === seat.who)?.id ?? 0;
  // What was opened by hand stays open until the job moves on; then the next thing to do comes up by itself.
  // What was begun stays in hand whatever others write meanwhile, until this screen sends something or opens another.
  const [begun, setBegun] = useState<{ panel: PanelId; times: number }>();
  const isOnTheWay = lastStep < act.sent.stepId;
  const isBegun = begun !== undefined && (begun.times === act.sent.times || isOnTheWay);
  const panel = isBegun ? begun.panel : panelOf({ chosen, view, suggested });
  const begin = () => {
    if (!isBegun) setBegun({ panel, times: act.sent.times });
  };
  // Before the button's own doing, which may open another. A field is begun after it has taken its letter: begun before, it would lose it.
  const beginAt = ({ target }: { target: EventTarget }) => {
    if (target instanceof Element && target.closest("button")) begin();
  };
  const open = (next: PanelId) => {
    act.clear();
    setBegun(undefined);
    setChosen({ panel: next, atStep: lastStep, ...(next === "safe" && panel.startsWith("check:") ? { cameFrom: panel } : {}) });
    // In one column the panel lies below the list it was opened from.
    if (window.innerWidth < ONE_COLUMN_BELOW)
      requestAnimationFrame(() => document.getElementById("in-hand")?.scrollIntoView({ block: "start" }));
  };
  const cameFrom = chosen.cameFrom?.startsWith("check:") ? checkRow(chosen.cameFrom.slice(6)) : undefined;
  const checkId = panel.startsWith("check:") ? panel.slice(6) : (lastPlaceCheck(view) ?? "");
  const kept = useDraft<Draft>(`job:${view.id}:${checkId}`, EMPTY_DRAFT);
  const newest = newestTake(view, checkId);
  const setKept = kept.set;
  // What stood there when the first figure was typed is what whoever types has seen.
  const setSeen = useCallback(
    (change: Draft | ((before: Draft) => Draft)) =>
      setKept((before) => {
        const next = typeof change === "function" ? change(before) : change;
        return { ...next, seenStepId: next.seenStepId ?? newest };
      }),
    [setKept, newest],
  );
  const worksheet = useWorksheet({
    kept: { ...kept, set: setSeen },
    machine: view.machine.machine,
    checkId,
    system: seat.system,
    deckContext: view.contexts["deck-level"],
  });
  const take = latestTake(view, checkId);
  const assessment = worksheet.assessment ?? (worksheet.isStarted ? undefined : take?.result);
  const isForm = panel.startsWith("check:") && sheetKind(view, checkId) === "form";
  const [formLive, setFormLive] = useState<{ checkId: string; assessment: Assessment }>();
  const placeLive = useMemo(
    () => (worksheet.isStarted && worksheet.assessment ? { checkId, assessment: worksheet.assessment } : undefined),
    [worksheet.isStarted, worksheet.assessment, checkId],
  );
  const live = isForm ? formLive : placeLive;
  // The drawing comes first with every key; the diagnosis follows when there is time.
  const desk = useDiagnosis({ view, initial, order, initialOrder, live: useDeferredValue(live) });
  const { workUp } = desk;
  useEffect(() => {
    if (!live) setSettled(workUp);
  }, [workUp, live]);
  const [standpoint, setStandpoint] = useState<Standpoint>(seat.standsAt);
  const fields = useRef(new Map<string, HTMLInputElement>());
  const { active, setActive, step } = usePlaceSteps(worksheet.places, fields);
  const isEntering =
    panel.startsWith("check:") &&
    (worksheet.isStarted || (view.state !== "closed" && (wantsReading(view, checkId) || worksheet.draft.isOpen)));
  const row = checkRow(checkId);
  const isSafe = row !== undefined && isSafeFor(view, row.state);
  const turnTo = (next: Standpoint) => {
    setStandpoint(next);
    if (seat.who) send(`/api/v1/people/${encodeURIComponent(seat.who)}`, { who: seat.who, standsAt: next }, "PATCH");
  };
  const save = async () => {
    if (!worksheet.isStarted || worksheet.wrongCount > 0) return;
    const asTyped = Object.fromEntries(Object.entries(worksheet.draft.text).filter(([, text]) => text.trim() !== ""));
    const { correctsStepId, reason, seenStepId = newest } = worksheet.draft;
    const sent = await act.send("takes", {
      checkId,
      readings: worksheet.readings,
      asTyped,
      seenStepId,
      ...(correctsStepId ? { correctsStepId } : {}),
      ...(correctsStepId && reason ? { reason } : {}),
    });
    if (sent) {
      worksheet.clear();
      setActive(undefined);
    }
  };
  const steps = listSteps(view, settled);
  const listedRows = steps.map((listed, place) => ({
    listed,
    order: place + 1,
    isHere: listed.panel === panel,
    isNext: listed.panel === suggested,
    onOpen: () => open(listed.panel),
  }));
  useKeys({
    steps,
    open,
    save,
    undo: () => view.undoableStepId && act.send("undo", { stepId: view.undoableStepId }),
    turn: () => turnTo(STANDPOINTS[(STANDPOINTS.indexOf(standpoint) + 1) % STANDPOINTS.length] ?? "behind"),
  });
  useEffect(() => {
    if (!isEntering) setActive(undefined);
  }, [isEntering, setActive]);
  const timeOf = (iso: string) => shortTime(iso, now, seat.timeZone);
  return (
    <main className="grid grid-cols-1 lg:h-[calc(100dvh-3.25rem)] lg:grid-cols-[18rem_minmax(0,1fr)_25rem] lg:grid-rows-[auto_minmax(0,1fr)_auto]">
      <JobHead view={view} now={now} open={open} isLive={isLive} />
      <aside className="relative min-h-0 overflow-y-auto border-rule p-3 lg:border-r" aria-label="The job">
        <Complaints view={view} now={now} act={act} open={open} />
        {view.machineState.struck && <Suspicion struck={view.machineState.struck} open={open} />}
        <Standing view={view} />
        <Suspects
          workUp={workUp}
          lastCheck={view.takes.at(-1)?.checkId}
          isLive={desk.isLive}
          isSearching={view.state !== "closed" && view.case.standing === "as-complained"}
          here={panel}
          open={open}
        />
        {view.state !== "closed" && <CheckListHead view={view} desk={desk} order={order} setOrder={setOrder} />}
        <nav aria-label="Steps of the job" className="mt-1">
          <ol>
            {listedRows.filter(isCheck).map((one) => (
              <li key={one.listed.panel}>
                <StepButton {...one} />
              </li>
            ))}
          </ol>
          <ol className="mt-1 grid grid-cols-5 gap-1">
            {listedRows
              .filter((one) => !isCheck(one))
              .map((one) => (
                <li key={one.listed.panel}>
                  <StageButton {...one} />
                </li>
              ))}
          </ol>
        </nav>
        <OtherChecks view={view} steps={steps} open={open} />
        {view.state !== "closed" && <Aside view={view} open={open} />}
        <Guess view={view} />
      </aside>
      <div className="contents" onInput={begin} onClickCapture={beginAt}>
        {isForm && row ? (
          <FormDesk
            key={row.id}
            view={view}
            workUp={settled}
            row={row}
            standpoint={standpoint}
            onStandpoint={turnTo}
            act={act}
            open={open}
            onLive={setFormLive}
            timeOf={timeOf}
          />
        ) : (
          <>
            <DrawingPanel
              machine={view.machine.machine}
              standpoint={standpoint}
              onStandpoint={turnTo}
              worksheet={worksheet}
              assessment={assessment}
              active={active}
              onActive={setActive}
              onStep={step}
              canEnter={isEntering && isSafe}
            />
            <section
              id="in-hand"
              aria-label="In hand"
              className="relative min-h-0 overflow-y-auto bg-sheet p-4 lg:border-l lg:border-rule"
              tabIndex={0}
            >
              <h2 className="text-xl">{panelTitle(panel)}</h2>
              {panel === "safe" && (
                <SafePanel view={view} act={act} wanted={cameFrom?.state ?? stateWanted(view, settled)} open={open} timeOf={timeOf} />
              )}
              {panel === "put-back" && <PutBackPanel view={view} act={act} open={open} timeOf={timeOf} />}
              {panel === "held" && <HeldPanel view={view} act={act} open={open} timeOf={timeOf} />}
              {panel === "handover" && <HandoverPanel view={view} act={act} />}
              {panel === "phone" && workUp && <PhonePanel view={view} workUp={workUp} input={desk.input} act={act} />}
              {panel === "bring" && <BringPanel view={view} workUp={settled} />}
              {panel === "deck" && <DeckPanel view={view} act={act} open={open} />}
              {panel === "box" && <RebuildPanel view={view} act={act} open={open} />}
              {panel === "links" && workUp && <LinksPanel workUp={workUp} open={open} />}
              {panel.startsWith("cause:") && workUp && (
                <CausePanel view={view} workUp={workUp} causeId={panel.slice(6)} act={act} open={open} />
              )}
              {panel === "fix" && <FixPanel key={lastOwn} view={view} workUp={settled} act={act} open={open} />}
              {panel === "cut" && <CutPanel key={lastOwn} view={view} act={act} open={open} timeOf={timeOf} />}
              {panel === "close" && <ClosePanel key={lastOwn} view={view} act={act} open={open} timeOf={timeOf} />}
              {panel.startsWith("check:") &&
                row &&
                (sheetKind(view, row.id) === "places" ? (
                  <CheckPanel
                    view={view}
                    workUp={settled}
                    row={row}
                    worksheet={worksheet}
                    standpoint={standpoint}
                    act={act}
                    open={open}
                    onActive={setActive}
                    fields={fields}
                    save={save}
                    step={step}
                    timeOf={timeOf}
                  />
                ) : (
                  <LookPanel key={`${row.id} ${lastOwn}`} view={view} workUp={settled} row={row} act={act} open={open} timeOf={timeOf} />
                ))}
            </section>
          </>
        )}
      </div>
      <div className="lg:col-span-3">
        <Timeline view={view} act={act} timeOf={timeOf} />
      </div>
    </main>
  );
}

/** The last check read on the drawing, for the picture while something else is in hand. */
function lastPlaceCheck(view: JobView): string | undefined {
  const read = view.takes.findLast(({ checkId }) => sheetKind(view, checkId) === "places");
  const places = view.worksheets.filter((id) => sheetKind(view, id) === "places");
  return read?.checkId ?? places.find((id) => id === "deck-level") ?? places[0];
}

/** Keeps the places of drawing and panel while a form is fetched. */
function DeskComing() {
  return (
    <>
      <section aria-label="Drawing" className="dye min-h-0" />
      <section aria-label="In hand" className="min-h-0 bg-sheet p-4 lg:border-l lg:border-rule" aria-busy="true" />
    </>
  );
}

/** What was opened by hand, at which step of the job; making safe remembers the check it was wanted for. */
type Chosen = { panel?: PanelId; atStep: number; cameFrom?: PanelId };
const ONE_COLUMN_BELOW = 1024;
/** Steps that do not move the job on: whoever asks over the telephone goes on asking. */
const TALK: readonly string[] = ["answer", "guess", "note", "deck", "rebuild", "photograph"];

/** What was opened by hand, until the job moves on; back to the check once it was made safe for it; else what comes next. */
function panelOf({ chosen, view, suggested }: { chosen: Chosen; view: JobView; suggested: PanelId }): PanelId {
  const [before, last] = [view.steps.at(-2), view.steps.at(-1)];
  const since = view.steps.filter(({ id }) => id > chosen.atStep);
  if (chosen.panel && chosen.atStep >= 0 && since.every(({ kind }) => TALK.includes(kind))) return chosen.panel;
  const isMadeSafe = last?.kind === "confirmation" && before?.id === chosen.atStep;
  return isMadeSafe && chosen.cameFrom ? chosen.cameFrom : suggested;
}

const TITLES: Record<string, string> = {
  safe: "Make it safe",
  fix: "Fix",
  "put-back": "Put back",
  held: "What keeps it from running",
  handover: "Hand a part over",
  cut: "Test cut",
  close: "Close",
  phone: "Over the telephone",
  links: "What shows what",
  bring: "Tools to bring",
  deck: "Deck off and on",
  box: "Gearbox apart and together",
};

function panelTitle(panel: PanelId): string {
  if (panel.startsWith("check:")) return checkRow(panel.slice(6))?.label ?? "Check";
  if (panel.startsWith("cause:")) return labelOfCause(panel.slice(6));
  return TITLES[panel] ?? "";
}

function useKeys(keys: {
  steps: readonly ListedStep[];
  open: (panel: PanelId) => void;
  save: () => void;
  undo: () => void;
  turn: () => void;
}) {
  const held = useRef(keys);
  held.current = keys;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { steps, open, save, undo, turn } = held.current;
      const digit = event.altKey && !event.ctrlKey ? /^Digit([1-9])$/.exec(event.code)?.[1] : undefined;
      const wanted = digit ? steps[Number(digit) - 1] : undefined;
      const isOurs =
        wanted !== undefined ||
        (event.ctrlKey && event.key === "Enter") ||
        (event.altKey && (event.code === "KeyZ" || event.code === "KeyV"));
      if (!isOurs) return;
      event.preventDefault();
      if (wanted) open(wanted.panel);
      else if (event.ctrlKey) save();
      else if (event.code === "KeyZ") undo();
      else turn();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}

/** Who, what, where, and how the machine stands as something that cannot be overlooked: whoever made it so, in whichever job. */
function JobHead({ view, now, open, isLive }: { view: JobView; now: string; open: (panel: PanelId) => void; isLive: boolean }) {
  const { machine, machineState } = view;
  return (
    <div className="border-b border-rule lg:col-span-3">
      {!isLive && <LineLost />}
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 px-3 py-2">
        <h1 className="text-2xl leading-none">
          <Link href={`/machines/${machine.id}`} className="num underline decoration-1 underline-offset-4">
            {machine.fleetNumber}
          </Link>{" "}
          <span className="text-lg font-medium">{machine.name}</span>
        </h1>
        <span className="text-soft">
          {machine.site} · job {view.id} · open {sinceWords(view.openedAt, view.closedAt ?? now)}
        </span>
        {view.cameBack[0] && (
          <Link href={`/jobs/${view.cameBack[0].jobId}`} className="font-semibold text-mark underline">
            Came back: job {view.cameBack[0].jobId}
          </Link>
        )}
        <div className="ml-auto flex flex-wrap items-center gap-2">
          {(view.state !== "closed" || machineState.unsafe.length > 0) && (
            <HeldButton unsafe={machineState.unsafe.length} owed={machineState.released.length} open={open} />
          )}
          {view.state !== "closed" && <StandsButton state={machineState} open={open} />}
          {view.state === "closed" && <span className="border-2 border-ink px-4 py-1.5 text-lg font-bold">Closed</span>}
        </div>
      </div>
      {view.state !== "closed" && <NotMine locks={machineState.locks} open={open} />}
    </div>
  );
}

/** Another's lock-out keeps it still only as long as the other wants: whoever puts a hand in locks on as well. */
function NotMine({ locks, open }: { locks: JobView["machineState"]["locks"]; open: (panel: PanelId) => void }) {
  const { who } = useSeat();
  if (!who || locks.length === 0 || locks.some((lock) => lock.who === who)) return null;
  return (
    <div className="flex flex-wrap items-center justify-end gap-x-3 px-3 pb-1">
      <p className="font-bold text-mark">
        {locks.map((lock) => lock.who).join(", ")} {locks.length === 1 ? "is" : "are"} locked on, you are not.
      </p>
      <button type="button" className="btn" onClick={() => open("safe")}>
        Lock on too before a hand goes in
      </button>
    </div>
  );
}

function HeldButton({ unsafe, owed, open }: { unsafe: number; owed: number; open: (panel: PanelId) => void }) {
  const words =
    unsafe > 0 ? `Held: ${unsafe} ${unsafe === 1 ? "reason" : "reasons"}` : owed > 0 ? "Released unread" : "Hold out of service";
  return (
    <button
      type="button"
      className={`btn ${unsafe > 0 ? "border-2 border-mark bg-mark text-lg font-bold text-paper" : "btn-stop"}`}
      onClick={() => open("held")}
    >
      {words}
    </button>
  );
}

/** How it stands, by whose word, and who is locked on besides. */
function StandsButton({ state, open }: { state: JobView["machineState"]; open: (panel: PanelId) => void }) {
  const { stands, locks, lapsed, stopped } = state;
  const others = locks.filter(({ who }) => who !== stands?.who).map(({ who }) => who);
  const words = stands
    ? `${capital(STATE_WORDS[stands.state] ?? stands.state)} · ${stands.who}${others.length > 0 ? `, ${others.join(", ")} locked on` : ""}`
    : stopped
      ? `Stopped by ${stopped.who}`
      : lapsed
        ? "Not safe: it was run since"
        : others.length > 0
          ? `Locked on: ${others.join(", ")}`
          : "Not made safe";
  return (
    <button
      type="button"
      onClick={() => open("safe")}
      className={`min-h-11 border-2 px-4 text-lg font-bold ${stands ? "border-good text-good" : "border-mark bg-mark text-paper"}`}
    >
      {words}
    </button>
  );
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function Complaints({ view, now, act, open }: { view: JobView; now: string; act: Act; open: (panel: PanelId) => void }) {
  const isOpen = view.state !== "closed";
  const router = useRouter();
  return (
    <section aria-label="Complaint">
      {view.complaints.map((complaint) => (
        <div key={complaint.id} className="mb-1">
          {complaint.words && <p className="text-lg leading-tight font-medium">“{complaint.words}”</p>}
          {complaint.looks.symptoms.length > 0 && (
            <p className="text-sm leading-snug">
              {complaint.looks.symptoms.map((id) => SYMPTOMS.find((symptom) => symptom.id === id)?.label).join(" · ")}
            </p>
          )}
          <p className="text-sm text-soft">
            {complaint.saidBy}
            {complaint.place ? `, ${complaint.place}` : ""}, {sinceWords(complaint.at, now)} ago
          </p>
          {isOpen && view.complaints.length > 1 && (
            <button
              type="button"
              className="btn btn-quiet !px-0 text-sm"
              disabled={act.isBusy}
              onClick={() => act.send("split", { complaintId: complaint.id })}
            >
              Make it a job of its own
            </button>
          )}
        </div>
      ))}
      <PlaceWords view={view} />
      {isOpen && (
        <div className="-my-1 flex flex-wrap gap-x-3">
          <button type="button" className="btn btn-quiet !min-h-9 !px-0 text-sm underline" onClick={() => open("phone")}>
            Ask over the telephone
          </button>
          {view.state === "waiting" &&
            view.openBeside.map((jobId) => (
              <button
                key={jobId}
                type="button"
                className="btn btn-quiet !min-h-9 !px-0 text-sm underline"
                disabled={act.isBusy}
                onClick={async () => {
                  if (await act.send("join", { intoJobId: jobId })) router.push(`/jobs/${jobId}`);
                }}
              >
                Join it to job {jobId}
              </button>
            ))}
        </div>
      )}
    </section>
  );
}

/** What the touched place means on this machine. */
function PlaceWords({ view }: { view: JobView }) {
  const { meaning } = view.case;
  const named = (id: string) =>
    cutters(view.machine.machine)
      .find((one) => one.id === id)
      ?.label.toLowerCase() ?? id;
  if (meaning.kind === "none") return null;
  const words =
    meaning.kind === "join"
      ? `Where ${named(meaning.between[0])} and ${named(meaning.between[1])} meet`
      : meaning.kind === "on-one"
        ? `On the ${named(meaning.cutter)}`
        : "Where passes meet";
  return <p className="text-sm">{words}</p>;
}

/** What a strike holds under suspicion until each was looked at; nothing runs before. */
function Suspicion({ struck, open }: { struck: NonNullable<JobView["machineState"]["struck"]>; open: (panel: PanelId) => void }) {
  const { words, where, droveOn, checks } = struck;
  return (
    <details className="mt-1 border-l-4 border-mark pl-2">
      <summary className="min-h-11 cursor-pointer leading-snug font-semibold">
        Struck {words || "something"}
        {where ? `, ${where}` : ""}
        {droveOn ? ", drive ran on" : ""}: {checks.length} still to be looked at
      </summary>
      <div className="flex flex-wrap gap-1 pb-1">
        {checks.map((id) => (
          <button key={id} type="button" className="btn !px-2 text-sm" onClick={() => open(`check:${id}`)}>
            {checkRow(id)?.label}
          </button>
        ))}
      </div>
    </details>
  );
}

const STANDING_WORDS: Partial<Record<JobView["case"]["standing"], string>> = {
  "unknown-until-cut": "Something was mended: nobody knows what is left of the complaint until the test cut.",
  gone: "The test cut was all alike: nothing of the complaint is left.",
};

function Standing({ view }: { view: JobView }) {
  const words = STANDING_WORDS[view.case.standing];
  return words && view.state !== "closed" ? <p className="mt-3 border-l-4 border-dye px-2 leading-snug">{words}</p> : null;
}

const STATUS_WORDS: Record<ListedStep["status"], string> = { done: "done", bad: "not right", stale: "to be read again", open: "open" };

const isCheck = ({ listed }: Pick<StepArgs, "listed">) => listed.panel.startsWith("check:");

type StepArgs = { listed: ListedStep; order: number; isHere: boolean; isNext: boolean; onOpen: () => void };

/** Safe, fix, put back, cut, close: the stages every job goes through. */
function StageButton({ listed, order, isHere, isNext, onOpen }: StepArgs) {
  return (
    <button
      type="button"
      onClick={onOpen}
      aria-current={isHere ? "step" : undefined}
      aria-keyshortcuts={`Alt+${order}`}
      className={`flex min-h-14 w-full flex-col items-center justify-center border-2 px-0.5 text-sm leading-none ${isHere ? "border-dye bg-sheet font-bold" : isNext ? "border-[var(--dye-text)]" : "border-rule"}`}
    >
      {listed.label}
      <span className={`mt-0.5 text-xs ${listed.status === "bad" ? "font-bold text-mark" : "text-soft"}`}>
        {isNext && !isHere ? "next" : listed.status === "done" ? "✓" : listed.status === "bad" ? "not right" : ""}
      </span>
    </button>
  );
}

function StepButton({ listed, order, isHere, isNext, onOpen }: StepArgs) {
  return (
    <button
      type="button"
      onClick={onOpen}
      aria-current={isHere ? "step" : undefined}
      className={`flex min-h-11 w-full items-center gap-2 border-l-4 px-2 text-left ${isHere ? "border-dye bg-sheet font-bold" : "border-transparent"}`}
    >
      <span className="num w-4 text-xs text-soft">{order}</span>
      <span className="grow leading-tight">
        {listed.label}
        {isNext && !isHere && <span className="caps ml-2 !text-[var(--dye-text)]">next</span>}
      </span>
      {listed.verdict && listed.status !== "stale" ? (
        <VerdictMark verdict={listed.verdict} size={16} />
      ) : (
        <span className={`text-sm whitespace-nowrap ${listed.status === "stale" ? "font-semibold text-watch" : "text-soft"}`}>
          {listed.status === "done" ? "✓" : listed.status === "stale" ? "again" : listed.minutes ? `${listed.minutes} min` : ""}
        </span>
      )}
      <span className="sr-only">{STATUS_WORDS[listed.status]}</span>
    </button>
  );
}

function OtherChecks({ view, steps, open }: { view: JobView; steps: readonly ListedStep[]; open: (panel: PanelId) => void }) {
  return (
    <label className="mt-2 block px-2">
      <span className="caps">Other checks</span>
      <select className="input" value="" onChange={(event) => event.target.value && open(`check:${event.target.value}`)}>
        <option value="">Pick one</option>
        {otherChecks(view, steps).map(({ id, label, minutes }) => (
          <option key={id} value={id}>
            {label}, {minutes} min{view.skips.some(({ checkId }) => checkId === id) ? " (left out)" : ""}
          </option>
        ))}
      </select>
    </label>
  );
}

/** What is no check: the bench's list, and the deck off and on where it comes off. */
function Aside({ view, open }: { view: JobView; open: (panel: PanelId) => void }) {
  const hasDeck = view.deck.next !== undefined;
  const hasOpenBox = view.boxes.some(({ where }) => where !== "on");
  return (
    <div className="mt-2 flex flex-wrap gap-1 px-2">
      <button type="button" className="btn grow !px-1 text-sm" onClick={() => open("bring")}>
        Tools to bring
      </button>
      {view.boxes.length > 0 && (
        <button type="button" className={`btn grow !px-1 text-sm ${hasOpenBox ? "btn-stop" : ""}`} onClick={() => open("box")}>
          {hasOpenBox ? "Box is apart" : "Gearbox rebuild"}
        </button>
      )}
      <button type="button" className="btn grow !px-1 text-sm" onClick={() => open("handover")}>
        Hand over
      </button>
      {hasDeck && (
        <button
          type="button"
          className={`btn grow !px-1 text-sm ${view.deck.where === "on" ? "" : "btn-stop"}`}
          onClick={() => open("deck")}
        >
          {view.deck.where === "on" ? "Deck off and on" : "Deck is off"}
        </button>
      )}
    </div>
  );
}

/** The first guess as it stands; it is made where a cause is opened. */
function Guess({ view }: { view: JobView }) {
  const guess = view.steps.findLast((step) => step.kind === "guess" && !step.isUndone);
  if (guess?.kind !== "guess") return null;
  return (
    <p className="mt-2 px-2 text-sm">
      <span className="caps">First guess</span> {labelOfCause(guess.data.cause)}
    </p>
  );
}
