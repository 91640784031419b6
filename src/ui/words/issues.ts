import { table } from "@/core/basics/tables";
import { type Dimension, formatQuantity, type QuantityIssue, type UnitSystem } from "@/core/basics/units";
import { FACED } from "../checks/faces";
import { sayProblem } from "../checks/words";
import { labelOfCheck } from "./diagnosis";

const KIND_WORDS: Record<Dimension, string> = {
  length: "a length",
  pressure: "a pressure",
  torque: "a torque",
  speed: "a speed",
  rotation: "revolutions per minute",
  temperature: "a temperature",
  mass: "a mass",
  "small-mass": "a mass",
  imbalance: "an imbalance",
  distance: "a distance",
  seconds: "a time in seconds",
  force: "a force",
  duration: "a time",
  angle: "an angle",
  share: "a share in percent",
};

/** A clear sentence, with an example, for text that is no quantity. */
export function sayQuantityIssue(issue: QuantityIssue): string {
  switch (issue.code) {
    case "empty-quantity":
      return `Nothing typed. Type it like ${issue.example}.`;
    case "division-by-zero":
      return `“${issue.text}” has a fraction over zero. Type it like ${issue.example}.`;
    case "unit-of-another-kind":
      return `“${issue.unit}” does not measure ${KIND_WORDS[issue.wanted]}. Type it like ${issue.example}.`;
    case "unreadable-quantity":
      return `“${issue.text}” cannot be read as ${KIND_WORDS[issue.wanted]}. Type it like ${issue.example}.`;
  }
}

const _length = (metres: unknown, system: UnitSystem) =>
  typeof metres === "number" ? formatQuantity({ valueSi: metres, dimension: "length", system, instrument: "tape" }).text : "";

type AnyIssue = { code: string; [detail: string]: unknown };

