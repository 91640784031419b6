import type { CheckId } from "@/core/catalogue";
import type { Assessment } from "@/core/checks";
import type { SafeState } from "@/core/job/safety";
import type { LogEntry, LogLine } from "./log";

/** A log as it is told: each line after the last, by somebody in some job; the clock runs backwards to show that nothing hangs on it. */
export class Log {
  readonly lines: LogLine[] = [];
  private seq = 0;
  private who = "AK";
  private jobId = 1;

  by(who: string, jobId = this.jobId): this {
    this.who = who;
    this.jobId = jobId;
    return this;
  }

  add(entry: LogEntry): this {
    this.seq += 1;
    const at = new Date(Date.UTC(2026, 4, 1, 12) - this.seq * 60_000).toISOString();
    this.lines.push({ seq: this.seq, at, who: this.who, jobId: this.jobId, ...entry });
    return this;
  }

  confirm(state: SafeState, more: { outcome?: "safe" | "stopped"; parts?: string[]; isTakenBack?: boolean } = {}): this {
    return this.add({ kind: "confirmation", state, outcome: "safe", parts: [], ...more });
  }

  event(
    event: Extract<LogEntry, { kind: "event" }>["event"],
    more: { place?: string; words?: string; where?: string; droveOn?: boolean; isTakenBack?: boolean } = {},
  ): this {
    return this.add({ kind: "event", event, ...more });
  }

  fix(fix: string, cause: string): this {
    return this.add({ kind: "fix", fix, cause });
  }

  take(check: CheckId, assessment: Pick<Assessment, "ruleVersion" | "verdict" | "findings" | "told" | "evidence">): this {
    const { ruleVersion, verdict, findings, told, evidence } = assessment;
    return this.add({ kind: "take", stepId: this.seq + 1, check, ruleVersion, verdict, findings, told, evidence });
  }

  putBack(turned: readonly string[] = ["left", "middle", "right"], more: { touching?: string[]; isBeltSeated?: boolean } = {}): this {
    const { touching = [], isBeltSeated = true } = more;
    return this.add({
      kind: "put-back",
      stepId: this.seq + 1,
      outcome: touching.length > 0 ? "stopped" : "safe",
      turned: turned.filter((id) => !touching.includes(id)),
      touching,
      isBeltSeated,
    });
  }

  cut(seenCutting: readonly string[] = []): this {
    return this.add({ kind: "test-cut", seenCutting }).event("run");
  }

  /** The key of the step that would come next. */
  get next(): number {
    return this.seq + 1;
  }
}
