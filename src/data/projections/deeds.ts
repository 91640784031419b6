import type { RunReason } from "@/core/job/status";

type Reason = RunReason["code"];

/** What a reading or a look can do away with. */
const BY_READING: readonly Reason[] = [
  "unsafe",
  "struck-not-looked",
  "timing-unseen",
  "timing-too-near",
  "belt-not-seated",
  "blades-not-turned",
];
const NOTHING: readonly Reason[] = [];

/**
 * Everything that is written to the record, by the name it is kept under, with the reasons in `mayRun` that it truly does away with. Whatever else
 * went with it was let go of, which wants its owner or a reason of substance (`letGo`); anything neither done away with nor let go of is refused.
 */
export const DEEDS = {
  // At a machine, in a job.
  confirmation: ["not-ready"],
  "put-back": ["not-put-back", "blades-not-turned", "belt-not-seated", "part-on-bench", "unsafe"],
  lift: ["locked-by"],
  take: BY_READING,
  "take-corrected": NOTHING,
  finding: BY_READING,
  fix: NOTHING,
  "test-cut": NOTHING,
  guess: NOTHING,
  answer: NOTHING,
  skip: NOTHING,
  "second-look": NOTHING,
  note: NOTHING,
  event: NOTHING,
  hold: NOTHING,
  release: ["unsafe"],
  handover: NOTHING,
  close: NOTHING,
  undo: NOTHING,
  deck: ["deck-off"],
  guided: ["work-open"],
  rebuild: ["box-apart"],
  "own-list": NOTHING,
  photograph: NOTHING,
  "complaint-taken": NOTHING,
  "complaint-split": NOTHING,
  "jobs-joined": NOTHING,
  // At a machine, without a job.
  "event-logged": NOTHING,
  "event-voided": NOTHING,
  "machine-added": NOTHING,
  "sheet-replaced": NOTHING,
  "bench-setting-kept": NOTHING,
  "machine-renamed": NOTHING,
  "machine-standing": NOTHING,
  "hours-logged": NOTHING,
  "hours-imported": NOTHING,
  "meter-swapped": NOTHING,
  "meter-swap-taken-back": NOTHING,
  "spindles-logged": NOTHING,
  "spindle-entry-taken-back": NOTHING,
  "machine-photographed": NOTHING,
  "machine-photograph-taken-back": NOTHING,
  "owed-done": NOTHING,
  "owed-postponed": NOTHING,
  // In the shop.
  "service-rule": NOTHING,
  "service-done": NOTHING,
  "service-postponed": NOTHING,
  "service-taken-back": NOTHING,
  "round-added": NOTHING,
  "procedure-kept": NOTHING,
  "procedure-withdrawn": NOTHING,
  "school-set": NOTHING,
  "preferences-set": NOTHING,
  "feed-key-changed": NOTHING,
  "site-place-added": NOTHING,
  "site-place-gone": NOTHING,
  "site-place-back": NOTHING,
  "site-picture": NOTHING,
  "part-added": NOTHING,
  "part-changed": NOTHING,
  "part-moved": NOTHING,
  "part-move-taken-back": NOTHING,
  "set-added": NOTHING,
  "set-fitted": NOTHING,
  "set-came-off": NOTHING,
  "set-sharpened": NOTHING,
  "set-looked": NOTHING,
  "set-finished": NOTHING,
  "set-put": NOTHING,
  "set-entry-taken-back": NOTHING,
} as const satisfies Record<string, readonly Reason[]>;

export type DeedId = keyof typeof DEEDS;
