import fc from "fast-check";
import { describe, expect, it } from "vitest";
import * as z from "zod";
import { convexHull, crossingSides, type Point } from "@/core/basics/geometry";
import { KIND_IDS, kindById } from "@/core/catalogue/kinds";
import { assessCheck, worksheetsFor } from "@/core/checks";
import { deckSteps, usualDeckOff } from "@/core/job/sequences/deck-off";
import { cuttingWidth, type Machine, machineSchema, sheetProblems } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import {
  DRAWN,
  fieldsOf,
  GRID_METRES,
  mergedSheets,
  missingOf,
  readParts,
  SNAP_METRES,
  sheetDifferences,
  sheetPlaces,
  snapped,
  TABLE_ROWS,
  TEMPLATES,
  templateMachine,
  valueAt,
  withValue,
} from ".";

const machineOf = (fleetNumber: string): Machine => machineSchema.parse(FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine);
const wishes = KIND_IDS.flatMap((kind) =>
  TEMPLATES[kind].cutters.flatMap((cutters) =>
    [TEMPLATES[kind].leastWidthMetres, TEMPLATES[kind].usual.widthMetres, TEMPLATES[kind].mostWidthMetres].map((widthMetres) => ({
      kind,
      cutters,
      widthMetres,
    })),
  ),
);
const tenth = 0.0001;

describe("a rake typed without its minus", () => {
  it("is asked about: nose up is no usual rake", () => {
    const machine = templateMachine(TEMPLATES["zero-turn"].usual);
    const rake = fieldsOf(machine).find(({ key }) => key === "sheet.rakeTargetMetres");
    expect(rake).toMatchObject({ kind: "quantity", range: { usualMost: 0 } });
  });
});

describe("templates", () => {
  it.each(wishes)("$kind with $cutters cuts $widthMetres m wide and contradicts nothing", (wish) => {
    const machine = templateMachine(wish);
    expect(cuttingWidth(machine)).toBeCloseTo(wish.widthMetres, 2);
    expect(sheetProblems(machine)).toEqual([]);
    expect(machine.spindles.length + machine.units.length).toBe(wish.cutters);
    expect(kindById(machine.kind).cutsWith).toBe(machine.units.length > 0 ? "reel" : "rotary");
  });

  it.each(wishes)("$kind with $cutters at $widthMetres m leaves no strip between neighbours straight ahead", ({ ...wish }) => {
    const machine = templateMachine(wish);
    const across = [
      ...machine.spindles.map((s) => ({ x: s.xMetres, half: s.tipCircleDiameterMetres / 2 })),
      ...machine.units.map((u) => ({ x: u.xMetres, half: u.widthMetres / 2 })),
    ].sort((a, b) => a.x - b.x);
    for (const [k, one] of across.slice(1).entries()) {
      const before = across[k] as (typeof across)[number];
      expect(before.x + before.half - (one.x - one.half)).toBeGreaterThan(0.015);
    }
  });

  it("the three blades of a 1.25 m zero-turn stand as the depot's own do, within a hand (its sheet: 16.2 across, 6.5 forward, in)", () => {
    const [left, middle, right] = templateMachine({ kind: "zero-turn", cutters: 3, widthMetres: cuttingWidth(machineOf("ZT-1")) }).spindles;
    expect((middle?.xMetres ?? 9) - (left?.xMetres ?? 0)).toBeCloseTo(16.2 * 0.0254, 2);
    expect((middle?.yMetres ?? 9) - (left?.yMetres ?? 0)).toBeCloseTo(6.5 * 0.0254, 1);
    expect(right?.xMetres).toBeCloseTo(-(left?.xMetres ?? 9), 6);
  });

  it("say nothing that only a machine's own manual can say", () => {
    for (const wish of wishes) {
      const machine = templateMachine(wish);
      const { gearboxes = [], ...rest } = machine.sheet;
      expect(rest).toEqual({});
      expect(gearboxes.some(({ oil, coverToOilMetres, splineTeeth }) => oil ?? coverToOilMetres ?? splineTeeth)).toBe(false);
      expect(machine.wheels.some(({ sheetPressurePascals }) => sheetPressurePascals !== undefined)).toBe(false);
      expect(machine.deck?.hangers.some(({ liftPerTurnMetres }) => liftPerTurnMetres !== undefined) ?? false).toBe(false);
    }
  });

  it("every worksheet of a template answers without a throw, empty as it is", () => {
    for (const wish of wishes) {
      const machine = templateMachine(wish);
      const offered = worksheetsFor(machine);
      expect(offered.length).toBeGreaterThan(5);
      for (const { id } of offered) {
        const outcome = assessCheck(id, { machine, readings: {} });
        // Nothing was read: whatever it says, it clears nothing.
        if (outcome.kind === "assessed") expect(outcome.assessment.verdict, id).toBe("not-enough-readings");
      }
    }
  });
});

