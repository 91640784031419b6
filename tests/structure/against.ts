import { readFileSync } from "node:fs";
import path from "node:path";
import { CHECKS } from "@/core/catalogue";

/** A figure that a test holds against something outside this project. `subject`: a check's id, or what else is reckoned. */
export type Against = { subject: string; figure: string; source: string; tolerance: string; file: string };

const TAG = /\/\/ @against ([^:\n]+): ([^;\n]+); (.+); ([^;\n]+)$/gm;

/** What the tests say of themselves, in lines `// @against subject: figure; source; tolerance`. */
export function againstIn(root: string, files: readonly string[]): Against[] {
  return files.flatMap((file) =>
    [...readFileSync(path.join(root, file), "utf8").matchAll(TAG)].map(
      ([, subject = "", figure = "", source = "", tolerance = ""]): Against => ({ subject, figure, source, tolerance, file }),
    ),
  );
}

const label = (subject: string): string => CHECKS.find(({ id }) => id === subject)?.label ?? subject;

/** Checks with no such figure: what they judge by is a look, a hand or an estimate. */
export const owing = (held: readonly Against[]): string[] =>
  CHECKS.map(({ id }) => id).filter((id) => !held.some(({ subject }) => subject === id));

/** The tables of docs/checked-against.md. */
export function checkedAgainst(held: readonly Against[]): string {
  const order = (subject: string) => {
    const at = CHECKS.findIndex(({ id }) => id === subject);
    return at < 0 ? CHECKS.length : at;
  };
  const rows = [...held].sort((a, b) => order(a.subject) - order(b.subject) || a.subject.localeCompare(b.subject));
  return [
    "| | figure | held against | to within | test |",
    "| --- | --- | --- | --- | --- |",
    ...rows.map(
      ({ subject, figure, source, tolerance, file }) =>
        `| ${label(subject)} | ${figure} | ${source} | ${tolerance} | \`${file.replace(/^src\/core\//, "")}\` |`,
    ),
    "",
    ...owing(held).map((id) => `- ${label(id)}`),
  ].join("\n");
}
