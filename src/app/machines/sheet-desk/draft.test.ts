import { describe, expect, it } from "vitest";
import { type Machine, machineSchema, sheetProblems, wordOf } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { fieldsOf, type PlaceSort, sheetPlaces, TEMPLATES, templateMachine, valueAt } from "@/core/machine/specification";
import { readText, writeValue } from "@/ui/sheet-field/read-text";
import { saidOtherwise } from "@/ui/words/sheet";
import {
  asEstimated,
  draftOf,
  inUnits,
  isDrawnAround,
  moved,
  readSheet,
  type SheetDraft,
  textOf,
  toSend,
  withAnother,
  without,
  withText,
} from "./draft";

const machineOf = (fleetNumber: string): Machine => machineSchema.parse(FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine);
const zt = machineOf("ZT-1");
const field = (machine: Machine, key: string) => {
  const found = fieldsOf(machine).find((one) => one.key === key);
  if (!found) throw new Error(`no field ${key}`);
  return found;
};
const typed = (draft: SheetDraft, machine: Machine, key: string, text: string, sure?: string) =>
  withText({ draft, field: field(machine, key), text, system: "us", ...(sure === undefined ? {} : { sure }) });
const machineIn = (draft: SheetDraft): Machine => JSON.parse(draft.machineText) as Machine;