const SENTENCES: Record<string, (issue: AnyIssue, system: UnitSystem) => string> = table({
  "nothing-read": () => "Nothing was read yet. Fill in at least one field.",
  "place-read-twice": () => "This place has two readings. Keep one.",
  "unknown-wheel": (i) => `This machine has no air-filled wheel called “${i.place}”.`,
  "unknown-spindle": (i) => `This machine has no blade called “${i.place}”.`,
  "check-not-for-this-machine": () => "This machine's features rule that check out.",
  "unknown-hanger": (i) => `This machine has no hanger called “${i.place}”.`,
  "torque-without-wrench": () => "A torque needs a torque wrench: by feel or left loose there is no figure. Change one of the two.",
  "one-blade": () => "This machine has one blade: nothing overlaps.",
  "no-gearboxes": () => "This machine's blades are not geared.",
  "no-hangers": () => "This machine's deck hangs on no links.",
  "no-anti-scalp-wheels": () => "This machine's sheet names no anti-scalp wheels.",
  "more-than-there-are": (i) => `The sheet knows ${i.wanted} of these. Count again.`,
  "fewer-back-than-came-off": (i) => `${i.wanted} came off: ${i.wanted} go back. Look for the one that is left.`,
  "box-still-open": () => "A gearbox is still apart. Put it together, every part counted back.",
  "not-left-loose": () => "Only bolts of this step can be left loose on purpose.",
  "not-a-rotation": () => "Every spindle has to end up at one place, and every place with one spindle.",
  "timing-unseen": () =>
    "The geared blades were disturbed: turn them by hand through a full turn and write the timing down before it is run.",
  "timing-too-near": () =>
    "The geared blades pass too near each other. It is not run before they are refitted in time and turned by hand again.",
  unsafe: () => "Something unsafe holds the machine. It is not run before that is read right, or let go with a reason.",
  "locked-by": (i) => `${i.owner} is locked on to it. Only ${i.owner} lifts that; somebody else with a reason.`,
  "struck-not-looked": () => "It struck something, and not everything was looked at since.",
  "deck-off": () => "The deck is not back on yet.",
  "box-apart": () => "A gearbox is still apart.",
  "work-open": () => "A blade or a spindle is still off. Put it back on, step by step.",
  "size-not-home": (i, s) =>
    `More than ${typeof i.within === "number" ? formatQuantity({ valueSi: i.within, dimension: "length", system: s, instrument: "fine" }).text : "that"} from flush: it is not home. Press it in, or measure again.`,
  "size-not-credible": (i, s) =>
    `More than ${typeof i.most === "number" ? formatQuantity({ valueSi: i.most, dimension: "length", system: s, instrument: "gauge" }).text : "that"} it cannot be. Look at the unit and type it again.`,
  "in-tray": (i) => `${i.lies} of it came off and lie in the tray: put them back first, or take that step back.`,
  "nothing-counted": () => "Nothing was counted. Count what came off; where this machine has none of it, tell its own list.",
  "refused-answer": (i) => REFUSED_WORDS[String(i.why)] ?? "Not like this.",
  "part-on-bench": () => "A part of it is on the bench. Put it back first.",
  "belt-not-seated": () => "A belt was disturbed, and nobody looked at its grooves since. Put it back first.",
  "blades-not-turned": () => "Blades that were disturbed were not turned by hand since. Put it back first.",
  "not-put-back": () => "It was worked on and not put back yet.",
  "not-ready": () => "Nobody made it ready to run.",
  "not-by-word": () => "No word releases this: mend it, put another part in its place, and read it right.",
  "reason-of-substance": () => "Say in a few words why: what was done, seen or agreed. “ok” is no reason.",
  "state-not-of-this-kind": () => "This machine cannot be brought into that state.",
  "unknown-point": () => "That point is not asked about in this state.",
  "unknown-part": (i) => `This machine has no part called “${i.place}”.`,
  "not-by-unit": () => "This fix is of the whole machine, not of one unit.",
  "nothing-ground": () => "Nothing is ground in this fix. Write the grinding down by itself.",
  "no-in-feed": () => "Not one in-feed was counted: nothing came off. Count them, or write the fix down without a tally.",
  "no-reel-ground": () => "No reel is ground in this fix. Write the spinning down by itself.",
  "one-knife-a-tally": () => "A tally is of one knife. Tick the unit it was ground on, and write each down by itself.",
  "not-on-bench": (i) => `Nobody has put “${i.place}” on the bench. Make it safe there first.`,
  "wrench-without-figure": () => "By torque wrench is said with its figure. Type what the wrench was set to, or say “by feel”.",
  "torque-not-credible": (i, s) =>
    `The sheet says ${typeof i.wantedNewtonMetres === "number" ? formatQuantity({ valueSi: i.wantedNewtonMetres, dimension: "torque", system: s, instrument: "gauge" }).text : "another figure"}: this is no torque for that bolt. Look at the unit and type it again.`,
  "read-since": (i) => `${i.by} has read this meanwhile. Look at that reading first; yours is kept here.`,
  "say-what": () => "Say what it is.",
  "say-what-is-owed": () => "Say what is owed on it.",
  "deck-still-off": () => "The deck is not back on yet. Finish putting it on, every part counted back.",
  "not-a-picture": () => "That is no picture a browser can show. Take a photograph, or pick a JPEG, PNG or WebP.",
  "no-spindles": () => "This machine has no blades on its sheet.",
  "no-air-tyres": () => "This machine has no air-filled tyres.",
  "state-needed": (i) =>
    `The machine must be ${STATE_WORDS[String(i.needs)] ?? i.needs} first. Confirm it, then save again: what you typed is kept.`,
  "say-or-pick": () => "Say in a few words what is wrong, or touch a picture.",
  "say-who": () => "Say who noticed it.",
  "say-why": () => "Say why.",
  "name-a-cause": () => "Name at least one cause, or “nothing found”.",
  "hours-run-backwards": (i) => `The meter stood at ${i.beforeHours} h already. If that was wrong, tick “correction”.`,
  "hours-run-too-fast": (i) =>
    `The meter stood at ${i.beforeHours} h, and only ${i.goneHours} h went by since. A digit too many? Mend it, or say that it is right.`,
  "initials-taken": () => "These initials are on the list already: pick them there.",
  "initials-look-alike": (i) => `On paper these cannot be told from “${i.alike}”, who is on the list. Add a letter.`,
  "two-to-four-letters": () => "Two to four letters, like “AB”.",
  "letters-of-one-alphabet": () => "All letters from one alphabet, as a keyboard types them.",
  "photographs-full": (i) =>
    i.of === "record"
      ? `The record holds ${i.most} MB of photographs, as many as it may. Whoever runs it can allow more.`
      : `This ${i.of} has ${i.most} photographs, as many as it may keep.`,
  "too-many-requests": (i) => `Too many at once. Wait ${i.waitSeconds} s and press again: what you typed is kept.`,
  "cause-of-another-kind": () => "A machine of this kind cannot have that cause.",
  "unknown-cause": () => "No cause of that name is on the list.",
  "as-typed-differs": (i) => `“${i.text}” is not what this reading was read as. Type it again.`,
  "as-typed-of-nothing": () => "A text stands beside a place that was not read.",
  "id-twice": (i) => `Two places are called “${i.id}”. Give one another name.`,
  "least-above-most": () => "The least is more than the most. Change one of the two.",
  "pressure-above-moulded": () => "More than the figure moulded on the tyre, which is the most it may have.",
  "not-on-sheet": (i) => `Nothing on this sheet is called “${i.place}”.`,
  "cuts-with-another": () => "A rotary machine cuts with blades, a reel machine with units: this sheet says both, or the other.",
  "nothing-to-cut-with": () => "This sheet names nothing that cuts.",
  "rollers-overlap": () => "The two rollers lie in one another. One of their places or sizes is wrong.",
  "rollers-crossed": () => "The front roller stands behind the rear one. One of their places is wrong.",
  "no-side-view": () => "This unit's side view is not on the sheet: nothing can be reckoned or kept of it.",
  "out-of-travel": () =>
    "The height screws do not travel that far. Move the front roller's bracket by its table first, or choose another height.",
  "stands-on-knife": () => "So it would stand on heel or toe of its knife, not on its rollers.",
  "nothing-set": () => "It stands so already: nothing was moved.",
  "height-not-credible": (i, s) =>
    `That would bench it at ${typeof i.heightMetres === "number" ? formatQuantity({ valueSi: i.heightMetres, dimension: "length", system: s, instrument: "gauge" }).text : "a height no reel has"}: no reel cuts so high. Look at the figure again.`,
  "rollers-above-knife": () => "The rollers stand above the knife: it would lie on the ground. One of their places or sizes is wrong.",
  "too-deep": () => "Nested deeper than anything here.",
  "cannot-be-reckoned": () =>
    "This specification cannot be reckoned with: something on it never comes to an end. Look at its smallest and largest sizes.",
  "number-not-credible": () => "A number stands in here that nobody measures. Type it again.",
  "letter-not-allowed": () => "A letter stands in here that no keyboard types. Type it again.",
  "name-not-allowed": () => "A name that cannot stand here.",
  "outline-crosses": () => "The deck's outline crosses itself. One of its corners is out of order or in the wrong place.",
  "blades-would-strike": (i, s) =>
    `${i.place} and ${String(i.other).toLowerCase()} would strike each other: their circles meet by ${_length(i.byMetres, s)}. Move one of them, or make one shorter. Are they timed by gears? Then say so under what it has.`,
  "place-in-use": (i) =>
    `“${i.place}” stays on the sheet: something is still written down of it that is unsafe, off, not turned by hand or not looked at. Settle that first.`,
  "work-is-open": (i) =>
    `“${i.place}” is off or coming off: it goes back by the order and with the parts it came off with. Put it on first, then change the stack or the kind.`,
  "read-first": (i) =>
    `${labelOfCheck(String(i.check))} is still owed and keeps the machine from running: it has to be made before the specification rules it out.`,
  "run-against-reasons": () =>
    "Something keeps this machine from running. If it was run all the same, say how that came about: who ran it, and what for. It lets go of nothing.",
  "reason-stands": () => "What keeps this machine from running would go with this, and this does not do away with it.",
  "meter-swapped-already": (i) =>
    `${i.by} wrote a swap of this meter down on ${String(i.at).slice(0, 10)}. The same one? Then it stands already. Another one? Say so.`,
  "stack-twice": (i) => `The washer stack holds one ${i.part}, and here are more. Take what is too many away.`,
  "deck-is-off": () =>
    "Its deck is off or coming off: it goes back by the order it came off in. Put it on first, then change the order, its hangers or what it has.",
  "jobs-open": (i) => `Job ${i.jobs} is open on it. Close that first, then retire it.`,
  "date-in-future": () => "That day has not come yet.",
  "date-unreadable": () => "A day like 2026-05-04.",
  "unknown-machine": (i) => `No machine here has the number “${i.fleetNumber}”.`,
  "machine-twice": (i) => `${i.fleetNumber} stands here twice. Keep one.`,
  "pick-checks": () => "Pick at least one worksheet.",
  "date-too-far": () => "Nobody plans that far ahead. Pick a nearer day.",
  "day-gone": () => "That day is gone, or is today. Pick one that is to come.",
  "not-by-hours": () => "That is due by what is left of it, and not by hours or days: it can only be left off.",
  "pick-places": () => "Say where.",
  "say-how-often": () => "Say every how many hours, or every how many days.",
  "scope-named": () => "Say for which kind or which machine.",
  "pick-machines": () => "Pick at least one machine.",
  "not-fitted": () => "That set is on no machine.",
  "place-taken": (i) => `Set ${i.mark} sits there. Write down that it came off, then fit this one.`,
  "fitted-elsewhere": (i) => `That set is on ${i.machine} already. Take it off there first.`,
  "set-finished": () => "That set is finished. It goes on no machine any more.",
  "mark-taken": () => "Another set carries that mark.",
  "not-so-many": (i) => `Only ${i.stock} are in stock.`,
  "counted-in-a-job": () => "A grind is written down in a job, unit by unit and by how much: that is what its knife is reckoned by.",
  "not-of-this-sort": () => "That part does not go on such a machine.",
  "nothing-postponed": () => "Nothing of that is due.",
  "fleet-number-taken": () => "Another machine has this number.",
  "reason-needed": () => "Say why it is not here.",
  "too-many-symptoms": (i) =>
    `More than ${i.most} looks at once cannot be told apart. Keep the clearest; the rest may be a complaint of its own.`,
  "seen-and-denied": () => "The same look is said to be there and not there. Keep one.",
  "contradictory-contexts": () => "It cannot be this machine alone and every machine. Keep one.",
  "only-complaint": () => "It is the only complaint of this job.",
  "job-has-work": () => "Somebody has been at work on it: a job that has readings stays by itself.",
  unanswered: () => "Answer this one.",
  "job-of-another-machine": () => "That job belongs to another machine.",
});

