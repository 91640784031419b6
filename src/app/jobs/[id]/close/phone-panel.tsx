"use client";

import { useEffect, useState } from "react";
import type { ContextId } from "@/core/catalogue";
import type { Question, WorkUp, WorkUpInput } from "@/core/diagnosis";
import type { JobView } from "@/data/job/job-view";
import { TurfPicture } from "@/drawings/turf-picture";
import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { isStrikeTold, NO_STRIKE, type StrikeDraft, StrikeTold, strikeFrom } from "@/ui/strike-told";
import { percent } from "@/ui/words/diagnosis";
import { sayQuestion } from "@/ui/words/questions";
import { questionsInWorker } from "@/workers/diagnosis/client";
import type { Act } from "../act";
import { Trouble } from "../trouble";

const ASKED = 8;

/** A round over the telephone: the few questions that tell most before anybody drives out. */
export function PhonePanel({ view, workUp, input, act }: { view: JobView; workUp: WorkUp; input: WorkUpInput; act: Act }) {
  const [questions, setQuestions] = useState<Question[]>();
  const answered = view.case.asked as ContextId[];
  const key = JSON.stringify([input.given, answered]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the case and what was answered
  useEffect(() => {
    let isWanted = true;
    questionsInWorker({ input, answered, most: ASKED }).then((found) => {
      if (isWanted) setQuestions(found);
    });
    return () => {
      isWanted = false;
    };
  }, [key]);
  const {
    value: strike,
    set,
    clear,
    ticket,
  } = useDraft<StrikeDraft & { isAsked: boolean }>(`job:${view.id}:strike`, {
    ...NO_STRIKE,
    isAsked: false,
  });
  const say = (question: Question, isYes: boolean) => {
    // A strike is asked out before it is written down.
    if (question.kind === "context" && question.id === "struck-object" && isYes) return set((before) => ({ ...before, isAsked: true }));
    return act.send(
      "answers",
      question.kind === "context" ? { contexts: { [question.id]: isYes } } : { symptoms: { [question.id]: isYes ? "present" : "denied" } },
    );
  };
  const sayStruck = async () => {
    const answer = { contexts: { "struck-object": true }, strike: strikeFrom(strike, view.complaints[0]?.place ?? "") };
    const sent = await act.send("answers", answer, ticket);
    if (sent) clear();
  };
  const { operationProbability } = workUp.diagnosis;
  const { system } = useSeat();
  return (
    <div>
      <p className="text-2xl font-bold" style={{ fontStretch: "84%" }}>
        Operation or turf: <span className="tabular-nums">{percent(operationProbability)}</span>
      </p>
      <p className="text-sm text-soft">
        {operationProbability >= 0.5
          ? "More likely a word with the operator, or a wait, than a drive out."
          : "That the whole complaint is how or where it was mown, and not the machine."}
      </p>
      {strike.isAsked && (
        <div className="mt-2">
          <StrikeTold value={strike} machine={view.machine.machine} onChange={(change) => set((before) => ({ ...before, ...change }))} />
          <div className="mt-1 flex gap-1">
            <button type="button" className="btn btn-go grow" disabled={!isStrikeTold(strike) || act.isBusy} onClick={sayStruck}>
              Write the strike down
            </button>
            <button type="button" className="btn btn-quiet" onClick={clear}>
              Not so
            </button>
          </div>
        </div>
      )}
      <h3 className="caps mt-3">Ask these, most telling first</h3>
      {questions === undefined && <p className="text-soft">Working out what to ask …</p>}
      {questions?.length === 0 && <p>Everything that would tell has been asked.</p>}
      <ol className="ruled">
        {questions?.map((question) => (
          <li key={question.id} className="flex items-center gap-2 py-1.5">
            {question.kind === "symptom" && (
              <span className="w-16 shrink-0">
                <TurfPicture symptom={question.id} system={system} />
              </span>
            )}
            <span className="grow text-lg leading-tight">{sayQuestion(question)}</span>
            <button
              type="button"
              className="btn px-3"
              disabled={act.isBusy}
              onClick={() => say(question, true)}
              aria-label={`${sayQuestion(question)} Yes`}
            >
              Yes
            </button>
            <button
              type="button"
              className="btn px-3"
              disabled={act.isBusy}
              onClick={() => say(question, false)}
              aria-label={`${sayQuestion(question)} No`}
            >
              No
            </button>
          </li>
        ))}
      </ol>
      <Trouble act={act} />
    </div>
  );
}
