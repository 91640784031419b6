import { describe, expect, it } from "vitest";
import type { CauseId, CheckId, CheckState, ContextId, SymptomId } from "@/core/catalogue";
import { type KindId, kindById } from "@/core/catalogue/kinds";
import {
  type Case,
  diagnose,
  type Knowledge,
  type KnownCheck,
  knowledgeOf,
  type PlaceMeaning,
  placeOdds,
  planChecks,
  telephoneRound,
} from "./index";

type Worked = {
  /** What is known of such a fault in the trade (common practice). */
  told: string;
  kind: KindId;
  extra?: readonly "groomer"[];
  present: readonly SymptomId[];
  denied?: readonly SymptomId[];
  context?: readonly ContextId[];
  place?: PlaceMeaning;
  cause: CauseId;
};

/** Twenty cases written from descriptions of faults and their marks on the turf, before any of them was tried. */
// biome-ignore format: a table is read by rows
const CASES: readonly Worked[] = [
  { told: "2 blade-fit: fitted upside down it cuts with its blunt back: torn grass and no lift", kind: "zero-turn", present: ["torn-tips", "clumps"], context: ["blades-changed"], cause: "blade-upside-down" },
  { told: "2 hanger-inspection: a missing clip lets one corner of the deck down", kind: "belly-deck", present: ["step-between-passes", "scalped-band"], context: ["deck-refitted"], cause: "hanger-failed" },
  { told: "2 tyre-pressure: a soft rear tyre lets its side of a frame-hung deck down", kind: "zero-turn", present: ["step-between-passes"], context: ["tyre-work"], cause: "tyres-unequal" },
  { told: "2 belt-inspection: one blade idle and a hot belt: it is out of its groove and rubbing", kind: "zero-turn", present: ["blade-stopped", "belt-smell-or-squeal"], context: ["belt-disturbed"], cause: "belt-off" },
  { told: "2 blade-overlap: blades worn until the overlap is gone leave a strip, worst in tall grass", kind: "front-deck", present: ["uncut-strip-inside"], context: ["wet-or-tall", "edge-overdue"], place: { kind: "join", between: ["left", "middle"] }, cause: "blade-worn-short" },
  { told: "2 blade-overlap in a turn: the strip opens only in turns of certain radii", kind: "zero-turn", present: ["uncut-strip-inside"], context: ["only-on-turns-or-slopes"], cause: "turn-too-tight" },
  { told: "2 blade-edge: dull edges tear the leaf, and it browns", kind: "walk-petrol", present: ["torn-tips", "browning"], context: ["edge-overdue"], cause: "blade-dull" },
  { told: "2 deck-cleanliness: a packed deck or chute clumps and will not fill the catcher", kind: "belly-deck", present: ["clumps", "poor-collection"], denied: ["torn-tips"], context: ["wet-or-tall"], cause: "deck-packed" },
  { told: "2 spindle-play: a hub hotter than its sisters, rough to turn, greasing overdue", kind: "zero-turn", present: ["hot-hub", "grinding-noise"], context: ["grease-overdue"], cause: "spindle-bearing-worn" },
  { told: "2 blade-track: after a strike one end of a blade stands lower: it shakes and shaves a band", kind: "zero-turn", present: ["vibration", "scalped-band"], context: ["struck-object"], cause: "blade-bent" },
  { told: "2 blade-timing: a geared deck refitted out of time: its blades strike", kind: "geared-rider", present: ["grinding-noise", "vibration"], context: ["deck-refitted"], cause: "gearbox-mistimed" },
  { told: "1 and 2 tip-speed: a cordless machine sags under load and loses its lift", kind: "walk-cordless", present: ["engine-labours", "torn-tips", "poor-collection"], cause: "engine-speed-low" },
  { told: "3 reel-cone: a coned reel meets the grass at two heights: a step inside the unit", kind: "reel-ride-on", present: ["step-within-unit", "stragglers"], context: ["unit-bench-work"], cause: "contact-tapered" },
  { told: "3 reel-edge: a nick after sand top-dressing draws its own line", kind: "reel-walking", present: ["fine-streak"], context: ["top-dressed"], cause: "edge-nicked" },
  { told: "3 reel-contact: set too tight it heats, drags power and draws streaks", kind: "reel-ride-on", present: ["engine-labours", "hot-hub", "fine-streak"], context: ["unit-bench-work"], cause: "contact-tight" },
  { told: "3 bedknife-attitude: a thick fairway knife at a greens height has no heel clearance: it drags and scalps", kind: "reel-walking", present: ["scalped-crests", "scalped-band"], context: ["height-changed", "unit-bench-work"], cause: "bedknife-too-thick" },
  { told: "3 clip: travelling too far for each blade of the reel leaves ripples", kind: "reel-ride-on", present: ["ripples"], context: ["new-operator"], cause: "clip-too-long" },
  { told: "3 cutting-height: a grooved roller sinks deeper than the smooth one it replaced", kind: "reel-walking", present: ["cut-too-low"], context: ["roller-changed"], cause: "roller-sinks" },
  { told: "3 arm-play: a skewed unit leaves a thin line where front and rear units should meet", kind: "reel-ride-on", present: ["uncut-strip-inside"], context: ["struck-object"], place: { kind: "join", between: ["front-left", "rear-left"] }, cause: "arm-worn-or-bent" },
  { told: "4 pass-overlap: a new operator misjudges the outer edge of the cut", kind: "front-deck", present: ["uncut-strip-between-passes"], context: ["new-operator"], place: { kind: "passes" }, cause: "pass-overlap-small" },
];

