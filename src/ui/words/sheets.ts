import type {
  Assessment,
  BalanceDetail,
  EdgeDetail,
  FitDetail,
  GroundSpeedDetail,
  HeightDetail,
  Mark,
  OverlapDetail,
  PassDetail,
  SpeedDetail,
  TimingDetail,
  Told as ToldAction,
  ToldCode,
  Track,
  TurfDetail,
  VibrationDetail,
} from "@/core/checks";
import type { Figure, ProvisionalReason, Warning } from "@/core/findings";
import type { Machine } from "@/core/machine";
import { gearboxes } from "@/core/sequences/rebuild";
import type { Dimension, Instrument, UnitSystem } from "@/core/units";
import { PLACE_WORDS, placeName, show, showSize, showTipSpeed, type Told, VERDICT_WORDS, type Words } from "./checks";

const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** Every state a look can find, in the words of the shop. */
const STATES: Record<string, string> = {
  sound: "sound",
  worn: "worn",
  bent: "bent",
  elongated: "hole worn long",
  "wrong-clip": "not its own clip",
  missing: "missing",
  cracked: "cracked",
  seized: "seized",
  stiff: "stiff",
  "other-hole": "on another hole than its twin",
  "too-low": "too near the ground",
  "too-high": "too far off the ground",
  "near-limit": "near its limit",
  right: "right",
  clogged: "clogged",
  narrowed: "narrowed",
  open: "open",
  none: "has none",
  "in-place": "in place",
  bare: "bare steel",
  straight: "straight",
  "blade-or-shaft": "blade or shaft bent",
  "blade-bent": "blade bent",
  "shaft-bent": "shaft bent",
  "both-bent": "blade and shaft bent",
  crack: "cracked",
  bend: "bent",
  "sail-worn-through": "sail worn through",
  "sail-half-gone": "sail half gone",
  "slot-forming": "slot forming by the sail",
  "below-least-width": "narrower than its limit",
  "below-least-length": "shorter than its limit",
  "no-grind-left": "no grind left",
  nicked: "nicked",
  rounded: "edge rounded",
  dull: "dull",
  "small-nicks": "small nicks",
  sharp: "sharp",
  "upside-down": "upside down",
  "back-leads": "blunt back leads",
  "other-direction": "sail up and yet its back leads: a blade for the other direction",
  loose: "loose",
  "washer-reversed": "washer's hollow the wrong way",
  "part-missing": "a part of the stack missing",
  "other-order": "stack in another order",
  proud: "not down on its seat",
  "by-feel": "tightened by feel",
  "bolt-weaker": "bolt weaker than the sheet's",
  "bolt-harder": "bolt harder than the sheet's",
  strikes: "strike each other",
  "too-near": "pass too near",
  clear: "clear",
  smooth: "smooth",
  rough: "rough",
  binding: "binding",
  play: "play at the tip",
  step: "bearing out of its seat",
  grass: "wound with grass",
  wire: "wound with wire",
  hot: "hotter than its sisters",
  "over-limit": "over the limit",
  "too-slow": "too slow",
  slower: "slower",
  slips: "slips",
  "loses-speed": "loses speed under load",
  sags: "sags at low charge",
  "key-sheared": "key sheared or marked",
  "shaft-wobbles": "shaft's end wobbles",
  chipped: "tooth chipped",
  sheared: "pin sheared",
  chips: "chips in the oil",
  fine: "fine metal in the oil",
  runs: "seal runs",
  weeps: "seal weeps",
  grooved: "shaft grooved under the seal",
  milky: "oil milky",
  burnt: "oil burnt",
  "oil-low": "oil low",
  "oil-high": "oil too high",
  "felt-none": "nothing felt",
  "felt-light": "light shaking",
  "felt-strong": "strong shaking",
  "every-groove": "in every groove",
  "off-one": "off a groove",
  other: "another path than the picture",
  "no-picture": "no picture to compare with",
  "as-picture": "as the picture",
  glazed: "glazed",
  frayed: "cord frayed",
  "at-rim": "at the rim",
  "below-rim": "worn below the rim",
  slack: "slack",
  "went-on-easily": "went on too easily",
  free: "free",
  "loose-rivet": "rivet loose",
  pulls: "pulls",
  weak: "weak",
  broken: "broken",
  on: "on",
  turns: "turns",
  stands: "stands still",
  "torque-low": "torque under the sheet's",
  "torque-high": "torque over the sheet's",
  "worn-short": "worn short, however sharp",
  "wrong-part": "not this machine's blade",
  unbalanced: "out of balance",
  balanced: "balanced",
  "other-length": "another length than the sheet's",
  share: "over a third of the leaf",
  depth: "thatch deep",
  wet: "wet",
  damp: "damp",
  dry: "dry",
};

export const sayState = (code: string | undefined): string => STATES[code ?? ""] ?? (code ?? "").replaceAll("-", " ");

/** A place of a form: a blade, a hanger, two neighbours, or a part of the deck that has no place of its own. */
export function sheetPlace(machine: Machine, place: string): string {
  const named = PARTS[place];
  if (named) return named;
  const box = gearboxes(machine).find(({ id }) => id === place);
  if (box) return box.label;
  const wheel = machine.deck?.antiScalpWheels.find(({ id }) => id === place);
  if (wheel) return wheel.label;
  const [first, second] = place.split(":");
  const isPair = machine.spindles.some(({ id }) => id === second);
  return isPair ? `${placeName(machine, first ?? "")} and ${lower(placeName(machine, second ?? ""))}` : placeName(machine, place);
}

