import { table } from "@/core/basics/tables";
import { formatQuantity } from "@/core/basics/units";
import type { FitDetail } from "@/core/checks";
import type { bladeFit } from "@/core/checks/blade-fit";
import { coming } from "../coming";
import type { Face, Told } from "../face";
import { length, noSuchBlade, placeIn, placeName, sayMarks, show, unread, worst } from "../shared";

type Found = ReturnType<typeof bladeFit.assess>;

/** What this worksheet says. */
export const face: Face<typeof bladeFit> = {
  answer: sayFit,
  actions: {
    "turn-over": (a, t) => `${placeIn(face, t.machine, a.place)}: refit it, sail to the deck, sharp edge leading`,
    "turn-washer": (a, t) => `${placeIn(face, t.machine, a.place)}: ${HOLLOW[a.hollow]}`,
    "compare-imprint": (a, t) =>
      `${placeIn(face, t.machine, a.place)}: the old imprint says otherwise than the stack. Hold it against the sheet and a sister before it is tightened`,
    "look-at-signs": (a, t) =>
      `${placeIn(face, t.machine, a.place)}: ${a.signs
        .split(",")
        .map((sign) => SIGNS[sign] ?? sign)
        .join(" and ")} disagree. Look at the parts list and a sister machine before it is fitted`,
    "mend-stack": (a, t) => `${placeIn(face, t.machine, a.place)}: put the stack back in order, fully seated`,
    "change-bolt": (a, t) =>
      `${placeIn(face, t.machine, a.place)}: bolt with ${GRADE_WORDS[a.wanted]}, not ${GRADE_WORDS[a.found]}${a.way === "harder" ? " (harder is no upgrade)" : ""}`,
    "re-check-bolt": (a, t) => `${placeIn(face, t.machine, a.place)}: re-check with a wrench`,
    "torque-by-wrench": (a, t) => `${placeIn(face, t.machine, a.place)}: torque wrench, ${show(a.torqueNewtonMetres, "torque", t.system)}`,
    "fit-right-blade": (a) =>
      a.strikes ? "Do not fit: get the length on the sheet" : "Get the blade on the sheet; compare before unwrapping",
    "measure-not-remember": () => "A remembered size cannot be ordered on: measure it",
    "write-stack-down": () => "The sheet has no washer stack: take it from the manual, write it down, and look again",
    "ask-sheet-torque": () => "The sheet gives no torque, and there is no usual one: get it from the manual",
  },
  warnings: {
    "fit-longer": (w, t) => `${length(w.byMetres, t.system)} longer than the sheet's: may strike a neighbour or the shell.`,
    "fit-shorter": (w, t) =>
      `${length(w.byMetres, t.system)} shorter than the sheet’s: less overlap. What neighbours still share, the overlap check says.`,
    "fit-worn-shorter": (w, t) =>
      `${length(w.byMetres, t.system)} shorter, and not yet worn out: worn, or another part. Hold it against the old one.`,
    "fit-other-hole": () => "Another hole: not centred, and cannot be tightened safely.",
    "fit-hole-too-wide": (w, t) => `Hole ${length(w.byMetres, t.system)} too wide: not centred.`,
    "fit-hole-too-narrow": (w, t) => `Hole ${length(w.byMetres, t.system)} too narrow: does not go on.`,
    "fit-other-offset": (w, t) => `Offset ${length(w.byMetres, t.system)} off: cuts at another height than the dial.`,
    "fit-other-thickness": (w, t) => `Thickness ${length(w.byMetres, t.system)} off: the stack clamps elsewhere.`,
    "fit-narrower": (w, t) => `${length(w.byMetres, t.system)} narrower: worn, or another part.`,
    "fit-other-second": (w, t) => `Flats or pins ${length(w.byMetres, t.system)} off: does not go on its seat.`,
    "fit-low-lift-with-bag": () => "A low lift does not fill a bag.",
    "fit-mulching-with-catcher": () => "A mulching blade does not fill a catcher.",
    "fit-high-lift-on-mulching": () => "High lift on a mulching deck blows, wears and takes power.",
    "fit-other-lift": () => "Another lift than the sheet's moves other air.",
    "fit-turns-the-other-way": () => "Made to turn the other way: it would cut with its back, and the sail can catch.",
    "differs-from-old": (w, t) =>
      `Not as the one that came off: ${PART_WORDS[w.what] ?? w.what}${w.byMetres === undefined ? "" : ` by ${length(Math.abs(w.byMetres), t.system)}`}. Do not unwrap it yet.`,
    "set-for-other-use": () => "The set on the sheet is made for another use than today's: read the lift off the blade.",
    "left-hand-thread": () => "Left-hand thread: clockwise, seen from below, loosens.",
    "no-blade-on-sheet": () => "The sheet holds no blade: what is typed here is compared with nothing.",
    "count-the-blades": (w) => `Count the blades done against the deck: ${w.count}.`,
    "socket-too-small": (w, t) => `That socket is ${length(w.byMetres, t.system)} too small: it does not go on.`,
    "socket-too-loose": (w, t) => `That socket has ${length(w.byMetres, t.system)} of play: it rounds the corners.`,
  },
  provisional: {
    "place-unread": unread(() => face),
    "size-remembered": () => "sizes remembered, not measured",
    "no-stack-on-sheet": () => "no washer stack on the sheet to hold it against",
  },
  problems: {
    "unknown-spindle": noSuchBlade,
    "torque-without-wrench": () => "A torque needs a torque wrench: by feel or left loose there is no figure. Change one of the two.",
    "torque-not-credible": (i, s) =>
      `The sheet says ${typeof i.wantedNewtonMetres === "number" ? formatQuantity({ valueSi: i.wantedNewtonMetres, dimension: "torque", system: s, instrument: "gauge" }).text : "another figure"}: this is no torque for that bolt. Look at the unit and type it again.`,
  },
  states: {
    right: "right",
    "upside-down": "upside down",
    "other-direction": "sail up and yet its back leads: a blade for the other direction",
    "sail-down-edge-leads": "sail down and yet its edge leads: another blade, not this one turned over",
    "signs-disagree": "its signs disagree which way up it is",
    "imprint-differs": "not as the old imprint has it",
    "washer-reversed": "washer's hollow the wrong way",
    "part-missing": "a part of the stack missing",
    "other-order": "stack in another order",
    proud: "not down on its seat",
    "bolt-weaker": "bolt weaker than the sheet's",
    "bolt-harder": "bolt harder than the sheet's",
    "torque-near": "torque near the sheet's limits",
    "part-near": "near another blade's sizes",
    "torque-high": "torque over the sheet's",
    "torque-low": "torque under the sheet's",
    "wrong-part": "not this machine's blade",
    "worn-or-other": "worn, or another part",
    strikes: "strike each other",
    loose: "loose",
    "by-feel": "tightened by feel",
  },
  figures: {
    torque: "Torque",
    "clamp-force": "Clamps with",
    "width-of-cut": "Width of cut",
  },
  parts: {
    set: "The set",
  },
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
  photographs: "washer stack, in its order",
};

