"use client";

import { useEffect, useState } from "react";
import type { ContextId, Question, WorkUp, WorkUpInput } from "@/core/diagnosis";
import type { JobView } from "@/data/job-view";
import { TurfPicture } from "@/drawings/turf-picture";
import { percent } from "@/ui/words/diagnosis";
import { sayQuestion } from "@/ui/words/questions";
import { questionsInWorker } from "@/workers/diagnosis/client";
import type { Act } from "./act";
import { Trouble } from "./trouble";

const ASKED = 6;

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
  const say = (question: Question, isYes: boolean) =>
    act.send(
      "answers",
      question.kind === "context" ? { contexts: { [question.id]: isYes } } : { symptoms: { [question.id]: isYes ? "present" : "denied" } },
    );
  const { operationProbability } = workUp.diagnosis;
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
      <h3 className="caps mt-3">Ask these, most telling first</h3>
      {questions === undefined && <p className="text-soft">Working out what to ask …</p>}
      {questions?.length === 0 && <p>Everything that would tell has been asked.</p>}
      <ol className="ruled">
        {questions?.map((question) => (
          <li key={question.id} className="flex items-center gap-2 py-1.5">
            {question.kind === "symptom" && (
              <span className="w-16 shrink-0">
                <TurfPicture symptom={question.id} />
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
