import { describe, expect, it } from "vitest";
import { type WaySigns, wayUp } from "./way-up";

const codes = (signs: WaySigns) => {
  const way = wayUp(signs);
  return "why" in way ? `${way.code} ${way.why}` : way.code;
};

/** Common practice; turning over by physics. */
describe("which way up", () => {
  it.each([
    [{ sail: "to-deck", leads: "edge" }, "right"],
    [{ sail: "to-ground", leads: "back" }, "upside-down"],
    [{ sail: "to-ground", leads: "edge" }, "another-blade edge-leads"],
    [{ sail: "to-deck", leads: "back" }, "another-blade back-leads"],
    [{ stamp: "wrong", arrow: "against-turn" }, "upside-down"],
    [{ centre: "ends-higher" }, "upside-down"],
    [{ sail: "none", leads: "edge" }, "right"],
    [{ sail: "none", leads: "back" }, "upside-down"],
    [{ sail: "none", stamp: "right", leads: "edge" }, "right"],
    [{ sail: "to-deck" }, "untold"],
    [{ leads: "edge" }, "untold"],
    [{}, "untold"],
  ] as const)("%j is %s", (signs, wanted) => expect(codes(signs)).toBe(wanted));

  it("says which signs disagree, and settles nothing by them", () => {
    expect(wayUp({ sail: "to-deck", stamp: "wrong", leads: "edge" })).toEqual({ code: "signs-disagree", signs: ["sail", "stamp"] });
    expect(wayUp({ sail: "to-deck", leads: "edge", arrow: "against-turn" })).toEqual({ code: "signs-disagree", signs: ["leads", "arrow"] });
  });

  it("is right only where nothing looked at is wrong: every set of answers", () => {
    const all = {
      sail: [undefined, "to-deck", "to-ground", "none"],
      stamp: [undefined, "right", "wrong", "none"],
      centre: [undefined, "ends-lower", "ends-higher", "flat"],
      leads: [undefined, "edge", "back"],
      arrow: [undefined, "with-turn", "against-turn", "none"],
    } as const;
    const bad: readonly (string | undefined)[] = ["to-ground", "wrong", "ends-higher", "back", "against-turn"];
    for (const sail of all.sail)
      for (const stamp of all.stamp)
        for (const centre of all.centre)
          for (const leads of all.leads)
            for (const arrow of all.arrow) {
              const signs = { sail, stamp, centre, leads, arrow };
              if (wayUp(signs).code === "right")
                expect(
                  Object.values(signs).some((one) => bad.includes(one)),
                  JSON.stringify(signs),
                ).toBe(false);
            }
  });
});
