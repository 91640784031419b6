import { type Machine, withSheet } from "@/core/machine";
import { isSameValue } from "./differences";
import { valueAt } from "./fields";

/** A question practitioners disagree on, with the schools there are; `values` as they stand on a machine's sheet. */
export type School = {
  id: string;
  question: string;
  isFor: (machine: Machine) => boolean;
  key: string;
  choices: readonly { id: string; words: string; value: unknown }[];
};

const QUARTER_INCH_METRES = 0.00635;
const EIGHTH_INCH_METRES = 0.003175;
const hangs = (machine: Machine) => machine.spindles.length > 1 && machine.deck !== undefined && machine.deck.mount !== "fixed";

/** Where practitioners disagree: what a depot follows, and each machine where it differs. */
export const SCHOOLS: readonly School[] = [
  {
    id: "reel-contact",
    question: "Reel to bedknife",
    isFor: (machine) => machine.units.length > 0,
    key: "sheet.unit.school",
    choices: [
      { id: "light-contact", words: "Light contact: cuts one strip of paper, pinches a second", value: "light-contact" },
      { id: "no-contact", words: "No contact: a set gap", value: "no-contact" },
      { id: "firm-contact", words: "Firm contact", value: "firm-contact" },
    ],
  },
  {
    id: "spindle-grease",
    question: "Grease of spindles",
    isFor: (machine) => hangs(machine),
    key: "sheet.grease",
    choices: [
      { id: "by-hours", words: "By hours: 50 to top up, 200 to purge", value: { school: "by-hours", topUpHours: 50, purgeHours: 200 } },
      { id: "leave-sealed", words: "Sealed bearings left alone until they are changed", value: { school: "leave-sealed" } },
    ],
  },
  {
    id: "rake",
    question: "Rake, nose down",
    isFor: hangs,
    key: "sheet.rakeTargetMetres",
    choices: [
      { id: "quarter", words: "A quarter inch (6 mm): for discharge and collecting", value: -QUARTER_INCH_METRES },
      { id: "eighth", words: "An eighth (3 mm)", value: -EIGHTH_INCH_METRES },
      { id: "flat", words: "Flat: for mulching", value: 0 },
    ],
  },
  {
    id: "spindle-places",
    question: "Spindles taken off one deck",
    isFor: hangs,
    key: "sheet.spindlePlaces",
    choices: [
      { id: "own", words: "Each back to its own place", value: "own" },
      { id: "rotated", words: "Moved round to even the wear, and logged", value: "rotated" },
    ],
  },
];

/** Lengths typed in the other units come to the same school. */
const WITHIN_METRES = 0.0002;
const isAlike = (a: unknown, b: unknown): boolean =>
  typeof a === "number" && typeof b === "number" ? Math.abs(a - b) <= WITHIN_METRES : isSameValue(a, b);

export const schoolById = (id: string): School | undefined => SCHOOLS.find((one) => one.id === id);

/** Which school a machine's own sheet follows; `undefined` where it says nothing, `other` where it says what no school does. */
export function schoolFollowed(school: School, machine: Machine): string | undefined {
  const value = valueAt(machine, school.key);
  if (value === undefined) return undefined;
  return school.choices.find((choice) => isAlike(choice.value, value))?.id ?? "other";
}

/** The machine with a school put on its sheet. Throws on a choice the school does not have: a programmer's mistake. */
export function withSchool(school: School, machine: Machine, choiceId: string): Machine {
  const choice = school.choices.find(({ id }) => id === choiceId);
  if (!choice) throw new Error(`no choice ${choiceId} of ${school.id}`);
  const [, part, name] = school.key.split(".");
  if (name === undefined) return withSheet(machine, { [part as string]: choice.value } as Partial<Machine["sheet"]>);
  return withSheet(machine, { unit: { ...machine.sheet.unit, [name]: choice.value } } as Partial<Machine["sheet"]>);
}
