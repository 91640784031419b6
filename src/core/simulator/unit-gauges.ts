import type { CheckId } from "@/core/catalogue";
import { featuresOf, kindById } from "@/core/catalogue/kinds";
import { benchHeight, bracketFor, type Machine, reelBladesOf, type Unit, unitSheetOf, unitsAcross } from "@/core/machine";
import { ALONG, type Along, clipOf, type Paper, stanceOf, turnsForClip, worstAlong } from "@/core/physics/reel";
import type { Reader } from "./reader";
import { MM } from "./sizes";
import type { HiddenState } from "./state";
import { gapAt, type HiddenUnit, paperAt, SOUND_HEEL, turnsAt, UNIT_EDGE, unitCut, WILL_NOT_METRES } from "./units";

type Readings = Record<string, unknown>;
type Taken = { state: HiddenState; reader: Reader; machine: Machine };

/** Feeler, bench gauge, calliper over blades, prism: spread and step of a careful reading. Estimates. */
const FEELER = [0.008 * MM, 0.005 * MM] as const;
const BENCH = [0.012 * MM, 0.01 * MM] as const;
const CALLIPER = [0.03 * MM, 0.01 * MM] as const;
const PRISM = [0.05 * MM, 0.1 * MM] as const;
const TURF_SPREAD = 0.3 * MM;
const FEEL_SHARE = 0.18;

const byUnit = ({ state, machine }: Taken, read: (own: HiddenUnit, unit: Unit) => object): Readings => ({
  units: Object.fromEntries(unitsAcross(machine).map((unit) => [unit.id, read(state.reel.units[unit.id] as HiddenUnit, unit)])),
});

function match(taken: Taken): Readings {
  const { reader, machine } = taken;
  const bench = benchHeight(machine);
  return byUnit(taken, (own, { id }) => {
    const { reel, bedknife, frontRoller, rearRoller, groomer } = unitSheetOf(machine, id);
    const bracket = bracketFor(machine, id, bench, groomer !== "none");
    const other = own.hasOtherPart ? 1 : 0;
    return {
      blades: reelBladesOf(machine, id) - other * 2,
      diameterMetres: reader.size((reel?.newDiameterMetres ?? 0.127) - 0.004, ...CALLIPER),
      knife: reader.look(other ? "another" : "as-sheet", "as-sheet", "another"),
      knifeMetres: reader.size((bedknife?.thicknessMetres ?? 0.0035) - 0.0003, ...BENCH),
      frontRoller: frontRoller?.kind ?? "grooved",
      rearRoller: rearRoller?.kind ?? "smooth",
      hole: (bracket?.number ?? 2) + (own.isBracketOff ? 1 : 0),
      groomer: groomer === "none" ? "none" : "fitted",
      benchMetres: reader.size(bench + own.heightOffMetres, ...BENCH),
    };
  });
}

/** A film thinner than this is taken for a clean roller. Estimate. */
const SEEN_PACK = 0.2 * MM;

function rollers(taken: Taken): Readings {
  const { reader, machine } = taken;
  return byUnit(taken, (own, { id }) => {
    const there = own.packMetres < SEEN_PACK ? "clean" : own.isLumpy ? "lumpy" : "even";
    const state = reader.look(there as string, "clean", "even");
    const at = () => reader.size(own.packMetres * (own.isLumpy ? 0.6 + 0.8 * reader.draw() : 1), 0.2 * MM, 0.1 * MM);
    const sizes =
      state === "clean"
        ? {}
        : Object.fromEntries(
            ["front", "rear"].flatMap((end) => ["Left", "Middle", "Right"].map((along) => [`${end}${along}Metres`, at()])),
          );
    return {
      frontState: state,
      rearState: state,
      ...sizes,
      scraper: unitSheetOf(machine, id).hasScraper ? "works" : "none",
    };
  });
}

