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

export type ShapeProblem = { code: "too-deep" | "name-not-allowed" | "letter-not-allowed"; path: string[] };

/** Letters nobody types: a database takes the first of them for the end of the text. Line ends and tabs are none. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: those are what is looked for
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/;

/** Why a value out of JSON is no body at all: nested beyond all reason, or with a name or letter in it that no text of this trade has. */
export function shapeProblem(value: unknown): ShapeProblem | undefined {
  const open: { value: unknown; path: string[] }[] = [{ value, path: [] }];
  for (let one = open.pop(); one !== undefined; one = open.pop()) {
    if (typeof one.value === "string" && CONTROL.test(one.value)) return { code: "letter-not-allowed", path: one.path };
    if (typeof one.value !== "object" || one.value === null) continue;
    if (one.path.length >= MOST_DEEP) return { code: "too-deep", path: one.path };
    for (const [key, inner] of Object.entries(one.value)) {
      if (key === "__proto__" || CONTROL.test(key)) return { code: "name-not-allowed", path: [...one.path, key] };
      open.push({ value: inner, path: [...one.path, key] });
    }
  }
  return undefined;
}
