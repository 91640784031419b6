import { gaussian } from "@/core/basics/random";
import { INCH_METRES } from "@/core/basics/units";
import { featuresOf, kindById } from "@/core/catalogue/kinds";
import { quickForm, targetPressure } from "@/core/checks";
import {
  type BladeSheet,
  benchHeight,
  cuttingWidth,
  gearboxes,
  isRider,
  type Machine,
  referenceSpindle,
  type Spindle,
  spindlesAcross,
} from "@/core/machine";
import { paperSpeed } from "@/core/physics/drive/paper";
import { soundUnits } from "./sound-units";

type Readings = Record<string, unknown>;

/** What a wrench is set to where the sheet gives no figure. */
const USUAL_TORQUE = 60;

const USUAL_PRESSURE = 100_000;
/** Lower in front by a quarter of an inch. Common practice. */
const USUAL_RAKE = -0.25 * INCH_METRES;

const MILLIMETRE = 0.001;

/** Read to a thirty-second, as a tape would be. */
const taped = (metres: number) => Math.round(metres / (INCH_METRES / 32)) * (INCH_METRES / 32);

/** Readings of a machine on which this check finds nothing, with the noise of a shop's gauges. Sizes from its sheet. */
export function soundReadings(args: { machine: Machine; check: string; random: () => number; turf: string }): Readings | undefined {
  const { machine, check, random, turf } = args;
  const noise = (spread: number) => gaussian(random) * spread;
  const { blade } = machine.sheet;
  const each = (read: (spindle: Spindle) => object) => ({
    blades: Object.fromEntries(machine.spindles.map((spindle) => [spindle.id, read(spindle)])),
  });
  switch (check) {
    case "tyre-pressure":
      return {
        tyres: Object.fromEntries(
          machine.wheels
            .filter(({ isPneumatic }) => isPneumatic)
            .map((wheel) => [wheel.id, { pressurePascals: targetPressure(machine, wheel) ?? USUAL_PRESSURE }]),
        ),
      };
    case "deck-level":
      return { tips: levelTips(machine), ends: "one-carried-round" };
    case "hanger-inspection":
      return {
        hangers: Object.fromEntries((machine.deck?.hangers ?? []).map(({ id }) => [id, { state: "sound" }])),
        shell: { state: "sound" },
      };
    case "anti-scalp-wheels":
      return {
        wheels: Object.fromEntries(
          (machine.deck?.antiScalpWheels ?? []).map(({ id }) => [
            id,
            { clearanceMetres: taped(0.0127 + noise(MILLIMETRE)), turns: "free", hole: 3 },
          ]),
        ),
      };
    case "deck-cleanliness":
      return {
        pack: { depthMetres: taped(Math.max(0, 0.003 + noise(MILLIMETRE))), worst: "chute" },
        port: { state: "open" },
        chute: { state: "open" },
        outlet: { state: "free" },
        baffles: { state: "in-place" },
        shell: { state: "sound" },
      };
    case "blade-edge":
      return each((spindle) => soundEdge(spindle, blade));
    case "blade-fit":
      return each(() => ({
        sail: "to-deck",
        leads: "edge",
        stack: "as-sheet",
        imprint: "same",
        seated: "flush",
        ...(blade?.bolt ? { bolt: blade.bolt.grade } : {}),
        tightened: "wrench",
        torqueNewtonMetres: machine.sheet.bladeBoltTorqueNewtonMetres ?? USUAL_TORQUE,
      }));
    case "blade-track":
      return each(() => ({ markedMetres: taped(0.08 + noise(0.0003)), otherMetres: taped(0.08 + noise(0.0003)) }));
    case "blade-balance":
      return {
        set: "together",
        ...each((spindle) => ({ addedKilograms: 0.001, radiusMetres: spindle.tipCircleDiameterMetres / 2 - 0.01, light: "A" })),
      };
    case "blade-overlap":
      return each(({ tipCircleDiameterMetres }) => ({ lengthMetres: taped(tipCircleDiameterMetres - 0.001) }));
    case "cutting-height":
      return kindById(machine.kind).cutsWith === "reel"
        ? { ...pricks({ ...reelStubble(machine), random, turf }), wantedMetres: benchHeight(machine) }
        : pricks({ settingMetres: 0.0635, offsetMetres: 0, spreadMetres: 0.0025, random, turf });
    case "turf-condition":
      return { beforeMetres: [0.076, 0.079, 0.077], cutMetres: 0.0635, moisture: "dry", density: "usual", ground: "flat", lie: "upright" };
    case "belt-inspection":
      return {
        belt: {
          seated: "every-groove",
          path: "as-picture",
          state: "sound",
          width: "at-rim",
          tension: "right",
          heat: "hand-warm",
          rubs: "clear",
        },
        idlers: { state: "free", spring: "pulls" },
        guards: { state: "on" },
        spindles: Object.fromEntries(machine.spindles.map(({ id }) => [id, { turns: "turns" }])),
      };
    case "spindle-play": {
      const isDirect = featuresOf(machine).includes("direct-drive");
      return {
        spindles: Object.fromEntries(
          machine.spindles.map(({ id }) => [
            id,
            {
              playMetres: Math.max(0, 0.0004 + noise(0.0001)),
              feel: "smooth",
              wrap: "none",
              ...(isDirect ? { key: "whole", shaftEnd: "true" } : { seat: "flush" }),
            },
          ]),
        ),
      };
    }
    case "blade-timing":
      return {
        pairs: Object.fromEntries(
          neighboursAcross(machine).map((id) => [
            id,
            { turned: "clear", phaseDegrees: Math.round(90 + noise(1)), marks: "in-line", lashDegrees: 2 },
          ]),
        ),
      };
    case "gearbox-inspection":
      return {
        boxes: Object.fromEntries(
          gearboxes(machine).map(({ id, coverToOilMetres = 0.05 }) => [
            id,
            {
              teeth: "whole",
              pin: "straight",
              metal: "none",
              bearings: "smooth",
              seal: "dry",
              sealFace: "unworn",
              oil: "clean",
              depthMetres: taped(coverToOilMetres + noise(0.0004)),
              stood: "hours",
            },
          ]),
        ),
      };
    case "tip-speed":
      return {
        spindles: Object.fromEntries(
          machine.spindles.map((spindle) => {
            const turns = (paperSpeed(machine, spindle, {}) ?? blade?.ratedRevolutionsPerMinute ?? 3000) * 0.985;
            return [
              spindle.id,
              { revolutionsPerMinute: Math.round(turns + noise(8)), loadedRevolutionsPerMinute: Math.round(turns * 0.945 + noise(8)) },
            ];
          }),
        ),
      };
    case "vibration-reading":
      return { machine: { felt: "none" } };
    case "ground-speed":
      return isRider(machine)
        ? { distanceMetres: 30, seconds: [16.4 + noise(0.2), 16.6 + noise(0.2)], throttle: "full" }
        : { distanceMetres: 30, seconds: [24.6 + noise(0.2), 24.9 + noise(0.2)], throttle: "full" };
    case "pass-overlap":
      return { passes: 10, acrossMetres: 10 * (cuttingWidth(machine) - 0.09), steersBy: "outer-edge-of-cut" };
    default:
      return soundUnits({ machine, check, random });
  }
}

