import { describe, expect, it } from "vitest";
import { speedScene } from "./scene";

const zones = { tears: 71, from: 81, to: 94, limit: 96.5 };
const row = (id: string, metresPerSecond: number) => ({ id, label: id, marks: [{ kind: "no-load" as const, metresPerSecond }] });

describe("the scale of tip speeds", () => {
  it("keeps the order of the speeds, and every one of them on it, standing or far over the limit", () => {
    const speeds = [0, 60, 75, 90, 96.5, 150];
    const { rows, at } = speedScene(
      speeds.map((speed) => row(String(speed), speed)),
      zones,
    );
    const shares = rows.flatMap(({ marks }) => marks.map(({ share }) => share));
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect([shares[0], Math.max(...shares) < 1, at(zones.limit) < 1]).toEqual([0, true, true]);
  });

  it("marks what is at the limit as over it, and what tears as slow", () => {
    const { rows } = speedScene([row("limit", 96.5), row("under", 96.4), row("slow", 70.9)], zones);
    expect(rows.map(({ marks }) => [marks[0]?.isOver, marks[0]?.isSlow])).toEqual([
      [true, false],
      [false, false],
      [false, true],
    ]);
  });
});
