import * as z from "zod";
import type { Figure, Finding } from "@/core/basics/findings";
import { physicalOrNought } from "@/core/basics/units/physical";
import { CONTACT_SCHOOLS, type ContactSchool } from "@/core/catalogue";
import { type Machine, reelBladesOf, schoolOf, unitSheetOf, unitsAcross } from "@/core/machine";
import {
  ALONG,
  type Along,
  contactTurn,
  GAP_METRES,
  type Gaps,
  gapSays,
  isLooserPaper,
  PAPER,
  type Pattern,
  REEL_TURNS,
  readContact,
  type Setting,
  type Trials,
} from "@/core/physics/reel";
import { byUnitSchema, keepsUnits, noUnits, unitGroups, unknownUnits } from "../by-unit";
import { choices, type Field, type Form } from "../form";
import { pointsAt, settled, shows } from "../settled";
import type { Assessment, At, Check } from "../types";

const along = z.object({ left: z.enum(PAPER).optional(), middle: z.enum(PAPER).optional(), right: z.enum(PAPER).optional() });
const gap = physicalOrNought("metres", 0.1);

export const contactReadingsSchema = byUnitSchema(
  z.object({
    turns: z.enum(REEL_TURNS).optional(),
    /** The worst of all reel blades at each place along the knife. */
    worst: along.optional(),
    /** Blade by blade, numbered from 1. */
    trials: z.record(z.string().regex(/^[1-9][0-9]?$/), along).optional(),
    gaps: z.object({ left: gap.optional(), middle: gap.optional(), right: gap.optional() }).optional(),
    /** Whether it can be made to cut paper by bringing the knife closer. */
    closer: z.enum(["cuts", "will-not", "not-tried"]).optional(),
    bearing: z.enum(["sound", "not-known", "lifts"]).optional(),
  }),
);
export type ContactReadings = z.output<typeof contactReadingsSchema>;
type Read = ContactReadings["units"][string];

type Says = {
  action:
    | { code: "bring-closer"; place: string; end: "both" | "left" | "right"; turns?: number }
    | { code: "back-off"; place: string; end: "both" | "left" | "right"; turns?: number }
    | { code: "set-parallel"; place: string; end: "left" | "right"; turns?: number }
    | { code: "grind-knife"; place: string }
    | { code: "look-at-blade"; place: string; blades: string }
    | { code: "lap-or-grind"; place: string }
    | { code: "bearing-first"; place: string }
    | { code: "free-reel"; place: string };
  warning: { code: "bearing-not-known"; place: string } | { code: "bearing-lifts"; place: string };
  provisional:
    | { code: "unit-unread"; place: string }
    | { code: "bearing-not-known"; place: string }
    | { code: "usual-school"; place: string };
  problem:
    | { code: "unknown-unit"; place: string }
    | { code: "more-blades-than-reel"; place: string; blades: number }
    | { code: "worse-than-the-worst"; place: string; blade: string; along: Along };
};

export type UnitContact = {
  school: ContactSchool;
  pattern: Pattern;
  along: Partial<Record<Along, Setting>>;
  /** What the same trials come to under each school. */
  bySchool: Record<ContactSchool, Pattern["name"]>;
};
export type ContactDetail = { units: Record<string, UnitContact> };

/** How reel and knife meet along the knife and round the reel, by paper or by feeler, under the unit's own school. */
export const reelContact: Check<ContactReadings, ContactDetail, Says> = keepsUnits({
  id: "reel-contact",
  ruleVersion: 4,
  cautions: ["feel-for-contact", "reels-isolated"],
  readingsSchema: contactReadingsSchema,
  missing: noUnits,
  problems,
  form: formOf,
  assess,
});

function problems(machine: Machine, { units }: ContactReadings): (Says["problem"] & At)[] {
  const over = Object.entries(units).flatMap(([place, { trials = {} }]) => {
    const blades = reelBladesOf(machine, place);
    return Object.keys(trials)
      .filter((blade) => Number(blade) > blades)
      .map((blade) => ({ code: "more-blades-than-reel" as const, path: ["units", place, "trials", blade], place, blades }));
  });
  return [...unknownUnits(machine, units), ...over, ...Object.entries(units).flatMap(([place, read]) => contradictions(place, read))];
}

