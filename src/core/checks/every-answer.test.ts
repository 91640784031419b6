import { describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import { tips, tyres } from "../../../tests/data/helpers";
import { keyOfFinding, SHEETS, type Sheet, type Spoil, saidOf, spoilsOf, with_ } from "./every-answer.fixtures";
import { assessed, machineOf } from "./sheets.fixtures";
import type { Assessment } from "./types";

const SEED = 7;
/** So many pairs of answers of a form are tried; a form with fewer is tried whole. */
const MOST_PAIRS = 2500;

type Tried = { spoil: Spoil; assessment: Assessment };

const triedOf = (sheet: Sheet): Tried[] =>
  spoilsOf(sheet).flatMap((spoil) => {
    const assessment = with_(sheet, spoil);
    return assessment ? [{ spoil, assessment }] : [];
  });

function pairsOf(tried: readonly Tried[]): [Tried, Tried][] {
  const bad = tried.filter(({ spoil, assessment }) => spoil.isChoice && (assessment.verdict === "out" || assessment.verdict === "stop"));
  const all = tried.flatMap((one) => bad.filter(({ spoil }) => spoil.path !== one.spoil.path).map((two): [Tried, Tried] => [one, two]));
  const random = seededRandom(SEED);
  return all.length <= MOST_PAIRS ? all : all.filter(() => random() < MOST_PAIRS / all.length);
}

/** What must hold of every worksheet whatever is answered (house rule: two answers at one place do not hide each other). */
describe.each([...SHEETS])("$name", (sheet) => {
  const tried = triedOf(sheet);
  const sound = with_(sheet);

  it("finds nothing on a sound machine, and reads every place it can stop at", () => {
    expect(sound?.findings.filter(({ verdict }) => verdict === "out" || verdict === "stop")).toEqual([]);
    const stopped = new Set(
      tried.flatMap(({ assessment }) => assessment.findings.filter(({ verdict }) => verdict === "stop").map(keyOfFinding)),
    );
    // What a sound reading does not read could never be let go again.
    expect(sound?.told).toEqual(expect.arrayContaining([...stopped]));
  });

  it("says stop as a whole wherever it found a stop, and nothing graver than it found", () => {
    for (const { spoil, assessment } of tried) {
      const found = assessment.findings.map(({ verdict }) => verdict);
      expect([spoil, assessment.verdict === "stop"]).toEqual([
        spoil,
        found.includes("stop") || assessment.figures.some((one) => one.verdict === "stop"),
      ]);
    }
  });

  it("never clears what was not read: with one answer missing, no cause is away that this answer could show", () => {
    for (const { spoil, assessment } of tried) {
      const seen = [...saidOf(assessment)].filter(([, result]) => result === "seen").map(([cause]) => cause);
      if (seen.length === 0) continue;
      const unread = with_(sheet, { path: spoil.path, value: undefined });
      const cleared = unread ? seen.filter((cause) => saidOf(unread).get(cause) === "not-found") : [];
      expect([spoil.path, spoil.value, cleared]).toEqual([spoil.path, spoil.value, []]);
    }
  });

  it("never takes back what was seen, nor a stop, when another answer is bad too", () => {
    for (const [one, two] of pairsOf(tried)) {
      const both = with_(sheet, one.spoil, two.spoil);
      if (!both) continue;
      const said = saidOf(both);
      const lost = [one, two].flatMap(({ assessment }) =>
        [...saidOf(assessment)].filter(([cause, result]) => result === "seen" && said.get(cause) === "not-found").map(([cause]) => cause),
      );
      const where = `${one.spoil.path}=${one.spoil.value} and ${two.spoil.path}=${two.spoil.value}`;
      expect([where, lost]).toEqual([where, []]);
      const wasStop = [one, two].some(({ assessment }) => assessment.verdict === "stop");
      if (wasStop) expect([where, both.verdict]).toEqual([where, "stop"]);
    }
  });

  it("holds every finding at its place: a second one there adds to the first", () => {
    for (const [one, two] of pairsOf(tried)) {
      if (!one.spoil.isChoice) continue;
      const both = with_(sheet, one.spoil, two.spoil);
      if (!both) continue;
      const stops = [one, two].flatMap(({ assessment }) => assessment.findings.filter(({ verdict }) => verdict === "stop"));
      const missing = stops.filter((stop) => !both.findings.some((found) => found.place === stop.place && found.code === stop.code));
      expect(missing).toEqual([]);
    }
  });
});

describe("worksheets without a form", () => {
  const zeroTurn = machineOf("ZT-1");
  const cleared = (assessment: Assessment) =>
    [...saidOf(assessment)].filter(([, result]) => result === "not-found").map(([cause]) => cause);

  it("two casters read and two drive tyres not clears nothing; all four right clears both causes", () => {
    const all = tyres([12, 18, 18, 12]);
    expect(cleared(assessed("tyre-pressure", zeroTurn, all)).sort()).toEqual(["tyres-off-spec", "tyres-unequal"]);
    for (const left of [[0], [1], [0, 3], [1, 2], [0, 1, 2]]) {
      const read = { tyres: all.tyres.filter((_, k) => !left.includes(k)) };
      expect([left, cleared(assessed("tyre-pressure", zeroTurn, read))]).toEqual([left, []]);
    }
  });

  it("an unread tyre does not silence one that is bad", () => {
    const read = { tyres: tyres([6, 18, 18, 12]).tyres.filter(({ wheelId }) => wheelId !== "left-caster") };
    const result = assessed("tyre-pressure", zeroTurn, read);
    expect([result.verdict, saidOf(result).get("tyres-unequal")]).toEqual(["out", "suspect"]);
  });

  it("a level of fewer tips than a plane clears nothing", () => {
    for (const many of [1, 2])
      expect(cleared(assessed("deck-level", zeroTurn, { tips: tips([3, 3, 3, 3]).tips.slice(0, many) }))).toEqual([]);
  });
});