describe("the hull and the sides of an outline", () => {
  it("a square with points inside and on its sides is its four corners, anticlockwise (by hand)", () => {
    const square = [
      { x: 0, y: 0 },
      { x: 2, y: 0 },
      { x: 2, y: 2 },
      { x: 0, y: 2 },
    ];
    expect(convexHull([{ x: 1, y: 1 }, { x: 1, y: 0 }, ...square])).toEqual(square);
  });

  it("holds every point, and no side of it crosses another (300 clouds, fixed seed)", () => {
    const cloud = fc.array(fc.record({ x: fc.integer({ min: -50, max: 50 }), y: fc.integer({ min: -50, max: 50 }) }), {
      minLength: 3,
      maxLength: 25,
    });
    fc.assert(
      fc.property(cloud, (points) => {
        const hull = convexHull(points);
        if (hull.length < 3) return;
        expect(crossingSides(hull)).toBeUndefined();
        for (const p of points)
          for (const [k, a] of hull.entries()) {
            const b = hull[(k + 1) % hull.length] as Point;
            expect((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)).toBeGreaterThanOrEqual(0);
          }
      }),
      { seed: 20261126, numRuns: 300 },
    );
  });

  it("a bow tie crosses, a corner laid back on a side touches, an L does not", () => {
    const at = (...flat: number[]): Point[] =>
      Array.from({ length: flat.length / 2 }, (_, k) => ({ x: flat[2 * k] ?? 0, y: flat[2 * k + 1] ?? 0 }));
    expect(crossingSides(at(0, 0, 2, 2, 2, 0, 0, 2))).toEqual([0, 2]);
    expect(crossingSides(at(0, 0, 4, 0, 4, 2, 2, 0, 0, 2))).toBeDefined();
    expect(crossingSides(at(0, 0, 3, 0, 3, 1, 1, 1, 1, 3, 0, 3))).toBeUndefined();
  });
});

describe("what a sheet may not be", () => {
  it("a shell that crosses itself, told by the side it crosses at", () => {
    const machine = machineOf("GR-1");
    const outline = machine.deck?.outline ?? [];
    const crossed = { ...machine, deck: { ...machine.deck, outline: [outline[0], outline[2], outline[1], outline[3]] } } as Machine;
    expect(sheetProblems(crossed).map(({ code }) => code)).toEqual(["outline-crosses"]);
  });

  it("free blades whose circles meet; the same geared are timed past each other, and the depot's own are sound", () => {
    const machine = machineOf("ZT-1");
    const long = withValue(machine, "spindles.middle.tipCircleDiameterMetres", 0.47);
    expect(sheetProblems(long).map(({ code, other }) => [code, other])).toEqual([
      ["blades-would-strike", "Middle blade"],
      ["blades-would-strike", "Right blade"],
    ]);
    expect(sheetProblems({ ...long, features: ["gears", "hangers", "air-tyres", "several-blades", "combustion"] } as Machine)).toEqual([]);
    for (const { machine: own } of FLEET) expect(sheetProblems(machineSchema.parse(own))).toEqual([]);
  });
});

