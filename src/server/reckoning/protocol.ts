import type { AssessOutcome } from "@/core/checks";
import type { answerDiagnose, DiagnoseRequest } from "@/core/diagnosis";
import type { Machine, SheetProblem } from "@/core/machine";

/** What the server reckons for others, each in its own thread: readings of a check, a diagnosis, a specification tried out before it is kept. */
export type Reckoning =
  | { kind: "assess"; check: string; machine: unknown; readings: unknown }
  | { kind: "diagnose"; request: DiagnoseRequest }
  | { kind: "try-out"; machine: Machine };

/** What comes back of each. */
export type Reckoned = {
  assess: { outcome: AssessOutcome; problems: SheetProblem[] };
  diagnose: ReturnType<typeof answerDiagnose>;
  "try-out": { isTried: true };
};

export type ToThread = { number: number; reckoning: Reckoning };
/** `threw`: a programmer's mistake, in words for the log. */
export type FromThread =
  | { kind: "ready" }
  | { kind: "reckoned"; number: number; answer: unknown }
  | { kind: "threw"; number: number; words: string };
