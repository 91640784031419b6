import { emptyTable } from "@/core/basics/tables";
import { INCH_METRES, type UnitSystem } from "@/core/basics/units";
import { type Machine, machineSchema, type Pulley, spindlesAcross } from "@/core/machine";
import { type Entry, readEntry, writeQuantity } from "@/ui/entry";

/** A pulley as it is typed: sizes as text, so that nothing half typed is lost. */
export type SketchedPulley = Omit<Pulley, "xMetres" | "yMetres" | "pitchDiameterMetres"> & { x: string; y: string; diameter: string };
export type Sketch = { pulleys: SketchedPulley[]; length: string };

const USUAL_PULLEY_METRES = 5 * INCH_METRES;
const USUAL_IDLER_METRES = 3 * INCH_METRES;

const PLACE = { dimension: "length", range: { least: -3, most: 3 } } as const;
const DIAMETER = { dimension: "length", range: { least: 0.02, most: 1, usualLeast: 0.04, usualMost: 0.4 } } as const;
const LENGTH = { dimension: "length", range: { least: 0.3, most: 10, usualLeast: 0.6, usualMost: 6 } } as const;

const written = (valueSi: number, system: UnitSystem) =>
  // What a finger puts down is no finer than this.
  String(Number(Number(writeQuantity({ valueSi, dimension: "length", system })).toFixed(system === "us" ? 2 : 0)));

export function typedPulley(pulley: Pulley, system: UnitSystem): SketchedPulley {
  const { xMetres, yMetres, pitchDiameterMetres, ...rest } = pulley;
  const exact = (valueSi: number) => String(Number(Number(writeQuantity({ valueSi, dimension: "length", system })).toFixed(3)));
  return { ...rest, x: exact(xMetres), y: exact(yMetres), diameter: exact(pitchDiameterMetres) };
}

/** What the sheet holds; or a pulley over each blade and one to drive them, to begin with. */
export function firstSketch(machine: Machine, system: UnitSystem): Sketch {
  const { belt } = machine.sheet;
  if (belt)
    return {
      pulleys: belt.pulleys.map((pulley) => typedPulley(pulley, system)),
      length: belt.lengthMetres === undefined ? "" : typedPulley({ ...(belt.pulleys[0] as Pulley), xMetres: belt.lengthMetres }, system).x,
    };
  const across = spindlesAcross(machine);
  const behind = Math.min(...across.map(({ yMetres }) => yMetres)) - 0.25;
  const drive: Pulley = {
    id: "drive-pulley",
    label: "Drive pulley",
    xMetres: 0,
    yMetres: behind,
    pitchDiameterMetres: USUAL_PULLEY_METRES,
    role: "drive",
    side: "inside",
  };
  const over = across.map(
    ({ id, label, xMetres, yMetres }): Pulley => ({
      id: `${id}-pulley`,
      label: `${label}'s pulley`,
      xMetres,
      yMetres,
      pitchDiameterMetres: USUAL_PULLEY_METRES,
      role: "spindle",
      spindleId: id,
      side: "inside",
    }),
  );
  return { pulleys: [drive, ...over.reverse()].map((pulley) => typedPulley(pulley, system)), length: "" };
}

/** An idler where the drawing was touched, next to the run it came closest to: it takes the place after `after`. */
export function withIdler(sketch: Sketch, at: { x: number; y: number }, after: number, system: UnitSystem): Sketch {
  const numbers = sketch.pulleys.flatMap(({ id }) => Number(/^idler-(\d+)$/.exec(id)?.[1] ?? 0));
  const number = Math.max(0, ...numbers) + 1;
  const idler: SketchedPulley = {
    id: `idler-${number}`,
    label: `Idler ${number}`,
    role: "idler",
    side: "outside",
    x: written(at.x, system),
    y: written(at.y, system),
    diameter: written(USUAL_IDLER_METRES, system),
  };
  return { ...sketch, pulleys: [...sketch.pulleys.slice(0, after + 1), idler, ...sketch.pulleys.slice(after + 1)] };
}

/** Of the ways from each pulley to the next, the one that a point lies nearest to. */
export function nearestRun(pulleys: readonly Pick<Pulley, "xMetres" | "yMetres">[], at: { x: number; y: number }): number {
  const far = pulleys.map((one, k) => {
    const next = pulleys[(k + 1) % pulleys.length] ?? one;
    const [dx, dy] = [next.xMetres - one.xMetres, next.yMetres - one.yMetres];
    const along = dx * dx + dy * dy;
    const share = along === 0 ? 0 : Math.max(0, Math.min(1, ((at.x - one.xMetres) * dx + (at.y - one.yMetres) * dy) / along));
    return Math.hypot(at.x - one.xMetres - share * dx, at.y - one.yMetres - share * dy);
  });
  return Math.max(0, far.indexOf(Math.min(...far)));
}

export function movedTo(pulley: SketchedPulley, at: { x: number; y: number }, system: UnitSystem): SketchedPulley {
  return { ...pulley, x: written(at.x, system), y: written(at.y, system) };
}

export type ReadSketch = {
  entries: Record<string, Entry>;
  /** Every pulley that can be read; the belt is only laid where all of them can. */
  pulleys: Pulley[];
  isReadable: boolean;
  lengthMetres?: number;
};

export function readSketch(sketch: Sketch, system: UnitSystem, sure: Readonly<Record<string, string>>): ReadSketch {
  const entries: Record<string, Entry> = emptyTable();
  const pulleys = sketch.pulleys.flatMap(({ x, y, diameter, ...rest }): Pulley[] => {
    const read = (key: string, text: string, place: typeof PLACE | typeof DIAMETER) => {
      const entry = readEntry({ text, place, system, sure: sure[`${rest.id}.${key}`] });
      entries[`${rest.id}.${key}`] = entry;
      return entry.kind === "read" ? entry.valueSi : undefined;
    };
    const [xMetres, yMetres, pitchDiameterMetres] = [read("x", x, PLACE), read("y", y, PLACE), read("diameter", diameter, DIAMETER)];
    if (xMetres === undefined || yMetres === undefined || pitchDiameterMetres === undefined) return [];
    return [{ ...rest, xMetres, yMetres, pitchDiameterMetres }];
  });
  const length = readEntry({ text: sketch.length, place: LENGTH, system, sure: sure.length });
  entries.length = length;
  return {
    entries,
    pulleys,
    isReadable: pulleys.length === sketch.pulleys.length && (length.kind === "read" || length.kind === "empty"),
    ...(length.kind === "read" ? { lengthMetres: length.valueSi } : {}),
  };
}

/** The machine with this path on its sheet. */
export function withBelt(machine: Machine, { pulleys, lengthMetres }: ReadSketch): Machine {
  return machineSchema.parse({
    ...machine,
    sheet: { ...machine.sheet, belt: { pulleys, ...(lengthMetres === undefined ? {} : { lengthMetres }) } },
  });
}
