import { describe, expect, it } from "vitest";
import { isLike } from "./draft";

describe("what a browser kept", () => {
  const model = { text: {}, sure: {}, isOpen: false };

  it("is taken up where it has the shape of what it is for, with more in it than the start has", () => {
    expect(isLike({ text: { "tyres.left-drive.pressurePascals": "12" }, sure: {}, isOpen: true, correctsStepId: 7 }, model)).toBe(true);
    expect(isLike({ atStep: 4, panel: "fix" }, { atStep: -1 })).toBe(true);
    expect(isLike(["a"], [])).toBe(true);
  });

  it.each([
    ["a spoilt field", { text: null, sure: {}, isOpen: false }],
    ["one of another kind", { text: {}, sure: 7, isOpen: false }],
    ["one that is missing", { text: {}, sure: {} }],
    ["a list for an object", { text: [], sure: {}, isOpen: false }],
    ["nothing at all", null],
    ["a bare word", "text"],
  ])("is set aside with %s", (_, kept) => {
    expect(isLike(kept, model)).toBe(false);
  });
});
