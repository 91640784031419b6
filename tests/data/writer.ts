import { openDatabase } from "@/data/connection";
import { recordTake } from "@/data/takes";
import { Clock, makeSafe, tyres } from "./helpers";

/** Writes takes as fast as it can until it is killed: `writer.ts FILE JOB`. */
const [file = "", job = ""] = process.argv.slice(2);
const db = openDatabase(file);
const clock = new Clock();
makeSafe(db, clock, Number(job));
recordTake(db, clock.doing(), { jobId: Number(job), checkId: "tyre-pressure", readings: tyres([12, 18, 18, 12]), asTyped: {} });
console.log("writing");
for (;;) recordTake(db, clock.doing(), { jobId: Number(job), checkId: "tyre-pressure", readings: tyres([12, 18, 18, 12]), asTyped: {} });
