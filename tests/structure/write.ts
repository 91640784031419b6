import { readFileSync, writeFileSync } from "node:fs";
import { drawing, withMade } from "./drawing";
import { importsOf, sources } from "./imports";

/** `npm run architecture`: makes the drawing and the tables of docs/architecture.md anew. */
const PAGE = "docs/architecture.md";
const root = process.cwd();
writeFileSync(PAGE, withMade(readFileSync(PAGE, "utf8"), drawing(importsOf(root, sources(root)))));
