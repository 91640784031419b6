import { FOOT_METRES, INCH_METRES, POUND_FORCE_NEWTONS, PSI_PASCALS } from "@/core/basics/units";
import type { MachineInput } from "@/core/machine";

/** Fourteen machines as examples, the demo depot's: invented, laid out in inches and psi as a sheet of such a machine would be. */
export type FleetMachine = { fleetNumber: string; name: string; site: string; hours: number; machine: MachineInput };

const inch = (value: number) => Math.round(value * INCH_METRES * 1e5) / 1e5;
const psi = (value: number) => Math.round(value * PSI_PASCALS);
const footPounds = (value: number) => Math.round(value * FOOT_METRES * POUND_FORCE_NEWTONS * 10) / 10;
const at = (x: number, y: number) => ({ xMetres: inch(x), yMetres: inch(y) });

type WheelArgs = {
  x: number;
  y: number;
  size: readonly [diameter: number, width: number];
  psi?: number;
  least?: number;
  most?: number;
  isDriven?: boolean;
};

function axle(name: string, label: string, { x, y, size: [diameter, width], psi: sheet, least, most, isDriven }: WheelArgs) {
  return (["left", "right"] as const).map((side) => ({
    id: `${side}-${name}`,
    label: `${side === "left" ? "Left" : "Right"} ${label}`,
    ...at(side === "left" ? -x : x, y),
    axle: name,
    isDriven: isDriven ?? false,
    isPneumatic: sheet !== undefined,
    diameterMetres: inch(diameter),
    treadWidthMetres: inch(width),
    sectionHeightMetres: inch(diameter / 5),
    ...(sheet === undefined ? {} : { sheetPressurePascals: psi(sheet) }),
    ...(least === undefined ? {} : { leastPressurePascals: psi(least) }),
    ...(most === undefined ? {} : { mouldedMaximumPascals: psi(most) }),
  }));
}

function hanger(
  id: string,
  label: string,
  place: readonly [number, number],
  lift: number,
  step: "flat" | "quarter" | "half" | "hole" = "quarter",
) {
  return {
    id,
    label,
    ...at(...place),
    liftPerTurnMetres: inch(lift),
    step,
    turnsLeftUp: 10,
    turnsLeftDown: 10,
    upIs: "clockwise" as const,
  };
}

function fourHangers(x: number, front: number, rear: number, lift: number) {
  return [
    hanger("left-front", "Left front", [-x, front], lift),
    hanger("right-front", "Right front", [x, front], lift),
    hanger("left-rear", "Left rear", [-x, rear], lift),
    hanger("right-rear", "Right rear", [x, rear], lift),
  ];
}

function spindle(
  id: string,
  label: string,
  place: readonly [number, number],
  tipCircle: number,
  turns: "clockwise" | "anticlockwise" = "clockwise",
) {
  return { id, label, ...at(...place), tipCircleDiameterMetres: inch(tipCircle), turns };
}

type BladeArgs = {
  length: number;
  lift?: "low" | "medium" | "high" | "mulching";
  hole: NonNullable<NonNullable<MachineInput["sheet"]>["blade"]>["hole"];
  bolt: { diameter: number; head: number; grade?: "sae-5" | "sae-8" | "iso-10-9"; thread?: "left" };
  stack: NonNullable<NonNullable<MachineInput["sheet"]>["blade"]>["stack"];
  turns: number;
  pounds: number;
  offset?: number;
  price: number;
};

