import { describe, expect, it } from "vitest";
import { CHECKS, FIXES } from "@/core/catalogue";
import { SHEETS, spoilsOf, with_ } from "@/core/checks/every-answer.fixtures";
import { machineOf } from "@/core/checks/sheets.fixtures";
import type { CutDoubt, ProofGap } from "@/core/job/jobs";
import { itemsFor, SAFE_STATES } from "@/core/job/safety";
import { type Clearing, machineState, mayRun, type RunReason, type Unsafe } from "@/core/job/status";
import { Log } from "@/core/job/status/log.fixtures";
import { cutters } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { STATE_WORDS, sayIssue } from "./issues";
import { sayOwed } from "./owed";
import { GRADE_WORDS, sayGap } from "./proof";
import { sayClearing, sayDoubts, sayReason, sayUnsafe } from "./state";

const ZT = machineOf("ZT-1");
const FACTS = { at: "2026-05-04T07:12:00.000Z", seq: 4, who: "AK", jobId: 7 };
const clock = (iso: string) => iso.slice(11, 16);
const stop = (more: Partial<Extract<Unsafe, { kind: "stop" }>> = {}): Unsafe => ({
  kind: "stop",
  key: "k",
  check: "blade-edge",
  place: "left",
  code: "crack",
  stepId: 1,
  isChangedSince: false,
  ...FACTS,
  ...more,
});
const reason = (one: RunReason) => sayReason(one, ZT, clock);

