import { describe, expect, it } from "vitest";
import type { CauseId, CheckId, ContextId, SymptomId } from "@/core/catalogue";
import { type KindId, kindById } from "@/core/catalogue/kinds";
import { type Case, diagnose, knowledgeOf, type PlaceMeaning, placeOdds, planChecks } from "./index";

/** What a mechanic is told, and how he would go about it (common practice). */
type Story = {
  kind?: KindId;
  present: readonly SymptomId[];
  context?: readonly ContextId[];
  denied?: readonly ContextId[];
  place?: PlaceMeaning;
  evidence?: Case["evidence"];
  done?: readonly CheckId[];
};

const JOIN: PlaceMeaning = { kind: "join", between: ["left", "middle"] };

function told({ kind = "zero-turn", present, context = [], denied = [], place, evidence = [], done = [] }: Story) {
  const { cutsWith, usual } = kindById(kind);
  const knowledge = knowledgeOf({ cutsWith, features: usual });
  const given: Case = {
    symptoms: Object.fromEntries(present.map((id) => [id, "present"])),
    context,
    deniedContext: denied,
    evidence,
    ...(place ? { place: placeOdds(knowledge, place) } : {}),
  };
  const diagnosis = diagnose(knowledge, given);
  const plan = planChecks({ knowledge, given, diagnosis, state: "parked", done, order: "information" });
  return {
    first: diagnosis.causes[0]?.id,
    of: (id: CauseId) => diagnosis.causes.find((cause) => cause.id === id)?.probability ?? 0,
    checks: plan.checks.map((check) => check.id),
  };
}

describe("stories a mechanic would laugh at, did the answer miss them", () => {
  it("the belt was off and a blade stands: the belt is looked at, no tachometer is run on a blade that stands", () => {
    const { first, of, checks } = told({ present: ["blade-stopped", "blade-width-uncut"], context: ["belt-disturbed"] });
    expect(first).toBe("belt-off");
    expect(of("belt-off")).toBeGreaterThan(0.9);
    expect(checks[0]).toBe("belt-inspection");
  });

  it("a kerb was struck, it shakes and scalps: blades before tyres and hangers", () => {
    const { first, checks } = told({ present: ["vibration", "scalped-band"], context: ["struck-object"] });
    expect(first).toBe("blade-bent");
    expect(["blade-track", "blade-edge", "blade-fit"]).toContain(checks[0]);
  });

  it("a strip since blades were changed, straight on too: the part, and how it is fitted, first", () => {
    const { first, of, checks } = told({
      present: ["uncut-strip-inside"],
      context: ["blades-changed"],
      denied: ["only-on-turns-or-slopes"],
      place: JOIN,
    });
    expect(first).toBe("blade-wrong-part");
    expect(of("blade-wrong-part")).toBeGreaterThan(0.5);
    expect(checks[0]).toBe("blade-fit");
  });

  it("only in turns is denied and the blades are old: worn blades, hardly the turns", () => {
    const { first, of } = told({
      present: ["uncut-strip-inside"],
      context: ["old-blades-kept"],
      denied: ["only-on-turns-or-slopes"],
      place: JOIN,
    });
    expect(first).toBe("blade-worn-short");
    expect(of("turn-too-tight")).toBeLessThan(0.1);
  });

  it("a ledge right after tyre work: tyres first", () => {
    const { of, checks } = told({ present: ["step-between-passes"], context: ["tyre-work"] });
    expect(of("tyres-unequal")).toBeGreaterThan(0.3);
    expect(checks[0]).toBe("tyre-pressure");
  });

  it("a scalped band along the whole pass is no turn", () => {
    const { of, checks } = told({ present: ["scalped-band"], denied: ["only-on-turns-or-slopes"] });
    expect(of("turn-too-tight")).toBeLessThan(0.05);
    expect(checks[0]).not.toBe("pass-overlap");
  });

  it("ripples on one unit are not what all units share: engine, tyres, clip", () => {
    const { of, checks } = told({ kind: "reel-ride-on", present: ["ripples"], context: ["one-unit-only"] });
    const ofOne = of("roller-bearing-worn");
    for (const shared of ["engine-speed-low", "tyres-off-spec", "clip-too-long"] as const)
      expect(of(shared), shared).toBeLessThan(ofOne / 3);
    expect(["reel-speed", "tyre-pressure", "ground-speed"]).not.toContain(checks[0]);
  });

  it("one hot reel end: contact and bearings, and no tyre", () => {
    const { checks } = told({ kind: "reel-ride-on", present: ["hot-hub"], context: ["one-unit-only"] });
    expect(checks.slice(0, 2).sort()).toEqual(["reel-bearing", "reel-contact"]);
    expect(checks).not.toContain("tyre-pressure");
  });

  it("lumpy after wet mowing: packed rollers", () => {
    const { first, of, checks } = told({ kind: "reel-ride-on", present: ["irregular-hop"], context: ["wet-or-tall"] });
    expect(first).toBe("roller-packed");
    expect(of("roller-packed")).toBeGreaterThan(0.5);
    expect(checks.slice(0, 2)).toContain("roller-clean");
  });

  it("a dropped deck: hangers, then tyres, then the level, which rests on them", () => {
    const dropped = { present: ["step-between-passes"], context: ["deck-dropped"] } as const;
    expect(told(dropped).checks[0]).toBe("hanger-inspection");
    const sound = (check: CheckId, ...causes: CauseId[]) => causes.map((cause) => ({ check, cause, result: "not-found" as const }));
    const hangers = sound("hanger-inspection", "hanger-failed", "deck-shell-bent");
    expect(told({ ...dropped, evidence: hangers, done: ["hanger-inspection"] }).checks[0]).toBe("tyre-pressure");
    const tyres = sound("tyre-pressure", "tyres-unequal", "tyres-off-spec");
    const rest = told({ ...dropped, evidence: [...hangers, ...tyres], done: ["hanger-inspection", "tyre-pressure"] });
    expect(rest.checks[0]).toBe("deck-level");
  });
});
