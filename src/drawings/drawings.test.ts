import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { planeHeight } from "@/core/basics/geometry";
import { INCH_METRES } from "@/core/basics/units";
import { SYMPTOMS, type SymptomId } from "@/core/catalogue";
import {
  cutters,
  cuttingEdges,
  cuttingWidth,
  type Machine,
  machineSchema,
  referenceSpindle,
  type Standpoint,
  seenFrom,
  turnSeenFrom,
} from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { cutSection, LOOKS, ledgeBetweenPasses } from "@/core/physics/turf";
import { fitInto } from "./fit";
import { contourLines, planScene } from "./plan/scene";
import { PASS_OVERLAP_METRES, sectionScene } from "./section/scene";
import { placeAt } from "./swath-picker/place";
import { turfPixels } from "./turf-picture/scene";

const machineOf = (fleetNumber: string): Machine => machineSchema.parse(FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine);
const STANDPOINTS: readonly Standpoint[] = ["behind", "front", "left", "right", "underneath"];
const zeroTurn = machineOf("ZT-1");

describe("where I stand", () => {
  it("from the front left and right change sides, from underneath they mirror while front stays front", () => {
    const leftFront = { x: -1, y: 2 };
    expect(seenFrom("behind", leftFront)).toEqual({ x: -1, y: 2 });
    expect(seenFrom("front", leftFront)).toEqual({ x: 1, y: -2 });
    expect(seenFrom("underneath", leftFront)).toEqual({ x: 1, y: 2 });
  });

  it("from either side the near wheel is nearer and the front lies to the proper hand", () => {
    // Standing at the left, looking right: the machine's front is to the left hand.
    expect(seenFrom("left", { x: 0, y: 1 }).x).toBeLessThan(0);
    expect(seenFrom("left", { x: -1, y: 0 }).y).toBeLessThan(seenFrom("left", { x: 1, y: 0 }).y);
    expect(seenFrom("right", { x: 0, y: 1 }).x).toBeGreaterThan(0);
    expect(seenFrom("right", { x: 1, y: 0 }).y).toBeLessThan(seenFrom("right", { x: -1, y: 0 }).y);
  });

  it("no standpoint changes a distance (property)", () => {
    const coordinate = fc.double({ min: -3, max: 3, noNaN: true });
    fc.assert(
      fc.property(fc.constantFrom(...STANDPOINTS), coordinate, coordinate, coordinate, coordinate, (standpoint, a, b, c, d) => {
        const p = seenFrom(standpoint, { x: a, y: b });
        const q = seenFrom(standpoint, { x: c, y: d });
        expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeCloseTo(Math.hypot(a - c, b - d), 9);
      }),
    );
  });

  it("a turn goes the other way round only from underneath", () => {
    expect(turnSeenFrom("underneath", "clockwise")).toBe("anticlockwise");
    for (const standpoint of STANDPOINTS.slice(0, 4)) expect(turnSeenFrom(standpoint, "clockwise")).toBe("clockwise");
  });
});

