import { kindById } from "@/core/catalogue/kinds";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { CAREFUL, CARELESS } from "@/core/simulator";
import { type Both, followed } from "./after-mend";
import { casesOver, knowledgeFor, type Worked, work, worksheetsAlone } from "./worksheets";

/** `npm run trial:worksheets [cases] [seed] [rotary|reel]`: whole cases by worksheets on the hidden machine, and each worksheet alone. Prints the tables of docs/diagnosis.md. */
const CASES = Number(process.argv[2] ?? 780);
const SEED = Number(process.argv[3] ?? 20261126);
const CUTS_WITH = process.argv[4] === "reel" ? "reel" : "rotary";
const EACH = 12;
const SURE = 0.9;

const machines = FLEET.map(({ machine }) => machineSchema.parse(machine)).filter(({ kind }) => kindById(kind).cutsWith === CUTS_WITH);
const mean = (values: readonly number[]) => values.reduce((sum, one) => sum + one, 0) / Math.max(1, values.length);
const percent = (share: number) => `${(100 * share).toFixed(1)} %`;

const refused = new Map<string, number>();
const HANDS = [
  ["careful", CAREFUL],
  ["careless", CARELESS],
] as const;
/** Narrow: sound machines differ by levels, tyres and gaps alone. Wide: also by how they are kept and driven. */
for (const world of ["wide", "narrow"] as const) {
  const cases = casesOver(machines, { seed: SEED, count: CASES, world });
  console.log(`\n## ${world} world: ${CASES} cases on ${machines.length} ${CUTS_WITH} machines, seed ${SEED}\n`);
  console.log(
    "| hand | resolved | min: information, walk-round | found said, right | said 90 %+: there |\n| --- | --- | --- | --- | --- |",
  );
  for (const [name, hand] of HANDS) {
    const by = (order: "information" | "walk-round"): Worked[] => cases.map((one) => work(one, knowledgeFor(one.machine), { hand, order }));
    const [information, walk] = [by("information"), by("walk-round")];
    const both = information.flatMap((one, k) =>
      one.isResolved && walk[k]?.isResolved ? [[one.resolvedAfter ?? 0, walk[k]?.resolvedAfter ?? 0] as const] : [],
    );
    const [own, round] = [mean(both.map(([a]) => a)), mean(both.map(([, b]) => b))];
    const found = information.filter(({ foundRight }) => foundRight !== undefined);
    const said = information.flatMap((one) => one.said);
    console.log(
      `| ${name} | ${percent(mean(information.map(({ isResolved }) => Number(isResolved))))} | ${own.toFixed(1)}, ${round.toFixed(1)}: ${percent(own / round)} | ${percent(found.length / CASES)}, ${percent(mean(found.map(({ foundRight }) => Number(foundRight))))} | ${percent(mean(said.map(({ isThere }) => Number(isThere))))} |`,
    );
    for (const id of information.flatMap((one) => one.refused)) refused.set(id, (refused.get(id) ?? 0) + 1);
  }
}
/** The same with a fault besides, in two cases of five, that is in no table and moves a reading. */
const UNLISTED_SHARE = 0.4;
const outside = casesOver(machines, { seed: SEED, count: CASES, unlisted: UNLISTED_SHARE });
console.log(
  `\n## ${percent(UNLISTED_SHARE)} of cases with a fault of no table\n\n| hand | resolved | found said, right | said 90 %+ at the end: there |\n| --- | --- | --- | --- |`,
);
for (const [name, hand] of HANDS) {
  const worked = outside.map((one) => ({ one, by: work(one, knowledgeFor(one.machine), { hand, order: "information" }) }));
  const listed = worked.filter(({ one }) => one.targets.length > 0);
  const found = worked.filter(({ by }) => by.foundRight !== undefined);
  const sure = worked.flatMap(({ one, by }) =>
    [...by.final].filter(([, there]) => there >= SURE).map(([cause]) => one.faults.some((fault) => fault.cause === cause)),
  );
  console.log(
    `| ${name} | ${percent(mean(listed.map(({ by }) => Number(by.isResolved))))} | ${percent(found.length / CASES)}, ${percent(mean(found.map(({ by }) => Number(by.foundRight))))} | ${percent(mean(sure.map(Number)))} |`,
  );
}
/** Of the wide world: what the second fault of a look costs, and what asking the look again after the mend gives back. */
const several = casesOver(machines, { seed: SEED, count: CASES }).filter(({ targets }) => targets.length > 1);
console.log(
  `\n## ${several.length} cases with several causes to be found\n\n| hand | all found at first | with the look asked again after each mend |\n| --- | --- | --- |`,
);
for (const [name, hand] of HANDS) {
  const both = several.flatMap((one) => followed(one, work(one, knowledgeFor(one.machine), { hand, order: "information" }), hand) ?? []);
  const share = (is: (one: Both) => boolean) => percent(mean(both.map((one) => Number(is(one)))));
  console.log(`| ${name} | ${share(({ atFirst }) => atFirst)} | ${share(({ inTheEnd }) => inTheEnd)} |`);
}
if (refused.size > 0) console.log(`\nreadings refused: ${[...refused].map(([id, n]) => `${id} ${n}`).join(", ")}`);

console.log(`\n## each worksheet alone, one fault, ${EACH} machines of each of the fleet's\n`);
console.log("| worksheet | cause | speaks for it | for an absent one | |\n| --- | --- | --- | --- | --- |");
for (const { check, cause, there, spoke, absent, accused } of worksheetsAlone(machines, { seed: SEED, each: EACH, hand: CAREFUL }).sort(
  (a, b) => a.check.localeCompare(b.check),
)) {
  const [right, wrong] = [spoke / there, accused / absent];
  const miss = [...(right < 0.85 ? ["misses"] : []), ...(wrong > 0.08 ? ["accuses"] : [])].join(", ");
  console.log(`| ${check} | ${cause} | ${percent(right)} | ${percent(wrong)} | ${miss} |`);
}
