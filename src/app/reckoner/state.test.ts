import * as fc from "fast-check";
import { describe, expect, it } from "vitest";
import { queryOf, type ReckonerState, stateFrom } from "./state";

const read = (query: string) => stateFrom(Object.fromEntries(new URLSearchParams(query)));

describe("the reckoner's link", () => {
  it("holds what was typed as it was typed", () => {
    const state: ReckonerState = {
      machineId: "zt-1",
      system: "us",
      text: { "blades.left.A.nickMetres": "1/16 in", heightsMetres: "2 1/2\n2 3/8" },
    };
    expect(read(queryOf(state))).toEqual(state);
    expect(queryOf(state)).toContain("blades.left.A.nickMetres=1%2F16+in");
  });

  it("holds the deck's form, floor and loose hangers", () => {
    const state: ReckonerState = {
      machineId: "bd-1",
      text: {
        form: "full",
        "tips.left:left:A.heightMetres": "3",
        "hangers.front": "loose",
        "floor.wheels.left-rear.heightMetres": "-1/8",
        wantedCutHeightMetres: "3",
      },
    };
    expect(read(queryOf(state))).toEqual(state);
  });

  it("comes back the same for any text (property)", () => {
    const text = fc.dictionary(fc.stringMatching(/^[a-z]{2,8}(\.[A-Za-z]{1,8}){1,3}$/), fc.string({ minLength: 1, maxLength: 40 }), {
      maxKeys: 12,
    });
    fc.assert(
      fc.property(text, (typed) => {
        expect(read(queryOf({ text: typed })).text).toEqual(Object.fromEntries(Object.entries(typed).filter(([, value]) => value !== "")));
      }),
      { seed: 20_261_123 },
    );
  });

  it("leaves out what cannot be read instead of failing", () => {
    expect(stateFrom({ units: "furlongs", form: "loose", machine: ["ZT-1", "x"], a: 7 })).toEqual({ text: {} });
    expect(stateFrom({ units: "furlongs", machine: ["ZT-1", "x"] })).toEqual({ machineId: "zt-1", text: {} });
    expect(stateFrom(undefined)).toEqual({ text: {} });
  });
});
