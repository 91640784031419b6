import { taskRow } from "@/core/fleet/service/tasks";
import { liveSteps } from "@/core/job/jobs";
import { type Machine, placesOf } from "@/core/machine";
import { sheetDifferences } from "@/core/machine/specification";
import { complaintsOfMachine } from "@/data/job/complaints";
import { getMachine } from "@/data/machine/machines";
import { listEvents } from "@/data/record/events-read";
import { sheetInForce, sheetOfVersion } from "@/data/record/sheets-read";
import { type AnyStep, stepsOfMachine } from "@/data/record/step-data";
import { serviceEntries } from "@/data/service/service-log";
import { listSpindleLog } from "@/data/service/spindle-log";
import type { Db } from "@/data/store/db";
import { byLetters } from "@/data/store/grouped";
import { ofMachine, whileUnchanged } from "@/data/store/reads";

export const BOOK_KINDS = ["complaint", "reading", "fix", "strike", "event", "hours", "service", "sheet", "set", "close"] as const;
export type BookKind = (typeof BOOK_KINDS)[number];

/** One line of a machine's book; words are made of it where it is shown. `places`: those it names. */
export type BookLine = { key: string; at: string; who: string; kind: BookKind; jobId?: number; places: string[] } & (
  | { of: "step"; step: AnyStep }
  | { of: "complaint"; words: string; saidBy: string; symptoms: readonly string[] }
  | { of: "event"; event: string; words?: string; where?: string; droveOn?: boolean }
  | { of: "hours"; meterHours: number; isSwap: boolean }
  | { of: "service"; what: string; entry: "done" | "rechecked" | "postponed"; untilDay?: string; words: string }
  | { of: "spindle"; done: string }
  | { of: "sheet"; version: number; reason: string }
  | { of: "set"; mark: string; setKind: string; work?: string; why?: string }
);

const STEP_KINDS: Partial<Record<AnyStep["kind"], BookKind>> = {
  take: "reading",
  fix: "fix",
  "test-cut": "reading",
  close: "close",
  hold: "event",
  release: "event",
  handover: "event",
  note: "event",
  photograph: "event",
};

/** Where each reading of a machine was taken, by its step. */
function placesByStep(db: Db, machineId: string): Map<number, string[]> {
  const known = new Set(placesOf(sheetInForce(db, machineId)));
  const rows = db
    .prepare(
      "SELECT r.step_id, r.place FROM takes t JOIN readings r ON r.step_id = t.step_id WHERE t.machine_id = ? GROUP BY r.step_id, r.place",
    )
    .all(machineId) as { step_id: number; place: string }[];
  const found = new Map<number, string[]>();
  for (const { step_id, place } of rows) {
    // A reading stands under its worksheet's own path: the parts of it that the machine has.
    const own = found.get(step_id) ?? [];
    for (const part of place.split(":")) if (known.has(part) && !own.includes(part)) own.push(part);
    found.set(step_id, own);
  }
  return found;
}

const placesOfFix = (data: {
  units?: string[] | undefined;
  turns?: { hangerId: string }[] | undefined;
  pressures?: { wheelId: string }[] | undefined;
}) => [
  ...(data.units ?? []),
  ...(data.turns ?? []).map(({ hangerId }) => hangerId),
  ...(data.pressures ?? []).map(({ wheelId }) => wheelId),
];

/** What was done by steps, complaints and events, in the order of the log. */
function ordered(db: Db, machineId: string): BookLine[] {
  const places = placesByStep(db, machineId);
  const complaints = new Map(complaintsOfMachine(db, machineId).map((one) => [one.id, one]));
  const fromStep = (step: AnyStep & { jobId: number }): BookLine[] => {
    const base = { key: `step-${step.id}`, at: step.at, who: step.who, jobId: step.jobId };
    if (step.kind === "complaint") {
      const said = complaints.get(step.data.complaintId);
      return said
        ? [
            {
              ...base,
              kind: "complaint",
              of: "complaint",
              places: [],
              words: said.words,
              saidBy: said.saidBy,
              symptoms: said.looks.symptoms,
            },
          ]
        : [];
    }
    const kind = STEP_KINDS[step.kind];
    if (!kind) return [];
    const at = step.kind === "take" ? (places.get(step.id) ?? []) : step.kind === "fix" ? placesOfFix(step.data) : [];
    return [{ ...base, kind, of: "step", step, places: at }];
  };
  const steps = liveSteps(stepsOfMachine(db, machineId)).flatMap((step) =>
    fromStep(step as AnyStep & { jobId: number }).map((line) => ({ seq: step.seq, line })),
  );
  const events = listEvents(db, machineId)
    // What a step brought about is told by the step.
    .filter(({ stepId, event }) => stepId === undefined || event === "struck")
    .map(({ id, seq, event, at, who, place, words, where, droveOn }) => ({
      seq,
      line: {
        key: `event-${id}`,
        at,
        who,
        kind: event === "struck" ? ("strike" as const) : ("event" as const),
        of: "event" as const,
        event,
        places: place === undefined ? [] : [place],
        ...(words ? { words } : {}),
        ...(where ? { where } : {}),
        ...(droveOn === undefined ? {} : { droveOn }),
      },
    }));
  // Grease that was done is told spindle by spindle, by the log of the spindles.
  const told = serviceEntries(db, machineId).filter(({ what, kind }) => !(taskRow(what)?.spindles && kind === "done"));
  const service = told.map(({ id, seq, what, kind, places = [], untilDay, words, who, at }) => ({
    seq,
    line: {
      ...{ key: `service-${id}`, at, who, kind: "service" as const, of: "service" as const, places: [...places], what, entry: kind, words },
      ...(untilDay ? { untilDay } : {}),
    },
  }));
  return [...steps, ...events, ...service, ...setLines(db, machineId)].sort((a, b) => a.seq - b.seq).map(({ line }) => line);
}

