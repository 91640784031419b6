import { describe, expect, it } from "vitest";
import { WORKSHEETS, worksheetsFor } from "@/core/checks";
import { assessed, machineOf } from "@/core/checks/sheets.fixtures";
import { seededRandom } from "@/demo/random";
import { soundReadings, spoiled } from "@/demo/sheets";
import { PLACE_WORDS } from "./checks";
import { said, sound } from "./said.fixtures";
import { FORM_WORDS, sheetPlace } from "./sheets";

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
      sheetPlace(zeroTurn, "left:middle"),
      sheetPlace(zeroTurn, "rim-left-front"),
      sheetPlace(zeroTurn, "port"),
      sheetPlace(zeroTurn, "left"),
    ]).toEqual(["Left blade and middle blade", "Left front wheel", "Washout port", "Left blade"]);
  });
});

describe("no code is left without words", () => {
  const kebab = /\b[a-z]+(-[a-z]+){1,}\b/;

  it.each(worksheetsFor(zeroTurn).flatMap(({ id, form }) => (form ? [id] : [])))(
    "%s: sound and half read, every sentence and figure has a name",
    (check) => {
      if (!soundReadings({ machine: zeroTurn, check, random: seededRandom(1), turf: "" })) return;
      for (const readings of [sound(check), { ...spoiled(sound(check), {}), blades: undefined, hangers: undefined, wheels: undefined }]) {
        const assessment = assessed(check, zeroTurn, readings);
        const told = { machine: zeroTurn, system: "us" as const, standpoint: "behind" as const };
        const all = [
          FORM_WORDS.answer(assessment, told),
          ...assessment.actions.map((one) => FORM_WORDS.action(one, told)),
          ...assessment.provisional.map((one) => FORM_WORDS.provisional(one, told)),
          ...assessment.figures.map((one) => FORM_WORDS.figureName(one, zeroTurn)),
        ];
        for (const sentence of all) {
          expect(sentence.length).toBeGreaterThan(2);
          expect(sentence.replace(/end-for-end/g, "")).not.toMatch(kebab);
        }
      }
    },
  );

  it("what was only looked at is said by its verdict, whatever its check", () => {
    const look = {
      check: "blade-track",
      ruleVersion: 0,
      verdict: "out",
      provisional: [],
      figures: [],
      evidence: [],
      actions: [],
      warnings: [],
      detail: { each: [] },
    } as const;
    for (const { id } of WORKSHEETS) {
      const words = ["tyre-pressure", "deck-level"].includes(id) ? PLACE_WORDS : FORM_WORDS;
      if (words === FORM_WORDS) expect(words.answer({ ...look, check: id } as never, { machine: zeroTurn, system: "us" })).toBe("Out");
    }
  });
});
