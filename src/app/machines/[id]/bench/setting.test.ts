import { describe, expect, it } from "vitest";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { withSettings } from "@/core/job/bench/set-up";
import { unitSheetOf } from "@/core/machine";
import { stanceOf } from "@/core/physics/reel";
import {
  firstDraft,
  isOfAnotherSheet,
  onSheetNow,
  readSetting,
  type SettingDraft,
  settingsForAll,
  withHeight,
  withMove,
  withTurf,
} from "./setting";

const machine = machineOf("RT-1");
const visit = (offset: number, turf: string) => ({ turf, offsetMetres: offset / 1000, spreadMetres: 0.0001, count: 10, ageDays: 0 });
const argsOf = (draft: SettingDraft, visits = {}) => ({ machine, draft, system: "metric" as const, visits });
const first = firstDraft(machine, "left", 1);
const heightOf = (draft: SettingDraft, visits = {}) => {
  const read = readSetting(argsOf(draft, visits));
  return ((read && stanceOf(read.set)?.heightMetres) ?? 0) * 1000;
};

describe("a bench setting as it is typed", () => {
  it("nothing typed is what stands; a unit nobody has is the first", () => {
    expect(readSetting(argsOf(first))).toMatchObject({ isMoved: false, unsuited: [] });
    expect(heightOf(first)).toBeCloseTo(12.7, 4);
    expect(firstDraft(machine, "seventh", 1).unit).toBe("left");
  });

  it("a height typed moves its screws' roller; a roller moved is the height it comes to", () => {
    const set = withHeight(argsOf(first), "11.5");
    expect(heightOf(set)).toBeCloseTo(11.5, 3);
    const up = Number(set.units.left?.rear);
    expect(up).toBeGreaterThan(0);
    const moved = withMove(argsOf(set), "rear", String(up + 1));
    expect(Number(moved.units.left?.height)).toBeCloseTo(heightOf(moved), 3);
    expect(Number(moved.units.left?.height)).toBeLessThan(11.5);
    // With no height typed the field stays empty: it is not the reader's word.
    expect(withMove(argsOf(first), "front", "1").units.left?.height).toBe("");
  });

  it("with the front roller moved first, the height is made up at the rear from there", () => {
    const front = withMove(argsOf(first), "front", "-1.524");
    const set = withHeight(argsOf(front), "12.7");
    expect(heightOf(set)).toBeCloseTo(12.7, 3);
    expect(set.units.left?.front).toBe("-1.524");
  });

  it("on a turf that takes 0.4 mm the bench is set so much higher; without it, as the bench reads", () => {
    const visits = { left: [visit(-0.4, "Square"), visit(-0.4, "square"), visit(-0.4, "Square")] };
    const typed = withHeight(argsOf(first, visits), "12");
    expect(heightOf(typed, visits)).toBeCloseTo(12, 3);
    const there = withTurf(argsOf(typed, visits), "Square");
    expect(readSetting(argsOf(there, visits))?.learnt.visits).toBe(3);
    expect(heightOf(there, visits)).toBeGreaterThan(12.3);
    expect(there.units.left?.height).toBe("12");
    // Moved by hand there, the height is what it cuts, not what the bench reads.
    const moved = withMove(argsOf(there, visits), "rear", there.units.left?.rear ?? "");
    expect(Number(moved.units.left?.height)).toBeCloseTo(12, 2);
  });

  it("what is packed on the rollers changes how it rides, never how it is set", () => {
    const packed = withMove(argsOf(first), "onFront", "1");
    const read = readSetting(argsOf(packed));
    expect(read?.isMoved).toBe(false);
    expect((read && stanceOf(read.rides)?.heightMetres) ?? 0).toBeGreaterThan(0.0127);
  });

  it("keeps what cannot be read and moves nothing by it", () => {
    const odd = withHeight(argsOf(first), "a hair over eleven");
    expect(odd.units.left).toMatchObject({ height: "a hair over eleven", rear: "" });
    expect(readSetting(argsOf(odd))?.entries.height.kind).toBe("unread");
    expect(readSetting(argsOf(withHeight(argsOf(first), "500")))?.entries.height.kind).not.toBe("read");
  });

  it("what cannot be read, and a height nothing reaches, is not meant: it is not kept as something else", () => {
    const set = withHeight(argsOf(first), "11.5");
    const meant = (draft: SettingDraft) => readSetting(argsOf(draft))?.isMeant;
    expect(meant(set)).toBe(true);
    expect(meant(withMove(argsOf(set), "front", "a bit"))).toBe(false);
    expect(meant(withHeight(argsOf(set), "a hair less"))).toBe(false);
    expect(meant(withHeight(argsOf(set), "99"))).toBe(false);
    // A move taken away is none: the height is what it comes to without it.
    const bare = withMove(argsOf(set), "rear", "");
    expect([meant(bare), Number(bare.units.left?.height)]).toEqual([true, expect.closeTo(12.7, 3)]);
  });

  it("another turf is another bench for every unit that has a height typed", () => {
    const visits = { left: [visit(-0.4, "Square")], right: [visit(0.3, "Square")] };
    const left = withHeight(argsOf(first, visits), "12");
    const both = { ...withHeight(argsOf({ ...left, unit: "right" }, visits), "12"), unit: "left" };
    const there = withTurf(argsOf(both, visits), "Square");
    expect(heightOf(there, visits)).toBeGreaterThan(12.2);
    expect(heightOf({ ...there, unit: "right" }, visits)).toBeLessThan(11.9);
    expect(there.unit).toBe("left");
  });

  it("on a sheet another has changed since, the height that was meant is reckoned anew and moves by hand are let go", () => {
    const typed = withMove(argsOf(withHeight(argsOf(first), "11.5")), "onFront", "0.2");
    const byHand = { ...withMove(argsOf({ ...typed, unit: "right" }), "front", "0.7"), unit: "left" };
    expect([isOfAnotherSheet(byHand, 1), isOfAnotherSheet(byHand, 2), isOfAnotherSheet(first, 2)]).toEqual([false, true, false]);
    const view = unitSheetOf(machine, "left").sideView;
    const lower = withSettings(machine, {
      left: { frontZMetres: view?.front.zMetres ?? 0, rearZMetres: (view?.rear.zMetres ?? 0) + 0.001 },
    });
    const now = onSheetNow({ ...argsOf(byHand), machine: lower }, 2);
    const read = readSetting({ ...argsOf(now), machine: lower });
    expect((read && stanceOf(read.set)?.heightMetres) ?? 0).toBeCloseTo(0.0115, 6);
    expect(now).toMatchObject({ version: 2, unit: "left", units: { left: { height: "11.5", onFront: "0.2" }, right: { front: "" } } });
    expect(Number(now.units.left?.rear)).toBeCloseTo(Number(byHand.units.left?.rear) - 1, 3);
  });

  it("each unit has its own what-if, and one setting for all brings those built otherwise to the same height", () => {
    const set = withHeight(argsOf(first), "11");
    const right = { ...set, unit: "right" };
    expect(readSetting(argsOf(right))?.isMoved).toBe(false);
    const view = unitSheetOf(machine, "right").sideView;
    const other = {
      ...machine,
      units: machine.units.map((unit) =>
        unit.id === "right" && view
          ? { ...unit, own: { sideView: { ...view, front: { ...view.front, zMetres: view.front.zMetres + 0.001 } } } }
          : unit,
      ),
    };
    const read = readSetting({ ...argsOf(set), machine: other });
    const all = settingsForAll(other, "left", read?.set as never);
    expect(all.middle).toEqual(all.left);
    expect(all.right?.rearZMetres).not.toBeCloseTo(all.left?.rearZMetres ?? 0, 5);
    const rightView = view && {
      ...view,
      front: { ...view.front, zMetres: all.right?.frontZMetres ?? 0 },
      rear: { ...view.rear, zMetres: all.right?.rearZMetres ?? 0 },
    };
    expect((rightView && stanceOf(rightView)?.heightMetres) ?? 0).toBeCloseTo(0.011, 6);
  });
});
