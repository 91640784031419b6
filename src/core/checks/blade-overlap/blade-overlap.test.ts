import { describe, expect, it } from "vitest";
import { assessed, figure, IN, machineOf, refused, saysOf } from "../sheets.fixtures";
import type { OverlapDetail } from ".";

const zeroTurn = machineOf("ZT-1");
const set = (left: number, middle = left, right = left) => ({
  blades: { left: { lengthMetres: left * IN }, middle: { lengthMetres: middle * IN }, right: { lengthMetres: right * IN } },
});
const overlap = (readings: unknown, machine = zeroTurn) => assessed<OverlapDetail>("blade-overlap", machine, readings);

/** Worked example "blade layout" (docs/worked-examples.md; physics): the demo's three-blade deck is its geometry. */
describe("blade-overlap", () => {
  it("as new shares 0.80 in and has (0.80 in − 6 mm)/2 of wear left at each tip; 48.6 in wide", () => {
    const result = overlap(set(17));
    expect(result.verdict).toBe("in-tolerance");
    expect((figure(result, "overlap")?.value ?? 0) / IN).toBeCloseTo(0.8, 9);
    expect((figure(result, "wear-left")?.value ?? 0) / IN).toBeCloseTo((0.8 - 0.006 / IN) / 2, 9);
    expect((figure(result, "width-of-cut")?.value ?? 0) / IN).toBeCloseTo(3 * 17 - 2 * 0.8, 4);
    expect(result.actions).toMatchObject([{ code: "wider-turns", worstMetres: expect.closeTo(-0.455 * IN, 4) }]);
  });

  it("worn to under 6 mm is out, with the set to be replaced and worn-short made likely; sharp ones make it unlikely", () => {
    const worn = overlap(set(16.3));
    expect([worn.verdict, worn.actions[0]?.code]).toEqual(["out", "replace-short-set"]);
    expect(saysOf(worn, "blade-worn-short")).toBeGreaterThan(2);
    const strip = overlap(set(15.9));
    expect(figure(strip, "overlap")?.value).toBeLessThan(0);
    expect(saysOf(strip, "blade-worn-short")).toBeGreaterThan(saysOf(worn, "blade-worn-short") as number);
    expect(saysOf(overlap(set(17)), "blade-worn-short")).toBeLessThan(0.5);
  });

  it("is watched when the margin is nearly gone; a strip that wear has opened in turns is out", () => {
    const worn = overlap(set(16.2 + 0.006 / IN + 0.05));
    expect(worn.findings.filter(({ code }) => code === "overlap").map(({ verdict }) => verdict)).toEqual(["watch", "watch"]);
    expect([worn.verdict, worn.findings.find(({ place }) => place === "turns")?.code]).toEqual(["out", "strip-in-turns"]);
    expect(overlap(set(17)).findings.some(({ place }) => place === "turns")).toBe(false);
  });

  it("far under the least the sheet lets them wear to, blades are another part; short of that nobody can tell by a tape", () => {
    expect(saysOf(overlap(set(15.5)), "blade-wrong-part")).toBe("suspect");
    for (const worn of [16.2, 16.9]) expect(saysOf(overlap(set(worn)), "blade-wrong-part")).toBeUndefined();
  });

  it("stops a set whose circles meet, and refuses a blade longer than the deck allows", () => {
    const result = overlap(set(17.6));
    expect([result.verdict, result.warnings[0]?.code]).toEqual(["stop", "blades-strike"]);
    expect(refused("blade-overlap", zeroTurn, set(20))).toHaveLength(3);
  });

  it("does not ask geared blades to clear each other's circles", () => {
    const geared = machineOf("GR-1");
    const result = overlap(
      { blades: Object.fromEntries(["left", "middle", "right"].map((id) => [id, { lengthMetres: 24.8 * IN }])) },
      geared,
    );
    expect(result.figures.some(({ id }) => id === "blade-clearance")).toBe(false);
    expect(result.verdict).not.toBe("stop");
  });

  it("takes a blade not read as on the sheet, says so, and gives no evidence", () => {
    const result = overlap({ blades: { left: { lengthMetres: 17 * IN } } });
    expect(result.verdict).toBe("not-enough-readings");
    expect(result.provisional).toEqual([
      { code: "as-on-the-sheet", place: "middle" },
      { code: "as-on-the-sheet", place: "right" },
    ]);
    expect(result.evidence).toEqual([]);
  });
});