const reelStubble = (machine: Machine) => ({
  settingMetres: benchHeight(machine),
  offsetMetres: 0,
  spreadMetres: 0.0003,
  stepMetres: 0.0001,
});

/** The quick form of a deck at its own rake. */
function levelTips(machine: Machine): Readings {
  const reference = referenceSpindle(machine);
  const rake = machine.sheet.rakeTargetMetres ?? USUAL_RAKE;
  const slopeForward = rake / (reference?.tipCircleDiameterMetres ?? 1);
  const heightMetres = (y: number) => 0.08 + slopeForward * (y - (reference?.yMetres ?? 0));
  return Object.fromEntries(quickForm(machine).map(({ key, y }) => [key, { heightMetres: heightMetres(y) }]));
}

function neighboursAcross(machine: Machine): string[] {
  const across = spindlesAcross(machine);
  return across.slice(1).map((other, k) => `${across[k]?.id}:${other.id}`);
}

function soundEdge({ tipCircleDiameterMetres }: Spindle, blade: BladeSheet | undefined) {
  const sailMetres = blade?.sailThicknessMetres === undefined ? undefined : blade.sailThicknessMetres * 0.95;
  const end = { edge: "sharp", nickMetres: 0, ...(sailMetres === undefined ? {} : { sailMetres }) };
  return {
    crack: "none",
    bend: "straight",
    slot: "none",
    A: end,
    B: end,
    lengthMetres: taped(tipCircleDiameterMetres),
    ...(blade?.widthMetres === undefined ? {} : { widthMetres: taped(blade.widthMetres * 0.95) }),
  };
}

/** Ten pricks of stubble about a setting and its offset. */
export function pricks(args: {
  settingMetres: number;
  offsetMetres: number;
  spreadMetres: number;
  random: () => number;
  turf: string;
  /** What it is read to. */
  stepMetres?: number;
}): Readings {
  const { settingMetres, offsetMetres, spreadMetres, random, turf, stepMetres = MILLIMETRE } = args;
  return {
    settingMetres,
    turf,
    ground: "firm",
    heightsMetres: Array.from(
      { length: 10 },
      () => Math.round((settingMetres + offsetMetres + gaussian(random) * spreadMetres) / stepMetres) * stepMetres,
    ),
  };
}

type Tree = { [key: string]: unknown };

/** Readings with some of their leaves replaced, by path: how a story spoils a sound machine. */
export function spoiled(readings: Readings, changes: Readonly<Record<string, unknown>>): Readings {
  const copy = structuredClone(readings) as Tree;
  for (const [path, value] of Object.entries(changes)) {
    const parts = path.split(".");
    let here = copy;
    for (const part of parts.slice(0, -1)) {
      here[part] ??= {};
      here = here[part] as Tree;
    }
    here[parts.at(-1) ?? ""] = value;
  }
  return copy;
}
