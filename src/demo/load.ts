import { rmSync } from "node:fs";
import { databaseFile, openDatabase } from "@/data/connection";
import { seedDepot } from "./depot";

/** `tsx src/demo/load.ts [--fresh]`: loads the demo depot into an empty data folder; leaves a folder that has machines alone. */
const isFresh = process.argv.includes("--fresh");
const file = databaseFile();
if (isFresh) for (const end of ["", "-wal", "-shm"]) rmSync(file + end, { force: true });
const db = openDatabase(file);
const { count } = db.prepare("SELECT count(*) AS count FROM machines").get() as { count: number };
if (count > 0) {
  console.log(`data kept: ${count} machines in ${file}`);
} else {
  const seeded = seedDepot(db, new Date().toISOString());
  console.log(`demo depot loaded: ${seeded.machines} machines, ${seeded.jobs} jobs in ${file}`);
}
db.close();