describe("a sheet as it is typed", () => {
  it("what can be read stands on the sheet at once, in SI, with whose word it is", () => {
    const draft = { ...draftOf(zt), word: "measured" };
    const next = typed(draft, zt, "sheet.heightMostMetres", "4 1/2");
    expect(machineIn(next).sheet.heightMostMetres).toBeCloseTo(0.1143, 6);
    expect(wordOf(machineIn(next), "sheet.heightMostMetres")).toBe("measured");
    // The sheet's own word is not written down: it is what a value is.
    const back = typed({ ...next, word: "sheet" }, zt, "sheet.heightMostMetres", "4.5");
    expect(machineIn(back).sheet.words).toBeUndefined();
  });

  it("what cannot be read is kept as it was typed, and the sheet stays as it was", () => {
    const next = typed(draftOf(zt), zt, "sheet.heightMostMetres", "four and a bit");
    expect(machineIn(next)).toEqual(zt);
    expect(textOf(next, zt, field(zt, "sheet.heightMostMetres"), "us")).toBe("four and a bit");
    expect(readSheet(next, "us").troubles).toEqual({ "sheet.heightMostMetres": "unreadable" });
  });

  it("in other units what was read is written anew from the sheet, and what could not be read stays as it was typed", () => {
    const read = typed(draftOf(zt), zt, "sheet.heightMostMetres", "4 1/2");
    const both = typed(read, zt, "sheet.heightLeastMetres", "one or so");
    const metric = inUnits(both, "us", "metric");
    expect(machineIn(metric)).toEqual(machineIn(both));
    expect(textOf(metric, machineIn(metric), field(zt, "sheet.heightMostMetres"), "metric")).toMatch(/^114/);
    expect(textOf(metric, zt, field(zt, "sheet.heightLeastMetres"), "metric")).toBe("one or so");
    expect(inUnits(both, "us", "us")).toBe(both);
  });

  it("what is unusual waits for a word, and stands once it is given", () => {
    const asked = typed(draftOf(zt), zt, "wheels.left-drive.diameterMetres", "60");
    expect(machineIn(asked)).toEqual(zt);
    const sure = typed(asked, zt, "wheels.left-drive.diameterMetres", "60", "60");
    expect(machineIn(sure).wheels[0]?.diameterMetres).toBeCloseTo(1.524, 6);
  });

  it("a weight is typed as the shop weighs it and stands as the force it presses with (1200 lb: 5337.9 N; 500 kg: 4903.3 N, physics)", () => {
    const weighed = (text: string) => machineIn(typed(draftOf(zt), zt, "frame.weightNewtons", text)).frame?.weightNewtons;
    expect(weighed("1200")).toBeCloseTo(5337.9, 1);
    expect(weighed("500 kg")).toBeCloseTo(4903.3, 1);
  });

  it("a weight without where it stands is named at what is missing", () => {
    const bare = templateMachine(TEMPLATES["zero-turn"].usual);
    const half = typed(draftOf(bare), bare, "frame.weightNewtons", "1200");
    expect(readSheet(half, "us").troubles).toEqual({ "frame.xMetres": "needed", "frame.yMetres": "needed" });
  });

  it("emptied, an optional value is off the sheet with its word; one that is needed is named", () => {
    const off = typed({ ...draftOf(asEstimated(zt)) }, zt, "sheet.heightMostMetres", "");
    expect(machineIn(off).sheet.heightMostMetres).toBeUndefined();
    expect(machineIn(off).sheet.words?.["sheet.heightMostMetres"]).toBeUndefined();
    const needed = typed(draftOf(zt), zt, "spindles.left.tipCircleDiameterMetres", "");
    const read = readSheet(needed, "us");
    expect(read.machine).toBeUndefined();
    expect(read.troubles).toEqual({ "spindles.left.tipCircleDiameterMetres": "needed" });
  });

  it("half of something is named by the half that is missing", () => {
    const bare = templateMachine(TEMPLATES["zero-turn"].usual);
    const half = typed(draftOf(bare), bare, "sheet.blade.leastLengthMetres", "16.5");
    expect(readSheet(half, "us").troubles).toEqual({ "sheet.blade.lengthMetres": "needed" });
    const whole = typed(half, bare, "sheet.blade.lengthMetres", "17");
    expect(readSheet(whole, "us")).toMatchObject({ troubles: {}, machine: { sheet: { blade: { edges: 2 } } } });
  });

  it("spoilt in the browser it is no machine, and does not throw", () => {
    for (const machineText of ["", "{", "null", "[]", '{"kind":"hovercraft"}'])
      expect(readSheet({ ...draftOf(zt), machineText }, "us").machine).toBeUndefined();
  });

  it("every value of every machine is written as it would be typed, in either units, and read as itself", () => {
    for (const { machine: input } of FLEET) {
      const machine = machineSchema.parse(input);
      for (const system of ["us", "metric"] as const)
        for (const one of fieldsOf(machine)) {
          const value = valueAt(machine, one.key);
          if (value === undefined) continue;
          const text = writeValue(value, one, system);
          const read = readText(one, text, system, text);
          expect(read.trouble, `${one.key} ${text}`).toBeUndefined();
          // A hundredth of a thousandth of an inch is finer than anybody types.
          if (typeof value === "number" && one.kind === "quantity" && one.dimension === "length")
            expect(Math.abs((read.value as number) - value)).toBeLessThan(2e-5);
          else if (typeof value === "number")
            expect(read.value as number).toBeCloseTo(value, one.kind === "quantity" && one.dimension === "pressure" ? -2 : 2);
          // A table has sizes in it: alike to the last figure that is shown.
          else if (one.kind === "table") expect(writeValue(read.value, one, system)).toBe(writeValue(value, one, system));
          else expect(read.value).toEqual(value);
        }
    }
  });

  it.each([
    ["sheet.blade.price", "-1", "below"],
    ["sheet.blade.price", "1e9", "above"],
    ["sheet.blade.price", "a lot", "unreadable"],
    ["sheet.notes", "x".repeat(2001), "too-long"],
    ["sheet.jackingPoints", "y".repeat(81), "too-long"],
    ["sheet.jackingPoints", Array.from({ length: 9 }, (_, k) => `point ${k}`).join("\n"), "too-many"],
  ] as const)("%s with %.12s is told: %s", (key, text, trouble) => {
    expect(readText(field(zt, key), text, "us", undefined).trouble).toBe(trouble);
  });

  it("lines are one a line, without the empty ones", () => {
    expect(readText(field(zt, "sheet.jackingPoints"), " front \n\n rear\n", "us", undefined).value).toEqual(["front", "rear"]);
  });
});