describe("the plan", () => {
  it("draws every wheel, blade, unit and hanger of every machine of the depot inside its bounds, from every side", () => {
    for (const { fleetNumber } of FLEET) {
      const machine = machineOf(fleetNumber);
      for (const standpoint of STANDPOINTS) {
        const scene = planScene(machine, standpoint);
        expect([scene.wheels.length, scene.blades.length, scene.units.length]).toEqual([
          machine.wheels.length,
          machine.spindles.length,
          machine.units.length,
        ]);
        for (const { centre, radius } of scene.blades) {
          expect(centre.x - radius).toBeGreaterThanOrEqual(scene.bounds.left - 1e-9);
          expect(centre.y + radius).toBeLessThanOrEqual(scene.bounds.far + 1e-9);
        }
      }
    }
  });

  it("moves when a spindle's spacing is changed: every coordinate comes from the record", () => {
    const [first, ...rest] = zeroTurn.spindles;
    if (!first) throw new Error("no spindle");
    const moved = { ...zeroTurn, spindles: [{ ...first, xMetres: first.xMetres - 0.1 }, ...rest] };
    expect(planScene(moved, "behind").blades[0]?.centre.x).toBeCloseTo((planScene(zeroTurn, "behind").blades[0]?.centre.x ?? 0) - 0.1, 9);
  });

  it("fits with one scale both ways and keeps to its margin", () => {
    const { bounds } = planScene(zeroTurn, "behind");
    const fit = fitInto({ bounds, width: 600, height: 400, margin: 40 });
    const low = fit.toPage({ x: bounds.left, y: bounds.near });
    const high = fit.toPage({ x: bounds.right, y: bounds.far });
    expect(high.x - low.x).toBeCloseTo((bounds.right - bounds.left) * fit.scale, 6);
    expect(low.y - high.y).toBeCloseTo((bounds.far - bounds.near) * fit.scale, 6);
    expect(Math.min(low.x, high.y)).toBeGreaterThanOrEqual(40 - 1e-9);
  });

  it("draws contour lines where the departure has their value", () => {
    const outline = [-1, 1].flatMap((x) => [-1, 1].map((y) => ({ x, y: x * y })));
    const departure = { height: 0.0002, slopeRight: 0.004, slopeForward: -0.002 };
    const lines = contourLines({ outline, departure, every: 0.001, standpoint: "behind" });
    expect(lines.length).toBeGreaterThan(4);
    for (const line of lines) for (const end of [line.from, line.to]) expect(planeHeight(departure, end)).toBeCloseTo(line.departure, 9);
  });
});

describe("the machine's own geometry", () => {
  it("knows the width of cut between the outer tips: 49.4 in on the worked deck (docs/worked-examples.md)", () => {
    expect(cuttingWidth(zeroTurn) / INCH_METRES).toBeCloseTo(49.4, 2);
    expect(referenceSpindle(zeroTurn)?.id).toBe("middle");
  });

  it("every demo deck with belt-driven blades keeps them clear of each other by 6 mm (estimate)", () => {
    for (const { fleetNumber } of FLEET) {
      const machine = machineOf(fleetNumber);
      if (machine.kind === "geared-rider") continue;
      machine.spindles.forEach((a, k) => {
        for (const b of machine.spindles.slice(k + 1)) {
          const reach = (a.tipCircleDiameterMetres + b.tipCircleDiameterMetres) / 2;
          expect(Math.hypot(a.xMetres - b.xMetres, a.yMetres - b.yMetres) - reach, `${fleetNumber} ${a.id} ${b.id}`).toBeGreaterThanOrEqual(
            0.006,
          );
        }
      });
    }
  });

  it("neighbouring blades and units overlap across the swath on every demo machine", () => {
    for (const { fleetNumber } of FLEET) {
      const across = cutters(machineOf(fleetNumber));
      across.slice(1).forEach((next, k) => {
        expect((across[k]?.right ?? 0) - next.left, fleetNumber).toBeGreaterThan(0);
      });
    }
  });
});

