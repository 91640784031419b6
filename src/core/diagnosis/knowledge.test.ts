import { describe, expect, it } from "vitest";
import { CAUSES, CHECKS, FIXES, RIVALS, SYMPTOMS } from "@/core/catalogue";
import { type CutsWith, featuresOf, KINDS } from "@/core/catalogue/kinds";
import { FLEET } from "@/core/machine/examples/fleet";
import { allFeatures, knowledgeOf } from "./index";

const CUTS: readonly CutsWith[] = ["rotary", "reel"];
const every = (cutsWith: CutsWith) => knowledgeOf({ cutsWith, features: allFeatures(cutsWith) });

describe("what the diagnosis knows", () => {
  it("has every symptom, cause and check of the tables on some machine", () => {
    const of = (pick: (knowledge: ReturnType<typeof every>) => readonly string[]) => new Set(CUTS.flatMap((cuts) => pick(every(cuts))));
    expect(of(({ symptoms }) => symptoms)).toEqual(new Set(SYMPTOMS.map(({ id }) => id)));
    expect(of(({ causes }) => causes.flatMap(({ id, rivalOf }) => (rivalOf ? [] : [id])))).toEqual(
      new Set(CAUSES.flatMap(({ id }) => (id === "something-else" ? [] : [id]))),
    );
    expect(of(({ causes }) => causes.flatMap(({ id, rivalOf }) => (rivalOf ? [id] : [])))).toEqual(new Set(RIVALS.map(({ id }) => id)));
    expect(of(({ checks }) => checks.map(({ id }) => id))).toEqual(new Set(CHECKS.map(({ id }) => id)));
  });

  it.each(KINDS.map((kind) => [kind.id, kind] as const))("leaves no cause without a check, a symptom and a fix: %s", (_, kind) => {
    const { causes: all, checks } = knowledgeOf({ cutsWith: kind.cutsWith, features: kind.usual });
    // What is in no table has no check and no fix of its own: it says where to look.
    const causes = all.filter(({ rivalOf }) => !rivalOf);
    const spokenTo = new Set(checks.flatMap(({ figures }) => figures.flat()));
    expect(causes.filter(({ id }) => !spokenTo.has(id)).map(({ id }) => id)).toEqual([]);
    expect(causes.filter(({ links }) => links.length === 0).map(({ id }) => id)).toEqual([]);
    expect(causes.filter(({ id }) => !FIXES.some(({ cause }) => cause === id)).map(({ id }) => id)).toEqual([]);
  });

  it("gives every symptom a cause on the kind it is seen on", () => {
    for (const cuts of CUTS) {
      const { symptoms, causes } = every(cuts);
      const silent = symptoms.filter((id) => !causes.some(({ links }) => links.some(({ symptom }) => symptom === id)));
      expect(silent, cuts).toEqual([]);
    }
  });

  it("gives every check something to tell, whatever the machine", () => {
    for (const { cutsWith, usual, id } of KINDS) {
      const idle = knowledgeOf({ cutsWith, features: usual }).checks.filter(({ figures }) => figures.length === 0);
      expect(
        idle.map((check) => check.id),
        id,
      ).toEqual([]);
    }
  });

  it("names each cause in one figure of a check only", () => {
    for (const cuts of CUTS) {
      for (const { id, figures } of every(cuts).checks) expect(new Set(figures.flat()).size, id).toBe(figures.flat().length);
    }
  });

  it("drops what a feature carries when the feature is gone", () => {
    const without = knowledgeOf({ cutsWith: "rotary", features: allFeatures("rotary").filter((feature) => feature !== "belt") });
    expect(every("rotary").causes.map(({ id }) => id)).toContain("belt-slipping");
    expect(without.causes.map(({ id }) => id)).not.toContain("belt-slipping");
    expect(without.checks.map(({ id }) => id)).not.toContain("belt-inspection");
  });

  it("holds for every machine of the demo depot", () => {
    for (const { machine } of FLEET) {
      const kind = KINDS.find(({ id }) => id === machine.kind);
      const { checks } = knowledgeOf({ cutsWith: kind?.cutsWith ?? "rotary", features: featuresOf(machine) });
      expect(checks.length, machine.kind).toBeGreaterThan(8);
    }
  });
});
