import { describe, expect, it } from "vitest";
import { type Machine, machineSchema } from "@/core/machine";
import { PSI_PASCALS } from "@/core/units";
import { FLEET } from "@/demo/fleet";
import { readEntry } from "@/ui/entry";
import { floorOf, floorPlaces, placesFor, readingsOf } from "./places";

const machineOf = (fleetNumber: string): Machine => machineSchema.parse(FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine);
const zeroTurn = machineOf("ZT-1");
const keys = (checkId: string, form: "quick" | "twist" | "full" = "quick", machine = zeroTurn) =>
  placesFor({ checkId, machine, form }).map(({ key }) => key);

describe("places in measuring order", () => {
  it("walks round the wheels: up the left side, down the right", () => {
    expect(keys("tyre-pressure")).toEqual(["left-drive", "left-caster", "right-caster", "right-drive"]);
    expect(keys("tyre-pressure", "quick", machineOf("FD-1"))).toEqual(["left-steer", "left-drive", "right-drive", "right-steer"]);
  });

  it("quick form: outer tips, then front and rear of the middle blade; twist adds both outer blades; full both ends of each", () => {
    expect(keys("deck-level")).toEqual(["left:left", "right:right", "middle:front", "middle:rear"]);
    expect(keys("deck-level", "twist")).toEqual([...keys("deck-level"), "left:front", "left:rear", "right:front", "right:rear"]);
    expect(keys("deck-level", "full")).toHaveLength(24);
    expect(new Set(keys("deck-level", "full")).size).toBe(24);
  });

  it("draws end B where it can be touched apart from end A", () => {
    const places = placesFor({ checkId: "deck-level", machine: zeroTurn, form: "full" });
    const at = (key: string) => places.find((place) => place.key === key)?.at ?? { x: 0, y: 0 };
    const apart = Math.hypot(at("left:left:A").x - at("left:left:B").x, at("left:left:A").y - at("left:left:B").y);
    expect(apart).toBeGreaterThan(0.05);
  });

  it("has none for a check without a worksheet", () => {
    expect(keys("blade-edge")).toEqual([]);
  });
});

describe("what was typed", () => {
  const [tyre] = placesFor({ checkId: "tyre-pressure", machine: zeroTurn, form: "quick" });
  if (!tyre) throw new Error("no tyre");
  const kind = (text: string, sure?: string) => readEntry({ text, place: tyre, system: "us", sure }).kind;

  it("is read, left empty, refused, unread or asked about", () => {
    expect([kind("12"), kind("  "), kind("400"), kind("-3"), kind("twelve"), kind("83")]).toEqual([
      "read",
      "empty",
      "refused",
      "refused",
      "unread",
      "asked",
    ]);
  });

  it("is taken once its writer stands by it, and asked again when it changes", () => {
    expect(kind("60", "60")).toBe("read");
    expect(kind("61", "60")).toBe("asked");
  });

  it("is refused past the hard limit however sure somebody is", () => {
    expect(kind("400", "400")).toBe("refused");
  });

  it("takes a bare number in the person's own unit", () => {
    const metric = readEntry({ text: "83", place: tyre, system: "metric" });
    expect(metric).toEqual({ kind: "read", valueSi: 83_000 });
    const us = readEntry({ text: "12", place: tyre, system: "us" });
    expect(us.kind === "read" && us.valueSi).toBeCloseTo(12 * PSI_PASCALS, 6);
  });
});

describe("what is sent off", () => {
  it("puts each reading at its place, ends where they are told apart", () => {
    expect(readingsOf({ checkId: "tyre-pressure", read: [{ key: "left-drive", valueSi: 80_000 }], extra: {} })).toEqual({
      tyres: [{ wheelId: "left-drive", pressurePascals: 80_000 }],
    });
    const deck = readingsOf({
      checkId: "deck-level",
      read: [{ key: "left:front:B", valueSi: 0.08 }],
      extra: { wantedCutHeightMetres: 0.075 },
    });
    expect(deck).toMatchObject({
      wantedCutHeightMetres: 0.075,
      tips: [{ spindleId: "left", direction: "front", end: "B", heightMetres: 0.08 }],
    });
  });

  it("maps the floor under wheels and tips, ends not told apart", () => {
    const places = placesFor({ checkId: "deck-level", machine: zeroTurn, form: "full" });
    expect(floorPlaces(zeroTurn, places)).toHaveLength(4 + 12);
    expect(
      floorOf([
        { key: "left-drive", valueSi: 0.001 },
        { key: "left:left", valueSi: -0.004 },
      ]),
    ).toEqual({
      wheels: [{ wheelId: "left-drive", heightMetres: 0.001 }],
      places: [{ spindleId: "left", direction: "left", heightMetres: -0.004 }],
    });
  });
});
