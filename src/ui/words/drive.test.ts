import { describe, expect, it } from "vitest";
import { assessed, machineOf } from "@/core/checks/sheets.fixtures";
import { machineBelt } from "@/core/physics/drive/machine-belt";
import { said } from "../checks/said.fixtures";
import { sayWarning } from "../checks/words";
import { sayBelt, sayRouteProblem } from "./belt";

describe("what the drive's worksheets say, verdict first", () => {
  it.each([
    ["tip-speed", "ZT-1", { "spindles.middle.revolutionsPerMinute": 0 }, "Middle blade stands still."],
    ["tip-speed", "ZT-1", { "spindles.left.loadedRevolutionsPerMinute": 3400 }, "Loses 14 % under load. 74 % of the lift is left."],
    [
      "tip-speed",
      "ZT-1",
      { "spindles.left.drivenPitchMetres": 0.1 },
      "Do not run it: left blade is over the limit of 19,000 ft/min. Hold it out.",
    ],
    ["gearbox-inspection", "GR-1", { "boxes.left-box.pin": "sheared" }, "Left gearbox: pin sheared."],
    ["gearbox-inspection", "GR-1", {}, "Every gearbox sound."],
    ["spindle-play", "WP-1", { "spindles.blade.shaftEnd": "wobbles" }, "Blade: shaft's end wobbles."],
    [
      "vibration-reading",
      "ZT-1",
      { machine: { felt: "strong", with: "engine-alone", worst: "at-full", where: "engine" } },
      "Strong shaking, from the engine, not the blades.",
    ],
    [
      "vibration-reading",
      "ZT-1",
      { machine: { felt: "light", with: "travel", worst: "all-speeds", where: "seat" } },
      "Light shaking, from wheels and travel, not the blades.",
    ],
  ])("%s of %s, %o", (check, fleetNumber, spoils, answer) => {
    expect(said(check, spoils, "us", fleetNumber).answer).toBe(answer);
  });

  it("says oil in the reader's units, and what to do about it", () => {
    const low = { "boxes.right-box.depthMetres": 0.069, "boxes.right-box.stood": "just-filled" };
    expect(said("gearbox-inspection", low, "metric", "GR-1").actions).toEqual([
      "Right gearbox: 11.9 mm low; fill to 57.1 mm under the cover",
      "Right gearbox: read it again after it stood: connected boxes level out over hours",
    ]);
    expect(said("gearbox-inspection", low, "us", "GR-1").actions[0]).toBe("Right gearbox: 0.47 in low; fill to 2.25 in under the cover");
    expect(said("gearbox-inspection", low, "us", "GR-1").provisional).toEqual(["right gearbox just filled: oil not level yet"]);
  });

  it("says speeds as tip speeds and shares in percent", () => {
    const { figures } = said("tip-speed", { "spindles.left.loadedRevolutionsPerMinute": 3700 }, "us", "ZT-1");
    expect(figures).toContain("Tip speed on paper, left blade: 17,802 ft/min");
    expect(figures.some((figure) => /^Lost under load, left blade: \d\.\d %$/.test(figure))).toBe(true);
    expect(figures.some((figure) => /^Lift left, left blade: 8\d\.\d %$/.test(figure))).toBe(true);
  });

  it("tells operation apart from faults of the machine", () => {
    const apart = "A matter of operation, kept apart from faults: a word with the operator, nothing to mend.";
    const machine = machineOf("ZT-1");
    const told = { machine, system: "us" as const, standpoint: "behind" as const };
    const warnings = (check: string, readings: object) =>
      assessed(check, machine, readings).warnings.map((one) => sayWarning(check, one, told));
    expect(warnings("ground-speed", { distanceMetres: 100, seconds: [20, 20], revolutionsPerMinute: 2000 })).toContain(apart);
    expect(warnings("ground-speed", { distanceMetres: 100, seconds: [50, 50], revolutionsPerMinute: 4000 })).not.toContain(apart);
    expect(warnings("pass-overlap", { acrossMetres: 20, passes: 10 })).toContain(apart);
  });
});

describe("a belt's path in words", () => {
  const machine = machineOf("ZT-1");
  const pulleys = machine.sheet.belt?.pulleys ?? [];

  it("says its length against the sheet's belt, and the pulley that slips first", () => {
    const found = machineBelt(machine);
    expect(found?.ok && sayBelt(found.belt, machine, pulleys, "us")).toEqual([
      "95.12 in round; the sheet's belt is 1/4 in longer.",
      "The middle pulley slips first: only 44° of belt on it.",
    ]);
    expect(found?.ok && sayBelt(found.belt, machine, pulleys, "metric")[0]).toBe("2416.2 mm round; the sheet's belt is 7 mm longer.");
  });

  it("says first what would turn a blade backwards or run into a pulley", () => {
    const route = { lengthMetres: 1, runs: [], straights: [], fouled: ["left-idler-pulley"], isCrossed: false };
    expect(sayBelt({ route, wrongWay: ["middle"] }, machine, pulleys, "us").slice(0, 2)).toEqual([
      "Laid so, the middle blade would turn backwards.",
      "The belt would run into the left idler.",
    ]);
  });

  it("says why pulleys make no path", () => {
    expect(sayRouteProblem({ code: "misses-pulley", place: "left-idler-pulley" }, pulleys)).toContain("would not touch the left idler");
    expect(sayRouteProblem({ code: "too-few-pulleys", given: 1, needed: 2 }, pulleys)).toBe("A belt needs two pulleys at least.");
    expect(sayRouteProblem({ code: "pulleys-overlap", place: "left-pulley", other: "drive-pulley" }, pulleys)).toContain(
      "lie in each other",
    );
  });
});
