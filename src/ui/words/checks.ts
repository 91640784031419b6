import type { Action, Assessment, DeckDetail, TyreDetail } from "@/core/checks";
import type { Movement, StaleReason } from "@/core/events";
import type { Figure, ProvisionalReason, Standing, Tolerance, Verdict, Warning } from "@/core/findings";
import { type Machine, type Standpoint, turnSeenFrom } from "@/core/machine";
import { type Dimension, formatQuantity, formatTurns, fromSi, type Instrument, type UnitSystem } from "@/core/units";

export const VERDICT_WORDS: Record<Verdict, string> = {
  "in-tolerance": "In tolerance",
  watch: "Watch",
  out: "Out",
  stop: "Stop",
  "not-enough-readings": "Not enough readings",
};

export const STANDING_WORDS: Record<Standing, string> = {
  sheet: "machine's sheet",
  measured: "measured here",
  "common-practice": "common practice",
  "published-from-memory": "published, from memory",
  physics: "physics",
  estimate: "estimate",
  "say-so": "say-so",
};

export type Told = { machine: Machine; system: UnitSystem };

/** How a worksheet's result is said. */
export type Words = {
  answer: (assessment: Assessment, told: Told) => string;
  action: (action: Action, told: Told & { standpoint: Standpoint }) => string;
  warning: (warning: Warning, told: Told) => string;
  provisional: (reason: ProvisionalReason, told: Told) => string;
  figureName: (figure: Figure, machine: Machine) => string;
  figureValue: (figure: Figure, system: UnitSystem) => string;
};

export function show(valueSi: number, dimension: Dimension, system: UnitSystem, instrument: Instrument = "tape"): string {
  return formatQuantity({ valueSi, dimension, system, instrument }).text;
}

/** Tip speeds are said in feet a minute or metres a second, whatever travel is said in. */
export function showTipSpeed(metresPerSecond: number, system: UnitSystem): string {
  return system === "us"
    ? `${Math.round(fromSi(metresPerSecond, "ft/min")).toLocaleString("en-US")} ft/min`
    : `${metresPerSecond.toFixed(1)} m/s`;
}

/** A size without its sign. A difference under half a sixteenth shows in decimals, not as 0. */
export function showSize(metres: number, system: UnitSystem): string {
  const size = Math.abs(metres);
  const tape = formatQuantity({ valueSi: size, dimension: "length", system, instrument: "tape" });
  return tape.number === "0" ? show(size, "length", system, "fine") : tape.text;
}

/** The name of a wheel, blade, hanger or tip as it stands on the machine's sheet. */
export function placeName(machine: Machine, place: string): string {
  const [first, direction, end] = place.split(":");
  const named = [...machine.wheels, ...machine.spindles, ...(machine.deck?.hangers ?? []), ...machine.units].find(({ id }) => id === first);
  const base = named?.label ?? first ?? place;
  const tip = direction ? `${base}, tip to the ${direction}` : base;
  return end ? `${tip}, end ${end}` : tip;
}

/** The verdict first, as one says it at the machine; then what to do. */
export function sayAnswer(assessment: Assessment, told: Told): string {
  if (assessment.check === "tyre-pressure") return sayTyres(assessment as Assessment<TyreDetail>, told);
  if (assessment.check === "deck-level") return sayDeck(assessment as Assessment<DeckDetail>, told);
  return VERDICT_WORDS[assessment.verdict];
}

function sayTyres(assessment: Assessment<TyreDetail>, { machine, system }: Told): string {
  const stopped = assessment.warnings.find(({ code }) => code === "above-moulded-maximum");
  if (stopped) return `Let air out of ${placeName(machine, stopped.place ?? "").toLowerCase()} now: above the tyre's own maximum.`;
  const set = assessment.actions.filter((action) => action.code === "set-pressure");
  const bad = assessment.figures.filter(({ verdict }) => verdict === "out");
  if (bad.length > 0 && set.length > 0) {
    return set
      .map((action) => {
        const by = action.toPascals - action.fromPascals;
        return `${placeName(machine, action.place)} ${show(Math.abs(by), "pressure", system, "gauge")} ${by > 0 ? "low" : "high"}`;
      })
      .join(". ")
      .concat(".");
  }
  if (assessment.actions.some(({ code }) => code === "ask-sheet-pressure"))
    return "The sheet names no pressure. The figure on the tyre is its maximum, never a target.";
  if (assessment.verdict === "not-enough-readings") return "Read every tyre.";
  return assessment.verdict === "watch" ? "Tyres close to the limit." : "Tyres right.";
}

