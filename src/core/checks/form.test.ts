import { describe, expect, it } from "vitest";
import { isReadAt } from "./form";

const isPlace = (id: string) => ["left", "middle", "right", "left-drive"].includes(id);
const places = (...path: string[]) => ["left", "middle", "right"].filter((place) => isReadAt({ path, place, isPlace }));

describe("where a reading was made", () => {
  it("is the first place in its path: an end of a unit is not the unit of that name", () => {
    expect(places("units", "middle", "worst", "left")).toEqual(["middle"]);
    expect(places("units", "left", "worst", "left")).toEqual(["left"]);
    expect(places("tips", "right:left")).toEqual(["right"]);
  });

  it("is both places of a pair, and none of a name that only begins alike", () => {
    expect(places("pairs", "left:middle", "turned")).toEqual(["left", "middle"]);
    expect(places("pairs:left:middle")).toEqual(["left", "middle"]);
    expect(places("tyres", "left-drive")).toEqual([]);
  });
});
