import type { CutDoubt } from "@/core/job/jobs";
import type { Clearing, RunReason, Unsafe } from "@/core/job/status";
import type { Machine } from "@/core/machine";
import { placeIn } from "../checks/shared";
import { sayPlace, sayState } from "../checks/words";
import { labelOfCause, labelOfCheck } from "./diagnosis";
import { STATE_WORDS } from "./issues";

const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** What is unsafe, and where. */
export function sayUnsafe(cause: Unsafe, machine: Machine): string {
  if (cause.kind === "by-word") return `Held: ${cause.reason}`;
  if (cause.kind === "touches") return `${placeIn({}, machine, cause.place)} touches or binds when turned by hand`;
  // A look tells a cause, a worksheet a place.
  if (cause.place === "machine" && cause.on !== undefined) return `${labelOfCause(cause.on)}, seen`;
  return `${sayPlace(cause.check, machine, cause.place)}: ${sayState(cause.check, cause.code)}${cause.on === "paper" ? ", worked out on paper" : ""}`;
}

/** Why the machine may not run, in a sentence without its end. */
export function sayReason(reason: RunReason, machine: Machine, timeOf: (iso: string) => string): string {
  const places = (ids: readonly string[]) => ids.map((id) => lower(placeIn({}, machine, id))).join(", ");
  switch (reason.code) {
    case "unsafe":
      return `${sayUnsafe(reason.cause, machine)} (${reason.cause.who}, ${timeOf(reason.cause.at)}${reason.cause.jobId === undefined ? "" : `, job ${reason.cause.jobId}`})`;
    case "locked-by":
      return `${reason.owner} is locked on to it: ${STATE_WORDS[reason.state] ?? reason.state} since ${timeOf(reason.at)}`;
    case "struck-not-looked":
      return `Struck ${reason.struck.words || "something"}${reason.struck.where ? `, ${reason.struck.where}` : ""}. Not looked at since: ${reason.checks.map(labelOfCheck).join(", ").toLowerCase()}`;
    case "deck-off":
      return "The deck is not back on";
    case "box-apart":
      return `${placeIn({}, machine, reason.place)} is apart`;
    case "work-open":
      return `${placeIn({}, machine, reason.place)}: ${reason.round === "blade" ? "blade" : "spindle"} not back on yet`;
    case "part-on-bench":
      return `On the bench: ${places(reason.parts)}`;
    case "timing-unseen":
      return "The geared blades were disturbed and not turned by hand since";
    case "timing-too-near":
      return "The geared blades pass too near each other";
    case "belt-not-seated":
      return "A belt was disturbed, and nobody looked at its grooves since";
    case "blades-not-turned":
      return `Not turned by hand since they were disturbed: ${places(reason.places)}`;
    case "not-put-back":
      return "Worked on, and not put back yet";
    case "not-ready":
      return reason.state === "none"
        ? "Nobody made it ready to run"
        : `It is ${STATE_WORDS[reason.state] ?? reason.state}, not ready to run`;
  }
}

/** What clears it, as a button says it. */
export function sayClearing(clears: Clearing): string {
  switch (clears.do) {
    case "read":
      return `Read it: ${lower(labelOfCheck(clears.check))}`;
    case "replace":
      return "Put another part in its place";
    case "put-back":
      return "Put back";
    case "make-ready":
      return "Make it ready to run";
    case "lift":
      return `Ask ${clears.owner}, or lift it with a reason`;
    case "refit-deck":
      return "Put the deck back on";
    case "refit-box":
      return "Put the gearbox together";
    case "finish-work":
      return clears.round === "blade" ? "Put the blade back on" : "Put the spindle together";
    case "release":
      return "Release it with a reason";
  }
}

const DOUBTS: Record<CutDoubt, string> = {
  "not-all-alike": "better is not all alike",
  "other-lawn": "it was another lawn",
  "not-dry": "the grass was not dry",
  "low-light": "at dawn or dusk fine lines do not show",
  "other-patch": "it was not the patch complained of",
  "other-height": "it was cut at another height",
  "other-driver": "somebody else drove",
};

/** Why a cut that looks right is not proof. */
export const sayDoubts = (doubts: readonly CutDoubt[]): string => capital(doubts.map((doubt) => DOUBTS[doubt]).join("; "));