function setUp({ kind, extra = [], present, denied = [], context = [], place }: Worked): { knowledge: Knowledge; given: Case } {
  const { cutsWith, usual } = kindById(kind);
  const knowledge = knowledgeOf({ cutsWith, features: [...usual, ...extra] });
  const symptoms = Object.fromEntries([...present.map((id) => [id, "present"]), ...denied.map((id) => [id, "denied"])]);
  return { knowledge, given: { symptoms, context, evidence: [], ...(place ? { place: placeOdds(knowledge, place) } : {}) } };
}

/** What an honest look brings: the cause suspected, all else not found; a figure that names several says only that it is one of them. */
function honestResult(check: KnownCheck, cause: CauseId): Case["evidence"] {
  return check.figures.flatMap((figure): Case["evidence"] => {
    if (!figure.includes(cause)) return figure.map((other) => ({ check: check.id, cause: other, result: "not-found" as const }));
    if (figure.length === 1) return [{ check: check.id, cause, result: "suspect" }];
    return [{ check: check.id, causes: [...figure], result: "suspect" }];
  });
}

function rankOf(knowledge: Knowledge, given: Case, cause: CauseId): number {
  return diagnose(knowledge, given).causes.findIndex(({ id }) => id === cause) + 1;
}

function followed(worked: Worked, checks: number): { rank: number; made: CheckId[] } {
  const { knowledge, given } = setUp(worked);
  const done: CheckId[] = [];
  let known = given;
  let state: CheckState = "parked";
  for (let k = 0; k < checks; k++) {
    const diagnosis = diagnose(knowledge, known);
    const next: CheckId | undefined = planChecks({ knowledge, given: known, diagnosis, state, done, order: "information" }).checks[0]?.id;
    const check: KnownCheck | undefined = knowledge.checks.find(({ id }) => id === next);
    if (!check) break;
    known = { ...known, evidence: [...known.evidence, ...honestResult(check, worked.cause)] };
    state = check.state;
    done.push(check.id);
  }
  return { rank: rankOf(knowledge, known, worked.cause), made: done };
}

/** Where the right cause is not among the first three before any check, and not first after two: kept in sight. */
/** A taper of the contact makes a step inside a unit in one of five only; a roller out of square and worn roller bearings do so oftener. */
const MISSED_AT_FIRST: readonly CauseId[] = ["contact-tapered"];
const MISSED_AFTER_TWO: readonly CauseId[] = [];

