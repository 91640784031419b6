import { describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import { quickscoreExactly, quickscoreInDoubles } from "./exact.fixtures";
import { logEvidence, posteriors, presencesByPasses, presencesGiven, shownOnlyBy } from "./network";
import type { Network } from "./network-shape";

/** The same posteriors by writing down every set of causes and everything each could have shown (definition of noisy-OR). */
function bruteForce({ findings, causes }: Network) {
  const present = causes.map(() => 0);
  const shown = causes.map(() => 0);
  const unexplained = findings.map(() => 0);
  let total = 0;
  for (let set = 0; set < 1 << causes.length; set++) {
    const there = causes.map((_, k) => Boolean(set & (1 << k)));
    const prior = causes.reduce(
      (product, { odds, silence }, k) => (there[k] ? (product * odds * silence) / (1 + odds) : product / (1 + odds)),
      1,
    );
    const missed = findings.map(({ leak }, f) =>
      causes.reduce(
        (product, { links }, k) => product * (there[k] ? 1 - (links.find((l) => l.finding === f)?.probability ?? 0) : 1),
        1 - leak,
      ),
    );
    const weight = missed.reduce((product, miss) => product * (1 - miss), prior);
    total += weight;
    causes.forEach(({ links }, k) => {
      if (!there[k]) return;
      present[k] = (present[k] ?? 0) + weight;
      // Weight with this cause silent about every symptom: its symptom links taken away, and the chance of that silence.
      const symptomLinks = links.filter(({ finding }) => findings[finding]?.isSymptom);
      const quiet = symptomLinks.reduce((product, { probability }) => product * (1 - probability), 1);
      const others = missed.reduce((product, miss, f) => {
        const link = symptomLinks.find(({ finding }) => finding === f)?.probability;
        return product * (1 - (link === undefined ? miss : miss / (1 - link)));
      }, prior * quiet);
      shown[k] = (shown[k] ?? 0) + weight - others;
    });
    findings.forEach(({ leak }, f) => {
      const allSilent = causes.reduce(
        (product, { links }, k) => product * (there[k] ? 1 - (links.find((l) => l.finding === f)?.probability ?? 0) : 1),
        1,
      );
      const rest = missed.reduce((product, miss, g) => (g === f ? product : product * (1 - miss)), prior);
      unexplained[f] = (unexplained[f] ?? 0) + rest * allSilent * leak;
    });
  }
  return { present: present.map((w) => w / total), shown: shown.map((w) => w / total), unexplained: unexplained.map((w) => w / total) };
}

function randomNetwork(random: () => number, causeCount: number, findingCount: number): Network {
  const findings = Array.from({ length: findingCount }, (_, k) => ({ leak: 0.01 + 0.05 * random(), isSymptom: k === 0 || random() < 0.7 }));
  const causes = Array.from({ length: causeCount }, () => ({
    odds: 0.01 + 0.4 * random(),
    silence: 0.2 + 0.8 * random(),
    links: findings.flatMap((_, finding) =>
      random() < 0.6 ? [{ finding, probability: [0.8, 0.45, 0.15][Math.floor(random() * 3)] ?? 0.15 }] : [],
    ),
  }));
  return { findings, causes };
}

/** Both sum the same products in another order: what is left is rounding. */
const ROUNDING = 1e-12;

describe("exact posteriors", () => {
  // @against diagnosis: posteriors of a noisy-or network; brute-force enumeration of every combination; 1e-12
  it("agree with brute-force enumeration to 1e-12 on small networks, seeds 1 to 25", () => {
    for (let seed = 1; seed <= 25; seed++) {
      const random = seededRandom(seed);
      const network = randomNetwork(random, 2 + (seed % 8), 1 + (seed % 5));
      const exact = posteriors(network);
      const enumerated = bruteForce(network);
      exact.causes.forEach(({ probability, shown }, k) => {
        expect(Math.abs(probability - (enumerated.present[k] ?? 0)), `seed ${seed}, cause ${k}`).toBeLessThan(ROUNDING);
        expect(Math.abs(shown - (enumerated.shown[k] ?? 0)), `seed ${seed}, cause ${k} shown`).toBeLessThan(ROUNDING);
      });
      exact.unexplained.forEach((share, f) => {
        expect(Math.abs(share - (enumerated.unexplained[f] ?? 0)), `seed ${seed}, finding ${f}`).toBeLessThan(ROUNDING);
      });
    }
  });

  it("with nothing found are the prior odds, less what the denied symptoms say", () => {
    const { causes } = posteriors({
      findings: [],
      causes: [
        { odds: 0.25, silence: 1, links: [] },
        { odds: 0.25, silence: 0.2, links: [] },
      ],
    });
    expect(causes[0]?.probability).toBeCloseTo(0.2, 12);
    expect(causes[1]?.probability).toBeCloseTo(0.05 / 1.05, 12);
  });

  it("do not depend on the order of causes or findings", () => {
    const network = randomNetwork(seededRandom(99), 9, 6);
    const last = network.findings.length - 1;
    const turned: Network = {
      findings: [...network.findings].reverse(),
      causes: [...network.causes]
        .reverse()
        .map((cause) => ({ ...cause, links: cause.links.map((link) => ({ ...link, finding: last - link.finding })) })),
    };
    const there = posteriors(turned).causes.reverse();
    posteriors(network).causes.forEach(({ probability }, k) => {
      expect(Math.abs(probability - (there[k]?.probability ?? 0))).toBeLessThan(ROUNDING);
    });
  });

  it("a finding that a cause shows raises it; one that another explains away lowers it again", () => {
    const quiet = { odds: 0.1, silence: 1 };
    const one = { leak: 0.01, isSymptom: true };
    const alone =
      posteriors({ findings: [one], causes: [{ ...quiet, links: [{ finding: 0, probability: 0.8 }] }] }).causes[0]?.probability ?? 0;
    const rival = { odds: 50, silence: 1, links: [{ finding: 0, probability: 0.8 }] };
    const beside =
      posteriors({ findings: [one], causes: [{ ...quiet, links: [{ finding: 0, probability: 0.8 }] }, rival] }).causes[0]?.probability ?? 0;
    expect(alone).toBeGreaterThan(0.1 / 1.1);
    expect(beside).toBeLessThan(alone);
  });

  it("stay probabilities with 12 findings and 57 causes, where a sum of alternating signs loses its figures", () => {
    const { causes, unexplained } = posteriors(randomNetwork(seededRandom(7), 57, 12));
    for (const { probability, shown } of causes) {
      expect(probability).toBeGreaterThanOrEqual(0);
      expect(probability).toBeLessThanOrEqual(1);
      expect(shown).toBeLessThanOrEqual(probability + ROUNDING);
    }
    for (const share of unexplained) expect(share).toBeLessThan(0.2);
  });
});

describe("against a second exact method", () => {
  /** Fixed point is good to 1e-18, the subset sums to their rounding. */
  const TWELVE_ROUNDING = 1e-11;

  it("agree with Quickscore in doubles while the findings are few", () => {
    for (let seed = 40; seed < 50; seed++) {
      const network = randomNetwork(seededRandom(seed), 12, 4);
      const other = quickscoreInDoubles(network);
      presencesByPasses(network).forEach((probability, k) => {
        expect(Math.abs(probability - (other[k] ?? 0)), `seed ${seed}`).toBeLessThan(1e-8);
      });
    }
  });

  // @against diagnosis: posteriors at 12 findings; Quickscore (Heckerman 1989) in 120 decimal places; 1e-11
  it("agree at 12 findings with Quickscore in 120 decimal places, where doubles have gone astray", () => {
    const random = seededRandom(12);
    const { findings, causes } = randomNetwork(random, 24, 12);
    const network = {
      findings: findings.map((finding) => ({ ...finding, leak: 0.01 })),
      causes: causes.map((c) => ({ ...c, odds: c.odds / 10 })),
    };
    const exact = quickscoreExactly(network);
    const found = presencesByPasses(network);
    const inDoubles = quickscoreInDoubles(network);
    const worst = (other: readonly number[]) => Math.max(...found.map((probability, k) => Math.abs(probability - (other[k] ?? 0))));
    expect(worst(exact)).toBeLessThan(TWELVE_ROUNDING);
    expect(worst(inDoubles)).toBeGreaterThan(TWELVE_ROUNDING);
  });

  it("presences given some causes are those of a network where they are certain", () => {
    const network = randomNetwork(seededRandom(5), 8, 4);
    const { presences: given, logJoint } = presencesGiven(network, [1, 4]);
    const certain = { ...network, causes: network.causes.map((cause, k) => (k === 1 || k === 4 ? { ...cause, odds: 1e13 } : cause)) };
    presencesByPasses(certain).forEach((probability, k) => {
      expect(given[k]).toBeCloseTo(probability, 9);
    });
    const { present, both } = jointByForce(network, 1, 4);
    expect(Math.exp(logJoint - logEvidence(network))).toBeCloseTo(both, 12);
    expect(both).toBeLessThan(present);
  });

  it("what only some causes have shown is the brute-force share", () => {
    for (let seed = 60; seed < 70; seed++) {
      const { findings, causes } = randomNetwork(seededRandom(seed), 6, 3);
      const network = { findings: findings.map((finding) => ({ ...finding, isSymptom: true })), causes };
      const isOurs = (index: number) => index % 2 === 0;
      expect(shownOnlyBy(network, isOurs), `seed ${seed}`).toBeCloseTo(shownOnlyByForce(network, isOurs), 12);
    }
  });
});

/** Every set of causes written down: that one is there, and that both are. */
function jointByForce({ findings, causes }: Network, a: number, b: number) {
  let total = 0;
  let present = 0;
  let both = 0;
  for (let set = 0; set < 1 << causes.length; set++) {
    const weight = causes.reduce((product, { odds, silence }, k) => (set & (1 << k) ? product * odds * silence : product), 1);
    const shown = findings.reduce((product, { leak }, f) => {
      const miss = causes.reduce(
        (m, { links }, k) => (set & (1 << k) ? m * (1 - (links.find((l) => l.finding === f)?.probability ?? 0)) : m),
        1 - leak,
      );
      return product * (1 - miss);
    }, weight);
    total += shown;
    if (set & (1 << a)) present += shown;
    if (set & (1 << a) && set & (1 << b)) both += shown;
  }
  return { present: present / total, both: both / total };
}

/** Each symptom shown by one of ours, whether or not the leak shows it too, and by none of the others. */
function shownOnlyByForce({ findings, causes }: Network, isOurs: (index: number) => boolean): number {
  let total = 0;
  let ours = 0;
  for (let set = 0; set < 1 << causes.length; set++) {
    const weight = causes.reduce((product, { odds, silence }, k) => (set & (1 << k) ? product * odds * silence : product), 1);
    const miss = (f: number, counts: (k: number) => boolean) =>
      causes.reduce(
        (m, { links }, k) => (set & (1 << k) && counts(k) ? m * (1 - (links.find((l) => l.finding === f)?.probability ?? 0)) : m),
        1,
      );
    total += findings.reduce((product, { leak }, f) => product * (1 - (1 - leak) * miss(f, () => true)), weight);
    ours += findings.reduce((product, _, f) => product * (1 - miss(f, isOurs)) * miss(f, (k) => !isOurs(k)), weight);
  }
  return ours / total;
}
