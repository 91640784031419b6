import { readFileSync, writeFileSync } from "node:fs";
import { againstIn, checkedAgainst } from "./against";
import { drawing, withMade } from "./drawing";
import { importsOf, sources, testsIn } from "./imports";

/** `npm run architecture`: makes what is made of docs/architecture.md and docs/checked-against.md anew. */
const root = process.cwd();
const made = (page: string, part: string) => writeFileSync(page, withMade(readFileSync(page, "utf8"), part));
made("docs/architecture.md", drawing(importsOf(root, sources(root))));
made("docs/checked-against.md", checkedAgainst(againstIn(root, testsIn(root))));
