import { type Figure, type Finding, gravest } from "@/core/basics/findings";
import { type HeightAt, type Plane, planeHeight } from "@/core/basics/geometry";
import { cuttingWidth, type Direction, type Machine, type MachineHanger, pointOf, referenceSpindle, tipAt } from "@/core/machine";
import {
  type BladeReading,
  bestNextStation,
  compareModels,
  correctForFloor,
  type DeckPlane,
  type DeckTarget,
  decisiveModel,
  type FittedModel,
  farthestStation,
  fitDeckPlane,
  planTurns,
  rakeOf,
  rulerAfter,
  type Slope,
  sideOf,
  type TurnPlan,
  targetPlane,
  tellModelsApart,
} from "@/core/physics/deck";
import { findingsOf, pointsAt, settled } from "../settled";
import type { Assessment, At, Check } from "../types";
import { unknownPlaces } from "../verdicts";
import { evidenceOf } from "./evidence";
import { figuresOf } from "./figures";
import { formOf } from "./form";
import { provisionalReasons, warningsFor } from "./remarks";
import { rulesFor, SIDE_TOLERANCE_METRES } from "./rules";
import type { Says } from "./says";
import { type DeckReadings, deckReadingsSchema, stationKey, stationOf, type TipReading, tipsOf } from "./schema";
import { allStations, fullForm } from "./stations";

/** Past its range by this much a height is no deck's: refused. Nearer, it is only remarked on. */
export const HEIGHT_MARGIN_METRES = 0.075;

export type TipDetail = {
  key: string;
  spindleId: string;
  direction: Direction;
  end?: "A" | "B";
  xMetres: number;
  yMetres: number;
  readMetres: number;
  /** Above the plane of the wheels. */
  heightMetres: number;
  targetMetres: number;
  residualMetres: number;
  /** What the ruler there will read after the turns. */
  afterMetres?: number;
};

export type DeckDetail = {
  tips: TipDetail[];
  issue?: { code: string; needed?: number; given?: number };
  plane?: Plane;
  target?: Plane;
  widthMetres: number;
  tipCircleMetres: number;
  referenceSpindleId?: string;
  side?: Slope;
  rake?: Slope;
  plan?: TurnPlan;
  planIssue?: string;
  /** What the readings say the deck is, and whether any other account comes near. */
  model?: { kind: FittedModel["model"]["kind"]; spindleId?: string; departureMetres: number; isDecisive: boolean };
  /** Two accounts of these readings that come too near each other to name one. */
  rivals?: [FittedModel["model"], FittedModel["model"]];
  untestedSpindleIds: string[];
  nextReading?: {
    key: string;
    spindleId: string;
    direction: string;
    end?: "A" | "B";
    why: "settle-side" | "settle-rake" | "make-a-plane" | "spare-reading" | "tell-apart";
  };
};

export const deckLevel: Check<DeckReadings, DeckDetail, Says> = {
  id: "deck-level",
  ruleVersion: 6,
  cautions: ["turn-by-hand"],
  readingsSchema: deckReadingsSchema,
  olderKeys: ["looseHangerIds", "isCarriedRound"],
  missing: (machine) => (machine.spindles.length === 0 ? ["no-spindles"] : []),
  problems,
  form: formOf,
  wants: "level-standing",
  keeps: ({ floor }) => (floor ? { floor } : undefined),
  expects: ({ detail }) =>
    Object.fromEntries(
      detail.tips.map(({ key, readMetres, afterMetres }) => [
        `tips.${key}.heightMetres`,
        { was: readMetres, ...(afterMetres === undefined ? {} : { should: afterMetres }) },
      ]),
    ),
  trend: {
    dimension: "length",
    lines: () => [{ id: "side" }, { id: "rake" }],
    toleranceSi: ({ sheet }) => sheet.sideToleranceMetres ?? SIDE_TOLERANCE_METRES,
    values: departures,
  },
  assess,
};

/** How far side and rake are off. */
function departures({ detail: { side, rake }, figures }: Assessment<DeckDetail, Says>): Record<string, number> | undefined {
  const wanted = figures.find(({ id }) => id === "rake")?.tolerance;
  if (!side || !rake || wanted?.kind !== "about") return undefined;
  return { side: side.value, rake: rake.value - wanted.target };
}

