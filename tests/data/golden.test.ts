import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { lastSeen } from "@/core/fleet/service/tasks";
import { isAtRest, type LogLine, machineState } from "@/core/job/status";
import type { Machine } from "@/core/machine";
import { FOLD_VERSION } from "@/data/projections/machine-state";
import { grouped } from "@/data/store/grouped";

/** Logs as walks of every deed left them, kept as they were: what they fold to says whether a rule changed. */
const LOGS = [
  ...grouped(
    readFileSync("tests/data/golden-logs.ndjson", "utf8")
      .trimEnd()
      .split("\n")
      .map((text) => JSON.parse(text) as { log: number; line: LogLine }),
    ({ log }) => [String(log)],
  ).values(),
].map((lines) => lines.map(({ line }) => line));

/** What the golden logs fold to, line by line, by the reckoning of this number. */
const GOLDEN = { version: 8, hash: "66023d22045a225fd10af67642bcc876f0babe211fd6a7be3732323bc0aea031" };

function folded(): string {
  const hash = createHash("sha256");
  for (const log of LOGS) {
    const machine = log.find((line) => line.kind === "specification")?.machine as Machine;
    for (let k = 1; k <= log.length; k++) {
      const lines = log.slice(0, k);
      const state = machineState(machine, lines);
      const seen = Object.entries(lastSeen(lines)).sort(([a], [b]) => (a < b ? -1 : 1));
      hash.update(JSON.stringify([state, isAtRest(machine, lines, state), seen]));
    }
  }
  return hash.digest("hex");
}

describe("the number of the fold", () => {
  it("goes up whenever golden logs fold to anything else: a state kept by an older rule would be read as if it were of now", () => {
    // Where this fails: raise FOLD_VERSION, so that every record is folded anew, and write the new number and hash here.
    expect({ version: FOLD_VERSION, hash: folded() }).toEqual(GOLDEN);
  });

  it("and the golden logs hold what a fold is made of", () => {
    const kinds = new Set(LOGS.flat().map(({ kind }) => kind));
    for (const kind of [
      "confirmation",
      "put-back",
      "take",
      "fix",
      "test-cut",
      "deck",
      "guided",
      "close",
      "hold",
      "release",
      "event",
    ] as const)
      expect(kinds).toContain(kind);
    expect(LOGS.flat().length).toBeGreaterThan(300);
  });
});