/** A blade as such a sheet gives it; wear limits at usual shares of the new blade. */
function blade({ length, lift = "medium", hole, bolt, stack, turns, pounds, offset = 0.5, price }: BladeArgs) {
  return {
    lengthMetres: inch(length),
    leastLengthMetres: inch(length - 0.5),
    widthMetres: inch(2.5),
    leastWidthMetres: inch(1.75),
    thicknessMetres: inch(0.25),
    sailThicknessMetres: inch(0.2),
    offsetMetres: inch(offset),
    lift,
    hole,
    massKilograms: Math.round(pounds * 453.59237) / 1000,
    ratedRevolutionsPerMinute: turns,
    bolt: {
      diameterMetres: inch(bolt.diameter),
      headMetres: inch(bolt.head),
      grade: bolt.grade ?? ("sae-8" as const),
      thread: bolt.thread ?? ("right" as const),
      surface: "dry" as const,
    },
    stack,
    price,
    sharpeningCost: 9,
    fittingCost: 6,
    hoursPerEdge: 10,
    sharpenings: 5,
  };
}

const round = (across: number) => ({ shape: "round" as const, acrossMetres: inch(across) });
const star = (points: 5 | 6 | 7, across: number) => ({ shape: `star-${points}` as const, acrossMetres: inch(across) });
const CUPPED_STACK = ["bolt", "cupped-washer-hollow-up", "blade", "collar"] as const;
const PLAIN_STACK = ["bolt", "lock-washer", "flat-washer", "blade", "spacer"] as const;

/** Four wheels under the rim, twins front and rear. */
function rimWheels(x: number, front: number, rear: number) {
  const wheel = (id: string, label: string, place: readonly [number, number], twin: string) => ({ id, label, ...at(...place), twin });
  return [
    wheel("rim-left-front", "Left front wheel", [-x, front], "rim-right-front"),
    wheel("rim-right-front", "Right front wheel", [x, front], "rim-left-front"),
    wheel("rim-left-rear", "Left rear wheel", [-x, rear], "rim-right-rear"),
    wheel("rim-right-rear", "Right rear wheel", [x, rear], "rim-left-rear"),
  ];
}

type PulleyArgs = readonly [id: string, label: string, place: readonly [number, number], diameter: number, back?: "back"];

/** The belt's path in its own order: the drive pulley first, then spindles by their ids, and idlers. */
function belt(length: number, ...pulleys: readonly PulleyArgs[]) {
  return {
    lengthMetres: inch(length),
    pulleys: pulleys.map(([id, label, place, diameter, back]) => ({
      id: `${id}-pulley`,
      label,
      ...at(...place),
      pitchDiameterMetres: inch(diameter),
      ...(id === "drive"
        ? { role: "drive" as const }
        : id.includes("idler")
          ? { role: "idler" as const }
          : { role: "spindle" as const, spindleId: id }),
      side: back ? ("outside" as const) : ("inside" as const),
    })),
  };
}

const BY_HOURS = { school: "by-hours" as const, topUpHours: 50, purgeHours: 200 };

/** A frame-hung rider is lifted at its frame, not at the engine or the deck. */
const FRAME_POINTS = ["front cross-tube of the frame", "rear frame plate, left and right"] as const;

const outline = (...corners: readonly (readonly [number, number])[]) => corners.map(([x, y]) => at(x, y));
const weight = (pounds: number, y: number) => ({ weightNewtons: Math.round(pounds * POUND_FORCE_NEWTONS), ...at(0, y) });

