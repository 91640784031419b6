import { describe, expect, it } from "vitest";
import { toSi } from "@/core/basics/units";
import { withSheet } from "@/core/machine";
import { assessed, figure, IN, machineOf, refused, saysOf } from "../sheets.fixtures";
import type { FitDetail } from ".";

const zeroTurn = machineOf("ZT-1");
const fitted = (more: object = {}) => ({
  sail: "to-deck",
  leads: "edge",
  stack: "as-sheet",
  imprint: "same",
  seated: "flush",
  bolt: "sae-8",
  tightened: "wrench",
  torqueNewtonMetres: toSi(90, "ft-lb"),
  ...more,
});
const set = (left: object = fitted()) => ({ blades: { left, middle: fitted(), right: fitted() } });
const withLift = (lift: string) =>
  ({ ...zeroTurn, sheet: { ...zeroTurn.sheet, blade: { ...zeroTurn.sheet.blade, lift } } }) as typeof zeroTurn;
const fitOf = (readings: object, machine = zeroTurn) => assessed<FitDetail>("blade-fit", machine, readings);

describe("how blades are fitted", () => {
  it("passes blades the right way, stack in order, at the sheet's torque; and says what that clamps with", () => {
    const result = fitOf(set());
    expect(result.verdict).toBe("in-tolerance");
    expect([saysOf(result, "blade-upside-down"), saysOf(result, "blade-loose")]).toEqual(["not-found", "not-found"]);
    /** Published short form, from memory (docs/worked-examples.md, "bolt"): 90 lbf·ft on a dry 5/8 in bolt clamps about 8,640 lbf. */
    expect((figure(result, "clamp-force", "left")?.value ?? 0) / 4.4482216).toBeCloseTo(8640, -1);
  });

  it.each([
    ["upside down", { sail: "to-ground", leads: "back" }, "turn-over", "blade-upside-down"],
    ["sail down and yet its edge leading", { sail: "to-ground" }, "fit-right-blade", "blade-wrong-part"],
    ["sail up and yet back leading", { leads: "back" }, "fit-right-blade", "blade-wrong-part"],
    ["a washer reversed", { stack: "washer-reversed" }, "turn-washer", "blade-loose"],
    ["a part of the stack missing", { stack: "part-missing" }, "mend-stack", "blade-loose"],
    ["a blade proud of its seat", { seated: "proud" }, "mend-stack", "blade-loose"],
  ])("%s is out, with what to do and the cause seen", (_, more, action, cause) => {
    const result = fitOf(set(fitted(more)));
    expect(result.verdict).toBe("out");
    expect(result.actions[0]).toMatchObject({ code: action, ...(action === "fit-right-blade" ? {} : { place: "left" }) });
    expect(saysOf(result, cause)).toBe("seen");
  });

  it.each(["sae-2", "iso-12-9"])("a bolt marked %s is out and changed; it only points at a loose blade", (bolt) => {
    const result = fitOf(set(fitted({ bolt })));
    expect([result.verdict, result.actions[0]?.code, saysOf(result, "blade-loose")]).toEqual(["out", "change-bolt", "suspect"]);
  });

  it("upside down and loose is a stop with both causes, and neither hides the other", () => {
    const result = fitOf(set(fitted({ sail: "to-ground", leads: "back", tightened: "loose", torqueNewtonMetres: undefined })));
    expect([result.verdict, saysOf(result, "blade-upside-down"), saysOf(result, "blade-loose")]).toEqual(["stop", "seen", "seen"]);
    expect(result.findings.filter(({ place }) => place === "left").map(({ code }) => code)).toEqual(["loose", "upside-down"]);
  });

  it("said to be by wrench without the figure is not told; ten times the sheet's figure is refused", () => {
    const bare = fitOf(set(fitted({ torqueNewtonMetres: undefined })));
    expect([bare.verdict, bare.told, saysOf(bare, "blade-loose")]).toEqual(["not-enough-readings", ["middle", "right"], undefined]);
    const wanted = zeroTurn.sheet.bladeBoltTorqueNewtonMetres ?? 0;
    expect(refused("blade-fit", zeroTurn, set(fitted({ torqueNewtonMetres: 10 * wanted })))).toEqual([
      "torque-not-credible at readings.blades.left.torqueNewtonMetres",
    ]);
    expect(saysOf(fitOf(set(fitted({ torqueNewtonMetres: 0.6 * wanted }))), "blade-loose")).toBe("suspect");
  });

  it("watches a bolt tightened by feel and lists it for the wrench; one left loose is a stop", () => {
    const feel = fitOf(set(fitted({ tightened: "feel", torqueNewtonMetres: undefined })));
    expect([feel.verdict, feel.detail.recheck, saysOf(feel, "blade-loose")]).toEqual(["watch", ["left"], undefined]);
    expect(feel.actions).toMatchObject([
      { code: "torque-by-wrench", place: "left", torqueNewtonMetres: zeroTurn.sheet.bladeBoltTorqueNewtonMetres },
    ]);
    expect(fitOf(set(fitted({ tightened: "loose", torqueNewtonMetres: undefined }))).verdict).toBe("stop");
  });

  it("gives no torque of its own where the sheet has none", () => {
    const bare = withSheet(zeroTurn, { bladeBoltTorqueNewtonMetres: undefined });
    const result = fitOf(set(), bare);
    expect(result.actions.map(({ code }) => code)).toEqual(["ask-sheet-torque"]);
    expect(figure(result, "torque", "left")?.tolerance).toBeUndefined();
  });

  it("refuses a wrench figure on a bolt tightened by feel", () => {
    expect(refused("blade-fit", zeroTurn, set(fitted({ tightened: "feel" })))).toEqual([
      "torque-without-wrench at readings.blades.left.torqueNewtonMetres",
    ]);
  });
});

