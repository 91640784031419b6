import type { OwedDetail } from "@/core/jobs";
import { sayGap } from "./proof";

const WORDS: Record<string, string> = {
  "second-look": "second look for browning",
  "bolts-after-first-run": "blade bolts re-checked after the first run",
  "bolts-by-wrench": "a wrench on the blade bolts that were tightened by feel",
  "left-loose": "gearbox bolts tightened that were left loose on purpose",
  "casing-bolts-again": "casing bolts of the gearbox torqued again",
  "oil-after-standing": "gearbox oil checked again after standing",
};

/** What a closed job, or a part that left, still owes, in words. */
export function sayOwed({ code, detail }: { code: string; detail?: OwedDetail }): string {
  if (detail && "gap" in detail) return `went out unproved: ${sayGap(detail.gap)}`;
  if (detail && "owes" in detail) return `${detail.what}, with ${detail.to}: ${detail.owes}`;
  return WORDS[code] ?? code.replaceAll("-", " ");
}