/** Rankings that were told to be wrong, each with what a mechanic expects; common practice. */
describe("rankings a mechanic has corrected", () => {
  const rank = (worked: Omit<Worked, "told" | "cause">, cause: CauseId) => {
    const { knowledge, given } = setUp({ ...worked, told: "", cause });
    return rankOf(knowledge, given, cause);
  };
  const checksOf = (worked: Omit<Worked, "told" | "cause">) => {
    const { knowledge, given } = setUp({ ...worked, told: "", cause: "blade-dull" });
    return planChecks({
      knowledge,
      given,
      diagnosis: diagnose(knowledge, given),
      state: "parked",
      done: [],
      order: "information",
    }).checks.map(({ id }) => id);
  };

  it("a line only in turns after other blades: another, shorter blade or the turn itself, looked for by the turns and by the blade's own length first", () => {
    const line = { kind: "zero-turn", present: ["uncut-strip-inside"], context: ["only-on-turns-or-slopes", "blades-changed"] } as const;
    const ranks = (["blade-wrong-part", "turn-too-tight"] as const).map((cause) => rank(line as never, cause));
    expect(Math.max(...ranks)).toBeLessThanOrEqual(3);
    expect(checksOf(line as never).slice(0, 2)).toEqual(["pass-overlap", "blade-fit"]);
    expect(checksOf(line as never)).toContain("blade-overlap");
  });

  it("a new shake after blades were on: a loose blade among the first three, and looked for among the first three checks", () => {
    const shake = { kind: "zero-turn", present: ["vibration"], context: ["blades-changed"] };
    expect(rank(shake as never, "blade-loose")).toBeLessThanOrEqual(3);
    expect(checksOf(shake as never).slice(0, 3)).toContain("blade-fit");
  });

  it("a change that was denied makes what follows from it less likely", () => {
    const { knowledge, given } = setUp({ told: "", kind: "zero-turn", present: ["torn-tips", "clumps"], cause: "blade-upside-down" });
    const there = (deniedContext: Case["deniedContext"]) =>
      diagnose(knowledge, { ...given, ...(deniedContext ? { deniedContext } : {}) }).causes.find(({ id }) => id === "blade-upside-down")
        ?.presence ?? 0;
    expect(there(["blades-changed"])).toBeLessThan(0.5 * there(undefined));
    expect(there(["tyre-work"])).toBeCloseTo(there(undefined), 3);
  });

  it("a ledge where it is mown up and down is no tilt of the deck: what tilts falls to a small part of it", () => {
    const ledge = { kind: "zero-turn", present: ["step-between-passes"] };
    const there = (context: string[]) => {
      const { knowledge, given } = setUp({ ...ledge, context, told: "", cause: "deck-out-of-level" } as never);
      return diagnose(knowledge, given).causes.find(({ id }) => id === "deck-out-of-level")?.probability ?? 0;
    };
    expect(there(["mown-up-and-down"])).toBeLessThan(0.5 * there([]));
  });

  it("too high and too low are one cause's two faces: the one denied says nothing against the other", () => {
    const { knowledge, given } = setUp({ told: "", kind: "zero-turn", present: ["cut-too-low"], cause: "height-misset" });
    const there = (symptoms: Case["symptoms"]) =>
      diagnose(knowledge, { ...given, symptoms }).causes.find(({ id }) => id === "height-misset")?.presence ?? 0;
    const low = there({ "cut-too-low": "present" });
    // The causes that can only be too high fall by the denial; this one rises by it.
    expect(there({ "cut-too-low": "present", "cut-too-high": "denied" })).toBeGreaterThanOrEqual(low);
    expect(there({ "cut-too-low": "denied", "cut-too-high": "denied" })).toBeLessThan(0.5 * there({}));
  });

  it("does not ask about browning before it can have shown", () => {
    const { knowledge, given } = setUp({ told: "", kind: "zero-turn", present: ["torn-tips"], cause: "blade-dull" });
    const asked = (tooSoon: Parameters<typeof telephoneRound>[0]["tooSoon"]) =>
      telephoneRound({ knowledge, given, answered: [], most: 99, ...(tooSoon ? { tooSoon } : {}) }).map(({ id }) => id);
    expect(asked(undefined)).toContain("browning");
    expect(asked(["browning"])).not.toContain("browning");
  });

  it("asks how it is mown where a ledge between passes is complained of", () => {
    const { knowledge, given } = setUp({ told: "", kind: "zero-turn", present: ["step-between-passes"], cause: "deck-out-of-level" });
    expect(telephoneRound({ knowledge, given, answered: [], most: 10 }).map(({ id }) => id)).toContain("mown-up-and-down");
  });
});

describe("twenty worked cases (common practice)", () => {
  it("are twenty, each of another cause", () => {
    expect(new Set(CASES.map(({ cause }) => cause)).size).toBe(20);
  });

  it("have the right cause among the first three before any check in at least 17", () => {
    const ranks = CASES.map((worked) => {
      const { knowledge, given } = setUp(worked);
      return { cause: worked.cause, rank: rankOf(knowledge, given, worked.cause) };
    });
    const missed = ranks.filter(({ rank }) => rank < 1 || rank > 3);
    expect(
      missed.map(({ cause }) => cause),
      JSON.stringify(ranks),
    ).toEqual(MISSED_AT_FIRST);
    expect(CASES.length - missed.length).toBeGreaterThanOrEqual(17);
  });

  it("have it first after two suggested checks in at least 15", () => {
    const ranks = CASES.map((worked) => ({ cause: worked.cause, ...followed(worked, 2) }));
    const missed = ranks.filter(({ rank }) => rank !== 1);
    expect(
      missed.map(({ cause }) => cause),
      JSON.stringify(ranks),
    ).toEqual(MISSED_AFTER_TWO);
    expect(CASES.length - missed.length).toBeGreaterThanOrEqual(15);
  });
});
