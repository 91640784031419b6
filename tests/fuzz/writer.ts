import { recordTake } from "@/data/checks/takes";
import { recordNote } from "@/data/job/job-actions";
import { openDatabase } from "@/data/open";
import { DAY, sentAs, submissionFor } from "./soak";

/** Writes one submission after the other, as fast as it can, until it is killed, and says the number of each that was answered: `writer.ts FILE JOB FROM`. */
const [file = "", job = "", from = "0"] = process.argv.slice(2);
const db = openDatabase(file, DAY);
for (let n = Number(from); ; n++) {
  const doing = submissionFor(n);
  const sent = sentAs(n, Number(job));
  if (sent.kind === "take") recordTake(db, doing, sent.args);
  else recordNote(db, doing, sent.args);
  process.stdout.write(`${n}\n`);
}
