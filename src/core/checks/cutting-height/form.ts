import { kindById } from "@/core/catalogue/kinds";
import { type Machine, unitsAcross } from "@/core/machine";
import { WANTED_READINGS } from "@/core/physics/turf/stubble";
import type { Form } from "../form";

export function formOf(machine: Machine): Form {
  const isReel = kindById(machine.kind).cutsWith === "reel";
  const { heightLeastMetres: least, heightMostMetres: most } = machine.sheet;
  const range = {
    least: 0.001,
    most: 0.4,
    usualLeast: Math.max(0.001, (least ?? 0.012) - (isReel ? 0.002 : 0.012)),
    usualMost: (most ?? 0.15) + (isReel ? 0.01 : 0.05),
  };
  const instrument = isReel ? ("fine" as const) : ("tape" as const);
  const length = { dimension: "length", instrument, range } as const;
  return {
    groups: [
      { id: "setting", label: isReel ? "The bench" : "The setting" },
      { id: "stubble", label: "The stubble" },
      { id: "wanted", label: "Height that is wanted" },
      ...(isReel && machine.units.length > 1 ? [{ id: "units", label: "Unit by unit", isFolded: true }] : []),
    ],
    fields: [
      {
        kind: "quantity",
        path: ["settingMetres"],
        group: "setting",
        label: isReel ? "Bench height" : "Dial, pin or notch says",
        ...length,
      },
      { kind: "list", path: ["heightsMetres"], group: "stubble", label: "Stubble, reading by reading", wanted: WANTED_READINGS, ...length },
      {
        kind: "choice",
        path: ["ground"],
        group: "stubble",
        label: "The ground",
        isOptional: true,
        options: [
          { id: "firm", label: "Firm" },
          { id: "soft", label: "Soft" },
        ],
      },
      { kind: "text", path: ["turf"], group: "stubble", label: "Which turf", isOptional: true, most: 80 },
      {
        kind: "quantity",
        path: ["wantedMetres"],
        group: "wanted",
        label: "Height to cut at",
        ...(isReel ? {} : { isOptional: true }),
        ...length,
      },
      ...(isReel && machine.units.length > 1
        ? unitsAcross(machine).flatMap(({ id, label }) => [
            {
              kind: "list" as const,
              path: ["unitHeights", id],
              group: "units",
              label: `Stubble behind the ${label.toLowerCase()}`,
              isOptional: true,
              wanted: 5,
              ...length,
            },
            {
              kind: "quantity" as const,
              path: ["unitSettings", id],
              group: "units",
              label: `Bench height of the ${label.toLowerCase()}, where it is another`,
              isOptional: true,
              ...length,
            },
          ])
        : []),
    ],
  };
}
