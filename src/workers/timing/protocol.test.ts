import { describe, expect, it } from "vitest";
import { requestSchema } from "./protocol";

const blade = { lengthMetres: 0.53, widthMetres: 0.06 };
const asked = (more: object = {}) => ({
  number: 1,
  pairs: [
    {
      id: "left:right",
      pair: { one: blade, other: blade, centresMetres: 0.43, sense: "same" },
      phaseDegrees: 90,
      lashDegrees: 0,
      wantedMetres: 0.006,
      ...more,
    },
  ],
});

describe("what the timing worker takes", () => {
  it("is a pair of blades with a phase", () => {
    expect(requestSchema.safeParse(asked()).success).toBe(true);
    expect(requestSchema.safeParse(asked({ teeth: 12 })).success).toBe(true);
  });

  it.each([
    ["no blade", { pair: { one: { lengthMetres: 0, widthMetres: 0.06 }, other: blade, centresMetres: 0.4, sense: "same" } }],
    ["a phase past half a turn", { phaseDegrees: 190 }],
    ["a coupling of two teeth", { teeth: 2 }],
    ["a sense that is none", { pair: { one: blade, other: blade, centresMetres: 0.4, sense: "up" } }],
  ])("is not %s", (_, more) => {
    expect(requestSchema.safeParse(asked(more)).success).toBe(false);
  });
});
