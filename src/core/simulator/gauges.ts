import { gaussian, namedRandom } from "@/core/basics/random";
import { INCH_METRES, PSI_PASCALS } from "@/core/basics/units";
import type { CheckId } from "@/core/catalogue";
import { type Check, hasClutch, quickForm } from "@/core/checks";
import { cuttingWidth, gearboxes, type Machine, type Spindle, spindlesAcross } from "@/core/machine";
import { bladeShakeOf, cutOf, deckPlane, shakeOf, speedsOf, tapedLength, tipHeight } from "./forward";
import { type Hand, Reader } from "./reader";
import { MM } from "./sizes";
import type { HiddenBlade, HiddenState } from "./state";
import { READ_UNITS, reelHeight } from "./unit-gauges";

const FULL_CHARGE = 0.8;
const LOW_CHARGE = 0.2;

type Readings = Record<string, unknown>;
type Taken = { state: HiddenState; reader: Reader; machine: Machine };

const byBlade = ({ machine }: Taken, read: (spindle: Spindle) => object): Record<string, object> =>
  Object.fromEntries(machine.spindles.map((spindle) => [spindle.id, read(spindle)]));
const bladeOf = (state: HiddenState, id: string) => state.blades[id] as HiddenBlade;

const HALF_PSI = PSI_PASCALS / 2;
const THIRTY_SECOND = INCH_METRES / 32;

function tyres({ state, reader, machine }: Taken): Readings {
  const bias = gaussian(reader.draw) * 1000;
  const pneumatic = machine.wheels.filter(({ isPneumatic }) => isPneumatic);
  return {
    tyres: Object.fromEntries(
      pneumatic.map(({ id }) => [id, { pressurePascals: reader.size((state.pressuresPascals[id] ?? 0) + bias, 900, HALF_PSI) }]),
    ),
  };
}

function level({ state, reader, machine }: Taken): Readings {
  const deck = deckPlane(state);
  const tips = quickForm(machine).map(({ key, spindleId, direction }) => {
    const height = tipHeight(state, { spindleId, direction, end: "A", deck });
    return [key, { heightMetres: Math.max(MM, reader.figure(height, 0.6 * MM, THIRTY_SECOND)) }] as const;
  });
  return { tips: Object.fromEntries(tips), ends: "one-carried-round" };
}

function height(taken: Taken): Readings {
  const { state, reader, machine } = taken;
  if (machine.units.length > 0) return reelHeight(taken);
  const { meanMetres } = cutOf(state);
  const where = gaussian(reader.draw) * 0.5 * MM;
  const wanted = reader.hand.pricks;
  return {
    settingMetres: state.settingMetres,
    turf: `${machine.kind} site`,
    ground: "firm",
    heightsMetres: Array.from({ length: wanted }, () => Math.max(MM, reader.figure(meanMetres + where, 2.5 * MM, MM))),
  };
}

function hangers({ state, reader }: Taken): Readings {
  return {
    hangers: Object.fromEntries(
      Object.entries(state.hangers).map(([id, there]) => [id, { state: reader.look(there, "sound", "elongated") }]),
    ),
    shell: { state: reader.look(state.shell, "sound", "cracked") },
  };
}

function antiScalp({ state, reader }: Taken): Readings {
  return {
    wheels: Object.fromEntries(
      Object.entries(state.antiScalp).map(([id, { clearanceMetres, turns }]) => [
        id,
        { clearanceMetres: reader.size(clearanceMetres, 0.8 * MM, THIRTY_SECOND), turns: reader.look(turns, "free", "seized"), hole: 3 },
      ]),
    ),
  };
}

function cleanliness({ state, reader }: Taken): Readings {
  const { depthMetres, chute, port, outlet } = state.pack;
  return {
    pack: { depthMetres: reader.size(depthMetres, 1.5 * MM, MM), worst: "chute" },
    port: { state: reader.look(port, "open", "clogged") },
    chute: { state: reader.look(chute, "open", "narrowed") },
    outlet: { state: reader.look(outlet === "blocked" ? "plug-in" : "free", "free", "bag-clogged") },
    baffles: { state: reader.look("in-place" as string, "in-place", "bent") },
    shell: { state: state.shell === "cracked" ? reader.look("cracked" as string, "sound", "cracked") : "sound" },
  };
}

const DULL_METRES = 0.3 * MM;
const ROUNDED_METRES = 0.7 * MM;
const FEEL_SHARE = 0.18;
/** Half of those who look along a blade see a bend of this size; so unlike they are. Estimates. */
const SEEN_BEND = { middle: 4 * MM, spread: 0.8 * MM } as const;

