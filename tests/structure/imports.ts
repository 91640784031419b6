import { existsSync, readdirSync, readFileSync, statSync } from "node:fs";
import path from "node:path";

/** One import of one of our own files by another; `isLazy` where the file is only fetched when it is wanted. */
export type Import = { from: string; to: string; isLazy: boolean };

const STATEMENT = /(?:^|\n)(?:import|export)\s[^;"]*?from\s*"([^"]+)"|(?:^|\n)import\s*"([^"]+)"|import\("([^"]+)"\)/g;
const ENDINGS = ["", ".ts", ".tsx", "/index.ts", "/index.tsx"];

/** Every source under a folder, beside its root, without its tests and what only they use. */
export const sources = (root: string): string[] => typescriptIn(root).filter((file) => !/\.(test|fixtures)\.tsx?$/.test(file));

/** Every unit test beside the sources. */
export const testsIn = (root: string): string[] => typescriptIn(root).filter((file) => /\.test\.tsx?$/.test(file));

function typescriptIn(root: string, folder = "src"): string[] {
  const files = readdirSync(path.join(root, folder), { recursive: true, encoding: "utf8" });
  return files
    .map((name) => path.posix.join(folder, name.split(path.sep).join("/")))
    .filter((file) => /\.tsx?$/.test(file))
    .sort();
}

/** What these files import of each other, by the text of their import statements. */
export function importsOf(root: string, files: readonly string[]): Import[] {
  return files.flatMap((from) => {
    const text = readFileSync(path.join(root, from), "utf8");
    return [...text.matchAll(STATEMENT)].flatMap((match): Import[] => {
      const spec = match[1] ?? match[2] ?? match[3] ?? "";
      const to = resolved(root, from, spec);
      return to === undefined || to === from ? [] : [{ from, to, isLazy: match[3] !== undefined }];
    });
  });
}

function resolved(root: string, from: string, spec: string): string | undefined {
  if (!spec.startsWith(".") && !spec.startsWith("@/")) return undefined;
  const stem = spec.startsWith("@/") ? `src/${spec.slice(2)}` : path.posix.join(path.posix.dirname(from), spec);
  return ENDINGS.map((ending) => stem + ending).find(
    (file) => existsSync(path.join(root, file)) && statSync(path.join(root, file)).isFile(),
  );
}

/** Groups of files that reach each other, each group once (Tarjan 1972). */
export function circles(imports: readonly Import[]): string[][] {
  const next = new Map<string, string[]>();
  for (const { from, to } of imports) next.set(from, [...(next.get(from) ?? []), to]);
  const order = new Map<string, number>();
  const low = new Map<string, number>();
  const stack: string[] = [];
  const found: string[][] = [];
  const visit = (file: string): void => {
    order.set(file, order.size);
    low.set(file, order.size - 1);
    stack.push(file);
    for (const other of next.get(file) ?? []) {
      if (!order.has(other)) visit(other);
      if (stack.includes(other)) low.set(file, Math.min(low.get(file) ?? 0, low.get(other) ?? 0));
    }
    if (low.get(file) !== order.get(file)) return;
    const group = stack.splice(stack.indexOf(file));
    if (group.length > 1) found.push(group.sort());
  };
  for (const file of next.keys()) if (!order.has(file)) visit(file);
  return found;
}