const rollerLift = (taken: Taken): Readings =>
  byUnit(taken, (own) => ({
    frontFeel: taken.reader.look(own.rollerLiftMetres > 0.12 * MM ? "rises" : "none", "none", "rises"),
    frontTurns: "smooth",
    frontLiftMetres: taken.reader.size(own.rollerLiftMetres, 0.02 * MM, 0.01 * MM),
    rearFeel: "none",
    rearTurns: "smooth",
    rearLiftMetres: taken.reader.size(0.02 * MM, 0.01 * MM, 0.01 * MM),
  }));

const reelLift = (taken: Taken): Readings =>
  byUnit(taken, (own) => ({
    leftFeel: taken.reader.look(own.reelLiftMetres > 0.08 * MM ? "lifts" : "none", "none", "lifts"),
    leftLiftMetres: taken.reader.size(own.reelLiftMetres, 0.012 * MM, 0.01 * MM),
    rightFeel: "none",
    rightLiftMetres: taken.reader.size(0.01 * MM, 0.008 * MM, 0.01 * MM),
    turns: "smooth",
    ends: "dry",
    wrap: taken.reader.look(own.isWound ? "wound" : "none", "none", "wound"),
  }));

const arms = (taken: Taken): Readings =>
  byUnit(taken, (own, { widthMetres }) => ({
    arm: "sound",
    bushings: taken.reader.look(own.armPlayMetres > 3 * MM ? "worn" : "firm", "firm", "worn"),
    playMetres: taken.reader.size(own.armPlayMetres, 0.2 * MM, 0.1 * MM),
    ...(kindById(taken.machine.kind).isRider
      ? { skewMetres: taken.reader.size(Math.abs(Math.sin(own.skewRadians)) * widthMetres, MM, MM) }
      : {}),
  }));

const edges = (taken: Taken): Readings =>
  byUnit(taken, (own) => {
    const felt = own.edgeMetres * Math.exp(taken.reader.noise(FEEL_SHARE));
    const said = felt >= UNIT_EDGE.rounded ? "rounded" : felt >= UNIT_EDGE.dull ? "dull" : "sharp";
    return { reel: said, knife: said, nick: taken.reader.look(own.nick, "none", "knife"), relief: "there" };
  });

const cones = (taken: Taken): Readings =>
  byUnit(taken, (own, { id }) => {
    const middle = (unitSheetOf(taken.machine, id).reel?.newDiameterMetres ?? 0.127) - 0.004;
    return {
      leftMetres: taken.reader.size(middle - own.coneMetres / 2, ...CALLIPER),
      middleMetres: taken.reader.size(middle, ...CALLIPER),
      rightMetres: taken.reader.size(middle + own.coneMetres / 2, ...CALLIPER),
    };
  });

const square = (taken: Taken): Readings =>
  byUnit(taken, (own) => ({
    rests: "as-meant",
    leftGapMetres: taken.reader.size(Math.max(0, own.squareMetres), ...FEELER),
    rightGapMetres: taken.reader.size(Math.max(0, -own.squareMetres), ...FEELER),
  }));

const PAPER_NOISE = 0.004 * MM;

/** The worst of all blades at each place; where any is off, a careful hand goes blade by blade. */
const contact = (taken: Taken): Readings =>
  byUnit(taken, (own, { id }) => {
    const { reader, machine } = taken;
    const blades = reelBladesOf(machine, id);
    const trials = Object.fromEntries(
      Array.from({ length: blades }, (_, k) => [
        String(k + 1),
        Object.fromEntries(
          ALONG.map((along) => [along, paperAt(gapAt(own, along, k + 1), own.edgeMetres, reader.noise(PAPER_NOISE))]),
        ) as Record<Along, Paper>,
      ]),
    );
    const worst = worstAlong(trials);
    const isOff = Object.values(worst).some((paper) => paper !== "cut");
    return {
      bearing: reader.look(own.reelLiftMetres > 0.08 * MM ? "lifts" : "sound", "sound", "lifts"),
      turns: turnsAt(own, reader.noise(PAPER_NOISE)),
      ...(isOff && reader.hand.swaps ? { trials } : {}),
      worst,
      closer: isOff ? (own.edgeMetres * Math.exp(reader.noise(FEEL_SHARE)) > WILL_NOT_METRES ? "will-not" : "cuts") : "cuts",
    };
  });