describe("a sheet as it is drawn", () => {
  const place = (machine: Machine, id: string) => {
    const found = sheetPlaces(machine).find((one) => one.id === id);
    if (!found) throw new Error(`no place ${id}`);
    return found;
  };

  it("a shell drawn around its blades goes with them, one of its own does not", () => {
    const template = templateMachine(TEMPLATES["zero-turn"].usual);
    expect(isDrawnAround(template)).toBe(true);
    const next = moved(template, place(template, "right"), { x: 0.6, y: 0.7 });
    expect(next.spindles.find(({ id }) => id === "right")).toMatchObject({ xMetres: 0.6, yMetres: 0.7 });
    expect(isDrawnAround(next)).toBe(true);
    const own = moved(zt, place(zt, "right"), { x: 0.5, y: 0.6 });
    expect(own.deck?.outline).toEqual(zt.deck?.outline);
  });

  it("a gearbox goes with the blade it stands over, and alone where it was moved by itself", () => {
    const geared = templateMachine(TEMPLATES["geared-rider"].usual);
    const next = moved(geared, place(geared, "left"), { x: -0.7, y: 0.6 });
    expect(next.sheet.gearboxes?.find(({ id }) => id === "left-box")).toMatchObject({ xMetres: -0.7, yMetres: 0.6 });
    const apart = moved(geared, place(geared, "left-box"), { x: -0.5, y: 0.5 });
    expect(apart.spindles).toEqual(geared.spindles);
    const then = moved(apart, place(apart, "left"), { x: -0.7, y: 0.6 });
    expect(then.sheet.gearboxes?.find(({ id }) => id === "left-box")).toMatchObject({ xMetres: -0.5, yMetres: 0.5 });
  });

  it("one more of each sort has a name of its own and leaves a machine; taken away it is as it was", () => {
    const sorts: PlaceSort[] = ["hangers", "antiScalpWheels", "wheels", "gearboxes"];
    for (const sort of sorts) {
      const geared = templateMachine(TEMPLATES["geared-rider"].usual);
      const { machine, id } = withAnother(geared, sort);
      expect(machineSchema.safeParse(machine).success, sort).toBe(true);
      expect(sheetPlaces(geared).some((one) => one.id === id)).toBe(false);
      const added = sheetPlaces(machine).find((one) => one.id === id);
      expect(added?.sort).toBe(sort);
      if (added) expect(sheetPlaces(without(machine, added))).toEqual(sheetPlaces(geared));
      expect(sheetProblems(machine).filter(({ code }) => code === "id-twice")).toEqual([]);
      const twice = withAnother(machine, sort);
      expect(twice.id).not.toBe(id);
    }
  });

  it("a wheel taken away leaves no pivot of its axle, a rim wheel no twin that is gone", () => {
    const tractor = templateMachine(TEMPLATES["belly-deck"].usual);
    const without1 = without(tractor, place(tractor, "left-front"));
    const bare = sheetPlaces(without1).some(({ id, sort }) => sort === "wheels" && id === "right-front")
      ? without(without1, { ...place(without1, "right-front") })
      : without1;
    expect(sheetProblems(bare).filter(({ code }) => code === "not-on-sheet")).toEqual([]);
    const lone = without(zt, place(zt, "rim-left-front"));
    expect(lone.deck?.antiScalpWheels.find(({ id }) => id === "rim-right-front")).not.toHaveProperty("twin");
    expect(sheetProblems(lone)).toEqual([]);
  });

  it("of a template the turns left on a hanger are a guess as well, and the sheet in words calls them one", () => {
    const estimated = asEstimated(templateMachine(TEMPLATES["zero-turn"].usual));
    const hanger = estimated.deck?.hangers[0];
    if (!hanger) throw new Error("a zero-turn's deck hangs");
    expect(wordOf(estimated, `deck.hangers.${hanger.id}.turnsLeftUp`)).toBe("estimated");
    // An answer the template picked is as much a guess as its figures.
    expect(wordOf(estimated, `deck.hangers.${hanger.id}.step`)).toBe("estimated");
    const [said, ...others] = saidOtherwise(estimated, "us");
    expect(others).toEqual([]);
    expect(said?.word).toBe("estimated");
    expect(said?.values).toContain(`${hanger.label}: turns left up ${hanger.turnsLeftUp}`);
    expect(saidOtherwise(zt, "us")).toEqual([]);
  });

  it("of a template every length is an estimate; sent, a word without its value is none", () => {
    const estimated = asEstimated(templateMachine(TEMPLATES["reel-ride-on"].usual));
    expect(wordOf(estimated, "units.left.widthMetres")).toBe("estimated");
    const left = place(estimated, "left");
    const sent = toSend(without(estimated, left));
    expect(Object.keys(sent.sheet.words ?? {}).some((key) => key.startsWith("units.left."))).toBe(false);
    expect(machineSchema.safeParse(sent).success).toBe(true);
    expect(toSend(zt).sheet).not.toHaveProperty("words");
  });
});
