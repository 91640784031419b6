"use client";

import type { SymptomId } from "@/core/catalogue";
import { likelihoodOf, type WorkUp } from "@/core/diagnosis";
import { LIKELIHOOD_FROM } from "@/core/diagnosis/words";
import { mayRun } from "@/core/job/status";
import type { JobView } from "@/data/job/job-view";
import { Choice } from "@/ui/choice";
import { useSeat } from "@/ui/person";
import { LIKELIHOOD_WORDS, labelOfSymptom } from "@/ui/words/diagnosis";
import { useAct } from "../act";
import type { PanelId } from "../panel-id";
import { Trouble } from "../trouble";

const WORDS: Partial<Record<JobView["case"]["standing"], string>> = {
  "unknown-until-cut": "Something was mended. What the grass shows, only the test cut tells.",
  "still-so": "Mended, and still there. Look for what else it is before you cut.",
  gone: "The test cut was all alike: nothing of the complaint is left.",
};

const NOW = [
  ["denied", "Gone"],
  ["present", "Still there"],
] as const;

/**
 * Between a mend and the cut: what is heard, felt or smelt is looked at again, and what else the readings point to is shown, so that a second fault
 * of the same look is not first met in the grass.
 */
export function LookAgain({ view, workUp, open }: { view: JobView; workUp: WorkUp | undefined; open: (panel: PanelId) => void }) {
  const act = useAct(view.id);
  const { who } = useSeat();
  const { standing, input } = view.case;
  const words = WORDS[standing];
  if (!words || view.state === "closed") return null;
  const isMended = standing !== "gone";
  const left =
    workUp && isMended
      ? workUp.diagnosis.causes.filter(({ isBackedByCheck, presence }) => isBackedByCheck && presence >= LIKELIHOOD_FROM.possible)
      : [];
  const asks = isMended ? view.proof.asks : [];
  const isReady = mayRun(view.machineState, { to: "cut", who }).reasons.length === 0;
  const answer = (symptom: SymptomId, state: (typeof NOW)[number][0]) => act.send("answers", { symptoms: { [symptom]: state } });
  return (
    <section aria-label="After the mend" className={`mt-3 border-l-4 px-2 ${standing === "still-so" ? "border-watch" : "border-dye"}`}>
      <p className="leading-snug font-semibold">{words}</p>
      {asks.length > 0 && !isReady && (
        <p className="leading-snug">
          Once it is ready, before you cut: is it still there? <span className="font-semibold">{asks.map(labelOfSymptom).join(", ")}</span>
        </p>
      )}
      {isReady &&
        asks.map((symptom) => (
          <Choice
            key={symptom}
            label={`${labelOfSymptom(symptom)}: before you cut`}
            value={input.given.symptoms[symptom] ?? ""}
            options={NOW}
            onChange={(state) => answer(symptom, state)}
          />
        ))}
      {left.length > 0 && standing === "unknown-until-cut" && (
        <div className="py-1">
          <p className="caps">Still pointed to</p>
          {left.map((cause) => (
            <button
              key={cause.id}
              type="button"
              className="flex min-h-11 w-full items-baseline justify-between gap-2 text-left"
              onClick={() => open(`cause:${cause.id}`)}
            >
              <span className="font-semibold underline">{cause.label}</span>
              <span className="text-sm whitespace-nowrap text-soft">{LIKELIHOOD_WORDS[likelihoodOf(cause.presence)]}</span>
            </button>
          ))}
        </div>
      )}
      <Trouble act={act} />
    </section>
  );
}
