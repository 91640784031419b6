import { type CheckId, EVENTS, type EventId, type EventRow } from "@/core/catalogue";
import { frameOn, targetPressure } from "@/core/checks";
import { DIRECTIONS, type Machine, tipAt } from "@/core/machine";
import { predictTipChange } from "@/core/physics/tyres";

/**
 * Something that happened to a machine. `seq` is its place in the machine's log and alone says what came before what; `at` (ISO 8601 UTC) is
 * only shown, since a clock can be set back. `pressures` with an event about tyres: what each was and became.
 */
export type LoggedEvent = {
  event: EventId;
  seq: number;
  at: string;
  who: string;
  place?: string;
  pressures?: readonly { wheelId: string; fromPascals: number; toPascals: number }[];
};

export type Movement = { spindleId: string; direction: string; change: number; least: number; most: number };

export type StaleReason = { event: EventId; at: string; who: string; place?: string; movement?: Movement };

/** A tyre change moves a level only if a tip is reckoned to move further than this (estimate). */
export const NOTICED_MOVEMENT_METRES = 0.0005;

const rows: readonly EventRow[] = EVENTS;

/** Why a reading of `check` that stands at `takenSeq` of the log no longer holds; empty when it does. Oldest reason first. */
export function staleReasons(args: { machine: Machine; check: CheckId; takenSeq: number; events: readonly LoggedEvent[] }): StaleReason[] {
  return args.events
    .filter(({ event, seq }) => seq > args.takenSeq && rows.find(({ id }) => id === event)?.makesStale.includes(args.check))
    .sort((a, b) => a.seq - b.seq)
    .flatMap((logged) => reasonFor({ ...args, logged }));
}

/** The same of one place of what was read: what happened at another leaves it standing. */
export const staleReasonsAt = (args: Parameters<typeof staleReasons>[0] & { place: string }): StaleReason[] =>
  staleReasons(args).filter(({ place }) => place === undefined || place === args.place);

function reasonFor(args: { machine: Machine; check: CheckId; logged: LoggedEvent }): StaleReason[] {
  const { event, at, who, place, pressures } = args.logged;
  const reason: StaleReason = { event, at, who, ...(place ? { place } : {}) };
  const isTyre = event === "tyre-pressure-changed" || event === "tyre-changed";
  if (!isTyre || args.check === "tyre-pressure") return [reason];
  if (args.machine.deck && args.machine.deck.mount !== "frame-hung") return [];
  const movement = pressures ? largestMovement(args.machine, pressures) : undefined;
  if (!movement) return [reason];
  return Math.abs(movement.change) > NOTICED_MOVEMENT_METRES ? [{ ...reason, movement }] : [];
}

/** The blade tip that a change of pressures moves most, as an estimate with its range; `undefined` where it cannot be reckoned. */
export function largestMovement(machine: Machine, pressures: NonNullable<LoggedEvent["pressures"]>): Movement | undefined {
  if (!machine.frame || !machine.deck) return undefined;
  const tips = machine.spindles.flatMap((spindle) =>
    DIRECTIONS.map((direction) => ({ spindleId: spindle.id, direction, ...tipAt(spindle, direction) })),
  );
  const pressureWith = (which: "fromPascals" | "toPascals") => (wheel: Machine["wheels"][number]) =>
    pressures.find(({ wheelId }) => wheelId === wheel.id)?.[which] ?? targetPressure(machine, wheel) ?? 0;
  const moved = predictTipChange({
    now: frameOn(machine, pressureWith("toPascals")),
    reference: frameOn(machine, pressureWith("fromPascals")),
    tips,
  });
  const widest = moved?.map((change, k) => ({ ...change, tip: tips[k] })).sort((a, b) => Math.abs(b.change) - Math.abs(a.change))[0];
  if (!widest?.tip) return undefined;
  const { spindleId, direction } = widest.tip;
  return { spindleId, direction, change: widest.change, least: widest.least, most: widest.most };
}

/** Contexts ticked in advance: what these events say changed lately, each once, with the event that says so. */
export function tickedContexts(events: readonly LoggedEvent[]) {
  const ticked = new Map<string, LoggedEvent>();
  for (const logged of [...events].sort((a, b) => a.seq - b.seq)) {
    for (const context of rows.find(({ id }) => id === logged.event)?.ticks ?? []) ticked.set(context, logged);
  }
  return [...ticked].map(([context, because]) => ({ context, because }));
}
