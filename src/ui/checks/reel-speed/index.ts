import type { reelSpeed } from "@/core/checks/reel-speed";
import { coming } from "../coming";
import type { Face, Told } from "../face";
import { length, placeIn, placeName, sayMarks, show } from "../shared";
import { noSuchUnit, unitIn, unitUnread } from "../unit-words";

type Found = ReturnType<typeof reelSpeed.assess>;

/** What this worksheet says. */
export const face: Face<typeof reelSpeed> = {
  answer: sayClip,
  actions: {
    "drive-between": (a, t) =>
      `Drive ${show(a.leastMetresPerSecond, "speed", t.system, "gauge")} to ${show(a.mostMetresPerSecond, "speed", t.system, "gauge")}, throttle full`,
    "reel-faster": (a, t) => unitIn(face, t.machine, a.place, `reel to at least ${Math.ceil(a.revolutions / 10) * 10} r/min`),
    "reel-slower": (a, t) => unitIn(face, t.machine, a.place, `reel to at most ${Math.floor(a.revolutions / 10) * 10} r/min`),
    "look-at-own-drive": (a, t) =>
      `${placeName(t.machine, a.place)} is slow by itself: its belt or motor, a dragging bearing, a contact set too tight`,
    "height-for-clip": (a, t) =>
      `The ground turns this reel: its clip suits heights from ${length(a.leastMetres, t.system, "fine")} to ${length(a.mostMetres, t.system, "fine")}, at any speed`,
    "full-throttle-first": () => "Reels under their rated speed: throttle, governor, oil or belt first; speed after",
    "second-speed": () => "Mow a strip at half as fast again and measure the ripples there: that tells a reel from a roller",
  },
  warnings: {
    "blades-for-height": (w, t) =>
      `${placeIn(face, t.machine, w.place)}: ${w.blades} blades are ${w.says === "too-many" ? "many" : "few"} for this height (common practice: up to 8 over half an inch, from 11 under).`,
    "ground-driven": () => "Driven by the ground: the clip is the same at every speed, so driving slower mends nothing.",
    "both-fall": () => "Engine below its speed slows travel with the reels here: clip changes little, the cut still suffers.",
    "operating-finding": () => "A matter of operation, kept apart from faults: agree the speed with the operator.",
  },
  provisional: {
    "unit-unread": unitUnread(() => face),
    "no-speed": () => "no ground speed",
    "no-height": () => "no height of cut",
    "one-run": () => "timed once only",
    "not-loaded": (r, t) => `${placeIn(face, t.machine, r.place).toLowerCase()} read without grass: it falls under load`,
  },
  problems: { "unknown-unit": noSuchUnit },
  states: {
    right: "clip right",
    "clip-long": "clip too long: ripples",
    "clip-short": "clip too short: browning",
    "clip-longish": "clip a little over the height",
    "clip-shortish": "clip short of the best",
    "reel-slow": "reel under its speed",
    "reel-near-slow": "reel nearly under its speed",
  },
  figures: {
    travels: "Travels at",
    clip: "Clip",
    "ripple-cusp": "Ripples stand at least",
    "ripple-rise": "Ripples stand at most",
    "reel-turns": "Reel",
    "ripple-spacing": "Ripples counted, one every",
    "ripple-spacing-second": "Ripples the second time, one every",
    "ripple-turns": "Reel by its ripples",
  },
  isPlanless: true,
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
};

function sayClip(found: Found, told: Told): string {
  const { clips, heightMetres } = found.detail;
  const [longest] = [...clips].sort((a, b) => b.clipMetres - a.clipMetres);
  if (!longest || heightMetres === undefined) return "Time a run, read the reels, give the height of cut.";
  const share = Math.round((longest.clipMetres / heightMetres) * 100);
  const clip = `${length(longest.clipMetres, told.system)}, ${share} % of the height`;
  const worst = sayMarks(face, found, told, "");
  return worst === "" ? `Clip ${clip}.` : `${worst} ${clip}.`;
}
