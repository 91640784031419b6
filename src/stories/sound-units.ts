import { gaussian } from "@/core/basics/random";
import { featuresOf, kindById } from "@/core/catalogue/kinds";
import { benchHeight, bracketFor, type Machine, reelBladesOf, schoolOf, type Unit, unitSheetOf, unitsAcross } from "@/core/machine";
import { speedForClip, stanceOf } from "@/core/physics/reel";

type Readings = Record<string, unknown>;

const USUAL_REEL_METRES = 0.125;

const hundredth = (metres: number) => Math.round(metres / 0.00001) * 0.00001;

/** Readings of a reel machine on which this check finds nothing, with the noise of a shop's gauges; `undefined` for a check it does not have. */
export function soundUnits(args: { machine: Machine; check: string; random: () => number }): Readings | undefined {
  const { machine, check, random } = args;
  const noise = (spread: number) => gaussian(random) * spread;
  const above = (mean: number, spread: number) => hundredth(Math.max(0, mean + noise(spread)));
  const bench = benchHeight(machine);
  const units = (read: (unit: Unit) => object) => ({
    units: Object.fromEntries(unitsAcross(machine).map((unit) => [unit.id, read(unit)])),
  });
  switch (check) {
    case "unit-match":
      return units((unit) => sameAsSheet(machine, unit, bench, noise));
    case "roller-clean":
      return units(({ id }) => ({
        frontState: "clean",
        rearState: "clean",
        scraper: unitSheetOf(machine, id).hasScraper ? "works" : "none",
      }));
    case "roller-bearing":
      return units(() => ({
        frontFeel: "none",
        frontTurns: "smooth",
        rearFeel: "none",
        rearTurns: "smooth",
      }));
    case "reel-bearing":
      return units(() => ({
        leftFeel: "none",
        leftLiftMetres: above(0.00001, 0.00001),
        rightFeel: "none",
        rightLiftMetres: above(0.00001, 0.00001),
        turns: "smooth",
        ends: "dry",
        wrap: "none",
      }));
    case "arm-play":
      return units(() => ({
        arm: "sound",
        bushings: "firm",
        playMetres: above(0.0005, 0.0002),
        ...(kindById(machine.kind).isRider ? { skewMetres: above(0.002, 0.001) } : {}),
      }));
    case "reel-edge":
      return units(() => ({ reel: "sharp", knife: "sharp", nick: "none", relief: "there", landMetres: above(0.0008, 0.0001) }));
    case "reel-cone":
      return units(({ id }) => {
        const diameter = (unitSheetOf(machine, id).reel?.newDiameterMetres ?? USUAL_REEL_METRES) - 0.004;
        return {
          leftMetres: hundredth(diameter + noise(0.00002)),
          middleMetres: hundredth(diameter + noise(0.00002)),
          rightMetres: hundredth(diameter + noise(0.00002)),
        };
      });
    case "roller-square":
      return units(() => ({ rests: "as-meant", leftGapMetres: above(0, 0.000008), rightGapMetres: 0 }));
    case "reel-contact":
      return units(({ id }) => ({
        bearing: "sound",
        turns: schoolOf(machine, id) === "no-contact" ? "free" : "light-drag",
        worst: { left: "cut", middle: "cut", right: "cut" },
        closer: "cuts",
      }));
    case "bedknife-attitude":
      return units(({ id }) => soundAttitude(machine, id, bench));
    case "roller-position":
      return soundBrackets(machine, bench);
    case "groomer-depth":
      return units(() => ({ heightMetres: bench, groomerMetres: hundredth(bench * 0.85 + noise(0.0001)), strips: "better" }));
    case "unit-layout":
      return { ...units(() => ({ ahead: "square" })), lines: "none" };
    case "clipping-path":
      return units(() => ({
        hood: "as-set",
        shield: "sound",
        path: "clear",
        basket: featuresOf(machine).includes("catcher") ? "seated" : "none",
      }));
    case "reel-speed":
      return soundSpeed(machine, bench, noise);
    default:
      return undefined;
  }
}

