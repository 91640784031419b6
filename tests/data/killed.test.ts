import path from "node:path";
import { expect, it } from "vitest";
import { openDatabase } from "@/data/open";
import { DAY, faultsAfter, writeAndKill } from "../fuzz/soak";
import { emptyDepot, makeSafe, openJob, temporaryFile } from "./helpers";

const ROUNDS = 4;
const WRITER = path.join(import.meta.dirname, "..", "fuzz", "writer.ts");

it("a process killed in mid-write leaves nothing torn, and what is sent again after it stands once", async () => {
  const file = temporaryFile();
  const { db, clock } = emptyDepot(file);
  const jobId = openJob(db, clock);
  makeSafe(db, clock, jobId, "parked");
  db.close();
  let from = 0;
  for (let round = 0; round < ROUNDS; round++) {
    const command = [process.execPath, "--import", "tsx", WRITER];
    const last = await writeAndKill({ command, file, jobId, from, milliseconds: 40 + round * 37 });
    expect(last).toBeGreaterThanOrEqual(from);
    // Opened as after a crash of the machine: the file is looked through as a whole.
    const after = openDatabase(file, DAY);
    expect(faultsAfter(after, { jobId, last })).toEqual([]);
    after.close();
    from = last + 2;
  }
});
