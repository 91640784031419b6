import type { Import } from "./imports";

export type Room = { id: string; holds: string };

/** The rooms of `src/core`, each using only those before it. */
export const CORE_ROOMS: readonly Room[] = [
  { id: "basics", holds: "units, geometry, random numbers, findings, instruments, validation" },
  { id: "catalogue", holds: "the trade's tables: causes, checks, symptoms, contexts, fixes, kinds of machine" },
  { id: "machine", holds: "what a machine is built to: its specification and its geometry" },
  { id: "physics", holds: "blades, deck, drive, reel, turf, tyres" },
  { id: "diagnosis", holds: "what it might be and what to look at next" },
  { id: "checks", holds: "one folder a check: what it asks, reckons and concludes" },
  { id: "job", holds: "jobs, sequences, safe states, status and the gate, tools, bench set-up" },
  { id: "fleet", holds: "service, life of parts, stock and sets" },
  { id: "simulator", holds: "a machine as it truly is, and what its gauges read" },
];

/** The rooms of `src/data`, each using only those before it; `open.ts` stands above all of them. */
export const DATA_ROOMS: readonly Room[] = [
  { id: "store", holds: "connection, migrations, the log's one sequence, audit line, submissions, pictures" },
  { id: "record", holds: "the log: steps, readings, events and versions of specifications, written and read" },
  { id: "projections", holds: "what is folded from the log, and the one way to run a command that settles it" },
  { id: "catalogue", holds: "people, procedures" },
  { id: "machine", holds: "machines, hours, photographs, practices, places of sites" },
  { id: "service", holds: "events, service and its rules, what is due and owed, stock, sets, spindles, knives" },
  { id: "checks", holds: "readings taken in a job, and what a check knows of the machine beforehand" },
  { id: "job", holds: "complaints, jobs and every action in them" },
  { id: "fleet", holds: "what is read across machines: bay, book, comebacks, same-model machines, rounds" },
];

/** The layers of `src`, and what each may use. */
export const LAYERS: Readonly<Record<string, readonly string[]>> = {
  core: [],
  drawings: ["core"],
  workers: ["core"],
  data: ["core"],
  ui: ["core", "drawings", "workers"],
  stories: ["core", "data"],
  demo: ["core", "data", "stories", "ui"],
  server: ["core", "data", "workers", "ui"],
  app: ["core", "data", "server", "ui", "drawings", "workers"],
};

export const layerOf = (file: string): string | undefined => /^src\/([a-z]+)\//.exec(file)?.[1];
export const roomOf = (file: string, layer: string): string | undefined => new RegExp(`^src/${layer}/([a-z]+)/`).exec(file)?.[1];

/** Imports that run against the order of these rooms. */
export function againstOrder(imports: readonly Import[], layer: string, rooms: readonly Room[]): Import[] {
  const place = new Map(rooms.map(({ id }, index) => [id, index]));
  return imports.filter(({ from, to }) => {
    const [user, used] = [place.get(roomOf(from, layer) ?? ""), place.get(roomOf(to, layer) ?? "")];
    return user !== undefined && used !== undefined && used > user;
  });
}

/** Which rooms use which, as seen in the imports. */
export function usesOf(imports: readonly Import[], group: (file: string) => string | undefined): Map<string, Set<string>> {
  const uses = new Map<string, Set<string>>();
  for (const { from, to } of imports) {
    const [user, used] = [group(from), group(to)];
    if (user === undefined || used === undefined || user === used) continue;
    uses.set(user, (uses.get(user) ?? new Set()).add(used));
  }
  return uses;
}