/** A blade that came out worse than what was given as the worst of all of them. */
function contradictions(place: string, { trials = {}, worst = {} }: Read): (Says["problem"] & At)[] {
  return Object.entries(trials).flatMap(([blade, row]) =>
    ALONG.flatMap((at): (Says["problem"] & At)[] => {
      const [own, all] = [row[at], worst[at]];
      const isWorse = own !== undefined && all !== undefined && isLooserPaper(own, all);
      return isWorse ? [{ code: "worse-than-the-worst", path: ["units", place, "trials", blade, at], place, blade, along: at }] : [];
    }),
  );
}

const PAPERS = choices(["cut", "Cut clean"], ["pinched", "Pinched or torn"], ["passes", "Passes"]);

function formOf(machine: Machine): Form {
  const across = unitsAcross(machine);
  const paper = (unit: string, path: readonly string[], group: string, label: string): Field[] =>
    ALONG.map((place) => ({
      kind: "choice",
      path: ["units", unit, ...path, place],
      group,
      label: `${label}${place}`,
      isOptional: true,
      options: PAPERS,
    }));
  return {
    groups: across.flatMap((unit, k) => [
      unitGroups(machine)[k] as Form["groups"][number],
      { id: `${unit.id}-blades`, label: `${unit.label}: blade by blade`, isFolded: true },
      { id: `${unit.id}-feeler`, label: `${unit.label}: by feeler`, isFolded: true },
    ]),
    fields: across.flatMap(({ id }): Field[] => [
      {
        kind: "choice",
        path: ["units", id, "bearing"],
        group: id,
        label: "Reel bearings",
        options: choices(["sound", "Read sound"], ["not-known", "Not looked at"], ["lifts", "Lift"]),
      },
      {
        kind: "choice",
        path: ["units", id, "turns"],
        group: id,
        label: "Reel turned by its handle",
        options: choices(["free", "Free"], ["light-drag", "Drags a little"], ["stiff", "Stiff"]),
      },
      ...paper(id, ["worst"], id, "One strip of paper, worst of all blades, "),
      {
        kind: "choice",
        path: ["units", id, "closer"],
        group: id,
        label: "Brought closer",
        options: choices(["cuts", "It cuts"], ["will-not", "Will not cut however close"], ["not-tried", "Not tried"]),
      },
      ...Array.from({ length: reelBladesOf(machine, id) }, (_, k) => String(k + 1)).flatMap((blade) =>
        paper(id, ["trials", blade], `${id}-blades`, `Blade ${blade}, `),
      ),
      ...ALONG.map(
        (place): Field => ({
          kind: "quantity",
          path: ["units", id, "gaps", place],
          group: `${id}-feeler`,
          label: `Gap, ${place}`,
          isOptional: true,
          dimension: "length",
          instrument: "fine",
          range: { least: 0, most: 0.1, usualLeast: 0, usualMost: 0.0006 },
        }),
      ),
    ]),
  };
}

/** Trials with the worst of all blades as one more row. */
function trialsOf({ trials = {}, worst }: Read): { rows: Trials; all: Trials } {
  const rows = trials as Trials;
  return { rows, all: worst ? { ...rows, worst: worst as Trials[string] } : rows };
}

const isPlaceRead = (read: Read, place: Along): boolean =>
  read.gaps?.[place] !== undefined ||
  read.worst?.[place] !== undefined ||
  Object.values(read.trials ?? {}).some((row) => row[place] !== undefined);

const isTold = (read: Read): boolean =>
  ALONG.every((place) => isPlaceRead(read, place)) && read.turns !== undefined && read.closer !== undefined && read.bearing !== undefined;

