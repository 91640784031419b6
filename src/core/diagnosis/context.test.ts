import { describe, expect, it } from "vitest";
import type { ContextId } from "@/core/catalogue";
import { contextFactor, contradictionIn } from "./context";
import { allFeatures, knowledgeOf } from "./index";

const { causes } = knowledgeOf({ cutsWith: "rotary", features: allFeatures("rotary") });
const factor = (id: string, ...contexts: ContextId[]) => {
  const cause = causes.find((one) => one.id === id);
  return cause && contextFactor(cause, contexts);
};

/** Caps of contexts (estimate). */
describe("contexts on one cause", () => {
  it("count the largest in full and the others as their root: 6 and 4 and 2 make 6 × 2 × √2, held to 15", () => {
    expect(factor("deck-out-of-level", "deck-dropped")).toBe(6);
    expect(factor("deck-out-of-level", "height-changed", "deck-dropped")).toBeCloseTo(6 * Math.sqrt(1.5), 12);
    expect(factor("deck-out-of-level", "deck-dropped", "deck-refitted", "struck-object")).toBe(15);
  });

  it("count what lowers in full, after the cap", () => {
    expect(factor("deck-out-of-level", "deck-dropped", "deck-refitted", "struck-object", "now-and-then")).toBeCloseTo(15 * 0.3, 12);
  });

  it("of every machine alike lower the machine's own causes and raise wet grass; turf and operation stay", () => {
    expect(factor("blade-dull", "all-machines")).toBeCloseTo(0.2, 12);
    expect(factor("too-wet-or-tall", "all-machines")).toBe(3);
    expect(factor("ground-undulates", "all-machines")).toBe(1);
    expect(factor("pass-overlap-small", "all-machines")).toBe(1);
  });

  it("of one machine alone lower operation and turf only", () => {
    expect(factor("ground-speed-high", "one-machine-only")).toBeCloseTo(0.3, 12);
    expect(factor("ground-undulates", "one-machine-only")).toBeCloseTo(0.3, 12);
    expect(factor("blade-dull", "one-machine-only")).toBe(1);
  });

  it("that contradict each other are named", () => {
    expect(contradictionIn(["one-machine-only", "struck-object"])).toBeUndefined();
    expect(contradictionIn(["all-machines", "one-machine-only"])).toEqual(["one-machine-only", "all-machines"]);
  });
});
