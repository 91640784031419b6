import { describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import { type Check, keyOf, rowsOf, worksheetById, worksheetsFor } from "@/core/checks";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { soundReadings } from "@/core/checks/sound";
import { FLEET } from "@/core/machine/examples/fleet";
import { evaluate, typedAgain } from "./evaluate";

/** Every form of every machine of the depot: what must hold of a worksheet whatever it asks. */
const FORMS = FLEET.flatMap(({ fleetNumber }) => {
  const machine = machineOf(fleetNumber);
  return worksheetsFor(machine).flatMap((check) => (check.form ? [{ name: `${check.id} of ${fleetNumber}`, machine, check }] : []));
});

const rounded = (_: string, value: unknown) => (typeof value === "number" ? Number(value.toPrecision(9)) : value);

describe.each(FORMS)("$name", ({ machine, check }) => {
  const form = check.form?.(machine, {}) ?? { groups: [], fields: [] };

  it("asks each thing once, in a group that is there, with answers that differ", () => {
    const keys = form.fields.map(({ path }) => keyOf(path));
    expect(new Set(keys).size).toBe(keys.length);
    const groups = form.groups.map(({ id }) => id);
    expect(new Set(groups).size).toBe(groups.length);
    for (const field of form.fields) {
      expect(groups).toContain(field.group);
      if (field.kind === "choice") expect(new Set(field.options.map(({ id }) => id)).size).toBe(field.options.length);
    }
  });

  it("takes no key apart: no part of a path holds a dot, and each has a label", () => {
    for (const { path, label } of form.fields) {
      expect(path.every((part) => part.length > 0 && !part.includes("."))).toBe(true);
      expect(label.length).toBeGreaterThan(2);
    }
  });

  it("asks only for ranges that hold themselves: usual inside possible", () => {
    for (const field of form.fields) {
      if (field.kind !== "quantity" && field.kind !== "list") continue;
      const { least, most, usualLeast = least, usualMost = most } = field.range;
      expect([least <= usualLeast, usualLeast < usualMost, usualMost <= most]).toEqual([true, true, true]);
    }
  });

  it("knows what to do with nothing at all and with every answer in turn, without failing", () => {
    for (const field of form.fields) {
      if (field.kind !== "choice") continue;
      for (const option of field.options) {
        const typed = { text: { [keyOf(field.path)]: option.id }, sure: {} };
        const { assessment, troubles } = evaluate({ check, machine, typed, system: "us" });
        const sentences = [...troubles.general, ...Object.values(troubles.byField)];
        expect(assessment !== undefined || sentences.length > 0).toBe(true);
      }
    }
  });

  it("comes back from the record as it went in, in either units, and fits the table of readings", () => {
    const readings = soundReadings({ machine, check: check.id, random: seededRandom(11), turf: "Verge" });
    if (!readings) throw new Error(`no sound readings for ${check.id}: nothing would be tried`);
    for (const system of ["us", "metric"] as const) {
      const typed = typedAgain({ check, machine, input: readings, system });
      const back = evaluate({ check, machine, typed, system });
      expect(back.wrongCount).toBe(0);
      const parsed = (input: unknown) =>
        JSON.parse(JSON.stringify((worksheetById(check.id) as Check).readingsSchema.parse(input), rounded));
      expect(parsed(back.readings)).toEqual(parsed(readings));
    }
    const rows = rowsOf(readings);
    for (const { quantity } of rows) expect(quantity).toMatch(/^[a-z][a-z_0-9]*$/);
    expect(new Set(rows.map(({ place, quantity }) => `${place} ${quantity}`)).size).toBe(rows.length);
  });
});