function threeBladeZeroTurn(): MachineInput {
  return {
    kind: "zero-turn",
    wheels: [
      ...axle("drive", "drive", { x: 20, y: 0, size: [24, 10.5], psi: 12, least: 8, most: 22, isDriven: true }),
      ...axle("caster", "caster", { x: 16, y: 50, size: [13, 6.5], psi: 18, least: 12, most: 28 }),
    ],
    frame: weight(1200, 16.67),
    deck: {
      mount: "frame-hung",
      hangers: fourHangers(20, 31, 9, 1 / 13),
      outline: outline(
        [-25.6, 14],
        [-25.6, 26],
        [-18, 31],
        [-9, 36.2],
        [9, 36.2],
        [18, 31],
        [25.6, 26],
        [25.6, 14],
        [17, 10.6],
        [-17, 10.6],
      ),
      antiScalpWheels: rimWheels(22, 30, 12),
    },
    spindles: [
      spindle("left", "Left blade", [-16.2, 20], 17),
      spindle("middle", "Middle blade", [0, 26.5], 17),
      spindle("right", "Right blade", [16.2, 20], 17),
    ],
    sheet: {
      drive: { engineRevolutionsPerMinute: 3600, usualDroop: 0.07 },
      belt: belt(
        95.4,
        ["drive", "Engine pulley", [0, 9], 5.5],
        ["right-idler", "Right idler", [5, 13], 3, "back"],
        ["right", "Right pulley", [16.2, 20], 4.95],
        ["middle", "Middle pulley", [0, 26.5], 4.95],
        ["left", "Left pulley", [-16.2, 20], 4.95],
        ["left-idler", "Left idler", [-5, 13], 3, "back"],
      ),
      grease: BY_HOURS,
      jackingPoints: [...FRAME_POINTS],
      spindlePlaces: "own",
      heightLeastMetres: inch(1.5),
      heightMostMetres: inch(4.5),
      rakeTargetMetres: inch(-0.25),
      passOverlapMetres: inch(3),
      bladeBoltTorqueNewtonMetres: footPounds(90),
      blade: blade({
        length: 17,
        lift: "high",
        hole: round(0.625),
        bolt: { diameter: 0.625, head: 0.9375 },
        stack: [...CUPPED_STACK],
        turns: 4000,
        pounds: 2.2,
        price: 19,
      }),
    },
  };
}

function twoBladeZeroTurn(): MachineInput {
  return {
    kind: "zero-turn",
    wheels: [
      ...axle("drive", "drive", { x: 16, y: 0, size: [20, 8], psi: 13, least: 9, most: 22, isDriven: true }),
      ...axle("caster", "caster", { x: 12, y: 44, size: [11, 4], psi: 20, least: 14, most: 32 }),
    ],
    frame: weight(760, 14),
    deck: {
      mount: "frame-hung",
      hangers: fourHangers(15, 30, 11, 1 / 16),
      outline: outline([-21.5, 13], [-21.5, 25], [-13, 30], [4, 35], [16, 35], [21.5, 29], [21.5, 17], [10, 10.5], [-12, 9]),
      antiScalpWheels: rimWheels(18, 29, 12),
    },
    spindles: [spindle("left", "Left blade", [-10.2, 18.5], 21), spindle("right", "Right blade", [10.2, 24.5], 21)],
    sheet: {
      drive: { engineRevolutionsPerMinute: 3600 },
      belt: belt(
        78,
        ["drive", "Engine pulley", [0, 6], 5],
        ["right-idler", "Right idler", [4.5, 11], 3, "back"],
        ["right", "Right pulley", [10.2, 24.5], 5.45],
        ["left", "Left pulley", [-10.2, 18.5], 5.45],
        ["left-idler", "Left idler", [-4.5, 11], 3, "back"],
      ),
      grease: BY_HOURS,
      jackingPoints: [...FRAME_POINTS],
      heightLeastMetres: inch(1.25),
      heightMostMetres: inch(4.25),
      rakeTargetMetres: inch(-0.25),
      passOverlapMetres: inch(3),
      bladeBoltTorqueNewtonMetres: footPounds(70),
      blade: blade({
        length: 21,
        hole: star(5, 0.8),
        bolt: { diameter: 0.5, head: 0.75 },
        stack: [...PLAIN_STACK],
        turns: 3300,
        pounds: 2.6,
        price: 22,
      }),
    },
  };
}

