import type { bladeEdge } from "@/core/checks/blade-edge";
import { coming } from "../coming";
import type { Face, Told } from "../face";
import { length, NEVER_STRAIGHTEN, noSuchBlade, placeName, sayScrap, show, stateIn, unread } from "../shared";

type Found = ReturnType<typeof bladeEdge.assess>;

/** What this worksheet says. */
export const face: Face<typeof bladeEdge> = {
  answer: sayEdge,
  actions: {
    "scrap-blade": sayScrap(() => face),
    "compare-bend": (a, t) =>
      `${placeName(t.machine, a.place)}: hold it against the old one or a sister, or track it, before it is scrap: a new blade has a curve of its own`,
    "leave-nick": (a, t) => `Leave it: ${length(a.depthMetres, t.system)} is wear, and the other end cuts where the nick is`,
    "replace-nicked": (a) =>
      `Or replace ${a.count === 1 ? "that blade" : `those ${a.count}`} alone, with one as long as its sisters${money(a)}`,
    "grind-under-nick": (a, t) => `Or grind all ${a.count} under it: ${length(a.stockMetres, t.system)} off good edges too${money(a)}`,
    "replace-set": (a) => `Fit a new, matching set: blades of one deck go together${perHour(a)}`,
    "sharpen-set": (a, t) =>
      `Take ${length(a.stockMetres, t.system)} off under the deepest nick, equally at both ends, the whole set${a.grindsLeft === undefined ? "" : `; about ${a.grindsLeft} more after that`}${perHour(a)}`,
    "leave-set": () => "Nothing to grind",
  },
  warnings: {
    "never-straighten": () => NEVER_STRAIGHTEN,
    "worn-short-however-sharp": (w, t) => `Neighbours share only ${length(w.overlapMetres, t.system)}: worn out however sharp.`,
  },
  provisional: {
    "place-unread": unread(() => face),
  },
  problems: {
    "unknown-spindle": noSuchBlade,
  },
  states: {
    sharp: "sharp",
    crack: "cracked",
    bend: "bent",
    "slot-forming": "slot forming by the sail",
    dull: "dull",
    rounded: "edge rounded",
    nicked: "nicked",
    "sail-worn-through": "sail worn through",
    "sail-half-gone": "sail half gone",
    "below-least-width": "narrower than its limit",
    "no-grind-left": "hardly a grind left",
    "bend-to-compare": "looks bent, not yet compared",
    "sail-at-limit": "sail getting thin",
    "width-at-limit": "as narrow as it may be",
    "length-at-limit": "as short as it may be",
    "below-least-length": "shorter than its limit",
    "near-short": "nearly worn short",
    "worn-short": "worn short, however sharp",
  },
  figures: {
    "deepest-nick": "Deepest nick",
    "stock-to-remove": "To take off",
    "sail-thinnest": "Sail, thinnest",
    "tip-width": "Width at the tip",
    "blade-length": "Length",
    "grinds-left": "Sharpenings left",
  },
  parts: {
    set: "The set",
  },
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
};

/** Money only where somebody gave a price; its currency where somebody gave one. */
const sum = (amount: number, currency: string | undefined) => `${amount.toFixed(2)}${currency ? ` ${currency}` : ""}`;

function money({ amount, currency }: { amount?: number; currency?: string }): string {
  return amount === undefined ? "" : `, ${sum(amount, currency)}`;
}

function perHour({ sharpened, replaced, currency }: { sharpened?: number; replaced?: number; currency?: string }): string {
  if (sharpened === undefined || replaced === undefined) return "";
  return `. An hour: sharpened ${sum(sharpened, currency)}, replaced ${sum(replaced, currency)}`;
}

function sayEdge(assessment: Found, told: Told): string {
  const { detail, actions } = assessment;
  const { machine, system } = told;
  const scrap = detail.blades.find(({ scrap: reasons }) => reasons.length > 0);
  if (scrap) return `${placeName(machine, scrap.spindleId)}: ${stateIn(face, scrap.scrap[0])}. Scrap it; the set goes with it.`;
  const short = actions.find((action) => action.code === "replace-set" && action.why === "short");
  if (short) return "Worn short, however sharp: replace the set.";
  if (detail.advice === "replace")
    return detail.blades.some(({ pastLimitMetres = 0 }) => pastLimitMetres > 0)
      ? "Hardly a grind left: replace the set."
      : "Replace the set: cheaper by the hour.";
  if (detail.blades.some(({ isBendOpen }) => isBendOpen)) return "One looks bent: compare it before it is scrap, and do not run it.";
  if (detail.nick) {
    const { places, deepestMetres } = detail.nick;
    const where = places.map((place) => placeName(machine, place)).join(", ");
    return `${where}: a nick of ${show(deepestMetres, "length", system, "fine")}; the others are sharp. Yours to choose.`;
  }
  if (detail.advice === "leave") return "Sharp and whole: leave them.";
  if (detail.advice === "sharpen") {
    const stock = Math.max(...detail.blades.map(({ stockMetres }) => stockMetres ?? 0));
    return `Sharpen the set: ${show(stock, "length", system, "fine")} to take off.`;
  }
  return "Look at both ends of every blade.";
}
