import type { MachineState } from "./machine-state";
import { mayRun, type RunReason } from "./may-run";

/** One reason that keeps a machine from running. `key` stays the same while it stands, by whatever it is told again; `owner` of a lock-out. */
export type HeldReason = { key: string; code: RunReason["code"]; place?: string; owner?: string };

/** Every reason that keeps a machine from running, whoever asks: place by place and check by check, so that one that goes is not hidden by its sisters. */
export function heldReasons(state: MachineState): HeldReason[] {
  return mayRun(state, { to: "cut" }).reasons.flatMap(apiece);
}

/** Reasons that kept a machine from running before, and do not now. */
export function goneBetween(before: MachineState, after: MachineState): HeldReason[] {
  const left = new Set(heldReasons(after).map(({ key }) => key));
  return heldReasons(before).filter(({ key }) => !left.has(key));
}

function apiece(reason: RunReason): HeldReason[] {
  const { code } = reason;
  const at = (places: readonly string[]) => places.map((place): HeldReason => ({ key: `${code}:${place}`, code, place }));
  switch (reason.code) {
    case "unsafe":
      return [{ key: reason.cause.key, code, ...(reason.cause.kind === "by-word" ? {} : { place: reason.cause.place }) }];
    case "locked-by":
      return [{ key: `lock:${reason.owner}`, code, owner: reason.owner }];
    case "struck-not-looked":
      return at(reason.checks);
    case "box-apart":
      return at([reason.place]);
    case "work-open":
      return [{ key: `work-open:${reason.round}:${reason.place}`, code, place: reason.place }];
    case "part-on-bench":
      return at(reason.parts);
    case "blades-not-turned":
      return at(reason.places);
    case "timing-unseen":
    case "timing-too-near":
      // Seen too near it is no longer unseen, and keeps the machine all the same.
      return [{ key: "timing", code }];
    default:
      return [{ key: code, code }];
  }
}
