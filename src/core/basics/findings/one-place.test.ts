import { describe, expect, it } from "vitest";
import { onePlaceOf } from "./one-place";

const cutters = ["left", "middle", "right"];
const at = (place: string, cause = "blade-bent") => ({ place, causes: [{ cause, result: "seen" as const }] });
const among = (findings: ReturnType<typeof at>[], told = cutters, causes = ["blade-bent"]) =>
  onePlaceOf({ cutters, findings, told, causes });

/** Counting: of how many places one alone speaks. */
describe("one place of so many", () => {
  it("is counted over the blades or units that were read, whichever end of one it was", () => {
    expect(among([at("left")])).toBe(3);
    expect(among([at("left:A"), at("left:B")])).toBe(3);
    expect(among([at("left")], ["left", "right"])).toBe(2);
    expect(among([at("left:A")], ["left:A", "left:B", "right:A"])).toBe(2);
  });

  it("is none where two speak, where one alone was read, or where it is of the whole machine", () => {
    expect(among([at("left"), at("right")])).toBeUndefined();
    expect(among([at("left")], ["left"])).toBeUndefined();
    expect(among([at("machine")])).toBeUndefined();
    expect(among([])).toBeUndefined();
  });

  it("looks only at what points at the causes asked for", () => {
    expect(among([at("left"), at("right", "blade-dull")])).toBe(3);
    expect(among([at("left"), at("right", "blade-dull")], cutters, ["blade-bent", "blade-dull"])).toBeUndefined();
  });
});