describe("washers and signs", () => {
  const withStack = (stack: readonly string[] | undefined) =>
    ({ ...zeroTurn, sheet: { ...zeroTurn.sheet, blade: { ...zeroTurn.sheet.blade, stack } } }) as typeof zeroTurn;

  /** Common practice: hollow toward the blade so that its rim bears; and this machine's own stack before any rule. */
  it.each([
    [["bolt", "cupped-washer-hollow-up", "blade", "collar"], "toward-blade"],
    [["bolt", "cupped-washer-hollow-down", "blade", "collar"], "toward-head"],
    [["bolt", "blade", "cupped-washer-hollow-down", "collar"], "toward-blade"],
    [["bolt", "flat-washer", "blade"], "by-imprint"],
    [undefined, "by-imprint"],
  ] as const)("a stack of %j wants the hollow %s", (stack, hollow) => {
    const result = fitOf(set(fitted({ stack: "washer-reversed" })), withStack(stack));
    expect(result.actions).toContainEqual({ code: "turn-washer", place: "left", hollow });
  });

  it("does not pass without a stack on the sheet, whatever is answered", () => {
    const result = fitOf(set(), withStack(undefined));
    expect([result.verdict, result.told, saysOf(result, "blade-loose")]).toEqual(["not-enough-readings", [], undefined]);
    expect(result.provisional).toEqual([{ code: "no-stack-on-sheet" }]);
    expect(result.actions.map(({ code }) => code)).toContain("write-stack-down");
  });

  it("always asks the imprint, and says where it disagrees with the stack", () => {
    expect(fitOf(set(fitted({ imprint: undefined }))).verdict).toBe("not-enough-readings");
    expect(fitOf(set(fitted({ imprint: "no-mark" }))).verdict).toBe("in-tolerance");
    const other = fitOf(set(fitted({ imprint: "other" })));
    expect([other.verdict, saysOf(other, "blade-loose"), other.actions[0]?.code]).toEqual(["out", "suspect", "compare-imprint"]);
  });

  it("takes a flat blade without a sail by its edge or its stamp, and says when two signs disagree", () => {
    expect(fitOf(set(fitted({ sail: "none" }))).verdict).toBe("in-tolerance");
    expect(fitOf(set(fitted({ sail: undefined, stamp: "right" }))).verdict).toBe("in-tolerance");
    const two = fitOf(set(fitted({ stamp: "wrong" })));
    expect([two.verdict, saysOf(two, "blade-upside-down")]).toEqual(["out", "suspect"]);
    expect(two.actions).toContainEqual({ code: "look-at-signs", place: "left", signs: "sail,stamp" });
  });

  it("holds the lift against today's use, not against a catcher that hangs in the shed", () => {
    const codes = (use: string, lift: string) => fitOf({ ...set(), use, part: { lift } }).detail.mismatches.map(({ code }) => code);
    expect(codes("bag", "mulching")).toEqual(["mulching-with-catcher"]);
    expect(codes("bag", "low")).toEqual(["low-lift-with-bag"]);
    expect(codes("mulch", "high")).toEqual(["high-lift-on-mulching"]);
    const warned = fitOf({ ...set(), use: "bag", part: {} }, withLift("mulching"));
    expect([warned.detail.mismatches, warned.warnings.map(({ code }) => code)]).toEqual([
      [],
      expect.arrayContaining(["set-for-other-use"]),
    ]);
    expect(fitOf({ ...set(), use: "mulch", part: {} }, withLift("mulching")).warnings).not.toContainEqual({ code: "set-for-other-use" });
    // The sheet's own set is another: said, whatever it is used for.
    expect(codes("mulch", "mulching")).toEqual(["other-lift"]);
  });

  it("measures a pattern part over its flats or pins as well", () => {
    const pins = {
      ...zeroTurn,
      sheet: { ...zeroTurn.sheet, blade: { ...zeroTurn.sheet.blade, hole: { shape: "two-pins", acrossMetres: 0.01, secondMetres: 0.06 } } },
    } as typeof zeroTurn;
    const codes = (secondMetres: number) =>
      fitOf({ ...set(), part: { hole: "two-pins", holeMetres: 0.01, secondMetres } }, pins).detail.mismatches.map(({ code }) => code);
    expect([codes(0.06), codes(0.062)]).toEqual([[], ["other-second"]]);
  });
});

