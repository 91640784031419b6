import { beforeEach, describe, expect, it } from "vitest";
import { panelOf } from "@/app/jobs/[id]/safe/clearing";
import { listSteps, nextPanel, otherChecks, stateWanted } from "@/app/jobs/[id]/steps";
import { seededRandom } from "@/core/basics/random";
import { CHECKS } from "@/core/catalogue";
import { checkRow } from "@/core/checks";
import { soundReadings, spoiled } from "@/core/checks/sound";
import { workUp } from "@/core/diagnosis";
import { allYes, itemsFor } from "@/core/job/safety";
import { putBackPoints } from "@/core/job/status";
import { recordTake } from "@/data/checks/takes";
import { takeComplaint } from "@/data/job/complaints";
import { closeJob, proofOfJob, recordFix, recordSkip } from "@/data/job/job-actions";
import { getJobView } from "@/data/job/job-view";
import { recordConfirmation, recordLift, recordPutBack } from "@/data/job/safe-state";
import { getMachine } from "@/data/machine/machines";
import { logEvent } from "@/data/service/events";
import type { Db } from "@/data/store/db";
import { Clock, cutWith, emptyDepot, LEDGE_INCHES, LEVEL_INCHES, makeReady, makeSafe, openJob, refusedFor, tips, tyres } from "./helpers";

let db: Db;
let clock: Clock;
beforeEach(() => {
  ({ db, clock } = emptyDepot());
});

function look(jobId: number) {
  const view = getJobView(db, jobId);
  const worked = workUp({ ...view.case.input, order: "information" });
  const steps = listSteps(view, worked);
  return { view, steps, next: nextPanel(view, worked, "AK"), wanted: stateWanted(view, worked) };
}

const take = (jobId: number, checkId: string, readings: unknown) =>
  recordTake(db, clock.doing(), { jobId, checkId, readings, asTyped: {} });
const hangersSound = (jobId: number) =>
  take(jobId, "hanger-inspection", {
    hangers: Object.fromEntries((getMachine(db, "zt-1").machine.deck?.hangers ?? []).map(({ id }) => [id, { state: "sound" }])),
    shell: { state: "sound" },
  });
const cut = (jobId: number, looks: "all-alike" | "same") => cutWith(db, clock, jobId, { looks });

