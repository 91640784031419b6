"use client";

import type { Answers, SafetyItem } from "@/core/job/safety";

/** Points answered one by one, by touch. A no at a firm one stops at once; a soft one may be missing, with the reason. */
export function Points({
  items,
  answers,
  onAnswer,
  onNo,
  isBusy,
}: {
  items: readonly SafetyItem[];
  answers: Answers;
  onAnswer: (id: string, answer: Answers[string]) => void;
  /** A firm point was answered with no. */
  onNo: (item: SafetyItem) => void;
  isBusy: boolean;
}) {
  return (
    <ul className="ruled mt-1">
      {items.map((item) => {
        const { id, text, isFirm } = item;
        const given = answers[id];
        return (
          <li key={id} className="py-1.5">
            <div className="grid grid-cols-[1fr_auto] items-center gap-2">
              <span className="leading-tight">
                {text}
                {isFirm && <span className="caps ml-2 !text-mark">firm</span>}
              </span>
              <span className="flex gap-1">
                <button
                  type="button"
                  className={`btn px-3 ${given?.answer === "yes" ? "btn-on" : ""}`}
                  aria-pressed={given?.answer === "yes"}
                  aria-label={`Yes: ${text}`}
                  onClick={() => onAnswer(id, { answer: "yes" })}
                >
                  Yes
                </button>
                <button
                  type="button"
                  className={`btn px-3 ${given && given.answer !== "yes" ? "btn-on" : ""}`}
                  aria-pressed={given !== undefined && given.answer !== "yes"}
                  aria-label={`${isFirm ? "No" : "Not here"}: ${text}`}
                  disabled={isFirm && isBusy}
                  onClick={() => (isFirm ? onNo(item) : onAnswer(id, { answer: "not-here", reason: "" }))}
                >
                  {isFirm ? "No" : "Not here"}
                </button>
              </span>
            </div>
            {given?.answer === "not-here" && (
              <label className="mt-1 block">
                <span className="caps">Why not</span>
                <input
                  className="input"
                  value={given.reason}
                  aria-invalid={given.reason === ""}
                  onChange={(event) => onAnswer(id, { answer: "not-here", reason: event.target.value })}
                />
              </label>
            )}
          </li>
        );
      })}
    </ul>
  );
}

/** What stopped, said at once and big: nothing else in the product is as firm as this. */
export function Stopped({ words }: { words: readonly string[] }) {
  if (words.length === 0) return null;
  return (
    <p className="mt-2 border-2 border-mark p-2 text-lg font-bold text-mark" role="alert">
      Stop. Written down as not so: {words.map((text) => text.charAt(0).toLowerCase() + text.slice(1)).join("; ")}. No hand goes near it
      before it is.
    </p>
  );
}