/** Why a guided step does not go on with this answer. */
export const REFUSED_WORDS: Record<string, string> = table({
  "block-slips": "Not with a block that slips: wedge it, or another one, before the wrench is pulled.",
  "bolt-still-tight":
    "Next rung: penetrating oil and time, a longer lever, then an impact wrench with everything rated for it. Never heat.",
  "impact-not-rated": "A socket, adapter or extension that is not rated for an impact wrench can burst. Get rated ones.",
  "thread-not-as-torque":
    "The sheet’s torque is for the other kind of thread: oil changes what it clamps with by a third. Clean it, or oil it, first.",
  "bolt-binds": "A bolt that binds by hand is crossed or its thread is spoilt. Out again, and look.",
  "seat-not-clean": "Clean it first: paint, a label or rust under the hub settles, and the bolt is loose.",
  "touches-by-hand": "Not like this: find what it touches before it goes on.",
  "prove-identical": "Measure that they are alike first: shaft, length, pulley and seat.",
  "bearing-not-home": "Press it home first: a bearing that stands proud is clamped askew.",
  "seal-not-square": "Out with it and in again, square and level all round.",
  "face-not-clean": "Clean both faces first: a speck sets the box askew.",
  "casing-stripped": "Stop: a stripped thread in the casing is repaired before the box goes on.",
  "deck-not-propped": "Not like that: prop or tie it and block its wheels before anybody reaches under it.",
});

