import { existsSync, renameSync } from "node:fs";
import { createInterface } from "node:readline/promises";
import { openDatabase } from "@/data/open";
import { databaseFile, dataFolder } from "@/data/store/connection";
import { AppError } from "@/data/store/errors";
import { withFolderAlone } from "@/data/store/hold";
import { sayError } from "@/ui/words/issues";
import { seedDepot } from "./depot";

/**
 * `tsx src/demo/load.ts [--fresh] [--yes]`: loads the demo depot into an empty data folder; leaves a folder that has machines alone. `--fresh`
 * sets the record that is there aside under another name and starts over; on a terminal it asks first, elsewhere it wants `--yes`.
 */
const [isFresh, isSure] = [process.argv.includes("--fresh"), process.argv.includes("--yes")];
const ENDS = ["", "-wal", "-shm"];
/** For `bin/demo`: not asked for after all, and what could not be opened, which the server's pages say too. */
const EXIT = { refused: 2, trouble: 3 } as const;

process.umask(0o077);

async function mayReplace(file: string): Promise<boolean> {
  if (isSure) return true;
  if (!process.stdin.isTTY) {
    console.error(`--fresh sets ${file} aside. Where nobody can be asked, say so: --fresh --yes`);
    return false;
  }
  const asked = createInterface({ input: process.stdin, output: process.stderr });
  const answer = await asked.question(`Set the record in ${file} aside and start over with the demo depot? [y/N] `);
  asked.close();
  return /^y(es)?$/i.test(answer.trim());
}

/** The record under a name that tells when it was set aside; nothing is deleted. */
function setAside(file: string): string {
  const aside = file.replace(/\.sqlite$/, `-until-${new Date().toISOString().replace(/[:.]/g, "-")}.sqlite`);
  for (const end of ENDS) if (existsSync(file + end)) renameSync(file + end, aside + end);
  return aside;
}

function load(file: string): void {
  const db = openDatabase(file);
  const { count } = db.prepare("SELECT count(*) AS count FROM machines").get() as { count: number };
  if (count > 0) {
    console.log(`data kept: ${count} machines in ${file}`);
  } else {
    const seeded = seedDepot(db, new Date().toISOString());
    console.log(`demo depot loaded: ${seeded.machines} machines, ${seeded.jobs} jobs in ${file}`);
  }
  db.close();
}

async function main(): Promise<void> {
  const file = databaseFile();
  if (isFresh && existsSync(file)) {
    if (!(await mayReplace(file))) process.exit(EXIT.refused);
    const aside = withFolderAlone(dataFolder(), () => setAside(file));
    console.log(`the record that was there is kept as ${aside}`);
  }
  load(file);
}

main().catch((error: unknown) => {
  if (!(error instanceof AppError)) throw error;
  console.error(`${databaseFile()}: ${sayError(error.code)}`);
  process.exit(error.code === "folder-in-use" ? EXIT.refused : EXIT.trouble);
});
