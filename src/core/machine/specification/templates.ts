import { convexHull, type Point } from "@/core/basics/geometry";
import { INCH_METRES } from "@/core/basics/units";
import { type KindId, kindById } from "@/core/catalogue/kinds";
import type { Machine, MachineInput } from "@/core/machine";
import { machineSchema } from "@/core/machine";

/** What a template is made to: how wide it cuts and with how many. `unitWidthMetres` is of one reel unit, and wins over the width of cut. */
export type TemplateWish = { kind: KindId; cutters: number; widthMetres: number };

export type TemplateRange = { cutters: readonly number[]; usual: TemplateWish; leastWidthMetres: number; mostWidthMetres: number };

const inch = (value: number) => Math.round(value * INCH_METRES * 1e5) / 1e5;
const rounded = (metres: number) => Math.round(metres * 1e4) / 1e4;

/** What each kind comes with, and how many of it there may be; common practice. */
export const TEMPLATES: Readonly<Record<KindId, TemplateRange>> = {
  "zero-turn": range("zero-turn", [2, 3], 3, 52, 30, 80),
  "front-deck": range("front-deck", [2, 3, 5], 3, 60, 36, 130),
  "belly-deck": range("belly-deck", [2, 3], 2, 48, 30, 76),
  "geared-rider": range("geared-rider", [2, 3], 3, 72, 40, 90),
  "walk-petrol": range("walk-petrol", [1], 1, 21, 14, 34),
  "walk-cordless": range("walk-cordless", [1], 1, 20, 12, 30),
  "reel-ride-on": range("reel-ride-on", [3, 5, 7], 3, 72, 40, 200),
  "reel-walking": range("reel-walking", [1], 1, 21, 14, 36),
};

function range(kind: KindId, cutters: readonly number[], usual: number, width: number, least: number, most: number): TemplateRange {
  return {
    cutters,
    usual: { kind, cutters: usual, widthMetres: inch(width) },
    leastWidthMetres: inch(least),
    mostWidthMetres: inch(most),
  };
}

/** Across, neighbouring circles share this much. Common practice. */
const OVERLAP_METRES = inch(0.8);
/** Geared blades, timed, share more. Common practice. */
const GEARED_OVERLAP_METRES = inch(1.2);
/** Between tips of blades that are free to take any position. Estimate. */
const CLEAR_METRES = inch(0.45);
/** From the outermost tip to the shell. Estimate. */
const SHELL_METRES = inch(1);
/** Neighbouring units share this much. Common practice. */
const UNIT_OVERLAP_METRES = inch(2.4);

const NAMES: Readonly<Record<number, readonly string[]>> = {
  1: [""],
  2: ["left", "right"],
  3: ["left", "middle", "right"],
  5: ["far-left", "left", "middle", "right", "far-right"],
  7: ["outer-left", "far-left", "left", "middle", "right", "far-right", "outer-right"],
};

const titled = (id: string) => {
  const words = id.replaceAll("-", " ");
  return words.charAt(0).toUpperCase() + words.slice(1);
};
const at = (xMetres: number, yMetres: number) => ({ xMetres: rounded(xMetres), yMetres: rounded(yMetres) });

/** One circle's diameter, so that so many of them that share so much cut that wide. */
export function tipCircleFor({ cutters, widthMetres }: TemplateWish, overlapMetres: number): number {
  return (widthMetres + (cutters - 1) * overlapMetres) / cutters;
}

/** Blades side by side: geared in one row, free ones set forward in turns until no two circles meet. */
function bladesOf(wish: TemplateWish, middleY: number): { spindles: Machine["spindles"]; depthMetres: number } {
  const isGeared = wish.kind === "geared-rider";
  const overlap = isGeared ? GEARED_OVERLAP_METRES : OVERLAP_METRES;
  const circle = rounded(tipCircleFor(wish, overlap));
  const across = circle - overlap;
  const forward = isGeared || wish.cutters === 1 ? 0 : Math.sqrt(Math.max(0, (circle + CLEAR_METRES) ** 2 - across ** 2));
  const names = NAMES[wish.cutters] ?? [];
  const spindles = names.map((name, k) => ({
    id: name || "blade",
    label: name ? `${titled(name)} blade` : "Blade",
    ...at((k - (names.length - 1) / 2) * across, middleY + (k % 2 === 1 ? forward / 2 : -forward / 2)),
    tipCircleDiameterMetres: circle,
    turns: "clockwise" as const,
  }));
  return { spindles, depthMetres: forward + circle };
}