export const STATE_WORDS: Record<string, string> = table({
  parked: "parked",
  "locked-out": "locked out",
  raised: "raised and locked out",
  running: "ready to be run",
  "deck-removed": "deck removed and locked out",
  bench: "on the bench",
});

/** What a schema refuses, without its own words: they are a programmer's. */
const REFUSED: Record<string, (issue: AnyIssue) => string> = table({
  "too-big": ({ of, most }) =>
    of === "string"
      ? `Too long: ${most} letters at most.`
      : of === "array"
        ? `Too many: ${most} at most.`
        : "More than this can be. Read it again.",
  "too-small": ({ of, least }) =>
    of === "string" || of === "array"
      ? least === 1
        ? "Nothing stands here yet."
        : `Too few: ${least} at least.`
      : "Less than this can be. Read it again.",
  "invalid-type": () => "Missing here, or not of the kind that belongs here.",
  "invalid-value": () => "None of the answers that can be given here.",
  "invalid-format": () => "Not written as it has to be here.",
  "invalid-key": () => "A name that cannot stand here.",
  "invalid-element": () => "Something in here cannot stand.",
  "invalid-union": () => "Not of any kind that belongs here.",
  "not-multiple-of": () => "A whole number, please.",
  "unrecognized-keys": () => "Something stands here that has no place.",
});

