import { describe, expect, it } from "vitest";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { gearboxes } from "@/core/machine";
import { moveProblems } from "./counted";
import { usualMoves } from "./moves.fixtures";
import { mayStayLoose, REBUILD, type RebuildMove, rebuildState } from "./rebuild";

const all = (box: string): RebuildMove[] => usualMoves(REBUILD).map((move) => ({ ...move, box }));

/** The order and what to mind: common practice. */
describe("a gearbox rebuilt", () => {
  it("begins with marks and photograph, and ends with turning the blades by hand against them", () => {
    expect(rebuildState("left-box", []).next?.step.id).toBe("timing-marks");
    const last = rebuildState("left-box", all("left-box").slice(0, -1)).next;
    expect([last?.way, last?.step.id, last?.step.backWords]).toEqual(["on", "timing-marks", expect.stringContaining("nothing touches")]);
  });

  it("lays parts out and counts them back: a ring left over is not passed", () => {
    const apart = all("left-box").slice(0, REBUILD.off.length);
    const state = rebuildState("left-box", apart);
    expect([state.where, state.tray.find(({ id }) => id === "snap-rings")?.inTray]).toEqual(["off", 2]);
    const upTo = all("left-box").slice(
      0,
      all("left-box").findIndex(({ way, step }) => way === "on" && step === "rings"),
    );
    expect(moveProblems(REBUILD, upTo, { way: "on", step: "rings", counts: { "snap-rings": 1 } })).toEqual([
      { code: "fewer-back-than-came-off", part: "snap-rings", wanted: 2 },
    ]);
    expect(moveProblems(REBUILD, apart, { way: "on", step: "cover", counts: {} })).toEqual([{ code: "not-the-next-step" }]);
    expect(rebuildState("left-box", all("left-box")).tray.every(({ inTray }) => inTray === 0)).toBe(true);
  });

  it("keeps boxes apart from each other, and what was left loose on purpose until it is tightened", () => {
    const moves = all("left-box").map((move) => (move.way === "on" && move.step === "box-off" ? { ...move, loose: ["box-bolts"] } : move));
    expect([rebuildState("left-box", moves).where, rebuildState("left-box", moves).loose]).toEqual(["on", ["box-bolts"]]);
    expect(rebuildState("right-box", moves)).toMatchObject({ where: "on", loose: [], done: [] });
    expect(rebuildState("left-box", [...moves, { box: "left-box", tightened: "box-bolts" }]).loose).toEqual([]);
    expect(REBUILD.on.flatMap(mayStayLoose).sort()).toEqual(["blade-bolt", "box-bolts", "cover-bolts"]);
  });

  it("is for geared decks: the sheet's boxes, or one to each blade; none on a belt", () => {
    expect(gearboxes(machineOf("GR-1")).map(({ id }) => id)).toEqual(["left-box", "middle-box", "right-box"]);
    const bare = { ...machineOf("GR-1"), sheet: {} } as ReturnType<typeof machineOf>;
    expect(gearboxes(bare)).toHaveLength(3);
    expect(gearboxes(machineOf("ZT-1"))).toEqual([]);
  });
});