describe("what to do next in a job", () => {
  it("goes from safe through the checks that tell most, to the fix, the proof, the cut and the close", () => {
    const jobId = openJob(db, clock);
    // The tyres, read while it stands parked, come before the level that rests on them, and the hangers on the way to it.
    expect(look(jobId)).toMatchObject({ next: "safe", wanted: "parked" });
    makeSafe(db, clock, jobId, "parked");
    expect(look(jobId).next).toBe("check:tyre-pressure");
    take(jobId, "tyre-pressure", tyres([12, 18, 18, 12]));
    expect(look(jobId)).toMatchObject({ next: "safe", wanted: "locked-out" });
    makeSafe(db, clock, jobId, "locked-out");
    expect(look(jobId).next).toBe("check:hanger-inspection");
    hangersSound(jobId);
    expect(look(jobId).next).toBe("check:deck-level");
    take(jobId, "deck-level", tips(LEDGE_INCHES));
    expect(look(jobId).next).toBe("fix");
    recordFix(db, clock.doing(), { jobId, fix: "adjust-hangers", cause: "deck-out-of-level", words: "" });
    expect(look(jobId).next).toBe("check:deck-level");
    take(jobId, "deck-level", tips(LEVEL_INCHES));
    expect(look(jobId).next).toBe("put-back");
    const points = putBackPoints(getMachine(db, "zt-1").machine, getJobView(db, jobId).machineState);
    recordPutBack(db, clock.doing(), { jobId, answers: allYes(points) });
    expect(look(jobId)).toMatchObject({ next: "safe", wanted: "running" });
    makeSafe(db, clock, jobId, "running");
    expect(look(jobId).next).toBe("cut");
    cut(jobId, "all-alike");
    expect(look(jobId).next).toBe("close");
    closeJob(db, clock.doing(), { jobId, causes: ["deck-out-of-level"], words: "" });
    expect(look(jobId)).toMatchObject({ next: "close", view: { state: "closed" } });
  });

  it("goes on looking when the cut is no better than before", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    take(jobId, "tyre-pressure", tyres([8, 18, 18, 12]));
    const pressures = [{ wheelId: "left-drive", fromPascals: 55_000, toPascals: 83_000 }];
    recordFix(db, clock.doing(), { jobId, fix: "set-pressures", cause: "tyres-unequal", words: "", pressures });
    take(jobId, "tyre-pressure", tyres([12, 18, 18, 12]));
    take(jobId, "deck-level", tips(LEVEL_INCHES));
    makeReady(db, clock, jobId);
    cut(jobId, "same");
    makeSafe(db, clock, jobId, look(jobId).wanted);
    expect(look(jobId).next).toMatch(/^check:/);
  });

  it("reads once more, after a mend and before the cut, what came out too close to call; not for ever", () => {
    const jobId = openJob(db, clock, "rw-1");
    const { machine } = getMachine(db, "rw-1");
    const safe = (state: Parameters<typeof makeSafe>[3]) => makeSafe(db, clock, jobId, state, "rw-1");
    const sound = (check: string) => soundReadings({ machine, check, random: seededRandom(2), turf: "Green" }) ?? {};
    safe("locked-out");
    const passes = { left: "passes", middle: "passes", right: "passes" };
    take(jobId, "reel-contact", spoiled(sound("reel-contact"), { "units.unit.worst": passes }));
    recordConfirmation(db, clock.doing(), { jobId, state: "bench", answers: allYes(itemsFor(machine, "bench")), parts: ["unit"] });
    recordFix(db, clock.doing(), { jobId, fix: "set-contact", cause: "contact-loose", words: "" });
    const near = spoiled(sound("reel-contact"), { "units.unit.gaps": { left: 0.00003, middle: 0.00003, right: 0.00003 } });
    expect(take(jobId, "reel-contact", near).assessment.verdict).toBe("watch");
    expect(look(jobId).next).toBe("check:reel-contact");
    take(jobId, "reel-contact", near);
    expect(look(jobId).next).not.toBe("check:reel-contact");
  });

  it("reads off the turf only after a cut since the mend, and takes nothing read before it for proof", () => {
    const jobId = openJob(db, clock, "rw-1");
    const { machine } = getMachine(db, "rw-1");
    const sound = (check: string) => soundReadings({ machine, check, random: seededRandom(2), turf: "Green" }) ?? {};
    makeSafe(db, clock, jobId, "locked-out", "rw-1");
    take(
      jobId,
      "reel-contact",
      spoiled(sound("reel-contact"), { "units.unit.worst": { left: "passes", middle: "passes", right: "passes" } }),
    );
    recordConfirmation(db, clock.doing(), { jobId, state: "bench", answers: allYes(itemsFor(machine, "bench")), parts: ["unit"] });
    recordFix(db, clock.doing(), { jobId, fix: "set-contact", cause: "contact-loose", words: "" });
    take(jobId, "reel-contact", sound("reel-contact"));
    expect(look(jobId).next).not.toBe("check:cutting-height");
    take(jobId, "cutting-height", sound("cutting-height"));
    expect(proofOfJob(db, jobId).gaps).toContainEqual({ code: "read-before-cut", check: "cutting-height" });
    expect(look(jobId).next).not.toBe("check:cutting-height");
    makeReady(db, clock, jobId, "rw-1");
    cutWith(db, clock, jobId, { looks: "all-alike", seenCutting: ["unit"] });
    makeSafe(db, clock, jobId, "parked", "rw-1");
    expect(look(jobId).next).toBe("check:cutting-height");
    take(jobId, "cutting-height", sound("cutting-height"));
    expect(proofOfJob(db, jobId).gaps.filter((gap) => "check" in gap)).toEqual([]);
  });

  it("after a strike looks first, at what needs no run, and suggests nothing that runs the machine meanwhile", () => {
    logEvent(db, clock.doing(), { machineId: "zt-1", event: "struck", words: "a root" });
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "raised");
    const { next, steps } = look(jobId);
    // What can fly first.
    expect(next).toMatch(/^check:(blade-edge|blade-track|spindle-play)$/);
    const running = steps.filter(({ panel }) => panel.startsWith("check:") && checkRow(panel.slice(6))?.state === "running");
    expect(running).toEqual([]);
    hangersSound(jobId);
    expect(look(jobId).next).toMatch(/^check:(deck-level|blade-edge|blade-track|spindle-play)$/);
  });

  it("asks for the state the next check needs when the machine is not ready for it", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "parked");
    take(jobId, "tyre-pressure", tyres([12, 18, 18, 12]));
    expect(look(jobId)).toMatchObject({ next: "safe", wanted: "locked-out" });
  });

  it("passes over what was left out, and keeps every other check of the machine within reach", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    recordSkip(db, clock.doing(), { jobId, checkId: "tyre-pressure", reason: "no-tool", words: "" });
    const { next, view, steps } = look(jobId);
    expect(next).not.toBe("check:tyre-pressure");
    const reachable = [
      ...otherChecks(view, steps).map(({ id }) => id),
      ...steps.flatMap(({ panel }) => (panel.startsWith("check:") ? [panel.slice(6)] : [])),
    ];
    const offered = CHECKS.filter(
      ({ on, needs }) => (on as readonly string[]).includes("rotary") && !JSON.stringify(needs).includes("gears"),
    );
    expect(new Set(reachable)).toEqual(new Set(offered.map(({ id }) => id)));
  });

  it("lists checks by minutes until something is found, and then no more of them", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    expect(look(jobId).steps.filter(({ minutes }) => minutes !== undefined)).toHaveLength(3);
    take(jobId, "tyre-pressure", tyres([7, 18, 18, 12]));
    expect(look(jobId).steps.filter(({ minutes }) => minutes !== undefined)).toHaveLength(0);
  });

  it("asks about browning only once a cut had its two days to brown", () => {
    const looks = { symptoms: ["torn-tips" as const], denied: [], contexts: [] };
    const told = clock.doing();
    const { jobId } = takeComplaint(db, told, { machineId: "zt-1", words: "torn", saidBy: "TV", place: "", looks, since: "yesterday" });
    const tooSoon = (hours: number) =>
      getJobView(db, jobId, new Date(Date.parse(told.now) + hours * 3_600_000).toISOString()).case.input.tooSoon;
    expect([tooSoon(1), tooSoon(23), tooSoon(25)]).toEqual([["browning"], ["browning"], []]);
  });

  it("has something to look at even where nobody said what the cut looks like", () => {
    const looks = { symptoms: [], denied: [], contexts: [] };
    const { jobId } = takeComplaint(db, clock.doing(), { machineId: "wc-1", words: "looks bad", saidBy: "TV", place: "", looks });
    makeSafe(db, clock, jobId, look(jobId).wanted, "wc-1");
    expect(look(jobId).next).toMatch(/^check:/);
    expect(look(jobId).steps.some(({ minutes }) => minutes !== undefined)).toBe(true);
  });
});

