/** Where a job is; that its machine is held is the machine's own state. */
export type JobState = "waiting" | "in-work" | "awaiting-proof" | "closed";

export type StepKind =
  | "complaint"
  | "guess"
  | "answer"
  | "confirmation"
  | "take"
  | "second-look"
  | "skip"
  | "fix"
  | "deck"
  | "rebuild"
  | "guided"
  | "own-list"
  | "photograph"
  | "put-back"
  | "lift"
  | "handover"
  | "test-cut"
  | "note"
  | "event"
  | "hold"
  | "release"
  | "close"
  | "undo";

export type Step<Data = unknown> = { id: number; kind: StepKind; data: Data; undoesId?: number; who: string; at: string };

/** The steps that still count, in order: an undone step and the undo itself do not. */
export function liveSteps<S extends Pick<Step, "id" | "kind" | "undoesId">>(steps: readonly S[]): S[] {
  const undone = new Set(steps.flatMap(({ undoesId }) => (undoesId === undefined ? [] : [undoesId])));
  return steps.filter(({ id, kind }) => kind !== "undo" && !undone.has(id));
}

/** Steps that are only said: nobody has been at the machine yet. */
const TALK: readonly StepKind[] = ["complaint", "guess", "answer", "skip", "note", "photograph", "hold", "release", "lift"];

/** Where a job stands, from its steps alone. */
export function stateOf(steps: readonly Step[]): JobState {
  const live = liveSteps(steps);
  if (live.some(({ kind }) => kind === "close")) return "closed";
  if (live.some(({ kind }) => kind === "fix")) return "awaiting-proof";
  return live.some(({ kind }) => !TALK.includes(kind)) ? "in-work" : "waiting";
}

/** The step that "undo" would take back: the last that counts, except the complaint the job rests on. */
export function undoable<S extends Pick<Step, "id" | "kind" | "undoesId">>(steps: readonly S[]): S | undefined {
  const last = liveSteps(steps).at(-1);
  return last?.kind === "complaint" ? undefined : last;
}

/** Whether a job was closed and reopened after a step: what is taken back then goes behind what the closing rested on. */
export function isFromBeforeClosing(steps: readonly Pick<Step, "id" | "kind">[], step: Pick<Step, "id">): boolean {
  return steps.some(({ id, kind }) => kind === "close" && id > step.id);
}