const PARTS: Record<string, string> = {
  shell: "Shell",
  pack: "Pack",
  port: "Washout port",
  chute: "Chute",
  baffles: "Baffles",
  leaf: "Leaf",
  moisture: "Moisture",
  ground: "Ground",
  density: "Stand",
  thatch: "Thatch",
  lie: "Lie",
  direction: "Direction",
  "belt-seat": "Belt",
  "belt-path": "Belt's path",
  belt: "Belt",
  "belt-width": "Belt",
  "belt-tension": "Belt",
  idlers: "Idlers",
  spring: "Spring",
  guards: "Guards",
  "belt-size": "Belt",
  set: "The set",
  machine: "The machine",
};

const worst = (marks: readonly Mark[] | undefined): Mark[] => {
  const of = (verdict: Mark["verdict"]) => (marks ?? []).filter((mark) => mark.verdict === verdict);
  const bad = [...of("stop"), ...of("out")];
  return bad.length > 0 ? bad : (marks ?? []).filter(({ verdict }) => verdict === "watch");
};

/** The places that are off, each with what it is; the first few, then how many more. */
function sayMarks({ marks }: Assessment, { machine }: Told, allRight: string): string {
  const bad = worst(marks);
  if (bad.length === 0) return allRight;
  const said = bad.slice(0, 2).map(({ place, code }) => `${sheetPlace(machine, place)}: ${sayState(code)}.`);
  return [...said, ...(bad.length > 2 ? [`${bad.length - 2} more.`] : [])].join(" ");
}

function sayHeight({ detail, verdict, figures }: Assessment<HeightDetail>, { system }: Told): string {
  if (!detail.stubble) return "Prick the stubble in ten places.";
  const instrument = figures.find(({ id }) => id === "stubble-mean")?.instrument ?? "gauge";
  const mean = `${show(detail.stubble.meanMetres, "length", system, instrument)} ± ${show(detail.stubble.plusMinusMetres, "length", system, instrument)}`;
  if (detail.offsetMetres === undefined) return `Stubble ${mean}.`;
  if (verdict === "in-tolerance") return `Cuts as set: ${mean}.`;
  const by = show(Math.abs(detail.offsetMetres), "length", system, instrument);
  return `Cuts ${by} ${detail.offsetMetres > 0 ? "higher" : "lower"} than set: ${mean}${verdict === "watch" ? ", too close to call" : ""}.`;
}

function sayTracks({ detail, verdict }: Assessment<{ tracks: Track[] }>, told: Told): string {
  const off = detail.tracks
    .filter(({ firstMetres }) => Math.abs(firstMetres) > 0)
    .sort((a, b) => Math.abs(b.firstMetres) - Math.abs(a.firstMetres))[0];
  if (verdict === "in-tolerance") return "All run true.";
  if (!off) return "Read both ends of each blade.";
  const name = placeName(told.machine, off.spindleId);
  if (off.bladeMetres === undefined || off.shaftMetres === undefined)
    return `${name}: ends ${showSize(off.firstMetres, told.system)} apart.${verdict === "out" ? " Blade or shaft: turn it end for end." : ""}`;
  const isBlade = Math.abs(off.bladeMetres) > Math.abs(off.shaftMetres);
  return isBlade
    ? `${name}: the blade is bent by ${showSize(off.bladeMetres, told.system)}. Scrap it.`
    : `${name}: its shaft is bent by ${showSize(off.shaftMetres, told.system)}.`;
}

