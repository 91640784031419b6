import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Machine, machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { fitsMachine, isOfItsSort, PART_KINDS, type Part, partSchema, type SetEntry, setStanding, wantedBlade } from ".";

const machineOf = (fleetNumber: string): Machine => machineSchema.parse(FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine);
const inch = (value: number) => value * 0.0254;

/** The blade a machine's sheet wants, as it would lie on the shelf. */
function bladeFor(machine: Machine): Extract<Part, { kind: "blade" }> {
  return partSchema.parse({
    kind: "blade",
    label: "Blade",
    ...wantedBlade(machine),
  }) as Extract<Part, { kind: "blade" }>;
}
const ROTARY = FLEET.filter(({ machine }) => (machine.units ?? []).length === 0).map(({ fleetNumber }) => fleetNumber);

describe("what fits this deck", () => {
  it.each(ROTARY)("%s: the blade of its own sheet, in every dimension", (fleetNumber) => {
    const machine = machineOf(fleetNumber);
    expect(fitsMachine(bladeFor(machine), machine)).toEqual({ verdict: "fits", reasons: [], untold: [], unsaid: [] });
  });

  it("a quarter inch too long strikes its neighbour, and it is said by how much (ZT-1, by hand: 17.455 between middles)", () => {
    const machine = machineOf("ZT-1");
    const long = fitsMachine({ ...bladeFor(machine), lengthMetres: inch(17.6) }, machine);
    expect(long?.verdict).toBe("does-not-fit");
    expect(long?.reasons.map(({ code }) => code)).toEqual(["longer", "strikes"]);
    const strikes = long?.reasons.find((one) => one.code === "strikes");
    expect(strikes && "byMetres" in strikes && strikes.byMetres).toBeCloseTo(inch(17.6 - Math.hypot(16.2, 6.5)), 4);
  });

  it("each dimension by itself keeps a blade off", () => {
    const machine = machineOf("ZT-1");
    const own = bladeFor(machine);
    const others: [Partial<typeof own>, string][] = [
      [{ lengthMetres: inch(16) }, "shorter"],
      [{ hole: "star-5" }, "other-hole"],
      [{ holeMetres: inch(0.75) }, "hole-too-wide"],
      [{ holeMetres: inch(0.5) }, "hole-too-narrow"],
      [{ thicknessMetres: inch(0.32) }, "other-thickness"],
      [{ offsetMetres: inch(0.9) }, "other-offset"],
      [{ widthMetres: inch(2) }, "narrower"],
      [{ lift: "low" }, "other-lift"],
      [{ turns: "anticlockwise" }, "turns-the-other-way"],
    ];
    for (const [change, code] of others) {
      const fit = fitsMachine({ ...own, ...change }, machine);
      expect(
        fit?.reasons.map((one) => one.code),
        code,
      ).toContain(code);
      expect(fit?.verdict).toBe("does-not-fit");
    }
  });

  it("what nobody measured never fits, whichever dimension it is, and never makes a part that does not fit one that does (property)", () => {
    const sizes = ["lengthMetres", "hole", "holeMetres", "thicknessMetres", "offsetMetres", "widthMetres", "lift", "turns"] as const;
    fc.assert(
      fc.property(fc.constantFrom(...ROTARY), fc.subarray([...sizes], { minLength: 1 }), fc.boolean(), (fleetNumber, left, isLong) => {
        const machine = machineOf(fleetNumber);
        const whole = { ...bladeFor(machine), ...(isLong ? { lengthMetres: 1.2 } : {}) };
        const part = { ...whole, ...Object.fromEntries(left.map((key) => [key, undefined])) } as typeof whole;
        const fit = fitsMachine(part, machine);
        expect(fit?.verdict).not.toBe("fits");
        expect(fit?.untold).toEqual(sizes.filter((key) => left.includes(key)));
        if (isLong && !left.includes("lengthMetres")) expect(fit?.verdict).toBe("does-not-fit");
      }),
      { seed: 20261126, numRuns: 200 },
    );
  });

  it("a sheet that says nothing of its blade leaves it open", () => {
    const machine = machineOf("ZT-1");
    const bare = { ...machine, sheet: {} } as Machine;
    expect(fitsMachine(bladeFor(machine), bare)?.verdict).toBe("cannot-tell");
    const noHole = { ...machine, sheet: { blade: { lengthMetres: machine.sheet.blade?.lengthMetres } } } as Machine;
    expect(fitsMachine(bladeFor(machine), noHole)).toMatchObject({
      verdict: "cannot-tell",
      unsaid: expect.arrayContaining(["hole", "lift"]),
    });
  });

  it("of spindles that turn against each other, or units with sheets of their own, it says on which it goes", () => {
    const plain = machineOf("ZT-1");
    const [first, second, ...others] = plain.spindles;
    if (!first || !second) throw new Error("no spindles");
    const machine: Machine = { ...plain, spindles: [first, { ...second, turns: "anticlockwise" }, ...others] };
    const blade = bladeFor(machine);
    expect(fitsMachine(blade, machine)).toMatchObject({ verdict: "fits", places: [first, ...others].map(({ label }) => label) });
    expect(fitsMachine({ ...blade, turns: "anticlockwise" }, machine)).toMatchObject({ verdict: "fits", places: [second.label] });
    const triplex = machineOf("RT-1");
    const [unit, ...rest] = triplex.units;
    const { bedknife } = triplex.sheet.unit ?? {};
    if (!unit || !bedknife || triplex.deck) throw new Error("no reel units");
    const thick = { ...bedknife, thicknessMetres: (bedknife.thicknessMetres ?? 0) + 0.001 };
    const own = machineSchema.parse({ ...triplex, units: [{ ...unit, own: { bedknife: thick } }, ...rest] });
    const knife = (one: typeof bedknife) =>
      partSchema.parse({ kind: "bedknife", label: "Knife", widthMetres: unit.widthMetres, ...one, type: undefined });
    expect(fitsMachine(knife(thick), own)).toMatchObject({ verdict: "fits", places: [unit.label] });
    expect(fitsMachine(knife(bedknife), own)).toMatchObject({ verdict: "fits", places: rest.map(({ label }) => label) });
  });

  it("a knife goes on a unit as wide and as thick; a reel by its blades too; a bolt by its grade", () => {
    const machine = machineOf("RT-1");
    const width = machine.units[0]?.widthMetres ?? 0;
    const { thicknessMetres = 0, toHeightMetres = 0 } = machine.sheet.unit?.bedknife ?? {};
    const knife = partSchema.parse({ kind: "bedknife", label: "Knife", widthMetres: width, thicknessMetres, toHeightMetres });
    expect(fitsMachine(knife, machine)?.verdict).toBe("fits");
    expect(fitsMachine({ ...knife, thicknessMetres: thicknessMetres + 0.001 } as Part, machine)?.verdict).toBe("does-not-fit");
    expect(fitsMachine({ ...knife, toHeightMetres: 0.002 } as Part, machine)?.reasons).toEqual([{ code: "not-for-this-height" }]);
    const reel = partSchema.parse({ kind: "reel", label: "Reel", widthMetres: width, diameterMetres: inch(5), blades: 8 });
    expect(fitsMachine(reel, machine)?.reasons).toEqual([{ code: "other-blades", found: 8, wanted: 11 }]);
    const soft = partSchema.parse({ kind: "bolt", label: "Bolt", diameterMetres: inch(0.625), grade: "sae-5", thread: "right" });
    expect(fitsMachine(soft, machineOf("ZT-1"))?.reasons).toEqual([{ code: "other-grade", way: "weaker" }]);
  });

  it("what is not of its sort is not asked about, and no kind of part throws on any machine", () => {
    for (const { machine: input } of FLEET) {
      const machine = machineSchema.parse(input);
      for (const kind of PART_KINDS) {
        const part = partSchema.parse({ kind, label: "x" });
        const fit = fitsMachine(part, machine);
        expect(fit === undefined).toBe(!isOfItsSort(part, machine));
        expect(fit?.verdict ?? "cannot-tell").toBe("cannot-tell");
      }
    }
  });
});