function sayFit(assessment: Found, told: Told): string {
  const { detail } = assessment;
  if (detail.strikes) return "Too long: these blades would strike each other. Do not fit them.";
  // What is off with the part and with a torque has sentences of its own.
  const marks = assessment.marks.filter(({ place, code }) => place !== "set" && !code?.startsWith("torque-"));
  const bad = worst(marks);
  if (bad.length > 0 && bad[0]?.code !== "by-feel") return sayMarks(face, { ...assessment, marks }, told, "");
  if (detail.mismatches.length > 0 && detail.mismatches.every(({ consequence }) => consequence === "worn-or-another-part"))
    return `Worn, or another part: ${detail.mismatches.map(({ code }) => MISMATCH[code]).join(", ")}. Hold it against the old one.`;
  if (detail.mismatches.length > 0) return `Not this machine's blade: ${detail.mismatches.map(({ code }) => MISMATCH[code]).join(", ")}.`;
  const torque = assessment.figures.find(({ id, verdict }) => id === "torque" && verdict === "out");
  if (torque) return `${placeName(told.machine, torque.place ?? "")}: torque is not the sheet's.`;
  if (assessment.verdict === "not-enough-readings") return "Look at every blade.";
  return bad.length > 0 ? "Right, but tightened by feel: put a wrench on it." : "Fitted right.";
}

const MISMATCH: Record<FitDetail["mismatches"][number]["code"], string> = {
  longer: "too long",
  shorter: "too short",
  "worn-shorter": "worn shorter",
  "other-hole": "another centre hole",
  "hole-too-wide": "hole too wide",
  "hole-too-narrow": "hole too narrow",
  "other-offset": "another offset",
  "other-thickness": "another thickness",
  narrower: "narrower",
  "mulching-with-catcher": "mulching blade with a catcher",
  "high-lift-on-mulching": "high lift on a mulching deck",
  "other-lift": "another lift",
  "other-second": "flats or pins elsewhere",
  "low-lift-with-bag": "low lift with a bag",
  "turns-the-other-way": "for the other direction",
};

const HOLLOW: Record<string, string> = table({
  "toward-blade": "turn the washer, hollow toward the blade as this machine’s stack has it, so that its rim bears",
  "toward-head": "turn the washer, hollow toward the bolt’s head as this machine’s stack has it",
  "by-imprint": "turn the washer as the imprint on the old blade and hub shows, and as the manual has it",
});

const SIGNS: Record<string, string> = table({
  sail: "sail",
  stamp: "stamp",
  centre: "dish of its middle",
  leads: "leading edge",
  arrow: "arrow",
});

const GRADE_WORDS: Record<string, string> = table({
  "sae-2": "no marks",
  "sae-5": "three lines",
  "sae-8": "six lines",
  "iso-8-8": "8.8",
  "iso-10-9": "10.9",
  "iso-12-9": "12.9",
});

const PART_WORDS: Record<string, string> = table({
  lengthMetres: "length",
  hole: "centre hole",
  holeMetres: "width of the hole",
  thicknessMetres: "thickness",
  secondMetres: "flats or pins",
  offsetMetres: "offset",
  lift: "lift",
  turns: "direction",
});
