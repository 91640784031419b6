import { BENCH_ORDER } from "@/core/job/bench";
import type { Ground } from "@/core/physics/reel";
import type { Story } from "@/stories/story";

const counted = (inFeeds: number, passes: number) => ({ plannedMetres: 0.00025, inFeeds, inFeedMetres: 0.00005, passes });

/** Off the top so many in-feeds with two passes each, off the front so many with one. */
export const knife = (top: number, front: number): Ground => ({
  isClamped: true,
  top: counted(top, 2 * top),
  front: counted(front, front),
});
const withReel = (inFeeds: number): Ground => ({ ...knife(4, 3), reel: { ...counted(inFeeds, inFeeds + 2), isRelieved: false } });

type Sheet = Omit<Extract<Story["fault"], { kind: "sheet" }>, "kind">;

const told = (story: Omit<Story, "fault"> & { fault: Sheet }): Story => ({ ...story, fault: { kind: "sheet", ...story.fault } });

const nicked = (unit: string, ground: Ground): Sheet => ({
  check: "reel-edge",
  state: "locked-out",
  spoils: { [`units.${unit}.nick`]: "knife" },
  cause: "edge-nicked",
  fix: "grind-bedknife",
  fixState: "bench",
  units: [unit],
  ground,
});

const dull = (unit: string, ground: Ground): Sheet => ({
  check: "reel-edge",
  state: "locked-out",
  spoils: { [`units.${unit}.reel`]: "rounded" },
  cause: "reel-dull",
  fix: "grind-reel",
  fixState: "bench",
  units: [unit],
  ground,
});

const packed = (unit: string): Sheet => ({
  check: "roller-clean",
  state: "locked-out",
  spoils: {
    [`units.${unit}.frontState`]: "lumpy",
    [`units.${unit}.frontLeftMetres`]: 0.002,
    [`units.${unit}.frontMiddleMetres`]: 0.0005,
    [`units.${unit}.frontRightMetres`]: 0.0015,
  },
  cause: "roller-packed",
  fix: "clean-rollers",
  fixState: "raised",
  units: [unit],
});

const loose = (unit: string): Sheet => ({
  check: "reel-contact",
  state: "locked-out",
  spoils: Object.fromEntries(["left", "middle", "right"].map((along) => [`units.${unit}.worst.${along}`, "passes"])),
  cause: "contact-loose",
  fix: "set-contact",
  fixState: "bench",
  units: [unit],
});

/** Two winters and the season between of the reel machines: what was ground and set, and what the turf made of the bench each time. */
export const REEL_STORIES: readonly Story[] = [
  told({
    fleetNumber: "RF-1",
    daysAgo: 540,
    words: "leaves stand behind the left unit",
    saidBy: "LN",
    place: "First outfield",
    symptoms: ["stragglers"],
    fault: { ...loose("left"), also: BENCH_ORDER.filter((check) => check !== "reel-speed") },
  }),
  told({
    fleetNumber: "RT-1",
    daysAgo: 528,
    words: "hops along as on cobbles, after a week of rain",
    saidBy: "HW",
    place: "Square, north end",
    symptoms: ["irregular-hop"],
    contexts: ["wet-or-tall"],
    fault: packed("left"),
  }),
  told({
    fleetNumber: "RW-1",
    daysAgo: 516,
    words: "does not cut clean any more",
    saidBy: "HW",
    place: "Bowls green",
    symptoms: ["torn-tips", "stragglers"],
    fault: dull("unit", withReel(6)),
  }),
  told({
    fleetNumber: "RT-2",
    daysAgo: 505,
    words: "line on every pass, right side",
    saidBy: "TV",
    place: "Terminal lawn",
    symptoms: ["fine-streak"],
    fault: nicked("right", knife(5, 4)),
  }),
  told({
    fleetNumber: "RT-1",
    daysAgo: 441,
    words: "a pencil line left of the middle",
    saidBy: "HW",
    place: "Square, north end",
    symptoms: ["fine-streak"],
    contexts: ["top-dressed"],
    fault: nicked("left", knife(6, 5)),
  }),
  told({
    fleetNumber: "RW-1",
    daysAgo: 402,
    words: "skips, and stands too high by the end of the green",
    saidBy: "HW",
    place: "Bowls green",
    symptoms: ["irregular-hop", "cut-too-high"],
    contexts: ["mown-in-dew"],
    fault: packed("unit"),
  }),
  told({
    fleetNumber: "RF-1",
    daysAgo: 377,
    words: "thin line from the far right unit",
    saidBy: "LN",
    place: "First outfield",
    symptoms: ["fine-streak"],
    fault: nicked("far-right", knife(4, 6)),
  }),
  told({
    fleetNumber: "RT-1",
    daysAgo: 352,
    words: "tips torn behind the right unit",
    saidBy: "HW",
    place: "Square, north end",
    symptoms: ["torn-tips"],
    fault: dull("right", withReel(7)),
  }),
  told({
    fleetNumber: "RT-2",
    daysAgo: 331,
    words: "single leaves left behind the left unit",
    saidBy: "TV",
    place: "Terminal lawn",
    symptoms: ["stragglers"],
    fault: loose("left"),
  }),
  told({
    fleetNumber: "RW-1",
    daysAgo: 288,
    words: "a line on the green again",
    saidBy: "HW",
    place: "Bowls green",
    symptoms: ["fine-streak"],
    contexts: ["top-dressed"],
    fault: nicked("unit", knife(3, 3)),
  }),
  told({
    fleetNumber: "RT-1",
    daysAgo: 262,
    words: "leaves stand on the middle strip",
    saidBy: "HW",
    place: "Square, north end",
    symptoms: ["stragglers"],
    fault: loose("middle"),
  }),
  told({
    fleetNumber: "RT-2",
    daysAgo: 221,
    words: "line drawn by the middle unit since the sanding",
    saidBy: "TV",
    place: "Terminal lawn",
    symptoms: ["fine-streak"],
    contexts: ["top-dressed"],
    fault: nicked("middle", knife(5, 3)),
  }),
  told({
    fleetNumber: "RT-1",
    daysAgo: 131,
    words: "bounces on the north end since the wet week",
    saidBy: "HW",
    place: "Square, north end",
    symptoms: ["irregular-hop"],
    contexts: ["wet-or-tall"],
    fault: packed("right"),
  }),
  told({
    fleetNumber: "RW-1",
    daysAgo: 58,
    words: "stragglers on every pass",
    saidBy: "HW",
    place: "Bowls green",
    symptoms: ["stragglers"],
    fault: loose("unit"),
  }),
];
