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
    "replace-set": () => "Fit a new, matching set: blades of one deck go together",
    "sharpen-set": (a, t) =>
      `Take ${length(a.stockMetres, t.system)} off under the deepest nick, equally at both ends, the whole set${a.grindsLeft === undefined ? "" : `; ${a.grindsLeft} more after that`}`,
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
    "no-grind-left": "no grind left",
    "below-least-length": "shorter than its limit",
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

function sayEdge(assessment: Found, told: Told): string {
  const { detail, actions } = assessment;
  const { machine, system } = told;
  const scrap = detail.blades.find(({ scrap: reasons }) => reasons.length > 0);
  if (scrap) return `${placeName(machine, scrap.spindleId)}: ${stateIn(face, scrap.scrap[0])}. Scrap it; the set goes with it.`;
  const short = actions.find((action) => action.code === "replace-set" && action.why === "short");
  if (short) return "Worn short, however sharp: replace the set.";
  if (detail.advice === "replace")
    return detail.blades.some((one) => (one.grindsLeft ?? 0) < 0)
      ? "No grind left: replace the set."
      : "Replace the set: cheaper by the hour.";
  if (detail.advice === "leave") return "Sharp and whole: leave them.";
  if (detail.advice === "sharpen") {
    const stock = Math.max(...detail.blades.map(({ stockMetres }) => stockMetres ?? 0));
    return `Sharpen the set: ${show(stock, "length", system, "fine")} to take off.`;
  }
  return "Look at both ends of every blade.";
}