function sayEdge(assessment: Assessment<EdgeDetail>, told: Told): string {
  const { detail, actions } = assessment;
  const { machine, system } = told;
  const scrap = detail.blades.find(({ scrap: reasons }) => reasons.length > 0);
  if (scrap) return `${placeName(machine, scrap.spindleId)}: ${sayState(scrap.scrap[0])}. Scrap it; the set goes with it.`;
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

const MISMATCH: Record<FitDetail["mismatches"][number]["code"], string> = {
  longer: "too long",
  shorter: "too short",
  "other-hole": "another centre hole",
  "hole-too-wide": "hole too wide",
  "hole-too-narrow": "hole too narrow",
  "other-offset": "another offset",
  "other-thickness": "another thickness",
  narrower: "narrower",
  "mulching-with-catcher": "mulching blade with a catcher",
  "high-lift-on-mulching": "high lift on a mulching deck",
  "other-lift": "another lift",
  "turns-the-other-way": "for the other direction",
};

function sayFit(assessment: Assessment<FitDetail>, told: Told): string {
  const { detail } = assessment;
  if (detail.strikes) return "Too long: these blades would strike each other. Do not fit them.";
  // What is off with the part and with a torque has sentences of its own.
  const marks = assessment.marks.filter(({ place, code }) => place !== "set" && !code?.startsWith("torque-"));
  const bad = worst(marks);
  if (bad.length > 0 && bad[0]?.code !== "by-feel") return sayMarks({ ...assessment, marks }, told, "");
  if (detail.mismatches.length > 0) return `Not this machine's blade: ${detail.mismatches.map(({ code }) => MISMATCH[code]).join(", ")}.`;
  const torque = assessment.figures.find(({ id, verdict }) => id === "torque" && verdict === "out");
  if (torque) return `${placeName(told.machine, torque.place ?? "")}: torque is not the sheet's.`;
  if (assessment.verdict === "not-enough-readings") return "Look at every blade.";
  return bad.length > 0 ? "Right, but tightened by feel: put a wrench on it." : "Fitted right.";
}

/** A force as it is said: a weight, so many times a second. */
export function sayShaking(blade: BalanceDetail["blades"][number], system: UnitSystem): string {
  if (blade.weightKilograms === undefined || blade.timesPerSecond === undefined) return "";
  // Said to the whole unit, once there is one to speak of.
  const weight = show(blade.weightKilograms, "mass", system, "gauge").replace(blade.weightKilograms < 2 ? /\.0 / : /\.\d /, " ");
  return `a force of ${weight}, ${Math.round(blade.timesPerSecond)} times a second`;
}

function sayBalance({ detail, verdict }: Assessment<BalanceDetail>, { machine, system }: Told): string {
  const heaviest = [...detail.blades].sort((a, b) => b.imbalance - a.imbalance)[0];
  if (!heaviest) return "Hang each blade on the balancer.";
  if (verdict === "in-tolerance") return "Balanced.";
  if (verdict === "not-enough-readings") return "Hang every blade of the set.";
  const shakes = sayShaking(heaviest, system);
  return `${placeName(machine, heaviest.spindleId)}: out by ${show(heaviest.imbalance, "imbalance", system)}${shakes ? `, ${shakes}` : ""}.`;
}

function sayOverlap({ detail, figures, verdict }: Assessment<OverlapDetail>, { machine, system }: Told): string {
  const struck = figures.find(({ id, verdict: found }) => id === "blade-clearance" && found === "stop");
  if (struck) return `Do not run it: ${lower(sheetPlace(machine, struck.place ?? ""))} would strike.`;
  const least = figures.filter(({ id }) => id === "overlap").sort((a, b) => a.value - b.value)[0];
  if (!least) return "One blade has no neighbour.";
  const between = lower(sheetPlace(machine, least.place ?? ""));
  if (least.value < 0) return `A strip ${show(-least.value, "length", system, "fine")} wide stays between ${between}.`;
  if (verdict === "out") return `Only ${show(least.value, "length", system, "fine")} shared between ${between}: too little.`;
  const wear = `${show(detail.wearLeftMetres, "length", system, "fine")} of wear left at each tip`;
  return `Blades share ${show(least.value, "length", system, "fine")}. ${capital(wear)}.`;
}

function sayTurf({ detail, verdict, marks }: Assessment<TurfDetail>, told: Told): string {
  if (detail.share !== undefined && detail.firstCutMetres !== undefined)
    return `Takes ${Math.round(detail.share * 100)} % of the leaf: over a third. Cut it in stages.`;
  if (detail.ground === "gross-faults-only") return `${sayMarks({ marks } as Assessment, told, "")} Judge no fine fault on it.`;
  if (verdict === "not-enough-readings") return "Height before, moisture, stand and ground.";
  return detail.ground === "good" ? "Good ground to judge on." : "Turf told.";
}

const ANSWERS: Record<string, (assessment: Assessment, told: Told) => string> = {
  "cutting-height": (a, t) => sayHeight(a as Assessment<HeightDetail>, t),
  "hanger-inspection": (a, t) => sayMarks(a, t, a.verdict === "in-tolerance" ? "Every hanger sound." : "Look at every hanger."),
  "anti-scalp-wheels": (a, t) => sayMarks(a, t, a.verdict === "in-tolerance" ? "Anti-scalp wheels right." : "Read every wheel."),
  "deck-cleanliness": (a, t) => sayClean(a, t),
  "blade-track": (a, t) => sayTracks(a as Assessment<{ tracks: Track[] }>, t),
  "blade-edge": (a, t) => sayEdge(a as Assessment<EdgeDetail>, t),
  "blade-fit": (a, t) => sayFit(a as Assessment<FitDetail>, t),
  "blade-balance": (a, t) => sayBalance(a as Assessment<BalanceDetail>, t),
  "blade-overlap": (a, t) => sayOverlap(a as Assessment<OverlapDetail>, t),
  "gearbox-inspection": (a, t) => sayMarks(a, t, a.verdict === "in-tolerance" ? "Every gearbox sound." : "Look into every gearbox."),
  "vibration-reading": (a, t) => sayVibration(a as Assessment<VibrationDetail>, t),
  "tip-speed": (a, t) => saySpeeds(a as Assessment<SpeedDetail>, t),
  "blade-timing": (a, t) => sayTiming(a as Assessment<TimingDetail>, t),
  "spindle-play": (a, t) => sayMarks(a, t, a.verdict === "in-tolerance" ? "Every spindle sound." : "Rock and turn every spindle."),
  "belt-inspection": (a, t) =>
    sayMarks(a, t, a.verdict === "in-tolerance" ? "Belt right, every blade turns." : "Look at belt, idlers and every blade."),
  "ground-speed": (a, t) => sayGroundSpeed(a as Assessment<GroundSpeedDetail>, t),
  "pass-overlap": (a, t) => sayPasses(a as Assessment<PassDetail>, t),
  "turf-condition": (a, t) => sayTurf(a as Assessment<TurfDetail>, t),
};

function sayVibration({ verdict, actions, detail }: Assessment<VibrationDetail>, { machine }: Told): string {
  if (verdict === "in-tolerance") return "Runs smooth.";
  if (verdict === "not-enough-readings") return "What is felt, where, with what running.";
  const size = verdict === "out" ? "Strong" : "Light";
  const what = actions.some(({ code }) => code === "look-at-engine")
    ? "from the engine, not the blades"
    : actions.some(({ code }) => code === "look-at-wheels")
      ? "from wheels and travel, not the blades"
      : detail.worstAt[0]
        ? `with the blades, most at the ${lower(placeName(machine, detail.worstAt[0]))}`
        : "with the blades";
  const often = detail.timesPerSecond === undefined ? "" : ` Once a turn is ${Math.round(detail.timesPerSecond)} times a second.`;
  return `${size} shaking, ${what}.${often}`;
}

function saySpeeds({ detail, figures, warnings, verdict }: Assessment<SpeedDetail>, { machine, system }: Told): string {
  const over = warnings.find(({ code }) => code === "over-tip-speed-limit");
  if (over) {
    const limit = showTipSpeed(Number(over.limitMetresPerSecond), system);
    return `Do not run it: ${lower(placeName(machine, over.place ?? ""))} is over the limit of ${limit}. Hold it out.`;
  }
  const fastest = Math.max(...figures.filter(({ id }) => id === "paper-tip-speed").map(({ value }) => value));
  if (detail.spindles.length === 0)
    return Number.isFinite(fastest)
      ? `Works out at ${showTipSpeed(fastest, system)}, under the limit. Now read it.`
      : "Work it out, then read every spindle.";
  const slowest = [...detail.spindles].sort((a, b) => a.revolutionsPerMinute - b.revolutionsPerMinute)[0];
  const named = placeName(machine, slowest?.spindleId ?? "");
  if (detail.pattern === "one-stopped") return `${named} stands still.`;
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
  if (slip) return `${placeName(machine, slip.place ?? "")} loses ${Math.round(slip.value * 100)} % to slip.`;
  return verdict === "watch" ? `Tip speed close to a limit.${left}` : `Tip speed right.${left}`;
}

function sayTiming(assessment: Assessment<TimingDetail>, told: Told): string {
  const { detail, verdict } = assessment;
  if (verdict === "stop" || verdict === "out") return `${sayMarks(assessment, told, "")} Do not run it.`;
  const nearest = detail.pairs
    .filter(({ gapMetres }) => gapMetres !== undefined)
    .sort((a, b) => (a.gapMetres ?? 0) - (b.gapMetres ?? 0))[0];
  if (verdict === "not-enough-readings") return "Turn it by hand through a full turn.";
  return nearest
    ? `In time: ${show(nearest.gapMetres ?? 0, "length", told.system, "fine")} at their closest.`
    : "In time: nothing touches.";
}

function sayGroundSpeed({ detail, actions }: Assessment<GroundSpeedDetail>, { system }: Told): string {
  if (detail.metresPerSecond === undefined) return "Time it over a distance.";
  const speed = show(detail.metresPerSecond, "speed", system, "gauge");
  const word = actions.some(({ code }) => code === "drive-slower")
    ? "too fast"
    : actions.some(({ code }) => code === "drive-faster")
      ? "too slow"
      : "right";
  return `${speed}: ${word}.${detail.biteMetres === undefined ? "" : ` Each edge bites ${show(detail.biteMetres, "length", system, "fine")}.`}`;
}

function sayPasses({ detail, actions, verdict }: Assessment<PassDetail>, { system }: Told): string {
  const tight = actions.some(({ code }) => code === "turn-wider") ? " The turn is too tight: a strip stays." : "";
  if (detail.overlapMetres === undefined) return tight ? tight.trim() : "Measure from join to join.";
  const size = show(Math.abs(detail.overlapMetres), "length", system, "tape");
  const passes =
    detail.overlapMetres < 0
      ? `A line ${size} wide stays between passes.`
      : `Passes share ${size}${verdict === "out" && !tight ? (actions.some(({ code }) => code === "closer-passes") ? ": too little" : ": more than it needs") : ""}.`;
  const area = detail.hectaresPerHour;
  const said =
    area === undefined ? "" : ` ${system === "us" ? `${(area * 2.4710538).toFixed(1)} acres` : `${area.toFixed(1)} ha`} an hour.`;
  return `${passes}${tight}${said}`;
}

function sayClean(assessment: Assessment, told: Told): string {
  const pack = assessment.figures.find(({ id }) => id === "pack-depth");
  if (pack?.verdict === "out") return `Packed ${show(pack.value, "length", told.system)} deep: scrape it.`;
  return sayMarks(
    assessment,
    told,
    assessment.verdict === "in-tolerance" ? "Clean, and the air has its way." : "Depth of the pack, port, chute, baffles.",
  );
}

const metres = (action: ToldAction | Warning, name: string) => Number(action[name] ?? 0);
const length = (value: number, system: UnitSystem, instrument: Instrument = "fine") => show(value, "length", system, instrument);

const GRADE_WORDS: Record<string, string> = {
  "sae-2": "no marks",
  "sae-5": "three lines",
  "sae-8": "six lines",
  "iso-8-8": "8.8",
  "iso-10-9": "10.9",
  "iso-12-9": "12.9",
};

/** Radii are said in feet or metres. */
export function sayRadius(value: number, system: UnitSystem): string {
  return system === "us" ? `${(value / 0.3048).toFixed(value < 3 ? 1 : 0)} ft` : `${value.toFixed(1)} m`;
}

const ACTIONS: Record<ToldCode, (action: ToldAction, told: Told) => string> = {
  "set-height": (a, t) =>
    `Set ${length(metres(a, "settingMetres"), t.system, "gauge")} to cut ${length(metres(a, "wantedMetres"), t.system, "gauge")}, ± ${length(metres(a, "plusMinusMetres"), t.system, "gauge")} from ${a.visits} ${a.visits === 1 ? "visit" : "visits"}`,
  "mend-hanger": (a, t) =>
    `${sheetPlace(t.machine, a.place ?? "")}: ${sayState(String(a.state))}. Fit the right part, nothing bent to suit`,
  "level-again": () => "Then level the deck again: a hanger was touched",
  "repair-shell": () => "Shell: hold it for a qualified welder, or another shell",
  "move-wheel": (a, t) =>
    `${sheetPlace(t.machine, a.place ?? "")}: ${a.way} to ${length(metres(a, "leastMetres"), t.system, "tape")} to ${length(metres(a, "mostMetres"), t.system, "tape")} off the ground`,
  "free-wheel": (a, t) => `${sheetPlace(t.machine, a.place ?? "")}: ${sayState(String(a.state))}. Free it or fit another`,
  "same-hole": (a, t) =>
    `${sheetPlace(t.machine, a.place ?? "")} and ${lower(sheetPlace(t.machine, String(a.twin)))}: put both on the same hole`,
  "scrape-deck": () => "Scrape without gouging, then wash: bare steel rusts",
  "open-port": (a) => `Open the ${a.what === "port" ? "washout port" : "chute"}`,
  "mend-baffle": (a) => `Baffle ${sayState(String(a.state))}: put it right`,
  "wash-sooner": (a) => `Packed at ${a.packed} of ${a.looks} looks on this site: wash more often`,
  "scrap-blade": (a, t) =>
    `${sheetPlace(t.machine, a.place ?? "")}: scrap it (${sayState(String(a.reason))}). Never straighten, never weld`,
  "swap-blade": (a, t) => `${sheetPlace(t.machine, a.place ?? "")}: turn the blade end for end on its shaft, read both ends again`,
  "change-shaft": (a, t) => `${sheetPlace(t.machine, a.place ?? "")}: change the shaft, or the whole spindle`,
  "hold-for-crankshaft": () => "Hold it out: an engine's own shaft goes to a qualified shop",
  "sharpen-set": (a, t) =>
    `Take ${length(metres(a, "stockMetres"), t.system)} off under the deepest nick, equally at both ends, the whole set${a.grindsLeft === undefined ? "" : `; ${a.grindsLeft} more after that`}`,
  "replace-set": () => "Fit a new, matching set: blades of one deck go together",
  "leave-set": () => "Nothing to grind",
  "turn-over": (a, t) => `${sheetPlace(t.machine, a.place ?? "")}: refit it, sail to the deck, sharp edge leading`,
  "fit-right-blade": (a) =>
    a.strikes ? "Do not fit: get the length on the sheet" : "Get the blade on the sheet; compare before unwrapping",
  "turn-washer": (a, t) => `${sheetPlace(t.machine, a.place ?? "")}: washer's hollow toward the blade, so that its rim bears`,
  "mend-stack": (a, t) => `${sheetPlace(t.machine, a.place ?? "")}: put the stack back in order, fully seated`,
  "change-bolt": (a, t) =>
    `${sheetPlace(t.machine, a.place ?? "")}: bolt with ${GRADE_WORDS[String(a.wanted)]}, not ${GRADE_WORDS[String(a.found)]}${a.way === "harder" ? " (harder is no upgrade)" : ""}`,
  "torque-by-wrench": (a, t) =>
    `${sheetPlace(t.machine, a.place ?? "")}: torque wrench, ${show(metres(a, "torqueNewtonMetres"), "torque", t.system)}`,
  "re-check-bolt": (a, t) => `${sheetPlace(t.machine, a.place ?? "")}: re-check with a wrench`,
  "ask-sheet-torque": () => "The sheet gives no torque, and there is no usual one: get it from the manual",
  "measure-not-remember": () => "A remembered size cannot be ordered on: measure it",
  "take-off-heavy-end": (a, t) =>
    `${sheetPlace(t.machine, a.place ?? "")}: take ${show(metres(a, "massKilograms"), "small-mass", t.system)} off ${a.end ? `end ${a.end}` : "the heavy end"}, from the edge or the back${a.lengthMetres === undefined ? "" : `: about ${length(metres(a, "lengthMetres"), t.system, "gauge")} of edge`}`,
  "replace-unbalanced": (a, t) => `${sheetPlace(t.machine, a.place ?? "")}: past grinding, replace the set`,
  "replace-short-set": () => "Fit a new set: no sharpening brings length back",
  "wider-turns": (a, t) =>
    `Turns of ${sayRadius(metres(a, "fromMetres"), t.system)} to ${sayRadius(metres(a, "toMetres"), t.system)} radius leave too little${metres(a, "worstMetres") < 0 ? `: a strip of up to ${length(-metres(a, "worstMetres"), t.system)} at ${sayRadius(metres(a, "atMetres"), t.system)}` : ""}`,
  "cut-in-stages": (a, t) =>
    `First at ${length(metres(a, "firstMetres"), t.system, "tape")}, days later at ${length(metres(a, "thenMetres"), t.system, "tape")}`,
  "wait-for-dry": () => "Wait until it is dry",
  "mow-within": (a) => `At this growth mow every ${Math.max(1, Number(a.days))} ${Number(a.days) <= 1 ? "day" : "days"}`,
  "judge-elsewhere": () => "Make the test cut on better turf",
  retime: (a, t) =>
    `${sheetPlace(t.machine, a.place ?? "")}: refit in time, ${Math.ceil(Number(a.from))} to ${Math.floor(Number(a.to))}° apart; mark the shafts first`,
  "clear-winding": (a, t) => `${sheetPlace(t.machine, a.place ?? "")}: cut the ${a.what} off, look at the seal`,
  "seat-bearing": (a, t) => `${sheetPlace(t.machine, a.place ?? "")}: seat the bearing with a driver on its outer race`,
  "change-bearings": (a, t) => `${sheetPlace(t.machine, a.place ?? "")}: new bearings and seals; not worth judging twice`,
  "photograph-belt": () => "Photograph the belt's path for this machine while it is right",
  "seat-belt": (a, t) =>
    a.what === "stands"
      ? `${sheetPlace(t.machine, a.place ?? "")} stands: find where the belt left its groove`
      : "Seat the belt in every groove, and find why it left",
  "change-belt": (a) =>
    a.what === "slack" ? "Set the tension; a belt at its end is changed" : `New belt (${sayState(String(a.what))}), tension set`,
  "change-spring": (a) => `New spring: this one is ${sayState(String(a.what))}`,
  "change-idler": (a) => `New idler (${sayState(String(a.what))}); riveted ones are changed whole`,
  "guards-on": () => "Guards back on before it is run",
  "drive-slower": (a, t) => `No faster than ${show(metres(a, "mostMetresPerSecond"), "speed", t.system, "gauge")} at these turns`,
  "drive-faster": (a, t) => `At least ${show(metres(a, "leastMetresPerSecond"), "speed", t.system, "gauge")}`,
  "full-throttle": () => "Throttle stays at full; speed is set with the travel control",
  "closer-passes": (a, t) => `Steer passes ${show(metres(a, "spacingMetres"), "distance", t.system)} apart`,
  "wider-passes": (a, t) => `Passes ${show(metres(a, "spacingMetres"), "distance", t.system)} apart are enough: the rest is time`,
  "mark-the-edge": () => "Mark on the machine where the cut really ends: it is neither deck nor tyre",
  "rebuild-box": (a, t) => `${sheetPlace(t.machine, a.place ?? "")}: rebuild it, gears as a pair, bearings and seals new`,
  "change-pin": (a, t) =>
    a.what === "bent"
      ? `${sheetPlace(t.machine, a.place ?? "")}: a pin that bends instead of shearing may be the wrong part: compare before another goes in`
      : `${sheetPlace(t.machine, a.place ?? "")}: new pin of the sheet, and look for what stopped the blade`,
  "change-seal": (a, t) =>
    a.what === "grooved"
      ? `${sheetPlace(t.machine, a.place ?? "")}: new seal, seated a little to one side on clean shaft`
      : `${sheetPlace(t.machine, a.place ?? "")}: new seal, square and level, lip oiled; never the old one with sealant`,
  "change-oil": (a, t) =>
    `${sheetPlace(t.machine, a.place ?? "")}: change the oil${a.what === "milky" ? ", and find where the water came in" : ""}`,
  "fill-oil": (a, t) =>
    `${sheetPlace(t.machine, a.place ?? "")}: ${length(metres(a, "metres"), t.system, "gauge")} low; fill to ${length(metres(a, "wantedMetres"), t.system, "gauge")} under the cover`,
  "let-oil-out": (a, t) =>
    `${sheetPlace(t.machine, a.place ?? "")}: ${length(metres(a, "metres"), t.system, "gauge")} too high; let it out`,
  "oil-again": (a, t) => `${sheetPlace(t.machine, a.place ?? "")}: read it again after it stood: connected boxes level out over hours`,
  "look-at-engine": () => "Look at engine mounts, flywheel and key; the blades have no part in it",
  "look-at-wheels": () => "Look at tyres, rims and wheel bearings; the blades have no part in it",
  "look-at-blades": (a, t) =>
    `${a.place ? `Begin at the ${lower(sheetPlace(t.machine, a.place))}: ` : ""}${a.single ? "balance and track, then the shaft" : "balance, track and bolt of each blade, then spindle play"}`,
  "grease-spindle": (a, t) =>
    `${sheetPlace(t.machine, a.place ?? "")}: ${a.what === "purge" ? "purge until it runs clean" : "grease"}, ${Math.round(Number(a.overHours))} h overdue; not packed solid`,
  "belt-of-length": (a, t) => `Another belt than the sheet's: ${length(metres(a, "wantedMetres"), t.system, "gauge")} belongs on it`,
  "look-for-load": () => "So much lost under load: look for dull edges, a packed deck, too much grass at once, a weak engine",
  "charge-sooner": () => "Charge it sooner, or change the pack: at this charge the edge tears",
  "turn-wider": (a, t) => `Turn wider than ${sayRadius(metres(a, "radiusMetres"), t.system)} with the blades cutting`,
  "vary-direction": () => "Vary the direction; groom or cut vertically",
};

const FIT_WARNINGS: Record<string, (w: Warning, t: Told) => string> = {
  "fit-longer": (w, t) => `${length(metres(w, "byMetres"), t.system)} longer than the sheet's: may strike a neighbour or the shell.`,
  "fit-shorter": (w, t) => `${length(metres(w, "byMetres"), t.system)} shorter: overlap is lost, a strip stays.`,
  "fit-other-hole": () => "Another hole: not centred, and cannot be tightened safely.",
  "fit-hole-too-wide": (w, t) => `Hole ${length(metres(w, "byMetres"), t.system)} too wide: not centred.`,
  "fit-hole-too-narrow": (w, t) => `Hole ${length(metres(w, "byMetres"), t.system)} too narrow: does not go on.`,
  "fit-other-offset": (w, t) => `Offset ${length(metres(w, "byMetres"), t.system)} off: cuts at another height than the dial.`,
  "fit-other-thickness": (w, t) => `Thickness ${length(metres(w, "byMetres"), t.system)} off: the stack clamps elsewhere.`,
  "fit-narrower": (w, t) => `${length(metres(w, "byMetres"), t.system)} narrower: worn, or another part.`,
  "fit-mulching-with-catcher": () => "A mulching blade does not fill a catcher.",
  "fit-high-lift-on-mulching": () => "High lift on a mulching deck blows, wears and takes power.",
  "fit-other-lift": () => "Another lift than the sheet's moves other air.",
  "fit-turns-the-other-way": () => "Made to turn the other way: it would cut with its back, and the sail can catch.",
};

const PART_WORDS: Record<string, string> = {
  lengthMetres: "length",
  hole: "centre hole",
  holeMetres: "width of the hole",
  thicknessMetres: "thickness",
  offsetMetres: "offset",
  lift: "lift",
  turns: "direction",
};

const WARNINGS: Record<string, (w: Warning, t: Told) => string> = {
  ...FIT_WARNINGS,
  "not-run-broken-gears": () => "Not run with a broken tooth or a sheared pin: a freed blade meets its neighbour.",
  "not-run-bent-shaft": () => "Not run: a bent shaft or a sheared key throws the blade's weight about. Out of service.",
  "hub-unit-doubtful": (w, t) =>
    `${sheetPlace(t.machine, w.place ?? "")}: its heat fits the others only in the other scale. Read it again, with °F or °C behind it.`,
  "felt-not-recorded": () => "Felt by hand, not recorded: it tells that something shakes, not what.",
  "strong-shaking": () => "Strong shaking loosens bolts and breaks spindles: find it before it goes out.",
  "over-tip-speed-limit": (w, t) =>
    `${placeName(t.machine, w.place ?? "")}: at or over the limit${w.mostRevolutions === undefined ? "" : `; ${w.mostRevolutions} r/min at most with this blade`}. Wrong blade length, pulley or governor setting; it stays out of service until it is found.`,
  "faster-than-paper": (w, t) =>
    `${placeName(t.machine, w.place ?? "")} turns faster than worked out: outside diameters taken for pitch diameters, or the governor is set up.`,
  "blade-stands": (w, t) => `${placeName(t.machine, w.place ?? "")}: belt off, key or pin sheared, or a gear broken.`,
  "too-slow-to-cut": (w, t) =>
    `${placeName(t.machine, w.place ?? "")}: so slow an edge pushes and tears rather than cuts, and lifts little.`,
  "not-run-mistimed": () => "Blades that touch when turned by hand are not run.",
  "operating-finding": () => "A matter of operation, kept apart from faults: a word with the operator, nothing to mend.",
  "belt-not-on": () => "A belt that went on too easily is not on: look at every groove again.",
  "bite-at-rated-speed": (w) => `Bite at the sheet's ${w.revolutions} r/min: under load the blades turn slower and bite more.`,
  "bare-steel": () => "Bare steel rusts: paint it before the season ends.",
  "never-straighten": () => "A bent or cracked blade is never straightened and never welded.",
  "worn-short-however-sharp": (w, t) => `Neighbours share only ${length(metres(w, "overlapMetres"), t.system)}: worn out however sharp.`,
  "one-new-among-worn": () => "One new blade among worn ones: blades of one deck go as a set.",
  "blades-strike": (w, t) => `${sheetPlace(t.machine, w.place ?? "")}: their circles meet. Nothing is run like this.`,
  "rake-cuts-lower": (w, t) =>
    `The blades are raked: they cut ${length(metres(w, "byMetres"), t.system, "gauge")} lower than their middle stands.`,
  "others-cut-the-same": () => "The other machines leave the same: look at the turf and the way it is mown before the machine.",
  "differs-from-old": (w, t) =>
    `Not as the one that came off: ${PART_WORDS[String(w.what)] ?? w.what}${w.byMetres === undefined ? "" : ` by ${length(Math.abs(Number(w.byMetres)), t.system)}`}. Do not unwrap it yet.`,
  "socket-too-small": (w, t) => `That socket is ${length(metres(w, "byMetres"), t.system)} too small: it does not go on.`,
  "socket-too-loose": (w, t) => `That socket has ${length(metres(w, "byMetres"), t.system)} of play: it rounds the corners.`,
  "left-hand-thread": () => "Left-hand thread: clockwise from below loosens.",
  "no-blade-on-sheet": () => "The sheet holds no blade: what is typed here is compared with nothing.",
  "count-the-blades": (w) => `Count the blades done against the deck: ${w.count}.`,
};

const PROVISIONAL: Record<string, (r: ProvisionalReason, t: Told) => string> = {
  "spindle-unread": (r, t) => `${lower(placeName(t.machine, String(r.place)))} not read`,
  "place-unread": (r, t) => `${lower(sheetPlace(t.machine, String(r.place)))} not read`,
  "part-unread": (r) => `${lower(PARTS[String(r.part)] ?? String(r.part))} not looked at`,
  "as-on-the-sheet": (r, t) => `${lower(sheetPlace(t.machine, String(r.place)))} taken as on the sheet`,
  "oil-not-stood": (r, t) => `${lower(sheetPlace(t.machine, String(r.place)))} just filled: oil not level yet`,
  "no-oil-depth-on-sheet": (r, t) => `the sheet has no oil depth for the ${lower(sheetPlace(t.machine, String(r.place)))}`,
  "hub-unit-doubtful": (r, t) => `heat of the ${lower(sheetPlace(t.machine, String(r.place)))} may be in the other scale`,
  "not-swapped": (r, t) => `${lower(sheetPlace(t.machine, String(r.place)))} not turned end for end`,
  "not-turned": (r, t) => `${lower(sheetPlace(t.machine, String(r.place)))} not turned by hand`,
  "blade-width-assumed": (r, t) =>
    `the sheet gives no width of the blade: ${show(Number(r.metres), "length", t.system)} assumed (estimate)`,
  "only-looked-at": () => "only looked at, not measured",
  "one-run": () => "timed once only",
  "one-pass": () => "one pass only",
  "no-blade-speed": () => "the blades' speed is not known: no bite",
  "below-full-throttle": () => "not at full throttle",
  "few-pricks": (r) => `${r.count} pricks only, ${r.wanted} are wanted`,
  "soft-ground": () => "read on soft ground",
  "no-balance-terms": () => "what the blade weighs and how fast it turns is not known: judged by the balancer alone",
  "size-remembered": () => "sizes remembered, not measured",
  "turf-not-all-told": () => "height before, moisture, stand and ground are wanted",
};

const FIGURES: Record<string, string> = {
  "wheel-clearance": "Clears the ground by",
  "pack-depth": "Pack, worst place",
  "end-to-end": "End to end",
  "blade-part": "The blade's part",
  "shaft-part": "The shaft's part",
  "deepest-nick": "Deepest nick",
  "stock-to-remove": "To take off",
  "sail-thinnest": "Sail, thinnest",
  "tip-width": "Width at the tip",
  "blade-length": "Length",
  "grinds-left": "Sharpenings left",
  torque: "Torque",
  "clamp-force": "Clamps with",
  "width-of-cut": "Width of cut",
  imbalance: "Imbalance",
  "shaking-force": "Shakes with",
  overlap: "Overlap",
  "blade-clearance": "Clear between",
  "wear-left": "Wear left at each tip",
  "stubble-mean": "Stubble, mean",
  "stubble-95": "Mean is sure to ±, 95 %",
  "stubble-spread": "Spread of the pricks",
  "over-the-setting": "Over the setting",
  "learnt-offset": "Offset learnt here",
  "tip-speed": "Tip speed",
  "paper-tip-speed": "Tip speed on paper",
  "loaded-tip-speed": "Tip speed at work",
  "low-charge-tip-speed": "Tip speed, low charge",
  "spindle-speed": "Turns at",
  slip: "Slip",
  droop: "Lost under load",
  "lift-left": "Lift left",
  "closest-approach": "Closest approach",
  "oil-depth": "Cover down to the oil",
  "worst-at": "Worst at",
  "belt-length": "Belt",
  "tip-play": "Play at the tip",
  "hub-heat": "Hub after the run",
  travels: "Travels at",
  bite: "Bite of each edge",
  "pass-overlap": "Passes share",
  "height-before": "Height before",
  thatch: "Thatch",
};

/** The words of every worksheet that has a form. */
export const FORM_WORDS: Words = {
  // What was only looked at carries no figures, whatever its check.
  answer: (assessment, told) =>
    (assessment.ruleVersion > 0 ? ANSWERS[assessment.check]?.(assessment, told) : undefined) ?? VERDICT_WORDS[assessment.verdict],
  action: (action, told) => {
    const say = (ACTIONS as Record<string, ((a: ToldAction, t: Told) => string) | undefined>)[action.code];
    return say ? say(action as ToldAction, told) : PLACE_WORDS.action(action, told);
  },
  warning: (warning, told) => WARNINGS[warning.code]?.(warning, told) ?? PLACE_WORDS.warning(warning, told),
  provisional: (reason, told) => PROVISIONAL[reason.code]?.(reason, told) ?? PLACE_WORDS.provisional(reason, told),
  figureName: (figure: Figure, machine: Machine) => {
    const name = FIGURES[figure.id];
    if (!name) return PLACE_WORDS.figureName(figure, machine);
    return figure.place ? `${name}, ${lower(sheetPlace(machine, figure.place))}` : name;
  },
  figureValue: (figure, system) => {
    if (figure.dimension === "count") return String(Math.round(figure.value));
    if (figure.standardError !== undefined && figure.dimension === "length")
      return `${show(figure.value, figure.dimension as Dimension, system, figure.instrument)} ± ${show(figure.standardError, "length", system, figure.instrument)}`;
    return PLACE_WORDS.figureValue(figure, system);
  },
};