const CORNERS = 12;
/** Corners of a shell around the circles, metres. */
export function outlineAround(spindles: Machine["spindles"]): { xMetres: number; yMetres: number }[] {
  const points = spindles.flatMap(({ xMetres, yMetres, tipCircleDiameterMetres }): Point[] =>
    Array.from({ length: CORNERS }, (_, k) => {
      const angle = ((k + 0.5) / CORNERS) * 2 * Math.PI;
      const reach = (tipCircleDiameterMetres / 2 + SHELL_METRES) / Math.cos(Math.PI / CORNERS);
      return { x: xMetres + reach * Math.cos(angle), y: yMetres + reach * Math.sin(angle) };
    }),
  );
  return convexHull(points).map(({ x, y }) => at(x, y));
}

type AxleArgs = { name: string; x: number; y: number; diameter: number; width: number; isAir: boolean; isDriven?: boolean };

function axle({ name, x, y, diameter, width, isAir, isDriven = false }: AxleArgs): Machine["wheels"] {
  return (["left", "right"] as const).map((side) => ({
    id: `${side}-${name}`,
    label: `${titled(side)} ${name}`,
    ...at(side === "left" ? -x : x, y),
    axle: name,
    isDriven,
    isPneumatic: isAir,
    diameterMetres: inch(diameter),
    treadWidthMetres: inch(width),
    ...(isAir ? { sectionHeightMetres: inch(diameter / 5) } : {}),
  }));
}

/** No lift per turn: that is the machine's own, and until it is told the deck is set in lengths. */
const hanger = (id: string, x: number, y: number) => ({
  id,
  label: titled(id),
  ...at(x, y),
  step: "quarter" as const,
  turnsLeftUp: 10,
  turnsLeftDown: 10,
});

const corners = (x: number, front: number, rear: number) => [
  hanger("left-front", -x, front),
  hanger("right-front", x, front),
  hanger("left-rear", -x, rear),
  hanger("right-rear", x, rear),
];

const rimWheel = (id: string, x: number, y: number) => ({ id: `rim-${id}`, label: `${titled(id)} rim wheel`, ...at(x, y) });

/** From the fixed axle's wheels to the shell, and from the shell to whatever stands before it. Estimate. */
const CLEARANCE_METRES = inch(2);
const DRIVE = { diameter: 22, width: 10 } as const;
const STEERED = { diameter: 14, width: 6 } as const;

/** Where a deck's middle is from the fixed axle, and what the machine stands on; riders scale with their width of cut. */
function riderOf(
  { kind, widthMetres }: TemplateWish,
  deckDepth: number,
): { middleY: number; wheels: Machine["wheels"]; isPivoted: boolean } {
  const half = widthMetres / 2;
  const middleY = inch(DRIVE.diameter / 2) + CLEARANCE_METRES + deckDepth / 2;
  const isAhead = kind === "front-deck";
  const steeredY = isAhead ? -inch(46) : middleY + deckDepth / 2 + CLEARANCE_METRES + inch(STEERED.diameter / 2);
  const [fixed, steered] = { "zero-turn": ["drive", "caster"], "front-deck": ["drive", "rear"] }[kind as "zero-turn" | "front-deck"] ?? [
    "rear",
    "front",
  ];
  return {
    middleY,
    wheels: [
      ...axle({ name: fixed ?? "", x: Math.max(inch(16), half * 0.76), y: 0, ...DRIVE, isAir: true, isDriven: true }),
      ...axle({ name: steered ?? "", x: Math.max(inch(12), half * 0.6), y: steeredY, ...STEERED, isAir: true }),
    ],
    isPivoted: kind !== "zero-turn",
  };
}

