import { describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import { soundReadings, spoiled } from "@/core/checks/sound";
import type { SafeState } from "@/core/job/safety";
import { allYes } from "@/core/job/safety";
import { isLetGoByWord, putBackPoints } from "@/core/job/status";
import { recordTake } from "@/data/checks/takes";
import { closeJob, recordFix, recordHold, recordJobEvent, recordRelease, undoStep } from "@/data/job/job-actions";
import { getJobView } from "@/data/job/job-view";
import { recordLift, recordPutBack } from "@/data/job/safe-state";
import { getMachine } from "@/data/machine/machines";
import { stateOfMachine } from "@/data/projections/machine-state";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { Clock, cutWith, emptyDepot, makeReady, makeSafe, openJob, refusedFor } from "./helpers";

/**
 * Two people, three jobs on one machine, whatever they try in whatever order: beside the record runs a second, much smaller account of the two
 * things that matter here, kept by what was accepted alone. It knows one blade, and who is locked on.
 */
type Kept = { who: string; jobId: number; stepId: number } & (
  | { did: "blade"; is: "cracked" | "sound"; correctsStepId?: number }
  | { did: "new-blade" | "fit-read" | "run" }
  | { did: "word"; stepId: number }
  | { did: "released"; keys: string[] }
  | { did: "stood"; state: SafeState }
  | { did: "lifted"; owner: string }
);

class Account {
  private readonly kept: Kept[] = [];
  private readonly takenBack = new Set<number>();
  add(one: Kept): void {
    this.kept.push(one);
  }
  takeBack(stepId: number): void {
    this.takenBack.add(stepId);
  }
  /** What a step was, for what is told when it is taken back. */
  of(stepId: number): Kept | undefined {
    return this.kept.find((one) => one.stepId === stepId);
  }
  /** A correction stands where what it corrects stood, and while it stands that one does not. */
  private standing(): Kept[] {
    const live = this.kept.filter(({ stepId, did }) => did === "run" || !this.takenBack.has(stepId));
    const corrected = new Map(
      live.flatMap((one) => (one.did === "blade" && one.correctsStepId !== undefined ? [[one.correctsStepId, one] as const] : [])),
    );
    return live.flatMap((one) => {
      if (one.did === "blade" && one.correctsStepId !== undefined) return [];
      return [corrected.get(one.stepId) ?? one];
    });
  }
  isCracked(): boolean {
    let isCracked = false;
    let isNew = false;
    for (const one of this.standing()) {
      // Looked at again a cracked blade is still the same blade: only another lets go of it.
      if (one.did === "blade" && one.is === "cracked") isCracked = true;
      if (one.did === "blade" && one.is === "sound" && isNew) isCracked = false;
      if (one.did === "blade" && one.is === "cracked") isNew = false;
      if (one.did === "new-blade") isNew = isCracked;
      if (one.did === "fit-read" && isNew) isCracked = false;
    }
    return isCracked;
  }
  words(): number {
    const open = new Set<number>();
    for (const one of this.standing()) {
      if (one.did === "word") open.add(one.stepId);
      if (one.did === "released") for (const key of one.keys) if (key.startsWith("hold:")) open.delete(Number(key.slice(5)));
    }
    return open.size;
  }
  lockedOn(): string[] {
    const on = new Set<string>();
    for (const one of this.kept) {
      // What is taken back leaves every lock-out as it was.
      if (this.takenBack.has(one.stepId)) continue;
      if (one.did === "run") on.delete(one.who);
      if (one.did === "lifted") on.delete(one.owner);
      if (one.did !== "stood") continue;
      if (one.state === "locked-out" || one.state === "raised") on.add(one.who);
      else on.delete(one.who);
    }
    return [...on].sort();
  }
}

/** A clock that is set back an hour now and then. */
class FaultyClock extends Clock {
  private hoursSlow = 0;
  override doing(submissionId?: string): Doing {
    const { now, ...rest } = super.doing(submissionId);
    return { ...rest, now: new Date(Date.parse(now) - this.hoursSlow * 3_600_000).toISOString() };
  }
  setBack(): void {
    this.hoursSlow += 1;
  }
}

const MACHINE = "zt-1";
const WHY = "seen again by the two of us";
const STEPS = 70;
const SEEDS = Array.from({ length: 16 }, (_, seed) => seed + 1);

type Tally = Record<string, { done: number; refused: number }>;

/** One walk; every step of it is checked against the account. */
function walk(seed: number, tally: Tally): void {
  const random = seededRandom(seed);
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)] as T;
  const { db } = emptyDepot();
  const people = [new FaultyClock("AK"), new FaultyClock("BL")];
  const names = ["AK", "BL"];
  const jobs = [0, 1, 2].map((n) => openJob(db, people[n % 2] as Clock, MACHINE));
  const account = new Account();
  const { machine } = getMachine(db, MACHINE);
  const sheet = (check: string, spoils: Record<string, unknown> = {}) =>
    JSON.parse(JSON.stringify(spoiled(soundReadings({ machine, check, random: seededRandom(2), turf: "Verge" }) ?? {}, spoils)));

  const attempt = (name: string, action: () => void): boolean => {
    const told = refusedFor(action);
    const row = tally[name] ?? { done: 0, refused: 0 };
    tally[name] = row;
    row[told.length === 0 ? "done" : "refused"] += 1;
    return told.length === 0;
  };

  for (let step = 0; step < STEPS; step++) {
    const p = Math.floor(random() * 2);
    const [clock, who, jobId] = [people[p] as FaultyClock, names[p] as string, pick(jobs)];
    const wasCracked = account.isCracked();
    const words = account.words();
    const others = account.lockedOn().filter((one) => one !== who);
    const mayTurn = !wasCracked && words === 0 && others.length === 0;
    const context = `seed ${seed}, step ${step}: ${who} in ${jobId}`;
    const read = (is: "cracked" | "sound", correctsStepId?: number) =>
      attempt(`reads ${is}`, () => {
        const readings = sheet("blade-edge", is === "cracked" ? { "blades.left.crack": "cracked" } : {});
        const { stepId } = recordTake(db, clock.doing(), {
          jobId,
          checkId: "blade-edge",
          readings,
          asTyped: {},
          ...(correctsStepId === undefined ? {} : { correctsStepId }),
        });
        account.add({ did: "blade", is, who, jobId, stepId, ...(correctsStepId === undefined ? {} : { correctsStepId }) });
      });
    const stand = (state: SafeState) =>
      attempt(`stands ${state}`, () => {
        makeSafe(db, clock, jobId, state, MACHINE);
        account.add({ did: "stood", state, who, jobId, stepId: lastStep(db, jobId) });
      });
    const turning = (name: string, action: () => void) => {
      const isDone = attempt(name, action);
      if (isDone) expect(mayTurn, `${context}: ${name}`).toBe(true);
    };

    switch (pick(DEEDS)) {
      case "crack":
        read("cracked");
        break;
      case "sound":
        read("sound");
        break;
      case "correct": {
        const mine = account.of(getJobView(db, jobId).takes.find(({ checkId }) => checkId === "blade-edge")?.stepId ?? -1);
        if (mine?.did === "blade" && mine.correctsStepId === undefined) read(pick(["cracked", "sound"]), mine.stepId);
        break;
      }
      case "lock":
        stand(pick(["locked-out", "raised", "raised", "raised"]));
        break;
      case "park":
        stand("parked");
        break;
      case "ready":
        turning("makes ready", () => {
          makeReady(db, clock, jobId, MACHINE);
          account.add({ did: "stood", state: "running", who, jobId, stepId: lastStep(db, jobId) });
        });
        break;
      case "cut":
        turning("cuts", () => {
          cutWith(db, clock, jobId);
          account.add({ did: "run", who, jobId, stepId: lastStep(db, jobId) });
        });
        break;
      case "speed":
        turning("reads it running", () =>
          recordTake(db, clock.doing(), { jobId, checkId: "tip-speed", readings: sheet("tip-speed"), asTyped: {} }),
        );
        break;
      case "put-back":
        attempt("puts back", () => {
          recordPutBack(db, clock.doing(), { jobId, answers: allYes(putBackPoints(machine, stateOfMachine(db, MACHINE))) });
        });
        break;
      case "fit":
        attempt("fits a blade", () => {
          const { stepId } = recordFix(db, clock.doing(), { jobId, fix: "replace-blades", cause: "blade-damaged", words: "" });
          account.add({ did: "new-blade", who, jobId, stepId });
        });
        break;
      case "read-fit":
        attempt("reads the fit", () => {
          const { stepId } = recordTake(db, clock.doing(), { jobId, checkId: "blade-fit", readings: sheet("blade-fit"), asTyped: {} });
          account.add({ did: "fit-read", who, jobId, stepId });
        });
        break;
      case "hold":
        attempt("holds", () => {
          const { stepId } = recordHold(db, clock.doing(), { jobId, reason: "waits for its sheet" });
          account.add({ did: "word", who, jobId, stepId });
        });
        break;
      case "release": {
        const { unsafe } = stateOfMachine(db, MACHINE);
        // Now and then the crack too, which no word lets go of.
        const keys = unsafe.filter((cause) => isLetGoByWord(cause) || random() < 0.3).map(({ key }) => key);
        const reason = pick(["ok", WHY]);
        const isDone = attempt(`releases, ${reason === "ok" ? "without a reason" : "with one"}`, () => {
          const { stepId } = recordRelease(db, clock.doing(), { jobId, reasons: keys.map((key) => ({ key, reason })) });
          account.add({ did: "released", keys, who, jobId, stepId });
        });
        if (isDone)
          expect([reason, keys.every((key) => key.startsWith("hold:") || key.startsWith("event:"))], context).toEqual([WHY, true]);
        break;
      }
      case "lift": {
        const owner = names[1 - p] as string;
        const reason = pick(["", WHY]);
        const isDone = attempt("lifts another's lock", () => {
          const { stepId } = recordLift(db, clock.doing(), { jobId, owner, reason });
          account.add({ did: "lifted", owner, who, jobId, stepId });
        });
        if (isDone) expect(reason, context).toBe(WHY);
        break;
      }
      case "run":
        attempt("says it was run", () => {
          const { stepId } = recordJobEvent(db, clock.doing(), { jobId, event: "run", words: WHY });
          account.add({ did: "run", who, jobId, stepId });
        });
        break;
      case "undo": {
        const stepId = getJobView(db, jobId).undoableStepId;
        if (stepId === undefined) break;
        const what = account.of(stepId);
        const reason = pick(["", WHY]);
        const before = stateOfMachine(db, MACHINE).unsafe.map(({ key }) => key);
        const isDone = attempt("undoes", () => undoStep(db, clock.doing(), { jobId, stepId, reason }));
        if (!isDone) break;
        account.takeBack(stepId);
        const after = stateOfMachine(db, MACHINE).unsafe.map(({ key }) => key);
        expect(what?.did, `${context}: a hold is not undone`).not.toBe("word");
        if (what?.did === "stood" && what.state !== "running" && what.state !== "parked") expect(what.who, context).toBe(who);
        if (before.some((key) => !after.includes(key))) expect(reason, `${context}: let go without a reason`).toBe(WHY);
        break;
      }
      case "close":
        attempt("closes", () =>
          closeJob(db, clock.doing(), { jobId, causes: ["nothing-found"], words: "", unprovedReason: "no time for it" }),
        );
        break;
      case "clock":
        clock.setBack();
        break;
    }
    const { unsafe, locks } = stateOfMachine(db, MACHINE);
    expect(
      unsafe.some(({ key }) => key === "stop:blade-edge:left"),
      `${context}: the crack`,
    ).toBe(account.isCracked());
    expect(unsafe.filter(({ kind }) => kind === "by-word").length, `${context}: holds by word`).toBe(account.words());
    expect(locks.map((one) => one.who).sort(), `${context}: who is locked on`).toEqual(account.lockedOn());
    expect(getJobView(db, pick(jobs)).machineState, `${context}: one state in every job`).toEqual(stateOfMachine(db, MACHINE));
  }
}

