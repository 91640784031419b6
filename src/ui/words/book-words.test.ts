import { describe, expect, it } from "vitest";
import { KIND_IDS } from "@/core/catalogue/kinds";
import { type FitReason, fitsMachine, PART_KINDS, partFields, partSchema } from "@/core/fleet/parts";
import { DUE_STATES, type ServiceStanding } from "@/core/fleet/service/standings";
import { SERVICE_TASKS } from "@/core/fleet/service/tasks";
import { type Machine, machineSchema, SHEET_WORDS } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import {
  fieldsOf,
  missingOf,
  type SheetPart,
  sheetDifferences,
  sheetPlaces,
  TEMPLATES,
  templateMachine,
  withValue,
} from "@/core/machine/specification";
import { FIT_WORDS, money, PART_WORDS, sayFit, sayReason } from "./parts";
import { STATE_LABELS, sayDay, sayRaised, sayRule, taskLabel } from "./service";
import { choiceWords, differenceTitle, MISSING_WORDS, PART_TITLES, SORT_WORDS, sayValue, WORD_LABELS } from "./sheet";

const templates = KIND_IDS.map((kind) => templateMachine(TEMPLATES[kind].usual));
const fleet = FLEET.map(({ machine }) => machineSchema.parse(machine));
const NOW = "2026-06-19T08:00:00.000Z";

describe("words of a sheet", () => {
  it("every gap of every template is said with what it costs", () => {
    for (const machine of templates)
      for (const { code } of missingOf(machine)) expect(MISSING_WORDS[code], code).toMatch(/^(Without|Where) .{20,}\.$/);
  });

  it("every choice of every field has words of its own", () => {
    for (const machine of [...templates, ...fleet])
      for (const field of fieldsOf(machine)) {
        if (field.kind !== "choice") continue;
        for (const option of field.options) expect(choiceWords(option, field.names), `${field.key} ${option}`).toMatch(/^[A-Z0-9]/);
      }
  });

  it("every part and sort has its title, every word its label", () => {
    for (const machine of [...templates, ...fleet]) {
      const ids = new Set(sheetPlaces(machine).map(({ id }) => id));
      for (const { at } of fieldsOf(machine)) if (!ids.has(at)) expect(PART_TITLES[at as SheetPart], at).toBeTruthy();
      for (const { sort } of sheetPlaces(machine)) expect(SORT_WORDS[sort].one).toBeTruthy();
    }
    for (const word of SHEET_WORDS) expect(WORD_LABELS[word]).toBeTruthy();
  });

  it("says a value in the reader's units, and what is not said as not said", () => {
    const zt = fleet[0] as Machine;
    const height = fieldsOf(zt).find(({ key }) => key === "sheet.heightMostMetres");
    expect(sayValue(height, 0.1143, "us")).toMatch(/4[.1 ].*in/);
    // 0.090 in is no sixteenth: it stands as it was written.
    expect([sayValue(height, 0.09 * 0.0254, "us"), sayValue(height, 0.125 * 0.0254, "us")]).toEqual([
      expect.stringContaining("0.090"),
      expect.stringMatching(/1\/8|0\.125/),
    ]);
    expect(sayValue(height, 0.1143, "metric")).toMatch(/114\.3.*mm/);
    expect(sayValue(height, undefined, "us")).toBe("not said");
    expect(sayValue(undefined, ["front", "rear"], "us")).toBe("front, rear");
    expect(sayValue(undefined, true, "us")).toBe("yes");
    expect(sayValue(undefined, { a: 1 }, "us")).toBe("its own table");
  });

  it("a table is said by its rows, and beside others only by those they do not all have", () => {
    const tractor = fleet.find((machine) => machine.sheet.deckOff) as Machine;
    const field = fieldsOf(tractor).find(({ key }) => key === "sheet.deckOff");
    const stood = tractor.sheet.deckOff;
    const next = {
      ...stood,
      steps: [...(stood?.steps ?? []), { id: "chute", words: "Chute off", parts: [{ id: "pin", label: "pin", count: 2 }] }],
    };
    expect(sayValue(field, stood, "us")).toMatch(/^7 steps: Photograph .*; Slide the deck out[^;]*$/);
    expect(sayValue(field, next, "us", [stood, next])).toBe("8 steps, with: Chute off 2 pin");
    expect(sayValue(field, stood, "us", [stood, next])).toBe("7 steps");
    expect(sayValue(field, next, "us", [undefined, next])).toMatch(/^8 steps: Photograph/);
  });

  it("a difference is said by its place and its value; a place that is gone as taken away", () => {
    const zt = fleet[0] as Machine;
    const labels = new Map(sheetPlaces(zt).map(({ id, label }) => [id, label]));
    const title = (other: Machine) => sheetDifferences(zt, other).map((one) => differenceTitle(one, (place) => labels.get(place) ?? ""));
    expect(title(withValue(zt, "spindles.left.tipCircleDiameterMetres", 0.4))).toEqual(["Left blade: tip circle, corner to corner"]);
    expect(title({ ...zt, spindles: zt.spindles.slice(1) } as Machine)[0]).toBe("Left blade, taken away");
    expect(title(withValue(zt, "sheet.belt", undefined))).toEqual(["Belt path"]);
  });
});

