import type { Target } from "./targets";

/** What is sent instead of a sound body. */
export type Spoilt = {
  how: string;
  text: string;
  path: string;
  /** Nothing of this kind may be taken; what else is changed may turn out to be sound. */
  mustRefuse: boolean;
};

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
type Spot = { path: (string | number)[]; value: Json };

const isPlain = (value: Json): value is { [key: string]: Json } => typeof value === "object" && value !== null && !Array.isArray(value);

function spotsIn(value: Json, path: (string | number)[] = []): Spot[] {
  const here = { path, value };
  if (Array.isArray(value)) return [here, ...value.flatMap((one, index) => spotsIn(one, [...path, index]))];
  if (isPlain(value)) return [here, ...Object.entries(value).flatMap(([key, one]) => spotsIn(one, [...path, key]))];
  return [here];
}

function replaced(value: Json, path: readonly (string | number)[], next: Json): Json {
  const [first, ...rest] = path;
  if (first === undefined) return next;
  if (Array.isArray(value)) return value.map((one, index) => (index === first ? replaced(one, rest, next) : one));
  if (!isPlain(value)) return value;
  return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, key === String(first) ? replaced(one, rest, next) : one]));
}

const PROTOTYPE = ["constructor", "toString", "hasOwnProperty", "valueOf", "__defineGetter__"] as const;
const ODD_TEXTS = [
  "",
  " ",
  "\u0000",
  "%",
  "%00",
  "../../etc",
  "constructor",
  "__proto__",
  "💥".repeat(40),
  "x".repeat(5000),
  "<script>1</script>",
];
const ODD_NUMBERS = [-1, 0, 1e308, -1e308, 1e-320, 0.1 + 0.2, 2 ** 53, -(2 ** 53), 1_000_001];
const ODD_IDS = ["%", "%00", "%E0%A4%A", "..%2f..", "-1", "0", "1e3", "999999999999", "constructor", "__proto__", "a".repeat(300)];

/** One change of a target's body, or of where and how it is sent. */
export function spoil(target: Target, random: () => number): Spoilt {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const body = JSON.parse(JSON.stringify(target.body)) as Json;
  const spots = spotsIn(body).filter(({ path }) => path.length > 0);
  const spot = pick(spots);
  const isFree = (path: readonly (string | number)[]) => (target.free ?? []).includes(path.join("."));
  const sent = (how: string, value: Json, mustRefuse: boolean): Spoilt => ({
    how,
    text: JSON.stringify(value),
    path: target.path,
    mustRefuse,
  });
  const raw = (how: string, text: string): Spoilt => ({ how, text, path: target.path, mustRefuse: true });
  const where = spot.path.join(".");
  switch (Math.floor(random() * 12)) {
    case 0: {
      const objects = spotsIn(body).filter(({ path, value }) => isPlain(value) && !isFree(path));
      const { path, value } = pick(objects);
      const name = pick(["extra", ...PROTOTYPE]);
      return sent(`unknown key ${name} at ${path.join(".")}`, replaced(body, path, { ...(value as object), [name]: 1 } as Json), true);
    }
    case 1: {
      // Of another kind than everything that can stand there: a list where none does, else an object where none does.
      const next: Json = Array.isArray(spot.value) ? { of: "another kind" } : isPlain(spot.value) ? 7 : [["another kind"]];
      return sent(`another kind at ${where}`, replaced(body, spot.path, next), true);
    }
    case 2:
      return sent(`nothing at ${where}`, replaced(body, spot.path, null), true);
    case 3:
      return sent(`an odd text at ${where}`, replaced(body, spot.path, pick(ODD_TEXTS)), typeof spot.value !== "string");
    case 4:
      return sent(`an odd number at ${where}`, replaced(body, spot.path, pick(ODD_NUMBERS)), typeof spot.value !== "number");
    case 5: {
      const depth = pick([30, 1001, 20_000]);
      const marked = JSON.stringify(replaced(body, spot.path, "@@"));
      return raw(
        `nested ${depth} deep at ${where}`,
        marked.replace('"@@"', () => "[".repeat(depth) + "]".repeat(depth)),
      );
    }
    case 6: {
      const objects = spotsIn(body).filter(({ value }) => isPlain(value));
      const { path, value } = pick(objects);
      const marked = JSON.stringify(replaced(body, path, { ...(value as object), "@@": 1 } as Json));
      return raw(`__proto__ at ${path.join(".")}`, marked.replace('"@@":1', '"__proto__":{"who":"AK"}'));
    }
    case 7:
      return raw("cut off", JSON.stringify(body).slice(0, Math.floor(random() * (JSON.stringify(body).length - 1))));
    case 8:
      return raw("far too large", JSON.stringify({ ...(body as object), more: "x".repeat(300_000) }));
    case 9: {
      const lists = spots.filter(({ value }) => Array.isArray(value) && value.length > 0);
      if (lists.length === 0) return raw("no body", "");
      const { path, value } = pick(lists);
      return sent(`twice at ${path.join(".")}`, replaced(body, path, [...(value as Json[]), ...(value as Json[])]), false);
    }
    case 10: {
      const id = pick(ODD_IDS);
      const parts = target.path.split("/");
      const index = parts.findIndex((part, k) => k > 3 && part !== "");
      const path = index < 0 ? `${target.path}/${id}` : parts.map((part, k) => (k === index ? id : part)).join("/");
      return { how: `id ${id}`, text: JSON.stringify(body), path, mustRefuse: true };
    }
    default:
      return sent(`left out ${where}`, without(body, spot.path), false);
  }
}

function without(value: Json, path: readonly (string | number)[]): Json {
  const [first, ...rest] = path;
  if (first === undefined) return value;
  if (Array.isArray(value))
    return rest.length === 0
      ? value.filter((_, index) => index !== first)
      : value.map((one, index) => (index === first ? without(one, rest) : one));
  if (!isPlain(value)) return value;
  return Object.fromEntries(
    Object.entries(value).flatMap(([key, one]) =>
      key !== String(first) ? [[key, one]] : rest.length === 0 ? [] : [[key, without(one, rest)]],
    ),
  );
}