const lastStep = (db: Db, jobId: number): number => getJobView(db, jobId).steps.at(-1)?.id ?? 0;

const DEEDS = [
  ...[
    "crack",
    "crack",
    "crack",
    "sound",
    "sound",
    "correct",
    "lock",
    "lock",
    "lock",
    "park",
    "ready",
    "ready",
    "ready",
    "cut",
    "cut",
    "cut",
    "speed",
  ],
  ...[
    "put-back",
    "fit",
    "read-fit",
    "read-fit",
    "hold",
    "release",
    "release",
    "lift",
    "lift",
    "run",
    "undo",
    "undo",
    "undo",
    "close",
    "clock",
  ],
] as const;

describe("two people and three jobs on one machine, in any order", () => {
  const tally: Tally = {};
  it.each(SEEDS)("no blade is got turning over a crack, a hold or another's lock-out: walk %i", (seed) => walk(seed, tally));

  it("and the walks did get somewhere: everything was done, and everything that can be refused was", () => {
    for (const name of ["makes ready", "cuts", "reads it running", "undoes", "lifts another's lock", "fits a blade"]) {
      expect(tally[name]?.done, name).toBeGreaterThan(1);
      expect(tally[name]?.refused, name).toBeGreaterThan(1);
    }
    expect(tally["releases, without a reason"]).toMatchObject({ done: 0 });
  });
});
