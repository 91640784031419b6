import { describe, expect, it } from "vitest";
import type { UnitSystem } from "@/core/basics/units";
import { SHEETS, spoilsOf, with_ } from "@/core/checks/every-answer.fixtures";
import { figureName, figureValue, sayAction, sayAnswer, sayProvisional, sayState, sayWarning } from "./words";

/** A worksheet whose whole answer is that all is well. */
const ALL_WELL = /^(?!.*\bnot\b)[^.]*\b(right|sound|alike|clean|in order|even|true)\.?$/i;
/** What no reader is to see: a name that has no words yet, or a number nobody formatted. */
const UNSAID = /[⟨⟩]|undefined|NaN|\[object/;

describe.each([...SHEETS])("$name", (sheet) => {
  const found = [undefined, ...spoilsOf(sheet)].flatMap((spoil) => with_(sheet, ...(spoil ? [spoil] : [])) ?? []);
  const told = (system: UnitSystem) => ({ machine: sheet.machine, system, standpoint: "behind" as const });

  it("never says that all is well of what is out, nor of what was not read", () => {
    const wrong = found.filter(({ verdict }) => verdict !== "in-tolerance" && verdict !== "watch").map((one) => sayAnswer(one, told("us")));
    expect(wrong.filter((answer) => ALL_WELL.test(answer))).toEqual([]);
  });

  it("has words for everything it can find, do, doubt or show, in both systems", () => {
    const said = (system: UnitSystem) =>
      found.flatMap((one) => [
        sayAnswer(one, told(system)),
        ...one.actions.map((action) => sayAction(one.check, action, told(system))),
        ...one.warnings.map((warning) => sayWarning(one.check, warning, told(system))),
        ...one.provisional.map((reason) => sayProvisional(one.check, reason, told(system))),
        ...one.findings.map(({ code }) => sayState(one.check, code)),
        ...one.figures.map((figure) => `${figureName(one.check, figure, sheet.machine)}: ${figureValue(figure, system)}`),
      ]);
    expect([...new Set([...said("us"), ...said("metric")].filter((text) => UNSAID.test(text)))]).toEqual([]);
  });
});