/** Toe and heel as they hang, tipped about the edge: nose down lifts the heel behind it and lets down what is ahead (physics). */
const attitude = (taken: Taken): Readings =>
  byUnit(taken, (own, { id }) => {
    const { reader, machine } = taken;
    const { sideView, attitude: bounds, bedknife } = unitSheetOf(machine, id);
    const bench = benchHeight(machine);
    const stance = sideView && stanceOf(sideView);
    const half = bounds ? (bounds.mostRadians - bounds.leastRadians) / 2 : 0;
    const tipped = Math.sign(own.attitudeOffRadians) * (Math.abs(own.attitudeOffRadians) + half) + own.attitudeSpreadRadians;
    const arm = (point: { yMetres: number } | undefined) => (sideView && point ? sideView.edge.yMetres - point.yMetres : 0);
    const heel = own.isHeelLow
      ? own.heelShare * bench
      : (stance?.heelMetres ?? 0.8 * bench) + (own.heelShare - SOUND_HEEL) * bench + arm(sideView?.heel) * tipped;
    const toe = (stance?.toeMetres ?? 0.7 * bench) + arm(sideView?.toe) * tipped;
    return {
      heightMetres: reader.size(bench + own.heightOffMetres, ...BENCH),
      heelMetres: reader.size(heel, 0.05 * MM, 0.01 * MM),
      toeMetres: reader.size(toe, 0.05 * MM, 0.01 * MM),
      thicknessMetres: reader.size((bedknife?.thicknessMetres ?? 0.0035) - 0.0003, ...BENCH),
      ...(bounds ? { attitudeRadians: (bounds.leastRadians + bounds.mostRadians) / 2 + tipped + reader.noise((0.2 * Math.PI) / 180) } : {}),
      face: "holds-upright",
    };
  });

function brackets(taken: Taken): Readings {
  const { machine } = taken;
  const bench = benchHeight(machine);
  const isFitted = featuresOf(machine).includes("groomer");
  return {
    heightMetres: bench,
    groomer: isFitted ? "fitted" : "none",
    ...byUnit(taken, (own, { id }) => {
      const wanted = bracketFor(machine, id, bench, isFitted);
      return { number: (wanted?.number ?? 1) + (own.isBracketOff ? 1 : 0), facing: wanted?.facing ?? "forward" };
    }),
  };
}

const groomers = (taken: Taken): Readings =>
  byUnit(taken, (own) => {
    const bench = benchHeight(taken.machine);
    return {
      heightMetres: taken.reader.size(bench + own.heightOffMetres, ...BENCH),
      groomerMetres: taken.reader.size(bench * (1 - own.groomerShare), 0.1 * MM, 0.01 * MM),
      strips: "not-mown",
    };
  });

const layout = (taken: Taken): Readings => ({
  ...byUnit(taken, (own, { widthMetres }) => {
    const ahead = taken.reader.size(Math.abs(Math.sin(own.skewRadians)) * widthMetres, MM, MM);
    if (ahead < 3 * MM) return { ahead: "square" };
    return { ahead: own.skewRadians > 0 ? "right" : "left", aheadMetres: ahead };
  }),
  lines: taken.reader.look(taken.state.reel.hasRolledLines ? "at-overlaps" : ("none" as string), "none", "elsewhere"),
  tightestTurnMetres: Math.max(0.3, taken.reader.figure(taken.state.turnRadiusMetres, 0.1, 0.1)),
});

