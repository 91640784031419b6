import { describe, expect, it } from "vitest";
import { type Assessment, WORKSHEETS } from "@/core/checks";
import { SHEETS, spoilsOf, with_ } from "@/core/checks/every-answer.fixtures";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { FACED, faceOf } from "./faces";
import { said } from "./said.fixtures";
import { figureName, sayAction, sayAnswer, sayPlace, sayProvisional, sayState, sayWarning } from "./words";

const zeroTurn = machineOf("ZT-1");
describe("what a worksheet says, verdict first", () => {
  it.each([
    ["hanger-inspection", { "hangers.left-rear.state": "missing" }, "Left rear: missing."],
    ["anti-scalp-wheels", { "wheels.rim-left-front.clearanceMetres": 0.04 }, "Left front wheel: too far off the ground."],
    ["deck-cleanliness", { "pack.depthMetres": 0.0254 }, "Packed 1 in deep: scrape it."],
    ["blade-edge", { "blades.left.crack": "cracked" }, "Left blade: cracked. Scrap it; the set goes with it."],
    ["blade-fit", { "blades.middle.tightened": "loose", "blades.middle.torqueNewtonMetres": undefined }, "Middle blade: loose."],
    [
      "blade-balance",
      { "blades.right.addedKilograms": 0.006, "blades.right.radiusMetres": 0.2 },
      "Right blade: out by 1.67 oz·in, a force of 47 lb, 67 times a second.",
    ],
    ["turf-condition", { beforeMetres: [0.127], cutMetres: 0.0635 }, "Takes 50 % of the leaf: over a third. Cut it in stages."],
  ])("%s", (check, spoils, answer) => {
    expect(said(check, spoils).answer).toBe(answer);
  });

  it("says a strip and where it stays, in the reader's units", () => {
    const short = { "blades.left.lengthMetres": 0.39, "blades.middle.lengthMetres": 0.42 };
    expect(said("blade-overlap", short, "metric").answer).toBe("A strip 6.48 mm wide stays between left blade and middle blade.");
    expect(said("blade-overlap", short).answer).toContain("0.255 in");
  });

  it("says what to do in the reader's units, with sizes from the sheet", () => {
    expect(said("blade-fit", { "blades.left.tightened": "feel", "blades.left.torqueNewtonMetres": undefined }).actions).toEqual([
      "Left blade: torque wrench, 90 ft·lb",
    ]);
    expect(said("blade-fit", { "blades.left.tightened": "feel", "blades.left.torqueNewtonMetres": undefined }, "metric").actions).toEqual([
      "Left blade: torque wrench, 122 N·m",
    ]);
    expect(said("anti-scalp-wheels", { "wheels.rim-left-front.clearanceMetres": 0.002 }).actions).toEqual([
      "Left front wheel: up to 1/4 in to 13/16 in off the ground",
    ]);
  });

  it("names places that are no spindle: neighbours, anti-scalp wheels, parts of the deck", () => {
    expect([
      sayPlace("blade-overlap", zeroTurn, "left:middle"),
      sayPlace("anti-scalp-wheels", zeroTurn, "rim-left-front"),
      sayPlace("deck-cleanliness", zeroTurn, "port"),
      sayPlace("blade-edge", zeroTurn, "left"),
    ]).toEqual(["Left blade and middle blade", "Left front wheel", "Washout port", "Left blade"]);
  });
});

describe("no code is left without words", () => {
  // A code without words stands in brackets, and every word of the trade is without hyphens but these.
  const nameless = /⟨|undefined|NaN|\b(?!end-for-end|clean-out)[a-z]+(-[a-z]+)+\b/;

  it("every worksheet has a face", () => {
    expect(WORKSHEETS.map(({ id }) => id).filter((id) => !FACED.includes(id))).toEqual([]);
  });

  it.each([...SHEETS])("$name: whatever is answered, or left out, every sentence, state, place and figure has a name", (sheet) => {
    const { check, machine } = sheet;
    const told = { machine, system: "us" as const, standpoint: "behind" as const };
    const spoils = spoilsOf(sheet);
    const tried: (Assessment | undefined)[] = [
      with_(sheet),
      ...spoils.map((spoil) => with_(sheet, spoil)),
      ...[...new Set(spoils.map(({ path }) => path))].map((path) => with_(sheet, { path, value: undefined })),
    ];
    expect(tried.filter((one) => one !== undefined).length).toBeGreaterThan(1);
    for (const found of tried) {
      if (!found) continue;
      const all = [
        sayAnswer(found, told),
        ...found.actions.map((one) => sayAction(check.id, one, told)),
        ...found.warnings.map((one) => sayWarning(check.id, one, told)),
        ...found.provisional.map((one) => sayProvisional(check.id, one, told)),
        ...found.figures.map((one) => figureName(check.id, one, machine)),
        ...found.findings.map(({ code }) => sayState(check.id, code)),
        ...found.findings.map(({ place }) => sayPlace(check.id, machine, place)),
      ];
      const bad = all.filter((sentence) => sentence.length < 2 || nameless.test(sentence));
      expect(bad).toEqual([]);
    }
  });

  it("what was only looked at is said by its verdict, whatever its check", () => {
    const look = {
      ruleVersion: 0,
      verdict: "out",
      provisional: [],
      figures: [],
      evidence: [],
      actions: [],
      warnings: [],
      detail: { each: [] },
    };
    for (const { id } of WORKSHEETS)
      expect(sayAnswer({ ...look, check: id } as unknown as Assessment, { machine: zeroTurn, system: "us" })).toBe("Out");
  });

  it("a check without a worksheet has a silent face, and a code it does not know stands in brackets", () => {
    expect(faceOf("no-such-check").answer({} as Assessment, { machine: zeroTurn, system: "us" })).toBe("");
    expect(sayState("blade-edge", "no-such-state")).toBe("⟨no-such-state⟩");
  });
});