function edge(taken: Taken): Readings {
  const { state, reader, machine } = taken;
  const { blade } = machine.sheet;
  const blades = byBlade(taken, (spindle) => {
    const own = bladeOf(state, spindle.id);
    const end = (which: "A" | "B") => {
      const { edgeRadiusMetres, nickMetres } = own.ends[which];
      const felt = edgeRadiusMetres * (1 + gaussian(reader.draw) * FEEL_SHARE * reader.hand.times);
      return {
        edge: felt >= ROUNDED_METRES ? "rounded" : felt >= DULL_METRES ? "dull" : "sharp",
        nickMetres: nickMetres > 0 || reader.chance(reader.hand.imagines) ? reader.size(nickMetres || MM, 0.15 * MM, 0.5 * MM) : 0,
        ...(blade?.sailThicknessMetres === undefined
          ? {}
          : { sailMetres: reader.size(own.sailShare * blade.sailThicknessMetres, 0.08 * MM, 0.1 * MM) }),
      };
    };
    const bend = Math.max(Math.abs(own.ends.A.bendMetres), Math.abs(own.ends.B.bendMetres));
    return {
      crack: "none",
      bend: reader.look(bend > SEEN_BEND.middle + reader.noise(SEEN_BEND.spread) ? "bent" : "straight", "straight", "bent"),
      slot: "none",
      A: end("A"),
      B: end("B"),
      lengthMetres: reader.figure(tapedLength(own), 0.8 * MM, THIRTY_SECOND),
      ...(blade?.widthMetres === undefined ? {} : { widthMetres: reader.figure(0.95 * blade.widthMetres, 0.3 * MM, 0.5 * MM) }),
    };
  });
  return { blades };
}

const LENGTH_SEEN = 4 * MM;

function fit(taken: Taken): Readings {
  const { state, reader, machine } = taken;
  const { blade } = machine.sheet;
  const odd = machine.spindles.map(({ id }) => bladeOf(state, id)).find((one) => one.hasOtherLift || one.offsetMetres > 2 * MM);
  const short = machine.spindles
    .map(({ id }) => bladeOf(state, id))
    .find((one) => one.lengthMetres < (blade?.lengthMetres ?? 0) - LENGTH_SEEN);
  const measured = odd ?? short;
  const part = {
    ...(blade?.lengthMetres === undefined || !measured
      ? {}
      : { lengthMetres: reader.figure(measured.lengthMetres, 0.8 * MM, THIRTY_SECOND) }),
    ...(blade?.offsetMetres === undefined || !measured
      ? {}
      : { offsetMetres: reader.size(blade.offsetMetres + measured.offsetMetres, 0.5 * MM, 0.5 * MM) }),
    ...(blade?.lift === undefined
      ? {}
      : { lift: odd?.hasOtherLift && !reader.chance(reader.hand.misses) ? otherLift(blade.lift) : blade.lift }),
  };
  const blades = byBlade(taken, ({ id }) => {
    const { isUpsideDown, bolt } = bladeOf(state, id);
    const tightened = reader.look(bolt.isLoose ? "loose" : "wrench", "wrench", "loose");
    return {
      sail: reader.look(isUpsideDown ? "to-ground" : "to-deck", "to-deck", "to-ground"),
      leads: reader.look(isUpsideDown ? "back" : "edge", "edge", "back"),
      stack: reader.look(bolt.stack as string, "as-sheet", "washer-reversed"),
      imprint: bolt.stack === "washer-reversed" ? "other" : "same",
      seated: reader.look(bolt.seated as string, "flush", "proud"),
      ...(blade?.bolt ? { bolt: blade.bolt.grade } : {}),
      tightened,
      ...(tightened === "loose" ? {} : { torqueNewtonMetres: machine.sheet.bladeBoltTorqueNewtonMetres ?? 60 }),
    };
  });
  return { part, blades, use: blade?.lift === "mulching" ? "mulch" : "discharge" };
}

const otherLift = (lift: string): string => (lift === "high" ? "medium" : "high");

/** Ends A and B stand either side of the shaft; turned end for end the blade's own bend changes places, the shaft's does not. */
function track(taken: Taken): Readings {
  const { state, reader } = taken;
  const read = (value: number) => Math.max(MM, reader.figure(80 * MM + value, 0.3 * MM, 0.5 * MM));
  const blades = byBlade(taken, ({ id }) => {
    const { ends, shaftMetres } = bladeOf(state, id);
    const [marked, other] = [-shaftMetres / 2, shaftMetres / 2];
    const found = { markedMetres: read(ends.A.bendMetres + marked), otherMetres: read(ends.B.bendMetres + other) };
    const isOff = Math.abs(found.markedMetres - found.otherMetres) > 1.2 * MM;
    if (!isOff || !reader.hand.swaps) return found;
    return {
      ...found,
      swappedMarkedMetres: read(ends.B.bendMetres + marked),
      swappedOtherMetres: read(ends.A.bendMetres + other),
    };
  });
  return { blades };
}

