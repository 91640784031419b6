import { describe, expect, it } from "vitest";
import { FIXES, type FixRow } from "@/core/diagnosis";
import { featuresOf, KINDS } from "@/core/kinds";
import { aftermathOf } from "./aftermath";

const zeroTurn = featuresOf({ kind: "zero-turn" });
const ids = (fix: string, cause: string, features = zeroTurn) => aftermathOf({ fixes: [{ fix, cause }], features }).map(({ id }) => id);

describe("what the work could itself have broken (common practice)", () => {
  it("asks about belt and level after a deck was off, about washers and torque after blades", () => {
    expect(ids("repair-shell", "deck-shell-bent")).toEqual(["belt-seated", "level", "guards", "tools"]);
    expect(ids("replace-blades", "blade-dull")).toEqual(["washers", "torque", "guards", "tools"]);
  });

  it("asks about timing only where blades are geared, and about the plug lead only where the blade sits on the engine", () => {
    expect(ids("replace-blades", "blade-dull", featuresOf({ kind: "geared-rider" }))).toContain("timing");
    expect(ids("replace-blades", "blade-dull", featuresOf({ kind: "walk-petrol" }))).toContain("plug-lead");
    expect(ids("replace-blades", "blade-dull")).not.toContain("plug-lead");
  });

  it("asks nothing after a word with the operator, or when nothing was done", () => {
    expect(ids("brief-operator", "ground-speed-high")).toEqual([]);
    expect(aftermathOf({ fixes: [], features: zeroTurn })).toEqual([]);
  });

  it("asks at least for guards and tools after every fix that touches the machine", () => {
    const rows: readonly FixRow[] = FIXES;
    for (const { fix, cause, event } of rows.filter((row) => !["operator-briefed", "held-out"].includes(row.event))) {
      for (const { usual } of KINDS) {
        const asked = aftermathOf({ fixes: [{ fix, cause }], features: usual }).map(({ id }) => id);
        expect(asked, `${fix}, ${event}`).toEqual(expect.arrayContaining(["guards", "tools"]));
      }
    }
  });
});
