import { performance } from "node:perf_hooks";
import { seededRandom } from "@/core/basics/random";
import { assessCheck, worksheetById } from "@/core/checks";
import { soundReadings, spoiled } from "@/core/checks/sound";
import { type Machine, machineSchema, unitSheetOf } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { movedRoller, rippleSources, scalpingRadius, stanceOf } from "@/core/physics/reel";
import { sideScene } from "@/drawings/side-view/scene";

/** `npm run bench:reel`: what a key or a slider costs on the reel worksheets, median and worst of so many. Frame at 60 a second: 16.7 ms. */
const ROUNDS = 200;

const machineOf = (fleetNumber: string): Machine => machineSchema.parse(FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine);

function time(name: string, run: (k: number) => unknown): void {
  for (let k = 0; k < 20; k++) run(k);
  const times = Array.from({ length: ROUNDS }, (_, k) => {
    const from = performance.now();
    run(k);
    return performance.now() - from;
  }).sort((a, b) => a - b);
  const at = (share: number) => (times[Math.floor(share * (ROUNDS - 1))] ?? 0).toFixed(2);
  console.log(`${name}: median ${at(0.5)}, 95 % ${at(0.95)}, worst ${at(1)} ms`);
}

const [five, walking, triplex] = [machineOf("RF-1"), machineOf("RW-1"), machineOf("RT-1")];
const sound = (check: string, machine: Machine) => soundReadings({ machine, check, random: seededRandom(1), turf: "Green" }) ?? {};

time("unit-layout, five units, a key", () => assessCheck("unit-layout", { machine: five, readings: sound("unit-layout", five) }));

const trials = Object.fromEntries(
  Array.from({ length: 14 }, (_, k) => [String(k + 1), { left: "cut", middle: k % 5 === 0 ? "passes" : "cut", right: "pinched" }]),
);
const grid = spoiled(sound("reel-contact", walking), { "units.unit.trials": trials, "units.unit.worst": {} });
time("reel-contact, 14 blades, a key", () => assessCheck("reel-contact", { machine: walking, readings: grid }));
time("reel-contact, 14 blades, its form", () => worksheetById("reel-contact")?.form?.(walking, grid));

const view = unitSheetOf(triplex, "left").sideView;
if (view)
  time("side view, a step of a slider", (k) => {
    const moved = movedRoller(view, "front", (k - ROUNDS / 2) * 1e-5);
    return [stanceOf(moved), sideScene(moved), scalpingRadius(moved)];
  });

time("ripples, all sources", () =>
  rippleSources({ groundMetresPerSecond: 1.8, blades: 11, revolutionsPerMinute: 1000, frontRollerMetres: 0.076 }, { spacingMetres: 0.1 }),
);
time("unit-match, five units, a key", () => assessCheck("unit-match", { machine: five, readings: sound("unit-match", five) }));
