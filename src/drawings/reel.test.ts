import { describe, expect, it } from "vitest";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { unitSheetOf } from "@/core/machine";
import { movedRoller, rolledAcross, stanceOf } from "@/core/physics/reel";
import { clipScene } from "./clip-window/scene";
import { planScene } from "./plan/scene";
import { sideScene } from "./side-view/scene";
import { swathScene } from "./unit-swath/scene";

const triplex = machineOf("RT-1");
const sheet = unitSheetOf(triplex, "left");
if (!sheet.sideView) throw new Error("no side view on the sheet");
const parts = { ...sheet.sideView, reelRadiusMetres: (sheet.reel?.newDiameterMetres ?? 0) / 2 };

describe("a unit from the side, to scale", () => {
  it("rollers rest on the ground line, and the edge stands at the height of cut over it", () => {
    const scene = sideScene(parts);
    for (const { id, z, radius } of scene?.circles ?? []) if (id !== "reel") expect([id, z]).toEqual([id, expect.closeTo(radius, 12)]);
    expect(scene?.edge.z).toBeCloseTo(stanceOf(parts)?.heightMetres ?? 0, 12);
    expect(scene?.circles.map(({ id }) => id)).toEqual(["front", "rear", "reel"]);
  });

  it("follows a roller that is moved: the picture's edge is the stance's own height", () => {
    const lower = { ...movedRoller(parts, "front", -0.002), reel: parts.reel, reelRadiusMetres: parts.reelRadiusMetres };
    expect(sideScene(lower)?.edge.z).toBeCloseTo(stanceOf(lower)?.heightMetres ?? 0, 12);
    expect(sideScene(lower)?.edge.z).not.toBeCloseTo(sideScene(parts)?.edge.z ?? 0, 4);
  });

  it("the demo's reels touch their knives and no roller (the sheets agree with themselves)", () => {
    for (const fleetNumber of ["RT-1", "RF-1", "RW-1"]) {
      const machine = machineOf(fleetNumber);
      const unit = unitSheetOf(machine, machine.units[0]?.id ?? "");
      const view = unit.sideView;
      if (!view?.reel || !unit.reel) throw new Error(fleetNumber);
      const reel = view.reel;
      const to = (point: { yMetres: number; zMetres: number }) => Math.hypot(reel.yMetres - point.yMetres, reel.zMetres - point.zMetres);
      const radius = unit.reel.newDiameterMetres / 2;
      // Drawn to a thousandth of an inch.
      expect([fleetNumber, Math.abs(to(view.edge) - radius) < 0.0001]).toEqual([fleetNumber, true]);
      for (const end of ["front", "rear"] as const) expect(to(view[end])).toBeGreaterThan(radius + view[end].radiusMetres);
    }
  });

  it("draws nothing that cannot stand", () => {
    expect(sideScene({ ...parts, front: parts.rear, rear: parts.front })).toBeUndefined();
  });
});

describe("units on the plan", () => {
  it("are as deep as their rollers stand apart, with the knife across them", () => {
    const [unit] = planScene(triplex, "behind").units;
    if (!unit || !sheet.sideView) throw new Error("no unit");
    const { front, rear, edge } = sheet.sideView;
    const ys = unit.corners.map(({ y }) => y);
    const depth = front.yMetres + front.radiusMetres - (rear.yMetres - rear.radiusMetres);
    expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(depth, 9);
    expect(Math.max(...ys) - unit.knife[0].y).toBeCloseTo(front.yMetres + front.radiusMetres - edge.yMetres, 9);
    expect(unit.rollers).toHaveLength(2);
  });

  it("stand askew where their sheet says so, and plain where it has no side view", () => {
    const askew = { ...triplex, units: triplex.units.map((one) => ({ ...one, yawRadians: 0.1 })) };
    const [unit] = planScene(askew, "behind").units;
    expect(Math.abs((unit?.knife[1].y ?? 0) - (unit?.knife[0].y ?? 0))).toBeCloseTo(
      Math.sin(0.1) * (triplex.units[0]?.widthMetres ?? 0),
      9,
    );
    const bare = { ...triplex, sheet: {} };
    expect(planScene(bare, "behind").units[0]?.rollers).toEqual([]);
  });
});

describe("the swath and its rolling", () => {
  const units = triplex.units.map(({ id, xMetres, yMetres, widthMetres }) => ({ id, xMetres, yMetres, widthMetres }));
  const rolled = rolledAcross(
    units.map(({ xMetres, widthMetres }) => ({ from: xMetres - widthMetres / 2, to: xMetres + widthMetres / 2 })),
  );

  it("spans the units and knows how often at most", () => {
    const scene = swathScene(units, rolled);
    expect(scene.mostPasses).toBe(2);
    expect(scene.bounds.left).toBeCloseTo(Math.min(...units.map(({ xMetres, widthMetres }) => xMetres - widthMetres / 2)), 12);
    expect(scene.bounds.right).toBeCloseTo(-scene.bounds.left, 12);
  });

  it("a yawed unit's right end lies forward of its left", () => {
    const [left] = swathScene([{ ...(units[0] as (typeof units)[number]), yawRadians: 0.1 }], rolled).units;
    expect((left?.knife[1].y ?? 0) - (left?.knife[0].y ?? 0)).toBeCloseTo(Math.sin(0.1) * (units[0]?.widthMetres ?? 0), 12);
  });
});

describe("clip between browning and ripples", () => {
  it("has both limits of the height in view, and whatever was read", () => {
    const scene = clipScene({ heightMetres: 0.012, clips: [0.03], speeds: [2, 3] });
    expect([scene.browns, scene.bestFrom, scene.ripples]).toEqual([expect.closeTo(0.004, 12), expect.closeTo(0.006, 12), 0.012]);
    expect(scene.mostClip).toBeGreaterThan(0.03);
    expect(scene.mostSpeed).toBeGreaterThan(3);
    expect(clipScene({ heightMetres: 0.012, clips: [0.001], speeds: [2] }).mostClip).toBeGreaterThan(0.012);
  });
});
