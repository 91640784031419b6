import type { CauseId, CheckId, ContextId, FixId, SymptomId } from "@/core/catalogue";
import type { SafeState } from "@/core/job/safety";
import type { Ground } from "@/core/physics/reel";

/** A complaint with what is really wrong, and how far its job went. */
export type Story = {
  fleetNumber: string;
  daysAgo: number;
  words: string;
  saidBy: string;
  place: string;
  symptoms: SymptomId[];
  contexts?: ContextId[];
  /** What is really wrong: hidden from the screens, seen only through the readings. */
  fault:
    | { kind: "deck"; sideInches: number; noseInches: number; cause: "deck-out-of-level" | "deck-rake-wrong" }
    | { kind: "tyre"; wheelId: string; psiOff: number }
    /** Shown by a worksheet: what differs from a sound machine, by path of its readings. */
    | {
        kind: "sheet";
        check: CheckId;
        state: SafeState;
        spoils: Record<string, unknown>;
        cause: CauseId;
        fix: FixId;
        fixState: SafeState;
        also?: CheckId[];
        /** Of a reel machine, the units it was mended on. */
        units?: string[];
        /** What was counted on the grinder, of the one unit. */
        ground?: Ground;
      }
    /** Stubble against the setting. */
    | { kind: "height"; offsetMillimetres: number }
    | { kind: "look"; check: string; state: SafeState; cause: string; fix: string; fixState: SafeState; note: string };
  /** Logged on the machine before the complaint. */
  strike?: { words: string; place: string; droveOn: boolean };
  /** What the mechanic thought before anything was read. */
  guess?: CauseId;
  /** A part that left without its machine, to whom, with what is owed on it and how many days later. */
  away?: { what: string; to: string; owes: string[]; afterDays: number };
  stop?: "waiting" | "after-level" | "after-fix" | "held";
  who?: string;
};