function contactOf(machine: Machine, unit: string, read: Read): UnitContact {
  const under = (school: ContactSchool) => {
    const { rows, all } = trialsOf(read);
    const rest = { gaps: (read.gaps ?? {}) as Gaps, ...(read.turns ? { turns: read.turns } : {}) };
    const whole = readContact(school, { trials: all, ...rest });
    const byBlade = readContact(school, { trials: rows, ...rest });
    return byBlade.pattern.name === "one-blade" ? { ...whole, pattern: byBlade.pattern } : whole;
  };
  const school = schoolOf(machine, unit);
  const own = under(school);
  return {
    school,
    pattern: own.pattern,
    along: own.along,
    bySchool: Object.fromEntries(CONTACT_SCHOOLS.map((one) => [one, under(one).pattern.name])) as UnitContact["bySchool"],
  };
}

const CAUSES_OF: Record<Exclude<Pattern["name"], "even">, Finding["causes"]> = {
  "everywhere-loose": shows("contact-loose"),
  "everywhere-tight": shows("contact-tight"),
  "one-end": shows("contact-tapered"),
  hollow: shows("bedknife-worn-hollow"),
  crowned: pointsAt("contact-tapered"),
  "one-blade": shows("reel-blade-high"),
  mixed: pointsAt("contact-tapered"),
  "in-part": pointsAt("contact-loose", "contact-tapered"),
};

/**
 * A reel that turns stiff though paper passes everywhere touches no knife there: what holds it is its bearings, cut grass wound on its shaft, or the knife bar,
 * and brought closer it would only turn harder.
 */
function isHeldElsewhere(read: Read): boolean {
  const papers = Object.values(trialsOf(read).all).flatMap((row) => ALONG.flatMap((at) => row[at] ?? []));
  return read.turns === "stiff" && papers.length > 0 && papers.every((paper) => paper === "passes");
}

/** By drag, by paper or by feeler: a place that paper calls loose may be tight by feeler, and both are told. */
const isTightAnywhere = (
  { turns, gaps = {} }: Read,
  { along: places, school }: Pick<UnitContact, "along" | "school">,
  isFree: boolean,
): boolean =>
  (turns === "stiff" && !isFree) ||
  ALONG.some((at) => places[at] === "tight" || (gaps[at] !== undefined && gapSays(school, gaps[at]) === "tight"));

/** Paper that cuts wherever it was tried, where only a feeler shows a gap: one of both may be misread. */
function isOnlyByFeeler(read: Read): boolean {
  const papers = Object.values(trialsOf(read).all).flatMap((row) => ALONG.flatMap((at) => row[at] ?? []));
  return papers.length > 0 && papers.every((paper) => paper === "cut");
}

/** Drag is felt; a gap that is only read off a feeler is suspected. */
const isDragging = ({ turns }: Read, school: ContactSchool): boolean =>
  turns === "stiff" || (turns === "light-drag" && school === "no-contact");

const SURE: readonly string[] = ["tight", "will-not-cut", "bearing-lifts"];
const suspected = (finding: Finding): Finding =>
  SURE.includes(finding.code) ? finding : { ...finding, causes: pointsAt(...(finding.causes ?? []).map(({ cause }) => cause)) };

function findingsAt(place: string, read: Read, contact: UnitContact): Finding[] {
  const found = patternFindings(place, read, contact);
  return isOnlyByFeeler(read) ? found.map(suspected) : found;
}

