import * as z from "zod";

/** Alphabets initials may be of: each one's letters told from each other by whoever reads it. */
const ALPHABETS = [
  "Latin",
  "Greek",
  "Cyrillic",
  "Hebrew",
  "Arabic",
  "Devanagari",
  "Thai",
  "Han",
  "Hiragana",
  "Katakana",
  "Hangul",
] as const;
const OF = ALPHABETS.map((alphabet) => new RegExp(`^\\p{Script=${alphabet}}+$`, "u"));
/** Capitals, or letters of an alphabet that has none; of the Latin ones those a keyboard types, not clicks, tones or small capitals. */
const LETTERS = /^[\p{Lu}\p{Lo}]+$/u;
const ODD_LATIN = /[\u0180-\u1dff\u1f00-\u2fff\ua720-\uab6f]/u;

const isOfOneAlphabet = (text: string): boolean =>
  OF.some((pattern) => pattern.test(text)) && LETTERS.test(text) && !(OF[0]?.test(text) && ODD_LATIN.test(text));

/** Two to four letters of one alphabet, in capitals. */
export const initialsSchema = z
  .string()
  .max(40)
  .transform((text) => text.trim().normalize("NFKC").toUpperCase().normalize("NFC"))
  .refine((text) => /^\p{L}{2,4}$/u.test(text), "two-to-four-letters")
  .refine((text) => isOfOneAlphabet(text), "letters-of-one-alphabet");

/** Greek and Cyrillic capitals that are printed like a Latin one (Unicode's confusables, from memory). */
const LIKE: Readonly<Record<string, string>> = Object.fromEntries(
  (
    [
      ["A", "ΑА"],
      ["B", "ΒВ"],
      ["C", "СϹ"],
      ["E", "ΕЕ"],
      ["F", "Ϝ"],
      ["G", "Ԍ"],
      ["H", "ΗНҺ"],
      ["I", "ΙІӀ"],
      ["J", "ЈͿ"],
      ["K", "ΚКҚ"],
      ["M", "ΜМϺ"],
      ["N", "Ν"],
      ["O", "ΟО"],
      ["P", "ΡР"],
      ["Q", "Ԛ"],
      ["S", "Ѕ"],
      ["T", "ΤТ"],
      ["V", "Ѵ"],
      ["W", "Ԝ"],
      ["X", "ΧХ"],
      ["Y", "ΥУҮ"],
      ["Z", "Ζ"],
      ["Ï", "Ї"],
      ["Ë", "Ё"],
    ] as const
  ).flatMap(([latin, others]) => [...others].map((letter) => [letter, latin])),
);

/** What initials look like on a job card, whatever alphabet they are of: two who look alike there cannot be told apart. */
export function lookOf(initials: string): string {
  return [...initials.normalize("NFC")].map((letter) => LIKE[letter] ?? letter).join("");
}
