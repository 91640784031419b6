import type { Import } from "./imports";
import { CORE_ROOMS, DATA_ROOMS, LAYERS, layerOf, type Room, roomOf, usesOf } from "./rooms";

type Uses = ReadonlyMap<string, ReadonlySet<string>>;

export const BEGIN = "<!-- made by `npm run architecture` -->";
export const END = "<!-- end of what is made -->";

/** The arrows that no longer way round says already: what a room uses and nothing that it uses does. */
function shortest(uses: Uses): [string, string][] {
  const reaches = (from: string, to: string, seen = new Set<string>()): boolean =>
    [...(uses.get(from) ?? [])].some((next) => {
      if (next === to) return true;
      if (seen.has(next)) return false;
      seen.add(next);
      return reaches(next, to, seen);
    });
  return [...uses].flatMap(([user, used]) =>
    [...used]
      .filter((one) => ![...used].some((other) => other !== one && reaches(other, one)))
      .sort()
      .map((one): [string, string] => [user, one]),
  );
}

const arrows = (uses: Uses, prefix: string): string[] =>
  shortest(uses)
    .map(([user, used]) => `    ${prefix}${user} --> ${prefix}${used}`)
    .sort();

function ladder(imports: readonly Import[], layer: string, rooms: readonly Room[]): string[] {
  const uses = usesOf(imports, (file) => roomOf(file, layer));
  return [
    `  subgraph ${layer}`,
    ...rooms.map(({ id }) => `    ${layer}.${id}["${id}"]`),
    ...arrows(new Map([...uses].filter(([id]) => rooms.some((room) => room.id === id))), `${layer}.`),
    "  end",
  ];
}

function table(imports: readonly Import[], layer: string, rooms: readonly Room[]): string[] {
  const uses = usesOf(imports, (file) => roomOf(file, layer));
  return [
    `| \`src/${layer}\` | holds | uses |`,
    "| --- | --- | --- |",
    ...rooms.map(({ id, holds }) => `| \`${id}\` | ${holds} | ${usedBy(uses, id, rooms)} |`),
  ];
}

const usedBy = (uses: Uses, id: string, rooms: readonly Room[]): string =>
  rooms.flatMap((room) => (uses.get(id)?.has(room.id) ? [room.id] : [])).join(", ") || "nothing";

/** The drawing of docs/architecture.md (Mermaid) and its two tables, by what imports what. */
export function drawing(imports: readonly Import[]): string {
  const layers = usesOf(imports, (file) => (layerOf(file) && LAYERS[layerOf(file) as string] ? layerOf(file) : undefined));
  return [
    "```mermaid",
    "flowchart TD",
    ...Object.keys(LAYERS)
      .filter((id) => id !== "core" && id !== "data")
      .map((id) => `  ${id}["${id}"]`),
    ...ladder(imports, "core", CORE_ROOMS),
    ...ladder(imports, "data", DATA_ROOMS),
    ...arrows(layers, "").map((line) => line.slice(2)),
    "```",
    "",
    ...table(imports, "core", CORE_ROOMS),
    "",
    ...table(imports, "data", DATA_ROOMS),
  ].join("\n");
}

/** What stands between the marks of a page. */
export function madePart(page: string): string {
  return page.slice(page.indexOf(BEGIN) + BEGIN.length, page.indexOf(END)).trim();
}

export function withMade(page: string, made: string): string {
  return `${page.slice(0, page.indexOf(BEGIN) + BEGIN.length)}\n\n${made}\n\n${page.slice(page.indexOf(END))}`;
}
