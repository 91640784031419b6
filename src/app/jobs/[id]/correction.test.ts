import { describe, expect, it } from "vitest";
import { correctionOf } from "./correction";

const reading = (place: string, value: number) => ({ id: 1, place, quantity: "height_metres", value, asTyped: "3 1/4" });
const tip = (spindleId: string, direction: string, heightMetres: number, end?: string) => ({
  spindleId,
  direction,
  heightMetres,
  ...(end ? { end } : {}),
});
const take = (tips: object[], more: object = {}) => ({
  stepId: 7,
  checkId: "deck-level" as const,
  input: { tips, ...more },
  readings: [reading("left:left", 0.08255)],
});

describe("a take laid out for correction", () => {
  it("comes in the units of whoever corrects it, not of whoever typed it", () => {
    const tips = [tip("left", "left", 0.08255)];
    expect(correctionOf(take(tips), "us").text).toEqual({ "left:left": "3.25" });
    expect(correctionOf(take(tips), "metric").text).toEqual({ "left:left": "82.55" });
  });

  it("opens the form that holds every reading, so that none is dropped", () => {
    expect(correctionOf(take([tip("left", "left", 0.08)]), "us").form).toBe("quick");
    expect(
      correctionOf(take(["left", "front", "right", "rear", "left"].map((d, k) => tip(k === 4 ? "right" : "left", d, 0.08))), "us").form,
    ).toBe("twist");
    expect(correctionOf(take([tip("left", "left", 0.08, "B")]), "us").form).toBe("full");
  });

  it("brings back what went with the readings: height wanted, loose hangers, floor", () => {
    const floor = {
      wheels: [{ wheelId: "left-drive", heightMetres: 0.001 }],
      places: [{ spindleId: "left", direction: "left", heightMetres: -0.004 }],
    };
    const draft = correctionOf(
      take([tip("left", "left", 0.08)], { wantedCutHeightMetres: 0.075, looseHangerIds: ["left-rear"], floor }),
      "metric",
    );
    expect(draft).toMatchObject({
      correctsStepId: 7,
      wantedHeight: "75",
      loose: ["left-rear"],
      floor: { "left-drive": "1", "left:left": "-4" },
    });
  });
});