describe("words of parts", () => {
  const REASONS: FitReason[] = [
    { code: "longer", consequence: "may-strike", byMetres: 0.01 },
    { code: "shorter", consequence: "leaves-a-strip", byMetres: 0.01 },
    { code: "worn-shorter", consequence: "worn-or-another-part", byMetres: 0.01 },
    { code: "other-hole", consequence: "not-centred" },
    { code: "hole-too-wide", consequence: "not-centred", byMetres: 0.001 },
    { code: "hole-too-narrow", consequence: "does-not-go-on", byMetres: 0.001 },
    { code: "other-offset", consequence: "cuts-at-another-height", byMetres: -0.004 },
    { code: "other-thickness", consequence: "clamps-elsewhere", byMetres: 0.002 },
    { code: "narrower", consequence: "worn-or-another-part", byMetres: 0.01 },
    { code: "other-second", consequence: "does-not-go-on", byMetres: 0.001 },
    { code: "mulching-with-catcher", consequence: "does-not-fill" },
    { code: "low-lift-with-bag", consequence: "does-not-fill" },
    { code: "high-lift-on-mulching", consequence: "blows-and-wears" },
    { code: "other-lift", consequence: "moves-other-air" },
    { code: "turns-the-other-way", consequence: "cuts-with-its-back" },
    { code: "strikes", byMetres: 0.003 },
    { code: "other-length", byMetres: 0.02 },
    { code: "other-width", byMetres: -0.02 },
    { code: "other-diameter", byMetres: 0.002 },
    { code: "other-blades", found: 8, wanted: 11 },
    { code: "not-for-this-height" },
    { code: "other-roller" },
    { code: "other-grade", way: "weaker" },
    { code: "other-grade", way: "harder" },
    { code: "other-thread" },
  ];

  it.each(REASONS)("$code is said, its size with its unit", (reason) => {
    const said = sayReason(reason, "metric");
    expect(said.length).toBeGreaterThan(8);
    if ("byMetres" in reason) expect(said).toMatch(/\d.*mm/);
  });

  it("what was not compared is named by side, in words and not in names of the code", () => {
    for (const machine of fleet)
      for (const kind of PART_KINDS) {
        const fit = fitsMachine(partSchema.parse({ kind, label: "x" }), machine);
        if (!fit) continue;
        expect(sayFit(fit, "us")).not.toMatch(/Metres|undefined/);
        expect(FIT_WORDS[fit.verdict]).toBeTruthy();
      }
    for (const kind of PART_KINDS) expect(PART_WORDS[kind]).toBeTruthy();
  });

  it("every field of every kind of part is one its schema takes", () => {
    for (const kind of PART_KINDS)
      for (const spec of [...partFields(kind).sizes, ...partFields(kind).stock]) {
        const value =
          spec.kind === "choice"
            ? spec.options[0]
            : spec.kind === "text"
              ? "x"
              : spec.kind === "quantity"
                ? spec.range.least || 0.001
                : spec.kind === "number"
                  ? Math.ceil(spec.least) || 1
                  : true;
        const parsed = partSchema.safeParse({ kind, label: "x", [spec.path[0] as string]: value });
        expect(parsed.success && (parsed.data as Record<string, unknown>)[spec.path[0] as string], `${kind} ${spec.path}`).toEqual(value);
      }
  });

  it("a sign stands before the figure, letters after it", () => {
    expect([money(12, "£"), money(12.5, "EUR"), money(3, "")]).toEqual(["£12.00", "12.50 EUR", "3.00"]);
  });
});

describe("words of service", () => {
  const standing = (more: Partial<ServiceStanding>): ServiceStanding => ({ what: "sharpen", state: "good", ...more });

  it("says how often and whose rule that is", () => {
    expect(sayRule({ what: "sharpen", everyHours: 7.3, scope: "usual" })).toBe("every 7.3 h, common practice");
    expect(sayRule({ what: "tyre-check", everyDays: 7, scope: "fleet" })).toBe("every 7 days, the shop's rule");
    expect(sayRule({ what: "wash-deck", everyHours: 25, everyDays: 14, scope: "machine" })).toMatch(/^every 25 h or every 14 days/);
    expect(sayRule(undefined)).toBe("only when something raises it");
  });

  it("says the day with its range, what is over as over, and never hours less than nothing as left", () => {
    const day = { early: "2026-06-24T08:00:00.000Z", on: "2026-06-27T08:00:00.000Z", late: "2026-07-03T08:00:00.000Z" };
    expect(sayDay(standing({ hoursLeft: 31, day }), NOW)).toMatch(/^31 h left, 27 Jun 2026 \(24 Jun 2026 to 3 Jul 2026\)$/);
    expect(sayDay(standing({ state: "overdue", hoursLeft: -4.2, day }), NOW)).toBe("4.2 h over");
    expect(sayDay(standing({ state: "postponed", hoursLeft: -4.2, day }), NOW)).toBe("4.2 h over");
    expect(sayDay(standing({ state: "due", day: { on: "2026-06-16T08:00:00.000Z" } }), NOW)).toBe("3 days over");
    expect(sayDay(standing({ state: "unknown" }), NOW)).toBe("");
  });

  it("every task and state has its words; what raised one is said with its day", () => {
    for (const { id } of SERVICE_TASKS) expect(taskLabel(id)).not.toBe(id);
    for (const state of DUE_STATES) expect(STATE_LABELS[state]).toBeTruthy();
    expect(sayRaised(standing({ raisedBy: { event: "top-dressed", at: NOW } }))).toMatch(/top-dressed, 19 Jun 2026/);
    expect(sayRaised(standing({}))).toBeUndefined();
  });
});