/** No id of the program, no undefined: what a mechanic reads is words. */
function expectWords(text: string): void {
  expect(text).not.toMatch(/undefined|null|NaN|\[object|^$/);
  expect(text).not.toMatch(
    /\b(?!left-|right-|re-|anti-|tie-|o-|two-|lock-|walk-|cut-|half-|pre-|snap-|cross-|reel-to-)[a-z]+-[a-z]+-[a-z]+\b/,
  );
}

describe("what is unsafe, in words", () => {
  it("names the place as the sheet does, what is there, who read it and in which job", () => {
    expect(reason({ code: "unsafe", cause: stop(), clears: { do: "read", check: "blade-edge" } })).toBe(
      "Left blade: cracked (AK, 07:12, job 7)",
    );
    expect(sayUnsafe({ kind: "touches", key: "k", place: "middle", stepId: 1, ...FACTS }, ZT)).toBe(
      "Middle blade touches or binds when turned by hand",
    );
    expect(sayUnsafe({ kind: "by-word", key: "k", reason: "waits for the insurer", ...FACTS }, ZT)).toBe("Held: waits for the insurer");
    expect(sayUnsafe(stop({ check: "blade-fit", place: "machine", on: "blade-loose", code: "seen" }), ZT)).toBe(
      "Blade loose or stack wrong, seen",
    );
    expect(sayUnsafe(stop({ check: "tip-speed", on: "paper", code: "over-limit" }), ZT)).toMatch(/^Left blade: .*, worked out on paper$/);
  });

  it("has words for every stop of every worksheet of every make of machine", () => {
    let count = 0;
    for (const sheet of SHEETS)
      for (const spoil of spoilsOf(sheet))
        for (const { place, on, code, verdict } of with_(sheet, spoil)?.findings ?? []) {
          if (verdict !== "stop") continue;
          count += 1;
          const said = sayUnsafe(stop({ check: sheet.check.id as never, place, code, ...(on ? { on } : {}) }), sheet.machine);
          expectWords(said);
          expect(said, `${sheet.name}: ${code}`).not.toContain(`: ${code}`.includes("-") ? `: ${code}` : "\0");
        }
    expect(count).toBeGreaterThan(40);
  });
});

const REASONS: readonly [RunReason, string][] = [
  [
    { code: "locked-by", owner: "BL", state: "raised", at: FACTS.at, clears: { do: "lift", owner: "BL" } },
    "BL is locked on to it: raised and locked out since 07:12",
  ],
  [
    {
      code: "struck-not-looked",
      struck: { ...FACTS, words: "a root", where: "under the yew", checks: ["blade-edge", "blade-track"] },
      checks: ["blade-edge", "blade-track"],
      clears: { do: "read", check: "blade-edge" },
    },
    "Struck a root, under the yew. Not looked at since: blade edge and wear, blade track",
  ],
  [{ code: "deck-off", where: "off", clears: { do: "refit-deck" } }, "The deck is not back on"],
  [{ code: "box-apart", place: "middle", clears: { do: "refit-box", place: "middle" } }, "Middle blade is apart"],
  [{ code: "part-on-bench", parts: ["left", "right"], clears: { do: "put-back" } }, "On the bench: left blade, right blade"],
  [
    { code: "timing-unseen", clears: { do: "read", check: "blade-timing" } },
    "The geared blades were disturbed and not turned by hand since",
  ],
  [{ code: "timing-too-near", clears: { do: "read", check: "blade-timing" } }, "The geared blades pass too near each other"],
  [{ code: "belt-not-seated", clears: { do: "put-back" } }, "A belt was disturbed, and nobody looked at its grooves since"],
  [{ code: "blades-not-turned", places: ["left"], clears: { do: "put-back" } }, "Not turned by hand since they were disturbed: left blade"],
  [{ code: "not-put-back", clears: { do: "put-back" } }, "Worked on, and not put back yet"],
  [{ code: "not-ready", state: "none", clears: { do: "make-ready" } }, "Nobody made it ready to run"],
  [{ code: "not-ready", state: "locked-out", clears: { do: "make-ready" } }, "It is locked out, not ready to run"],
];

describe("why it may not run, in words", () => {
  it.each(REASONS)("%j", (one, said) => {
    expect(reason(one)).toBe(said);
    expectWords(sayClearing(one.clears));
  });

  it("a strike of which nothing more was told is told as that", () => {
    const struck = { ...FACTS, checks: ["blade-edge" as const] };
    expect(reason({ code: "struck-not-looked", struck, checks: ["blade-edge"], clears: { do: "read", check: "blade-edge" } })).toBe(
      "Struck something. Not looked at since: blade edge and wear",
    );
  });

  it("each way out says what to do, and two that do different things say different things", () => {
    const ways: Clearing[] = [
      { do: "read", check: "blade-edge" },
      { do: "read", check: "tip-speed" },
      { do: "put-back" },
      { do: "make-ready" },
      { do: "lift", owner: "BL" },
      { do: "refit-deck" },
      { do: "refit-box", place: "left" },
      { do: "release" },
    ];
    const said = ways.map(sayClearing);
    expect(new Set(said).size).toBe(ways.length);
    expect(said[4]).toContain("BL");
    expect(said[0]).toBe("Read it: blade edge and wear");
  });

  it("whatever the log of a machine, every reason it gives is said in words", () => {
    for (const { fleetNumber } of FLEET) {
      const machine = machineOf(fleetNumber);
      const log = new Log()
        .by("BL")
        .confirm("locked-out")
        .by("AK")
        .event("struck", { words: "a kerb" })
        .event("deck-off")
        .event("gearbox-off")
        .event("blade-changed")
        .add({ kind: "hold", stepId: 6, reason: "waits for its sheet" })
        .take("blade-edge", {
          ruleVersion: 1,
          verdict: "stop",
          findings: [{ place: cutters(machine)[0]?.id ?? "", code: "crack", verdict: "stop", causes: ["blade-cracked"] }] as never,
          told: [],
          evidence: [],
        });
      const { reasons } = mayRun(machineState(machine, log.lines), { to: "cut", who: "AK" });
      expect(reasons.length, fleetNumber).toBeGreaterThanOrEqual(5);
      const said = reasons.map((one) => sayReason(one, machine, clock));
      for (const text of said) expectWords(text);
      expect(new Set(said).size).toBe(said.length);
    }
  });
});

describe("proof, in words", () => {
  const GAPS: readonly ProofGap[] = [
    { code: "nothing-changed" },
    { code: "not-read-again", check: "deck-level" },
    { code: "still-out", check: "deck-level", verdict: "out" },
    { code: "stale", check: "deck-level" },
    { code: "provisional", check: "deck-level" },
    { code: "no-test-cut" },
    { code: "test-cut-older-than-change" },
    { code: "test-cut-not-proof", grade: "looks-right", doubts: ["not-dry", "other-lawn"] },
    { code: "symptom-not-asked", symptom: "vibration" },
    { code: "symptom-still-there", symptom: "vibration" },
    { code: "blades-not-seen-cutting" },
    { code: "open-on-machine" },
    { code: "released-unread" },
  ] as ProofGap[];

  it.each(GAPS)("$code", (gap) => {
    expectWords(sayGap(gap));
    expect(sayGap(gap)).toMatch(/\.$/);
    // The same words stand among what is owed, so that the next one knows what it went out without.
    expect(sayOwed({ code: "unproved", detail: { gap } })).toBe(`went out unproved: ${sayGap(gap)}`);
  });

  it("says every doubt of a cut, in the order they were found", () => {
    expect(sayDoubts(["not-dry", "other-lawn"])).toBe("The grass was not dry; it was another lawn");
    const all: CutDoubt[] = ["not-all-alike", "other-lawn", "not-dry", "low-light", "other-patch", "other-height", "other-driver"];
    expect(sayDoubts(all).split("; ")).toHaveLength(all.length);
    expect(Object.values(GRADE_WORDS)).toHaveLength(new Set(Object.values(GRADE_WORDS)).size);
  });

  it("says of a part that left with whom it is and what it owes", () => {
    expect(sayOwed({ code: "handed-over", detail: { what: "Left gearbox", to: "the engine shop", owes: "its oil level" } as never })).toBe(
      "Left gearbox, with the engine shop: its oil level",
    );
    expectWords(sayOwed({ code: "bolts-by-wrench" }));
  });
});

describe("what is asked and refused, in words", () => {
  it("every point of every state of every machine is a sentence a hand can be put to", () => {
    for (const { fleetNumber } of FLEET) {
      const machine = machineOf(fleetNumber);
      for (const state of SAFE_STATES)
        for (const { text } of itemsFor(machine, state)) {
          expectWords(text);
          expect(text).toMatch(/^[A-Z]/);
        }
    }
    for (const state of SAFE_STATES) expect(STATE_WORDS[state], state).toBeTruthy();
  });

  it.each([
    "reason-of-substance",
    "locked-by",
    "state-needed",
    "unanswered",
    "wrench-without-figure",
    "torque-without-wrench",
    "torque-not-credible",
  ])("%s has a sentence of its own", (code) => {
    const said = sayIssue(
      { code, path: [], owner: "BL", state: "raised", needs: "raised", at: FACTS.at, wantedNewtonMetres: 122, items: [] },
      "us",
    );
    expectWords(said);
    expect(said).not.toContain(code);
  });

  it("every check and every fix has a name for the buttons that lead there", () => {
    for (const { id } of CHECKS) expectWords(sayClearing({ do: "read", check: id }));
    expect(FIXES.length).toBeGreaterThan(20);
  });
});
