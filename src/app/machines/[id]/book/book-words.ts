import { fixLines, type StepRow, sayStep, takeLines } from "@/app/jobs/[id]/close/said";
import { table } from "@/core/basics/tables";
import type { UnitSystem } from "@/core/basics/units";
import { EVENTS } from "@/core/catalogue";
import type { Assessment } from "@/core/checks";
import type { Machine } from "@/core/machine";
import { sheetPlaces } from "@/core/machine/specification";
import type { BookKind, BookLine, sheetChanges } from "@/data/fleet/book";
import type { HeldFix } from "@/data/fleet/holds";
import { dateOnly } from "@/ui/time";
import { labelOfCause, labelOfSymptom } from "@/ui/words/diagnosis";
import { placeName } from "@/ui/words/quantities";
import { taskLabel } from "@/ui/words/service";
import { differenceTitle, sayValue } from "@/ui/words/sheet";

export const KIND_WORDS: Record<BookKind, string> = {
  complaint: "Complaints",
  reading: "Readings",
  fix: "Fixes",
  strike: "Strikes",
  event: "Events",
  hours: "Hours",
  service: "Service",
  sheet: "Sheet",
  set: "Sets",
  close: "Closings",
};

const CUT_WORDS: Record<string, string> = table({ "all-alike": "all alike", better: "better, not right", same: "no better" });
const SPINDLE_WORDS: Record<string, string> = table({
  "topped-up": "greased",
  purged: "purged",
  "bearings-new": "new bearings",
  moved: "moved round",
});
const SET_WORDS: Record<string, string> = table({ fitted: "fitted", "came-off": "came off", looked: "looked at" });

/** A line of the book in a few words: what it is told by, and what is found by words. */
export function bookTitle(line: BookLine, machine: Machine): string {
  switch (line.of) {
    case "complaint":
      return line.words ? `“${line.words}”` : line.symptoms.map(labelOfSymptom).join(", ") || "nothing said";
    case "step":
      return stepTitle(line.step as unknown as StepRow, machine);
    case "event": {
      const label = EVENTS.find(({ id }) => id === line.event)?.label ?? line.event;
      const place = line.places[0];
      return [
        place ? `${label}, ${placeName(machine, place).toLowerCase()}` : label,
        line.where ? `at ${line.where}` : "",
        line.words ?? "",
      ]
        .filter(Boolean)
        .join(": ");
    }
    case "hours":
      return line.isSwap ? `Another hour meter: it shows ${line.meterHours} h` : `Hour meter ${line.meterHours} h`;
    case "service":
      return line.entry === "postponed"
        ? `${taskLabel(line.what)}: put off to ${line.untilDay ? dateOnly(line.untilDay) : "later"}, ${line.words}`
        : `${taskLabel(line.what)}: ${line.entry === "rechecked" ? "looked at again" : "done"}${line.words ? `, ${line.words}` : ""}`;
    case "spindle":
      return `Spindles ${SPINDLE_WORDS[line.done] ?? line.done}: ${line.places.map((place) => placeName(machine, place).toLowerCase()).join(", ")}`;
    case "sheet":
      return `Sheet, version ${line.version}: ${line.reason}`;
    case "set":
      return `Set ${line.mark} ${SET_WORDS[line.setKind] ?? line.setKind}${line.work ? ` for ${line.work}` : ""}${line.why ? `: ${line.why}` : ""}`;
  }
}

function stepTitle(step: StepRow, machine: Machine): string {
  if (step.kind === "test-cut") return `Test cut: ${CUT_WORDS[step.data.looks] ?? step.data.looks.replaceAll("-", " ")}`;
  const view = { complaints: [], steps: [step], machine: { machine } } as unknown as Parameters<typeof sayStep>[1];
  return sayStep(step, view);
}

export type Told = {
  machine: Machine;
  system: UnitSystem;
  assessments: ReadonlyMap<number, Assessment>;
  holds: ReadonlyMap<number, HeldFix>;
  outcomes: Outcomes;
  changesOf: (version: number) => ReturnType<typeof sheetChanges>;
};

/** How each job that is closed ended. */
export type Outcomes = ReadonlyMap<number, { isProved: boolean; causes: readonly string[] }>;

/** The closings among the lines of a book, by job. */
export const outcomesIn = (lines: readonly BookLine[]): Outcomes =>
  new Map(
    lines.flatMap((line) =>
      line.of === "step" && line.step.kind === "close" && line.jobId !== undefined
        ? [[line.jobId, { isProved: line.step.data.isProved, causes: line.step.data.causes }] as const]
        : [],
    ),
  );

const sayCauses = (causes: readonly string[]): string =>
  causes.map((id) => (id === "nothing-found" ? "Nothing found" : labelOfCause(id))).join("; ");

/** What became of a complaint. */
function sayOutcome(jobId: number | undefined, outcomes: Outcomes): string {
  const outcome = jobId === undefined ? undefined : outcomes.get(jobId);
  return outcome ? `${outcome.isProved ? "proved" : "closed, not proved"}: ${sayCauses(outcome.causes)}` : "open";
}

const BACK_WORDS = { "came-back": "came back", "new-damage": "damaged anew", missed: "missed: something else was found" } as const;

/** What became of a job's fix, as it is known today. */
function sayHeld(held: HeldFix | undefined): string[] {
  if (!held) return [];
  if (held.back) return [`${BACK_WORDS[held.back]}${held.backBy ? `, job ${held.backBy}` : ""}`];
  return [held.counts ? "held" : held.isProved ? "proved; too early to say whether it holds" : "not proved"];
}

/** The figures behind a line: of a fix what was turned, fitted and torqued, in how many minutes, what proved it and whether it held. */
export function bookLines(line: BookLine, told: Told): string[] {
  const { machine, system } = told;
  if (line.of === "complaint")
    return [
      `${line.saidBy}${line.symptoms.length > 0 && line.words ? `: ${line.symptoms.map(labelOfSymptom).join(", ")}` : ""}`,
      sayOutcome(line.jobId, told.outcomes),
    ];
  if (line.of === "sheet") {
    const { machine: then, changes } = told.changesOf(line.version);
    const labels = new Map(sheetPlaces(then).map(({ id, label }) => [id, label]));
    return changes.map(
      (one) =>
        `${differenceTitle(one, (place) => labels.get(place) ?? "")}: ${sayValue(one.field, one.a, system)} → ${sayValue(one.field, one.b, system)}`,
    );
  }
  if (line.of === "event")
    return line.droveOn === undefined ? [] : [line.droveOn ? "the drive ran on after it" : "the drive was stopped at once"];
  if (line.of !== "step") return [];
  const { step } = line;
  switch (step.kind) {
    case "take": {
      const assessment = told.assessments.get(step.id);
      return assessment ? takeLines(assessment, { machine, system }) : [];
    }
    case "fix":
      return [
        ...fixLines(step, machine, system),
        ...(step.data.minutes === undefined ? [] : [`${step.data.minutes} min`]),
        ...sayHeld(line.jobId === undefined ? undefined : told.holds.get(line.jobId)),
      ];
    case "test-cut":
      return [[step.data.place, step.data.operator, step.data.words].filter(Boolean).join(", ")].filter(Boolean);
    case "close":
      return [sayCauses(step.data.causes), ...sayHeld(line.jobId === undefined ? undefined : told.holds.get(line.jobId))].filter(Boolean);
    default:
      return [];
  }
}
