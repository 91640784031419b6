import { formatTurns, type UnitSystem } from "@/core/basics/units";
import type { DeckDetail } from "@/core/checks";
import { type deckLevel, LENGTH_STEP_METRES } from "@/core/checks/deck-level";
import { type Machine, turnSeenFrom } from "@/core/machine";
import { coming } from "../coming";
import type { Face, Told, ToldFrom } from "../face";
import { length, noSuchBlade, placeName, show, showSize } from "../shared";

type Found = ReturnType<typeof deckLevel.assess>;

/** What this worksheet says. */
export const face: Face<typeof deckLevel> = {
  answer: sayDeck,
  actions: {
    "tyres-first": () => "Set the tyres first: a level set on bad tyres is wrong",
    "block-deck": () => "Blocks under the deck before any hanger is slackened",
    "take-up-hanger": (a, t) =>
      `${placeName(t.machine, a.place)} carries nothing: look at its link and pin, take it up until it carries, then read the level again`,
    "turn-hanger": (a, t) => sayTurn(a, t),
    "height-by-lift": (a, t) =>
      `Then the height: ${showSize(a.liftMetres, t.system)} ${a.liftMetres > 0 ? "up" : "down"} by the deck's lift. The hangers do not reach that far level`,
    "read-next": (a, t) => `Read next: ${placeName(t.machine, a.place)} (${READ_WHY[a.why]})`,
  },
  warnings: {
    "no-spare-reading": () => "Three readings always make a plane: a fourth shows whether they agree.",
    "rake-from-one-blade": () => "Rake rests on one blade only: incomplete for a deck that was dropped, struck or refitted.",
    "height-over-range": (w, t) =>
      `${placeName(t.machine, w.place)}: over the sheet's highest setting of ${show(w.mostMetres, "length", t.system)}. Sure?`,
    "height-under-range": (w, t) =>
      `${placeName(t.machine, w.place)}: under the sheet's lowest setting of ${show(w.leastMetres, "length", t.system)}. Sure?`,
    "adjuster-ends-short": (w, t) =>
      `${placeName(t.machine, w.place)}: the adjuster ends before it gets there. Look for a bent link or wrong hole.`,
    "hanger-would-hang-free": (w, t) =>
      `${placeName(t.machine, w.place)} would hang free by ${showSize(w.slackMetres, t.system)}: the other three would carry the deck.`,
  },
  provisional: {
    "tyres-not-checked": () => "tyres not checked in this job",
    "tyres-not-right": () => "tyres not right, or changed since",
    "floor-not-mapped": (r) => `floor not mapped under ${r.count} of the tips`,
    "level-without-floor": () => "read from a level, but the wheels' floor is not mapped",
    "blades-not-known-straight": () => "the blades are not known straight: track them, or turn the same end to every place",
    "hangers-first": () => "after a drop or a strike the hangers are looked at before any level is believed",
    "hanger-loose": (r, t) => `${placeName(t.machine, r.place)} hung loose: level and turns stand on the others alone`,
    "rake-wanted-on-both-outer-blades": () => "after a drop, strike or refit the rake is wanted on both outer blades",
  },
  problems: {
    "unknown-spindle": noSuchBlade,
    "unknown-place": (i) => `This deck has no place called “${i.place}”.`,
    "unknown-wheel": (i) => `This machine has no air-filled wheel called “${i.place}”.`,
    "unknown-hanger": (i) => `This machine has no hanger called “${i.place}”.`,
    "height-above-deck-range": (i, s) =>
      `Higher than this deck can stand: its sheet ends at ${length(i.mostMetres, s, "tape")}. Read it again.`,
    "height-below-deck-range": (i, s) =>
      `Lower than this deck can stand: its sheet starts at ${length(i.leastMetres, s, "tape")}. Read it again.`,
  },
  states: {
    side: "side to side",
    rake: "rake",
    "hangs-loose": "hangs loose",
    carries: "carries",
  },
  figures: {
    side: "Side, right minus left",
    rake: "Rake, front minus rear",
    "rake-tip-to-tip": "Rake, tip to tip",
    "cut-height": "Cuts at",
    "largest-residual": "Oddest reading, by",
  },
  parts: {
    deck: "Deck",
  },
  over: coming(() => import("./over").then(({ Over }) => Over)),
  beneath: coming(() => import("./beneath").then(({ Beneath }) => Beneath)),
  more: coming(() => import("./more").then(({ More }) => More)),
  trend: { title: "Level", lines: { side: "side, right minus left", rake: "rake, nose too high" } },
};

