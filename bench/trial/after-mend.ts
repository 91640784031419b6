import { namedRandom } from "@/core/basics/random";
import { MENDED } from "@/core/diagnosis/levels";
import type { Hand } from "@/core/simulator";
import { looksOf } from "@/core/simulator";
import { type HiddenCase, machineWith } from "./hidden-case";
import { knowledgeFor, type Worked, work } from "./worksheets";

/** As a job reckons with it (`core/jobs/case.ts`). */
const MENDED_RATIO = 0.1;

/** The same machine once some of its faults are mended, with what is seen when the look of the complaint is asked again; `undefined` where it is gone. */
export function mended(hidden: HiddenCase, causes: readonly string[]): HiddenCase | undefined {
  const { machine, key } = hidden;
  const faults = hidden.faults.filter(({ cause }) => !causes.includes(cause));
  if (faults.length === hidden.faults.length) return undefined;
  const knowledge = knowledgeFor(machine);
  const state = machineWith({ machine, key, faults, passWay: hidden.state.passWay });
  const linksOf = (cause: string) => knowledge.causes.find(({ id }) => id === cause)?.links ?? [];
  const chances = looksOf({ state, faults, symptoms: knowledge.symptoms, linksOf });
  const random = namedRandom(`${key}:again`);
  const asked = knowledge.symptoms.filter((symptom) => hidden.given.symptoms[symptom] === "present");
  const now = asked.map((symptom) => [symptom, random() < (chances.get(symptom) ?? 0) ? "present" : "denied"] as const);
  if (!now.some(([, seen]) => seen === "present")) return undefined;
  const evidence = causes.map((cause) => ({ check: MENDED, cause, likelihoodRatio: MENDED_RATIO }));
  return {
    ...hidden,
    state,
    faults,
    given: { ...hidden.given, symptoms: Object.fromEntries(now), evidence },
    targets: hidden.targets.filter((cause) => !causes.includes(cause)),
  };
}

export type Both = { atFirst: boolean; inTheEnd: boolean };

/** Of a case with several causes to be found: whether all were found at first, and whether with the look asked again after each mend. */
export function followed(hidden: HiddenCase, first: Worked, hand: Hand): Both | undefined {
  if (hidden.targets.length < 2) return undefined;
  const named = new Set(standing(first));
  const atFirst = hidden.targets.every((cause) => named.has(cause));
  let [here, worked] = [hidden as HiddenCase | undefined, first];
  for (let mends = 0; here && mends < hidden.faults.length; mends++) {
    here = mended(here, standing(worked));
    if (!here || here.targets.length === 0) break;
    worked = work(here, knowledgeFor(here.machine), { hand, order: "information" });
    for (const cause of standing(worked)) named.add(cause);
  }
  return { atFirst, inTheEnd: hidden.targets.every((cause) => named.has(cause)) };
}

/** What it stands by as found when it first says so; what the list leaves above the level where it never does. */
const standing = ({ found, final }: Worked): string[] => found ?? [...final].flatMap(([cause, there]) => (there >= FOUND ? [cause] : []));
const FOUND = 0.85;
