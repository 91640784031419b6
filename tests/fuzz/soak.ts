import { spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { recordTake } from "@/data/checks/takes";
import { recordNote } from "@/data/job/job-actions";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";

/** The day all this is written on: what was answered then is not old yet. */
export const DAY = "2026-05-05T12:00:00.000Z";

/** The n-th submission: by its id the same whoever sends it, and how often. */
export function submissionFor(n: number): Doing {
  const hex = createHash("sha256").update(`submission ${n}`).digest("hex");
  const submissionId = `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-a${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
  return { who: "AK", now: new Date(Date.UTC(2026, 4, 5) + n * 1000).toISOString(), submissionId, digest: `${n}` };
}

const WHEELS = ["left-drive", "left-caster", "right-caster", "right-drive"];
type Take = { kind: "take"; args: Parameters<typeof recordTake>[2] };
type Note = { kind: "note"; args: Parameters<typeof recordNote>[2] };

/** Every fourth is a note, the others are takes of four tyres, told apart by their pressures. */
export function sentAs(n: number, jobId: number): Take | Note {
  if (n % 4 === 3) return { kind: "note", args: { jobId, text: `note ${n}` } };
  const readings = { tyres: Object.fromEntries(WHEELS.map((id, k) => [id, { pressurePascals: 60_000 + n + k * 0.125 }])) };
  return { kind: "take", args: { jobId, checkId: "tyre-pressure", readings, asTyped: {} } };
}

/**
 * Starts a writer at the n-th submission, kills it hard so long after its first answer, and says the last one it was answered. What it sent
 * after that may or may not stand.
 */
export function writeAndKill(args: {
  command: readonly string[];
  file: string;
  jobId: number;
  from: number;
  milliseconds: number;
}): Promise<number> {
  const [program = "", ...words] = args.command;
  return new Promise((resolve, reject) => {
    const child = spawn(program, [...words, args.file, String(args.jobId), String(args.from)], { stdio: ["ignore", "pipe", "inherit"] });
    let said = "";
    child.stdout.on("data", (data) => {
      said += data;
    });
    child.stdout.once("data", () => setTimeout(() => child.kill("SIGKILL"), args.milliseconds));
    child.once("error", reject);
    child.once("close", (_, signal) => {
      const answered = said.split("\n").slice(0, -1);
      if (signal === "SIGKILL") resolve(Number(answered.at(-1)));
      else reject(new Error("the writer ended by itself"));
    });
  });
}

/** What is wrong with the record after a kill and the submission sent again: nothing, or what is torn, lost or doubled. */
export function faultsAfter(db: Db, args: { jobId: number; last: number }): string[] {
  const { jobId, last } = args;
  const again = last + 1;
  const sent = sentAs(again, jobId);
  for (let turn = 0; turn < 2; turn++) {
    if (sent.kind === "take") recordTake(db, submissionFor(again), sent.args);
    else recordNote(db, submissionFor(again), sent.args);
  }
  const n = (sql: string) => (db.prepare(sql).get() as { n: number }).n;
  const takes = n("SELECT count(*) AS n FROM takes");
  const notes = n("SELECT count(*) AS n FROM steps WHERE kind = 'note'");
  const wantedNotes = Math.floor((again + 1) / 4);
  const of = (name: string, is: number, wanted: number) => (is === wanted ? [] : [`${name}: ${is}, not ${wanted}`]);
  return [
    ...of("takes", takes, again + 1 - wantedNotes),
    ...of("notes", notes, wantedNotes),
    ...of("submissions", n("SELECT count(*) AS n FROM submissions"), again + 1),
    ...of(
      "takes without their four readings",
      n("SELECT count(*) AS n FROM takes t WHERE (SELECT count(*) FROM readings r WHERE r.step_id = t.step_id) <> 4"),
      0,
    ),
    ...of(
      "steps of takes without their take",
      n("SELECT count(*) AS n FROM steps s WHERE s.kind = 'take' AND NOT EXISTS (SELECT 1 FROM takes t WHERE t.step_id = s.id)"),
      0,
    ),
    ...of(
      "steps without their line on the audit trail",
      n(
        "SELECT count(*) AS n FROM steps s WHERE NOT EXISTS (SELECT 1 FROM audit a WHERE a.subject = 'job:' || s.job_id AND json_extract(a.detail_json, '$.stepId') = s.id)",
      ),
      0,
    ),
    ...of("references without their row", (db.pragma("foreign_key_check") as unknown[]).length, 0),
  ];
}
