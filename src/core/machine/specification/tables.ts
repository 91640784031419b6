import type { Machine, UnitSheet } from "@/core/machine";
import type { TableId } from "./spec";

/** A row as its columns read it; `id` and `partIds` are carried along unseen, so that what is known by an id stays known by it. */
export type Row = Readonly<Record<string, unknown>>;
type DeckOff = NonNullable<Machine["sheet"]["deckOff"]>;
type Brackets = NonNullable<UnitSheet["brackets"]>;

/** A name as an id: `Link pins, rear` is `link-pins-rear`. */
const idOf = (words: string, taken: ReadonlySet<string>, otherwise: string): string => {
  const plain = words
    .toLowerCase()
    .normalize("NFKD")
    .replace(/[^a-z0-9]+/g, "-")
    .slice(0, 50)
    .replace(/^-+|-+$/g, "");
  const start = plain === "" ? otherwise : plain;
  // Of so many names and one more, one is free.
  const others = Array.from({ length: taken.size + 1 }, (_, k) => `${start}-${k + 2}`);
  return [start, ...others].find((id) => !taken.has(id)) ?? start;
};

/** Names with a comma in them want another sign between them, also where there is only one. */
function writeParts(parts: DeckOff["steps"][number]["parts"]): string {
  const told = parts.map(({ count, label }) => `${count} ${label}`);
  return parts.some(({ label }) => label.includes(",")) ? `${told.join("; ")};` : told.join(", ");
}

/**
 * `2 link pins, 4 × washers, belt`: how many of each; without a number one. A size is part of a name: `12 mm spacer`. Where a semicolon stands, a comma is
 * between parts only before a number: `2 Pins, rear; 1 belt`.
 */
export function readParts(text: string): { label: string; count: number }[] {
  return text
    .split(text.includes(";") ? /[;\n]|,(?=\s*\d)/ : /[,\n]/)
    .map((piece) => piece.trim())
    .filter((piece) => piece !== "")
    .map((piece) => {
      const told = /^(\d+)(?:\s*[x×]\s*|\s+)(?!(?:mm|cm|in|inch)\b)(.+)$/i.exec(piece);
      return told ? { label: told[2] as string, count: Number(told[1]) } : { label: piece, count: 1 };
    });
}

const said = (value: unknown): string => (typeof value === "string" ? value : "");

function deckOffRows({ steps, backFirst }: DeckOff): Row[] {
  return steps.map(({ id, words, backWords, parts }) => ({
    id,
    words,
    backWords,
    parts: writeParts(parts),
    partIds: JSON.stringify(Object.fromEntries(parts.map((part) => [part.label, part.id]))),
    isBackFirst: backFirst.includes(id),
  }));
}

function knownParts(row: Row): Readonly<Record<string, string>> {
  try {
    const known: unknown = JSON.parse(said(row.partIds));
    return typeof known === "object" && known !== null
      ? Object.fromEntries(Object.entries(known).filter(([, id]) => typeof id === "string"))
      : {};
  } catch {
    return {};
  }
}

function deckOffOf(rows: readonly Row[]): DeckOff {
  const takenSteps = new Set<string>(rows.map(({ id }) => said(id)).filter((id) => id !== ""));
  const takenParts = new Set<string>();
  const steps = rows.map((row) => {
    const id = said(row.id) || idOf(said(row.words), takenSteps, "step");
    takenSteps.add(id);
    const known = knownParts(row);
    const parts = readParts(said(row.parts)).map(({ label, count }) => {
      const own = Object.hasOwn(known, label) ? (known[label] as string) : "";
      const partId = own !== "" && !takenParts.has(own) ? own : idOf(label, takenParts, "part");
      takenParts.add(partId);
      return { id: partId, label, count };
    });
    const backWords = said(row.backWords);
    return { id, words: said(row.words), ...(backWords === "" ? {} : { backWords }), parts };
  });
  const first = steps.filter((_, k) => rows[k]?.isBackFirst === true).map(({ id }) => id);
  // In the order they go back: the last that came off first.
  return { steps, backFirst: first.reverse() };
}

/** What a part of a tray may be, as the sheet has it. */
const MOST_OF_ONE = 40;
const MOST_LETTERS = 60;

function deckOffTroubles(row: Row): Readonly<Record<string, RowTrouble>> {
  const parts = readParts(said(row.parts));
  if (parts.some(({ label }) => label.length > MOST_LETTERS)) return { parts: "too-long" };
  return parts.some(({ count }) => count < 1 || count > MOST_OF_ONE) ? { parts: "above" } : {};
}

export type RowTrouble = "too-long" | "above";
type Codec = {
  toRows: (value: unknown) => Row[];
  fromRows: (rows: readonly Row[]) => unknown;
  /** What is wrong with a row whose columns can each be read. */
  troubles?: (row: Row) => Readonly<Record<string, RowTrouble>>;
};

/** What stands on the sheet as rows, and back: turned into each other they are the same. */
export const TABLE_ROWS: Readonly<Record<TableId, Codec>> = {
  "deck-off": { toRows: (value) => deckOffRows(value as DeckOff), fromRows: deckOffOf, troubles: deckOffTroubles },
  pivots: {
    toRows: (value) => (value as Machine["pivotedAxles"]).map((row) => ({ ...row })),
    fromRows: (rows) => rows.map((row) => ({ ...row })),
  },
  brackets: {
    toRows: (value) => (value as Brackets).map((row) => ({ ...row })),
    fromRows: (rows) => rows.map((row) => ({ ...row, withGroomer: row.withGroomer === true })),
  },
};
/** What a row carries that no column shows. */
export const UNSEEN = ["id", "partIds"] as const;