function bellyDeckTractor(): MachineInput {
  return {
    kind: "belly-deck",
    wheels: [
      ...axle("rear", "rear", { x: 18.5, y: 0, size: [23, 10.5], psi: 10, least: 7, most: 20, isDriven: true }),
      ...axle("front", "front", { x: 15, y: 51, size: [16, 6.5], psi: 14, least: 10, most: 26 }),
    ],
    pivotedAxles: [{ axle: "front", ...at(0, 51) }],
    frame: weight(690, 19),
    deck: {
      mount: "frame-hung",
      hangers: [
        hanger("left", "Left lift link", [-13, 20], 1 / 16),
        hanger("right", "Right lift link", [13, 20], 1 / 16),
        hanger("front", "Front link", [0, 41], 1 / 20),
      ],
      outline: outline([-23.6, 16], [-23.6, 28], [-16, 33.8], [2, 40], [16, 40], [23.6, 34], [23.6, 23], [12, 16.5], [-14, 10]),
      antiScalpWheels: rimWheels(20, 33, 16),
    },
    spindles: [spindle("left", "Left blade", [-11.3, 22], 23), spindle("right", "Right blade", [11.3, 28.5], 23)],
    sheet: {
      drive: { engineRevolutionsPerMinute: 3000 },
      belt: belt(
        87.2,
        ["drive", "Engine pulley", [0, 44], 5.5],
        ["left-idler", "Left idler", [-4.5, 39], 3, "back"],
        ["left", "Left pulley", [-11.3, 22], 5.5],
        ["right", "Right pulley", [11.3, 28.5], 5.5],
        ["right-idler", "Right idler", [4.5, 39], 3, "back"],
      ),
      grease: BY_HOURS,
      jackingPoints: [...FRAME_POINTS],
      spindlePlaces: "rotated",
      heightLeastMetres: inch(1.25),
      heightMostMetres: inch(4),
      rakeTargetMetres: inch(-0.25),
      passOverlapMetres: inch(3),
      bladeBoltTorqueNewtonMetres: footPounds(55),
      blade: blade({
        length: 23,
        hole: star(6, 0.75),
        bolt: { diameter: 0.5, head: 0.75 },
        stack: [...CUPPED_STACK],
        turns: 3000,
        pounds: 3,
        price: 27,
      }),
      deckOff: {
        steps: [
          { id: "photographs", words: "Photograph the belt's path, the washer stacks, the shaft flats and the blades as they sit" },
          {
            id: "deck-down",
            words: "Deck lever down: the deck on the floor, blocks under its rim",
            backWords: "Deck lever up, blocks out",
          },
          {
            id: "belt-slack",
            words: "Tensioner back with its lever, belt off the engine pulley",
            backWords: "Belt on the engine pulley last, seen in every groove, then the tensioner let go",
          },
          {
            id: "stabiliser",
            words: "Stabiliser off at the right",
            parts: [{ id: "stabiliser-pin", label: "Stabiliser pin with clip", count: 1 }],
          },
          {
            id: "rear-links",
            words: "Left and right lift links off",
            backWords: "Left and right lift links on, the bend of each arm outwards",
            parts: [
              { id: "link-pins", label: "Link pins", count: 2 },
              { id: "hairpins", label: "Hairpin clips", count: 2 },
              { id: "link-washers", label: "Link washers", count: 4 },
            ],
          },
          {
            id: "front-link",
            words: "Front link off last",
            backWords: "Front link on first",
            parts: [{ id: "front-pin", label: "Front link pin with clip", count: 1 }],
          },
          {
            id: "out",
            words: "Slide the deck out to the right, wheels blocked, where it cannot slide",
            backWords: "Slide the deck in from the right",
          },
        ],
        backFirst: ["out", "front-link"],
      },
    },
  };
}

