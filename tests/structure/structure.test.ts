import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { describe, expect, it } from "vitest";
import { againstIn, checkedAgainst, owing } from "./against";
import { drawing, madePart } from "./drawing";
import { circles, importsOf, sources, testsIn } from "./imports";
import { againstOrder, CORE_ROOMS, DATA_ROOMS, LAYERS, layerOf } from "./rooms";

const root = process.cwd();
const files = sources(root);
const imports = importsOf(root, files);

describe("what imports what", () => {
  it("is read from the files: a known import is among it, a picture that is fetched when it is wanted is told apart", () => {
    expect(imports).toContainEqual({ from: "src/data/open.ts", to: "src/data/store/connection.ts", isLazy: false });
    expect(imports.filter(({ isLazy }) => isLazy).length).toBeGreaterThan(10);
    expect(imports.length).toBeGreaterThan(files.length);
  });

  it("runs from later rooms to earlier ones only, in core and in data", () => {
    expect(againstOrder(imports, "core", CORE_ROOMS)).toEqual([]);
    expect(againstOrder(imports, "data", DATA_ROOMS)).toEqual([]);
  });

  it("every file of core and data stands in one of the rooms", () => {
    const rooms = (layer: string) => readdirSync(path.join(root, "src", layer), { withFileTypes: true });
    const folders = (layer: string) =>
      rooms(layer)
        .flatMap((one) => (one.isDirectory() ? [one.name] : []))
        .sort();
    expect(folders("core")).toEqual(CORE_ROOMS.map(({ id }) => id).sort());
    expect(folders("data")).toEqual(DATA_ROOMS.map(({ id }) => id).sort());
    expect(files.filter((file) => /^src\/(core|data)\/[^/]+$/.test(file))).toEqual(["src/data/open.ts"]);
  });

  it("a layer uses only what it may", () => {
    const wrong = imports.filter(({ from, to }) => {
      const [user, used] = [layerOf(from) ?? "", layerOf(to) ?? ""];
      return user !== used && LAYERS[user] !== undefined && LAYERS[used] !== undefined && !LAYERS[user].includes(used);
    });
    expect(wrong).toEqual([]);
  });

  it("has no circle", () => {
    expect(circles(imports)).toEqual([]);
  });

  it("a circle and an import against the order would be found", () => {
    const [a, b] = ["src/core/basics/a.ts", "src/core/machine/b.ts"];
    const both = [
      { from: a, to: b, isLazy: false },
      { from: b, to: a, isLazy: false },
    ];
    expect(circles(both)).toEqual([[a, b]]);
    expect(againstOrder(both, "core", CORE_ROOMS)).toEqual(both.slice(0, 1));
  });
});

/** What the eye takes in at once. */
const MOST_FILES = 15;

describe("folders", () => {
  it(`of data and app hold ${MOST_FILES} files at most`, () => {
    const held = new Map<string, number>();
    for (const file of sources(root)) held.set(path.posix.dirname(file), (held.get(path.posix.dirname(file)) ?? 0) + 1);
    expect([...held].filter(([folder, count]) => /^src\/(data|app)/.test(folder) && count > MOST_FILES)).toEqual([]);
  });
});

/** As a formatter leaves it or not. */
const unpadded = (text: string) => text.replace(/ +/g, " ").replace(/-{3,}/g, "---");

describe("docs/architecture.md", () => {
  it("draws what the imports are: `npm run architecture` makes it anew", () => {
    const page = readFileSync(path.join(root, "docs/architecture.md"), "utf8");
    expect(unpadded(madePart(page))).toBe(unpadded(drawing(imports)));
  });
});

describe("docs/checked-against.md", () => {
  const held = againstIn(root, testsIn(root));

  it("tells what the tests are held against: `npm run architecture` makes it anew", () => {
    const page = readFileSync(path.join(root, "docs/checked-against.md"), "utf8");
    expect(unpadded(madePart(page))).toBe(unpadded(checkedAgainst(held)));
  });

  it("most checks and all that is reckoned beside them have a figure of their own; a worked example that is named stands in the docs", () => {
    expect(owing(held).length).toBeLessThan(15);
    for (const subject of ["diagnosis", "life", "cut print"]) expect(held.map((one) => one.subject)).toContain(subject);
    const examples = readFileSync(path.join(root, "docs/worked-examples.md"), "utf8").toLowerCase();
    for (const { source } of held)
      for (const [, name] of source.matchAll(/worked example “([^”]+)”/g)) expect(examples).toContain(`## ${name}\n`);
  });
});