describe("a physical set", () => {
  const entry = (id: number, what: object) =>
    ({ id, at: `2026-05-${String(id).padStart(2, "0")}T08:00:00.000Z`, who: "AK", ...what }) as SetEntry;
  const log = [
    entry(1, { kind: "fitted", machineId: "zt-1", machineHours: 100, place: "left", work: "rough" }),
    entry(2, { kind: "looked", machineHours: 106, isDull: false }),
    entry(3, { kind: "came-off", machineId: "zt-1", machineHours: 110, why: "sharpen" }),
    entry(4, { kind: "sharpened" }),
    entry(5, { kind: "put", where: "rack 2" }),
    entry(6, { kind: "fitted", machineId: "zt-3", machineHours: 400, work: "fine turf" }),
  ];
  const now = (machineId: string) => ({ "zt-1": 150, "zt-3": 407 })[machineId];

  it("has run what the meters say between going on and coming off, by kind of work (by hand)", () => {
    expect(setStanding(log, now)).toEqual({
      on: { machineId: "zt-3", work: "fine turf", since: "2026-05-06T08:00:00.000Z" },
      hours: 17,
      hoursByWork: { rough: 10, "fine turf": 7 },
      edgeHours: 7,
      sharpenings: 1,
      looks: [{ hours: 6, isDull: false }],
      hasUnreadStretch: false,
    });
    expect(setStanding(log.slice(0, 5), now)).toMatchObject({ lies: "rack 2", hours: 10, edgeHours: 0 });
  });

  it("a meter nobody read is said, not counted as nought; one set back counts nothing", () => {
    expect(setStanding(log, () => undefined)).toMatchObject({ hasUnreadStretch: true, hours: 10 });
    expect(setStanding(log, () => 12).hours).toBe(10);
  });

  it("sharpened and looked at where it sits, its edge has the hours since; where the meter was not read then, that is said (by hand)", () => {
    const fitted = log.slice(0, 1);
    const sharpened = [
      ...fitted,
      entry(2, { kind: "sharpened", machineHours: 107 }),
      entry(3, { kind: "looked", machineHours: 111, isDull: true }),
    ];
    expect(setStanding(sharpened, now)).toMatchObject({ hours: 50, edgeHours: 43, sharpenings: 1, hasUnreadStretch: false });
    expect(setStanding(sharpened, now).looks).toEqual([{ hours: 4, isDull: true }]);
    expect(setStanding([...fitted, entry(2, { kind: "sharpened" })], now)).toMatchObject({ hours: 50, hasUnreadStretch: true });
  });

  it("finished is on no machine any more", () => {
    const done = setStanding(
      [
        ...log,
        entry(7, { kind: "came-off", machineId: "zt-3", machineHours: 420, why: "worn" }),
        entry(8, { kind: "finished", why: "worn" }),
      ],
      now,
    );
    expect(done).toMatchObject({ finished: { why: "worn" }, hours: 30 });
    expect(done.on).toBeUndefined();
  });
});
