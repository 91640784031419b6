import { readdirSync, readFileSync } from "node:fs";
import Database from "better-sqlite3";
import { beforeEach, describe, expect, it } from "vitest";
import { CAUSES, CHECKS, RIVALS, SYMPTOMS } from "@/core/catalogue";
import { kindById } from "@/core/catalogue/kinds";
import { checkRow, isOffered } from "@/core/checks";
import { EXPLAINED_LEVEL, workUp } from "@/core/diagnosis";
import { recordFinding, recordTake } from "@/data/checks/takes";
import { joinJobs, splitComplaint, takeComplaint } from "@/data/job/complaints";
import { closeJob, recordAnswer, recordFix, recordSecondLook, recordSkip, undoStep } from "@/data/job/job-actions";
import { getJobView } from "@/data/job/job-view";
import { getMachine, listMachines } from "@/data/machine/machines";
import { logEvent } from "@/data/service/events";
import { listOwed } from "@/data/service/owed";
import type { Db } from "@/data/store/db";
import { AppError } from "@/data/store/errors";
import { MIGRATIONS_FOLDER, migrate } from "@/data/store/migrate";
import { type Clock, cutWith, emptyDepot, LEDGE_INCHES, makeReady, makeSafe, openJob, tips, tyres } from "./helpers";

let db: Db;
let clock: Clock;
beforeEach(() => {
  ({ db, clock } = emptyDepot());
});

const caught = (act: () => unknown) => {
  try {
    act();
  } catch (error) {
    if (error instanceof AppError) return { code: error.code, issues: error.issues.map(({ code }) => code) };
    throw error;
  }
  throw new Error("nothing was thrown");
};
const workedUp = (jobId: number) => workUp({ ...getJobView(db, jobId).case.input, order: "information" });
const presence = (jobId: number, cause: string) => {
  const { causes, alsoWorthALook } = workedUp(jobId).diagnosis;
  return [...causes, ...alsoWorthALook].find(({ id }) => id === cause)?.presence ?? 0;
};
const look = (jobId: number, checkId: string, each: { cause: string; result: "seen" | "suspect" | "not-found" | "unclear" }[]) =>
  recordFinding(db, clock.doing(), { jobId, checkId, result: "unclear", causes: [], note: "", each });

