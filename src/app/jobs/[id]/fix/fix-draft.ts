import type { GroundDraft } from "./grind-draft";

export type FixDraft = {
  cause: string;
  fix: string;
  words: string;
  parts: string;
  torque: string;
  torqueHow: "" | "wrench" | "by-feel";
  turns: Record<string, string>;
  pressures: Record<string, string>;
  /** Of a machine with several units: those it was done on. */
  units?: string[];
  ground?: GroundDraft;
};

export const EMPTY: FixDraft = { cause: "", fix: "", words: "", parts: "", torque: "", torqueHow: "", turns: {}, pressures: {} };