describe("values by their key", () => {
  const everyMachine = [...FLEET.map(({ machine }) => machineSchema.parse(machine)), ...wishes.map(templateMachine)];

  it("have keys that are told apart, and are read and written at the same place", () => {
    for (const machine of everyMachine) {
      const keys = fieldsOf(machine).map(({ key }) => key);
      expect(new Set(keys).size).toBe(keys.length);
      for (const key of keys) {
        const value = valueAt(machine, key);
        expect(withValue(machine, key, value)).toEqual(machine);
        const changed = withValue(machine, key, "⟨other⟩" as unknown);
        expect(valueAt(changed, key)).toBe("⟨other⟩");
        expect(withValue(changed, key, value)).toEqual(machine);
      }
    }
  });

  it("a value taken away takes along what then holds nothing, and never the sheet", () => {
    const machine = withValue(templateMachine(TEMPLATES["zero-turn"].usual), "sheet.blade.lengthMetres", 0.43);
    expect(machine.sheet).toEqual({ blade: { lengthMetres: 0.43 } });
    expect(withValue(machine, "sheet.blade.lengthMetres", undefined).sheet).toEqual({});
  });

  it("what is not there is not made up, whatever it is called", () => {
    const machine = machineOf("ZT-1");
    for (const key of ["wheels.none.label", "wheels.__proto__.label", "deck.hangers.constructor.step"]) {
      expect(valueAt(machine, key)).toBeUndefined();
      expect(withValue(machine, key, "x")).toEqual(machine);
    }
    expect(({} as Record<string, unknown>).label).toBeUndefined();
  });
});

describe("a place let go on the plan", () => {
  const others: Point[] = [{ x: -0.41, y: 0.5 }];

  it("goes to the middle line, across from its twin, into its row, or on the grid (by hand)", () => {
    expect(snapped({ at: { x: 0.008, y: 0.9 }, others, system: "metric" })).toEqual({ x: 0, y: 0.9, to: ["middle"] });
    expect(snapped({ at: { x: 0.415, y: 0.507 }, others, system: "us" })).toEqual({ x: 0.41, y: 0.5, to: ["twin", "row"] });
    expect(snapped({ at: { x: 0.3011, y: 0.7009 }, others, system: "metric" })).toEqual({ x: 0.302, y: 0.7, to: [] });
  });

  it("is never moved further than it snaps or half a grid, and snapped twice stays (500 places, fixed seed)", () => {
    const coordinate = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(coordinate, coordinate, fc.constantFrom("us" as const, "metric" as const), (x, y, system) => {
        const once = snapped({ at: { x, y }, others, system });
        const most = Math.max(SNAP_METRES, GRID_METRES[system] / 2) + tenth;
        expect(Math.abs(once.x - x)).toBeLessThanOrEqual(most);
        expect(Math.abs(once.y - y)).toBeLessThanOrEqual(most);
        const twice = snapped({ at: once, others, system });
        expect(Math.hypot(twice.x - once.x, twice.y - once.y)).toBeLessThanOrEqual(tenth);
      }),
      { seed: 20261126, numRuns: 500 },
    );
  });
});

