import type { QuantityRange } from "@/core/basics/units";
import { featuresOf } from "@/core/catalogue/kinds";
import { type Machine, type Pulley, pointOf, powerOf, spindlesAcross } from "@/core/machine";
import { type PaperWay, paperSpeed, paperWay } from "@/core/physics/drive/paper";
import { choices, type Field, type Form, type QuantityAsked } from "../form";

/** No blade of this trade turns as fast; the fastest are under 4,000. */
const TURNING: QuantityRange = { least: 0, most: 20_000, usualLeast: 0, usualMost: 6000 };
const INPUT: QuantityRange = { least: 100, most: 20_000, usualLeast: 500, usualMost: 6000 };
const PITCH: QuantityRange = { least: 0.02, most: 1, usualLeast: 0.04, usualMost: 0.4 };

const INPUT_WORDS: Record<PaperWay, string> = {
  belt: "Shaft of the drive pulley, full throttle",
  gears: "Gearbox input, full throttle",
  direct: "Engine or motor, full throttle",
};

type Asked = Omit<QuantityAsked, "kind">;
const quantity = (asked: Asked): Field => ({ kind: "quantity", ...asked });

const turning = (asked: Pick<Asked, "path" | "group" | "label" | "isOptional" | "onSheet">, range = TURNING): Field =>
  quantity({ ...asked, dimension: "rotation", instrument: "gauge", range });

const pitch = (asked: Pick<Asked, "path" | "group" | "label" | "onSheet">): Field =>
  quantity({ ...asked, isOptional: true, dimension: "length", instrument: "gauge", range: PITCH });

function paperFields(machine: Machine): Field[] {
  const way = paperWay(machine);
  const group = "paper";
  const { drive, belt } = machine.sheet;
  const pitchOf = (is: (pulley: Pulley) => boolean) => belt?.pulleys.find(is)?.pitchDiameterMetres;
  return [
    turning(
      {
        path: ["paper", "engineRevolutionsPerMinute"],
        group,
        label: INPUT_WORDS[way],
        isOptional: true,
        onSheet: drive?.engineRevolutionsPerMinute,
      },
      INPUT,
    ),
    ...(way === "belt"
      ? [
          pitch({
            path: ["paper", "drivePitchMetres"],
            group,
            label: "Drive pulley, pitch diameter",
            onSheet: pitchOf(({ role }) => role === "drive"),
          }),
          ...spindlesAcross(machine).map(({ id, label }) =>
            pitch({
              path: ["spindles", id, "drivenPitchMetres"],
              group,
              label: `${label}: its pulley, pitch diameter`,
              onSheet: pitchOf(({ spindleId }) => spindleId === id),
            }),
          ),
          quantity({
            path: ["paper", "slip"],
            group,
            label: "Slip reckoned with",
            isOptional: true,
            dimension: "share",
            instrument: "fine",
            range: { least: 0, most: 0.5, usualLeast: 0, usualMost: 0.1 },
          }),
        ]
      : []),
    ...(way === "gears"
      ? [
          {
            kind: "number" as const,
            path: ["paper", "toothRatio"],
            group,
            label: "Blade turns for one of the input",
            least: 0.05,
            most: 20,
            isOptional: true,
          },
        ]
      : []),
  ];
}

const charge = (path: string, label: string): Field =>
  quantity({
    path: ["charge", path],
    group: "charge",
    label,
    isOptional: true,
    dimension: "share",
    instrument: "gauge",
    range: { least: 0, most: 1 },
  });

/** A blade clutch of its own stands between an engine and belts or gears. */
export function hasClutch(machine: Machine): boolean {
  const features = featuresOf(machine);
  return features.includes("combustion") && (features.includes("belt") || features.includes("gears"));
}

/** Pulleys first, then each spindle from the driver's left, then load, charge and travel. */
export function speedForm(machine: Machine): Form {
  const across = spindlesAcross(machine);
  // What the sheet knows need not be typed again: the group is opened only to try another pulley.
  const isOnSheet = across.every((spindle) => paperSpeed(machine, spindle, {}) !== undefined);
  const isCordless = powerOf(machine) === "battery";
  return {
    groups: [
      { id: "paper", label: "On paper first, before it is run up", isOnPaper: true, isFolded: isOnSheet },
      ...across.map((spindle) => ({ id: spindle.id, label: spindle.label, at: pointOf(spindle) })),
      ...(isCordless ? [{ id: "charge", label: "At low charge" }] : []),
      ...(hasClutch(machine) ? [{ id: "clutch", label: "Blade clutch, from the seat" }] : []),
      // Read when all have been read without load, and the machine cuts.
      { id: "work", label: "At work, cutting its usual grass", isFolded: true },
    ],
    fields: [
      ...paperFields(machine),
      ...across.map(({ id }) =>
        turning({
          path: ["spindles", id, "revolutionsPerMinute"],
          group: id,
          label: isCordless ? "Full charge, no load" : "Full throttle, no load",
        }),
      ),
      ...(isCordless
        ? [
            charge("full", "Charge at the first reading"),
            ...across.map(({ id, label }) =>
              turning({
                path: ["spindles", id, "lowChargeRevolutionsPerMinute"],
                group: "charge",
                label: `${label}, no load`,
                isOptional: true,
              }),
            ),
            charge("low", "Charge then"),
          ]
        : []),
      ...(hasClutch(machine)
        ? [
            {
              kind: "choice" as const,
              path: ["clutch"],
              group: "clutch",
              label: "Switched in, and out again",
              isOptional: true,
              options: choices(
                ["at-once", "Takes and lets go at once"],
                ["slips-in", "Slips or squeals in"],
                ["drags-off", "Blades run on"],
              ),
            },
          ]
        : []),
      ...across.map(({ id, label }) =>
        turning({ path: ["spindles", id, "loadedRevolutionsPerMinute"], group: "work", label, isOptional: true }),
      ),
      quantity({
        path: ["groundMetresPerSecond"],
        group: "work",
        label: "Travels at, while cutting",
        isOptional: true,
        dimension: "speed",
        instrument: "gauge",
        range: { least: 0.05, most: 10, usualLeast: 0.3, usualMost: 5 },
      }),
    ],
  };
}
