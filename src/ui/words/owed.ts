import { table } from "@/core/basics/tables";
import type { OwedDetail } from "@/core/job/jobs";
import { sayGap } from "./proof";

const WORDS: Record<string, string> = table({
  "second-look": "second look for browning",
  "bolts-after-first-run": "blade bolts re-checked after the first run",
  "bolts-by-wrench": "a wrench on the blade bolts that were tightened by feel",
  "left-loose": "gearbox bolts tightened that were left loose on purpose",
  "casing-bolts-again": "casing bolts of the gearbox torqued again",
  "oil-after-standing": "gearbox oil checked again after standing",
});

const LET_GO: Record<string, string> = table({
  unsafe: "what was unsafe",
  "locked-by": "the lock-out",
  "struck-not-looked": "the look after the strike",
  "deck-off": "the deck that is off",
  "box-apart": "the gearbox that is apart",
  "work-open": "the blade or spindle that is off",
  "part-on-bench": "the part on the bench",
  "timing-unseen": "the timing not seen",
  "timing-too-near": "the blades too near",
  "belt-not-seated": "the belt not seen in its grooves",
  "blades-not-turned": "the blades not turned by hand",
  "not-put-back": "the work not put back",
  "not-ready": "its being made ready",
});

/** Each reason once, however many places it is of. */
function sayLetGo(letGo: readonly { code: string }[]): string {
  return [...new Set(letGo.map(({ code }) => LET_GO[code] ?? `⟨${code}⟩`))].join(", ");
}

/** What a closed job, or a part that left, still owes, in words. */
export function sayOwed({ code, detail }: { code: string; detail?: OwedDetail }): string {
  if (detail && "gap" in detail) return `went out unproved: ${sayGap(detail.gap)}`;
  if (detail && "letGo" in detail) {
    const { letGo, of, by, reason } = detail;
    return `${sayLetGo(letGo)} of ${of} let go by ${by}: “${reason}”. Tell ${of}, and look again`;
  }
  if (detail && "owes" in detail) return `${detail.what}, with ${detail.to}: ${detail.owes}`;
  return WORDS[code] ?? code.replaceAll("-", " ");
}
