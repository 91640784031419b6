import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { describe, expect, it } from "vitest";
import { emptyTable, table } from ".";

const BEHIND = ["constructor", "toString", "hasOwnProperty", "valueOf", "__proto__"];
const SRC = path.join(process.cwd(), "src");

function sources(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const at = path.join(folder, entry.name);
    if (entry.isDirectory()) return sources(at);
    return /\.tsx?$/.test(entry.name) && !/\.(test|fixtures|d)\.tsx?$/.test(entry.name) ? [at] : [];
  });
}

describe("a table", () => {
  it("has what was put in it, and nothing that every object has", () => {
    const words = table({ rough: 2 });
    const counted = emptyTable<number>();
    expect([words.rough, ...BEHIND.map((key) => words[key])]).toEqual([2, ...BEHIND.map(() => undefined)]);
    for (const key of BEHIND) counted[key] = (counted[key] ?? 0) + 1;
    expect(BEHIND.map((key) => counted[key])).toEqual(BEHIND.map(() => 1));
  });

  it("is what every table keyed by any text is: none of them is a plain object", () => {
    const plain = sources(SRC).flatMap((file) => {
      const text = readFileSync(file, "utf8");
      return [...text.matchAll(/\b(?:const|let) (\w+): (?:Readonly<)?(?:Partial<)?Record<string, [^=\n]*(?:\n[^=\n]*)?= (?=\{)/g)].map(
        ([, name]) => `${path.relative(SRC, file)}: ${name}`,
      );
    });
    expect(plain).toEqual([]);
  });
});
