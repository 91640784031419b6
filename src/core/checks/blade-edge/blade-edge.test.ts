import { describe, expect, it } from "vitest";
import { withSheet } from "@/core/machine";
import { assessed, figure, IN, machineOf, saysOf } from "../sheets.fixtures";
import type { EdgeDetail } from ".";

const zeroTurn = machineOf("ZT-1");
const end = (edge: string, nick = 0, sail = 0.2) => ({ edge, nickMetres: nick, sailMetres: sail * IN });
const blade = (more: object = {}) => ({ crack: "none", bend: "straight", slot: "none", A: end("sharp"), B: end("sharp"), ...more });
const set = (left: object, others: object = blade()) => ({ blades: { left, middle: others, right: others } });
const edge = (readings: object, machine = zeroTurn) => assessed<EdgeDetail>("blade-edge", machine, readings);

describe("blade-edge: both ends of every blade", () => {
  it("leaves a set alone whose ends are all sharp and whole, and clears dull and damaged", () => {
    const result = edge(set(blade()));
    expect([result.verdict, result.detail.advice]).toEqual(["in-tolerance", "leave"]);
    expect([saysOf(result, "blade-dull"), saysOf(result, "blade-damaged"), saysOf(result, "blade-sail-worn")]).toEqual([
      "not-found",
      "not-found",
      "not-found",
    ]);
  });

  it("counts a blade by its worse end", () => {
    const result = edge(set(blade({ B: end("rounded", 0.0008) })));
    expect(result.detail.blades[0]).toMatchObject({ edge: "rounded", deepestNickMetres: 0.0008, stockMetres: expect.closeTo(0.0013, 12) });
    expect(saysOf(result, "blade-dull")).toBe("seen");
  });

  it("does not pass a blade whose bend or slot nobody looked at", () => {
    for (const untold of ["bend", "slot"]) expect(edge(set(blade({ [untold]: undefined }))).verdict).toBe("not-enough-readings");
  });

  it("is not told before both ends of every blade were looked at", () => {
    const half = { crack: "none", A: end("rounded"), B: {} };
    expect(edge({ blades: { left: blade() } }).verdict).toBe("not-enough-readings");
    expect(edge(set(half)).detail.advice).toBe("not-told");
  });
});

describe("scrap rules that nothing overrules (common practice)", () => {
  it.each([
    ["a crack", { crack: "cracked" }, "crack"],
    ["a bend unlike the old blade's", { bend: "bent", bendCompared: "unlike" }, "bend"],
    ["a slot forming by the sail", { slot: "forming" }, "slot-forming"],
    ["a sail worn to half", { A: end("sharp", 0, 0.1) }, "sail-half-gone"],
    ["a sail worn through", { A: end("sharp", 0, 0) }, "sail-worn-through"],
    ["a width under the limit", { widthMetres: 1.7 * IN }, "below-least-width"],
    ["a length under the limit", { lengthMetres: 16.4 * IN }, "below-least-length"],
  ])("%s scraps the blade and with it the set, however cheap the grinding", (_, more, reason) => {
    const result = edge({ ...set(blade(more)), money: { price: 1000, sharpening: 0.01, sharpenings: 5, hoursPerEdge: 10 } });
    expect(result.detail.blades[0]?.scrap).toEqual([reason]);
    expect(result.actions.map(({ code }) => code)).toEqual(["scrap-blade", "replace-set"]);
    expect(["out", "stop"]).toContain(result.verdict);
  });

  it("a crack or a bend is a stop, and never straightened", () => {
    const result = edge(set(blade({ crack: "cracked" })));
    expect([result.verdict, result.warnings[0]?.code]).toEqual(["stop", "never-straighten"]);
  });
});

describe("a bend seen by eye", () => {
  const bent = (bendCompared?: string) => edge(set(blade({ bend: "bent", bendCompared })));

  it("is compared before it is scrap: it stands, and speaks of a bent blade, until somebody has", () => {
    const open = bent();
    expect([open.verdict, saysOf(open, "blade-bent"), open.actions[0]?.code]).toEqual(["stop", "suspect", "compare-bend"]);
    expect(open.actions.map(({ code }) => code)).not.toContain("scrap-blade");
  });

  it("stays scrap where it was tracked bent, whatever the eye says, and no straighter for being called so", () => {
    for (const seen of [{ bend: "bent" }, { bend: "straight" }, { bend: "bent", bendCompared: "same-curve" }]) {
      const result = edge({ ...set(blade(seen)), tracked: { left: "bent" } });
      expect(result.findings.find(({ place }) => place === "left")).toMatchObject({ code: "bend", verdict: "stop" });
      expect(saysOf(result, "blade-bent")).toBe("seen");
    }
    expect(edge({ ...set(blade({ bend: "bent" })), tracked: { left: "straight" } }).verdict).toBe("stop");
  });

  it("is a new blade's own curve where the other has it too, and scrap where it has not", () => {
    expect([bent("same-curve").verdict, saysOf(bent("same-curve"), "blade-bent")]).toEqual(["in-tolerance", undefined]);
    expect([bent("unlike").verdict, saysOf(bent("unlike"), "blade-bent"), bent("unlike").actions[0]?.code]).toEqual([
      "stop",
      "seen",
      "scrap-blade",
    ]);
  });
});