describe("what to do next at a machine that is not one's own alone", () => {
  const sheetOf = (check: string, spoils: Record<string, unknown> = {}) =>
    JSON.parse(
      JSON.stringify(
        spoiled(soundReadings({ machine: getMachine(db, "zt-1").machine, check, random: seededRandom(4), turf: "Verge" }) ?? {}, spoils),
      ),
    );

  it("a stop that another job found is cleared before a mended machine is made ready here", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "raised");
    take(jobId, "tyre-pressure", tyres([12, 18, 18, 12]));
    hangersSound(jobId);
    take(jobId, "deck-level", tips(LEDGE_INCHES));
    recordFix(db, clock.doing(), { jobId, fix: "adjust-hangers", cause: "deck-out-of-level", words: "" });
    take(jobId, "deck-level", tips(LEVEL_INCHES));
    const other = openJob(db, clock);
    take(other, "blade-edge", sheetOf("blade-edge", { "blades.left.crack": "cracked" }));
    expect(look(jobId).next).toBe("fix");
    logEvent(db, clock.doing(), { machineId: "zt-1", event: "blade-changed" });
    expect(look(jobId).view.machineState.unsafe).toMatchObject([{ isReplacedSince: true }]);
    take(other, "blade-edge", sheetOf("blade-edge"));
    expect(look(jobId).view.machineState.unsafe).toEqual([]);
  });

  it("another's lock-out leads to him, not to the button", () => {
    const jobId = openJob(db, clock);
    const bl = new Clock("BL");
    makeSafe(db, clock, jobId);
    take(jobId, "tyre-pressure", tyres([12, 18, 18, 12]));
    hangersSound(jobId);
    take(jobId, "deck-level", tips(LEDGE_INCHES));
    recordFix(db, clock.doing(), { jobId, fix: "adjust-hangers", cause: "deck-out-of-level", words: "" });
    take(jobId, "deck-level", tips(LEVEL_INCHES));
    makeSafe(db, bl, openJob(db, bl), "locked-out");
    const points = putBackPoints(getMachine(db, "zt-1").machine, getJobView(db, jobId).machineState);
    const putBack = () => recordPutBack(db, clock.doing(), { jobId, answers: allYes(points) });
    expect(refusedFor(putBack)).toEqual(["not-safe", "locked-by"]);
    expect(look(jobId).next).toBe("held");
    recordLift(db, bl.doing(), { jobId, owner: "BL", reason: "" });
    expect(look(jobId).next).toBe("put-back");
    putBack();
    expect(look(jobId)).toMatchObject({ next: "safe", wanted: "running" });
  });

  it("after a strike a look that needs no run comes first, whatever was complained of; none of the list runs the machine", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "raised");
    logEvent(db, clock.doing(), { machineId: "zt-1", event: "struck", words: "a root" });
    const { view, next } = look(jobId);
    expect(view.machineState.struck?.checks.map((id) => `check:${id}`)).toContain(next.startsWith("check:") ? next : "");
    const planned = workUp({ ...view.case.input, order: "information" }).plan.checks.map(({ id }) => id);
    expect(planned.filter((id) => checkRow(id)?.state === "running")).toEqual([]);
  });

  it("with a stop open that is not this job's, and nothing of its own left, it is led to what is unsafe and not to the close", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "raised");
    take(jobId, "blade-edge", sheetOf("blade-edge"));
    const { view } = look(jobId);
    for (const { id } of workUp({ ...view.case.input, order: "information" }).plan.checks)
      recordSkip(db, clock.doing(), { jobId, checkId: id, reason: "no-time", words: "" });
    expect(look(jobId).next).toBe("close");
    take(openJob(db, clock), "blade-edge", sheetOf("blade-edge", { "blades.left.crack": "cracked" }));
    expect(look(jobId).next).toBe("held");
  });

  it("every reason leads somewhere, and to nothing else than what clears it", () => {
    expect(panelOf({ do: "read", check: "blade-edge" })).toBe("check:blade-edge");
    expect(panelOf({ do: "put-back" })).toBe("put-back");
    expect(panelOf({ do: "make-ready" })).toBe("safe");
    expect(panelOf({ do: "refit-deck" })).toBe("deck");
    expect(panelOf({ do: "refit-box", place: "left" })).toBe("box");
    for (const clears of [{ do: "lift", owner: "BL" } as const, { do: "release" } as const]) expect(panelOf(clears)).toBe("held");
  });
});
