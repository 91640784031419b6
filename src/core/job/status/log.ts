import type { Evidence, Finding, Verdict } from "@/core/basics/findings";
import type { CheckId, EventId } from "@/core/catalogue";
import type { SafeState } from "@/core/job/safety";
import type { Move } from "@/core/job/sequences/counted";
import type { GuidedMove } from "@/core/job/sequences/guided";
import type { RebuildMove, Tightened } from "@/core/job/sequences/rebuild";
import type { Machine } from "@/core/machine";

/** A take that counts, as the fold needs it; a correction stands where what it corrects stood. */
export type TakenLine = {
  kind: "take";
  stepId: number;
  check: CheckId;
  ruleVersion: number;
  verdict: Verdict;
  findings: readonly Finding[];
  told: readonly string[];
  evidence: readonly Evidence[];
};

/** What a step or an event did to a machine. What was taken back is not here, but for a safe state, a run and a close, which do not come back. */
export type LogEntry =
  | { kind: "confirmation"; state: SafeState; outcome: "safe" | "stopped"; parts: readonly string[]; isTakenBack?: boolean }
  /** Somebody else's lock-out lifted, with a reason. */
  | { kind: "lift"; owner: string; reason: string }
  /** `turned`: blades or reels turned by hand, free or touching; `belt`: seen in every groove. */
  | {
      kind: "put-back";
      stepId: number;
      outcome: "safe" | "stopped";
      turned: readonly string[];
      touching: readonly string[];
      isBeltSeated: boolean;
    }
  | TakenLine
  | { kind: "fix"; fix: string; cause: string }
  | { kind: "test-cut"; seenCutting: readonly string[] }
  | { kind: "deck"; move: Move }
  | { kind: "rebuild"; move: RebuildMove | Tightened }
  | { kind: "guided"; move: GuidedMove }
  /** The job that wrote it is done with: what it confirmed, short of a lock-out, is nobody's word any more. */
  | { kind: "close" }
  /** Another version of the machine's specification came into force. */
  | { kind: "specification"; machine: Machine }
  | { kind: "hold"; stepId: number; reason: string }
  /** Without reasons by cause it is one from before they were asked for: it let go of what its own job held. */
  | { kind: "release"; reasons?: readonly { key: string; reason: string }[]; reason: string }
  | {
      kind: "event";
      event: EventId;
      place?: string;
      words?: string;
      where?: string;
      droveOn?: boolean;
      isOfFix?: boolean;
      isTakenBack?: boolean;
    };

/** One line of a machine's log, whichever job wrote it. `seq` orders; `at` (ISO 8601 UTC) is only shown. */
export type LogLine = { seq: number; at: string; who: string; jobId?: number } & LogEntry;