describe("the blade itself", () => {
  /** The demo's zero-turn lets a blade of 17 in wear to 16 1/2 (its sheet): 5 mm gone is legal wear. */
  it("a blade worn as far as it may be is watched, and never said to be another part for all to see", () => {
    const worn = fitOf({ ...set(), part: { lengthMetres: 17 * IN - 0.005, standing: "measured" } });
    expect([worn.verdict, saysOf(worn, "blade-wrong-part")]).toEqual(["watch", "suspect"]);
    expect(worn.detail.mismatches.map(({ code }) => code)).toEqual(["worn-shorter"]);
    const under = fitOf({ ...set(), part: { lengthMetres: 16.4 * IN, standing: "measured" } });
    expect([under.verdict, saysOf(under, "blade-wrong-part")]).toEqual(["out", "seen"]);
  });

  it("finds the wrong part, works out the deck's width with it, and stops where it would strike", () => {
    const short = fitOf({ ...set(), part: { lengthMetres: 16 * IN, hole: "star-5", standing: "measured" } });
    expect([short.verdict, saysOf(short, "blade-wrong-part")]).toEqual(["out", "seen"]);
    expect(short.detail.mismatches.map(({ code }) => code)).toEqual(["shorter", "other-hole"]);
    /** By hand: length × number − overlaps = width; here the outer spindles' distance and one length, by hand. */
    expect((figure(short, "width-of-cut")?.value ?? 0) / IN).toBeCloseTo(2 * 16.2 + 16, 4);
    const long = fitOf({ ...set(), part: { lengthMetres: 18 * IN } });
    expect([long.verdict, long.detail.strikes]).toEqual(["stop", true]);
  });

  it("does not let a remembered size be ordered on", () => {
    const result = fitOf({ ...set(), part: { lengthMetres: 17 * IN, standing: "remembered" } });
    expect(result.actions.map(({ code }) => code)).toContain("measure-not-remember");
    expect(result.provisional).toEqual([{ code: "size-remembered" }]);
  });

  it("lays the new blade against the old one before it is unwrapped", () => {
    const result = fitOf({ ...set(), part: { lengthMetres: 17 * IN, hole: "round" }, old: { lengthMetres: 16.5 * IN, hole: "star-6" } });
    expect(result.warnings.filter(({ code }) => code === "differs-from-old")).toEqual([
      { code: "differs-from-old", what: "lengthMetres", byMetres: expect.closeTo(0.5 * IN, 9) },
      { code: "differs-from-old", what: "hole" },
    ]);
  });

  it("finds the socket, and warns of one that rounds the corners or does not go on (worked example: bolt)", () => {
    const at = (headInches: number, socketMetres: number) =>
      fitOf({ ...set(), headMetres: headInches * IN, socketMetres }).warnings.map(({ code }) => code);
    expect(at(11 / 16, 0.018)).toContain("socket-too-loose");
    expect(at(15 / 16, 0.024)).not.toContain("socket-too-loose");
    expect(at(3 / 4, 0.019)).toContain("socket-too-small");
  });
});
