import { emptyTable, table } from "@/core/basics/tables";
import { formatTurns, parseQuantity, shownUnit, toSi, type UnitSystem } from "@/core/basics/units";
import type { FixRow } from "@/core/catalogue";
import type { DeckDetail, TyreDetail } from "@/core/checks";
import type { JobView } from "@/data/job/job-view";
import { sayQuantityIssue } from "@/ui/words/issues";
import { latestTake } from "../steps";
import type { FixDraft } from "./fix-draft";

/** The turns the last level asked for, as they would be typed. */
/** Of a hanger whose sheet says nothing of its turns the plan is in lengths: how many it took is for whoever turned it to say. */
const isInLengths = (view: JobView, hangerId: string): boolean =>
  view.machine.machine.deck?.hangers.find(({ id }) => id === hangerId)?.liftPerTurnMetres === undefined;

export function plannedTurns(view: JobView): Record<string, string> {
  const plan = (latestTake(view, "deck-level")?.result.detail as DeckDetail | undefined)?.plan;
  return Object.fromEntries(
    (plan?.hangers ?? []).map(({ id, turns }) => [
      id,
      isInLengths(view, id) ? "" : turns === 0 ? "0" : `${turns < 0 ? "-" : ""}${spelled(turns)}`,
    ]),
  );
}

const GLYPHS: Record<string, string> = table({ "¼": "1/4", "½": "1/2", "¾": "3/4" });

const spelled = (turns: number) =>
  formatTurns(turns)
    .replace(/([¼½¾])/, (glyph) => ` ${GLYPHS[glyph]}`)
    .trim();

export function pressureTargets(view: JobView): { wheelId: string; label: string; fromPascals: number; toPascals: number }[] {
  const read = (latestTake(view, "tyre-pressure")?.result.detail as TyreDetail | undefined)?.wheels ?? [];
  return read.flatMap(({ wheelId, coldPressurePascals, targetPascals }) => {
    const label = view.machine.machine.wheels.find(({ id }) => id === wheelId)?.label ?? wheelId;
    return [{ wheelId, label, fromPascals: coldPressurePascals, toPascals: targetPascals ?? coldPressurePascals }];
  });
}

type FixFigures =
  | { kind: "none" }
  | { kind: "turns"; turns: { hangerId: string; turns: number }[]; troubles: Record<string, string> }
  | { kind: "pressures"; pressures: { wheelId: string; fromPascals: number; toPascals: number }[]; troubles: Record<string, string> };

const MOST_TURNS = 60;

const MOST_PRESSURE = toSi(100, "psi");

export function figuresOf(args: {
  row: FixRow;
  draft: FixDraft;
  planned: Record<string, string>;
  wheels: ReturnType<typeof pressureTargets>;
  system: UnitSystem;
}): FixFigures {
  const { row, draft, planned, wheels, system } = args;
  const troubles: Record<string, string> = emptyTable();
  if (row.fix === "adjust-hangers") {
    const texts = { ...planned, ...draft.turns };
    const turns = Object.entries(texts).flatMap(([hangerId, text]) => {
      const parsed = parseQuantity({ text, dimension: "rotation", bareUnit: "rpm" });
      if (!parsed.ok || parsed.hadUnit || Math.abs(parsed.valueSi) > MOST_TURNS) {
        troubles[hangerId] = "Turns as said: 2 1/4, or -2 1/4 for down.";
        return [];
      }
      return [{ hangerId, turns: parsed.valueSi }];
    });
    return { kind: "turns", turns, troubles };
  }
  if (row.fix !== "set-pressures") return { kind: "none" };
  const pressures = wheels.flatMap(({ wheelId, fromPascals, toPascals }) => {
    const text = draft.pressures[wheelId];
    if (text === undefined) return [{ wheelId, fromPascals, toPascals }];
    const parsed = parseQuantity({ text, dimension: "pressure", bareUnit: shownUnit({ dimension: "pressure", system }) });
    if (!parsed.ok) {
      troubles[wheelId] = sayQuantityIssue(parsed.issue);
      return [];
    }
    if (parsed.valueSi < 0 || parsed.valueSi > MOST_PRESSURE) {
      troubles[wheelId] = "No tyre of this trade holds that. Read it again.";
      return [];
    }
    return [{ wheelId, fromPascals, toPascals: parsed.valueSi }];
  });
  return { kind: "pressures", pressures, troubles };
}
