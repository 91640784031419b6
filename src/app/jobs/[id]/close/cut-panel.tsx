"use client";

import type { SymptomId } from "@/core/catalogue";
import type { CUT_DRIVERS, CUT_DRYNESS, CUT_HEIGHTS, CUT_LIGHTS, CUT_LOOKS, CUT_PATCHES, CUT_TURFS, SYMPTOM_NOW } from "@/core/job/jobs";
import { mayRun } from "@/core/job/status";
import { cutters } from "@/core/machine";
import type { JobView } from "@/data/job/job-view";
import { Choice, TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { TEST_CUT_CAUTION } from "@/ui/words/cautions";
import { labelOfSymptom } from "@/ui/words/diagnosis";
import type { Act } from "../act";
import type { PanelId } from "../panel-id";
import { Cautions } from "../safe/gate";
import { RunReasons } from "../safe/run-reasons";
import { Trouble } from "../trouble";
import { BeforeAfter } from "./before-after";
import { DRIVERS, DRYNESS, HEIGHTS, LIGHTS, LOOKS, NOW, PATCHES, TURFS } from "./cut-choices";

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
