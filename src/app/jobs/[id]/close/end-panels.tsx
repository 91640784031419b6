"use client";

import { CHECKS, FIX_LABELS, type FixId, type SymptomId } from "@/core/catalogue";
import type {
  CUT_DRIVERS,
  CUT_DRYNESS,
  CUT_HEIGHTS,
  CUT_LIGHTS,
  CUT_LOOKS,
  CUT_PATCHES,
  CUT_TURFS,
  ProofGap,
  SYMPTOM_NOW,
} from "@/core/job/jobs";
import { mayRun } from "@/core/job/status";
import { cutters } from "@/core/machine";
import type { JobView } from "@/data/job/job-view";
import { Choice, TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { TakePicture } from "@/ui/pictures";
import { TEST_CUT_CAUTION } from "@/ui/words/cautions";
import { labelOfCause, labelOfSymptom } from "@/ui/words/diagnosis";
import { sayGap } from "@/ui/words/proof";
import { sayReason } from "@/ui/words/state";
import type { Act } from "../act";
import { causesOffered, suspectedCauses } from "../case/causes";
import type { PanelId } from "../panel-id";
import { panelOf } from "../safe/clearing";
import { Cautions } from "../safe/gate";
import { RunReasons } from "../safe/run-reasons";
import { Trouble } from "../trouble";
import { Account } from "./account";

const checkLabel = (id: string) => CHECKS.find((check) => check.id === id)?.label ?? id;

type CutDraft = {
  looks: (typeof CUT_LOOKS)[number] | "";
  turf: (typeof CUT_TURFS)[number] | "";
  dryness: (typeof CUT_DRYNESS)[number] | "";
  light: (typeof CUT_LIGHTS)[number] | "";
  patch: (typeof CUT_PATCHES)[number] | "";
  height: (typeof CUT_HEIGHTS)[number] | "";
  drivenBy: (typeof CUT_DRIVERS)[number] | "";
  symptoms: Partial<Record<SymptomId, (typeof SYMPTOM_NOW)[number]>>;
  seenCutting: string[];
  place: string;
  operator: string;
  words: string;
};

/** What the cut looked like afterwards, where and on what: graded by what it can prove; and what no look at the grass tells, asked. */
export function CutPanel({
  view,
  act,
  open,
  timeOf,
}: {
  view: JobView;
  act: Act;
  open: (panel: PanelId) => void;
  timeOf: (iso: string) => string;
}) {
  const { proof, machineState } = view;
  const {
    value: draft,
    set,
    clear,
    ticket,
  } = useDraft<CutDraft>(`job:${view.id}:cut`, {
    looks: "",
    turf: "",
    dryness: "",
    light: "",
    patch: "",
    height: "",
    drivenBy: "",
    symptoms: {},
    seenCutting: [],
    place: view.complaints[0]?.place ?? "",
    operator: "",
    words: "",
  });
  const { who } = useSeat();
  const { reasons } = mayRun(machineState, { to: "cut", who });
  const wantsBlades = machineState.beltUnproved !== undefined;
  const blades = cutters(view.machine.machine);
  const put = (change: Partial<CutDraft>) => set((before) => ({ ...before, ...change }));
  const isComplete =
    draft.looks !== "" &&
    draft.turf !== "" &&
    draft.dryness !== "" &&
    draft.light !== "" &&
    draft.height !== "" &&
    (!proof.wanted.samePatch || draft.patch !== "") &&
    (!proof.wanted.sameDriver || draft.drivenBy !== "") &&
    proof.asks.every((symptom) => draft.symptoms[symptom] !== undefined);
  const save = async () => {
    const { patch, drivenBy, seenCutting, ...rest } = draft;
    const cut = {
      ...rest,
      ...(patch ? { patch } : {}),
      ...(drivenBy ? { drivenBy } : {}),
      ...(wantsBlades ? { seenCutting } : {}),
    };
    const sent = await act.send("test-cuts", cut, ticket);
    if (sent) clear();
  };
  if (view.state === "closed") return <p>This job is closed.</p>;
  if (reasons.length > 0) return <RunReasons view={view} reasons={reasons} open={open} here="cut" timeOf={timeOf} />;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <Cautions lines={[TEST_CUT_CAUTION, "First run with nobody near the discharge. Poor turf hides the result."]} />
      <Choice label="The cut now" value={draft.looks} options={LOOKS} onChange={(looks) => put({ looks })} />
      {proof.asks.map((symptom) => (
        <Choice
          key={symptom}
          label={`Complained of: ${labelOfSymptom(symptom)}`}
          value={draft.symptoms[symptom] ?? ""}
          options={NOW}
          onChange={(now) => put({ symptoms: { ...draft.symptoms, [symptom]: now } })}
        />
      ))}
      {wantsBlades && (
        <fieldset className="py-1">
          <legend className="caps mb-1">Seen to cut, each of them</legend>
          <div className="flex flex-wrap gap-1">
            {blades.map(({ id, label }) => (
              <button
                key={id}
                type="button"
                aria-pressed={draft.seenCutting.includes(id)}
                className={`btn px-3 ${draft.seenCutting.includes(id) ? "btn-on" : ""}`}
                onClick={() =>
                  put({
                    seenCutting: draft.seenCutting.includes(id)
                      ? draft.seenCutting.filter((one) => one !== id)
                      : [...draft.seenCutting, id],
                  })
                }
              >
                {label}
              </button>
            ))}
          </div>
          <p className="text-sm text-soft">The belt was off: a dragging belt turns a blade by hand and not in grass.</p>
        </fieldset>
      )}
      <Choice label="Cut on" value={draft.turf} options={TURFS} onChange={(turf) => put({ turf })} />
      {proof.wanted.samePatch && (
        <Choice label="Where the complaint was" value={draft.patch} options={PATCHES} onChange={(patch) => put({ patch })} />
      )}
      <Choice label="The grass was" value={draft.dryness} options={DRYNESS} onChange={(dryness) => put({ dryness })} />
      <Choice label="Light" value={draft.light} options={LIGHTS} onChange={(light) => put({ light })} />
      <Choice label="Height" value={draft.height} options={HEIGHTS} onChange={(height) => put({ height })} />
      {proof.wanted.sameDriver && (
        <Choice label="Driven by" value={draft.drivenBy} options={DRIVERS} onChange={(drivenBy) => put({ drivenBy })} />
      )}
      <div className="grid grid-cols-2 gap-2">
        <TextField id="cut-place" label="Where" value={draft.place} onChange={(place) => put({ place })} />
        <TextField id="cut-operator" label="Who drove" value={draft.operator} onChange={(operator) => put({ operator })} />
      </div>
      <BeforeAfter view={view} act={act} />
      <TextField id="cut-words" label="In words" rows={2} value={draft.words} onChange={(words) => put({ words })} />
      <button type="submit" className="btn btn-go mt-2 w-full" disabled={act.isBusy || !isComplete}>
        Write the test cut down
      </button>
      <Trouble act={act} />
    </form>
  );
}

