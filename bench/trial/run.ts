import { seededRandom } from "@/core/basics/random";
import { type FeatureId, KINDS } from "@/core/catalogue/kinds";
import { allFeatures, type Knowledge, knowledgeOf } from "@/core/diagnosis";
import { CONTEXT_RATE, disturbed, drawCase } from "./cases";
import { follow, ORDERS, type Order, type Said } from "./follow";

/** `npm run trial [cases] [seed] [by-kind]`: the trial of the order of checks. Prints the tables of docs/diagnosis.md. */
const CASES = Number(process.argv[2] ?? 2000);
const SEED = Number(process.argv[3] ?? 20261123);

type Result = Record<Order, { minutes: (number | undefined)[]; checks: number[] }> & { said: Said[]; first: Said[] };

/** `every-feature`: one machine with all the trade has; `by-kind`: each kind of machine in turn. */
const FLEET = process.argv[4] === "by-kind" ? "by-kind" : "every-feature";

function knowledgesOf(cutsWith: "rotary" | "reel"): Knowledge[] {
  if (FLEET === "every-feature") return [knowledgeOf({ cutsWith, features: allFeatures(cutsWith) })];
  return KINDS.filter((kind) => kind.cutsWith === cutsWith).map(({ usual }) =>
    knowledgeOf({ cutsWith, features: cutsWith === "reel" ? [...new Set<FeatureId>([...usual, "groomer"])] : usual }),
  );
}

function run(cutsWith: "rotary" | "reel", isDisturbed: boolean): Result {
  const random = seededRandom(SEED + (cutsWith === "reel" ? 1 : 0) + (isDisturbed ? 2 : 0));
  const kinds = knowledgesOf(cutsWith);
  const result = {
    said: [],
    first: [],
    ...Object.fromEntries(ORDERS.map((order) => [order, { minutes: [], checks: [] }])),
  } as unknown as Result;
  for (let k = 0; k < CASES; k++) {
    const knowledge = kinds[k % kinds.length] as Knowledge;
    const trial = drawCase(isDisturbed ? disturbed(knowledge, random) : knowledge, random);
    for (const order of ORDERS) {
      const followed = follow({ knowledge, trial, order, random });
      result[order].minutes.push(followed.minutes);
      result[order].checks.push(followed.checks);
      if (order === "information") {
        result.said.push(...followed.said);
        result.first.push(...followed.said.slice(0, knowledge.causes.length));
      }
    }
  }
  return result;
}

const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
const quantile = (values: readonly number[], share: number) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? Number.NaN;

function printOrders(result: Result): void {
  const solvedByAll = Array.from({ length: CASES }, (_, k) => k).filter((k) =>
    ORDERS.every((order) => result[order].minutes[k] !== undefined),
  );
  console.log(`resolved by all four orders: ${solvedByAll.length} of ${CASES}\n`);
  console.log("| order | resolved | mean min | median | 90 % | of walk-round | mean checks |\n| --- | --- | --- | --- | --- | --- | --- |");
  const walk = mean(solvedByAll.map((k) => result["walk-round"].minutes[k] as number));
  for (const order of ORDERS) {
    const { minutes, checks } = result[order];
    const all = solvedByAll.map((k) => minutes[k] as number);
    const solved = minutes.filter((one) => one !== undefined).length / CASES;
    console.log(
      `| ${order} | ${(100 * solved).toFixed(1)} % | ${mean(all).toFixed(1)} | ${quantile(all, 0.5)} | ${quantile(all, 0.9)} | ${((100 * mean(all)) / walk).toFixed(0)} % | ${mean(solvedByAll.map((k) => checks[k] as number)).toFixed(1)} |`,
    );
  }
}

const BINS = 10;

function printCalibration(name: string, said: readonly Said[]): void {
  console.log(`\n${name}\n\n| said | causes | mean said | were there |\n| --- | --- | --- | --- |`);
  let error = 0;
  for (let bin = 0; bin < BINS; bin++) {
    const inside = said.filter(({ probability }) => Math.min(BINS - 1, Math.floor(probability * BINS)) === bin);
    if (inside.length === 0) continue;
    const claimed = mean(inside.map(({ probability }) => probability));
    const actual = mean(inside.map(({ isThere }) => Number(isThere)));
    error += (Math.abs(claimed - actual) * inside.length) / said.length;
    console.log(
      `| ${bin * 10} to ${bin * 10 + 10} % | ${inside.length} | ${(100 * claimed).toFixed(1)} % | ${(100 * actual).toFixed(1)} % |`,
    );
  }
  const brier = mean(said.map(({ probability, isThere }) => (probability - Number(isThere)) ** 2));
  const sure = said.filter(({ probability }) => probability >= 0.1);
  console.log(
    `\ncalibration error ${error.toFixed(4)} over all; Brier score ${brier.toFixed(4)} (n = ${said.length}); among those said 10 % or more: ${calibrationError(sure).toFixed(4)}, Brier ${mean(sure.map(({ probability, isThere }) => (probability - Number(isThere)) ** 2)).toFixed(4)} (n = ${sure.length})`,
  );
}

/** Mean distance between what was said and how often it was so, bin by bin, weighted by how many were said. */
function calibrationError(said: readonly Said[]): number {
  let error = 0;
  for (let bin = 0; bin < BINS; bin++) {
    const inside = said.filter(({ probability }) => Math.min(BINS - 1, Math.floor(probability * BINS)) === bin);
    if (inside.length > 0) error += Math.abs(inside.reduce((sum, { probability, isThere }) => sum + probability - Number(isThere), 0));
  }
  return error / said.length;
}

console.log(`${CASES} cases a kind, seed ${SEED}, each context at ${100 * CONTEXT_RATE} %, ${FLEET}\n`);
for (const cutsWith of ["rotary", "reel"] as const) {
  for (const isDisturbed of [false, true]) {
    const start = performance.now();
    const result = run(cutsWith, isDisturbed);
    console.log(`\n## ${cutsWith}, ${isDisturbed ? "disturbed" : "undisturbed"}\n`);
    printOrders(result);
    printCalibration("before any check", result.first);
    printCalibration("before any check and after each", result.said);
    console.log(`\n(${((performance.now() - start) / 1000).toFixed(0)} s)`);
  }
}