describe("a job's diagnosis", () => {
  it("asks the look again after a mend: what is still so is sought elsewhere, and answered gone it is proved all the same", () => {
    const jobId = openJob(db, clock);
    recordAnswer(db, clock.doing(), { jobId, symptoms: { vibration: "present" } });
    makeSafe(db, clock, jobId, "parked");
    look(jobId, "tyre-pressure", [{ cause: "tyres-unequal", result: "seen" }]);
    expect(presence(jobId, "tyres-unequal")).toBeGreaterThan(EXPLAINED_LEVEL);
    recordFix(db, clock.doing(), { jobId, cause: "tyres-unequal", fix: "set-pressures", words: "", places: [], units: [] } as never);
    const { standing, input } = getJobView(db, jobId).case;
    expect([standing, input.given.symptoms]).toEqual(["unknown-until-cut", {}]);
    // What was mended here was no work on tyres before the complaint.
    expect(input.given.context).not.toContain("tyre-work");
    recordAnswer(db, clock.doing(), { jobId, symptoms: { "step-between-passes": "present" } });
    expect(getJobView(db, jobId).case.standing).toBe("still-so");
    expect(presence(jobId, "tyres-unequal")).toBeLessThan(0.1);
    expect(workedUp(jobId).diagnosis.causes[0]?.id).not.toBe("tyres-unequal");
    recordAnswer(db, clock.doing(), { jobId, symptoms: { vibration: "denied" } });
    expect(getJobView(db, jobId).case.input.given.symptoms).toEqual({ "step-between-passes": "present", vibration: "denied" });
    expect(getJobView(db, jobId).proof.asks).toContain("vibration");
  });

  it("moves with the readings of a worksheet, and back when they are undone", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    // A side and a rake that are off together are first of all a hanger let down: that is looked at before.
    look(jobId, "hanger-inspection", [
      { cause: "hanger-failed", result: "not-found" },
      { cause: "deck-shell-bent", result: "not-found" },
    ]);
    const before = presence(jobId, "deck-out-of-level");
    recordTake(db, clock.doing(), { jobId, checkId: "tyre-pressure", readings: tyres([12, 18, 18, 12]), asTyped: {} });
    expect(presence(jobId, "tyres-unequal")).toBeLessThan(0.05);
    const { stepId } = recordTake(db, clock.doing(), { jobId, checkId: "deck-level", readings: tips(LEDGE_INCHES), asTyped: {} });
    expect(presence(jobId, "deck-out-of-level")).toBeGreaterThan(before);
    expect(getJobView(db, jobId).case.input.done).toEqual(["hanger-inspection", "tyre-pressure", "deck-level"]);
    undoStep(db, clock.doing(), { jobId, stepId, reason: "" });
    expect(getJobView(db, jobId).case.input.done).toEqual(["hanger-inspection", "tyre-pressure"]);
  });

  it("takes a look cause by cause: one seen, one not there, one that could not be told", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "raised");
    look(jobId, "blade-edge", [
      { cause: "blade-damaged", result: "seen" },
      { cause: "blade-dull", result: "not-found" },
      { cause: "blade-sail-worn", result: "unclear" },
    ]);
    const { takes } = getJobView(db, jobId);
    expect(takes[0]?.verdict).toBe("out");
    expect(takes[0]?.result.evidence).toHaveLength(3);
    expect(presence(jobId, "blade-damaged")).toBeGreaterThan(EXPLAINED_LEVEL);
  });

  it("counts one figure once, however many causes are suspected by it", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "running");
    const both = ["engine-speed-low", "belt-slipping"];
    look(
      jobId,
      "tip-speed",
      both.map((cause) => ({ cause, result: "suspect" as const })),
    );
    expect(getJobView(db, jobId).takes[0]?.result.evidence).toEqual([{ check: "tip-speed", causes: both, result: "suspect" }]);
    look(
      jobId,
      "tip-speed",
      both.map((cause, k) => ({ cause, result: k === 0 ? ("suspect" as const) : ("not-found" as const) })),
    );
    expect(getJobView(db, jobId).takes[1]?.result.evidence).toEqual([
      { check: "tip-speed", cause: "engine-speed-low", result: "suspect" },
      { check: "tip-speed", cause: "belt-slipping", result: "not-found" },
    ]);
  });

  it("counts contexts of the log, and what a later look of the same check found replaces the earlier", () => {
    logEvent(db, clock.doing(), { machineId: "zt-1", event: "deck-dropped" });
    const jobId = openJob(db, clock);
    expect(getJobView(db, jobId).case.input.given.context).toContain("deck-dropped");
    makeSafe(db, clock, jobId);
    look(jobId, "hanger-inspection", [{ cause: "hanger-failed", result: "suspect" }]);
    const suspected = presence(jobId, "hanger-failed");
    look(jobId, "hanger-inspection", [{ cause: "hanger-failed", result: "not-found" }]);
    expect(presence(jobId, "hanger-failed")).toBeLessThan(suspected / 4);
  });

  it("has nothing to explain after a fix until the test cut, and all of it again when the cut is no better", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    recordFix(db, clock.doing(), { jobId, fix: "adjust-hangers", cause: "deck-out-of-level", words: "" });
    expect(getJobView(db, jobId).case).toMatchObject({ standing: "unknown-until-cut", input: { given: { symptoms: {} } } });
    makeReady(db, clock, jobId);
    cutWith(db, clock, jobId, { looks: "same" });
    expect(getJobView(db, jobId).case).toMatchObject({
      standing: "back-after-cut",
      input: { given: { symptoms: { "step-between-passes": "present" } } },
    });
    // The mend is the mechanic's own, not what happened to the machine before it cut badly.
    expect(getJobView(db, jobId).case.input.given.context).not.toContain("height-changed");
  });

  it("a fix of an earlier job is something that happened to the machine", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    recordFix(db, clock.doing(), { jobId, fix: "adjust-hangers", cause: "deck-out-of-level", words: "" });
    const laterId = openJob(db, clock);
    expect(getJobView(db, laterId).case.input.given.context).toContain("height-changed");
    expect(getJobView(db, jobId).case.input.given.context).not.toContain("height-changed");
  });
});

