"use client";

import { useMemo } from "react";
import { type Assessment, assessWith } from "@/core/checks";
import type { DeckContext } from "@/core/jobs";
import type { Machine } from "@/core/machine";
import { PSI_PASCALS, type UnitSystem } from "@/core/units";
import { type Entry, readEntry } from "@/ui/entry";
import { sayIssue } from "@/ui/words/issues";
import { PLACE_WORKSHEETS } from "./place-worksheets";
import { type DeckForm, floorOf, type Place, placesFor, readingsOf } from "./places";

export type Draft = {
  text: Record<string, string>;
  sure: Record<string, string>;
  form: DeckForm;
  wantedHeight: string;
  loose: string[];
  gaugeStepPsi: string;
  /** Heights of the floor on any datum, by wheel and by tip. */
  floor: Record<string, string>;
  /** One end of each blade turned to every place. */
  isCarriedRound: boolean;
  correctsStepId?: number;
  /** Of a correction that lets the machine go. */
  reason?: string;
  /** The newest take there was when the first figure was typed. */
  seenStepId?: number;
  /** Opened on purpose though a take stands. */
  isOpen: boolean;
};

export const EMPTY_DRAFT: Draft = {
  text: {},
  sure: {},
  form: "quick",
  wantedHeight: "",
  loose: [],
  gaugeStepPsi: "0.5",
  floor: {},
  isCarriedRound: false,
  isOpen: false,
};

/** Where the height of cut stands among what its writer is sure of. */
export const WANTED_KEY = "wanted-height";
const HEIGHT_FIELD = { dimension: "length", range: { least: 0.003, most: 0.2, usualLeast: 0.012, usualMost: 0.15 } } as const;

export const FLOOR_FIELD = { dimension: "length", range: { least: -0.5, most: 0.5, usualLeast: -0.15, usualMost: 0.15 } } as const;

export type Worksheet = {
  checkId: string;
  places: Place[];
  draft: Draft;
  change: (change: (draft: Draft) => Draft) => void;
  clear: () => void;
  entries: Record<string, Entry>;
  wanted: Entry;
  floorEntries: Record<string, Entry>;
  readings: unknown;
  assessment?: Assessment;
  /** Sentences by place, and those that belong to none. */
  troubles: { byPlace: Record<string, string>; general: string[] };
  isStarted: boolean;
  /** Fields that are typed and cannot be taken as they stand: nothing is saved before they are mended. */
  wrongCount: number;
};

/** What is typed for one check, and what it comes to: assessed by the same core function as on the server, with each keystroke. */
export function useWorksheet(args: {
  /** Where what is typed is kept. */
  kept: { value: Draft; set: (change: Draft | ((before: Draft) => Draft)) => void; clear: () => void };
  machine: Machine;
  checkId: string;
  system: UnitSystem;
  deckContext: DeckContext;
}): Worksheet {
  const { machine, checkId, system, deckContext } = args;
  const { value: kept, set, clear } = args.kept;
  // What an older page kept in this browser may lack a field.
  const draft = useMemo(() => ({ ...EMPTY_DRAFT, ...kept }), [kept]);
  const places = useMemo(() => placesFor({ checkId, machine, form: draft.form }), [checkId, machine, draft.form]);
  const entries = useMemo(
    () =>
      Object.fromEntries(
        places.map((place) => [place.key, readEntry({ text: draft.text[place.key] ?? "", place, system, sure: draft.sure[place.key] })]),
      ),
    [places, draft, system],
  );
  const wanted = useMemo(
    () => readEntry({ text: draft.wantedHeight, place: HEIGHT_FIELD, system, sure: draft.sure[WANTED_KEY] }),
    [draft, system],
  );
  const floorEntries = useMemo(
    () =>
      Object.fromEntries(
        Object.entries(draft.floor).map(([key, text]) => [key, readEntry({ text, place: FLOOR_FIELD, system, sure: text })]),
      ),
    [draft, system],
  );
  return useMemo(() => {
    const floorRead = Object.entries(floorEntries).flatMap(([key, entry]) =>
      entry.kind === "read" ? [{ key, valueSi: entry.valueSi }] : [],
    );
    const read = places.flatMap(({ key }) => {
      const entry = entries[key];
      return entry?.kind === "read" ? [{ key, valueSi: entry.valueSi }] : [];
    });
    const step = Number(draft.gaugeStepPsi);
    const readings = readingsOf({
      checkId,
      read,
      extra: {
        ...(floorRead.length > 0 ? { floor: floorOf(floorRead) } : {}),
        looseHangerIds: draft.loose,
        isCarriedRound: draft.isCarriedRound,
        ...(wanted.kind === "read" ? { wantedCutHeightMetres: wanted.valueSi } : {}),
        ...(Number.isFinite(step) && step > 0 ? { gaugeStepPascals: step * PSI_PASCALS } : {}),
      },
    });
    const typed = [...Object.values(entries), ...Object.values(floorEntries), wanted];
    const wrongCount = typed.filter(({ kind }) => kind !== "read" && kind !== "empty").length;
    const base = {
      checkId,
      places,
      draft,
      change: set,
      clear,
      entries,
      wanted,
      floorEntries,
      readings,
      isStarted: read.length > 0,
      wrongCount,
    };
    if (read.length === 0) return { ...base, troubles: { byPlace: {}, general: [] } };
    const check = PLACE_WORKSHEETS[checkId];
    if (!check) return { ...base, troubles: { byPlace: {}, general: [] } };
    const outcome = assessWith(check, { machine, readings: { ...readings, ...(checkId === "deck-level" ? deckContext : {}) } });
    if (outcome.kind === "assessed") return { ...base, assessment: outcome.assessment, troubles: { byPlace: {}, general: [] } };
    const issues = outcome.kind === "invalid" ? outcome.issues : [];
    const byPlace: Record<string, string> = {};
    const general: string[] = [];
    for (const issue of issues) {
      const index = issue.path.find((part) => typeof part === "number");
      const key = typeof index === "number" ? read[index]?.key : undefined;
      if (key) byPlace[key] = sayIssue(issue, system);
      else general.push(sayIssue(issue, system));
    }
    return { ...base, troubles: { byPlace, general } };
  }, [places, entries, draft, wanted, floorEntries, checkId, machine, system, deckContext, set, clear]);
}
