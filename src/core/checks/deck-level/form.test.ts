import { describe, expect, it } from "vitest";
import { evaluate, typedAgain, typedIn } from "@/ui/sheet/evaluate";
import { type Check, keyOf, worksheetById } from "..";
import { machineOf } from "../sheets.fixtures";
import { type DeckReadings, deckReadingsSchema, stationOf, tipsOf } from "./schema";

const machine = machineOf("ZT-1");
const check = worksheetById("deck-level") as Check;
const parse = (readings: object): DeckReadings => deckReadingsSchema.parse(readings) as DeckReadings;
const tip = (spindleId: string, direction: string, heightMetres: number, end?: string) => ({
  spindleId,
  direction,
  heightMetres,
  ...(end ? { end } : {}),
});

describe("readings of a level as a list, as older rules and programs write them", () => {
  it("are the same as by place", () => {
    const listed = parse({
      tips: [tip("left", "left", 0.08), tip("right", "right", 0.081), tip("middle", "front", 0.079)],
      looseHangerIds: ["left-rear"],
      isCarriedRound: true,
      floor: { wheels: [{ wheelId: "left-drive", heightMetres: 0.002 }], places: [tip("left", "left", -0.003)] },
    });
    const placed = parse({
      tips: { "left:left": { heightMetres: 0.08 }, "right:right": { heightMetres: 0.081 }, "middle:front": { heightMetres: 0.079 } },
      hangers: { "left-rear": "loose" },
      ends: "one-carried-round",
      floor: { wheels: { "left-drive": { heightMetres: 0.002 } }, places: { "left:left": { heightMetres: -0.003 } } },
    });
    expect(listed).toEqual(placed);
    expect(tipsOf(listed)[2]).toEqual({ key: "middle:front", spindleId: "middle", direction: "front", heightMetres: 0.079 });
  });

  it("tell which form they were read in, so that a correction lays out every one of them", () => {
    const full = parse({ tips: [tip("left", "left", 0.08, "A"), tip("left", "left", 0.081, "B")] });
    expect(full.form).toBe("full");
    const twist = parse({
      tips: ["left:left", "right:right", "middle:front", "middle:rear", "left:front"].map((key) => {
        const [spindleId = "", direction = ""] = key.split(":");
        return tip(spindleId, direction, 0.08);
      }),
    });
    expect(twist.form).toBe("twist");
    const { text } = typedAgain({
      check,
      machine,
      input: { tips: [tip("left", "left", 0.0762, "A"), tip("right", "rear", 0.0889, "B")] },
      system: "us",
    });
    expect(text).toMatchObject({ form: "full", "tips.left:left:A.heightMetres": "3", "tips.right:rear:B.heightMetres": "3.5" });
    const back = evaluate({ check, machine, typed: { text, sure: text }, system: "us" });
    expect(Object.keys((back.readings as DeckReadings).tips)).toEqual(["left:left:A", "right:rear:B"]);
  });

  it("a key that names no tip is no tip", () => {
    expect([stationOf("left:up"), stationOf("left"), stationOf(":left"), stationOf("left:left:C"), stationOf("a:left:A:b")]).toEqual(
      Array(5).fill(undefined),
    );
    expect(stationOf("left:left:B")).toEqual({ spindleId: "left", direction: "left", end: "B" });
  });
});

describe("the form of a level", () => {
  const form = (soFar: object = {}) => check.form?.(machine, soFar) ?? { groups: [], fields: [] };
  const tips = (soFar: object) => form(soFar).fields.filter(({ group, kind }) => group === "tips" && kind === "quantity");

  it("has a place on the drawing for every tip and every hanger, no two at one point", () => {
    for (const which of ["quick", "twist", "full"]) {
      const places = tips({ form: which }).map(({ at }) => `${at?.x.toFixed(4)} ${at?.y.toFixed(4)}`);
      expect(places).not.toContain("undefined undefined");
      expect(new Set(places).size).toBe(places.length);
    }
    expect([tips({}).length, tips({ form: "twist" }).length, tips({ form: "full" }).length]).toEqual([4, 8, 24]);
  });

  it("offers the floor again as it was last, and nothing else of last time", () => {
    const kept = check.keeps?.(
      parse({ tips: [tip("left", "left", 0.08)], floor: { wheels: [{ wheelId: "left-drive", heightMetres: 0.0127 }], places: [] } }),
    );
    expect(typedIn({ form: form(), group: "floor", input: kept ?? {}, system: "us" })).toEqual({
      "floor.wheels.left-drive.heightMetres": "0.5",
    });
    expect(check.keeps?.(parse({ tips: [tip("left", "left", 0.08)] }))).toBeUndefined();
  });

  it("says of each tip what it read and should read after the turns, by its field", () => {
    const read = {
      tips: [tip("left", "left", 0.0762), tip("right", "right", 0.0841), tip("middle", "front", 0.0826), tip("middle", "rear", 0.081)],
    };
    const found = check.assess(machine, parse(read));
    const expected = check.expects?.(found) ?? {};
    const fields = tips({}).map(({ path }) => keyOf(path));
    expect(Object.keys(expected).sort()).toEqual([...fields].sort());
    for (const { was, should } of Object.values(expected)) expect(Math.abs((should ?? was) - was)).toBeLessThan(0.02);
    expect(Object.values(expected).some(({ was, should }) => should !== undefined && Math.abs(should - was) > 0.003)).toBe(true);
  });
});