const LOOKS = [
  ["all-alike", "All alike"],
  ["better", "Better"],
  ["same", "Same"],
  ["worse", "Worse"],
] as const;
const NOW = [
  ["gone", "Gone"],
  ["still-there", "Still there"],
] as const;
const TURFS = [
  ["good", "Good turf"],
  ["thin", "Thin grass"],
  ["other-lawn", "Another lawn"],
] as const;
const PATCHES = [
  ["same", "The same patch"],
  ["other", "Another patch"],
] as const;
const DRYNESS = [
  ["dry", "Dry"],
  ["damp", "Damp or dew"],
  ["wet", "Wet"],
] as const;
const LIGHTS = [
  ["day", "Daylight"],
  ["dawn-or-dusk", "Dawn or dusk"],
] as const;
const HEIGHTS = [
  ["as-complained", "As complained"],
  ["other", "Another"],
] as const;
const DRIVERS = [
  ["same", "Same operator"],
  ["other", "Somebody else"],
] as const;

const TURF_BEFORE = "turf, before";
const TURF_AFTER = "turf, after";

/** The turf before and after, beside each other where both were taken. */
function BeforeAfter({ view, act }: { view: JobView; act: Act }) {
  const last = (about: string) => view.photographs.findLast((one) => one.about === about);
  const isOpen = view.state !== "closed";
  if (!isOpen && !last(TURF_BEFORE) && !last(TURF_AFTER)) return null;
  return (
    <fieldset className="py-1">
      <legend className="caps mb-1">The turf, before and after</legend>
      <div className="grid grid-cols-2 gap-2">
        {[TURF_BEFORE, TURF_AFTER].map((about) => {
          const taken = last(about);
          return (
            <figure key={about}>
              {taken && (
                // biome-ignore lint/performance/noImgElement: a kept photograph is served as it was taken
                <img
                  src={`/api/v1/photographs/${taken.stepId}`}
                  alt={about}
                  className="aspect-[4/3] w-full border border-rule object-cover"
                />
              )}
              {isOpen && (
                <TakePicture
                  words={about === TURF_BEFORE ? "Before" : "After"}
                  draftKey={`job:${view.id}:${about}`}
                  onPicture={async (dataUrl, ticket) => (await act.send("photographs", { about, dataUrl }, ticket)) !== undefined}
                />
              )}
            </figure>
          );
        })}
      </div>
    </fieldset>
  );
}

