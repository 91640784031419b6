import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { describe, expect, it } from "vitest";

const CORE = path.join(process.cwd(), "src", "core");

function sources(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const at = path.join(folder, entry.name);
    if (entry.isDirectory()) return sources(at);
    return /\.ts$/.test(entry.name) && !/\.(test|fixtures|d)\.ts$/.test(entry.name) ? [at] : [];
  });
}

/** Code without its comments and texts: a word in a sentence is no loop. */
const codeOf = (text: string): string =>
  text
    .replace(/\/\*[\s\S]*?\*\//g, "")
    .replace(/(^|[^:])\/\/.*$/gm, "$1")
    .replace(/`(?:\\.|[^`\\])*`|"(?:\\.|[^"\\])*"/g, '""');

/** Steps that come to an end in a bounded number of rounds whatever is in them: whole numbers counted, halvings to a constant, fixed growth, subsets of a set. */
const STEPS = [
  /^\w+(\+\+|--)$/,
  /^\w+ \+= \d+$/,
  /^\w+ \+= (DAY|CRAB_STEP_RADIANS)$/,
  /^\w+ \*= GROWTH$/,
  /^\w+ \/= 2$/,
  /^block \+= bit << 1$/,
  /^one = open\.pop\(\)$/,
  /^wider = \(wider \+ 1\) \| set$/,
  /^rest &= rest - 1$/,
];

/** The last clause of each `for` that counts. */
function stepsOf(code: string): string[] {
  return [...code.matchAll(/\bfor \(/g)].flatMap(({ index = 0 }) => {
    let [depth, end] = [0, index];
    for (let k = index + 4; k < code.length; k++) {
      if (code[k] === "(") depth++;
      if (code[k] === ")") depth--;
      if (depth === 0) {
        end = k;
        break;
      }
    }
    const head = code.slice(index + 5, end);
    return head.includes(";") ? [head.split(";").at(-1)?.trim() ?? ""] : [];
  });
}

describe("every loop of the core", () => {
  const files = sources(CORE).map((file) => ({ name: path.relative(CORE, file), code: codeOf(readFileSync(file, "utf8")) }));

  it("is one over a list or one that counts: none goes on until something is so", () => {
    expect(files.length).toBeGreaterThan(200);
    expect(files.filter(({ code }) => /\bwhile\b|\bdo \{/.test(code)).map(({ name }) => name)).toEqual([]);
  });

  it("counts by steps that come to an end", () => {
    const odd = files.flatMap(({ name, code }) =>
      stepsOf(code)
        .filter((step) => !STEPS.some((known) => known.test(step)))
        .map((step) => `${name}: ${step}`),
    );
    expect(odd).toEqual([]);
    expect(files.flatMap(({ code }) => stepsOf(code)).length).toBeGreaterThan(60);
  });
});