describe("a second look", () => {
  const CAUSE = "blade-damaged";
  const seen = () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "raised");
    return { jobId, ...look(jobId, "blade-edge", [{ cause: CAUSE, result: "seen" }]) };
  };
  const again = (jobId: number, takeStepId: number, isStillSo: boolean, cause = CAUSE) =>
    recordSecondLook(db, clock.doing(), { jobId, takeStepId, cause, isStillSo });
  const looks = (jobId: number) => workedUp(jobId).diagnosis.alsoWorthALook.find(({ id }) => id === CAUSE)?.looks;

  it("that agrees is a second word for the cause, and undone it is none", () => {
    const { jobId, stepId } = seen();
    const [once, onOne] = [presence(jobId, CAUSE), looks(jobId)];
    const second = again(jobId, stepId, true);
    expect([onOne, looks(jobId)]).toEqual([1, 2]);
    expect(presence(jobId, CAUSE)).toBeGreaterThan(once);
    undoStep(db, clock.doing(), { jobId, stepId: second.stepId, reason: "" });
    expect(looks(jobId)).toBe(1);
  });

  it("that differs leaves the cause as if nobody had looked, and the reading as it was", () => {
    const before = (() => {
      const jobId = openJob(db, clock);
      return presence(jobId, CAUSE);
    })();
    const { jobId, stepId } = seen();
    again(jobId, stepId, false);
    expect(presence(jobId, CAUSE)).toBeCloseTo(before, 6);
    expect(getJobView(db, jobId).takes[0]).toMatchObject({ stepId, verdict: "out" });
  });

  it("is of the reading that counts, of a cause it speaks for, and in the state the reading needs", () => {
    const { jobId, stepId } = seen();
    expect(caught(() => again(jobId, stepId, true, "blade-dull"))).toEqual({ code: "invalid", issues: ["unknown-cause"] });
    expect(caught(() => again(jobId, 9999, true)).code).toBe("changed-since");
    const later = look(jobId, "blade-edge", [{ cause: CAUSE, result: "seen" }]);
    expect(caught(() => again(jobId, stepId, true)).code).toBe("changed-since");
    makeReady(db, clock, jobId);
    expect(caught(() => again(jobId, later.stepId, true)).code).toBe("not-safe");
  });
});

describe("answers and checks left out", () => {
  it("an answer is a step: it counts, it shows, it can be undone", () => {
    const jobId = openJob(db, clock);
    const { stepId } = recordAnswer(db, clock.doing(), {
      jobId,
      symptoms: { vibration: "present" },
      contexts: { "one-machine-only": true },
    });
    const { given } = getJobView(db, jobId).case.input;
    expect(given.symptoms).toMatchObject({ vibration: "present" });
    expect(given.context).toEqual(["one-machine-only"]);
    expect(getJobView(db, jobId).state).toBe("waiting");
    undoStep(db, clock.doing(), { jobId, stepId, reason: "" });
    expect(getJobView(db, jobId).case.input.given.symptoms).toEqual({ "step-between-passes": "present" });
  });

  it("an empty answer and one that contradicts itself are refused", () => {
    const jobId = openJob(db, clock);
    expect(caught(() => recordAnswer(db, clock.doing(), { jobId }))).toEqual({ code: "invalid", issues: ["say-or-pick"] });
    const both = { "one-machine-only": true, "all-machines": true };
    expect(caught(() => recordAnswer(db, clock.doing(), { jobId, contexts: both })).issues).toEqual(["contradictory-contexts"]);
  });

  it("a check left out is remembered with its reason until it is taken in again or made", () => {
    const jobId = openJob(db, clock);
    const skip = (reason: "no-tool" | "back") => recordSkip(db, clock.doing(), { jobId, checkId: "hanger-inspection", reason, words: "" });
    skip("no-tool");
    expect(getJobView(db, jobId).skips).toEqual([{ checkId: "hanger-inspection", reason: "no-tool", who: "AK" }]);
    expect(workedUp(jobId).plan.checks.map(({ id }) => id)).not.toContain("hanger-inspection");
    skip("back");
    expect(getJobView(db, jobId).skips).toEqual([]);
    skip("no-tool");
    makeSafe(db, clock, jobId);
    look(jobId, "hanger-inspection", [{ cause: "hanger-failed", result: "not-found" }]);
    expect(getJobView(db, jobId).skips).toEqual([]);
    expect(caught(() => recordSkip(db, clock.doing(), { jobId, checkId: "sniffing", reason: "no-tool", words: "" })).code).toBe(
      "check-not-found",
    );
  });
});