function patternFindings(place: string, read: Read, { pattern, along: places, school }: UnitContact): Finding[] {
  const isHeld = isHeldElsewhere(read);
  const isTight = isTightAnywhere(read, { along: places, school }, isHeld);
  const name = pattern.name;
  // Pinched paper at one place may be the hand that held it, or an edge on its way to dull; paper that passes is not.
  const { all } = trialsOf(read);
  const isSure = name === "everywhere-loose" || Object.values(all).some((row) => ALONG.some((at) => row[at] === "passes"));
  // Paper that dull edges will not cut, here and there or everywhere, says nothing of how they stand.
  const isDull = read.closer === "will-not" && (name === "everywhere-loose" || !isSure);
  const off: Finding[] = [
    ...(isHeld ? [{ place, code: "held-elsewhere", verdict: "out" as const, causes: pointsAt("reel-bearing-worn", "shaft-wrapped") }] : []),
    ...(name === "even" || name === "everywhere-tight" || isHeld
      ? []
      : [
          {
            place,
            code: name,
            verdict: "out" as const,
            causes: isDull ? [] : isSure ? (CAUSES_OF[name] ?? []) : pointsAt(...(CAUSES_OF[name] ?? []).map(({ cause }) => cause)),
          },
        ]),
    ...(isTight
      ? [
          {
            place,
            code: "tight",
            verdict: "out" as const,
            causes: name === "one-end" ? [] : isDragging(read, school) ? shows("contact-tight") : pointsAt("contact-tight"),
          },
        ]
      : []),
    ...(read.closer === "will-not" ? [{ place, code: "will-not-cut", verdict: "out" as const, causes: shows("reel-dull") }] : []),
    ...(read.bearing === "lifts" ? [{ place, code: "bearing-lifts", verdict: "out" as const, causes: shows("reel-bearing-worn") }] : []),
  ];
  if (off.length === 0 && isGapNear(read, school)) return [{ place, code: "gap-near", verdict: "watch" }];
  return off.length === 0 && isTold(read) ? [{ place, code: "right", verdict: "in-tolerance" }] : off;
}

/** A gap past what the school wants by no more than a feeler tells. */
const isGapNear = ({ gaps = {} }: Read, school: ContactSchool): boolean =>
  ALONG.some((at) => {
    const gap = gaps[at];
    if (gap === undefined) return false;
    return school === "no-contact" ? gap < GAP_METRES.least || gap > GAP_METRES.most : gap > GAP_METRES.least;
  });

/** A cause is away where all was read of every unit and nothing loose or tight is left that it could have made. */
function clearsOf(findings: readonly Finding[], isComplete: boolean): Record<string, boolean> {
  const off = findings.filter(({ verdict }) => verdict === "out").map(({ code }) => code);
  // A reel that lifts stands otherwise once the unit is set down: what was read of its contact clears nothing.
  if (off.includes("bearing-lifts")) return {};
  const isEven = off.every((code) => code === "tight");
  const away = (isIt: boolean) => isComplete && isIt;
  return {
    "contact-loose": away(isEven),
    "contact-tight": away(!off.includes("tight")),
    "bedknife-worn-hollow": away(isEven),
    "reel-blade-high": away(isEven),
    "reel-dull": away(off.length === 0),
  };
}

function assess(machine: Machine, { units }: ContactReadings): Assessment<ContactDetail, Says> {
  const read = unitsAcross(machine).map(({ id }) => ({ id, read: units[id] ?? {}, contact: contactOf(machine, id, units[id] ?? {}) }));
  const told = read.filter((one) => isTold(one.read)).map(({ id }) => id);
  const isComplete = told.length === read.length;
  const findings = read.flatMap((one) => findingsAt(one.id, one.read, one.contact));
  return {
    check: "reel-contact",
    ruleVersion: reelContact.ruleVersion,
    ...settled({ check: "reel-contact", findings, clears: clearsOf(findings, isComplete), told, isComplete }),
    provisional: read.flatMap((one): Says["provisional"][] => [
      ...(told.includes(one.id) ? [] : [{ code: "unit-unread" as const, place: one.id }]),
      ...(one.read.bearing === "not-known" ? [{ code: "bearing-not-known" as const, place: one.id }] : []),
      ...(unitSheetOf(machine, one.id).school ? [] : [{ code: "usual-school" as const, place: one.id }]),
    ]),
    figures: read.flatMap((one) => gapFigures(one.id, one.read, one.contact.school)),
    actions: read.flatMap((one) => actionsOf(machine, one.id, one.read, one.contact)),
    warnings: read.flatMap(({ id, read: { bearing } }): Says["warning"][] => {
      if (bearing === "lifts") return [{ code: "bearing-lifts", place: id }];
      return bearing === "not-known" ? [{ code: "bearing-not-known", place: id }] : [];
    }),
    detail: { units: Object.fromEntries(read.filter((one) => units[one.id]).map((one) => [one.id, one.contact])) },
  };
}

