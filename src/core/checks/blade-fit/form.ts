import { type Machine, pointOf, spindlesAcross } from "@/core/machine";
import { choices, type Form } from "../form";

const HOLES = choices(
  ["round", "Round"],
  ["star-5", "Star, 5 points"],
  ["star-6", "Star, 6"],
  ["star-7", "Star, 7"],
  ["spline", "Spline"],
  ["two-flats", "Two flats"],
  ["two-pins", "Two pins"],
);

/** How each blade sits comes first: it is what is seen; then the part itself against the sheet, then against the old one. */
export function fitForm(machine: Machine): Form {
  const across = spindlesAcross(machine);
  const hasStack = machine.sheet.blade?.stack !== undefined;
  return {
    groups: [
      ...across.map((spindle) => ({ id: spindle.id, label: spindle.label, at: pointOf(spindle) })),
      { id: "part", label: "The blade against the sheet", isFolded: true },
      { id: "old", label: "Against the one that came off", isFolded: true },
      { id: "bolt", label: "Bolt head and socket", isFolded: true },
    ],
    fields: [
      ...across.flatMap(({ id }) => mountFields(id, hasStack)),
      {
        kind: "choice",
        path: ["use"],
        group: "part",
        label: "The deck is used today to",
        isOptional: true,
        options: choices(["bag", "Collect"], ["mulch", "Mulch"], ["discharge", "Discharge"]),
      },
      ...partFields(machine, "part"),
      {
        kind: "choice",
        path: ["part", "standing"],
        group: "part",
        label: "These sizes are",
        isOptional: true,
        options: choices(
          ["measured", "Measured"],
          ["read-off", "Read off the part"],
          ["sheet", "From a sheet"],
          ["remembered", "Remembered"],
        ),
      },
      ...partFields(machine, "old"),
      length("bolt", ["headMetres"], "Across the bolt's head", { least: 0.005, most: 0.08, usualLeast: 0.009, usualMost: 0.04 }),
      length("bolt", ["socketMetres"], "Socket in hand", { least: 0.005, most: 0.08, usualLeast: 0.009, usualMost: 0.04 }),
    ],
  };
}

function mountFields(id: string, hasStack: boolean): Form["fields"] {
  const choice = (name: string, label: string, options: ReturnType<typeof choices>, isOptional = false) => ({
    kind: "choice" as const,
    path: ["blades", id, name],
    group: id,
    label,
    options,
    isOptional,
  });
  return [
    choice(
      "sail",
      "Sail points",
      choices(["to-deck", "Up, to the deck"], ["to-ground", "Down, to the ground"], ["none", "Flat, has none"]),
    ),
    choice("leads", "Leading as it turns", choices(["edge", "Sharp edge"], ["back", "Blunt back"])),
    choice(
      "stack",
      "Washers and collars",
      choices(
        ["as-sheet", hasStack ? "As the stack shows" : "As it came off"],
        ["washer-reversed", "Hollow wrong way"],
        ["part-missing", "One missing"],
        ["other-order", "Other order"],
      ),
    ),
    choice(
      "imprint",
      "Imprint on old blade and hub",
      choices(["same", "Lies as it did"], ["other", "Lies otherwise"], ["no-mark", "No mark to see"]),
    ),
    choice("seated", "Blade on its seat", choices(["flush", "Flush"], ["proud", "Proud"])),
    choice(
      "bolt",
      "Marks on the bolt's head",
      choices(
        ["sae-2", "None"],
        ["sae-5", "3 lines"],
        ["sae-8", "6 lines"],
        ["iso-8-8", "8.8"],
        ["iso-10-9", "10.9"],
        ["iso-12-9", "12.9"],
      ),
      true,
    ),
    choice("tightened", "Tightened", choices(["wrench", "Torque wrench"], ["feel", "By feel"], ["loose", "Left loose"])),
    {
      kind: "quantity",
      path: ["blades", id, "torqueNewtonMetres"],
      group: id,
      label: "Wrench set to",
      isOptional: true,
      dimension: "torque",
      instrument: "gauge",
      range: { least: 1, most: 1000, usualLeast: 20, usualMost: 250 },
    },
    choice(
      "stamp",
      "Stamp or words on it",
      choices(["right", "Side named faces so"], ["wrong", "Faces the other way"], ["none", "None to read"]),
      true,
    ),
    choice("arrow", "Arrow on it", choices(["with-turn", "The way it turns"], ["against-turn", "Against it"], ["none", "None"]), true),
    choice(
      "centre",
      "Dish of its middle",
      choices(["ends-lower", "Ends lower than the hub"], ["ends-higher", "Ends higher"], ["flat", "Flat"]),
      true,
    ),
  ];
}

function length(
  group: string,
  path: string[],
  label: string,
  range: { least: number; most: number; usualLeast: number; usualMost: number },
): Form["fields"][number] {
  return { kind: "quantity", path, group, label, isOptional: true, dimension: "length", instrument: "fine", range };
}

function partFields(machine: Machine, which: "part" | "old"): Form["fields"] {
  const sheet = machine.spindles[0]?.tipCircleDiameterMetres ?? 0.5;
  const hole = machine.sheet.blade?.hole?.shape;
  const choice = (name: string, label: string, options: ReturnType<typeof choices>) => ({
    kind: "choice" as const,
    path: [which, name],
    group: which,
    label,
    options,
    isOptional: true,
  });
  return [
    length(which, [which, "lengthMetres"], "Length, corner to corner", {
      least: 0.1,
      most: 2,
      usualLeast: sheet - 0.08,
      usualMost: sheet + 0.08,
    }),
    choice("hole", "Centre hole", HOLES),
    length(which, [which, "holeMetres"], "Across the hole", { least: 0.003, most: 0.2, usualLeast: 0.006, usualMost: 0.06 }),
    ...(hole === "two-flats" || hole === "two-pins"
      ? [
          length(which, [which, "secondMetres"], hole === "two-flats" ? "Over the flats" : "Pin to pin", {
            least: 0.003,
            most: 0.3,
            usualLeast: 0.005,
            usualMost: 0.15,
          }),
        ]
      : []),
    length(which, [which, "thicknessMetres"], "Thickness", { least: 0.001, most: 0.03, usualLeast: 0.0025, usualMost: 0.01 }),
    length(which, [which, "offsetMetres"], "Hub face down to the edge", { least: 0, most: 0.2, usualLeast: 0, usualMost: 0.06 }),
    choice("lift", "Lift", choices(["low", "Low"], ["medium", "Medium"], ["high", "High"], ["mulching", "Mulching"])),
    ...(which === "part"
      ? [
          length(which, [which, "widthMetres"], "Width", { least: 0.02, most: 0.3, usualLeast: 0.04, usualMost: 0.12 }),
          choice("turns", "Cuts turning, seen from above", choices(["clockwise", "Clockwise"], ["anticlockwise", "Anticlockwise"])),
        ]
      : []),
  ];
}