type Problem = Says["problem"] & At;

function problems(machine: Machine, readings: DeckReadings): Problem[] {
  const { heightLeastMetres: least, heightMostMetres: most } = machine.sheet;
  const tips = Object.entries(readings.tips).flatMap(([place, { heightMetres }]): Problem[] => {
    const path = ["tips", place];
    const notThere = unknownTip(machine, place, path);
    if (notThere) return [notThere];
    if (most !== undefined && heightMetres > most + HEIGHT_MARGIN_METRES)
      return [{ code: "height-above-deck-range", path: [...path, "heightMetres"], place, mostMetres: most }];
    if (least !== undefined && heightMetres < least - HEIGHT_MARGIN_METRES)
      return [{ code: "height-below-deck-range", path: [...path, "heightMetres"], place, leastMetres: least }];
    return [];
  });
  const { wheels = {}, places = {} } = readings.floor ?? {};
  const under = Object.keys(places).flatMap((place): Problem[] => {
    const notThere = unknownTip(machine, place, ["floor", "places", place]);
    return notThere ? [notThere] : [];
  });
  return [
    ...tips,
    ...unknownPlaces({ read: wheels, known: machine.wheels, path: "floor.wheels", code: "unknown-wheel" }),
    ...under,
    ...unknownPlaces({ read: readings.hangers, known: machine.deck?.hangers ?? [], path: "hangers", code: "unknown-hanger" }),
  ];
}

/** A tip this machine does not have. */
function unknownTip(machine: Machine, place: string, path: string[]): Problem | undefined {
  const station = stationOf(place);
  if (!station) return { code: "unknown-place", path, place };
  const isThere = machine.spindles.some(({ id }) => id === station.spindleId);
  return isThere ? undefined : { code: "unknown-spindle", path, place: station.spindleId };
}

function assess(machine: Machine, readings: DeckReadings): Assessment<DeckDetail, Says> {
  const { heights, unmapped } = correctedHeights(machine, readings);
  const fitted = fitDeckPlane(heights);
  const reference = referenceSpindle(machine);
  const span = { widthMetres: cuttingWidth(machine), tipCircleMetres: reference?.tipCircleDiameterMetres ?? 0 };
  if (fitted.kind === "refused" || !reference)
    return unreadable({ machine, readings, heights, span, issue: fitted.kind === "refused" ? fitted.issue : undefined });
  const models = compareModels(heights);
  const deck = planeInForce(fitted.deck, models);
  const side = sideOf(deck, span.widthMetres);
  const rake = rakeOf(deck, span.tipCircleMetres);
  const rules = rulesFor(machine);
  const target = deckTarget({ machine, readings, plane: deck.plane, rakeMetres: rules.rakeTarget });
  const planned = planFor({ machine, readings, plane: deck.plane, target, span });
  const figures = figuresOf({ machine, heights, deck, side, rake, rules });
  const verdict = gravest(figures.flatMap((figure) => (figure.verdict ? [figure.verdict] : [])));
  const settling = nextReading({ machine, heights, figures });
  const isUndecided = verdict === "watch" && settling !== undefined;
  const isHeightOff = heightIsOff({ readings, plane: deck.plane, target });
  const wantsTurns = (verdict !== "in-tolerance" && !isUndecided) || isHeightOff;
  const detail: DeckDetail = {
    ...span,
    tips: tipDetails({
      readings,
      heights,
      deck,
      target: targetPlane({ target, span }),
      ...(planned.plan && wantsTurns ? { after: planned.plan.after } : {}),
    }),
    plane: deck.plane,
    target: targetPlane({ target, span }),
    referenceSpindleId: reference.id,
    side,
    rake,
    ...(planned.plan && wantsTurns ? { plan: planned.plan } : {}),
    ...(planned.issue ? { planIssue: planned.issue } : {}),
    ...modelDetail(models),
    untestedSpindleIds: untested(machine, models),
  };
  const apart = modelsApart({ machine, readings, models });
  if (apart) detail.rivals = apart.rivals;
  const next = settling ?? apart?.next;
  if (next) detail.nextReading = next;
  return {
    check: "deck-level",
    ruleVersion: deckLevel.ruleVersion,
    ...settled({
      check: "deck-level",
      findings: [...findingsOf(figures, "deck"), ...hangerFindings(readings)],
      evidence: evidenceOf({ machine, figures, models, rules, hasLoose: looseHangers(readings).length > 0 }),
      told: ["deck", ...Object.keys(readings.hangers)],
      isComplete: true,
    }),
    provisional: provisionalReasons({ machine, readings, unmapped }),
    figures,
    actions: actionsFor({ readings, detail, target, wantsTurns }),
    warnings: warningsFor({ machine, readings, heights, planned: planned.plan, wantsTurns }),
    detail,
  };
}

