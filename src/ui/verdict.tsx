import type { Verdict } from "@/core/basics/findings";
import { VERDICT_WORDS } from "./words/quantities";

const INK: Record<Verdict, string> = {
  "in-tolerance": "var(--good)",
  watch: "var(--watch)",
  out: "var(--mark)",
  stop: "var(--mark)",
  "not-enough-readings": "var(--soft)",
};

/** A gauge line with its pointer: between the marks, on a mark, past it, or broken off. Shape, colour and word all say the same. */
export function VerdictMark({ verdict, size = 22, ink }: { verdict: Verdict; size?: number; ink?: string }) {
  const color = ink ?? INK[verdict];
  return (
    <svg viewBox="0 0 28 20" width={(size * 28) / 20} height={size} aria-hidden="true" className="shrink-0">
      <g fill="none" stroke={color} strokeWidth={2.2} strokeLinecap="round">
        {verdict === "not-enough-readings" ? (
          <path d="M2 14h24" strokeDasharray="2 5" />
        ) : verdict === "stop" ? (
          <path d="M2 3l24 14M26 3L2 17" strokeWidth={4} />
        ) : (
          <>
            <path d="M2 15h24M8 10v8M20 10v8" />
            <path d={verdict === "in-tolerance" ? "M14 15V2" : verdict === "watch" ? "M20 15V2" : "M26 15V2"} strokeWidth={3.4} />
          </>
        )}
      </g>
    </svg>
  );
}

/** `words`: in place of the usual ones, where room is scarce. */
export function VerdictLine({ verdict, isProvisional = false, words }: { verdict: Verdict; isProvisional?: boolean; words?: string }) {
  return (
    <span className="inline-flex items-center gap-2 font-semibold" style={{ color: INK[verdict] }}>
      <VerdictMark verdict={verdict} />
      <span>
        {words ?? VERDICT_WORDS[verdict]}
        {isProvisional && <span className="font-medium">, provisional</span>}
      </span>
    </span>
  );
}