function frontDeckRider(): MachineInput {
  return {
    kind: "front-deck",
    features: ["belt", "self-carried-deck", "air-tyres", "several-blades", "combustion"],
    wheels: [
      ...axle("drive", "drive", { x: 21, y: 0, size: [23, 10.5], psi: 14, least: 10, most: 22, isDriven: true }),
      ...axle("steer", "steering", { x: 17, y: -48, size: [16, 6.5], psi: 16, least: 12, most: 28 }),
    ],
    frame: weight(1480, -14),
    deck: {
      mount: "self-carried",
      hangers: [],
      outline: outline([-31, 24], [-31, 38], [-22, 44], [-9, 50.6], [9, 50.6], [22, 44], [31, 38], [31, 24], [20, 20.5], [-20, 20.5]),
    },
    spindles: [
      spindle("left", "Left blade", [-19.8, 32], 21),
      spindle("middle", "Middle blade", [0, 39.8], 21),
      spindle("right", "Right blade", [19.8, 32], 21),
    ],
    sheet: {
      drive: { engineRevolutionsPerMinute: 3000 },
      belt: belt(
        111.8,
        ["drive", "Gearbox pulley", [0, 24], 6.2],
        ["right-idler", "Right idler", [5.5, 28], 3.2, "back"],
        ["right", "Right pulley", [19.8, 32], 5.55],
        ["middle", "Middle pulley", [0, 39.8], 5.55],
        ["left", "Left pulley", [-19.8, 32], 5.55],
        ["left-idler", "Left idler", [-5.5, 28], 3.2, "back"],
      ),
      grease: { school: "leave-sealed" },
      heightLeastMetres: inch(1),
      heightMostMetres: inch(4),
      rakeTargetMetres: inch(-0.125),
      passOverlapMetres: inch(3),
      bladeBoltTorqueNewtonMetres: footPounds(80),
      blade: blade({
        length: 21,
        lift: "mulching",
        hole: { shape: "two-pins", acrossMetres: inch(0.625), secondMetres: inch(1.7) },
        bolt: { diameter: 0.625, head: 0.9375 },
        stack: [...PLAIN_STACK],
        turns: 3350,
        pounds: 2.9,
        price: 31,
      }),
      notes: "Mulching deck, carried on its own four wheels.",
    },
  };
}

function gearedRider(): MachineInput {
  return {
    kind: "geared-rider",
    wheels: [
      ...axle("rear", "rear", { x: 24, y: 0, size: [26, 12], psi: 14, least: 10, most: 22, isDriven: true }),
      ...axle("front", "front", { x: 20, y: 58, size: [18, 8.5], psi: 18, least: 12, most: 28 }),
    ],
    pivotedAxles: [{ axle: "front", ...at(0, 58) }],
    frame: weight(2100, 20),
    deck: {
      mount: "frame-hung",
      hangers: fourHangers(28, 40, 16, 1 / 12),
      outline: outline([-36, 17], [-36, 39], [36, 39], [36, 17]),
      antiScalpWheels: rimWheels(33, 40, 16),
    },
    spindles: [
      spindle("left", "Left blade", [-24, 28], 24.8),
      spindle("middle", "Middle blade", [0, 28], 24.8),
      spindle("right", "Right blade", [24, 28], 24.8),
    ],
    sheet: {
      drive: { engineRevolutionsPerMinute: 2000, toothRatio: 1.4, usualDroop: 0.06 },
      gearboxes: (["left", "middle", "right"] as const).map((side, k) => ({
        id: `${side}-box`,
        label: ["Left gearbox", "Middle gearbox", "Right gearbox"][k] ?? "Gearbox",
        ...at([-24, 0, 24][k] ?? 0, 28),
        oil: "80W-90",
        coverToOilMetres: inch(2.25),
        splineTeeth: 12,
        isConnected: true,
      })),
      grease: { school: "leave-sealed" },
      heightLeastMetres: inch(1.5),
      heightMostMetres: inch(5),
      rakeTargetMetres: inch(-0.25),
      passOverlapMetres: inch(4),
      bladeBoltTorqueNewtonMetres: footPounds(110),
      blade: blade({
        length: 24.8,
        hole: { shape: "spline", acrossMetres: inch(1) },
        bolt: { diameter: 0.625, head: 0.9375, grade: "iso-10-9" },
        stack: ["bolt", "cupped-washer-hollow-up", "blade", "anti-rotation-plate", "collar"],
        turns: 2800,
        pounds: 4.1,
        price: 38,
      }),
    },
  };
}

