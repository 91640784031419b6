import { CHECKS, type CheckId, type CheckRow } from "@/core/catalogue";
import type { SafeState } from "@/core/job/safety";
import type { Apart, MachineState, Struck } from "./machine-state";
import { isBroken, type Unsafe } from "./unsafe";

/** What clears a reason, for the screen to lead there. */
export type Clearing =
  | { do: "read"; check: CheckId }
  /** A part that broke wants another in its place before any reading. */
  | { do: "replace"; check: CheckId }
  | { do: "put-back" }
  | { do: "make-ready" }
  | { do: "lift"; owner: string }
  | { do: "refit-deck" }
  | { do: "refit-box"; place: string }
  | { do: "finish-work"; round: "blade" | "spindle"; place: string }
  | { do: "release" };

/** Why nothing on this machine may turn. */
export type RunReason = { clears: Clearing } & (
  | { code: "unsafe"; cause: Unsafe }
  | { code: "locked-by"; owner: string; state: SafeState; at: string }
  | { code: "struck-not-looked"; struck: Struck; checks: CheckId[] }
  | { code: "deck-off"; where: Apart["where"] }
  | { code: "box-apart"; place: string }
  | { code: "work-open"; round: "blade" | "spindle"; place: string }
  | { code: "part-on-bench"; parts: string[] }
  | { code: "timing-unseen" }
  | { code: "timing-too-near" }
  | { code: "belt-not-seated" }
  | { code: "blades-not-turned"; places: string[] }
  | { code: "not-put-back" }
  | { code: "not-ready"; state: SafeState | "none" }
);

/** What it is asked for: to be made ready to run, to cut, for one check that wants it running, or to be called proved. */
export type Purpose =
  | { to: "make-ready"; who: string }
  | { to: "cut"; who?: string | undefined }
  | { to: "check"; check: CheckId; who?: string | undefined }
  | { to: "prove" };

export type MayRun = {
  reasons: RunReason[];
  /** Runs it is let off for although something is open, since only a run can look at that: said as such, and for nothing else. */
  onlyFor: CheckId[];
};

const checkRows: readonly CheckRow[] = CHECKS;
const wantsRun = (check: CheckId) => checkRows.find(({ id }) => id === check)?.state === "running";

/**
 * The one gate: every reason why the machine may not run for a purpose, each with what clears it; none where it may. Asked by every job, every
 * screen and the API before anything turns.
 */
export function mayRun(state: MachineState, purpose: Purpose): MayRun {
  const hurts = unsafeReasons(state.unsafe);
  const struck = struckReasons(state.struck);
  const onlyFor = runsNeeded(state);
  const isLetOff = (purpose.to === "check" && onlyFor.includes(purpose.check)) || (purpose.to === "make-ready" && onlyFor.length > 0);
  const open = isLetOff ? [...hurts, ...struck].filter((reason) => !isAboutRun(reason)) : [...hurts, ...struck];
  const body = [...open, ...apartReasons(state), ...disturbedReasons(state)];
  if (purpose.to === "prove") return { reasons: body, onlyFor: [] };
  return { reasons: [...body, ...putBackReasons(state), ...lockReasons(state, purpose)], onlyFor: isLetOff ? onlyFor : [] };
}

function unsafeReasons(unsafe: readonly Unsafe[]): RunReason[] {
  return unsafe.map((cause) => {
    if (cause.kind === "stop") {
      const isToReplace = isBroken(cause) && cause.isReplacedSince !== true;
      return { code: "unsafe", cause, clears: { do: isToReplace ? "replace" : "read", check: cause.check } };
    }
    return { code: "unsafe", cause, clears: cause.kind === "touches" ? { do: "put-back" } : { do: "release" } };
  });
}

function struckReasons(struck: Struck | undefined): RunReason[] {
  if (!struck) return [];
  const [first] = [...struck.checks].sort((a, b) => Number(wantsRun(a)) - Number(wantsRun(b)));
  return first === undefined ? [] : [{ code: "struck-not-looked", struck, checks: struck.checks, clears: { do: "read", check: first } }];
}

/**
 * Checks for whose own run the machine is let off: a reading that stopped it and can only be taken running, once something was changed since;
 * a look after a strike that needs a run, once no other look is open.
 */
function runsNeeded({ unsafe, struck }: MachineState): CheckId[] {
  const others = unsafe.filter(
    (cause) => cause.kind !== "stop" || !wantsRun(cause.check) || cause.on !== undefined || !cause.isChangedSince,
  );
  const looks = struck?.checks ?? [];
  if (others.length > 0 || looks.some((check) => !wantsRun(check))) return [];
  const reads = unsafe.flatMap((cause) => (cause.kind === "stop" ? [cause.check] : []));
  return [...new Set([...reads, ...looks])];
}

/** Of a reason that a run was let off for: it is what the run is to look at. */
function isAboutRun(reason: RunReason): boolean {
  if (reason.code === "struck-not-looked") return reason.checks.every(wantsRun);
  return reason.code === "unsafe" && reason.cause.kind === "stop" && wantsRun(reason.cause.check);
}

function apartReasons({ apart, onBench }: MachineState): RunReason[] {
  const parts = [...new Set(onBench.flatMap((one) => one.parts))];
  return [
    ...apart.map(
      (one): RunReason =>
        one.what === "deck"
          ? { code: "deck-off", where: one.where, clears: { do: "refit-deck" } }
          : one.what === "box"
            ? { code: "box-apart", place: one.place, clears: { do: "refit-box", place: one.place } }
            : { code: "work-open", round: one.what, place: one.place, clears: { do: "finish-work", round: one.what, place: one.place } },
    ),
    ...(parts.length > 0 ? [{ code: "part-on-bench" as const, parts, clears: { do: "put-back" as const } }] : []),
  ];
}

function disturbedReasons({ timing, beltUnseated, unturned }: MachineState): RunReason[] {
  return [
    ...(timing === "unseen" ? [{ code: "timing-unseen" as const, clears: { do: "read" as const, check: "blade-timing" as const } }] : []),
    ...(timing === "too-near"
      ? [{ code: "timing-too-near" as const, clears: { do: "read" as const, check: "blade-timing" as const } }]
      : []),
    ...(beltUnseated ? [{ code: "belt-not-seated" as const, clears: { do: "put-back" as const } }] : []),
    ...(unturned.length > 0 ? [{ code: "blades-not-turned" as const, places: unturned, clears: { do: "put-back" as const } }] : []),
  ];
}

function putBackReasons({ toPutBack }: MachineState): RunReason[] {
  return toPutBack ? [{ code: "not-put-back", clears: { do: "put-back" } }] : [];
}

/**
 * Whoever makes it ready takes his own lock-out off with it; another's stays until that one, or a reason, lifts it. On a machine that stands ready by somebody
 * else's word one's own counts too: it came back with a lift that was taken back.
 */
function lockReasons({ locks, stands }: MachineState, purpose: Purpose): RunReason[] {
  const mine = "who" in purpose ? purpose.who : undefined;
  const isMadeReady = purpose.to !== "make-ready" && stands?.state === "running";
  const others = locks
    .filter(({ who }) => who !== mine || isMadeReady)
    .map(({ who, state, at }): RunReason => ({ code: "locked-by", owner: who, state, at, clears: { do: "lift", owner: who } }));
  if (purpose.to === "make-ready" || stands?.state === "running") return others;
  return [...others, { code: "not-ready", state: stands?.state ?? "none", clears: { do: "make-ready" } }];
}