function gapPanel(gap: ProofGap): PanelId {
  if ("check" in gap) return `check:${gap.check}`;
  if (gap.code === "open-on-machine") return panelOf(gap.reason.clears);
  if (gap.code === "released-unread") return gap.cause.kind === "stop" ? `check:${gap.cause.check}` : "put-back";
  return gap.code === "nothing-changed" ? "fix" : "cut";
}

/** Proof as worked out from the readings, with what is missing; closing without it asks why. */
export function ClosePanel({
  view,
  act,
  open,
  timeOf,
}: {
  view: JobView;
  act: Act;
  open: (panel: PanelId) => void;
  timeOf: (iso: string) => string;
}) {
  const fixed = view.steps.flatMap((step) => (step.kind === "fix" && !step.isUndone ? [step.data.cause] : []));
  const {
    value: draft,
    set,
    clear,
    ticket,
  } = useDraft<{ causes: string[]; words: string; unproved: string }>(`job:${view.id}:close`, {
    causes: [...new Set(fixed)],
    words: "",
    unproved: "",
  });
  const { proof } = view;
  const guess = view.steps.findLast((step) => step.kind === "guess" && !step.isUndone);
  const guessed = guess?.kind === "guess" ? guess.data.cause : undefined;
  const first = [...new Set([...fixed, ...suspectedCauses(view)])];
  const options = [...causesOffered(view)].sort((a, b) => Number(first.includes(b.id)) - Number(first.includes(a.id)));
  const toggle = (id: string) =>
    set((before) => ({
      ...before,
      causes: before.causes.includes(id) ? before.causes.filter((one) => one !== id) : [...before.causes, id],
    }));
  const save = async () => {
    const close = {
      causes: draft.causes,
      words: draft.words,
      ...(draft.unproved.trim() && !proof.isProved ? { unprovedReason: draft.unproved } : {}),
    };
    const sent = await act.send("close", close, ticket);
    if (sent) clear();
  };
  if (view.state === "closed") return <ClosedPanel view={view} act={act} guessed={guessed} timeOf={timeOf} />;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <p className={`text-2xl font-bold ${proof.isProved ? "text-good" : "text-mark"}`} style={{ fontStretch: "84%" }}>
        {proof.isProved ? "Proved." : "Not proved yet."}
      </p>
      {proof.isProved ? <Credit view={view} /> : null}
      <ul className="mt-1">
        {proof.gaps.map((gap) => (
          <li key={JSON.stringify(gap)}>
            <button type="button" className="btn btn-quiet w-full justify-start text-left" onClick={() => open(gapPanel(gap))}>
              → {gap.code === "open-on-machine" ? `${sayReason(gap.reason, view.machine.machine, timeOf)}.` : sayGap(gap)}
            </button>
          </li>
        ))}
      </ul>
      <fieldset className="py-1">
        <legend className="caps mb-1">What it was</legend>
        <div className="flex max-h-48 flex-wrap gap-1 overflow-y-auto" tabIndex={0}>
          {[...options.filter(({ id }) => first.includes(id)), ...options.filter(({ id }) => !first.includes(id))].map(({ id, label }) => (
            <button
              key={id}
              type="button"
              aria-pressed={draft.causes.includes(id)}
              className={`btn px-3 ${draft.causes.includes(id) ? "btn-on" : ""}`}
              onClick={() => toggle(id)}
            >
              {label}
            </button>
          ))}
          <button
            type="button"
            aria-pressed={draft.causes.includes("nothing-found")}
            className={`btn px-3 ${draft.causes.includes("nothing-found") ? "btn-on" : ""}`}
            onClick={() => toggle("nothing-found")}
          >
            Nothing found
          </button>
        </div>
      </fieldset>
      <TextField
        id="close-words"
        label="For whoever has it next"
        rows={2}
        value={draft.words}
        onChange={(words) => set((before) => ({ ...before, words }))}
      />
      {!proof.isProved && (
        <>
          <TextField
            id="close-unproved"
            label="Close it unproved, because"
            value={draft.unproved}
            onChange={(unproved) => set((before) => ({ ...before, unproved }))}
          />
          <p className="text-sm text-soft">What is missing above is then owed on the machine.</p>
        </>
      )}
      <button type="submit" className="btn btn-go mt-2 w-full" disabled={act.isBusy}>
        {proof.isProved ? "Close the job" : draft.unproved.trim() ? "Close it unproved" : "Close the job"}
      </button>
      {act.trouble && (
        <p className="trouble mt-2" role="alert">
          {act.error === "not-proved"
            ? "Not closed: it is not proved. Do what is listed above, or say why it goes out unproved."
            : act.trouble}
        </p>
      )}
    </form>
  );
}