function walkBehind(kind: "walk-petrol" | "walk-cordless", tipped: "on-its-side" | "on-end" = "on-its-side"): MachineInput {
  return {
    kind,
    wheels: [...axle("rear", "rear", { x: 9.5, y: -11, size: [9, 2] }), ...axle("front", "front", { x: 9.5, y: 13, size: [8, 2] })],
    deck: {
      mount: "fixed",
      hangers: [],
      outline: outline([-11, -9], [-11, 6], [-6, 11], [6, 11], [11, 6], [11, -9]),
    },
    spindles: [spindle("blade", "Blade", [0, 0], kind === "walk-petrol" ? 20.5 : 20)],
    sheet: {
      drive: { engineRevolutionsPerMinute: kind === "walk-petrol" ? 3000 : 3200, usualDroop: kind === "walk-petrol" ? 0.08 : 0.1 },
      ...(kind === "walk-petrol" ? {} : { grease: { school: "leave-sealed" as const } }),
      heightLeastMetres: inch(1),
      heightMostMetres: inch(3.75),
      bladeBoltTorqueNewtonMetres: footPounds(kind === "walk-petrol" ? 38 : 28),
      blade: blade(
        kind === "walk-petrol"
          ? {
              length: 20.5,
              hole: { shape: "two-flats", acrossMetres: inch(0.875), secondMetres: inch(0.66) },
              bolt: { diameter: 0.375, head: 0.625 },
              stack: ["bolt", "cupped-washer-hollow-up", "blade", "collar"],
              turns: 3000,
              pounds: 1.9,
              price: 17,
            }
          : {
              length: 20,
              lift: "high",
              hole: star(7, 0.7),
              bolt: { diameter: 0.375, head: 0.59, grade: "iso-10-9", thread: "left" },
              stack: ["bolt", "flat-washer", "blade", "anti-rotation-plate"],
              turns: 3200,
              pounds: 1.2,
              price: 21,
            },
      ),
      ...(kind === "walk-cordless" ? { capacitorWaitSeconds: 60 } : {}),
      ...(kind === "walk-petrol" && tipped === "on-its-side" ? { tipSide: "Left side down, filter and carburettor up" } : {}),
      ...(tipped === "on-end" ? { standsOnEnd: true } : {}),
    },
  };
}

const unit = (id: string, label: string, x: number, y: number, width: number) => ({ id, label, ...at(x, y), widthMetres: inch(width) });

type UnitSheetInput = NonNullable<NonNullable<MachineInput["sheet"]>["unit"]>;

const side = (y: number, z: number) => ({ yMetres: inch(y), zMetres: inch(z) });
const roller = (y: number, z: number, radius: number) => ({ ...side(y, z), radiusMetres: inch(radius) });
const travel = (least: number, most: number) => ({ leastZMetres: inch(least), mostZMetres: inch(most) });
const degrees = (value: number) => (value * Math.PI) / 180;

/** Bracket holes by height, each height of cut twice: without a groomer, and one hole on with it. */
const brackets = (heights: readonly (readonly [number, number])[]): NonNullable<UnitSheetInput["brackets"]> =>
  heights.flatMap(([from, to], k) =>
    [false, true].map((withGroomer) => ({
      withGroomer,
      fromHeightMetres: inch(from),
      toHeightMetres: inch(to),
      number: k + (withGroomer ? 2 : 1),
      facing: k < 2 ? ("rearward" as const) : ("forward" as const),
    })),
  );

