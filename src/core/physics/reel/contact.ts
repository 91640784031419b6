import type { ContactSchool } from "@/core/catalogue";

export const ALONG = ["left", "middle", "right"] as const;
export type Along = (typeof ALONG)[number];

/** One strip of paper between one reel blade and the knife, turned by hand; from the tightest to the loosest. */
export const PAPER = ["cut", "pinched", "passes"] as const;
export type Paper = (typeof PAPER)[number];
/** Whether the first stands looser than the second. */
export const isLooserPaper = (one: Paper, other: Paper): boolean => PAPER.indexOf(one) > PAPER.indexOf(other);
/** How the reel turns by its handle meanwhile. */
export const REEL_TURNS = ["free", "light-drag", "stiff"] as const;
export type ReelTurns = (typeof REEL_TURNS)[number];

/** Trials of a unit: by reel blade, numbered from 1, along the knife. */
export type Trials = Readonly<Record<string, Partial<Record<Along, Paper>>>>;
/** Gap by feeler along the knife, metres. */
export type Gaps = Partial<Record<Along, number>>;

/** Gap of the school without contact. Common practice: 0.001 to 0.002 in. */
export const GAP_METRES = { least: 0.000025, most: 0.00005 } as const;
/** A feeler reads no finer than this. Estimate. */
export const FEELER_METRES = 0.000008;

/** Of one place: how it stands to what the unit's school wants. `undefined` where nothing tells. */
export type Setting = "right" | "loose" | "tight";

/**
 * What a strip of paper tells under a school (common practice). Paper that passes is loose under all three. Pinched still cuts grass where the edges
 * are to stand apart, and is loose where they are to touch. Where paper is cut, a reel that turns stiff is tight under all three, and one that drags at all
 * is tight where there is to be no contact.
 */
export function paperSays(school: ContactSchool, paper: Paper, turns: ReelTurns | undefined): Setting {
  if (paper === "passes") return "loose";
  if (paper === "pinched") return school === "no-contact" ? "right" : "loose";
  if (turns === "stiff") return "tight";
  return school === "no-contact" && turns === "light-drag" ? "tight" : "right";
}

/** What a feeler tells: a gap only where the school wants one. */
export function gapSays(school: ContactSchool, gapMetres: number): Setting {
  if (school === "no-contact") {
    if (gapMetres < GAP_METRES.least - FEELER_METRES) return "tight";
    return gapMetres > GAP_METRES.most + FEELER_METRES ? "loose" : "right";
  }
  return gapMetres > GAP_METRES.least + FEELER_METRES ? "loose" : "right";
}

/** The shape of the contact along the knife and round the reel, which tells what is wrong. */
export type Pattern =
  | { name: "even" }
  | { name: "everywhere-loose" }
  | { name: "everywhere-tight" }
  | { name: "one-end"; end: "left" | "right" }
  | { name: "hollow" }
  | { name: "crowned" }
  | { name: "one-blade"; blades: string[] }
  | { name: "mixed" }
  /** Off where it was read, and not all three places were. */
  | { name: "in-part" };

/** The worst of all blades at each place along the knife. */
export function worstAlong(trials: Trials): Partial<Record<Along, Paper>> {
  const worst: Partial<Record<Along, Paper>> = {};
  for (const row of Object.values(trials))
    for (const at of ALONG) {
      const paper = row[at];
      const held = worst[at];
      if (paper !== undefined && (held === undefined || isLooserPaper(paper, held))) worst[at] = paper;
    }
  return worst;
}

/** Reel blades that are worse than all the others at some place, where the others are as they should be: bent, nicked or high. */
function oddBlades(school: ContactSchool, trials: Trials, turns: ReelTurns | undefined): string[] {
  const rows = Object.entries(trials);
  if (rows.length < 3) return [];
  const isOff = (row: Partial<Record<Along, Paper>>) =>
    ALONG.some((at) => {
      const paper = row[at];
      return paper !== undefined && paperSays(school, paper, turns) === "loose";
    });
  const off = rows.filter(([, row]) => isOff(row)).map(([blade]) => blade);
  const on = rows.filter(([, row]) => !isOff(row)).map(([blade]) => blade);
  // More than a third of the blades is no odd one out any more. One that alone cuts stands proud and holds the knife off all the others.
  if (off.length * 3 <= rows.length) return off;
  return on.length > 0 && on.length * 3 <= rows.length ? on : [];
}

type Sides = Partial<Record<Along, Setting>>;

function shapeOf(sides: Sides): Pattern {
  const { left, middle, right } = sides;
  const told = ALONG.flatMap((at) => sides[at] ?? []);
  if (told.every((one) => one === "right")) return { name: "even" };
  if (told.every((one) => one === "tight")) return { name: "everywhere-tight" };
  const isLooser = (a: Setting | undefined, b: Setting | undefined) => (a === "loose" && b !== "loose") || (a === "right" && b === "tight");
  if (left === undefined || middle === undefined || right === undefined) return { name: "in-part" };
  if (told.every((one) => one === "loose")) return { name: "everywhere-loose" };
  if (isLooser(middle, left) && isLooser(middle, right)) return { name: "hollow" };
  if (isLooser(left, middle) && isLooser(right, middle)) return { name: "crowned" };
  if (isLooser(left, right)) return { name: "one-end", end: "left" };
  if (isLooser(right, left)) return { name: "one-end", end: "right" };
  return { name: "mixed" };
}

export type ContactReading = { trials?: Trials; gaps?: Gaps; turns?: ReelTurns };

/** Along the knife: how each place that was read stands, by paper, or by feeler where paper finds nothing off. */
function settingsAlong(school: ContactSchool, { trials = {}, gaps = {}, turns }: ContactReading): Sides {
  const worst = worstAlong(trials);
  return Object.fromEntries(
    ALONG.flatMap((at) => {
      const paper = worst[at];
      const gap = gaps[at];
      const said = [
        ...(paper === undefined ? [] : [paperSays(school, paper, turns)]),
        ...(gap === undefined ? [] : [gapSays(school, gap)]),
      ];
      const off = said.find((one) => one !== "right");
      return said.length === 0 ? [] : [[at, off ?? "right"]];
    }),
  );
}

/**
 * What the trials of a unit show under a school: how each place along the knife stands, and the pattern that names the cause. One blade out of many
 * is told before the shape along the knife: it would make every place look loose.
 */
export function readContact(school: ContactSchool, reading: ContactReading): { along: Sides; pattern: Pattern } {
  const odd = oddBlades(school, reading.trials ?? {}, reading.turns);
  if (odd.length > 0) {
    const others = Object.fromEntries(Object.entries(reading.trials ?? {}).filter(([blade]) => !odd.includes(blade)));
    const along = settingsAlong(school, { ...reading, trials: others });
    const rest = shapeOf(along);
    const isTheOdd = rest.name === "even" || rest.name === "everywhere-loose";
    return { along: settingsAlong(school, reading), pattern: isTheOdd ? { name: "one-blade", blades: odd } : rest };
  }
  const along = settingsAlong(school, reading);
  return { along, pattern: shapeOf(along) };
}

/**
 * How far an end has to come nearer the reel, in turns of its adjuster; negative: backed off. To the middle of the gap that is wanted, or to
 * contact. `throwMetres`: what one turn moves the knife's edge.
 */
export function contactTurn(args: { school: ContactSchool; gapMetres: number; throwMetres: number }): number {
  const wanted = args.school === "no-contact" ? (GAP_METRES.least + GAP_METRES.most) / 2 : 0;
  return (args.gapMetres - wanted) / args.throwMetres;
}