const paths = (taken: Taken): Readings =>
  byUnit(taken, (own) => ({
    hood: taken.reader.look(own.hood, "as-set", "closed"),
    shield: "sound",
    path: "clear",
    basket: featuresOf(taken.machine).includes("catcher") ? "seated" : "none",
  }));

/** A reel loses a little of its rated speed in grass. Estimate. */
const LOADED_SHARE = 0.985;

function speed(taken: Taken): Readings {
  const { state, reader, machine } = taken;
  const bench = benchHeight(machine);
  const rated = machine.sheet.reelDrive?.revolutionsPerMinute ?? 1200;
  const blades = reelBladesOf(machine, machine.units[0]?.id ?? "");
  const isDriven = machine.sheet.reelDrive?.isGroundDriven ?? false;
  // Of a ground-driven reel a clip that is off is its gearing's.
  const turns = isDriven
    ? turnsForClip({ clipMetres: state.reel.clipShare * bench, groundMetresPerSecond: state.groundMetresPerSecond, blades })
    : rated * state.engineShare * LOADED_SHARE;
  const distanceMetres = 30;
  const run = () => Math.max(1, reader.figure(distanceMetres / state.groundMetresPerSecond, 0.2, 0.1));
  return {
    distanceMetres,
    seconds: [run(), run()],
    heightMetres: bench,
    loaded: "loaded",
    ...byUnit(taken, ({ speedShare }) => ({ revolutionsPerMinute: reader.size(turns * (isDriven ? 1 : speedShare), 8, 1) })),
  };
}

/** Clip of a machine as it is driven, as a share of its height. */
export function clipShareOf(state: HiddenState): number {
  const { machine } = state;
  const blades = reelBladesOf(machine, machine.units[0]?.id ?? "");
  const revolutionsPerMinute = (machine.sheet.reelDrive?.revolutionsPerMinute ?? 1200) * state.engineShare;
  if (machine.sheet.reelDrive?.isGroundDriven) return state.reel.clipShare;
  return clipOf({ groundMetresPerSecond: state.groundMetresPerSecond, blades, revolutionsPerMinute }) / benchHeight(machine);
}

/** Bench and stubble by prism, unit by unit, against the height that is wanted. */
export function reelHeight({ state, reader, machine }: Taken): Readings {
  const wanted = benchHeight(machine);
  const units = unitsAcross(machine).map(({ id }) => ({
    id,
    ...(state.reel.units[id] as HiddenUnit),
    ...unitCut(machine, id, state.reel),
  }));
  const mean = units.reduce((sum, one) => sum + one.heightOffMetres, 0) / Math.max(1, units.length);
  const prism = (metres: number) =>
    Math.max(MM, reader.figure(metres, Math.hypot(PRISM[0] * reader.hand.times, TURF_SPREAD) / reader.hand.times, PRISM[1]));
  const each = units.map(
    ({ id, overMetres }) => [id, Array.from({ length: reader.hand.pricks }, () => prism(wanted + overMetres))] as const,
  );
  return {
    settingMetres: reader.size(wanted + mean, ...BENCH),
    wantedMetres: wanted,
    turf: `${machine.kind} site`,
    ground: "firm",
    heightsMetres: each.flatMap(([, heights]) => heights),
    ...(units.length > 1 ? { unitHeights: Object.fromEntries(each) } : {}),
  };
}

export const READ_UNITS: Partial<Record<CheckId, (taken: Taken) => Readings>> = {
  "unit-match": match,
  "roller-clean": rollers,
  "roller-bearing": rollerLift,
  "reel-bearing": reelLift,
  "arm-play": arms,
  "reel-edge": edges,
  "reel-cone": cones,
  "roller-square": square,
  "reel-contact": contact,
  "bedknife-attitude": attitude,
  "roller-position": brackets,
  "groomer-depth": groomers,
  "unit-layout": layout,
  "clipping-path": paths,
  "reel-speed": speed,
};