/** A fairway unit: eleven blades, its edge half an inch over a level ground line. */
const FAIRWAY_UNIT: UnitSheetInput = {
  reel: { newDiameterMetres: inch(5), scrapDiameterMetres: inch(4.5), blades: 11 },
  bedknife: {
    type: "Fairway",
    thicknessMetres: inch(0.14),
    leastThicknessMetres: inch(0.09),
    depthMetres: inch(0.32),
    leastDepthMetres: inch(0.2),
    hoursBetweenGrinds: 120,
    fromHeightMetres: inch(0.35),
    toHeightMetres: inch(0.8),
  },
  sideView: {
    front: roller(4.4, 1.25, 1.25),
    rear: roller(-3.6, 1, 1),
    edge: side(0.35, 0.5),
    reel: side(0.6, 2.987),
    heel: side(-0.9, 0.42),
    toe: side(0.33, 0.36),
    faceRadians: degrees(4),
  },
  frontRoller: { kind: "grooved", hasSolidEnds: true },
  rearRoller: { kind: "smooth", hasSolidEnds: true },
  attitude: { leastRadians: degrees(2), mostRadians: degrees(6) },
  groomer: "groomer",
  hasScraper: true,
  school: "light-contact",
  brackets: brackets([
    [0.25, 0.4],
    [0.4, 0.6],
    [0.6, 1.2],
  ]),
  adjusters: {
    squareThrowMetres: 0.001,
    heightThrowMetres: 0.00125,
    knifeThrowMetres: 0.0005,
    heightEnd: "rear",
    heightTravel: travel(0.6, 1.3),
  },
};

/** An outfield unit: a larger reel of eight blades, set without contact. */
const OUTFIELD_UNIT: UnitSheetInput = {
  ...FAIRWAY_UNIT,
  reel: { newDiameterMetres: inch(7), scrapDiameterMetres: inch(6.3), blades: 8 },
  bedknife: {
    type: "High cut",
    thicknessMetres: inch(0.2),
    leastThicknessMetres: inch(0.12),
    depthMetres: inch(0.36),
    leastDepthMetres: inch(0.22),
    hoursBetweenGrinds: 150,
    fromHeightMetres: inch(0.5),
    toHeightMetres: inch(1.2),
  },
  sideView: {
    front: roller(5.4, 1.5, 1.5),
    rear: roller(-4.4, 1.25, 1.25),
    edge: side(0.45, 0.625),
    reel: side(0.8, 4.107),
    heel: side(-1, 0.5),
    toe: side(0.42, 0.425),
    faceRadians: degrees(5),
  },
  groomer: "brush",
  school: "no-contact",
  adjusters: {
    squareThrowMetres: 0.001,
    heightThrowMetres: 0.00125,
    knifeThrowMetres: 0.0005,
    heightEnd: "rear",
    heightTravel: travel(0.6, 1.6),
  },
};

/** A greens unit: fourteen blades and a thin knife at 4 mm. */
const GREENS_UNIT: UnitSheetInput = {
  reel: { newDiameterMetres: inch(5), scrapDiameterMetres: inch(4.6), blades: 14 },
  bedknife: {
    type: "Thin, greens",
    thicknessMetres: inch(0.08),
    leastThicknessMetres: inch(0.055),
    depthMetres: inch(0.25),
    leastDepthMetres: inch(0.17),
    hoursBetweenGrinds: 40,
    fromHeightMetres: inch(0.1),
    toHeightMetres: inch(0.25),
  },
  sideView: {
    front: roller(3.9, 1, 1),
    rear: roller(-3.2, 0.9, 0.9),
    edge: side(0.3, 0.156),
    reel: side(0.5, 2.648),
    heel: side(-0.8, 0.11),
    toe: side(0.28, 0.076),
    faceRadians: degrees(3),
  },
  frontRoller: { kind: "grooved", hasSolidEnds: false },
  rearRoller: { kind: "smooth", hasSolidEnds: true },
  attitude: { leastRadians: degrees(1), mostRadians: degrees(5) },
  groomer: "none",
  hasScraper: false,
  school: "firm-contact",
  brackets: brackets([[0.08, 0.3]]),
  adjusters: {
    squareThrowMetres: 0.0008,
    heightThrowMetres: 0.001,
    knifeThrowMetres: 0.0004,
    heightEnd: "rear",
    heightTravel: travel(0.7, 1.02),
  },
};

