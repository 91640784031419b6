import { describe, expect, it } from "vitest";
import { gearboxScene } from "./scene";

const box = (id: string, wantedMetres?: number, readMetres?: number) => ({ id, label: id, wantedMetres, readMetres, parts: [] });

describe("gearboxes cut open", () => {
  it("stand side by side without touching, whatever their number", () => {
    for (const many of [1, 2, 3, 5]) {
      const boxes = gearboxScene(Array.from({ length: many }, (_, k) => box(`${k}`)));
      boxes.forEach(({ x, width }, k) => {
        expect(x).toBeGreaterThan(0);
        expect(x + width).toBeLessThan(boxes[k + 1]?.x ?? 1);
      });
    }
    expect(gearboxScene([])).toEqual([]);
  });

  it("have one scale of depth: twice as deep is drawn twice as deep, in every box", () => {
    const [one, two] = gearboxScene([box("one", 0.05, 0.06), box("two", 0.05, 0.03)]);
    expect(one?.wanted).toBeCloseTo(two?.wanted ?? 0, 12);
    expect((one?.oil ?? 0) / (two?.oil ?? 1)).toBeCloseTo(2, 12);
    expect(Math.max(one?.oil ?? 0, two?.oil ?? 0)).toBeLessThan(1);
  });

  it("draw no oil that nobody read, and no line the sheet does not have", () => {
    const [read] = gearboxScene([box("read", undefined, 0.05)]);
    expect([read?.wanted, read?.oil !== undefined]).toEqual([undefined, true]);
    expect(gearboxScene([box("unread", 0.05)])[0]?.oil).toBeUndefined();
  });
});