function sayDeck(assessment: Assessment<DeckDetail>, { machine, system }: Told): string {
  const { detail } = assessment;
  if (detail.issue?.code === "collinear-readings") return "All readings on one line: read a tip off that line.";
  if (detail.issue) return `${(detail.issue.needed ?? 3) - (detail.issue.given ?? 0)} more to make a plane.`;
  if (!detail.side || !detail.rake) return "No plane yet.";
  const side = assessment.figures.find(({ id }) => id === "side");
  const rake = assessment.figures.find(({ id }) => id === "rake");
  const level =
    side?.verdict === "in-tolerance"
      ? "Level side to side."
      : `${detail.side.value > 0 ? "Left" : "Right"} side ${showSize(detail.side.value, system)} low${side?.verdict === "watch" ? ", too close to call" : ""}.`;
  const target = rake?.tolerance?.kind === "about" ? rake.tolerance.target : 0;
  const off = detail.rake.value - target;
  const nose =
    rake?.verdict === "in-tolerance"
      ? "Rake right."
      : `Nose ${showSize(off, system)} too ${off > 0 ? "high" : "low"}${rake?.verdict === "watch" ? ", too close to call" : ""}.`;
  const odd =
    detail.model && detail.model.kind !== "whole-deck" && detail.model.isDecisive ? ` ${sayModel(detail.model, machine, system)}` : "";
  const tied = detail.rivals ? " Cannot tell yet what stands apart." : "";
  return `${level} ${nose}${odd}${tied}`;
}

function sayModel(model: NonNullable<DeckDetail["model"]>, machine: Machine, system: UnitSystem): string {
  const name = placeName(machine, model.spindleId ?? "");
  const size = showSize(model.departureMetres, system);
  if (model.kind === "spindle-plane") return `${name} stands ${size} off the rest: mount or shell bent.`;
  return `${name}: one end ${size} off the other. Blade or shaft bent; swap it end for end to tell.`;
}

/** What to do with an adjuster, and which way round from where the mechanic stands. */
export function sayTurn(
  action: Extract<Action, { code: "turn-hanger" }>,
  { machine, standpoint }: { machine: Machine; standpoint: Standpoint },
): string {
  const hanger = machine.deck?.hangers.find(({ id }) => id === action.place);
  const name = hanger?.label ?? action.place;
  if (action.turns === 0) return `${name}: at its end, cannot go further`;
  const up = action.turns > 0;
  const unit = hanger?.step === "hole" ? (Math.abs(action.turns) === 1 ? "hole" : "holes") : Math.abs(action.turns) <= 1 ? "turn" : "turns";
  const other = hanger?.upIs === "clockwise" ? "anticlockwise" : "clockwise";
  const way = hanger?.upIs ? `, ${turnSeenFrom(standpoint, up ? hanger.upIs : other)}` : "";
  return `${name}: ${formatTurns(action.turns)} ${unit} ${up ? "up" : "down"}${way}`;
}

export function sayAction(action: Action, told: Told & { standpoint: Standpoint }): string {
  const { machine, system } = told;
  switch (action.code) {
    case "turn-hanger":
      return sayTurn(action, told);
    case "set-pressure":
      return `${placeName(machine, action.place)}: ${show(action.fromPascals, "pressure", system, "gauge")} → ${show(action.toPascals, "pressure", system, "gauge")}`;
    case "ask-sheet-pressure":
      return `${placeName(machine, action.place)}: get the pressure from the machine's sheet`;
    case "find-leak":
      return `${placeName(machine, action.place)}: under half, look for the leak`;
    case "read-next":
      return `Read next: ${placeName(machine, action.place)} (${READ_WHY[action.why] ?? action.why})`;
    case "block-deck":
      return "Blocks under the deck before any hanger is slackened";
    case "tyres-first":
      return "Set the tyres first: a level set on bad tyres is wrong";
    default:
      return action.code.replaceAll("-", " ");
  }
}

const READ_WHY: Record<string, string> = {
  "settle-side": "settles the side",
  "settle-rake": "settles the rake",
  "make-a-plane": "makes a plane",
  "spare-reading": "a spare reading checks the others",
  "tell-apart": "tells one blade's mount from one bent end, or from the whole deck",
};

const WARNINGS: Record<string, (warning: Warning, told: Told) => string> = {
  "gauge-too-coarse": (w, t) =>
    `The gauge steps by ${show(Number(w.stepPascals), "pressure", t.system, "gauge")}, more than the tolerance: use a 0 to 30 psi gauge.`,
  "above-moulded-maximum": (w, t) =>
    `${placeName(t.machine, w.place ?? "")}: above the ${show(Number(w.maximumPascals), "pressure", t.system, "gauge")} moulded on the tyre. Stand aside, let air out.`,
  "below-sheet-least": (w, t) =>
    `${placeName(t.machine, w.place ?? "")}: under the sheet's least of ${show(Number(w.leastPascals), "pressure", t.system, "gauge")}. Not on slopes.`,
  "no-sheet-pressure": (w, t) =>
    `${placeName(t.machine, w.place ?? "")}: no pressure on the sheet. The moulded figure is a maximum, not a target.`,
  "pressure-offset-in-use": (w, t) =>
    `This machine runs ${show(Math.abs(Number(w.offsetPascals)), "pressure", t.system, "gauge")} under the sheet, both sides alike.`,
  "no-spare-reading": () => "Three readings always make a plane: a fourth shows whether they agree.",
  "rake-from-one-blade": () => "Rake rests on one blade only: incomplete for a deck that was dropped, struck or refitted.",
  "height-over-range": (w, t) =>
    `${placeName(t.machine, w.place ?? "")}: over the sheet's highest setting of ${show(Number(w.mostMetres), "length", t.system)}. Sure?`,
  "height-under-range": (w, t) =>
    `${placeName(t.machine, w.place ?? "")}: under the sheet's lowest setting of ${show(Number(w.leastMetres), "length", t.system)}. Sure?`,
  "adjuster-ends-short": (w, t) =>
    `${placeName(t.machine, w.place ?? "")}: the adjuster ends before it gets there. Look for a bent link or wrong hole.`,
  "hanger-would-hang-free": (w, t) =>
    `${placeName(t.machine, w.place ?? "")} would hang free by ${showSize(Number(w.slackMetres), t.system)}: the other three would carry the deck.`,
};

