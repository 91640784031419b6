import type { tipSpeedCheck } from "@/core/checks/tip-speed";
import { coming } from "../coming";
import type { Face, Told } from "../face";
import { FULL_THROTTLE, length, lower, noSuchBlade, placeName, showTipSpeed } from "../shared";

type Found = ReturnType<typeof tipSpeedCheck.assess>;

/** What this worksheet says. */
export const face: Face<typeof tipSpeedCheck> = {
  answer: saySpeeds,
  actions: {
    "look-for-load": () => "So much lost under load: look for dull edges, a packed deck, too much grass at once, a weak engine",
    "charge-sooner": () => "Charge it sooner, or change the pack: at this charge the edge tears",
    "full-throttle": () => FULL_THROTTLE,
    "read-speed-again": (a, t) =>
      `${placeName(t.machine, a.place)}: gears and shafts do not slip. Read it again, and the engine's speed with it`,
    "see-to-clutch": (a) =>
      a.how === "slips-in" ? "Blade clutch slips: gap, wiring and face to the manual" : "Blades run on: brake of the clutch to the manual",
  },
  warnings: {
    "over-tip-speed-limit": (w, t) =>
      `${placeName(t.machine, w.place)}: at or over the limit${w.mostRevolutions === undefined ? "" : `; ${w.mostRevolutions} r/min at most with this blade`}. Wrong blade length, pulley or governor setting; it stays out of service until it is found.`,
    "faster-than-paper": (w, t) =>
      `${placeName(t.machine, w.place)} turns faster than worked out: outside diameters taken for pitch diameters, or the governor is set up.`,
    "off-rated-speed": (w, t) =>
      `${placeName(t.machine, w.place)} reads ${Math.round(w.revolutions)} r/min, the sheet says ${Math.round(w.ratedRevolutions)}: another pulley or governor setting, or the sheet is wrong.`,
    "blade-stands": (w, t) => `${placeName(t.machine, w.place)}: belt off, key or pin sheared, or a gear broken.`,
    "too-slow-to-cut": (w, t) => `${placeName(t.machine, w.place)}: so slow an edge pushes and tears rather than cuts, and lifts little.`,
  },
  provisional: {
    "spindle-unread": (r, t) => `${lower(placeName(t.machine, r.place))} not read`,
    "tip-circle-estimated": (r, t) =>
      `the tip circle of the ${lower(placeName(t.machine, r.place))} is an estimate: measure the blade, corner to corner`,
    "tip-circle-contradicted": (r, t) =>
      `the sheet says ${length(r.metres, t.system)} and ${length(r.otherMetres, t.system)} of the ${lower(placeName(t.machine, r.place))}: measure it; reckoned with the larger`,
  },
  problems: {
    "unknown-spindle": noSuchBlade,
  },
  states: {
    right: "right",
    "over-limit": "over the limit",
    slips: "slips",
    slower: "slower",
    stands: "stands still",
    "faster-than-paper": "faster than worked out",
    "not-as-geared": "slower than its gears give",
    "at-once": "takes hold at once",
    "slips-in": "slips in",
    "drags-off": "runs on",
    "too-slow": "too slow",
    "loses-speed": "loses speed under load",
    "near-limit": "near its limit",
    sags: "sags at low charge",
  },
  figures: {
    "paper-tip-speed": "Tip speed on paper",
    "tip-speed": "Tip speed",
    "loaded-tip-speed": "Tip speed at work",
    "spindle-speed": "Turns at",
    slip: "Slip",
    droop: "Lost under load",
    "lift-left": "Lift left",
    bite: "Bite of each edge",
    "low-charge-tip-speed": "Tip speed, low charge",
  },
  parts: {
    clutch: "Blade clutch",
  },
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
};

function saySpeeds(found: Found, { machine, system }: Told): string {
  const { detail, figures, warnings, verdict } = found;
  const over = warnings.find((warning) => warning.code === "over-tip-speed-limit");
  if (over) {
    const limit = showTipSpeed(over.limitMetresPerSecond, system);
    return `Do not run it: ${lower(placeName(machine, over.place))} is over the limit of ${limit}. Hold it out.`;
  }
  const fastest = Math.max(...figures.filter(({ id }) => id === "paper-tip-speed").map(({ value }) => value));
  if (detail.spindles.length === 0)
    return Number.isFinite(fastest)
      ? `Works out at ${showTipSpeed(fastest, system)}, under the limit. Now read it.`
      : "Work it out, then read every spindle.";
  const slowest = [...detail.spindles].sort((a, b) => a.revolutionsPerMinute - b.revolutionsPerMinute)[0];
  const named = placeName(machine, slowest?.spindleId ?? "");
  if (detail.pattern === "one-stopped") return `${named} stands still.`;
  if (detail.pattern === "several-stopped")
    return detail.spindles.every(({ revolutionsPerMinute }) => revolutionsPerMinute === 0)
      ? "No blade turns."
      : "Several blades stand still.";
  if (detail.pattern === "one-low") return `${named} turns slower than its sisters.`;
  if (detail.pattern === "all-low") return detail.spindles.length > 1 ? "All blades are slow." : "The blade is slow.";
  if (detail.pattern === "mixed") return "The blades do not turn alike.";
  if (verdict === "not-enough-readings") return "Read every spindle.";
  const sags = figures.filter(({ id, verdict: found }) => id === "low-charge-tip-speed" && found !== "in-tolerance");
  const lift = Math.min(...figures.filter(({ id }) => id === "lift-left").map(({ value }) => value));
  const left = Number.isFinite(lift) ? ` ${Math.round(lift * 100)} % of the lift is left.` : "";
  if (sags.length > 0) return `Sags at low charge.${left}`;
  const droop = figures.find(({ id, verdict: found }) => id === "droop" && found === "out");
  if (droop) return `Loses ${Math.round(droop.value * 100)} % under load.${left}`;
  const slip = figures.find(({ id, verdict: found }) => id === "slip" && found === "out");
  const fast = found.findings.find(({ code }) => code === "faster-than-paper");
  if (fast) return `${placeName(machine, fast.place)} turns faster than worked out: find which is wrong, the pulleys or the governor.`;
  if (slip) return `${placeName(machine, slip.place ?? "")} loses ${Math.round(slip.value * 100)} % to slip.`;
  const geared = found.findings.find(({ code }) => code === "not-as-geared");
  if (geared) return `${placeName(machine, geared.place)} turns slower than its gears give: read it again.`;
  const slow = figures.filter(({ id, verdict: found }) => (id === "tip-speed" || id === "loaded-tip-speed") && found === "out");
  if (slow.length > 0)
    return `${slow.length > 1 ? "Blades are" : `${placeName(machine, slow[0]?.place ?? "")} is`} too slow to cut.${left}`;
  if (verdict === "out") return `Tip speed is off.${left}`;
  return verdict === "watch" ? `Tip speed close to a limit.${left}` : `Tip speed right.${left}`;
}
