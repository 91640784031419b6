import { describe, expect, it } from "vitest";
import { assessed, machineOf, refused, saysOf } from "../sheets.fixtures";
import { bladeTrack, TRACK_TOLERANCE_METRES, type Track, type TrackReadings, trackOf } from ".";

const mm = (value: number) => value / 1000;
const zeroTurn = machineOf("ZT-1");
const straight = { markedMetres: mm(80), otherMetres: mm(80) };
const track = (blades: TrackReadings["blades"], machine = zeroTurn) => assessed<{ tracks: Track[] }>("blade-track", machine, { blades });

/** Worked example "bent blade or bent shaft" (docs/worked-examples.md; physics): shaft (d1 + d2)/2, blade (d1 − d2)/2. */
describe("a blade turned end for end on its shaft", () => {
  it.each([
    ["the blade alone: the sign turns with it", 4, -4, 0, 4],
    ["the shaft alone: the sign stays", 4, 4, 4, 0],
    ["both", 5, -1, 2, 3],
  ])("tells %s", (_, first, second, shaft, blade) => {
    const found = trackOf("left", {
      markedMetres: mm(80 + first),
      otherMetres: mm(80),
      swappedMarkedMetres: mm(80 + second),
      swappedOtherMetres: mm(80),
    });
    expect((found?.shaftMetres ?? 0) * 1000).toBeCloseTo(shaft, 9);
    expect((found?.bladeMetres ?? 0) * 1000).toBeCloseTo(blade, 9);
  });

  // @against blade-track: shaft and blade told apart; worked example “bent blade or bent shaft” (physics); exact
  it("gives the same blade and shaft whichever end was marked, up to the sign (property)", () => {
    for (let k = 0; k < 50; k++) {
      const [shaft, blade] = [Math.sin(k) * 5, Math.cos(3 * k) * 5];
      const read = (sign: number) =>
        trackOf("left", {
          markedMetres: mm(80 + (sign * (shaft + blade)) / 2),
          otherMetres: mm(80 - (sign * (shaft + blade)) / 2),
          swappedMarkedMetres: mm(80 + (sign * (shaft - blade)) / 2),
          swappedOtherMetres: mm(80 - (sign * (shaft - blade)) / 2),
        });
      expect(Math.abs(read(1)?.bladeMetres ?? 0)).toBeCloseTo(Math.abs(read(-1)?.bladeMetres ?? 0), 12);
      expect((read(1)?.shaftMetres ?? 0) * 1000).toBeCloseTo(shaft, 9);
    }
  });
});

describe("blade-track", () => {
  it("passes a deck whose ends run within 1.5 mm, and clears blade and shaft", () => {
    const result = track({ left: straight, middle: { markedMetres: mm(80.9), otherMetres: mm(80) }, right: straight });
    expect([result.verdict, saysOf(result, "blade-bent"), saysOf(result, "spindle-shaft-bent")]).toEqual([
      "in-tolerance",
      "not-found",
      "not-found",
    ]);
  });

  it("asks for the swap before it names blade or shaft", () => {
    const result = track({ left: { markedMetres: mm(84), otherMetres: mm(80) }, middle: straight, right: straight });
    expect(result.verdict).toBe("out");
    expect(result.actions).toEqual([{ code: "swap-blade", place: "left" }]);
    expect(saysOf(result, "blade-bent")).toBe("one of 2");
    const fields = bladeTrack.form?.(zeroTurn, { blades: { left: { markedMetres: mm(84), otherMetres: mm(80) } } }).fields;
    expect(fields?.map(({ path }) => path.join("."))).toContain("blades.left.swappedMarkedMetres");
    expect(fields).toHaveLength(8);
  });

  it("scraps a bent blade and clears its shaft", () => {
    const bent = { markedMetres: mm(84), otherMetres: mm(80), swappedMarkedMetres: mm(80), swappedOtherMetres: mm(84) };
    const result = track({ left: bent, middle: straight, right: straight });
    expect(result.actions).toEqual([{ code: "scrap-blade", place: "left", reason: "bend" }]);
    expect([saysOf(result, "blade-bent"), saysOf(result, "spindle-shaft-bent")]).toEqual(["seen", "not-found"]);
  });

  it("holds a walk-behind whose crankshaft is bent, and names the crankshaft", () => {
    const bent = { markedMetres: mm(64), otherMetres: mm(60), swappedMarkedMetres: mm(64), swappedOtherMetres: mm(60) };
    const result = track({ blade: bent }, machineOf("WP-1"));
    expect(result.actions).toEqual([{ code: "hold-for-crankshaft", place: "blade" }]);
    expect(saysOf(result, "crankshaft-bent")).toBe("seen");
    expect(saysOf(result, "blade-bent")).toBe("not-found");
  });

  it("waits for the blades not read, and refuses one the machine does not have", () => {
    expect(track({ left: straight }).verdict).toBe("not-enough-readings");
    expect(refused("blade-track", zeroTurn, { blades: { nowhere: straight } })).toEqual(["unknown-spindle at readings.blades.nowhere"]);
    expect(TRACK_TOLERANCE_METRES).toBe(0.0015);
  });
});