export function sayWarning(warning: Warning, told: Told): string {
  return WARNINGS[warning.code]?.(warning, told) ?? warning.code.replaceAll("-", " ");
}

const PROVISIONAL: Record<string, (reason: ProvisionalReason, told: Told) => string> = {
  "tyres-not-checked": () => "tyres not checked in this job",
  "tyres-not-right": () => "tyres not right, or changed since",
  "tyre-unread": (r, t) => `${placeName(t.machine, String(r.place)).toLowerCase()} not read`,
  "floor-not-mapped": (r) => `floor not mapped under ${r.count} of the tips`,
  "level-without-floor": () => "read from a level, but the wheels' floor is not mapped",
  "blades-not-known-straight": () => "the blades are not known straight: track them, or turn the same end to every place",
  "hangers-first": () => "after a drop or a strike the hangers are looked at before any level is believed",
  "rake-wanted-on-both-outer-blades": () => "after a drop, strike or refit the rake is wanted on both outer blades",
};

export function sayProvisional(reason: ProvisionalReason, told: Told): string {
  return PROVISIONAL[reason.code]?.(reason, told) ?? reason.code.replaceAll("-", " ");
}

/** Why a reading no longer holds, with the movement reckoned where it can be. */
export function sayStale(reason: StaleReason, told: Told & { label: string; time: string }): string {
  const moved = reason.movement ? `; ${sayMovement(reason.movement, told)}` : "";
  return `${told.label.toLowerCase()} at ${told.time} (${reason.who})${moved}`;
}

export function sayMovement(movement: Movement, { machine, system }: Told): string {
  const place = placeName(machine, `${movement.spindleId}:${movement.direction}`).toLowerCase();
  const [least, most] = [
    Math.min(Math.abs(movement.least), Math.abs(movement.most)),
    Math.max(Math.abs(movement.least), Math.abs(movement.most)),
  ];
  return `${place} reckoned ${show(least, "length", system, "fine")} to ${show(most, "length", system, "fine")} ${movement.change > 0 ? "up" : "down"} (estimate)`;
}

const FIGURE_WORDS: Record<string, string> = {
  pressure: "Pressure",
  "axle-difference": "Right minus left",
  side: "Side, right minus left",
  rake: "Rake, front minus rear",
  "rake-tip-to-tip": "Rake, tip to tip",
  "cut-height": "Cuts at",
  "largest-residual": "Worst reading off the plane",
};

export function figureName(figure: Figure, machine: Machine): string {
  const name = FIGURE_WORDS[figure.id] ?? figure.id.replaceAll("-", " ");
  if (!figure.place) return name;
  const axle = figure.id === "axle-difference" ? `${figure.place} axle` : placeName(machine, figure.place);
  return figure.id === "pressure" ? axle : `${name}, ${axle.toLowerCase()}`;
}

const isTipSpeed = ({ id }: Figure) => id.endsWith("tip-speed");

export function figureValue(figure: Figure, system: UnitSystem): string {
  if (isTipSpeed(figure)) return showTipSpeed(figure.value, system);
  const dimension = figure.dimension as Dimension;
  const value = show(figure.value, dimension, system, figure.instrument);
  return figure.standardError === undefined
    ? value
    : `${value} ± ${formatQuantity({ valueSi: figure.standardError, dimension, system, instrument: "gauge" }).number}`;
}

export function toleranceWords(tolerance: Tolerance, figure: Figure, system: UnitSystem): string {
  const dimension = figure.dimension as Dimension;
  const said = (value: number) => (isTipSpeed(figure) ? showTipSpeed(value, system) : show(value, dimension, system, figure.instrument));
  const word = STANDING_WORDS[tolerance.standing];
  if (tolerance.kind === "about") return `${said(tolerance.target)} ± ${said(tolerance.plusMinus)} · ${word}`;
  const least = tolerance.least === undefined ? "" : `from ${said(tolerance.least)} `;
  const most = tolerance.most === undefined ? "" : `up to ${said(tolerance.most)}`;
  return `${least}${most} · ${word}`.trim();
}

/** The words of the worksheets that are read on the drawing. */
export const PLACE_WORDS: Words = {
  answer: sayAnswer,
  action: sayAction,
  warning: sayWarning,
  provisional: sayProvisional,
  figureName,
  figureValue,
};
