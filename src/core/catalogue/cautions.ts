import type { FixId } from "./fixes";

/** What can hurt, by code; the interface has the sentence. */
export const CAUTIONS = [
  "turn-by-hand",
  "tyre-maximum",
  "freed-blade",
  "block-before-pin",
  "idler-spring",
  "covers-stay-on",
  "sensor-from-distance",
  "dry-bearing-air",
  "scrape-from-side",
  "feel-for-contact",
  "reels-isolated",
  "blocks-under-deck",
  "bolt-of-grade",
  "impact-off-only",
  "grinding",
  "traverse-locked",
  "back-lapping",
] as const;
export type Caution = (typeof CAUTIONS)[number];

export const FIX_CAUTIONS: Partial<Record<FixId, readonly Caution[]>> = {
  "set-pressures": ["tyre-maximum"],
  "mend-tyre": ["tyre-maximum"],
  "adjust-hangers": ["blocks-under-deck"],
  "replace-hanger": ["blocks-under-deck"],
  "replace-blades": ["freed-blade", "bolt-of-grade", "impact-off-only"],
  "sharpen-blades": ["freed-blade", "grinding"],
  "refit-blades": ["freed-blade"],
  "grind-bedknife": ["grinding", "traverse-locked"],
  "grind-reel": ["grinding", "traverse-locked"],
  "set-parallel": ["grinding", "traverse-locked", "feel-for-contact"],
  "lap-reel": ["back-lapping", "feel-for-contact"],
  "set-contact": ["feel-for-contact"],
};
