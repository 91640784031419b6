import { type DeckReadings, deckReadingsSchema } from "@/core/checks";
import type { ContextId } from "@/core/diagnosis";
import { type StaleReason, staleReasons, tickedContexts } from "@/core/events";
import { type DeckContext, type JobState, liveSteps, type Proof, undoable } from "@/core/jobs";
import { type Complaint, complaintsOfJob } from "./complaints";
import type { Db } from "./connection";
import { type EventRecord, listEvents } from "./events";
import { proofOfJob } from "./job-actions";
import { getMachine, type MachineRecord } from "./machines";
import { safeStateOf } from "./safe-state";
import { type AnyStep, getJobRow, listSteps } from "./steps";
import { levelContext, type Take, takesOfJob } from "./takes";

export type JobView = {
  id: number;
  state: JobState;
  openedAt: string;
  closedAt?: string;
  machine: MachineRecord;
  complaints: Complaint[];
  steps: (AnyStep & { isUndone: boolean })[];
  takes: (Take & { stale: StaleReason[] })[];
  safe: ReturnType<typeof safeStateOf>;
  deckContext: DeckContext;
  proof: Proof;
  undoableStepId?: number;
  /** Contexts the log ticks in advance, with the event that says so. */
  ticked: { context: ContextId; because: { event: string; at: string } }[];
  /** The floor as it was mapped the last time this machine was levelled on a mapped one. */
  lastFloor?: NonNullable<DeckReadings["floor"]>;
  /** Closed jobs of this machine with the same look in the last 60 days before this one. */
  cameBack: { jobId: number; closedAt: string }[];
};

const CAME_BACK_DAYS = 60;

/** Everything the job screen shows, read in one go. Throws `job-not-found`. */
export function getJobView(db: Db, jobId: number): JobView {
  const job = getJobRow(db, jobId);
  const machine = getMachine(db, job.machineId);
  const steps = listSteps(db, jobId);
  const live = new Set(liveSteps(steps).map(({ id }) => id));
  const complaints = complaintsOfJob(db, jobId);
  const events = listEvents(db, job.machineId);
  const last = undoable(steps);
  const lastFloor = lastFloorOf(db, job.machineId);
  return {
    id: job.id,
    state: job.state,
    openedAt: job.openedAt,
    ...(job.closedAt ? { closedAt: job.closedAt } : {}),
    machine,
    complaints,
    steps: steps.map((step) => ({ ...step, isUndone: step.kind !== "undo" && !live.has(step.id) })),
    takes: takesOfJob(db, jobId).map((take) => ({
      ...take,
      stale: staleReasons({ machine: machine.machine, check: take.checkId, takenAt: take.at, events }),
    })),
    safe: safeStateOf(db, jobId),
    deckContext: levelContext(db, jobId),
    proof: proofOfJob(db, jobId),
    ...(last ? { undoableStepId: last.id } : {}),
    ...(lastFloor ? { lastFloor } : {}),
    ticked: tickedSinceProof(db, { machineId: job.machineId, events, openedAt: job.openedAt }),
    cameBack: cameBack(db, { job, complaints }),
  };
}

function lastFloorOf(db: Db, machineId: string): JobView["lastFloor"] {
  const row = db
    .prepare(
      `SELECT input_json FROM takes WHERE machine_id = ? AND check_id = 'deck-level' AND json_type(input_json, '$.floor') = 'object'
       ORDER BY at DESC LIMIT 1`,
    )
    .get(machineId) as { input_json: string } | undefined;
  return row && deckReadingsSchema.parse(JSON.parse(row.input_json)).floor;
}

/** What the machine's log says changed since its last proved cut. */
export function tickedSinceProof(db: Db, args: { machineId: string; events: readonly EventRecord[]; openedAt: string }): JobView["ticked"] {
  const proved = db
    .prepare(
      `SELECT max(j.closed_at) AS at FROM jobs j JOIN steps s ON s.job_id = j.id AND s.kind = 'close'
       WHERE j.machine_id = ? AND j.state = 'closed' AND json_extract(s.data_json, '$.isProved') = 1 AND j.closed_at < ?`,
    )
    .get(args.machineId, args.openedAt) as { at: string | null };
  const since = args.events.filter(({ at }) => at > (proved.at ?? ""));
  return tickedContexts(since).map(({ context, because }) => ({
    context: context as ContextId,
    because: { event: because.event, at: because.at },
  }));
}

function cameBack(
  db: Db,
  args: { job: { id: number; machineId: string; openedAt: string }; complaints: readonly Complaint[] },
): JobView["cameBack"] {
  const symptoms = new Set<string>(args.complaints.flatMap(({ looks }) => looks.symptoms));
  const since = new Date(Date.parse(args.job.openedAt) - CAME_BACK_DAYS * 86_400_000).toISOString();
  const earlier = db
    .prepare(
      "SELECT id, closed_at FROM jobs WHERE machine_id = ? AND state = 'closed' AND closed_at BETWEEN ? AND ? AND id <> ? ORDER BY closed_at DESC",
    )
    .all(args.job.machineId, since, args.job.openedAt, args.job.id) as { id: number; closed_at: string }[];
  return earlier
    .filter(({ id }) => complaintsOfJob(db, id).some(({ looks }) => looks.symptoms.some((symptom) => symptoms.has(symptom))))
    .map(({ id, closed_at }) => ({ jobId: id, closedAt: closed_at }));
}