function sayDeck(assessment: Found, { machine, system }: Told): string {
  const { detail } = assessment;
  const nearLimit = (figure: Found["figures"][number] | undefined): string =>
    figure?.verdict !== "watch" ? "" : detail.nextReading?.why.startsWith("settle") ? ", too close to call" : ", near its limit";
  if (detail.issue?.code === "collinear-readings") return "All readings on one line: read a tip off that line.";
  if (detail.issue) return `${(detail.issue.needed ?? 3) - (detail.issue.given ?? 0)} more to make a plane.`;
  if (!detail.side || !detail.rake) return "No plane yet.";
  const side = assessment.figures.find(({ id }) => id === "side");
  const rake = assessment.figures.find(({ id }) => id === "rake");
  const level =
    side?.verdict === "in-tolerance"
      ? "Level side to side."
      : `${detail.side.value > 0 ? "Left" : "Right"} side ${showSize(detail.side.value, system)} low${nearLimit(side)}.`;
  const target = rake?.tolerance?.kind === "about" ? rake.tolerance.target : 0;
  const off = detail.rake.value - target;
  const nose =
    rake?.verdict === "in-tolerance" ? "Rake right." : `Nose ${showSize(off, system)} too ${off > 0 ? "high" : "low"}${nearLimit(rake)}.`;
  const odd =
    detail.model && detail.model.kind !== "whole-deck" && detail.model.isDecisive ? ` ${sayModel(detail.model, machine, system)}` : "";
  const tied = detail.rivals ? " Cannot tell yet what stands apart." : "";
  const loose = assessment.findings
    .filter(({ code }) => code === "hangs-loose")
    .map(({ place }) => ` ${placeName(machine, place)} hangs loose.`)
    .join("");
  return `${level} ${nose}${odd}${tied}${loose}`;
}

function sayModel(model: NonNullable<DeckDetail["model"]>, machine: Machine, system: UnitSystem): string {
  const name = placeName(machine, model.spindleId ?? "");
  const size = showSize(model.departureMetres, system);
  if (model.kind === "spindle-plane") return `${name} stands ${size} off the rest: mount or shell bent.`;
  return `${name}: one end ${size} off the other. Blade or shaft bent; swap it end for end to tell.`;
}

/** What to do with an adjuster, and which way round from where the mechanic stands. */
export function sayTurn(
  action: { place: string; turns: number },
  { machine, standpoint, system }: Pick<ToldFrom, "machine" | "standpoint" | "system">,
): string {
  const hanger = machine.deck?.hangers.find(({ id }) => id === action.place);
  const name = hanger?.label ?? action.place;
  if (action.turns === 0) return `${name}: at its end, cannot go further`;
  const up = action.turns > 0;
  if (hanger && hanger.liftPerTurnMetres === undefined)
    return `${name}: ${showSize(action.turns * LENGTH_STEP_METRES, system)} ${up ? "up" : "down"}, by the ruler: its lift per turn is not on the sheet`;
  const unit = hanger?.step === "hole" ? (Math.abs(action.turns) === 1 ? "hole" : "holes") : Math.abs(action.turns) <= 1 ? "turn" : "turns";
  const other = hanger?.upIs === "clockwise" ? "anticlockwise" : "clockwise";
  const way = hanger?.upIs
    ? `, ${turnSeenFrom(standpoint, up ? hanger.upIs : other)} seen from ${standpoint === "underneath" ? "below" : "above"}`
    : "";
  return `${name}: ${formatTurns(action.turns)} ${unit} ${up ? "up" : "down"}${way}`;
}

const READ_WHY: Record<NonNullable<DeckDetail["nextReading"]>["why"], string> = {
  "settle-side": "settles the side",
  "settle-rake": "settles the rake",
  "make-a-plane": "one more reading",
  "spare-reading": "a spare reading checks the others",
  "tell-apart": "tells one blade's mount from one bent end, or from the whole deck",
};
