import { describe, expect, it } from "vitest";
import { seededRandom } from "@/demo/random";
import { type Network, posteriors } from "./network";

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