describe("several complaints", () => {
  const second = (joinJobId?: number) =>
    takeComplaint(db, clock.doing(), {
      machineId: "zt-1",
      words: "and it shakes",
      saidBy: "PD",
      place: "",
      looks: { symptoms: ["vibration"], denied: [], contexts: [] },
      ...(joinJobId ? { joinJobId } : {}),
    });

  it("stay one job and are explained together, or become two, as the mechanic says", () => {
    const jobId = openJob(db, clock);
    const { complaintId } = second(jobId);
    expect(Object.keys(getJobView(db, jobId).case.input.given.symptoms)).toEqual(["step-between-passes", "vibration"]);
    const { jobId: own } = splitComplaint(db, clock.doing(), { jobId, complaintId });
    expect(Object.keys(getJobView(db, jobId).case.input.given.symptoms)).toEqual(["step-between-passes"]);
    expect(getJobView(db, own).case.input.given.symptoms).toEqual({ vibration: "present" });
    expect(getJobView(db, own).state).toBe("waiting");
    expect(getJobView(db, jobId).openBeside).toEqual([own]);
    expect(joinJobs(db, clock.doing(), { jobId: own, intoJobId: jobId })).toEqual({ jobId });
    expect(getJobView(db, own).state).toBe("closed");
    expect(getJobView(db, jobId).complaints).toHaveLength(2);
  });

  it("the only complaint stays, a job with work in it is not joined away, nor one to another machine", () => {
    const jobId = openJob(db, clock);
    const [only] = getJobView(db, jobId).complaints;
    expect(caught(() => splitComplaint(db, clock.doing(), { jobId, complaintId: only?.id ?? 0 })).issues).toEqual(["only-complaint"]);
    const { jobId: worked } = second();
    makeSafe(db, clock, worked);
    expect(caught(() => joinJobs(db, clock.doing(), { jobId: worked, intoJobId: jobId })).issues).toEqual(["job-has-work"]);
    expect(caught(() => joinJobs(db, clock.doing(), { jobId, intoJobId: openJob(db, clock, "zt-2") })).issues).toEqual([
      "job-of-another-machine",
    ]);
  });

  it("too many looks at once, the same look said and denied, and contexts that exclude each other are refused", () => {
    const complain = (looks: object) =>
      caught(() =>
        takeComplaint(db, clock.doing(), {
          machineId: "zt-1",
          words: "",
          saidBy: "TV",
          place: "",
          looks: { symptoms: ["clumps"], denied: [], contexts: [], ...looks },
        }),
      ).issues;
    const rotary = SYMPTOMS.filter(({ on }) => (on as readonly string[]).includes("rotary")).map(({ id }) => id);
    expect(complain({ symptoms: rotary })).toEqual(["too-many-symptoms"]);
    expect(complain({ denied: ["clumps"] })).toEqual(["seen-and-denied"]);
    expect(complain({ contexts: ["all-machines", "one-machine-only"] })).toEqual(["contradictory-contexts"]);
  });
});

describe("a strike", () => {
  it("says what, where and whether the drive ran on, and holds the machine under suspicion across its jobs", () => {
    logEvent(db, clock.doing(), { machineId: "zt-1", event: "struck", words: "a kerb", place: "right", droveOn: true });
    const first = openJob(db, clock);
    expect(getJobView(db, first).machineState.struck).toMatchObject({ words: "a kerb", place: "right", droveOn: true });
    makeSafe(db, clock, first, "raised");
    look(first, "blade-edge", [{ cause: "blade-damaged", result: "not-found" }]);
    const next = openJob(db, clock);
    expect(getJobView(db, next).machineState.struck?.checks).toEqual(["hanger-inspection", "deck-level", "blade-track", "spindle-play"]);
  });
});

describe("closing", () => {
  it("unproved turns every gap into something owed on the machine, until the close is undone", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    recordFix(db, clock.doing(), { jobId, fix: "adjust-hangers", cause: "deck-out-of-level", words: "" });
    const gaps = getJobView(db, jobId).proof.gaps.map(({ code }) => code);
    expect(gaps).toEqual(["not-read-again", "no-test-cut"]);
    const { stepId } = closeJob(db, clock.doing(), { jobId, causes: ["deck-out-of-level"], words: "", unprovedReason: "no grass" });
    const owed = () => listOwed(db, "zt-1").flatMap(({ detail }) => (detail && "gap" in detail ? [detail.gap.code] : []));
    expect(owed()).toEqual(gaps);
    undoStep(db, clock.doing(), { jobId, stepId, reason: "" });
    expect(owed()).toEqual([]);
  });
});