describe("the swath", () => {
  const level = { height: 0.08, slopeRight: 0, slopeForward: 0 };
  const { left, right } = cuttingEdges(zeroTurn);
  const section = (plane: typeof level, to = right) => cutSection({ spindles: zeroTurn.spindles, planeOf: () => plane, from: left, to });

  it("a level deck without rake cuts flat at its height", () => {
    for (const { height } of section(level)) expect(height).toBeCloseTo(0.08, 12);
  });

  it("a side slope leaves a ledge of slope times what the passes do not share (physics)", () => {
    const [slopeRight, overlapMetres] = [0.006, 0.075];
    const sloped = section({ ...level, slopeRight });
    const width = cuttingWidth(zeroTurn);
    expect(ledgeBetweenPasses(sloped, { overlapMetres, way: "one-way" })).toBeCloseTo(slopeRight * (width - overlapMetres), 9);
    expect(ledgeBetweenPasses(sloped, { overlapMetres, way: "up-and-down" })).toBeCloseTo(slopeRight * overlapMetres, 9);
    expect(ledgeBetweenPasses([], { overlapMetres, way: "one-way" })).toBeUndefined();
    expect(ledgeBetweenPasses(sloped, { overlapMetres: 2 * width, way: "one-way" })).toBeUndefined();
  });

  it("a raked blade cuts half the rake below its centre, nose down or nose up alike (physics)", () => {
    const middle = referenceSpindle(zeroTurn);
    if (!middle) throw new Error("no spindle");
    const alone = [middle];
    for (const rake of [-0.006, 0.006]) {
      const slopeForward = rake / middle.tipCircleDiameterMetres;
      const plane = { height: 0.08 - slopeForward * middle.yMetres, slopeRight: 0, slopeForward };
      const [at] = cutSection({ spindles: alone, planeOf: () => plane, from: middle.xMetres, to: middle.xMetres + 0.001, step: 0.001 });
      expect(at?.height).toBeCloseTo(0.08 - 0.003, 9);
    }
  });

  it("where no blade passes there is no height", () => {
    expect(section(level, right + 0.2).at(-1)?.height).toBeUndefined();
  });

  it("the section shows the passes to either side, mirrored with the standpoint, and the tips' line from a side", () => {
    const plane = { ...level, slopeRight: 0.004 };
    const behind = sectionScene({ machine: zeroTurn, plane, target: level, standpoint: "behind" });
    const front = sectionScene({ machine: zeroTurn, plane, target: level, standpoint: "front" });
    expect(behind.neighbours).toHaveLength(2);
    expect(front.cut[0]?.across).toBeCloseTo(-(behind.cut[0]?.across ?? 0), 9);
    expect(sectionScene({ machine: zeroTurn, plane, target: level, standpoint: "left" }).kind).toBe("fore-and-aft");
    const spacing = (behind.neighbours[1]?.[0]?.across ?? 0) - (behind.cut[0]?.across ?? 0);
    expect(spacing).toBeCloseTo(cuttingWidth(zeroTurn) - (zeroTurn.sheet.passOverlapMetres ?? PASS_OVERLAP_METRES), 9);
  });
});

describe("touching the swath", () => {
  const all = cutters(zeroTurn);
  const edges = cuttingEdges(zeroTurn);

  it("tells the meeting of passes, a join between blades, and a blade's own band apart", () => {
    expect(placeAt(edges.left - 0.05, all, edges)).toEqual({ where: "between-passes" });
    expect(placeAt(0, all, edges)).toMatchObject({ where: "band", fromMetres: all[1]?.left, toMetres: all[1]?.right });
    const join = ((all[0]?.right ?? 0) + (all[1]?.left ?? 0)) / 2;
    const touched = placeAt(join, all, edges);
    expect(touched.where).toBe("band");
    expect((touched.toMetres ?? 0) - (touched.fromMetres ?? 0)).toBeCloseTo(0.06, 9);
  });
});

describe("pictures of the turf", () => {
  const WIDTH = 64;
  const HEIGHT = 40;
  const picture = (id: SymptomId) => {
    const look = LOOKS[id];
    return look && turfPixels(look, WIDTH, HEIGHT);
  };
  /** Root mean square difference of two pictures, in grey levels of 255. */
  const difference = (a: Uint8ClampedArray, b: Uint8ClampedArray) =>
    Math.sqrt(a.reduce((sum, value, k) => sum + (value - (b[k] ?? 0)) ** 2, 0) / a.length);
  /** Less than this and two pictures look alike in passing (estimate). */
  const TOLD_APART = 6;

  it("every symptom that turf can show has its own look, told apart from every other and from sound turf", () => {
    const shown = SYMPTOMS.flatMap(({ id }) => {
      const pixels = picture(id);
      return pixels ? [{ id: id as string, pixels }] : [];
    });
    expect(shown.length).toBe(21);
    const all = [...shown, { id: "sound", pixels: turfPixels(() => ({}), WIDTH, HEIGHT) }];
    all.forEach((one, k) => {
      for (const other of all.slice(k + 1))
        expect(difference(one.pixels, other.pixels), `${one.id} against ${other.id}`).toBeGreaterThan(TOLD_APART);
    });
  });

  it("is the same each time it is drawn", () => {
    expect(picture("clumps")).toEqual(picture("clumps"));
  });
});
