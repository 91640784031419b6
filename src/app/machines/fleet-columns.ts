import { table } from "@/core/basics/tables";
import type { FleetRow, FleetState } from "@/data/fleet/fleet";

export const STATE_WORDS: Record<FleetState, string> = {
  held: "Held out",
  struck: "Struck, to be looked at",
  "in-work": "On the stands",
  "awaiting-proof": "Awaits proof",
  waiting: "Waits",
  ready: "Ready",
  retired: "Retired",
};
export const STATE_ORDER: readonly FleetState[] = ["held", "struck", "in-work", "awaiting-proof", "waiting", "ready", "retired"];

/** What the address of the table says: found words, one state or what is open on it, the column it is sorted by. */
export type FleetView = { q: string; show: string; by: string; down: boolean };

export const SHOWS = [
  ["all", "All"],
  ["held", "Held"],
  ["open", "Open"],
  ["due", "Due"],
  ["owed", "Owed"],
  ["odd", "Not as built"],
  ["retired", "Retired"],
] as const;

export const viewFrom = (params: URLSearchParams): FleetView => ({
  q: params.get("q") ?? "",
  show: params.get("show") ?? "all",
  by: params.get("by") ?? "number",
  down: params.get("down") === "1",
});

/** Only what is not as it begins stands in the address. */
export function addressOf({ q, show, by, down }: FleetView): string {
  const params = new URLSearchParams();
  if (q) params.set("q", q);
  if (show !== "all") params.set("show", show);
  if (by !== "number") params.set("by", by);
  if (down) params.set("down", "1");
  const text = params.toString();
  return text ? `?${text}` : "";
}

const MATCHES: Record<string, (row: FleetRow) => boolean> = table({
  all: ({ state }) => state !== "retired",
  held: ({ state }) => state === "held" || state === "struck",
  open: ({ openJobs }) => openJobs.length > 0,
  due: ({ due, state }) => due > 0 && state !== "retired",
  owed: ({ owed }) => owed > 0,
  odd: ({ notAsBuilt, state }) => notAsBuilt > 0 && state !== "retired",
  retired: ({ state }) => state === "retired",
});

const NUMBERS = new Intl.Collator("en", { numeric: true });

type Key = (row: FleetRow) => string | number;
export const SORTS: Record<string, Key> = table({
  number: ({ fleetNumber }) => fleetNumber,
  kind: ({ kindLabel }) => kindLabel,
  site: ({ site }) => site,
  hours: ({ hours }) => hours ?? -1,
  state: ({ state }) => STATE_ORDER.indexOf(state),
  jobs: ({ openJobs }) => openJobs.length,
  due: ({ due }) => due,
  owed: ({ owed }) => owed,
  odd: ({ notAsBuilt }) => notAsBuilt,
});

/** The rows a view shows, in its order; of two alike the fleet number decides, so that the order is the same each time. */
export function shownRows(rows: readonly FleetRow[], view: FleetView): FleetRow[] {
  const words = view.q.toLowerCase().split(/\s+/).filter(Boolean);
  const matches = MATCHES[view.show] ?? (() => true);
  const key = SORTS[view.by] ?? SORTS.number;
  const found = rows.filter((row) => {
    if (!matches(row)) return false;
    const text = `${row.fleetNumber} ${row.name} ${row.site} ${row.kindLabel} ${STATE_WORDS[row.state]}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
  const compare = (a: FleetRow, b: FleetRow): number => {
    const [x, y] = [key?.(a) ?? "", key?.(b) ?? ""];
    const by = typeof x === "number" && typeof y === "number" ? x - y : NUMBERS.compare(String(x), String(y));
    return by === 0 ? NUMBERS.compare(a.fleetNumber, b.fleetNumber) : view.down ? -by : by;
  };
  return found.sort(compare);
}