const DEAD_KILOGRAMS = 0.0015;

function balance(taken: Taken): Readings {
  const { state, reader } = taken;
  const blades = byBlade(taken, (spindle) => {
    const radiusMetres = spindle.tipCircleDiameterMetres / 2 - 0.01;
    const added = reader.size(bladeOf(state, spindle.id).imbalance / radiusMetres, 0.0007, 0.0005);
    if (added < DEAD_KILOGRAMS) return { addedKilograms: 0 };
    return { addedKilograms: added, radiusMetres, light: "A" };
  });
  return { set: "together", resolutionKilograms: DEAD_KILOGRAMS, blades };
}

function overlap(taken: Taken): Readings {
  const { state, reader } = taken;
  return {
    blades: byBlade(taken, ({ id }) => ({ lengthMetres: reader.figure(tapedLength(bladeOf(state, id)), 0.8 * MM, THIRTY_SECOND) })),
  };
}

function belt(taken: Taken): Readings {
  const { state, reader } = taken;
  const { seated, state: wear, width, tension, idlers, spring } = state.belt;
  return {
    belt: {
      seated: reader.look(seated, "every-groove", "off-one"),
      path: "as-picture",
      state: reader.look(wear, "sound", "glazed"),
      width: reader.look(width, "at-rim", "below-rim"),
      tension: reader.look(tension, "right", "slack"),
      heat: wear === "glazed" ? "too-hot" : "hand-warm",
      rubs: "clear",
    },
    idlers: { state: reader.look(idlers, "free", "rough"), spring: reader.look(spring, "pulls", "weak") },
    guards: { state: "on" },
    spindles: byBlade(taken, ({ id }) => ({ turns: bladeOf(state, id).isStanding && seated === "off-one" ? "stands" : "turns" })),
  };
}

const AIR_KELVIN = 293;
const USUAL_RISE = 15;

function play(taken: Taken): Readings {
  const { state, reader, machine } = taken;
  const isDirect = machine.kind === "walk-petrol" || machine.kind === "walk-cordless";
  return {
    spindles: byBlade(taken, ({ id }) => {
      const own = bladeOf(state, id);
      return {
        playMetres: reader.size(own.playMetres, 0.1 * MM, 0.1 * MM),
        feel: reader.look(own.feel, "smooth", "rough"),
        wrap: reader.look(own.wrap, "none", "grass"),
        hubKelvin: reader.figure(AIR_KELVIN + USUAL_RISE + own.hubKelvin, 1.5, 1),
        ...(isDirect
          ? { key: reader.look(own.key, "whole", "sheared"), shaftEnd: reader.look(own.shaftEnd, "true", "wobbles") }
          : { seat: "flush" }),
      };
    }),
  };
}

function timing({ state, reader, machine }: Taken): Readings {
  const across = spindlesAcross(machine);
  return {
    pairs: Object.fromEntries(
      across.slice(1).map((other, k) => {
        const pair = `${across[k]?.id}:${other.id}`;
        const isOff = state.mistimed.includes(pair);
        const turned = reader.look(isOff ? "touches" : "clear", "clear", "touches");
        return [
          pair,
          { turned, phaseDegrees: Math.round(isOff ? 60 : 90 + gaussian(reader.draw)), marks: isOff ? "off" : "in-line", lashDegrees: 2 },
        ];
      }),
    ),
  };
}

function boxes({ state, reader, machine }: Taken): Readings {
  return {
    boxes: Object.fromEntries(
      gearboxes(machine).map(({ id, coverToOilMetres = 0.05 }) => {
        const { teeth, pin, metal, lowMetres, seal } = state.boxes[id] ?? {
          teeth: "whole",
          pin: "straight",
          metal: "none",
          lowMetres: 0,
          seal: "dry",
        };
        return [
          id,
          {
            ...{ teeth: reader.look(teeth as string, "whole", "chipped"), pin: reader.look(pin as string, "straight", "bent") },
            ...{
              metal: reader.look(metal as string, "none", "fine"),
              bearings: "smooth",
              seal: reader.look(seal as string, "dry", "weeps"),
            },
            ...{ sealFace: "unworn", oil: "clean", depthMetres: reader.size(coverToOilMetres + lowMetres, 0.4 * MM, MM), stood: "hours" },
          },
        ];
      }),
    ),
  };
}

