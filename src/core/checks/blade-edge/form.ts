import { type Machine, pointOf, type Spindle, spindlesAcross } from "@/core/machine";
import { choices, type Form } from "../form";
import { ENDS } from "./schema";

/** Blade by blade, the whole blade and then its ends: what scraps it is asked first. */
export function edgeForm(machine: Machine, soFar: unknown = {}): Form {
  const across = spindlesAcross(machine);
  const { blade } = machine.sheet;
  return {
    groups: [
      ...across.map((spindle) => ({ id: spindle.id, label: spindle.label, at: pointOf(spindle) })),
      { id: "money", label: "What an edge costs", isFolded: true },
    ],
    fields: [
      ...across.flatMap((spindle) => bladeFields(machine, spindle, looksBent(soFar, spindle.id))),
      amount("price", "A new blade"),
      amount("sharpening", "One sharpening and balancing"),
      amount("fitting", "Off and on, each time"),
      {
        ...amount("sharpenings", `Sharpenings in a new one${blade?.sharpenings === undefined ? "" : `, sheet: ${blade.sharpenings}`}`),
        most: 100,
        isWhole: true,
      },
      { ...amount("hoursPerEdge", "Hours on an edge"), least: 0.1, most: 1000, unit: "h" },
      {
        kind: "text",
        path: ["money", "currency"],
        group: "money",
        label: `Currency, letters or sign${blade?.currency === undefined ? "" : `, sheet: ${blade.currency}`}`,
        most: 3,
        isOptional: true,
      },
    ],
  };
}

function looksBent(soFar: unknown, id: string): boolean {
  const { blades } = soFar as { blades?: Record<string, { bend?: string }> };
  return blades?.[id]?.bend === "bent";
}

function amount(name: string, label: string) {
  return { kind: "number" as const, path: ["money", name], group: "money", label, least: 0, most: 100_000, isOptional: true };
}

function bladeFields(machine: Machine, { id, tipCircleDiameterMetres: sheet }: Spindle, isBent: boolean): Form["fields"] {
  const choice = (name: string, label: string, options: { id: string; label: string }[]) => ({
    kind: "choice" as const,
    path: ["blades", id, name],
    group: id,
    label,
    options,
  });
  return [
    choice("crack", "Crack, by eye and ring", choices(["none", "None"], ["cracked", "Cracked"])),
    choice("bend", "Bend", choices(["straight", "Straight"], ["bent", "Looks bent"])),
    ...(isBent
      ? [
          choice(
            "bendCompared",
            "Held against the old one, or tracked",
            choices(["same-curve", "The same curve: its own"], ["unlike", "Unlike it: bent"]),
          ),
        ]
      : []),
    choice("slot", "Slot by the sail", choices(["none", "None"], ["forming", "Forming"])),
    ...ENDS.flatMap((end) => endFields(id, end)),
    {
      kind: "quantity",
      path: ["blades", id, "widthMetres"],
      group: id,
      label: "Width at the narrower tip",
      isOptional: true,
      dimension: "length",
      instrument: "tape",
      range: { least: 0.005, most: 0.5, usualLeast: 0.025, usualMost: (machine.sheet.blade?.widthMetres ?? 0.09) + 0.005 },
    },
    {
      kind: "quantity",
      path: ["blades", id, "lengthMetres"],
      group: id,
      label: "Length, corner to corner",
      isOptional: true,
      dimension: "length",
      instrument: "tape",
      range: { least: 0.1, most: 2, usualLeast: sheet - 0.06, usualMost: sheet + 0.02 },
    },
  ];
}

function endFields(id: string, end: (typeof ENDS)[number]): Form["fields"] {
  const small = { dimension: "length", instrument: "fine" } as const;
  return [
    {
      kind: "choice",
      path: ["blades", id, end, "edge"],
      group: id,
      label: `End ${end}: edge`,
      options: choices(["sharp", "Sharp"], ["dull", "Dull"], ["rounded", "Rounded"]),
    },
    {
      kind: "quantity",
      path: ["blades", id, end, "nickMetres"],
      group: id,
      label: `End ${end}: deepest nick`,
      ...small,
      range: { least: 0, most: 0.05, usualLeast: 0, usualMost: 0.012 },
    },
    {
      kind: "quantity",
      path: ["blades", id, end, "sailMetres"],
      group: id,
      label: `End ${end}: sail, thinnest`,
      isOptional: true,
      ...small,
      range: { least: 0, most: 0.02, usualLeast: 0, usualMost: 0.009 },
    },
  ];
}
