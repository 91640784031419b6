import { describe, expect, it } from "vitest";
import { assessed, figure, machineOf, refused, saysOf } from "./sheets.fixtures";
import { stagesTo, type TurfDetail } from "./turf-condition";

const zeroTurn = machineOf("ZT-1");
const hangers = (left: string, others = "sound") => ({
  hangers: Object.fromEntries(
    ["left-front", "right-front", "left-rear", "right-rear"].map((id) => [id, { state: id === "left-front" ? left : others }]),
  ),
});

describe("hanger-inspection", () => {
  it.each([
    ["sound", "in-tolerance", "not-found"],
    ["worn", "watch", "suspect"],
    ["missing", "out", "seen"],
    ["elongated", "out", "seen"],
    ["wrong-clip", "out", "seen"],
  ])("one hanger %s is %s, its cause %s", (state, verdict, result) => {
    const assessment = assessed("hanger-inspection", zeroTurn, hangers(state));
    expect([assessment.verdict, saysOf(assessment, "hanger-failed")]).toEqual([verdict, result]);
  });

  it("marks the place, says to level again, and does not pass a deck half looked at", () => {
    const bad = assessed("hanger-inspection", zeroTurn, { ...hangers("bent"), shell: { state: "cracked" } });
    expect(bad.marks?.[0]).toEqual({ place: "left-front", verdict: "out", code: "bent" });
    expect(bad.actions.map(({ code }) => code)).toEqual(["mend-hanger", "repair-shell", "level-again"]);
    expect(saysOf(bad, "deck-shell-bent")).toBe("seen");
    const half = assessed("hanger-inspection", zeroTurn, { hangers: { "left-front": { state: "sound" } } });
    expect([half.verdict, half.evidence]).toEqual(["not-enough-readings", []]);
    expect(refused("hanger-inspection", zeroTurn, { hangers: { tail: { state: "sound" } } })).toEqual([
      "unknown-hanger at readings.hangers.tail",
    ]);
  });
});

describe("anti-scalp wheels, 6 to 20 mm off the ground (common practice)", () => {
  const ids = (zeroTurn.deck?.antiScalpWheels ?? []).map(({ id }) => id);
  const wheels = (more: Record<string, object> = {}) => ({
    wheels: Object.fromEntries(ids.map((id) => [id, { clearanceMetres: 0.013, turns: "free", hole: 3, ...more[id] }])),
  });
  const first = ids[0] ?? "";

  it.each([
    ["right", {}, "in-tolerance", "not-found"],
    ["on the ground", { clearanceMetres: 0.002 }, "out", "seen"],
    ["too high", { clearanceMetres: 0.03 }, "out", "seen"],
    ["seized", { turns: "seized" }, "out", "seen"],
    ["missing", { turns: "missing", clearanceMetres: undefined }, "out", "seen"],
    ["on another hole than its twin", { hole: 1 }, "out", "seen"],
    ["near its limit", { clearanceMetres: 0.019 }, "watch", "not-found"],
  ])("a wheel %s", (_, more, verdict, result) => {
    const assessment = assessed("anti-scalp-wheels", zeroTurn, wheels({ [first]: more }));
    expect([assessment.verdict, saysOf(assessment, "anti-scalp-misset")]).toEqual([verdict, result]);
  });

  it("does not pass a wheel nobody tried to turn", () => {
    const untold = assessed("anti-scalp-wheels", zeroTurn, wheels({ [first]: { turns: undefined } }));
    expect([untold.verdict, untold.evidence]).toEqual(["not-enough-readings", []]);
  });

  it("names both twins once", () => {
    const { actions } = assessed("anti-scalp-wheels", zeroTurn, wheels({ [first]: { hole: 1 } }));
    expect(actions).toEqual([{ code: "same-hole", place: "rim-left-front", twin: "rim-right-front" }]);
  });
});

