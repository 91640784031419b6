import { type Evidence, type Figure, measuredLikelihoodRatio } from "@/core/basics/findings";
import type { Machine } from "@/core/machine";
import { decisiveModel, type FittedModel } from "@/core/physics/deck";
import type { Rules } from "./rules";

/** A blade end or spindle off its plane by less is within what a straight blade shows (common practice, 1/16 in). */
const STRAIGHT_METRES = 0.0015;

export function evidenceOf(args: {
  machine: Machine;
  figures: readonly Figure[];
  models: readonly FittedModel[];
  rules: Rules;
  /** A hanger was told to hang loose. */
  hasLoose: boolean;
}): Evidence[] {
  const { figures, models, rules } = args;
  const hasHangers = (args.machine.deck?.hangers.length ?? 0) > 0;
  const side = figures.find(({ id }) => id === "side");
  const rake = figures.find(({ id }) => id === "rake");
  const evidence: Evidence[] = [];
  if (hasHangers && side?.verdict === "out") {
    evidence.push({ check: "deck-level", causes: ["deck-out-of-level", "hanger-failed"], result: "suspect" });
  }
  if (hasHangers && side?.verdict === "in-tolerance") {
    evidence.push({ check: "deck-level", cause: "deck-out-of-level", result: "not-found" });
    evidence.push({ check: "deck-level", cause: "hanger-failed", result: args.hasLoose ? "suspect" : "not-found" });
  }
  if (hasHangers && rake) {
    evidence.push({
      cause: "deck-rake-wrong",
      likelihoodRatio: measuredLikelihoodRatio({
        deviation: rake.value - rules.rakeTarget,
        tolerance: rules.rakeTolerance,
        standardUncertainty: rake.standardError ?? 0,
        sides: "two",
      }),
    });
  }
  return [...evidence, ...modelEvidence(models)];
}

function modelEvidence(models: readonly FittedModel[]): Evidence[] {
  const winner = decisiveModel(models);
  const tested = (kind: FittedModel["model"]["kind"]) => models.some(({ model }) => model.kind === kind);
  const standsApart = winner && Math.abs(winner.departureMetres) > STRAIGHT_METRES ? winner.model.kind : undefined;
  const evidence: Evidence[] = [];
  if (standsApart === "spindle-plane") evidence.push({ check: "deck-level", cause: "deck-shell-bent", result: "suspect" });
  if (standsApart === "blade-end") evidence.push({ check: "deck-level", causes: ["blade-bent", "spindle-shaft-bent"], result: "suspect" });
  if (winner?.model.kind === "whole-deck" && tested("spindle-plane")) {
    evidence.push({ check: "deck-level", cause: "deck-shell-bent", result: "not-found" });
  }
  if (winner?.model.kind === "whole-deck" && tested("blade-end")) {
    evidence.push({ check: "deck-level", cause: "blade-bent", result: "not-found" });
    evidence.push({ check: "deck-level", cause: "spindle-shaft-bent", result: "not-found" });
  }
  return evidence;
}