function riderTemplate(wish: TemplateWish): MachineInput {
  const { depthMetres } = bladesOf(wish, 0);
  const { middleY, wheels, isPivoted } = riderOf(wish, depthMetres + 2 * SHELL_METRES);
  const { spindles } = bladesOf(wish, middleY);
  const outer = spindles[0] as Machine["spindles"][number];
  const [x, reach] = [Math.abs(outer.xMetres), outer.tipCircleDiameterMetres / 2];
  const steered = wheels[2];
  return {
    kind: wish.kind,
    wheels,
    ...(isPivoted && steered ? { pivotedAxles: [{ axle: steered.axle, xMetres: 0, yMetres: steered.yMetres }] } : {}),
    deck: {
      mount: "frame-hung",
      outline: outlineAround(spindles),
      hangers: corners(x, outer.yMetres + reach * 0.6, outer.yMetres - reach * 0.6),
      antiScalpWheels: [
        rimWheel("left-front", -x, outer.yMetres + reach),
        rimWheel("right-front", x, outer.yMetres + reach),
        rimWheel("left-rear", -x, outer.yMetres - reach),
        rimWheel("right-rear", x, outer.yMetres - reach),
      ],
    },
    spindles,
    sheet: wish.kind === "geared-rider" ? { gearboxes: spindles.map(boxOver) } : {},
  } as MachineInput;
}

/** A gearbox stands over each geared blade. */
const boxOver = ({ id, label, xMetres, yMetres }: Machine["spindles"][number]) => ({
  id: `${id}-box`,
  label: label.replace(/blade$/i, "gearbox"),
  xMetres,
  yMetres,
});

function walkTemplate(wish: TemplateWish): MachineInput {
  const { spindles } = bladesOf(wish, 0);
  const half = wish.widthMetres / 2;
  return {
    kind: wish.kind,
    wheels: [
      ...axle({ name: "rear", x: half * 0.92, y: -half - inch(1), diameter: 9, width: 2, isAir: false }),
      ...axle({ name: "front", x: half * 0.92, y: half + inch(2.5), diameter: 8, width: 2, isAir: false }),
    ],
    deck: { mount: "fixed", hangers: [], outline: outlineAround(spindles) },
    spindles,
    sheet: {},
  } as MachineInput;
}

/** Units in two rows, the outermost forward, so that each overlaps its neighbour. */
function unitsOf({ cutters, widthMetres }: TemplateWish): Machine["units"] {
  const width = rounded((widthMetres + (cutters - 1) * UNIT_OVERLAP_METRES) / cutters);
  const names = NAMES[cutters] ?? [];
  return names.map((name, k) => ({
    id: name || "unit",
    label: name ? `${titled(name)} unit` : "Unit",
    ...at((k - (names.length - 1) / 2) * (width - UNIT_OVERLAP_METRES), names.length === 1 ? 0 : k % 2 === 0 ? inch(20) : -inch(24)),
    widthMetres: width,
  }));
}

function reelTemplate(wish: TemplateWish): MachineInput {
  const wheels =
    wish.kind === "reel-walking"
      ? axle({ name: "drum", x: wish.widthMetres * 0.26, y: -inch(12), diameter: 7.5, width: 9, isAir: false })
      : [
          ...axle({
            name: "front",
            x: Math.min(inch(28), wish.widthMetres * 0.35),
            y: 0,
            diameter: 20,
            width: 12,
            isAir: true,
            isDriven: true,
          }),
          ...axle({ name: "rear", x: inch(17), y: -inch(55), diameter: 18, width: 9.5, isAir: true }),
        ];
  return { kind: wish.kind, wheels, units: unitsOf(wish), sheet: {} } as MachineInput;
}

/**
 * A machine of a kind as wide as wished with so many blades or units: sensible geometry in the usual proportions (estimate), metres, and nothing on
 * its sheet that only its own manual can say. Throws on a number of cutters the kind does not come with: a programmer's mistake.
 */
export function templateMachine(wish: TemplateWish): Machine {
  const { cutters } = TEMPLATES[wish.kind];
  if (!cutters.includes(wish.cutters)) throw new Error(`no ${wish.kind} with ${wish.cutters}`);
  const kind = kindById(wish.kind);
  const input = kind.cutsWith === "reel" ? reelTemplate(wish) : kind.isRider ? riderTemplate(wish) : walkTemplate(wish);
  return machineSchema.parse(input);
}