function sameAsSheet(machine: Machine, { id }: Unit, bench: number, noise: (spread: number) => number): object {
  const { reel, bedknife, frontRoller, rearRoller, groomer } = unitSheetOf(machine, id);
  const bracket = bracketFor(machine, id, bench, groomer !== "none");
  return {
    blades: reelBladesOf(machine, id),
    diameterMetres: hundredth((reel?.newDiameterMetres ?? USUAL_REEL_METRES) - 0.004 + noise(0.0002)),
    knife: "as-sheet",
    knifeMetres: hundredth((bedknife?.thicknessMetres ?? 0.0035) - 0.0003 + noise(0.00004)),
    knifeLeftMetres: hundredth((bedknife?.depthMetres ?? 0.008) - 0.001 + noise(0.00005)),
    frontRoller: frontRoller?.kind ?? "grooved",
    rearRoller: rearRoller?.kind ?? "smooth",
    hole: bracket?.number ?? 2,
    facing: bracket?.facing ?? "forward",
    groomer: groomer === "none" ? "none" : "fitted",
    benchMetres: hundredth(bench + noise(0.00001)),
  };
}

/** A shade thinner than new, its corners as the side view has them. */
function soundAttitude(machine: Machine, id: string, bench: number): object {
  const { sideView, attitude, bedknife } = unitSheetOf(machine, id);
  const stance = sideView && stanceOf(sideView);
  return {
    heightMetres: bench,
    heelMetres: hundredth(stance?.heelMetres ?? bench * 0.8),
    toeMetres: hundredth(stance?.toeMetres ?? bench * 0.7),
    thicknessMetres: (bedknife?.thicknessMetres ?? 0.0035) - 0.0003,
    ...(attitude ? { attitudeRadians: (attitude.leastRadians + attitude.mostRadians) / 2 } : {}),
    face: "holds-upright",
  };
}

function soundBrackets(machine: Machine, bench: number): Readings {
  const isFitted = unitsAcross(machine).some(({ id }) => unitSheetOf(machine, id).groomer !== "none");
  return {
    heightMetres: bench,
    groomer: isFitted ? "fitted" : "none",
    units: Object.fromEntries(
      unitsAcross(machine).map(({ id }) => {
        const bracket = bracketFor(machine, id, bench, isFitted);
        return [id, { number: bracket?.number ?? 1, facing: bracket?.facing ?? "forward" }];
      }),
    ),
  };
}

/** A pace at which the clip is seven tenths of the height. */
function soundSpeed(machine: Machine, bench: number, noise: (spread: number) => number): Readings {
  const blades = reelBladesOf(machine, machine.units[0]?.id ?? "");
  const turns = machine.sheet.reelDrive?.revolutionsPerMinute ?? 1200;
  const speed = speedForClip({ clipMetres: 0.7 * bench, blades, revolutionsPerMinute: turns });
  return {
    distanceMetres: 30,
    seconds: [30 / speed + noise(0.1), 30 / speed + noise(0.1)],
    heightMetres: bench,
    loaded: "loaded",
    units: Object.fromEntries(unitsAcross(machine).map(({ id }) => [id, { revolutionsPerMinute: Math.round(turns * 0.985 + noise(6)) }])),
  };
}

const YEAR = 365.25 * 86_400_000;
/** Turf takes this much of the bench in winter, and so much more in high summer, when it is soft and full of thatch. For the demo. */
const TAKEN_METRES = { always: 0.00005, summer: 0.00011 } as const;
/** How far units of one machine stray from each other, round and round. For the demo. */
const UNIT_STRAYS = [0, -0.00004, 0.00005] as const;
const PRICKS_A_UNIT = 6;

/** Stubble behind each unit by prism, as the season has it: set to the height that is wanted, and cut a shade lower. `at`: milliseconds. */
export function stubbleInSeason(args: { machine: Machine; random: () => number; turf: string; at: number }): Readings {
  const { machine, random, turf, at } = args;
  const bench = benchHeight(machine);
  const noise = (spread: number) => gaussian(random) * spread;
  // Warmest in July.
  const warm = (1 - Math.cos((2 * Math.PI * (at - Date.UTC(2020, 0, 15))) / YEAR)) / 2;
  const visit = noise(0.00002) - TAKEN_METRES.always - TAKEN_METRES.summer * warm;
  const units = unitsAcross(machine).map(({ id }, k) => {
    const offset = visit + (UNIT_STRAYS[k % UNIT_STRAYS.length] ?? 0);
    return [id, Array.from({ length: PRICKS_A_UNIT }, () => hundredth(bench + offset + noise(0.00012)))] as const;
  });
  return {
    settingMetres: bench,
    wantedMetres: bench,
    turf,
    ground: "firm",
    heightsMetres: units.flatMap(([, heights]) => heights),
    ...(units.length > 1 ? { unitHeights: Object.fromEntries(units) } : {}),
  };
}