function correctedHeights(machine: Machine, readings: DeckReadings): { heights: BladeReading[]; unmapped: number } {
  const asRead = tipsOf(readings).flatMap(({ spindleId, direction, end, heightMetres }) => {
    const spindle = machine.spindles.find(({ id }) => id === spindleId);
    if (!spindle) return [];
    const { x, y } = tipAt(spindle, direction);
    return [{ x, y, z: heightMetres, spindleId, end } as BladeReading];
  });
  if (!readings.floor) return { heights: asRead, unmapped: 0 };
  const wheels = Object.entries(readings.floor.wheels).flatMap(([wheelId, { heightMetres }]) => {
    const wheel = machine.wheels.find(({ id }) => id === wheelId);
    return wheel ? [{ ...pointOf(wheel), z: heightMetres }] : [];
  });
  const places = Object.entries(readings.floor.places).flatMap(([key, { heightMetres }]) => {
    const { spindleId, direction } = stationOf(key) ?? {};
    if (direction === undefined) return [];
    const spindle = machine.spindles.find(({ id }) => id === spindleId);
    return spindle ? [{ ...tipAt(spindle, direction), z: heightMetres }] : [];
  });
  const { heights, unmapped } = correctForFloor({ heights: asRead, datum: readings.datum, floor: { wheels, places } });
  return { heights: heights.map((height, k) => ({ ...(asRead[k] as BladeReading), z: height.z })), unmapped };
}

/** The plane of the rest of the deck where one blade decidedly stands apart, otherwise that of all readings. */
function planeInForce(whole: DeckPlane, models: readonly FittedModel[]): DeckPlane {
  const winner = decisiveModel(models);
  if (!winner || winner.model.kind === "whole-deck") return whole;
  return {
    plane: winner.plane,
    inverseNormal: winner.inverseNormal,
    readingDeviation: winner.readingDeviation,
    residuals: whole.residuals,
  };
}

const looseHangers = ({ hangers }: DeckReadings): string[] => Object.keys(hangers).filter((id) => hangers[id] === "loose");

/** A hanger that hangs loose carries nothing: the plane stands on the others, and what is wrong with it is looked at first. */
function hangerFindings(readings: DeckReadings): Finding[] {
  const loose = looseHangers(readings);
  return Object.keys(readings.hangers).map((place) =>
    loose.includes(place)
      ? { place, code: "hangs-loose", verdict: "watch", causes: pointsAt("hanger-failed") }
      : { place, code: "carries", verdict: "in-tolerance" },
  );
}

/** Level at the machine's rake, at the height wanted or, without a wish, the height it has now at the reference blade's centre. */
function deckTarget(args: { machine: Machine; readings: DeckReadings; plane: Plane; rakeMetres: number }): DeckTarget {
  const reference = referenceSpindle(args.machine);
  if (!reference) throw new Error("a deck without spindles has no target");
  const centre = pointOf(reference);
  const wanted = args.readings.wantedCutHeightMetres;
  const heightMetres = wanted === undefined ? planeHeight(args.plane, centre) : wanted + Math.abs(args.rakeMetres) / 2;
  return { heightMetres, reference: centre, sideMetres: 0, rakeMetres: args.rakeMetres };
}

const HEIGHT_TOLERANCE_METRES = 0.0015;

function heightIsOff(args: { readings: DeckReadings; plane: Plane; target: DeckTarget }): boolean {
  if (args.readings.wantedCutHeightMetres === undefined) return false;
  return Math.abs(planeHeight(args.plane, args.target.reference) - args.target.heightMetres) > HEIGHT_TOLERANCE_METRES;
}