describe("what a sheet does not say", () => {
  it("costs what it costs: no lift per turn, no turns", () => {
    const machine = templateMachine(TEMPLATES["zero-turn"].usual);
    const lift = missingOf(machine).find(({ code }) => code === "no-turns-only-lengths");
    expect(lift?.keys).toHaveLength(4);
    const told = lift?.keys.reduce((one, key) => withValue(one, key, 0.002), machine) as Machine;
    expect(missingOf(told).map(({ code }) => code)).not.toContain("no-turns-only-lengths");
  });

  it("is each told of until it is there, and filling in one never opens another", () => {
    for (const wish of wishes) {
      let machine = templateMachine(wish);
      for (const { code, keys } of missingOf(machine)) {
        if (keys.length === 0) continue;
        const before = missingOf(machine).map((one) => one.code);
        machine = keys.reduce(
          (one, key) => withValue(one, key, fieldsOf(one).find((field) => field.key === key)?.kind === "lines" ? ["x"] : 1),
          machine,
        );
        const after = missingOf(machine).map((one) => one.code);
        expect(after).not.toContain(code);
        expect(after.filter((one) => !before.includes(one))).toEqual([]);
      }
    }
  });

  it("a key it names is a field that can be typed", () => {
    for (const wish of wishes) {
      const machine = templateMachine(wish);
      const keys = new Set(fieldsOf(machine).map(({ key }) => key));
      for (const one of missingOf(machine)) for (const key of one.keys) expect(keys.has(key), key).toBe(true);
    }
  });

  it("the depot's full sheets miss little, and nothing their worksheets stand on", () => {
    expect(missingOf(machineOf("ZT-1")).map(({ code }) => code)).toEqual(["no-deck-order"]);
    expect(missingOf(machineOf("RT-1")).map(({ code }) => code)).toEqual([]);
  });
});

describe("two sheets side by side", () => {
  const base = machineOf("ZT-1");

  it("that are one sheet differ in nothing, and swapped the sides swap", () => {
    const other = withValue(withValue(base, "sheet.rakeTargetMetres", -0.003), "wheels.left-drive.sheetPressurePascals", undefined);
    expect(sheetDifferences(base, structuredClone(base))).toEqual([]);
    const [ab, ba] = [sheetDifferences(base, other), sheetDifferences(other, base)];
    expect(ab.map(({ key }) => key)).toEqual(["wheels.left-drive.sheetPressurePascals", "sheet.rakeTargetMetres"]);
    expect(ba.map(({ key, a, b }) => ({ key, a: b, b: a }))).toEqual(ab.map(({ key, a, b }) => ({ key, a, b })));
  });

  it("a place only one of them has is named once, not with everything it says", () => {
    const less = { ...base, spindles: base.spindles.slice(0, 2) } as Machine;
    expect(sheetDifferences(base, less).map(({ key }) => key)).toEqual(["spindles.right"]);
  });

  it("changed by two people: each one's own change stands, and what both changed is named and stays mine", () => {
    const mine = withValue(withValue(base, "sheet.heightMostMetres", 0.1), "sheet.notes", "mine");
    const theirs = withValue(withValue(base, "sheet.rakeTargetMetres", -0.004), "sheet.notes", "theirs");
    const { merged, both } = mergedSheets({ base, mine, theirs });
    expect(both).toEqual(["sheet.notes"]);
    expect([merged.sheet.heightMostMetres, merged.sheet.rakeTargetMetres, merged.sheet.notes]).toEqual([0.1, -0.004, "mine"]);
  });

  it("merged with a sheet nobody changed it is mine, and mine unchanged it is theirs (every field, one at a time)", () => {
    for (const { key, kind } of fieldsOf(base)) {
      if (kind !== "quantity") continue;
      const changed = withValue(base, key, 0.123);
      expect(mergedSheets({ base, mine: changed, theirs: base })).toEqual({ merged: changed, both: [] });
      expect(mergedSheets({ base, mine: base, theirs: changed })).toEqual({ merged: changed, both: [] });
    }
  });

  it("a place taken away by one and changed by the other is named, not merged", () => {
    const mine = withValue(base, "spindles.right.tipCircleDiameterMetres", 0.42);
    const theirs = { ...base, spindles: base.spindles.slice(0, 2) } as Machine;
    const { merged, both } = mergedSheets({ base, mine, theirs });
    expect(both).toEqual(["spindles.right"]);
    expect(merged.spindles).toHaveLength(3);
  });
});