/** A cure is credited only to what lies between the bad reading and the good one. */
function Credit({ view }: { view: JobView }) {
  const fixes = view.steps.flatMap((step) =>
    step.kind === "fix" && !step.isUndone ? [{ id: step.id, label: FIX_LABELS[step.data.fix as FixId] }] : [],
  );
  return (
    <ul className="mt-1 text-sm">
      {view.proof.required
        .filter(({ changedBetween }) => changedBetween.length > 0)
        .map(({ check, changedBetween }) => (
          <li key={check}>
            {checkLabel(check)} in order after {changedBetween.length > 1 ? `one of these ${changedBetween.length}: ` : ""}
            {changedBetween.map((id) => fixes.find((fix) => fix.id === id)?.label.toLowerCase()).join("; ")}.
          </li>
        ))}
    </ul>
  );
}

function ClosedPanel({
  view,
  act,
  guessed,
  timeOf,
}: {
  view: JobView;
  act: Act;
  guessed: string | undefined;
  timeOf: (iso: string) => string;
}) {
  const close = view.steps.findLast((step) => step.kind === "close" && !step.isUndone);
  if (close?.kind !== "close") return null;
  const label = (id: string) => (id === "nothing-found" ? "Nothing found" : labelOfCause(id));
  return (
    <div>
      <p className={`text-2xl font-bold ${close.data.isProved ? "text-good" : "text-mark"}`} style={{ fontStretch: "84%" }}>
        {close.data.isProved ? "Closed, proved." : "Closed, not proved."}
      </p>
      <p className="text-lg">{close.data.causes.map(label).join("; ")}.</p>
      {close.data.unprovedReason && <p>Went out unproved: {close.data.unprovedReason}</p>}
      {close.data.words && <p className="mt-1">“{close.data.words}”</p>}
      {guessed && (
        <p className="mt-1 text-sm text-soft">
          First guess: {label(guessed)}, {close.data.causes.includes(guessed) ? "and it was." : "and it was not."}
        </p>
      )}
      <Credit view={view} />
      <BeforeAfter view={view} act={act} />
      <Account view={view} timeOf={timeOf} />
      <button
        type="button"
        className="btn mt-3"
        disabled={act.isBusy}
        onClick={() => act.send("undo", { stepId: close.id, reason: "reopened" })}
      >
        Reopen
      </button>
      <Trouble act={act} />
    </div>
  );
}
