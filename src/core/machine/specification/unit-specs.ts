import { CONTACT_SCHOOLS } from "@/core/catalogue";
import { FACINGS, ROLLER_KINDS } from "@/core/machine";
import { angle, choice, type FieldSpec, fine, flag, length, number, text, turns } from "./spec";

const side = (part: "front" | "rear" | "edge" | "reel" | "heel" | "toe", label: string): FieldSpec[] =>
  (["yMetres", "zMetres"] as const).map((axis) =>
    fine(`sideView.${part}.${axis}`, `${label}, ${axis === "yMetres" ? "forward" : "up"}`, -0.6, 0.6),
  );
const roller = (part: "frontRoller" | "rearRoller", label: string): FieldSpec[] => [
  choice(`${part}.kind`, label, ROLLER_KINDS),
  flag(`${part}.hasSolidEnds`, `${label}: solid to its ends`),
  length(`${part}.widthMetres`, `${label}: its face, where it is not the unit's width`, { least: 0.1, most: 2 }),
];

/** What a unit has to be, by the part a unit of its own is told in: told at all, it is told whole. */
export const UNIT_PARTS = {
  reel: [
    number("reel.blades", "Blades of a reel", { least: 3, most: 20, isWhole: true }),
    fine("reel.newDiameterMetres", "Reel's diameter, new", 0.05, 0.4),
    fine("reel.scrapDiameterMetres", "Reel is scrap under", 0.05, 0.4),
  ],
  bedknife: [
    text("bedknife.type", "Bedknife", 40),
    fine("bedknife.thicknessMetres", "Knife's lip, new", 0.0005, 0.03),
    fine("bedknife.leastThicknessMetres", "Knife's lip, least", 0.0003, 0.03),
    fine("bedknife.depthMetres", "Knife's stock, front to back, new", 0.001, 0.1),
    fine("bedknife.leastDepthMetres", "Knife's stock, front to back, least", 0.001, 0.1),
    fine("bedknife.fromHeightMetres", "Knife made for heights from", 0.001, 0.2),
    fine("bedknife.toHeightMetres", "Knife made for heights to", 0.001, 0.2),
    number("bedknife.hoursBetweenGrinds", "Hours between grinds", { least: 1, most: 2000, unit: "h" }),
  ],
  frontRoller: roller("frontRoller", "Front roller"),
  rearRoller: roller("rearRoller", "Rear roller"),
  groomer: [choice("groomer", "Groomer or brush", ["none", "groomer", "brush"])],
  hasScraper: [flag("hasScraper", "Scraper on the roller")],
  school: [choice("school", "Reel to bedknife", CONTACT_SCHOOLS)],
  attitude: [
    angle("attitude.leastRadians", "Attitude, least, front edge lower is plus"),
    angle("attitude.mostRadians", "Attitude, most, front edge lower is plus"),
  ],
  adjusters: [
    fine("adjusters.knifeThrowMetres", "Knife screw, a turn moves", 0.00005, 0.02),
    fine("adjusters.heightThrowMetres", "Height screw, a turn moves", 0.00005, 0.02),
    choice("adjusters.heightEnd", "Height screws move the roller at the", ["front", "rear"]),
    fine("adjusters.heightTravel.leastZMetres", "That roller's middle, lowest, in the side view", -0.6, 0.6),
    fine("adjusters.heightTravel.mostZMetres", "That roller's middle, highest, in the side view", -0.6, 0.6),
    fine("adjusters.squareThrowMetres", "Squaring adjuster, a turn moves", 0.00005, 0.02),
  ],
  /** Any origin fixed to the unit, forward and up: all of rollers and edge, or nothing. */
  sideView: [
    ...side("front", "Front roller"),
    fine("sideView.front.radiusMetres", "Front roller's radius", 0.005, 0.2),
    ...side("rear", "Rear roller"),
    fine("sideView.rear.radiusMetres", "Rear roller's radius", 0.005, 0.2),
    ...side("edge", "Knife's edge"),
    ...side("reel", "Reel's middle"),
    ...side("heel", "Heel"),
    ...side("toe", "Toe"),
    angle("sideView.faceRadians", "Knife's top face, front edge lower is plus"),
  ],
  brackets: [
    {
      kind: "table",
      path: ["brackets"],
      label: "Front roller's bracket by height",
      table: "brackets",
      row: "row",
      most: 40,
      columns: [
        { ...fine("fromHeightMetres", "From a height of", 0, 0.2), isNeeded: true },
        { ...fine("toHeightMetres", "Up to", 0.0001, 0.2), isNeeded: true },
        { ...number("number", "Hole", { least: 1, most: 20, isWhole: true }), isNeeded: true },
        { ...choice("facing", "Bracket faces", FACINGS), isNeeded: true },
        flag("withGroomer", "With a groomer"),
      ],
    },
  ],
} as const satisfies Record<string, readonly FieldSpec[]>;
export type UnitPart = keyof typeof UNIT_PARTS;
export const UNIT_PART_IDS = Object.keys(UNIT_PARTS) as UnitPart[];

const REEL_DRIVE: readonly FieldSpec[] = [
  turns("sheet.reelDrive.revolutionsPerMinute", "Reel's speed"),
  flag("sheet.reelDrive.isGroundDriven", "Reels driven by the ground"),
  choice("sheet.reelDrive.fallsWithEngine", "Falls with the engine", ["reel", "reel-and-travel", "nothing"]),
];

const within = (path: readonly string[], spec: FieldSpec): FieldSpec => ({ ...spec, path: [...path, ...spec.path] });
const ofEvery = (parts: readonly UnitPart[]) => parts.flatMap((part) => UNIT_PARTS[part].map((spec) => within(["sheet", "unit"], spec)));

/** What every unit of the machine has to be. */
export const EVERY_UNIT: readonly FieldSpec[] = [
  ...ofEvery(UNIT_PART_IDS.filter((part) => part !== "sideView" && part !== "brackets")),
  ...REEL_DRIVE,
];
export const SIDE_VIEW = ofEvery(["sideView"]);
export const BRACKETS = ofEvery(["brackets"]);
/** The same of one unit, in place of what is said of all. */
export const OWN_OF_UNIT: readonly { part: UnitPart; spec: FieldSpec }[] = UNIT_PART_IDS.flatMap((part) =>
  UNIT_PARTS[part].map((spec) => ({ part, spec: within(["own"], spec) })),
);