describe("deck-cleanliness", () => {
  const clean = {
    pack: { depthMetres: 0.003 },
    port: { state: "open" },
    chute: { state: "open" },
    outlet: { state: "free" },
    baffles: { state: "in-place" },
  };
  const look = (more: object = {}) => assessed("deck-cleanliness", zeroTurn, { ...clean, ...more });

  it("passes a clean deck; a pack over 10 mm, a clogged port or a narrowed chute is packed (estimate)", () => {
    expect([look().verdict, saysOf(look(), "deck-packed")]).toEqual(["in-tolerance", "not-found"]);
    for (const more of [{ pack: { depthMetres: 0.02 } }, { port: { state: "clogged" } }, { chute: { state: "narrowed" } }])
      expect([look(more).verdict, saysOf(look(more), "deck-packed")]).toEqual(["out", "seen"]);
  });

  it("takes a pack a little over its limit for a suspicion, and one near it for neither guilt nor innocence", () => {
    const at = (depthMetres: number) => look({ pack: { depthMetres } });
    expect([at(0.012).verdict, saysOf(at(0.012), "deck-packed")]).toEqual(["out", "suspect"]);
    expect([at(0.008).verdict, saysOf(at(0.008), "deck-packed")]).toEqual(["watch", undefined]);
  });

  it("finds a bag, plug or flap that lets nothing out, and clears none that nobody looked at", () => {
    for (const state of ["bag-clogged", "plug-in", "flap-shut"]) {
      const found = look({ outlet: { state } });
      expect([found.verdict, saysOf(found, "discharge-blocked"), found.actions], state).toEqual([
        "out",
        "seen",
        [{ code: "free-outlet", state }],
      ]);
    }
    expect(saysOf(look(), "discharge-blocked")).toBe("not-found");
    const unread = look({ outlet: undefined });
    expect([unread.verdict, saysOf(unread, "discharge-blocked"), saysOf(unread, "deck-packed")]).toEqual([
      "not-enough-readings",
      undefined,
      undefined,
    ]);
  });

  it("says when a site is washed too seldom, from three looks on", () => {
    const codes = (site: object) => look({ site }).actions.map(({ code }) => code);
    expect(codes({ looks: 4, packed: 2 })).toEqual(["wash-sooner"]);
    expect([codes({ looks: 4, packed: 1 }), codes({ looks: 2, packed: 2 })]).toEqual([[], []]);
    expect(refused("deck-cleanliness", zeroTurn, { ...clean, site: { looks: 1, packed: 2 } })).toHaveLength(1);
  });

  it("finds a crack that cleaning lays bare, and warns of bare steel", () => {
    expect(saysOf(look({ shell: { state: "cracked" } }), "deck-shell-bent")).toBe("seen");
    expect(look({ shell: { state: "bare" } }).warnings).toEqual([{ code: "bare-steel" }]);
  });
});

describe("turf-condition", () => {
  const dry = { moisture: "dry", density: "usual", ground: "flat" };
  const turf = (more: object, machine = zeroTurn) =>
    assessed<TurfDetail>("turf-condition", machine, { cutMetres: 0.06, beforeMetres: [0.08, 0.086, 0.083], ...dry, ...more });

  /** One-third rule (common practice): before ≤ 1.5 × cut. */
  it("passes up to a third of the leaf, and cuts more in stages", () => {
    expect([turf({ beforeMetres: [0.09] }).detail.firstCutMetres, turf({ beforeMetres: [0.0901] }).verdict]).toEqual([undefined, "out"]);
    const tall = turf({ beforeMetres: [0.12] });
    expect(tall.detail).toMatchObject({ share: expect.closeTo(0.5, 9), firstCutMetres: expect.closeTo(0.08, 9) });
    expect(saysOf(tall, "too-wet-or-tall")).toBe("seen");
    expect(tall.actions).toContainEqual({ code: "cut-in-stages", heightsMetres: [expect.closeTo(0.08, 9), 0.06], daysBetween: 3 });
    expect(figure(tall, "height-before")?.tolerance).toMatchObject({ most: expect.closeTo(0.09, 9) });
  });

  /** By hand, each two thirds of the one before: 300 mm to 50 wants 200, 133, 89, 59, 50. */
  it("takes as many stages as keep each to a third of the leaf", () => {
    const action = turf({ beforeMetres: [0.3], cutMetres: 0.05 }).actions.find(({ code }) => code === "cut-in-stages");
    const heights = (action as { heightsMetres?: number[] } | undefined)?.heightsMetres ?? [];
    expect(heights.map((one) => Math.round(one * 1000))).toEqual([200, 133, 89, 59, 50]);
    for (const before of [0.08, 0.0901, 0.15, 0.6, 1]) {
      const all = [before, ...stagesTo(0.06, before)];
      for (const [k, one] of all.slice(1).entries()) expect(one / (all[k] ?? 0)).toBeGreaterThanOrEqual(2 / 3 - 1e-9);
      expect(all.at(-1)).toBe(0.06);
    }
  });

  // @against turf-condition: days until a third has grown; by hand; exact
  it("says how many days until a third has grown: 60 mm at 6 mm a day is 5 (by hand)", () => {
    expect(turf({ growthMetresPerDay: 0.006 }).detail.daysToThird).toBeCloseTo(5, 9);
    expect(turf({ growthMetresPerDay: 0.006 }).actions).toContainEqual({ code: "mow-within", days: 5 });
  });

  it("judges fine faults on good turf only", () => {
    expect(turf({}).detail.ground).toBe("good");
    for (const more of [{ density: "thin" }, { moisture: "wet" }, { ground: "rough" }])
      expect(turf(more).detail.ground).toBe("gross-faults-only");
    expect(saysOf(turf({ ground: "rough" }), "ground-undulates")).toBe("seen");
    expect(saysOf(turf({}), "ground-undulates")).toBe("not-found");
  });

  it("speaks to direction and thatch on a reel machine only", () => {
    const reel = machineOf("RT-1");
    const told = { cutMetres: 0.012, beforeMetres: [0.015], direction: "same", thatchMetres: 0.02 };
    expect([saysOf(turf(told, reel), "same-direction"), saysOf(turf(told, reel), "thatch-build-up")]).toEqual(["seen", "seen"]);
    expect(saysOf(turf({ direction: "same" }), "same-direction")).toBeUndefined();
  });
});