/** What became of the sets that were on it. */
function setLines(db: Db, machineId: string): { seq: number; line: BookLine }[] {
  const rows = db
    .prepare(
      `SELECT l.id, l.kind, l.data_json, l.who, l.at, l.seq, s.mark FROM set_log l JOIN part_sets s ON s.id = l.set_id WHERE l.machine_id = ? AND l.kind <> 'taken-back'
       AND NOT EXISTS (SELECT 1 FROM set_log b WHERE b.takes_back_id = l.id) ORDER BY l.id`,
    )
    .all(machineId) as { id: number; kind: string; data_json: string; who: string; at: string; seq: number; mark: string }[];
  return rows.map(({ id, kind, data_json, who, at, seq, mark }) => {
    const data = JSON.parse(data_json) as { place?: string; work?: string; why?: string; isDull?: boolean };
    const { place, work, why = data.isDull === undefined ? undefined : data.isDull ? "dull" : "still sharp" } = data;
    const line: BookLine = {
      key: `set-${id}`,
      at,
      who,
      kind: "set",
      of: "set",
      places: place === undefined ? [] : [place],
      mark,
      setKind: kind,
      ...(work ? { work } : {}),
      ...(why ? { why } : {}),
    };
    return { seq, line };
  });
}

/** What is not on the log's own order, by its clock. */
function beside(db: Db, machineId: string): BookLine[] {
  const hours = db.prepare("SELECT id, meter_hours, offset_hours, who, at FROM hours WHERE machine_id = ? ORDER BY id").all(machineId) as {
    id: number;
    meter_hours: number;
    offset_hours: number;
    who: string;
    at: string;
  }[];
  const sheets = db.prepare("SELECT version, reason, who, at FROM machine_sheets WHERE machine_id = ? ORDER BY version").all(machineId) as {
    version: number;
    reason: string;
    who: string;
    at: string;
  }[];
  return [
    ...hours.map(({ id, meter_hours, offset_hours, who, at }, k): BookLine => {
      const isSwap = k > 0 && offset_hours !== hours[k - 1]?.offset_hours;
      return { key: `hours-${id}`, at, who, kind: "hours", of: "hours", places: [], meterHours: meter_hours, isSwap };
    }),
    ...sheets.map(
      ({ version, reason, who, at }): BookLine => ({
        key: `sheet-${version}`,
        at,
        who,
        kind: "sheet",
        of: "sheet",
        places: [],
        version,
        reason,
      }),
    ),
    ...listSpindleLog(db, machineId).map(
      (entry): BookLine => ({
        key: `spindle-${entry.id}`,
        at: entry.at,
        who: entry.who,
        kind: "service",
        of: "spindle",
        places: entry.kind === "moved" ? Object.keys(entry.moves) : [entry.place],
        done: entry.kind,
      }),
    ),
  ];
}

/**
 * A machine's whole book, the newest first: the log in its own order whatever the clock said, and what has no place in it (hours, grease, sheets) where its
 * clock puts it between the log's lines.
 */
export function bookOf(db: Db, machineId: string): readonly BookLine[] {
  return whileUnchanged(db, `book of ${machineId}`, () => readBook(db, machineId), {
    on: ofMachine(machineId, "log", "sheet", "hours", "service", "sets", "spindles"),
    size: "long",
  });
}

function readBook(db: Db, machineId: string): BookLine[] {
  getMachine(db, machineId);
  // An hour read is one line more beside the log, which stands as it was.
  const log = whileUnchanged(db, `log lines of ${machineId}`, () => ordered(db, machineId), {
    on: ofMachine(machineId, "log", "sheet", "service", "sets"),
    size: "long",
  });
  const others = beside(db, machineId).sort((a, b) => byLetters(a.at, b.at));
  const lines: BookLine[] = [];
  let k = 0;
  for (const line of log) {
    while (k < others.length && (others[k] as BookLine).at < line.at) lines.push(others[k++] as BookLine);
    lines.push(line);
  }
  return [...lines, ...others.slice(k)].reverse();
}

/** What a version of a sheet changed of the one before. */
export function sheetChanges(
  db: Db,
  machineId: string,
  version: number,
): { machine: Machine; changes: ReturnType<typeof sheetDifferences> } {
  const machine = sheetOfVersion(db, machineId, version);
  return { machine, changes: version === 1 ? [] : sheetDifferences(sheetOfVersion(db, machineId, version - 1), machine) };
}
