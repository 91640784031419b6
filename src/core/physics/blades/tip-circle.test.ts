import { describe, expect, it } from "vitest";
import { assessCheck } from "@/core/checks";
import { machineOf } from "@/core/checks/sheets.fixtures";
import type { Machine, SheetWord, Spindle } from "@/core/machine";
import { tipCircleOf } from "./tip-circle";

const INCH = 0.0254;
const own = machineOf("ZT-1");
const CIRCLE = "spindles.left.tipCircleDiameterMetres";
const LENGTH = "sheet.blade.lengthMetres";

function told(args: { circle: number; length?: number; words?: Record<string, SheetWord> }): Machine {
  const spindles = own.spindles.map((one) => ({ ...one, tipCircleDiameterMetres: args.circle * INCH }));
  const blade = args.length === undefined ? undefined : { ...own.sheet.blade, lengthMetres: args.length * INCH };
  return { ...own, spindles, sheet: { ...own.sheet, blade, words: args.words } } as Machine;
}
const circleOf = (machine: Machine) => tipCircleOf(machine, machine.spindles[0] as Spindle);

describe("the tip circle", () => {
  it("is the blade's length where only the circle is a template's estimate, and the circle where only the length is", () => {
    expect(circleOf(told({ circle: 16.531, length: 20, words: { [CIRCLE]: "estimated" } }))).toEqual({ metres: 20 * INCH });
    expect(circleOf(told({ circle: 16.531, length: 20, words: { [LENGTH]: "estimated" } }))).toEqual({ metres: 16.531 * INCH });
  });

  it("is the larger of two that contradict each other, and says so; of two estimates too", () => {
    for (const words of [{}, { [CIRCLE]: "estimated", [LENGTH]: "estimated" }] as Record<string, SheetWord>[])
      for (const [circle, length] of [
        [16.531, 20],
        [20, 16.531],
      ] as const)
        expect(circleOf(told({ circle, length, words }))).toEqual({ metres: 20 * INCH, otherMetres: 16.531 * INCH, doubt: "contradicted" });
  });

  it("alone and estimated is doubted; two that agree are one", () => {
    expect(circleOf(told({ circle: 17, words: { [CIRCLE]: "estimated" } }))).toEqual({ metres: 17 * INCH, doubt: "estimated" });
    expect(circleOf(told({ circle: 17, length: 17.1 }))).toEqual({ metres: 17 * INCH });
  });
});

/** A user's own machine: blade 20 in, circle left as the template had it. By hand: π · 20/12 ft · 4,320 r/min = 22,619 ft/min; on 16.531 in 18,697. */
describe("tip speed on a specification whose circle is an estimate", () => {
  const speedOf = (machine: Machine) => {
    const spindles = Object.fromEntries(machine.spindles.map(({ id }) => [id, { revolutionsPerMinute: 4320 }]));
    const outcome = assessCheck("tip-speed", { machine: JSON.parse(JSON.stringify(machine)), readings: { spindles } });
    if (outcome.kind !== "assessed") throw new Error(JSON.stringify(outcome));
    return outcome.assessment;
  };
  const feet = (assessment: ReturnType<typeof speedOf>) => {
    const figure = assessment.figures.find(({ id }) => id === "tip-speed");
    return Math.round((figure?.value ?? 0) / 0.00508);
  };

  it("is judged by the blade's length that was typed: over the limit, not under it", () => {
    const typed = speedOf(
      told({
        circle: 16.531,
        length: 20,
        words: Object.fromEntries(own.spindles.map(({ id }) => [`spindles.${id}.tipCircleDiameterMetres`, "estimated"])),
      }),
    );
    expect([typed.verdict, feet(typed)]).toEqual(["stop", 22_619]);
  });

  it("is judged by the worse of two that contradict each other, and stands on neither", () => {
    const apart = speedOf(told({ circle: 16.531, length: 20 }));
    expect([apart.verdict, apart.provisional.map(({ code }) => code)]).toEqual(["stop", own.spindles.map(() => "tip-circle-contradicted")]);
  });

  it("is provisional where an estimate is the only ground for it", () => {
    const words = Object.fromEntries(own.spindles.map(({ id }) => [`spindles.${id}.tipCircleDiameterMetres`, "estimated" as const]));
    const guessed = speedOf(told({ circle: 16.531, words }));
    expect([feet(guessed), guessed.provisional.map(({ code }) => code)]).toEqual([
      18_697 - 1,
      own.spindles.map(() => "tip-circle-estimated"),
    ]);
  });
});
