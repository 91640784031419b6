import { isCredibleNumber } from "@/core/basics/units/physical";

export type UnknownKey = { code: "unrecognized-keys"; path: string[]; message: string };

const isPlain = (value: unknown): value is Record<string, unknown> => typeof value === "object" && value !== null && !Array.isArray(value);

/**
 * Every key that was given and that what was understood of it knows nothing of: a schema lets such a key fall, and whoever misspelt it would
 * never hear of it. Where a border brings an older shape up to today's, the two are of different kinds and nothing is said.
 */
export function unknownKeys(given: unknown, understood: unknown, path: readonly string[] = []): UnknownKey[] {
  if (Array.isArray(given) && Array.isArray(understood) && given.length === understood.length)
    return given.flatMap((one, index) => unknownKeys(one, understood[index], [...path, String(index)]));
  if (!isPlain(given) || !isPlain(understood)) return [];
  return Object.keys(given).flatMap((key) =>
    Object.hasOwn(understood, key)
      ? unknownKeys(given[key], understood[key], [...path, key])
      : given[key] === undefined
        ? []
        : [{ code: "unrecognized-keys" as const, path: [...path, key], message: "unrecognized key" }],
  );
}

/** No honest body nests deeper: the fullest sheet is 7 deep. */
export const MOST_DEEP = 24;

export type ShapeProblem = { code: "too-deep" | "name-not-allowed" | "letter-not-allowed" | "number-not-credible"; path: string[] };

/** Letters nobody types: a database takes the first of them for the end of the text, others turn what follows about or begin a line unseen. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: those are what is looked for
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f\u2028\u2029\u202a-\u202e\u2066-\u2069]/;
/** What has lines: everything else is one line, and a line end in it would be another line of a file it is written to. */
const LINED: readonly string[] = ["words", "backWords", "text", "note", "notes", "body", "reason", "unprovedReason", "owes"];
/** A column of readings as it was typed, a line each. */
const AS_TYPED = "asTyped";
const LINE_END = /[\r\n\t]/;

/** The nearest name over a value: of a list that of the list. */
const nameOver = (path: readonly string[]): string | undefined => path.findLast((part) => !/^\d+$/.test(part));

const isBadText = (text: string, path: readonly string[]): boolean =>
  CONTROL.test(text) || (LINE_END.test(text) && !path.includes(AS_TYPED) && !LINED.includes(nameOver(path) ?? ""));

/** Why a value out of JSON is no body at all: nested beyond all reason, with a name or letter in it that no text of this trade has, or a number nobody measures. */
export function shapeProblem(value: unknown): ShapeProblem | undefined {
  const open: { value: unknown; path: string[] }[] = [{ value, path: [] }];
  for (let one = open.pop(); one !== undefined; one = open.pop()) {
    if (typeof one.value === "string" && isBadText(one.value, one.path)) return { code: "letter-not-allowed", path: one.path };
    if (typeof one.value === "number" && !isCredibleNumber(one.value)) return { code: "number-not-credible", path: one.path };
    if (typeof one.value !== "object" || one.value === null) continue;
    if (one.path.length >= MOST_DEEP) return { code: "too-deep", path: one.path };
    for (const [key, inner] of Object.entries(one.value)) {
      if (key === "__proto__" || CONTROL.test(key)) return { code: "name-not-allowed", path: [...one.path, key] };
      open.push({ value: inner, path: [...one.path, key] });
    }
  }
  return undefined;
}