function gapFigures(place: string, { gaps = {} }: Read, school: ContactSchool): Figure[] {
  return ALONG.flatMap((at): Figure[] => {
    const value = gaps[at];
    if (value === undefined) return [];
    const most = school === "no-contact" ? GAP_METRES.most : GAP_METRES.least;
    const least = school === "no-contact" ? { least: GAP_METRES.least } : {};
    return [
      {
        id: `gap-${at}`,
        place,
        value,
        dimension: "length",
        instrument: "fine",
        tolerance: { kind: "between", ...least, most, standing: "common-practice" },
        standing: "measured",
      },
    ];
  });
}

const OTHER_END = { left: "right", right: "left" } as const;

/** What to turn, which way, and how far where a feeler and the sheet's throw tell. A bearing that lifts comes before all of it. */
function actionsOf(machine: Machine, place: string, read: Read, contact: UnitContact): Says["action"][] {
  const { pattern, along: places, school } = contact;
  if (read.bearing === "lifts") return [{ code: "bearing-first", place }];
  if (isHeldElsewhere(read)) return [{ code: "free-reel", place }];
  const throwMetres = unitSheetOf(machine, place).adjusters?.knifeThrowMetres;
  /** Turns of the adjuster where the feeler says the same way as what is to be done: plus is closer. */
  const turnsAt = (at: Along, way: 1 | -1) => {
    const gapMetres = read.gaps?.[at];
    if (gapMetres === undefined || throwMetres === undefined) return {};
    const turns = way * contactTurn({ school, gapMetres, throwMetres });
    return turns > 0 ? { turns } : {};
  };
  const closer = (end: "both" | "left" | "right"): Says["action"] => ({
    code: "bring-closer",
    place,
    end,
    ...turnsAt(end === "both" ? "middle" : end, 1),
  });
  const off = (end: "both" | "left" | "right"): Says["action"] => ({
    code: "back-off",
    place,
    end,
    ...turnsAt(end === "both" ? "middle" : end, -1),
  });
  /** Each end by its own gap where both were read: by the middle's, a taper is pressed into the knife at one end and left open at the other. */
  const ends = (turned: (end: "both" | "left" | "right") => Says["action"], way: 1 | -1): Says["action"][] => {
    const own = (["left", "right"] as const).filter((end) => "turns" in turnsAt(end, way));
    return read.gaps?.left === undefined || read.gaps.right === undefined || own.length === 0 ? [turned("both")] : own.map(turned);
  };
  const isTight = isTightAnywhere(read, contact, false);
  const dull: Says["action"][] = read.closer === "will-not" ? [{ code: "lap-or-grind", place }] : [];
  switch (pattern.name) {
    case "everywhere-loose":
      return dull.length > 0 ? dull : ends(closer, 1);
    case "one-end":
      // Tight at the other end: that one is backed off first, or the reel is pressed harder still.
      return [
        ...dull,
        ...(isTight ? [off(OTHER_END[pattern.end])] : []),
        { code: "set-parallel", place, end: pattern.end, ...turnsAt(pattern.end, 1) },
      ];
    case "hollow":
    case "crowned":
      return [...dull, ...(isTight ? ends(off, -1) : []), { code: "grind-knife", place }];
    case "one-blade":
      return [...dull, ...(isTight ? ends(off, -1) : []), { code: "look-at-blade", place, blades: pattern.blades.join(", ") }];
    default: {
      const isLoose = ALONG.some((at) => places[at] === "loose");
      return [...dull, ...(isTight ? ends(off, -1) : isLoose ? ends(closer, 1) : [])];
    }
  }
}