function speed(taken: Taken): Readings {
  const { state, reader, machine } = taken;
  const isBattery = machine.kind === "walk-cordless";
  return {
    spindles: byBlade(taken, ({ id }) => {
      const { free, loaded } = speedsOf(state, id);
      if (free <= 0) return { revolutionsPerMinute: 0, loadedRevolutionsPerMinute: 0 };
      return {
        revolutionsPerMinute: reader.size(free, 8, 1),
        loadedRevolutionsPerMinute: reader.size(loaded, 8, 1),
        ...(isBattery && reader.hand.swaps ? { lowChargeRevolutionsPerMinute: reader.size(free * (1 - state.chargeSag), 8, 1) } : {}),
      };
    }),
    ...(isBattery ? { charge: { full: FULL_CHARGE, ...(reader.hand.swaps ? { low: LOW_CHARGE } : {}) } } : {}),
    ...(hasClutch(machine) ? { clutch: reader.look(state.clutch, "at-once", "slips-in") } : {}),
  };
}

const STRONG_NEWTONS = 250;
const LIGHT_NEWTONS = 120;

function vibration(taken: Taken): Readings {
  const { state, reader, machine } = taken;
  const force = shakeOf(state) * Math.exp(gaussian(reader.draw) * 0.25 * reader.hand.times);
  const felt = force > STRONG_NEWTONS ? "strong" : force > LIGHT_NEWTONS ? "light" : "none";
  if (felt === "none") return { machine: { felt } };
  if (state.engineShake > bladeShakeOf(state))
    return { machine: { felt, with: reader.chance(reader.hand.misses) ? "blades" : "engine-alone", worst: "all-speeds", where: "engine" } };
  const worst = [...machine.spindles].sort((a, b) => bladeOf(state, b.id).imbalance - bladeOf(state, a.id).imbalance)[0];
  return {
    machine: { felt, with: "blades", worst: "at-full", where: "deck" },
    spindles: byBlade(taken, ({ id }) => ({ felt: id === worst?.id ? felt : "none" })),
  };
}

function groundSpeed({ state, reader }: Taken): Readings {
  const distanceMetres = 30;
  const run = () => Math.max(1, reader.figure(distanceMetres / state.groundMetresPerSecond, 0.2, 0.1));
  return { distanceMetres, seconds: [run(), run()], throttle: "full" };
}

const PASSES = 10;

function passes({ state, reader, machine }: Taken): Readings {
  const across = PASSES * (cuttingWidth(machine) - state.passOverlapMetres);
  return {
    passes: PASSES,
    acrossMetres: Math.max(1, reader.figure(across, 0.05, 0.05)),
    steersBy: "outer-edge-of-cut",
    tightestTurnMetres: Math.max(0.2, reader.figure(state.turnRadiusMetres, 0.1, 0.1)),
  };
}

function turf({ state, reader }: Taken): Readings {
  const { isWet, beforeMetres, ground } = state.turf;
  return {
    beforeMetres: [0, 1, 2].map(() => Math.max(MM, reader.figure(beforeMetres, 3 * MM, MM))),
    cutMetres: state.settingMetres,
    moisture: reader.look(isWet ? "wet" : "dry", "dry", "wet"),
    density: "usual",
    ground: reader.look(ground, "flat", "gentle"),
    lie: "upright",
    direction: state.reel.isOneWay ? "same" : "varied",
    ...(state.machine.units.length > 0 ? { thatchMetres: reader.size(state.reel.thatchMetres, MM, MM) } : {}),
  };
}

const READ: Partial<Record<CheckId, (taken: Taken) => Readings>> = {
  "tyre-pressure": tyres,
  "deck-level": level,
  "cutting-height": height,
  "hanger-inspection": hangers,
  "anti-scalp-wheels": antiScalp,
  "deck-cleanliness": cleanliness,
  "blade-edge": edge,
  "blade-fit": fit,
  "blade-track": track,
  "blade-balance": balance,
  "blade-overlap": overlap,
  "belt-inspection": belt,
  "spindle-play": play,
  "blade-timing": timing,
  "gearbox-inspection": boxes,
  "tip-speed": speed,
  "vibration-reading": vibration,
  "ground-speed": groundSpeed,
  "pass-overlap": passes,
  "turf-condition": turf,
  ...READ_UNITS,
};

/**
 * What a worksheet's gauges read of a machine in a hand. The stream is named by machine, check and take: in whatever order the checks are made,
 * each reads the same. `undefined` for a check this model has no gauge for.
 */
export function readingsOf(args: { state: HiddenState; key: string; check: Check; hand: Hand; take?: number }): Readings | undefined {
  const { state, key, check, hand, take = 1 } = args;
  const reader = new Reader(namedRandom(`${key}:${check.id}:${take}`), hand);
  return READ[check.id]?.({ state, reader, machine: state.machine });
}
