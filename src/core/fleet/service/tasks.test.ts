import { describe, expect, it } from "vitest";
import { paceOf } from "@/core/fleet/reliability";
import type { MeterReading } from "@/core/job/staleness";
import type { LogLine } from "@/core/job/status";
import { type Machine, machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { greasedSpindles, spindlesSeen } from "./spindles";
import {
  byPressing,
  DUE_STATES,
  type DueArgs,
  type Left,
  owedStanding,
  type ServiceEntry,
  serviceStandings,
  taskStandings,
} from "./standings";
import {
  hasTask,
  type LastSeen,
  lastSeen,
  placesOf,
  ruleFor,
  SERVICE_TASKS,
  type SetRule,
  type TaskId,
  type TaskRow,
  taskRow,
} from "./tasks";

const machineOf = (fleetNumber: string): Machine => machineSchema.parse(FLEET.find((one) => one.fleetNumber === fleetNumber)?.machine);
const day = (n: number) => new Date(Date.UTC(2026, 3, 1) + n * 86_400_000).toISOString();
/** Two hours a day, read every five days. */
const meter: MeterReading[] = Array.from({ length: 21 }, (_, k) => ({ at: day(5 * k), meterHours: 500 + 10 * k }));
const NOW = day(100);
const TODAY = NOW.slice(0, 10);
const use = paceOf(meter, NOW);

let seq = 0;
const line = (at: number, what: object): LogLine => ({ seq: ++seq, at: day(at), who: "AK", ...what }) as LogLine;
const take = (at: number, check: string, told: string[]) =>
  line(at, { kind: "take", check, told, verdict: "in-tolerance", findings: [], evidence: [], stepId: 1, ruleVersion: 1 });
type More = { entries?: ServiceEntry[]; rules?: SetRule[]; seen?: LastSeen; left?: Record<string, Left>; meter?: MeterReading[] };
const argsOf = (machine: Machine, log: LogLine[], more: More = {}): DueArgs => ({
  machineId: "m",
  machine,
  rules: more.rules ?? [],
  sharpenHours: 7.3,
  seen: { ...lastSeen(log), ...more.seen },
  entries: more.entries ?? [],
  ...(more.left ? { left: more.left } : {}),
  meter: more.meter ?? meter,
  use,
  now: NOW,
  today: TODAY,
});
/** The most pressing that is said of a task. */
const standing = (what: TaskId, machine: Machine, log: LogLine[], more: More = {}) => taskStandings(what, argsOf(machine, log, more))[0];
const entry = (at: number, more: Partial<ServiceEntry>): ServiceEntry => ({
  id: 1,
  what: "sharpen",
  kind: "done",
  seq: ++seq,
  at: day(at),
  who: "JM",
  words: "",
  ...more,
});

describe("service by hours and by the calendar", () => {
  const zt = machineOf("ZT-1");

  it.each([
    [99, "good"],
    [95.5, "soon"],
    [95, "due"],
    [90, "overdue"],
  ] as const)("sharpened on day %d of 100 at two hours a day, ten hours an edge on its sheet: %s (by hand)", (at, state) => {
    const found = standing("sharpen", zt, [line(at, { kind: "fix", fix: "sharpen-blades", cause: "blade-dull" })]);
    expect(found).toMatchObject({ state, rule: { everyHours: 10, scope: "sheet" } });
    expect(found?.hoursSince).toBeCloseTo(2 * (100 - at), 9);
  });

  it("done before anybody read the meter it is due by what the meter ran since, and never let go of for not knowing", () => {
    const done = line(-30, { kind: "fix", fix: "sharpen-blades", cause: "blade-dull" });
    // 200 h since the meter was first read, on a rule of ten.
    expect(standing("sharpen", zt, [done])).toMatchObject({ state: "overdue", hoursSince: 200 });
    const short = standing("sharpen", zt, [done], { meter: meter.slice(-1) });
    expect(short).toMatchObject({ state: "due", hoursSince: 0 });
  });

  it("never written down is not known, not good", () => {
    expect(standing("sharpen", zt, [])?.state).toBe("unknown");
    expect(standing("tyre-check", zt, [])?.state).toBe("unknown");
  });

  it("a rule by days alone goes by the calendar; by both, by whichever comes first", () => {
    const tyres = zt.wheels.map(({ id }) => id);
    expect(standing("tyre-check", zt, [take(99, "tyre-pressure", tyres)])?.state).toBe("good");
    expect(standing("tyre-check", zt, [take(94, "tyre-pressure", tyres)])?.state).toBe("soon");
    expect(standing("tyre-check", zt, [take(92.9, "tyre-pressure", tyres)])?.state).toBe("due");
    const both: SetRule[] = [{ what: "sharpen", everyHours: 100, everyDays: 5, scope: "fleet" }];
    expect(standing("sharpen", zt, [line(94, { kind: "fix", fix: "sharpen-blades", cause: "x" })], { rules: both })?.state).toBe("overdue");
  });

  it("what was read at one place clears no other: three tyres of four leave the fourth owing", () => {
    const [first, ...rest] = zt.wheels.map(({ id }) => id);
    const found = standing("tyre-check", zt, [take(99, "tyre-pressure", rest), take(60, "tyre-pressure", [first ?? ""])]);
    expect(found).toMatchObject({ state: "overdue", places: [first] });
    expect(standing("tyre-check", zt, [take(99, "tyre-pressure", rest)])).toMatchObject({ state: "unknown", places: [first] });
  });

  it("one unit ground leaves its sisters owing; ground as a whole, all of them were", () => {
    const rt = machineOf("RT-1");
    const ground = (place?: string) => line(99, { kind: "event", event: "unit-ground", ...(place ? { place } : {}) });
    expect(standing("grind", rt, [ground("left")])).toMatchObject({ state: "unknown", places: ["middle", "right"] });
    expect(standing("grind", rt, [ground()])).toMatchObject({ state: "good" });
  });

  it("a grind that was taken back was none", () => {
    const rt = machineOf("RT-1");
    expect(standing("grind", rt, [line(99, { kind: "event", event: "unit-ground", isTakenBack: true })])?.state).toBe("unknown");
  });

  it("sand raises a look at the edges on any machine, wet mowing a wash, until it was done since", () => {
    const sanded = line(50, { kind: "event", event: "top-dressed" });
    expect(standing("edges", zt, [])).toBeUndefined();
    expect(standing("edges", zt, [sanded])).toMatchObject({ state: "due", raisedBy: { event: "top-dressed", at: day(50) } });
    const blades = zt.spindles.map(({ id }) => id);
    expect(standing("edges", zt, [sanded, take(60, "blade-edge", blades)])).toBeUndefined();
    expect(standing("edges", zt, [sanded, take(60, "blade-edge", blades.slice(1))])).toMatchObject({ state: "due", places: [blades[0]] });
    const washed = [line(98, { kind: "event", event: "deck-cleaned" }), line(99, { kind: "event", event: "mown-wet-or-tall" })];
    expect(standing("wash-deck", zt, washed)).toMatchObject({ state: "due", raisedBy: { event: "mown-wet-or-tall" } });
  });

  it("put off stands so until its day, with who and why; what was done ends it, and a later day owes again", () => {
    const log = [line(80, { kind: "fix", fix: "sharpen-blades", cause: "x" })];
    const off = entry(99, { kind: "postponed", untilDay: day(104).slice(0, 10), words: "blades on order" });
    expect(standing("sharpen", zt, log, { entries: [off] })).toMatchObject({ state: "postponed", postponed: { words: "blades on order" } });
    expect(standing("sharpen", zt, log, { entries: [{ ...off, untilDay: day(100).slice(0, 10) }] })?.state).toBe("overdue");
    expect(standing("sharpen", zt, log, { entries: [off, entry(99.9, {})] })?.state).toBe("good");
  });

  it("what happens after a task was put off is not put off with it: it owes again, until it is put off anew", () => {
    const sanded = line(50, { kind: "event", event: "top-dressed" });
    const off = (at: number) => entry(at, { what: "edges", kind: "postponed", untilDay: day(104).slice(0, 10), words: "no time" });
    const first = off(60);
    expect(standing("edges", zt, [sanded], { entries: [first] })?.state).toBe("postponed");
    const again = line(70, { kind: "event", event: "top-dressed" });
    expect(standing("edges", zt, [sanded, again], { entries: [first] })).toMatchObject({ state: "due", raisedBy: { at: day(70) } });
    expect(standing("edges", zt, [sanded, again], { entries: [first, off(80)] })?.state).toBe("postponed");
  });

  it("done as service counts like done in a job, whichever was last", () => {
    const log = [line(80, { kind: "fix", fix: "sharpen-blades", cause: "x" })];
    expect(standing("sharpen", zt, log, { entries: [entry(99, {})] })).toMatchObject({
      state: "good",
      last: { who: "JM", how: "service" },
    });
    expect(standing("sharpen", zt, log, { entries: [entry(50, { seq: 0 })] })).toMatchObject({ last: { who: "AK", how: "job" } });
  });

  it("the log's order rules, not the clock: a fix written later under a clock set back is the last", () => {
    const seen = lastSeen([
      line(90, { kind: "fix", fix: "clean-deck", cause: "x" }),
      line(10, { kind: "fix", fix: "clean-deck", cause: "x" }),
    ]);
    expect(seen["fix:clean-deck"]?.at).toBe(day(10));
  });

  it("nor does a clock set back let service written down before a top-dressing clear it, or one after it not", () => {
    const before = entry(99, { what: "edges" });
    const sanded = line(50, { kind: "event", event: "top-dressed" });
    expect(standing("edges", zt, [sanded], { entries: [before] })).toMatchObject({ state: "due" });
    expect(standing("edges", zt, [sanded], { entries: [entry(20, { what: "edges" })] })).toBeUndefined();
  });
});

describe("whose rule", () => {
  const zt = machineOf("ZT-1");
  const rules: SetRule[] = [
    { what: "sharpen", everyHours: 12, scope: "fleet" },
    { what: "sharpen", everyHours: 9, scope: "kind", kind: "zero-turn" },
    { what: "sharpen", everyHours: 6, scope: "machine", machineId: "m" },
  ];
  const rule = (of: readonly SetRule[], machineId = "m", machine = zt) =>
    ruleFor({ what: "sharpen", machineId, machine, rules: of, sharpenHours: 7.3 });

  it("the machine's before its kind's before the fleet's before its sheet's before the usual", () => {
    expect(rule(rules)?.everyHours).toBe(6);
    expect(rule(rules, "other")?.everyHours).toBe(9);
    expect(rule(rules, "other", machineOf("BD-1"))?.everyHours).toBe(12);
    expect(rule([])).toMatchObject({ everyHours: 10, scope: "sheet" });
    expect(rule([], "m", { ...zt, sheet: {} } as Machine)).toMatchObject({ everyHours: 7.3, scope: "looks" });
  });

  it("the later of two of one scope, and one that is off leaves nothing due", () => {
    expect(rule([...rules, { what: "sharpen", everyHours: 5, scope: "machine", machineId: "m" }])?.everyHours).toBe(5);
    expect(rule([...rules, { what: "sharpen", isOff: true, scope: "machine", machineId: "m" }])).toBeUndefined();
  });

  it("no machine gets a task of another sort, and every task has a word for itself", () => {
    for (const { machine: input } of FLEET) {
      const machine = machineSchema.parse(input);
      const tasks = SERVICE_TASKS.filter((task) => hasTask(task, machine)).map(({ id }) => id);
      expect(tasks.includes("grind")).toBe(machine.units.length > 0);
      expect(tasks.includes("gearbox-oil")).toBe(machine.kind === "geared-rider");
      const all = serviceStandings(argsOf(machine, []));
      expect(all.every(({ state }) => state === "unknown")).toBe(true);
      for (const { what } of all) expect(taskRow(what)?.label).toBeTruthy();
    }
  });
});

const TASKS: readonly TaskRow[] = SERVICE_TASKS;

describe("worse never makes better", () => {
  const machines = FLEET.map(({ machine }) => machineSchema.parse(machine));
  /** Done at every place, as this task is written down. */
  const done = (id: TaskId, machine: Machine, at: number): More => {
    const [deed] = taskRow(id)?.spindles ?? [];
    if (!deed) return { entries: [entry(at, { what: id })] };
    const entries = greasedSpindles(machine).map(({ id: place }) => ({ kind: deed, place, at: day(at), seq: ++seq, who: "JM" }));
    return { seen: spindlesSeen(machine, entries) };
  };
  /** All but what goes by what is left of a part: that has no hours since it was done. */
  const tasksOf = (machine: Machine) =>
    (SERVICE_TASKS as readonly (TaskRow & { id: TaskId })[]).filter((task) => hasTask(task, machine) && !task.goesBy);

  it("hours more on the meter never make a task less pressing, on any machine (every task)", () => {
    for (const machine of machines)
      for (const { id } of tasksOf(machine)) {
        const state = (hours: number) =>
          standing(id, machine, [], { ...done(id, machine, 60), meter: [...meter.slice(0, 13), { at: day(99), meterHours: 620 + hours }] })
            ?.state;
        const ranks = [0, 5, 20, 60, 300].map((hours) => DUE_STATES.indexOf(state(hours) ?? "good"));
        expect(ranks, id).toEqual([...ranks].sort((a, b) => b - a));
      }
  });

  it("what was done under a clock that ran ahead is not done just now until that day comes, whatever the rule (every task)", () => {
    for (const machine of machines)
      for (const { id } of tasksOf(machine))
        for (const rule of [{ everyHours: 10 }, { everyDays: 7 }, { everyHours: 10, everyDays: 7 }]) {
          // A purge that is due goes before a top-up: of it alone is asked here.
          const rules: SetRule[] = [
            { what: id, ...rule, scope: "fleet" },
            ...(id === "top-up" ? [{ what: "purge" as const, isOff: true, scope: "fleet" as const }] : []),
          ];
          const at = (when: number) => standing(id, machine, [], { rules, ...done(id, machine, when) });
          expect(at(465), id).toMatchObject({ state: "due", isAhead: true });
          // A clock a little off is none that ran ahead; done anew it is done.
          expect(at(100.5), id).toMatchObject({ state: "good" });
          const [first, anew] = [done(id, machine, 465), done(id, machine, 100)];
          const both = { entries: [...(first.entries ?? []), ...(anew.entries ?? [])], seen: { ...first.seen, ...anew.seen } };
          expect(standing(id, machine, [], { rules, ...both })?.state, id).toBe("good");
        }
  });

  it("a place fewer read never clears one (every task that is done place by place)", () => {
    for (const machine of machines)
      for (const task of TASKS.filter((one) => hasTask(one, machine) && one.by !== undefined && one.checks.length > 0)) {
        const places =
          task.by === "air-wheel" ? machine.wheels.filter(({ isPneumatic }) => isPneumatic) : [...machine.spindles, ...machine.units];
        const told = places.map(({ id }) => id);
        const rules: SetRule[] = [{ what: task.id as TaskId, everyDays: 7, scope: "fleet" }];
        for (const check of task.checks) {
          const whole = standing(task.id as TaskId, machine, [take(99, check, told)], { rules });
          expect(whole?.state, task.id).toBe("good");
          for (const left of told) {
            const less = standing(
              task.id as TaskId,
              machine,
              [
                take(
                  99,
                  check,
                  told.filter((id) => id !== left),
                ),
              ],
              { rules },
            );
            expect(less?.state, `${task.id} without ${left}`).toBe("unknown");
          }
        }
      }
  });
});

describe("one vocabulary for whatever is to be done", () => {
  const zt = machineOf("ZT-1");
  const rt = machineOf("RT-1");
  const spindles = greasedSpindles(zt).map(({ id }) => id);
  const greased = (places: readonly string[], at: number, kind: "topped-up" | "purged" = "topped-up") =>
    spindlesSeen(
      zt,
      places.map((place) => ({ kind, place, at: day(at), seq: ++seq, who: "AK" })),
    );

  /** Fifty hours of grease at two hours a day (estimate of the trade): 25 days. */
  it("grease stands like any task: overdue by a tenth, put off with a reason at one spindle, and the others go on owing", () => {
    const seen = greased(spindles, 70);
    expect(standing("top-up", zt, [], { seen })).toMatchObject({ state: "overdue", rule: { scope: "sheet", everyHours: 50 } });
    const off = entry(99, { what: "top-up", kind: "postponed", untilDay: day(104).slice(0, 10), words: "no nipple", places: ["left"] });
    const lines = taskStandings("top-up", argsOf(zt, [], { seen, entries: [off] }));
    expect(lines.map(({ state, places }) => [state, places])).toEqual([
      ["overdue", spindles.filter((id) => id !== "left")],
      ["postponed", ["left"]],
    ]);
  });

  it("what was put off at a place is not put off for a spindle that was moved there since", () => {
    const off = entry(99, { what: "top-up", kind: "postponed", untilDay: day(104).slice(0, 10), words: "no nipple", places: ["left"] });
    const greasedThen = spindles.map((place) => ({ kind: "topped-up" as const, place, at: day(70), seq: ++seq, who: "AK" }));
    const before = taskStandings("top-up", argsOf(zt, [], { seen: spindlesSeen(zt, greasedThen), entries: [{ ...off, seq: ++seq }] }));
    expect(before.map(({ state, places }) => [state, places?.includes("left")])).toEqual([
      ["overdue", false],
      ["postponed", true],
    ]);
    const put = { ...off, seq: ++seq };
    const moved = { kind: "moved" as const, moves: { left: "right", right: "left" }, at: day(99), seq: ++seq, who: "AK" };
    const after = taskStandings("top-up", argsOf(zt, [], { seen: spindlesSeen(zt, [...greasedThen, moved]), entries: [put] }));
    expect(after.map(({ state }) => state)).toEqual(["overdue"]);
  });

  it("a purge that is due says all of its spindle: greasing is done with it; put off, the greasing is due by itself", () => {
    const seen = greased(spindles, -30, "purged");
    const all = serviceStandings(argsOf(zt, [], { seen })).map(({ what }) => what);
    expect([all.includes("purge"), all.includes("top-up")]).toEqual([true, false]);
    const off = entry(99, { what: "purge", kind: "postponed", untilDay: day(104).slice(0, 10), words: "no grease" });
    expect(standing("top-up", zt, [], { seen, entries: [off] })?.state).toBe("overdue");
  });

  it("a rule of one place goes before the machine's, and is of that place alone", () => {
    const rules: SetRule[] = [
      { what: "top-up", everyHours: 10, scope: "place", machineId: "m", place: "left" },
      { what: "top-up", everyHours: 300, scope: "machine", machineId: "m" },
    ];
    const lines = taskStandings("top-up", argsOf(zt, [], { seen: greased(spindles, 90), rules }));
    expect(lines[0]).toMatchObject({ state: "overdue", places: ["left"], rule: { scope: "place", everyHours: 10 } });
    expect(ruleFor({ what: "top-up", machineId: "m", machine: zt, rules, sharpenHours: 7, place: "right" })?.everyHours).toBe(300);
  });

  it("what was done at one place only clears that one", () => {
    const units = placesOf({ by: "unit" }, rt).flatMap((place) => place ?? []);
    const rules: SetRule[] = [{ what: "wash-rollers", everyDays: 7, scope: "fleet" }];
    const done = (at: number, places?: string[]) => entry(at, { what: "wash-rollers", ...(places ? { places } : {}) });
    const lines = taskStandings("wash-rollers", argsOf(rt, [], { rules, entries: [done(60), done(99, [units[0] ?? ""])] }));
    expect(lines.map(({ state, places }) => [state, places])).toEqual([["overdue", units.slice(1)]]);
  });

  it("a knife is to be ordered until it was, and again once that one is on and used up", () => {
    const left = (isTime: boolean, sinceSeq = 0) => ({ "order-knife@left": { hoursLeft: isTime ? 0 : 400, isTime, sinceSeq } });
    expect(standing("order-knife", rt, [], { left: left(false) })).toMatchObject({ state: "good", hoursLeft: 400 });
    expect(standing("order-knife", rt, [], { left: left(true) })?.state).toBe("due");
    const ordered = entry(99, { what: "order-knife", places: ["left"] });
    expect(standing("order-knife", rt, [], { left: left(true), entries: [ordered] })).toMatchObject({ state: "good", last: { who: "JM" } });
    expect(standing("order-knife", rt, [], { left: left(true, ordered.seq + 1), entries: [ordered] })?.state).toBe("due");
  });

  it("what is owed by a day is soon two days before, due on it, overdue after; put off to a day, and gone once it is done", () => {
    const dayOf = (iso: string) => iso.slice(0, 10);
    const at = (dueAt: number, own: ServiceEntry[] = []) => owedStanding({ dueAt: day(dueAt), own, now: NOW, today: TODAY, dayOf });
    expect([96, 99, 100, 101, 102, 105].map((when) => at(when)?.state)).toEqual(["overdue", "overdue", "due", "soon", "soon", "good"]);
    const off = entry(99, { what: "owed", kind: "postponed", untilDay: day(104).slice(0, 10), words: "waits for rain" });
    expect(at(96, [off])).toMatchObject({ state: "postponed", postponed: { words: "waits for rain" } });
    expect(at(96, [{ ...off, untilDay: day(100).slice(0, 10) }])?.state).toBe("overdue");
    expect(at(96, [entry(99, { what: "owed" })])).toBeUndefined();
  });

  it("a thing later owed never presses more than one owed sooner", () => {
    const dayOf = (iso: string) => iso.slice(0, 10);
    const states = Array.from({ length: 40 }, (_, k) => ({
      state: owedStanding({ dueAt: day(95 + k / 4), own: [], now: NOW, today: TODAY, dayOf })?.state ?? "good",
    }));
    expect([...states].sort(byPressing)).toEqual(states);
  });
});