/** A hanger whose sheet does not say what a turn does is moved by lengths: each of its "turns" is one of these, as many as it takes. */
export const LENGTH_STEP_METRES = 0.0005;
const ENOUGH_STEPS = 400;

function movesOf({ liftPerTurnMetres, step, turnsLeftUp, turnsLeftDown }: MachineHanger) {
  return liftPerTurnMetres === undefined
    ? { liftPerTurn: LENGTH_STEP_METRES, step: "hole" as const, turnsLeftUp: ENOUGH_STEPS, turnsLeftDown: ENOUGH_STEPS }
    : { liftPerTurn: liftPerTurnMetres, step, turnsLeftUp, turnsLeftDown };
}

function planFor(args: {
  machine: Machine;
  readings: DeckReadings;
  plane: Plane;
  target: DeckTarget;
  span: { widthMetres: number; tipCircleMetres: number };
}): { plan?: TurnPlan; issue?: string } {
  const { machine, readings, plane, target, span } = args;
  const hangers = (machine.deck?.hangers ?? []).map((hanger) => ({ ...hanger, ...pointOf(hanger), ...movesOf(hanger) }));
  if (hangers.length === 0) return { issue: "no-hangers" };
  const centre = machine.deck?.centreOfGravity;
  const planned = planTurns({
    plane,
    target,
    span,
    hangers,
    allLoadedBefore: !Object.values(readings.hangers).includes("loose"),
    ...(centre ? { centreOfGravity: pointOf(centre) } : {}),
  });
  return planned.kind === "planned" ? { plan: planned.plan } : { issue: planned.issue.code };
}

function tipDetails(args: {
  readings: DeckReadings;
  heights: readonly HeightAt[];
  deck: DeckPlane;
  target: Plane;
  after?: Plane;
}): TipDetail[] {
  const before = args.deck.plane;
  const tips = tipsOf(args.readings);
  const asRead = tips.map((tip, k) => ({ ...(args.heights[k] as HeightAt), z: tip.heightMetres }));
  const rulers = args.after ? rulerAfter({ tips: asRead, before, after: args.after }) : undefined;
  // Written out, not spread: this runs for every tip with every keystroke.
  return tips.map((tip, k) => {
    const at = args.heights[k] as HeightAt;
    const detail = placeOf(tip, at);
    detail.targetMetres = planeHeight(args.target, at);
    detail.residualMetres = at.z - planeHeight(before, at);
    const after = rulers?.[k];
    if (after) detail.afterMetres = after.z;
    return detail;
  });
}

/** A tip as read, standing where it should until a target is known. */
function placeOf(tip: TipReading, at: HeightAt): TipDetail {
  const detail: TipDetail = {
    key: tip.key,
    spindleId: tip.spindleId,
    direction: tip.direction,
    xMetres: at.x,
    yMetres: at.y,
    readMetres: tip.heightMetres,
    heightMetres: at.z,
    targetMetres: at.z,
    residualMetres: 0,
  };
  if (tip.end) detail.end = tip.end;
  return detail;
}

function unreadable(args: {
  machine: Machine;
  readings: DeckReadings;
  heights: readonly HeightAt[];
  span: { widthMetres: number; tipCircleMetres: number };
  issue?: { code: string; needed?: number; given?: number } | undefined;
}): Assessment<DeckDetail, Says> {
  const { machine, readings, heights, span, issue } = args;
  const candidates = unreadStations(machine, heights);
  const next = farthestStation({ read: heights, candidates });
  const tips = tipsOf(readings).map((tip, k) => placeOf(tip, heights[k] as HeightAt));
  return {
    check: "deck-level",
    ruleVersion: deckLevel.ruleVersion,
    ...settled({ check: "deck-level", findings: [], told: [], isComplete: false }),
    provisional: [],
    figures: [],
    actions: next ? [{ code: "read-next", place: stationKey(next), why: "make-a-plane" }] : [],
    warnings: [],
    detail: {
      ...span,
      tips,
      ...(issue ? { issue } : {}),
      untestedSpindleIds: machine.spindles.map(({ id }) => id),
      ...(next
        ? { nextReading: { key: stationKey(next), spindleId: next.spindleId, direction: next.direction, why: "make-a-plane" as const } }
        : {}),
    },
  };
}

