import { existsSync } from "node:fs";
import { openDatabase } from "@/data/open";
import { databaseFile } from "@/data/store/connection";

/**
 * `bin/rebuild`: folds anew, machine by machine, what is kept beside the log and is not as the log has it. May run beside the server and be stopped: what is done is
 * kept, and the next run or the next start goes on from there.
 */
const file = databaseFile();
if (!existsSync(file)) {
  console.error(`There is no record at ${file}.`);
  process.exit(1);
}
let isStopped = false;
for (const signal of ["SIGINT", "SIGTERM"] as const) process.once(signal, () => (isStopped = true));
const isAll = process.argv.includes("--all");
const began = performance.now();
const db = openDatabase(file, undefined, {
  isFoldedAnew: isAll,
  told: (done, all, machineId) => {
    if (done % 10 === 0 || done === all) console.log(`${done} of ${all}: ${machineId}`);
    return !isStopped;
  },
});
db.close();
console.log(`${isStopped ? "stopped" : "done"} after ${((performance.now() - began) / 1000).toFixed(1)} s`);
