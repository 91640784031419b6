import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { seededRandom } from "@/core/basics/random";
import { openDatabase } from "@/data/open";
import { emptyDepot, makeSafe, openJob } from "../tests/data/helpers";
import { DAY, faultsAfter, writeAndKill } from "../tests/fuzz/soak";

/**
 * `npm run soak [KILLS] [SEED]`: a writer killed hard in mid-write, so often; after each the submission it died in is sent again, twice, and
 * the whole record looked through. Ends with a plain line. A record is begun anew every so many kills, or looking through it takes the time.
 */
const [kills = 1000, seed = 1] = process.argv.slice(2).map(Number);
const ROUNDS_A_RECORD = 50;
const LONGEST_MILLISECONDS = 60;
const WRITER = path.join(process.cwd(), ".cache", "soak-writer.mjs");

async function soak(): Promise<void> {
  const random = seededRandom(seed);
  let [faults, written, depot] = [0, 0, begin()];
  for (let kill = 0; kill < kills; kill++) {
    if (kill > 0 && kill % ROUNDS_A_RECORD === 0) depot = begin();
    const { file, jobId, from } = depot;
    const milliseconds = random() * LONGEST_MILLISECONDS;
    const last = await writeAndKill({ command: [process.execPath, WRITER], file, jobId, from, milliseconds });
    const db = openDatabase(file, DAY);
    const found = faultsAfter(db, { jobId, last });
    db.close();
    for (const fault of found) console.log(`kill ${kill + 1}, seed ${seed}, after ${milliseconds.toFixed(1)} ms: ${fault}`);
    faults += found.length;
    written += last + 2 - from;
    depot.from = last + 2;
    if ((kill + 1) % 100 === 0) console.log(`${kill + 1} kills, ${written} submissions written, ${faults} faults`);
  }
  console.log(`${kills} kills, ${written} submissions, ${faults} torn, lost or doubled (seed ${seed})`);
  process.exitCode = faults > 0 ? 1 : 0;
}

function begin(): { file: string; jobId: number; from: number } {
  const file = path.join(mkdtempSync(path.join(tmpdir(), "zygometer-soak-")), "zygometer.sqlite");
  const { db, clock } = emptyDepot(file);
  const jobId = openJob(db, clock);
  makeSafe(db, clock, jobId, "parked");
  db.close();
  return { file, jobId, from: 0 };
}

soak();