describe("a nick in one blade of a sharp set", () => {
  const money = { price: 24, sharpening: 9, fitting: 3, sharpenings: 5, hoursPerEdge: 10, currency: "EUR" };
  const nicked = (nick: number, more: object = {}) => edge({ ...set(blade({ A: end("sharp", nick) })), ...more });

  it("sends no good blade to be ground: leave it, replace that one, or grind the set, with millimetres and money of each", () => {
    const result = nicked(0.001, { money });
    expect(result.detail).toMatchObject({ advice: "one-nicked", nick: { places: ["left"] } });
    /** By hand: one blade 24 and fitting 3; three sharpened and fitted 3 × (9 + 3); under the nick 1 mm and 0.5 mm of clean-up. */
    expect(result.actions).toEqual([
      { code: "leave-nick", depthMetres: 0.001 },
      { code: "replace-nicked", count: 1, amount: 27, currency: "EUR" },
      { code: "grind-under-nick", stockMetres: expect.closeTo(0.0015, 12), count: 3, amount: 36, currency: "EUR" },
    ]);
  });

  it("is not left where it is damage, and says no money that nobody gave", () => {
    const bare = withSheet(zeroTurn, { blade: undefined });
    const result = edge(set(blade({ A: end("sharp", 0.003) })), bare);
    expect([result.verdict, saysOf(result, "blade-damaged")]).toEqual(["out", "seen"]);
    expect(result.actions).toEqual([
      { code: "replace-nicked", count: 1 },
      { code: "grind-under-nick", stockMetres: expect.closeTo(0.0035, 12), count: 3 },
    ]);
  });

  it("is not ground under where one of the set would be past its limit by it", () => {
    const narrow = (at: object) => blade({ ...at, widthMetres: 1.76 * IN });
    const result = edge({
      ...set(blade({ A: end("sharp", 0.001) })),
      blades: { ...set(blade({ A: end("sharp", 0.001) })).blades, middle: narrow({}) },
    });
    expect(result.detail.advice).toBe("one-nicked");
    expect(result.actions.map(({ code }) => code)).toEqual(["leave-nick", "replace-nicked"]);
  });

  it("is one thing among others where a blade is dull, or every blade has one", () => {
    expect(edge(set(blade({ A: end("dull", 0.001) }))).detail.advice).toBe("sharpen");
    const all = blade({ B: end("sharp", 0.001) });
    expect(edge(set(all, all)).detail.advice).toBe("sharpen");
  });
});

describe("in millimetres and money", () => {
  const dull = blade({ A: end("dull"), B: end("dull"), widthMetres: 2.25 * IN });

  it("says how often a blade can still be ground: width 2.25 in, limit 1.75 in, stock 0.5 mm now and 1.5 mm each (by hand)", () => {
    const result = edge(set(dull, dull));
    expect(result.detail.blades[0]?.grindsLeft).toBe(Math.floor((0.5 * 25.4 - 0.5) / 1.5));
    expect(figure(result, "grinds-left", "left")?.value).toBe(8);
    expect(result.actions[0]).toMatchObject({ code: "sharpen-set", stockMetres: expect.closeTo(0.0005, 9), grindsLeft: 8 });
  });

  /** Worked example "edge cost" (docs/worked-examples.md): P 24, C 9, h 10, N 5: 1.15 against 2.40 an hour. */
  it("sharpens exactly when one sharpening costs less than a blade", () => {
    const money = (price: number, sharpening: number) => ({ price, sharpening, fitting: 0, sharpenings: 5, hoursPerEdge: 10 });
    const cheap = edge({ ...set(dull, dull), money: money(24, 9) });
    expect(cheap.detail.cost).toEqual({ sharpenedPerHour: expect.closeTo(1.15, 9), replacedPerHour: expect.closeTo(2.4, 9) });
    expect(cheap.detail.advice).toBe("sharpen");
    expect(edge({ ...set(dull, dull), money: money(24, 23.9) }).detail.advice).toBe("sharpen");
    expect(edge({ ...set(dull, dull), money: money(24, 24.1) }).detail.advice).toBe("replace");
  });

  it("replaces a set with a blade that has no grind left, which is never fewer than none, and condemns nothing by an estimate", () => {
    const thin = blade({ A: end("dull", 0.001), B: end("dull"), widthMetres: 1.79 * IN });
    const result = edge(set(thin, dull));
    expect(result.detail).toMatchObject({ advice: "replace" });
    expect(result.detail.blades[0]?.grindsLeft).toBe(0);
    expect(result.findings.filter(({ code }) => code === "no-grind-left").map(({ verdict }) => verdict)).toEqual(["watch"]);
    expect(figure(result, "grinds-left", "left")).toMatchObject({ value: 0, verdict: "watch" });
  });

  it("a width within a rule's error of the limit is watched; past the error it is scrap", () => {
    const at = (inches: number) => edge(set(blade({ widthMetres: inches * IN }))).findings.filter(({ place }) => place === "left");
    expect(at(1.74).map(({ code, verdict }) => [code, verdict])).toContainEqual(["width-at-limit", "watch"]);
    expect(at(1.72).map(({ code }) => code)).toContain("below-least-width");
  });

  it("replaces a sharp set that has worn short: what it shares counts, not how it cuts", () => {
    const short = blade({ lengthMetres: 16.3 * IN });
    const worn = withSheet(zeroTurn, { blade: undefined });
    const result = edge(set(short, short), worn);
    expect([result.verdict, saysOf(result, "blade-worn-short")]).toEqual(["out", "seen"]);
    expect(result.actions).toMatchObject([{ code: "replace-set", why: "short" }]);
  });
});