const NOT_UNDERSTOOD = "That cannot be taken as it stands. Look at it again.";

/** One issue from core or API as a sentence. */
export function sayIssue(issue: AnyIssue, system: UnitSystem): string {
  const known = SENTENCES[issue.code] ?? SENTENCES[String(issue.message)];
  if (known) return known(issue, system);
  const problem = issue as { code: string };
  const own = FACED.map((check) => sayProblem(check, problem, system)).find((sentence) => sentence !== undefined);
  return own ?? REFUSED[issue.code]?.(issue) ?? NOT_UNDERSTOOD;
}

const ERRORS: Record<string, string> = table({
  "job-closed":
    "This job was closed in the meantime. Nothing was written; what you typed is still here. Reopen the job by undoing its close, or take a new complaint.",
  "changed-since": "This changed since the page was drawn. Look at what stands now, then try again; what you typed is kept.",
  "not-safe": "Not written down.",
  "read-since": "Not saved yet.",
  "hold-stands": "A hold is not undone. It falls when what caused it is read right, or it is released with a reason.",
  "reason-stands":
    "Not written down: something that keeps this machine from running would go with it. Clear that where it is cleared, or have it let go of with a reason.",
  "unknown-person": "Pick your initials first, at the top right.",
  "body-too-large": "That is more than a record can hold. Shorten it.",
  "job-not-found": "There is no such job.",
  "machine-not-found": "There is no such machine.",
  "machine-retired": "This machine is retired: nobody works on it. A lead can take it back into the fleet on its page.",
  "part-not-found": "There is no such part.",
  "set-not-found": "There is no such set.",
  "round-not-found": "There is no such round, or that machine is not in it.",
  "place-not-found": "There is no such place.",
  "place-stands": "It stands among the dangers already.",
  "procedure-not-found": "There is no such procedure.",
  "not-proved": "Not proved yet.",
  "not-yours": "Only the person changes this. Pick your own initials, at the top right.",
  "submission-reused":
    "This was written down before with other words or figures, from another tab or before the line was lost. Look at what stands; press again to write this as well.",
  "too-many-requests": "Too many at once. Wait a little and press again: what you typed is kept.",
  "another-record":
    "Another record has been put in place of the one this page was opened on. Nothing was written. Reload the page; what you typed is kept with the old one.",
  "too-many-people": "The list of initials is full. Somebody who is on it has to be picked.",
  "photographs-full": "No room for another photograph.",
  "photograph-not-found": "That photograph is gone.",
  "record-busy": "The record is busy: another program holds it. Nothing was written; press again in a moment.",
  "record-spoilt": "The record's file is damaged. Nothing was written. Whoever runs it finds what to do in docs/operations.md.",
  "record-unreadable": "The record's file cannot be read or written where it lies. Nothing was written.",
  "folder-in-use": "A server is running on this data. Stop it first; nothing was touched.",
  "no-room": "The disk is full. Nothing was written; make room and press again.",
  "sheet-spoilt": "This machine's sheet cannot be read. Nothing can be measured on it before that is mended.",
  "json-only": "What was sent does not say that it is JSON.",
  "reckoning-too-long":
    "That took longer to reckon than anything should. Nothing was written; look at the figures, or press again in a moment.",
  "request-too-slow": "The line was too slow. Press again: what you typed is kept.",
  "not-reached-here": "This page was opened under a name this server does not answer to.",
  "database-newer": "The record was written by a newer Zygometer. Start that one; this one touches nothing.",
  "nothing-to-undo": "There is nothing left to undo.",
  "foreign-origin": "This page was opened from another address. Open it again from the address the program printed.",
  offline: "No connection. What you typed is kept here: press again when the line is back, nothing will be doubled.",
  invalid: "Something needs another look.",
});

export function sayError(code: string): string {
  return ERRORS[code] ?? "Something went wrong on the server. Nothing was written; what you typed is still here.";
}
