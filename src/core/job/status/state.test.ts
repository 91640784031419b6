import { describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import type { CheckId, EventId } from "@/core/catalogue";
import { assessLook, checkRow } from "@/core/checks";
import { keyOfFinding, SHEETS, spoilsOf, with_ } from "@/core/checks/every-answer.fixtures";
import { assessed, machineOf } from "@/core/checks/sheets.fixtures";
import { soundReadings, spoiled } from "@/core/checks/sound";
import type { Assessment } from "@/core/checks/types";
import { isBroken, isIn, machineState, mayRun, type Purpose, putBackPoints } from "./index";
import { Log } from "./log.fixtures";

const zeroTurn = machineOf("ZT-1");
const geared = machineOf("GR-1");
const petrol = machineOf("WP-1");
const random = seededRandom(5);
const read = (check: string, spoils: Record<string, unknown> = {}, machine = zeroTurn): Assessment =>
  // What is undefined is left out, as it is in what a browser sends.
  assessed(check, machine, JSON.parse(JSON.stringify(spoiled(soundReadings({ machine, check, random, turf: "Verge" }) ?? {}, spoils))));
const stateOf = (log: Log, machine = zeroTurn) => machineState(machine, log.lines);
const whyNot = (log: Log, purpose: Purpose = { to: "cut" }, machine = zeroTurn) =>
  mayRun(stateOf(log, machine), purpose).reasons.map(({ code }) => code);
const ready = (who = "AK"): Purpose => ({ to: "make-ready", who });
const crack = { "blades.left.crack": "cracked" };

describe("how a machine stands", () => {
  it("is by the last word, whichever job it was given in, and lapses everywhere when it was run", () => {
    const log = new Log().by("AK", 1).confirm("locked-out");
    expect(stateOf(log.by("BL", 2)).stands).toMatchObject({ state: "locked-out", who: "AK", jobId: 1 });
    const run = stateOf(log.event("run"));
    expect([run.stands, run.lapsed?.state]).toEqual([undefined, "locked-out"]);
  });

  it("goes by the order of the log: a clock set back keeps no safe state alive over a run", () => {
    const log = new Log().confirm("raised").event("run");
    const [confirmed, run] = log.lines;
    expect((confirmed?.at ?? "") > (run?.at ?? "")).toBe(true);
    expect(stateOf(log).stands).toBeUndefined();
  });

  it("does not come back when a run is taken back: a machine that was run is confirmed again", () => {
    expect(stateOf(new Log().confirm("raised").event("run", { isTakenBack: true })).stands).toBeUndefined();
  });

  it("falls when a firm point is refused, and what was confirmed before does not stand", () => {
    const state = stateOf(new Log().confirm("locked-out").by("BL", 2).confirm("locked-out", { outcome: "stopped" }));
    expect([state.stands, state.stopped?.who, state.locks.map(({ who }) => who)]).toEqual([undefined, "BL", ["AK"]]);
  });

  it("taken back leaves nothing standing, not what stood before it", () => {
    expect(stateOf(new Log().confirm("parked").confirm("locked-out", { isTakenBack: true })).stands).toBeUndefined();
  });

  it("ready to run is nobody's word any more once the job that said so is closed; a lock-out stays", () => {
    expect(stateOf(new Log().confirm("running").add({ kind: "close" })).stands).toBeUndefined();
    const locked = stateOf(new Log().confirm("locked-out").add({ kind: "close" }));
    expect([locked.stands?.state, locked.locks.length]).toEqual(["locked-out", 1]);
  });

  it("bench is a state of the part: the machine is not lowered by it, and does not run without the part", () => {
    const log = new Log().confirm("raised").confirm("bench", { parts: ["left"] });
    expect([stateOf(log).stands?.state, isIn(stateOf(log), "bench"), isIn(stateOf(log), "raised")]).toEqual(["raised", true, true]);
    expect(whyNot(log, ready())).toContain("part-on-bench");
    expect(isIn(stateOf(log.putBack()), "bench")).toBe(false);
  });
});

describe("a lock-out has an owner", () => {
  it("one's ready-to-run takes off his own lock and not another's", () => {
    const log = new Log().by("AK").confirm("locked-out").by("BL", 2).confirm("locked-out").putBack();
    expect(whyNot(log, ready("AK"))).toEqual(["locked-by"]);
    expect(whyNot(log.add({ kind: "lift", owner: "BL", reason: "" }), ready("AK"))).toEqual([]);
    const [lock] = stateOf(log).locks;
    expect(lock?.who).toBe("AK");
  });

  it("whoever locks on to a machine that stands fuller does not lower it", () => {
    const state = stateOf(new Log().by("AK").confirm("raised").by("BL", 2).confirm("locked-out"));
    expect([state.stands?.state, state.locks.map(({ who }) => who)]).toEqual(["raised", ["AK", "BL"]]);
  });

  it("lifted, the machine stands as who is still locked on says, with nobody by nobody's word", () => {
    const log = new Log()
      .by("AK")
      .confirm("raised")
      .by("BL", 2)
      .confirm("locked-out")
      .by("AK")
      .add({ kind: "lift", owner: "AK", reason: "" });
    expect(stateOf(log).stands).toMatchObject({ state: "locked-out", who: "BL" });
    expect(stateOf(log.by("BL").add({ kind: "lift", owner: "BL", reason: "" })).stands).toBeUndefined();
  });

  it("a ready-to-run taken back does not take the lock-out off that stood before it", () => {
    const state = stateOf(new Log().confirm("locked-out").confirm("running", { isTakenBack: true }));
    expect([state.stands, state.locks.map(({ who }) => who)]).toEqual([undefined, ["AK"]]);
  });
});

describe("every stop holds", () => {
  const held = (log: Log) => stateOf(log).unsafe.map(({ key }) => key);
  const cracked = () => new Log().by("AK", 1).take("blade-edge", read("blade-edge", crack));

  it("in every job, until that place is read right by the same check", () => {
    const log = cracked().by("BL", 2);
    expect([held(log), whyNot(log, ready("BL"))]).toEqual([["stop:blade-edge:left"], ["unsafe"]]);
    // Looked at again it is still the same blade.
    expect(held(log.take("blade-edge", read("blade-edge")))).toEqual(["stop:blade-edge:left"]);
    expect(held(log.event("blade-refitted").take("blade-edge", read("blade-edge")))).toEqual(["stop:blade-edge:left"]);
    expect(held(log.event("blade-changed").take("blade-edge", read("blade-edge")))).toEqual([]);
  });

  it("of a part that broke not by another's change, nor by one from before it broke", () => {
    const sound = read("blade-edge");
    expect(held(new Log().event("blade-changed").take("blade-edge", read("blade-edge", crack)).take("blade-edge", sound))).toHaveLength(1);
    expect(held(cracked().event("blade-changed", { place: "right" }).take("blade-edge", sound))).toHaveLength(1);
    expect(held(cracked().event("blade-changed", { place: "left" }).take("blade-edge", sound))).toEqual([]);
  });

  it("is led to another part, not to another look, until one came in", () => {
    const clearing = (log: Log) => mayRun(stateOf(log), { to: "prove" }).reasons.map(({ clears }) => clears.do);
    expect(clearing(cracked())).toEqual(["replace"]);
    expect(clearing(cracked().event("blade-changed"))).toContain("read");
  });

  it("not by a reading that did not read the place, nor by another check, nor by a run", () => {
    const others = { "blades.left": undefined };
    expect(held(cracked().take("blade-edge", read("blade-edge", others)))).toHaveLength(1);
    expect(held(cracked().take("blade-edge", read("blade-edge", { "blades.left.A": {}, "blades.left.B": {} })))).toHaveLength(1);
    expect(held(cracked().take("blade-fit", read("blade-fit")))).toHaveLength(1);
    expect(held(cracked().event("run"))).toHaveLength(1);
  });

  it("until the part was changed and read: a new set, and its fit read at that place", () => {
    const changed = cracked().fix("replace-blades", "blade-damaged");
    expect(held(changed)).toHaveLength(1);
    expect(held(changed.take("blade-fit", read("blade-fit", { "blades.left": undefined })))).toHaveLength(1);
    expect(held(changed.take("blade-fit", read("blade-fit")))).toEqual([]);
    // Ground and put on again it is the same blade: only its own reading clears it.
    expect(held(cracked().fix("sharpen-blades", "blade-damaged").take("blade-fit", read("blade-fit")))).toHaveLength(1);
  });

  it("two at one place are two: one read right leaves the other", () => {
    const log = cracked().take(
      "blade-fit",
      read("blade-fit", { "blades.left.tightened": "loose", "blades.left.torqueNewtonMetres": undefined }),
    );
    expect(held(log)).toEqual(["stop:blade-edge:left", "stop:blade-fit:left"]);
    expect(held(log.take("blade-fit", read("blade-fit")))).toEqual(["stop:blade-edge:left"]);
  });

  it("worked out on paper is cleared on paper or by measuring; measured never on paper", () => {
    const paper = () => new Log().take("tip-speed", assessed("tip-speed", zeroTurn, { spindles: { middle: { drivenPitchMetres: 0.1 } } }));
    expect(held(paper())).toEqual(["stop:tip-speed:middle#paper"]);
    expect(held(paper().take("tip-speed", assessed("tip-speed", zeroTurn, { paper: { slip: 0.01 } })))).toEqual([]);
    const fast = read("tip-speed", { "spindles.middle.revolutionsPerMinute": 4400 });
    const measured = () => new Log().take("tip-speed", fast);
    expect(held(measured().take("tip-speed", assessed("tip-speed", zeroTurn, { paper: { slip: 0.01 } })))).toEqual([
      "stop:tip-speed:middle",
    ]);
    expect(held(measured().take("tip-speed", read("tip-speed")))).toEqual([]);
  });

  it("seen in a look it holds as when measured, and the worksheet that clears the cause clears it", () => {
    const row = checkRow("blade-fit");
    if (!row) throw new Error("no blade-fit");
    const look = (result: "seen" | "not-found" | "unclear") =>
      assessLook({ machine: zeroTurn, row, each: [{ cause: "blade-loose", result }], otherwise: "unclear", note: "" });
    const seen = () => new Log().take("blade-fit", look("seen"));
    expect([held(seen()), look("seen").verdict]).toEqual([["stop:blade-fit:machine#blade-loose"], "stop"]);
    expect(held(seen().take("blade-fit", look("unclear")))).toHaveLength(1);
    expect(held(seen().take("blade-fit", look("not-found")))).toEqual([]);
    expect(held(seen().take("blade-fit", read("blade-fit")))).toEqual([]);
  });

  it("held under a name that is two causes now, it is let go once neither is there", () => {
    const row = checkRow("blade-track");
    if (!row) throw new Error("no blade-track");
    const look = (...each: [string, "seen" | "not-found"][]) =>
      assessLook({ machine: petrol, row, each: each.map(([cause, result]) => ({ cause, result })), otherwise: "unclear", note: "" });
    const on = "crankshaft-bent-or-key-sheared";
    const earlier = { ...look([on, "seen"]), findings: [{ place: "machine", on, code: "seen", verdict: "stop" as const, causes: [] }] };
    const log = () => new Log().take("blade-track", earlier);
    const heldOn = (lines: Log) => stateOf(lines, petrol).unsafe.map(({ key }) => key);
    expect(heldOn(log())).toEqual(["stop:blade-track:machine#crankshaft-bent-or-key-sheared"]);
    expect(heldOn(log().take("blade-track", look(["crankshaft-bent", "not-found"])))).toHaveLength(1);
    expect(heldOn(log().take("blade-track", look(["crankshaft-bent", "not-found"], ["key-sheared", "not-found"])))).toEqual([]);
  });

  it("let go by word stays owed until it is read right; stopped again it holds again", () => {
    const released = cracked().add({
      kind: "release",
      reason: "",
      reasons: [{ key: "stop:blade-edge:left", reason: "seen by the maker" }],
    });
    const state = stateOf(released);
    expect([state.unsafe, state.released.map(({ cause, by }) => [cause.key, by])]).toEqual([[], [["stop:blade-edge:left", "AK"]]]);
    expect(held(released.take("blade-edge", read("blade-edge", crack)))).toHaveLength(1);
    expect(stateOf(released.take("blade-edge", read("blade-edge"))).released).toEqual([]);
  });

  it("a release lets go of what it names and of nothing else; a hold by word is nobody's reading and owes none", () => {
    const log = cracked();
    const hold = `hold:${log.next}`;
    log.add({ kind: "hold", stepId: log.next, reason: "waits for the insurer" });
    const state = stateOf(log.add({ kind: "release", reason: "", reasons: [{ key: hold, reason: "the insurer has been" }] }));
    expect([state.unsafe.map(({ key }) => key), state.released]).toEqual([["stop:blade-edge:left"], []]);
  });

  it("a release from before reasons were asked for let go of everything", () => {
    expect(stateOf(cracked().add({ kind: "release", reason: "mended" })).unsafe).toEqual([]);
  });

  it("a machine handed to the engine shop is held by that", () => {
    expect(
      whyNot(new Log().fix("hand-to-engine-shop", "crankshaft-bent").event("held-out", { words: "handed over" }), { to: "prove" }, petrol),
    ).toEqual(["unsafe"]);
  });
});

/** What puts another part where one broke, by the check that finds it broken. */
const REPLACED: Partial<Record<CheckId, EventId>> = {
  "blade-edge": "blade-changed",
  "arm-play": "unit-apart",
  "gearbox-inspection": "gearbox-off",
};

/** House rule: every stop blocks running, over every check and every answer; and reading it right lets it go again. */
describe.each([...SHEETS])("stops of $name", (sheet) => {
  const stops = spoilsOf(sheet).flatMap((spoil) => {
    const assessment = with_(sheet, spoil);
    return assessment?.verdict === "stop" ? [{ spoil, assessment }] : [];
  });
  const sound = with_(sheet);
  const check = sheet.check.id as CheckId;

  it("each blocks making ready, cutting, proving and running checks, and is cleared by reading it right", () => {
    for (const { spoil, assessment } of stops) {
      const log = new Log().confirm("running").take(check, assessment);
      const state = machineState(sheet.machine, log.lines);
      for (const purpose of [ready(), { to: "cut" }, { to: "prove" }, { to: "check", check: "vibration-reading" }] as Purpose[])
        expect([spoil, purpose.to, mayRun(state, purpose).reasons.map(({ code }) => code)]).toEqual([
          spoil,
          purpose.to,
          expect.arrayContaining(["unsafe"]),
        ]);
      const keys = assessment.findings.filter(({ verdict }) => verdict === "stop").map(keyOfFinding);
      expect(state.unsafe.map(({ key }) => key).sort()).toEqual([...new Set(keys)].map((key) => `stop:${check}:${key}`).sort());
      if (state.unsafe.some(isBroken)) log.event(REPLACED[check] ?? "other-work");
      if (sound) expect([spoil, machineState(sheet.machine, log.take(check, sound).lines).unsafe]).toEqual([spoil, []]);
    }
  });
});

describe("what was disturbed is seen right before anything runs", () => {
  it("worked on or locked out it is put back first; parked and looked at it is not", () => {
    expect(whyNot(new Log().confirm("locked-out"), ready())).toEqual(["not-put-back"]);
    expect(whyNot(new Log().confirm("parked"), ready())).toEqual([]);
    expect(whyNot(new Log().confirm("parked").fix("set-pressures", "tyres-unequal"), ready())).toEqual(["not-put-back"]);
    expect(whyNot(new Log().confirm("locked-out").putBack(), ready())).toEqual([]);
    expect(whyNot(new Log().confirm("parked").event("operator-briefed"), ready())).toEqual([]);
  });

  it("after every fitting each blade is turned free by hand; one that touches is a stop until it is turned free", () => {
    const fitted = () => new Log().confirm("raised").fix("replace-blades", "blade-dull");
    expect(whyNot(fitted(), ready())).toEqual(["blades-not-turned", "not-put-back"]);
    expect(putBackPoints(zeroTurn, stateOf(fitted())).map(({ id }) => id)).toEqual([
      "washers",
      "bolts",
      "guards",
      "tools",
      "turned:left",
      "turned:middle",
      "turned:right",
      "power-last",
    ]);
    const touches = fitted().putBack(undefined, { touching: ["middle"] });
    expect(stateOf(touches).unsafe.map(({ key }) => key)).toEqual(["touches:middle"]);
    expect(whyNot(touches, ready())).toEqual(["unsafe", "blades-not-turned", "not-put-back"]);
    expect(whyNot(touches.putBack(), ready())).toEqual([]);
  });

  it("blades read at the track were turned by hand; only those that were read", () => {
    const log = new Log()
      .confirm("raised")
      .fix("replace-blades", "blade-dull")
      .take("blade-track", read("blade-track", { "blades.right": undefined }));
    expect(stateOf(log).unturned).toEqual(["right"]);
  });

  it("a belt's grooves are looked at before it runs, by putting back or by its worksheet with nothing wrong at the belt", () => {
    const off = () => new Log().confirm("locked-out").fix("replace-belt", "belt-slipping");
    expect(whyNot(off(), ready())).toEqual(["belt-not-seated", "not-put-back"]);
    expect(whyNot(off().take("belt-inspection", read("belt-inspection", { "belt.seated": "off-one" })), ready())).toContain(
      "belt-not-seated",
    );
    expect(whyNot(off().take("belt-inspection", read("belt-inspection")), ready())).toEqual(["not-put-back"]);
    expect(whyNot(off().putBack(), ready())).toEqual([]);
    expect(whyNot(off().putBack(undefined, { isBeltSeated: false }), ready())).toEqual(["belt-not-seated"]);
  });

  it("geared blades are turned by hand and clear, and stay so until they are disturbed again", () => {
    const log = new Log().event("deck-off");
    const own = (purpose = ready()) => whyNot(log, purpose, geared);
    expect(own()).toEqual(expect.arrayContaining(["timing-unseen"]));
    log.take("blade-timing", read("blade-timing", {}, geared)).putBack(["left", "middle", "right"]);
    expect(own()).toEqual([]);
    log.fix("retime-blades", "gearbox-mistimed").event("gearbox-off");
    expect(own()).toContain("timing-unseen");
    log.take("blade-timing", read("blade-timing", { "pairs.left:middle.phaseDegrees": 42 }, geared));
    expect(own()).toContain("timing-too-near");
  });

  it("nothing runs with the deck off or a box apart", () => {
    const off = new Log().confirm("locked-out").add({ kind: "deck", move: { way: "off", step: "photographs", counts: {} } });
    expect([stateOf(off).apart, whyNot(off, ready())]).toEqual([[{ what: "deck", where: "coming-off" }], ["deck-off", "not-put-back"]]);
    const box = new Log().add({ kind: "rebuild", move: { box: "left-box", way: "off", step: "timing-marks", counts: {} } });
    expect(whyNot(box, { to: "prove" }, geared)).toEqual(["box-apart"]);
  });
});

describe("after a strike", () => {
  const struck = () => new Log().event("struck", { words: "a kerb", where: "north bend", droveOn: true });
  const look = (log: Log, checks: readonly CheckId[]) => {
    for (const check of checks) log.take(check, { ruleVersion: 1, verdict: "in-tolerance", findings: [], told: [], evidence: [] });
    return log;
  };

  it("nothing runs and nothing is proved until each was looked at, in whichever job; what could not be told clears nothing", () => {
    const state = stateOf(struck());
    expect(state.struck).toMatchObject({ words: "a kerb", where: "north bend", droveOn: true });
    expect(whyNot(struck(), { to: "prove" })).toEqual(["struck-not-looked", "blades-not-turned"]);
    const all = state.struck?.checks ?? [];
    const some = look(struck().by("BL", 2), all.slice(1));
    expect(stateOf(some).struck?.checks).toEqual(all.slice(0, 1));
    some.take(all[0] ?? "blade-edge", { ruleVersion: 1, verdict: "not-enough-readings", findings: [], told: [], evidence: [] });
    expect(stateOf(some).struck?.checks).toEqual(all.slice(0, 1));
    expect(stateOf(look(some, all.slice(0, 1))).struck).toBeUndefined();
  });

  it("leads to a look that needs no run", () => {
    const { reasons } = mayRun(stateOf(struck()), { to: "cut" });
    expect(reasons.find(({ code }) => code === "struck-not-looked")?.clears).toEqual({ do: "read", check: "hanger-inspection" });
  });
});

describe("the one run that a reading itself needs", () => {
  const fast = () => new Log().confirm("running").take("tip-speed", read("tip-speed", { "spindles.middle.revolutionsPerMinute": 4400 }));
  const reread: Purpose = { to: "check", check: "tip-speed" };

  it("is given once something was changed, for that check alone and said as such; never for a cut", () => {
    expect(whyNot(fast(), reread)).toEqual(["unsafe"]);
    const changed = fast().fix("set-engine-speed", "engine-speed-low").putBack();
    expect(mayRun(stateOf(changed), ready())).toEqual({ reasons: [], onlyFor: ["tip-speed"] });
    expect([whyNot(changed, reread), whyNot(changed, { to: "cut" })]).toEqual([[], ["unsafe"]]);
    expect(whyNot(changed, { to: "check", check: "vibration-reading" })).toEqual(["unsafe"]);
  });

  it("is not given while anything else is unsafe, or a look after a strike that needs no run is open", () => {
    const changed = fast().fix("set-engine-speed", "engine-speed-low").putBack();
    expect(whyNot(changed.take("blade-edge", read("blade-edge", crack)), reread)).toEqual(["unsafe", "unsafe"]);
    const struck = fast().fix("set-engine-speed", "engine-speed-low").event("struck").putBack();
    expect(whyNot(struck, reread)).toEqual(["unsafe", "struck-not-looked"]);
  });
});

describe("to cut with it", () => {
  it("somebody made it ready, and nobody is locked on", () => {
    expect(whyNot(new Log())).toEqual(["not-ready"]);
    expect(whyNot(new Log().confirm("parked"))).toEqual(["not-ready"]);
    expect(whyNot(new Log().confirm("running"))).toEqual([]);
    expect(whyNot(new Log().confirm("locked-out").putBack())).toEqual(["locked-by", "not-ready"]);
  });

  it("nobody cuts over his own lock-out that came back, with a lift taken back, on a machine another made ready", () => {
    const log = new Log().by("AK", 1).confirm("locked-out").by("BL", 2).confirm("running");
    const reasons = (who: string) => mayRun(stateOf(log), { to: "cut", who }).reasons.map(({ code }) => code);
    for (const who of ["AK", "BL"]) expect(reasons(who), who).toContain("locked-by");
    log.by("AK", 1).confirm("running");
    expect(reasons("AK")).not.toContain("locked-by");
  });

  it("a second cut needs no second word, a lock-out in between does", () => {
    const log = new Log().confirm("running").cut();
    expect(whyNot(log)).toEqual([]);
    expect(whyNot(log.confirm("locked-out"))).toEqual(["not-put-back", "locked-by", "not-ready"]);
  });
});