function unreadStations(machine: Machine, heights: readonly HeightAt[]) {
  return allStations(machine).filter((station) => !heights.some((h) => Math.hypot(h.x - station.x, h.y - station.y) < 1e-6));
}

/** A reading to settle an undecided figure, or a spare one where three readings leave nothing to check them by. */
function nextReading(args: { machine: Machine; heights: readonly HeightAt[]; figures: readonly Figure[] }): DeckDetail["nextReading"] {
  const candidates = unreadStations(args.machine, args.heights);
  const watched = args.figures.find(({ id, verdict }) => (id === "side" || id === "rake") && verdict === "watch");
  const undecided = watched?.id === "rake" ? "rake" : "side";
  if (!watched && args.heights.length > 3) return undefined;
  const next = bestNextStation({ read: args.heights, candidates, undecided });
  if (!next) return undefined;
  return {
    key: stationKey(next),
    spindleId: next.spindleId,
    direction: next.direction,
    why: watched ? `settle-${undecided}` : "spare-reading",
  };
}

/** A blade or an end that stands apart by less is within what a straight deck shows (common practice, 1/16 in). */
const STANDS_APART_METRES = 0.0015;

/** Whether two accounts of the deck tie although something stands apart, and the reading that would tell them apart. */
function modelsApart(args: { machine: Machine; readings: DeckReadings; models: readonly FittedModel[] }) {
  const { machine, readings, models } = args;
  if (!models.slice(0, 2).some(({ departureMetres }) => Math.abs(departureMetres) > STANDS_APART_METRES)) return undefined;
  const read = tipsOf(readings);
  const hasEnds = read.some(({ end }) => end !== undefined);
  const all = hasEnds ? fullForm(machine) : allStations(machine);
  const unread = all.filter(({ key }) => !read.some((tip) => tip.key === key));
  const found = tellModelsApart(models, unread);
  if (!found) return undefined;
  const { key, spindleId, direction, end } = found.at;
  return { rivals: found.between, next: { key, spindleId, direction, why: "tell-apart" as const, ...(end ? { end } : {}) } };
}

function modelDetail(models: readonly FittedModel[]): Pick<DeckDetail, "model"> {
  const [best] = models;
  if (!best || models.length < 2) return {};
  const { model, departureMetres } = best;
  return {
    model: {
      kind: model.kind,
      ...(model.kind === "whole-deck" ? {} : { spindleId: model.spindleId }),
      departureMetres,
      isDecisive: decisiveModel(models) !== undefined,
    },
  };
}

/** Spindles whose own plane these readings cannot tell from the deck's. */
function untested(machine: Machine, models: readonly FittedModel[]): string[] {
  if (machine.spindles.length < 2) return [];
  return machine.spindles
    .map(({ id }) => id)
    .filter((id) => !models.some(({ model }) => model.kind === "spindle-plane" && model.spindleId === id));
}

function actionsFor(args: { readings: DeckReadings; detail: DeckDetail; target: DeckTarget; wantsTurns: boolean }): Says["action"][] {
  const actions: Says["action"][] = looseHangers(args.readings).map((place) => ({ code: "take-up-hanger", place }));
  if (args.wantsTurns && args.readings.tyres === "not-right") actions.push({ code: "tyres-first" });
  const turning = (args.detail.plan?.hangers ?? []).filter(({ turns, endsShort }) => turns !== 0 || endsShort);
  if (args.wantsTurns && turning.length > 0) {
    actions.push({ code: "block-deck" });
    for (const { id, ...turn } of turning) actions.push({ code: "turn-hanger", place: id, ...turn });
    const { heightMetres, reference } = args.target;
    const left = args.detail.plan ? heightMetres - planeHeight(args.detail.plan.after, reference) : 0;
    if (Math.abs(left) > HEIGHT_TOLERANCE_METRES) actions.push({ code: "height-by-lift", liftMetres: left });
  }
  const next = args.detail.nextReading;
  if (next) actions.push({ code: "read-next", place: next.key, why: next.why });
  return actions;
}

export { type DeckReadings, deckReadingsSchema, stationKey } from "./schema";
export { allStations, fullForm, quickForm, type TipStation, twistForm } from "./stations";
