import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { OUT_KILOGRAM_METRES } from "@/core/physics/blades/balance";
import { TORQUE_WITHIN } from "@/core/physics/blades/bolts";
import { FIT_WITHIN } from "@/core/physics/blades/fit";
import { LEAST_CLEARANCE_METRES, LEAST_OVERLAP_METRES, WEAR_TO_WATCH_METRES } from "@/core/physics/blades/overlap";
import { MOST_DROOP, SISTERS_WITHIN, TEARS_BELOW, TIP_SPEED_LIMIT, WORKING_RANGE } from "@/core/physics/drive/tip-speed";
import { CLIP_SHARE, GAP_METRES } from "@/core/physics/reel";
import { CONE_TOLERANCE_METRES } from "@/core/physics/reel/grinding";
import { SKEW_RADIANS } from "@/core/physics/reel/layout";
import { SQUARE_TOLERANCE_METRES } from "@/core/physics/reel/square";
import { CLEARANCE } from "./anti-scalp-wheels";
import { ARM_PLAY_METRES } from "./arm-play";
import { BELT_WITHIN_METRES } from "./belt-inspection";
import { DAMAGING_NICK_METRES } from "./blade-edge/worth";
import { LEAST_TIMED_GAP_METRES } from "./blade-timing";
import { TRACK_TOLERANCE_METRES } from "./blade-track";
import { BENCH_TOLERANCE_METRES, HEIGHT_TOLERANCE } from "./cutting-height/units";
import { MOST_PACK_METRES } from "./deck-cleanliness";
import { RAKE_TARGET_METRES, RAKE_TOLERANCE_METRES, SIDE_TOLERANCE_METRES } from "./deck-level/rules";
import { OIL_WITHIN_METRES } from "./gearbox-inspection";
import { FASTEST_METRES_PER_SECOND, SHARP_EDGE_METRES, SLOWEST_METRES_PER_SECOND } from "./ground-speed";
import { PASS_OVERLAP } from "./pass-overlap";
import { REEL_LIFT_METRES } from "./reel-bearing";
import { SLOW_SHARE } from "./reel-speed";
import { WORKSHEETS } from "./registry";
import { ROLLER_LIFT_METRES } from "./roller-bearing";
import { PACK_METRES } from "./roller-clean";
import { HOT_FROM_KELVIN, HOTTER_BY_KELVIN, MOST_PLAY_METRES } from "./spindle-play";
import { MOST_SLIP } from "./tip-speed/figures";
import { DAYS_BETWEEN, MOST_BEFORE_TO_CUT } from "./turf-condition";
import { PRESSURE_TOLERANCE_PASCALS } from "./tyre-pressure";
import { LEAST_UNIT_OVERLAP_METRES } from "./unit-layout";
import { ALIKE_WITHIN } from "./unit-match";

const DOCS = readFileSync(new URL("../../../docs/reckoning.md", import.meta.url), "utf8");

const number = (value: number, places = 4) => String(Number(value.toFixed(places)));
const mm = (metres: number) => `${number(metres * 1000)} mm`;
const percent = (share: number) => `${number(share * 100)} %`;
const speed = (metresPerSecond: number) => `${number(metresPerSecond, 2)} m/s`;

/** What each row of the table of limits must say, from the constants that are served. */
const LIMITS: Readonly<Record<string, readonly string[]>> = {
  "anti-scalp-wheels": [mm(CLEARANCE.least), mm(CLEARANCE.most)],
  "arm-play": [mm(ARM_PLAY_METRES), `${number((SKEW_RADIANS * 180) / Math.PI)}°`],
  "belt-inspection": [mm(BELT_WITHIN_METRES)],
  "blade-balance": [`${number(OUT_KILOGRAM_METRES * 1e6)} g·mm`],
  "blade-edge": [mm(DAMAGING_NICK_METRES)],
  "blade-fit": [...Object.values(FIT_WITHIN).map(mm), percent(TORQUE_WITHIN)],
  "blade-overlap": [mm(LEAST_OVERLAP_METRES), mm(LEAST_CLEARANCE_METRES), mm(WEAR_TO_WATCH_METRES)],
  "blade-timing": [mm(LEAST_TIMED_GAP_METRES)],
  "blade-track": [mm(TRACK_TOLERANCE_METRES)],
  "cutting-height": [mm(HEIGHT_TOLERANCE.rotary.metres), mm(HEIGHT_TOLERANCE.reel.metres), mm(BENCH_TOLERANCE_METRES)],
  "deck-cleanliness": [mm(MOST_PACK_METRES)],
  "deck-level": [mm(SIDE_TOLERANCE_METRES), mm(RAKE_TOLERANCE_METRES), mm(Math.abs(RAKE_TARGET_METRES))],
  "gearbox-inspection": [mm(OIL_WITHIN_METRES)],
  "ground-speed": [
    speed(FASTEST_METRES_PER_SECOND.riding),
    speed(FASTEST_METRES_PER_SECOND.walking),
    speed(SLOWEST_METRES_PER_SECOND),
    mm(SHARP_EDGE_METRES),
  ],
  "pass-overlap": [mm(PASS_OVERLAP.least), mm(PASS_OVERLAP.most)],
  "reel-bearing": [mm(REEL_LIFT_METRES)],
  "reel-cone": [mm(CONE_TOLERANCE_METRES)],
  "reel-contact": [mm(GAP_METRES.least), mm(GAP_METRES.most)],
  "reel-speed": [percent(SLOW_SHARE), `${number(CLIP_SHARE.bestFrom)} to ${number(CLIP_SHARE.ripples)}`],
  "roller-bearing": [mm(ROLLER_LIFT_METRES)],
  "roller-clean": [mm(PACK_METRES)],
  "roller-square": [mm(SQUARE_TOLERANCE_METRES)],
  "spindle-play": [mm(MOST_PLAY_METRES), `${HOTTER_BY_KELVIN} K`, `${number(HOT_FROM_KELVIN - 273.15)} °C`],
  "tip-speed": [
    speed(TIP_SPEED_LIMIT),
    speed(TEARS_BELOW),
    speed(WORKING_RANGE.from),
    speed(WORKING_RANGE.to),
    percent(SISTERS_WITHIN),
    percent(MOST_SLIP),
    percent(MOST_DROOP),
  ],
  "turf-condition": [`${MOST_BEFORE_TO_CUT} ×`, `${DAYS_BETWEEN} days`],
  "tyre-pressure": [`${PRESSURE_TOLERANCE_PASCALS / 1000} kPa`],
  "unit-layout": [mm(LEAST_UNIT_OVERLAP_METRES), `${number((SKEW_RADIANS * 180) / Math.PI)}°`],
  "unit-match": Object.values(ALIKE_WITHIN).map(mm),
};

const row = (check: string): string[] => {
  const line = DOCS.split("\n").find((one) => one.startsWith(`| \`${check}\``));
  return (line ?? "").split("|").map((cell) => cell.trim());
};

describe("docs/reckoning.md tells the rules as they are served", () => {
  it.each(WORKSHEETS.map(({ id, ruleVersion }) => [id, ruleVersion] as const))("%s, rule %d", (check, version) => {
    expect(row(check)[2]).toBe(String(version));
  });

  it.each(Object.entries(LIMITS))("limits of %s", (check, limits) => {
    const said = row(check)[3] ?? "";
    expect(limits.filter((one) => !said.includes(one))).toEqual([]);
  });

  it("names a rule's number in no other place, where it would grow old", () => {
    expect(DOCS.match(/rule \d+/g)).toBeNull();
  });
});
