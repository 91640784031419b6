import { describe, expect, it } from "vitest";
import { type Check, worksheetById } from "@/core/checks";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { evaluate, retyped, type Typed, typedAgain } from "./evaluate";

const zeroTurn = machineOf("ZT-1");
const check = (id: string) => worksheetById(id) as Check;
const typed = (text: Record<string, string>): Typed => ({ text, sure: {} });
const run = (id: string, text: Record<string, string>, machine = zeroTurn) =>
  evaluate({ check: check(id), machine, typed: typed(text), system: "us" });

describe("a worksheet as it is typed", () => {
  it("is not started without an answer, and assessed with the first", () => {
    expect(run("blade-overlap", {})).toMatchObject({ isStarted: false, wrongCount: 0 });
    expect(run("blade-overlap", { "blades.left.lengthMetres": "17" }).assessment?.verdict).toBe("not-enough-readings");
  });

  it("asks for the swap as soon as two ends differ, and keeps what was typed there", () => {
    const keys = (text: Record<string, string>) => run("blade-track", text).form.fields.map(({ path }) => path.join("."));
    expect(keys({ "blades.left.markedMetres": "3", "blades.left.otherMetres": "3" })).not.toContain("blades.left.swappedMarkedMetres");
    const differ = { "blades.left.markedMetres": "3 1/4", "blades.left.otherMetres": "3" };
    expect(keys(differ)).toContain("blades.left.swappedMarkedMetres");
    expect(
      run("blade-track", { ...differ, "blades.left.swappedMarkedMetres": "3", "blades.left.swappedOtherMetres": "3 1/4" }).assessment
        ?.actions,
    ).toEqual([{ code: "scrap-blade", place: "left", reason: "bend" }]);
  });

  it("puts the sentence at the field that is contradicted, and loses nothing", () => {
    const text = { "blades.left.tightened": "feel", "blades.left.torqueNewtonMetres": "90" };
    const result = run("blade-fit", text);
    expect(result.troubles.byField["blades.left.torqueNewtonMetres"]).toContain("A torque needs a torque wrench");
    expect(result.assessment).toBeUndefined();
    expect(result.readings).toMatchObject({ blades: { left: { tightened: "feel" } } });
  });

  it("says at the field that a blade is longer than its deck allows", () => {
    const evaluated = evaluate({
      check: check("blade-overlap"),
      machine: zeroTurn,
      typed: { text: { "blades.left.lengthMetres": "21" }, sure: { "blades.left.lengthMetres": "21" } },
      system: "us",
    });
    expect(evaluated.troubles.byField["blades.left.lengthMetres"]).toContain("Longer than this deck can take");
  });

  it("counts what cannot be read and writes the gauge's own figures down", () => {
    const result = run("cutting-height", { settingMetres: "2 1/2", heightsMetres: "2.4\n2 3/8\noops" });
    expect(result.wrongCount).toBe(1);
    expect(result.asTyped).toEqual({ settingMetres: "2 1/2", "heightsMetres.0": "2.4", "heightsMetres.1": "2 3/8" });
  });

  it("lays a take out again so that an untouched correction is the same readings (round trip)", () => {
    const text = {
      "blades.left.crack": "none",
      "blades.left.A.edge": "dull",
      "blades.left.A.nickMetres": "1/32",
      "blades.left.widthMetres": "2.31",
      "money.price": "19",
    };
    const { readings } = run("blade-edge", text);
    for (const system of ["us", "metric"] as const) {
      const again = typedAgain({ check: check("blade-edge"), machine: zeroTurn, input: readings, system });
      const back = evaluate({ check: check("blade-edge"), machine: zeroTurn, typed: again, system }).readings;
      expect(JSON.stringify(back, rounded)).toBe(JSON.stringify(readings, rounded));
    }
  });
});

const rounded = (_: string, value: unknown) => (typeof value === "number" ? Number(value.toPrecision(10)) : value);

describe("readings written again in other units", () => {
  const mixed: Typed = {
    text: { "blades.left.lengthMetres": "17", "blades.middle.lengthMetres": "17 1/0", "blades.right.lengthMetres": "430 mm" },
    sure: { "blades.left.lengthMetres": "17" },
  };
  const again = retyped({ check: check("blade-overlap"), machine: zeroTurn, typed: mixed, from: "us", to: "metric" });

  it("are the same lengths, stood by as before; what cannot be read is left for whoever typed it", () => {
    expect(again.text).toEqual({
      "blades.left.lengthMetres": "431.8",
      "blades.middle.lengthMetres": "17 1/0",
      "blades.right.lengthMetres": "430",
    });
    expect(again.sure["blades.left.lengthMetres"]).toBe("431.8");
  });

  it("come to the same in SI, there and back", () => {
    const si = (one: Typed, system: "us" | "metric") =>
      evaluate({ check: check("blade-overlap"), machine: zeroTurn, typed: one, system }).readings;
    const digits = (value: unknown) => JSON.stringify(value, (_, one) => (typeof one === "number" ? one.toPrecision(12) : one));
    expect(digits(si(again, "metric"))).toBe(digits(si(mixed, "us")));
    expect(digits(si(mixed, "us"))).toContain("0.431800000000");
    const home = retyped({ check: check("blade-overlap"), machine: zeroTurn, typed: again, from: "metric", to: "us" });
    expect(Number(home.text["blades.left.lengthMetres"])).toBeCloseTo(17, 9);
  });
});