describe("what can be typed of a sheet", () => {
  /** Lists whose members are places: what stands in them is named by a place's id. */
  const PLACES = ["wheels", "spindles", "units", "deck.hangers", "deck.antiScalpWheels", "sheet.gearboxes"];
  /** What is no value of the machine: its names, how it is known, and whose word a value is. */
  const NOT_A_VALUE = /(^|\.)(id|kind|words)$/;

  type Node = { properties?: Record<string, Node>; items?: Node; not?: unknown; oneOf?: Node[]; anyOf?: Node[] };
  const leaves = (node: Node, path: readonly string[]): string[] => {
    const key = path.join(".");
    if (node.not !== undefined || (DRAWN as readonly string[]).includes(key)) return [];
    if (PLACES.includes(key) && node.items) return leaves(node.items, [...path, "*"]);
    if (node.properties && key !== "sheet.words" && key !== "sheet.deckOff")
      return Object.entries(node.properties).flatMap(([name, inner]) => leaves(inner, [...path, name]));
    return [key];
  };
  const schema = z.toJSONSchema(machineSchema, { io: "input", unrepresentable: "any" }) as Node;
  const all = new Set((schema.oneOf ?? schema.anyOf ?? []).flatMap((of) => leaves(of, [])));
  const ids = (machine: Machine) => new Set(sheetPlaces(machine).map(({ id }) => id));
  /** A key as the schema has it: a place's id as a star. */
  const starred = (machine: Machine, key: string) => {
    const places = ids(machine);
    return key
      .split(".")
      .map((part, k) => (k > 0 && k < 3 && places.has(part) && !key.startsWith("sheet.unit") ? "*" : part))
      .join(".");
  };
  const machines = [...FLEET.map(({ machine }) => machineSchema.parse(machine)), ...wishes.map((wish) => templateMachine(wish))];
  const typed = new Set(machines.flatMap((machine) => fieldsOf(machine).map(({ key }) => starred(machine, key))));

  it("is everything the schema has, but what is drawn on a page of its own: nothing stands there that the screen can neither type nor compare", () => {
    expect(all.size).toBeGreaterThan(120);
    const left = [...all].filter((key) => !NOT_A_VALUE.test(key) || key.endsWith("Roller.kind")).filter((key) => !typed.has(key));
    expect(left).toEqual([]);
  });

  it("of two people's changes nothing of the other's is lost, whatever it was (every field of every machine of the demo)", () => {
    const other = (value: unknown): unknown => (typeof value === "number" ? value * 1.01 : typeof value === "boolean" ? !value : undefined);
    let tried = 0;
    for (const { machine } of FLEET) {
      const base = machineSchema.parse(machine);
      const mine = withValue(base, "sheet.notes", "mine");
      for (const { key } of fieldsOf(base)) {
        const value = other(valueAt(base, key));
        if (value === undefined) continue;
        tried += 1;
        const { merged, both } = mergedSheets({ base, mine, theirs: withValue(base, key, value) });
        expect(both, key).toEqual([]);
        expect(valueAt(merged, key), key).toEqual(value);
        expect(merged.sheet.notes).toBe("mine");
      }
    }
    expect(tried).toBeGreaterThan(500);
  });
});

describe("a washer stack", () => {
  it("holds one bolt and one blade, as many washers as it likes", () => {
    const of = (stack: string[]) => sheetProblems(machineSchema.parse(withValue(machineOf("ZT-1"), "sheet.blade.stack", stack)));
    expect(of(["bolt", "flat-washer", "flat-washer", "blade", "spacer"])).toEqual([]);
    expect(of(["bolt", "blade", "flat-washer", "blade", "bolt"]).map(({ code, path }) => [code, path.at(-1)])).toEqual([
      ["stack-twice", 4],
      ["stack-twice", 3],
    ]);
  });
});