function reelRideOn(units: 3 | 5): MachineInput {
  const width = units === 3 ? 26 : 22;
  const pitch = width - 2.4;
  const forward = units === 3 ? [-1, 1] : [-2, 0, 2];
  const behind = units === 3 ? [0] : [-1, 1];
  const name = (place: number) => ["Far left", "Left", "Middle", "Right", "Far right"][place + 2] ?? "Unit";
  const row = (places: readonly number[], y: number) =>
    places.map((place) => unit(name(place).toLowerCase().replace(" ", "-"), `${name(place)} unit`, place * pitch, y, width));
  return {
    kind: "reel-ride-on",
    features: ["air-tyres", "several-units", "combustion", "groomer"],
    wheels: [
      ...axle("front", "front", { x: 25, y: 0, size: [20, 12], psi: 10, least: 8, most: 18, isDriven: true }),
      ...axle("rear", "rear", { x: 17, y: -55, size: [18, 9.5], psi: 12, least: 9, most: 20 }),
    ],
    frame: weight(2300, -20),
    spindles: [],
    units: [...row(forward, 20), ...row(behind, -24)],
    sheet: {
      heightLeastMetres: 0.006,
      heightMostMetres: 0.03,
      unit: units === 3 ? FAIRWAY_UNIT : OUTFIELD_UNIT,
      reelDrive: { revolutionsPerMinute: units === 3 ? 1400 : 1200, isGroundDriven: false, fallsWithEngine: "reel-and-travel" },
      notes: "Units set on the bench to one height.",
    },
  };
}

function reelWalking(): MachineInput {
  return {
    kind: "reel-walking",
    wheels: axle("drum", "drum half", { x: 5.5, y: -12, size: [7.5, 9] }),
    spindles: [],
    units: [unit("unit", "Unit", 0, 0, 21)],
    sheet: {
      heightLeastMetres: 0.0025,
      heightMostMetres: 0.012,
      unit: GREENS_UNIT,
      reelDrive: { revolutionsPerMinute: 900, isGroundDriven: true },
    },
  };
}

export const FLEET: readonly FleetMachine[] = [
  { fleetNumber: "ZT-1", name: "Zero-turn, three blades", site: "Airfield verges", hours: 1240, machine: threeBladeZeroTurn() },
  { fleetNumber: "ZT-2", name: "Zero-turn, two blades", site: "North cemetery", hours: 866, machine: twoBladeZeroTurn() },
  { fleetNumber: "ZT-3", name: "Zero-turn, three blades", site: "Festival meadow", hours: 402, machine: threeBladeZeroTurn() },
  { fleetNumber: "FD-1", name: "Front-deck rider, mulching", site: "Hospital campus", hours: 1510, machine: frontDeckRider() },
  { fleetNumber: "GR-1", name: "Geared rider, 1.8 m", site: "Airfield", hours: 2030, machine: gearedRider() },
  { fleetNumber: "BD-1", name: "Tractor, belly deck", site: "South cemetery", hours: 733, machine: bellyDeckTractor() },
  { fleetNumber: "BD-2", name: "Tractor, belly deck", site: "Hospital campus", hours: 951, machine: bellyDeckTractor() },
  { fleetNumber: "WP-1", name: "Walk-behind, petrol", site: "North cemetery", hours: 288, machine: walkBehind("walk-petrol") },
  { fleetNumber: "WP-2", name: "Walk-behind, petrol", site: "South cemetery", hours: 344, machine: walkBehind("walk-petrol", "on-end") },
  { fleetNumber: "WC-1", name: "Walk-behind, cordless", site: "Hospital courtyards", hours: 121, machine: walkBehind("walk-cordless") },
  { fleetNumber: "RT-1", name: "Reel triplex", site: "Cricket square", hours: 1675, machine: reelRideOn(3) },
  { fleetNumber: "RT-2", name: "Reel triplex", site: "Airfield terminal lawns", hours: 1432, machine: reelRideOn(3) },
  { fleetNumber: "RF-1", name: "Reel mower, five units", site: "Cricket outfields", hours: 2210, machine: reelRideOn(5) },
  { fleetNumber: "RW-1", name: "Greens reel mower, walking", site: "Bowls green", hours: 510, machine: reelWalking() },
];
