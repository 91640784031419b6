import type { Point } from "@/core/basics/geometry";
import { INCH_METRES, type QuantityRange } from "@/core/basics/units";
import { type Machine, pointOf } from "@/core/machine";
import { choices, type Field, type Form } from "../form";
import { type DeckForm, type DeckReadings, FORMS } from "./schema";
import { fullForm, quickForm, type TipStation, twistForm } from "./stations";

const STATIONS: Record<DeckForm, (machine: Machine) => TipStation[]> = { quick: quickForm, twist: twistForm, full: fullForm };

const FLOOR_RANGE: QuantityRange = { least: -0.5, most: 0.5, usualLeast: -0.15, usualMost: 0.15 };
const CUT_RANGE: QuantityRange = { least: 0.003, most: 0.2, usualLeast: 0.012, usualMost: 0.15 };

function heightRange({ sheet }: Machine): QuantityRange {
  const { heightLeastMetres: least = INCH_METRES, heightMostMetres: most = 5 * INCH_METRES } = sheet;
  return { least: 0.003, most: Math.min(0.4, most + 0.075), usualLeast: Math.max(0.003, least - 0.02), usualMost: most + 0.02 };
}

/** Both ends of a blade are read at the same point: end B is drawn a little inward so that each can be touched. */
const END_B_INWARD = 0.3;

function drawnAt(machine: Machine, station: TipStation): Point {
  const spindle = machine.spindles.find(({ id }) => id === station.spindleId);
  if (station.end !== "B" || !spindle) return { x: station.x, y: station.y };
  return { x: station.x + (spindle.xMetres - station.x) * END_B_INWARD, y: station.y + (spindle.yMetres - station.y) * END_B_INWARD };
}

function labelOf(machine: Machine, { spindleId, direction, end }: TipStation): string {
  const blade = machine.spindles.find(({ id }) => id === spindleId)?.label ?? spindleId;
  return `${blade}, tip to the ${direction}${end ? `, end ${end}` : ""}`;
}

function tipFields(machine: Machine, stations: readonly TipStation[]): Field[] {
  const range = heightRange(machine);
  return stations.map((station) => ({
    kind: "quantity",
    path: ["tips", station.key, "heightMetres"],
    group: "tips",
    label: labelOf(machine, station),
    at: drawnAt(machine, station),
    dimension: "length",
    instrument: "tape",
    range,
  }));
}

/** Where the floor is read: under every wheel, then under every tip of the form, ends not told apart. */
function floorFields(machine: Machine, stations: readonly TipStation[]): Field[] {
  const floor = (path: readonly string[], label: string): Field => ({
    kind: "quantity",
    path: ["floor", ...path, "heightMetres"],
    group: "floor",
    label: `Floor: ${label}`,
    isOptional: true,
    dimension: "length",
    instrument: "tape",
    range: FLOOR_RANGE,
  });
  const under = new Map(stations.map(({ end: _, ...station }) => [`${station.spindleId}:${station.direction}`, station]));
  return [
    ...machine.wheels.map(({ id, label }) => floor(["wheels", id], label)),
    ...[...under].map(([key, station]) => floor(["places", key], labelOf(machine, station))),
  ];
}

/** Tips in the order the tape is moved, then what it is to cut at, what hung loose, and the floor where it is uneven. */
export function formOf(machine: Machine, soFar: unknown): Form {
  const { form } = soFar as Partial<DeckReadings>;
  const stations = STATIONS[FORMS.find((one) => one === form) ?? "quick"](machine);
  const hangers = machine.deck?.hangers ?? [];
  return {
    groups: [
      { id: "tips", label: "Blade tips, from the floor up" },
      { id: "wanted", label: "To be set while at it" },
      { id: "hangers", label: "A hanger hung loose", isFolded: true },
      {
        id: "floor",
        label: "The floor here is uneven: map it",
        note: "Height of the floor under each wheel and tip, on any datum, lower as minus. A plane floor of any slope needs no map.",
        isFolded: true,
        isRepeatable: true,
      },
    ],
    fields: [
      {
        kind: "choice",
        path: ["form"],
        group: "tips",
        label: "Four tips; the outer rakes too after a drop, a strike or a refit",
        usual: "quick",
        options: choices(["quick", "Four"], ["twist", "Outer rakes too"], ["full", "Both ends of all"]),
      },
      ...tipFields(machine, stations),
      {
        kind: "choice",
        path: ["ends"],
        group: "tips",
        label: "Which end stood there",
        isOptional: true,
        options: choices(["one-carried-round", "The same one everywhere"], ["as-they-stood", "Whichever did"]),
      },
      {
        kind: "quantity",
        path: ["wantedCutHeightMetres"],
        group: "wanted",
        label: "Height of cut",
        isOptional: true,
        dimension: "length",
        instrument: "tape",
        range: CUT_RANGE,
      },
      ...hangers.map(
        (hanger): Field => ({
          kind: "choice",
          path: ["hangers", hanger.id],
          group: "hangers",
          label: hanger.label,
          isOptional: true,
          at: pointOf(hanger),
          options: choices(["loaded", "Carries"], ["loose", "Hung loose"]),
        }),
      ),
      ...floorFields(machine, stations),
    ],
  };
}
