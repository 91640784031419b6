import { useEffect, useMemo, useState } from "react";
import type { Assessment } from "@/core/checks";
import type { WorkUp, WorkUpInput } from "@/core/diagnosis";
import { takesLong } from "@/core/diagnosis/levels";
import type { JobView } from "@/data/job/job-view";
import { workUpInWorker } from "@/workers/diagnosis/client";

export type Desk = {
  workUp: WorkUp | undefined;
  input: WorkUpInput;
  minutesLeft: number | undefined;
  setMinutesLeft: (minutes: number | undefined) => void;
  /** Whether what is being typed, and not yet saved, is counted in. */
  isLive: boolean;
  /** The answer to this question is not there yet. */
  isReckoning: boolean;
};

/** A key for "the same question": the worker is asked only when it changes. */
const keyOf = (input: WorkUpInput) => JSON.stringify(input);

/**
 * The diagnosis of the job as it stands, with what is being typed counted in before it is saved. What came with the page is used as it
 * is; anything else is asked of the worker, and the last answer stays until the next is there.
 */
export function useDiagnosis(args: {
  view: JobView;
  initial: WorkUp | undefined;
  order: WorkUpInput["order"];
  initialOrder: WorkUpInput["order"];
  live: { checkId: string; assessment: Assessment } | undefined;
}): Desk {
  const { view, initial, order, initialOrder, live } = args;
  const [minutesLeft, setMinutesLeft] = useState<number>();
  const saved = view.case.input;
  const input = useMemo<WorkUpInput>(() => {
    const given = live ? { ...saved.given, evidence: withLive(saved.given.evidence, live) } : saved.given;
    return { ...saved, given, order, ...(minutesLeft === undefined ? {} : { minutesLeft }) };
  }, [saved, live, order, minutesLeft]);
  const key = keyOf(input);
  // The same question asked anew is no new question: a page at rest asks nothing.
  const question = useMemo(() => JSON.parse(key) as WorkUpInput, [key]);
  const initialKey = useMemo(() => keyOf({ ...saved, order: initialOrder }), [saved, initialOrder]);
  const [answer, setAnswer] = useState<{ key: string; workUp: WorkUp | undefined }>({
    key: initial === undefined ? "" : initialKey,
    workUp: initial,
  });
  useEffect(() => {
    if (key === initialKey && initial !== undefined) {
      setAnswer({ key, workUp: initial });
      return;
    }
    let isWanted = true;
    // The worker answers in turn: the quick answer stands until the whole one does.
    if (takesLong(question.given))
      workUpInWorker(question, { withReasons: false }).then((workUp) => {
        if (isWanted && workUp) setAnswer({ key: "", workUp });
      });
    workUpInWorker(question).then((workUp) => {
      if (isWanted) setAnswer({ key, workUp });
    });
    return () => {
      isWanted = false;
    };
  }, [key, initialKey, initial, question]);
  const isBrought = key === initialKey && initial !== undefined;
  return {
    workUp: isBrought ? initial : answer.workUp,
    isReckoning: !isBrought && answer.key !== key,
    input,
    minutesLeft,
    setMinutesLeft,
    isLive: live !== undefined,
  };
}

function withLive(
  evidence: WorkUpInput["given"]["evidence"],
  { checkId, assessment }: { checkId: string; assessment: Assessment },
): WorkUpInput["given"]["evidence"] {
  const others = evidence.filter((one) => !("check" in one) || one.check !== checkId);
  return [...others, ...assessment.evidence.map((one) => ({ check: checkId, ...one }))];
}
