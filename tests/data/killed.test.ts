import { spawn } from "node:child_process";
import path from "node:path";
import { expect, it } from "vitest";
import { openDatabase } from "@/data/connection";
import { emptyDepot, openJob, temporaryFile } from "./helpers";

const ROUNDS = 4;

/** Starts a writer that never stops of itself, and kills it hard after some writes. */
function writeAndKill(file: string, jobId: number, afterMilliseconds: number): Promise<void> {
  const writer = path.join(import.meta.dirname, "writer.ts");
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, ["--import", "tsx", writer, file, String(jobId)], { stdio: ["ignore", "pipe", "inherit"] });
    child.stdout.once("data", () => setTimeout(() => child.kill("SIGKILL"), afterMilliseconds));
    child.once("error", reject);
    child.once("exit", (_, signal) => (signal === "SIGKILL" ? resolve() : reject(new Error("the writer ended by itself"))));
  });
}

it("a process killed in mid-write leaves whole takes and a sound database", { timeout: 60_000 }, async () => {
  const file = temporaryFile();
  const { db, clock } = emptyDepot(file);
  const jobId = openJob(db, clock);
  db.close();
  for (let round = 0; round < ROUNDS; round++) {
    await writeAndKill(file, jobId, 40 + round * 37);
    const after = openDatabase(file);
    expect(after.pragma("integrity_check", { simple: true })).toBe("ok");
    expect(after.pragma("foreign_key_check")).toEqual([]);
    const one = (sql: string) => (after.prepare(sql).get() as { n: number }).n;
    expect(one("SELECT count(*) AS n FROM takes")).toBeGreaterThan(round);
    expect(one("SELECT count(*) AS n FROM takes t WHERE (SELECT count(*) FROM readings r WHERE r.step_id = t.step_id) <> 4")).toBe(0);
    expect(
      one("SELECT count(*) AS n FROM steps s WHERE s.kind = 'take' AND NOT EXISTS (SELECT 1 FROM takes t WHERE t.step_id = s.id)"),
    ).toBe(0);
    expect(
      one(
        "SELECT count(*) AS n FROM steps s WHERE NOT EXISTS (SELECT 1 FROM audit a WHERE json_extract(a.detail_json, '$.stepId') = s.id)",
      ),
    ).toBe(0);
    after.close();
  }
});
