/** What happened to one physical set, in the order it was written down. `machineHours`: all of the machine's meters together, as they stood then. */
export type SetEntry = { id: number; seq: number; at: string; who: string } & (
  | { kind: "fitted"; machineId: string; machineHours?: number; place?: string; work: string }
  | { kind: "came-off"; machineId: string; machineHours?: number; why: string }
  | { kind: "sharpened"; machineHours?: number }
  | { kind: "looked"; machineHours?: number; isDull: boolean }
  | { kind: "finished"; why: "worn" | "damaged" | "lost" }
  | { kind: "put"; where: string }
);

type On = Extract<SetEntry, { kind: "fitted" }>;

/** When a machine got sharp edges by this set, of all its blades: put on it sharp, or sharpened on it. A set that ran since it was sharpened is not put on sharp. */
export function sharpOn(log: readonly SetEntry[], machineId: string): SetEntry[] {
  let [isSharp, on] = [true, undefined as On | undefined];
  return log.filter((entry) => {
    if (entry.kind === "came-off" || entry.kind === "finished") on = undefined;
    if (entry.kind !== "fitted" && entry.kind !== "sharpened") return false;
    const wasSharp = isSharp || entry.kind === "sharpened";
    if (entry.kind === "fitted") on = entry;
    isSharp = wasSharp && on === undefined;
    return wasSharp && on?.machineId === machineId && on.place === undefined;
  });
}

export type SetStanding = {
  /** Where it is on a machine now. */
  on?: { machineId: string; place?: string; work: string; since: string };
  /** Where it lies, if somebody said so after it came off. */
  lies?: string;
  finished?: { why: "worn" | "damaged" | "lost"; at: string };
  hours: number;
  hoursByWork: Record<string, number>;
  /** Since it was last sharpened, or new. */
  edgeHours: number;
  sharpenings: number;
  /** What edges were when somebody looked, with the hours they had. */
  looks: { hours: number; isDull: boolean }[];
  /** A stretch on a machine whose meter was not read: its hours are not in the sum. */
  hasUnreadStretch: boolean;
};

/**
 * Where a set is and what it has run, from its log: hours from the machine's meter between going on and coming off, to `hoursNow` where it still is on;
 * by the kind of work it was fitted for.
 */
export function setStanding(log: readonly SetEntry[], hoursNow: (machineId: string) => number | undefined): SetStanding {
  const standing: SetStanding = { hours: 0, hoursByWork: {}, edgeHours: 0, sharpenings: 0, looks: [], hasUnreadStretch: false };
  let on: On | undefined;
  /** Counted up to here: a sharpening or a look on the machine ends one stretch and begins the next. */
  let from: number | undefined;
  const count = (until: number | undefined) => {
    if (!on) return;
    if (from === undefined || until === undefined) {
      standing.hasUnreadStretch = true;
      return;
    }
    const ran = Math.max(0, until - from);
    standing.hours += ran;
    standing.edgeHours += ran;
    standing.hoursByWork[on.work] = (standing.hoursByWork[on.work] ?? 0) + ran;
    from = until;
  };
  for (const entry of log) {
    switch (entry.kind) {
      case "fitted":
        on = entry;
        from = entry.machineHours;
        delete standing.lies;
        break;
      case "came-off":
        count(entry.machineHours);
        on = undefined;
        break;
      case "sharpened":
        count(entry.machineHours);
        standing.edgeHours = 0;
        standing.sharpenings += 1;
        break;
      case "looked":
        count(entry.machineHours);
        standing.looks.push({ hours: standing.edgeHours, isDull: entry.isDull });
        break;
      case "finished":
        on = undefined;
        standing.finished = { why: entry.why, at: entry.at };
        break;
      case "put":
        standing.lies = entry.where;
        break;
    }
  }
  if (on) {
    count(hoursNow(on.machineId));
    const { machineId, place, work, at } = on;
    standing.on = { machineId, work, since: at, ...(place === undefined ? {} : { place }) };
  }
  return standing;
}
