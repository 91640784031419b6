import { describe, expect, it } from "vitest";
import { namedRandom } from "@/core/basics/random";
import { RIVALS } from "@/core/catalogue";
import { moved, presenceOf } from "./case";
import { SEEN_RATIO } from "./evidence";
import { allFeatures, type Case, knowledgeOf } from "./index";

const WORLDS = 60_000;
/** So many standard errors of a share off, and it is no chance. */
const MOST_ERRORS = 4;
const OWN_SHARE = 0.95;

/**
 * Worlds drawn as the network says they come: causes by their odds, what they show, and what the reading says of them; of those in which the look was there and the
 * reading pointed at the listed cause, how often the unlisted one was there (Monte Carlo).
 */
describe("what is in no table is as likely as it is said to be", () => {
  it.each(RIVALS.map((rival) => [rival.id, rival] as const))("%s", (id, { like, on, moves }) => {
    const [check] = moves;
    const knowledge = knowledgeOf({ cutsWith: on, features: allFeatures(on) });
    const listed = knowledge.causes.find((cause) => cause.id === like);
    const look = [...(listed?.links ?? [])]
      .sort((a, b) => b.probability - a.probability)
      .find(({ symptom }) => !listed?.oneOf.includes(symptom));
    if (!listed || !look || !check) throw new Error(`${id}: nothing to draw`);
    const given: Case = {
      symptoms: { [look.symptom]: "present" },
      context: [],
      evidence: [{ check, cause: like, result: "seen" }],
    };
    const said = presenceOf(knowledge, given).get(id as typeof like) ?? 0;
    const shares = new Map<string, number>([
      ...moved({ check, causes: [like], share: OWN_SHARE, isKnown: (cause) => knowledge.causes.some((one) => one.id === cause) }),
      [like, OWN_SHARE],
    ]);
    const random = namedRandom(`rival:${id}`);
    const able = knowledge.causes.filter((cause) => shares.has(cause.id) || cause.links.some(({ symptom }) => symptom === look.symptom));
    let [seen, there] = [0, 0];
    for (let k = 0; k < WORLDS; k++) {
      const present = able.filter(({ prior }) => random() < prior);
      const silent = present.reduce(
        (share, { links }) => share * (1 - (links.find(({ symptom }) => symptom === look.symptom)?.probability ?? 0)),
        1 - knowledge.leak,
      );
      const right = present.reduce((share, cause) => share * (1 - (shares.get(cause.id) ?? 0)), 1 - OWN_SHARE / SEEN_RATIO);
      if (random() < silent || random() < right) continue;
      seen++;
      if (present.some((cause) => cause.id === id)) there++;
    }
    expect(seen).toBeGreaterThan(200);
    const share = there / seen;
    expect(Math.abs(share - said)).toBeLessThan(MOST_ERRORS * Math.sqrt((said * (1 - said)) / seen));
    expect(said).toBeGreaterThan(0.02);
  });
});