describe("reach", () => {
  it("every check of the tables can be entered on some machine of the fleet, for every cause it speaks to", () => {
    const entered = new Set<string>();
    for (const { id, machine } of listMachines(db)) {
      const jobId = openJob(db, clock, id);
      for (const { id: checkId } of CHECKS) {
        const row = checkRow(checkId);
        if (!row || !isOffered(row, machine)) continue;
        if (row.state === "running") makeReady(db, clock, jobId, id);
        else makeSafe(db, clock, jobId, row.state, id);
        const { cutsWith } = kindById(machine.kind);
        const causes = CAUSES.filter(
          ({ checks, on }) => (checks as readonly string[]).includes(checkId) && (on as readonly string[]).includes(cutsWith),
        );
        look(
          jobId,
          checkId,
          causes.map((cause) => ({ cause: cause.id, result: "unclear" })),
        );
        entered.add(checkId);
      }
    }
    expect(entered).toEqual(new Set(CHECKS.map(({ id }) => id)));
  });

  it("every symptom can be complained of, and every cause be ranked, on some machine of the fleet", () => {
    const ranked = new Set<string>();
    const complained = new Set<string>();
    for (const { id } of listMachines(db)) {
      const { machine } = getMachine(db, id);
      for (const symptom of SYMPTOMS) {
        const cuts = machine.spindles.length > 0 ? "rotary" : "reel";
        if (!(symptom.on as readonly string[]).includes(cuts)) continue;
        const looks = { symptoms: [symptom.id], denied: [], contexts: [] };
        const { jobId } = takeComplaint(db, clock.doing(), { machineId: id, words: "", saidBy: "TV", place: "", looks });
        for (const cause of workedUp(jobId).diagnosis.causes) ranked.add(cause.id);
        complained.add(symptom.id);
      }
    }
    expect(complained).toEqual(new Set(SYMPTOMS.map(({ id }) => id)));
    const listed = CAUSES.flatMap(({ id }) => (id === "something-else" ? [] : [id as string]));
    expect(ranked).toEqual(new Set([...listed, ...RIVALS.map(({ id }) => id)]));
  });
});

describe("a database of the version before", () => {
  it("is brought up with its steps, undo and all, and still refuses change", () => {
    const old = new Database(":memory:");
    old.pragma("foreign_keys = ON");
    old.exec(
      "CREATE TABLE migrations (version INTEGER NOT NULL CONSTRAINT migrations_pk PRIMARY KEY, name TEXT NOT NULL, at TEXT NOT NULL) STRICT",
    );
    for (const name of readdirSync(MIGRATIONS_FOLDER)
      .sort()
      .filter((file) => file < "0004")) {
      old.exec(readFileSync(`${MIGRATIONS_FOLDER}/${name}`, "utf8"));
      old.prepare("INSERT INTO migrations VALUES (?, ?, '')").run(Number(name.slice(0, 4)), name);
    }
    old.pragma("foreign_keys = OFF");
    old.exec(
      `INSERT INTO steps (id, job_id, kind, data_json, undoes_id, who, at) VALUES (7, 1, 'note', '{"text":"x"}', NULL, 'AK', ''), (8, 1, 'undo', '{"reason":""}', 7, 'AK', '')`,
    );
    old.exec("INSERT INTO people (initials, created_at) VALUES ('AK', '')");
    old.exec("INSERT INTO machines (id, fleet_number, kind, name, site, created_at) VALUES ('m', 'M', 'zero-turn', 'm', 's', '')");
    old.exec("INSERT INTO jobs (id, machine_id, opened_at, state) VALUES (1, 'm', '', 'waiting')");
    old.pragma("foreign_keys = ON");
    migrate(old, { now: "2026-11-23T00:00:00.000Z" });
    expect(old.prepare("SELECT id, kind, undoes_id FROM steps ORDER BY id").all()).toEqual([
      { id: 7, kind: "note", undoes_id: null },
      { id: 8, kind: "undo", undoes_id: 7 },
    ]);
    const { lastInsertRowid } = old
      .prepare("INSERT INTO steps (job_id, kind, data_json, who, at, seq) VALUES (1, 'skip', '{}', 'AK', '', 99)")
      .run();
    expect(lastInsertRowid).toBe(9);
    expect(() => old.exec("UPDATE steps SET at = 'x'")).toThrow("only added");
    expect(() => old.exec("INSERT INTO steps (job_id, kind, data_json, who, at, seq) VALUES (2, 'note', '{}', 'AK', '', 100)")).toThrow(
      "FOREIGN KEY",
    );
  });
});