describe("tables of a sheet", () => {
  const order = machineOf("BD-1").sheet.deckOff;
  const { toRows, fromRows } = TABLE_ROWS["deck-off"];

  it("an order and its rows are the same, ids and all", () => {
    expect(fromRows(toRows(order))).toEqual(order);
    for (const { machine } of FLEET) {
      const brackets = machineSchema.parse(machine).sheet.unit?.brackets;
      if (brackets) expect(TABLE_ROWS.brackets.fromRows(TABLE_ROWS.brackets.toRows(brackets))).toEqual(brackets);
    }
  });

  it("the usual order of every machine is typed as itself: names with a comma stay whole, a belt's path is said once", () => {
    let tried = 0;
    for (const { machine: input } of FLEET) {
      const machine = machineSchema.parse(input);
      const usual = usualDeckOff(machine);
      if (!usual) continue;
      tried += 1;
      expect(fromRows(toRows(usual))).toEqual(usual);
      const own = machineSchema.parse(withValue(machine, "sheet.deckOff", usual));
      expect(sheetProblems(own)).toEqual([]);
      const bare = machineSchema.parse(withValue(machine, "sheet.deckOff", undefined));
      const told = ({ off, on }: ReturnType<typeof deckSteps>) =>
        [off, on].map((steps) => steps.map(({ words, backWords, parts }) => [words, backWords, parts]));
      expect(told(deckSteps(own))).toEqual(told(deckSteps(bare)));
    }
    expect(tried).toBeGreaterThan(5);
  });

  it("other words of a step or a count keep the id it is known by; a step put in between takes none away", () => {
    const rows = toRows(order).map((row, k) => (k === 3 ? { ...row, words: "Stabiliser away", parts: "2 Stabiliser pin with clip" } : row));
    const next = fromRows([...rows.slice(0, 2), { words: "Chute off", parts: "" }, ...rows.slice(2)]) as NonNullable<typeof order>;
    expect(next.steps.map(({ id }) => id)).toEqual([
      "photographs",
      "deck-down",
      "chute-off",
      "belt-slack",
      "stabiliser",
      "rear-links",
      "front-link",
      "out",
    ]);
    expect(next.steps[4]?.parts).toEqual([{ id: "stabiliser-pin", label: "Stabiliser pin with clip", count: 2 }]);
    expect(next.backFirst).toEqual(order?.backFirst);
  });

  it("steps and parts of one name are told apart, so that a sheet of them is sound", () => {
    const machine = machineOf("BD-1");
    const deckOff = fromRows([
      { words: "Pin out", parts: "pin, pin" },
      { words: "Pin out", parts: "Pin", isBackFirst: true },
      { words: "–", parts: "" },
    ]);
    const next = machineSchema.parse(withValue(machine, "sheet.deckOff", deckOff));
    expect(sheetProblems(next)).toEqual([]);
    expect(next.sheet.deckOff?.steps.map(({ id }) => id)).toEqual(["pin-out", "pin-out-2", "step"]);
    expect(next.sheet.deckOff?.steps.flatMap(({ parts }) => parts.map(({ id }) => id))).toEqual(["pin", "pin-2", "pin-3"]);
    expect(next.sheet.deckOff?.backFirst).toEqual(["pin-out-2"]);
  });

  it.each([
    [
      "2 link pins, 4 × washers; belt",
      [
        { label: "link pins", count: 2 },
        { label: "washers", count: 4 },
        { label: "belt", count: 1 },
      ],
    ],
    ["3x clip", [{ label: "clip", count: 3 }]],
    [" , ", []],
    [
      "12 mm spacer, 2 12 mm spacer",
      [
        { label: "12 mm spacer", count: 1 },
        { label: "12 mm spacer", count: 2 },
      ],
    ],
    [
      "2 Pins, rear; 1 belt, 3 clips;",
      [
        { label: "Pins, rear", count: 2 },
        { label: "belt", count: 1 },
        { label: "clips", count: 3 },
      ],
    ],
  ])("reads %j", (text, parts) => {
    expect(readParts(text)).toEqual(parts);
  });
});
