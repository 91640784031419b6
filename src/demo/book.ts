import { seededRandom } from "@/core/basics/random";
import { table } from "@/core/basics/tables";
import { type Part, partSchema, wantedBlade } from "@/core/fleet/parts";
import { hasTask, SERVICE_TASKS, type TaskId, type TaskRow, usualRule } from "@/core/fleet/service/tasks";
import { withValue } from "@/core/machine/specification";
import { keepProcedure, withdrawProcedure } from "@/data/catalogue/procedures";
import { addRound } from "@/data/fleet/rounds";
import { getMachine, replaceSheet } from "@/data/machine/machines";
import { addPlace } from "@/data/machine/site-places";
import { addPart, addSet, logSet, movePart } from "@/data/service/parts";
import { logService, postponeService } from "@/data/service/service";
import { addRule } from "@/data/service/service-rules";
import type { Db } from "@/data/store/db";
import { FLEET } from "../core/machine/examples/fleet";

const DAY = 86_400_000;
const MONTHS_BACK = 18;
const DAYS_BACK = MONTHS_BACK * 30;
/** Of what a machine's meter shows, put on it in the time the demo looks back on. */
const SHARE_OF_HOURS = 0.4;
const [AK, JM, RSO] = ["AK", "JM", "RSO"] as const;

type Clock = { now: string };
const back = ({ now }: Clock, days: number) => new Date(Date.parse(now) - days * DAY).toISOString();
const hoursOf = (fleetNumber: string) => FLEET.find((one) => one.fleetNumber === fleetNumber)?.hours ?? 0;
/** So many days ago the machine had run so many hours less: the demo's meters run evenly. */
const daysForHours = (fleetNumber: string, hours: number) => (hours * DAYS_BACK) / (hoursOf(fleetNumber) * SHARE_OF_HOURS);
const inch = (value: number) => Math.round(value * 0.0254 * 1e5) / 1e5;

/** The procedure the shop went by while it was wrong: written before the history, withdrawn after it. */
export function seedProcedures(db: Db, clock: Clock): void {
  keepProcedure(
    db,
    { who: RSO, now: back(clock, DAYS_BACK) },
    {
      basedOnVersion: 0,
      procedure: {
        title: "Deck level, the quick way",
        body: "Tyres as they are. One outer blade front and rear, rake from that alone.",
        checks: ["deck-level"],
      },
      reason: "as it was always done",
    },
  );
  keepProcedure(
    db,
    { who: RSO, now: back(clock, DAYS_BACK) },
    {
      basedOnVersion: 0,
      procedure: {
        title: "Blades on, by the wrench",
        body: "Thread clean and dry. Wrench to the sheet, never by feel. Paint mark over head and washer. Again after the first run.",
        checks: ["blade-fit"],
      },
      reason: "first version",
    },
  );
}

/** What the shop learnt since, its stock, its sets, its service and its rounds, dated back from `now`. */
export function seedBook(db: Db, now: string): void {
  const clock = { now };
  seedWithdrawal(db, clock);
  seedSisters(db, clock);
  seedService(db, clock);
  seedSites(db, clock);
}

function seedWithdrawal(db: Db, clock: Clock): void {
  withdrawProcedure(
    db,
    { who: AK, now: back(clock, 20) },
    { slug: "deck-level-the-quick-way", version: 1, reason: "rake from one blade is wrong after a drop, and soft tyres were levelled in" },
  );
  keepProcedure(
    db,
    { who: AK, now: back(clock, 19) },
    {
      slug: "deck-level-the-quick-way",
      basedOnVersion: 1,
      procedure: {
        title: "Deck level, as we do it now",
        body: "Tyres to the sheet first. Floor mapped. Both outer blades, left and right, front and rear. A spare reading before anything is turned.",
        checks: ["deck-level", "tyre-pressure"],
      },
      reason: "after the dropped deck",
    },
  );
}

/** One belly-deck tractor is set otherwise than her sister. */
function seedSisters(db: Db, clock: Clock): void {
  const { machine, sheetVersion } = getMachine(db, "bd-2");
  const flat = withValue(withValue(machine, "sheet.rakeTargetMetres", inch(-0.125)), "sheet.passOverlapMetres", inch(5));
  replaceSheet(
    db,
    { who: JM, now: back(clock, 140) },
    { machineId: "bd-2", basedOnVersion: sheetVersion, machine: flat, reason: "mulching kit for the campus" },
  );
}

/** The blade a machine's sheet wants, as a part on the shelf. */
function bladeFor(db: Db, machineId: string, label: string, change: Partial<Extract<Part, { kind: "blade" }>> = {}): Part {
  const { machine } = getMachine(db, machineId);
  const { blade } = machine.sheet;
  return partSchema.parse({
    kind: "blade",
    label,
    supplier: "Vale supplies",
    price: blade?.price,
    currency: "£",
    lowMark: machine.spindles.length * 2,
    sharpeningCost: blade?.sharpeningCost,
    fittingCost: blade?.fittingCost,
    hoursPerEdge: blade?.hoursPerEdge,
    sharpenings: blade?.sharpenings,
    ...wantedBlade(machine),
    ...change,
  });
}

function stocked(db: Db, clock: Clock, part: Part, lots: readonly (readonly [lot: string, bought: number, fitted: number])[]): number {
  const { partId } = addPart(db, { who: RSO, now: back(clock, DAYS_BACK) }, { part });
  for (const [k, [lot, bought]] of lots.entries())
    movePart(db, { who: RSO, now: back(clock, 400 - 60 * k) }, { partId, move: { why: "bought", count: bought, lot } });
  for (const [k, [lot, , fitted]] of lots.entries())
    if (fitted > 0) movePart(db, { who: AK, now: back(clock, 60 - k) }, { partId, move: { why: "fitted", count: fitted, lot } });
  return partId;
}

/** How long sets of the two lots lasted, in hours: the later lot wears badly. */
const LASTED = { "V25-03": [62, 71, 55, 80, 67], "V26-01": [40, 33, 36] } as const;

function seedParts(db: Db, clock: Clock): number {
  // Of these the sets below take theirs off the shelf as they are fitted.
  const high = stocked(db, clock, bladeFor(db, "zt-1", "Blade 17 in, high lift"), [
    ["V25-03", 18, 0],
    ["V26-01", 18, 0],
  ]);
  stocked(
    db,
    clock,
    bladeFor(db, "zt-1", "Blade 17 in, pattern part", { lengthMetres: inch(17.6), lift: "medium", supplier: "The yard", price: 11 }),
    [["P1", 6, 0]],
  );
  stocked(db, clock, bladeFor(db, "zt-2", "Blade 21 in, star hole"), [["V25-09", 6, 4]]);
  stocked(db, clock, bladeFor(db, "bd-1", "Blade 23 in, six-point"), [["V25-07", 8, 2]]);
  stocked(db, clock, bladeFor(db, "fd-1", "Blade 21 in, mulching, two pins"), [["V24-11", 6, 0]]);
  stocked(db, clock, bladeFor(db, "wp-1", "Blade 20½ in, unmeasured", { holeMetres: undefined, offsetMetres: undefined }), [["X", 3, 0]]);
  const unit = getMachine(db, "rt-1").machine.units[0];
  const knife = getMachine(db, "rt-1").machine.sheet.unit?.bedknife;
  stocked(
    db,
    clock,
    partSchema.parse({
      kind: "bedknife",
      label: "Bedknife 26 in, fairway",
      supplier: "Reel works",
      price: 64,
      currency: "£",
      lowMark: 3,
      widthMetres: unit?.widthMetres,
      thicknessMetres: knife?.thicknessMetres,
      depthMetres: knife?.depthMetres,
      fromHeightMetres: knife?.fromHeightMetres,
      toHeightMetres: knife?.toHeightMetres,
    }),
    [["K7", 6, 4]],
  );
  stocked(
    db,
    clock,
    partSchema.parse({
      kind: "belt",
      label: "Deck belt 95.4 in",
      supplier: "Vale supplies",
      price: 38,
      currency: "£",
      lowMark: 2,
      lengthMetres: inch(95.4),
    }),
    [["B", 4, 1]],
  );
  stocked(
    db,
    clock,
    partSchema.parse({
      kind: "bolt",
      label: "Blade bolt 5/8 in, grade 8",
      supplier: "Vale supplies",
      price: 2.4,
      currency: "£",
      lowMark: 6,
      diameterMetres: inch(0.625),
      headMetres: inch(0.9375),
      grade: "sae-8",
      thread: "right",
    }),
    [["S", 30, 12]],
  );
  return high;
}

/** Something written down at its hour. */
type Entry = { at: string; write: () => void };

/** Sets one after the other on the three-blade zero-turns, each until it was worn out; the last of each lot still on. */
function setEntries(db: Db, clock: Clock, partId: number): Entry[] {
  let hoursAgo = 420;
  let number = 1;
  const entries: Entry[] = [];
  const run = (args: { lot: string; machine: "ZT-1" | "ZT-3"; hours: number; isWorn: boolean; work: string }) => {
    const mark = `H${number++}`;
    const from = args.machine === "ZT-1" ? hoursAgo : 150;
    const who = (hours: number) => ({ who: JM, now: back(clock, daysForHours(args.machine, hours)) });
    let setId = 0;
    entries.push({
      at: who(from).now,
      write: () => {
        ({ setId } = addSet(db, who(from), { partId, mark, lot: args.lot }));
        logSet(db, who(from), { setId, entry: { kind: "fitted", machineId: args.machine.toLowerCase(), work: args.work } });
      },
    });
    const until = who(from - args.hours);
    if (args.isWorn) entries.push({ at: until.now, write: () => logSet(db, until, { setId, entry: { kind: "finished", why: "worn" } }) });
    if (args.machine === "ZT-1") hoursAgo -= args.hours;
  };
  for (const hours of LASTED["V25-03"]) run({ lot: "V25-03", machine: "ZT-1", hours, isWorn: true, work: "rough" });
  for (const hours of LASTED["V26-01"].slice(1)) run({ lot: "V26-01", machine: "ZT-1", hours, isWorn: true, work: "rough" });
  run({ lot: "V26-01", machine: "ZT-1", hours: 0, isWorn: false, work: "rough" });
  run({ lot: "V26-01", machine: "ZT-3", hours: LASTED["V26-01"][0], isWorn: true, work: "rough" });
  const then = { who: JM, now: back(clock, 30) };
  entries.push({
    at: then.now,
    write: () => {
      const { setId } = addSet(db, then, { partId, mark: "REF-ZT", lot: "V25-03" });
      logSet(db, then, { setId, entry: { kind: "put", where: "bench drawer: reference of ZT-1, which way up" } });
    },
  });
  return entries;
}

/** What is late, on which machine and by how many days more than its rule. */
const LATE: Readonly<Record<string, Partial<Record<TaskId, number>>>> = table({
  "bd-2": { "tyre-check": 16 },
  "zt-2": { sharpen: 6 },
  "gr-1": { "gearbox-oil": 9 },
  "rf-1": { "wash-rollers": 4 },
});

/** Every task of every machine as it was done over the months. */
function served(db: Db, clock: Clock): Entry[] {
  const random = seededRandom(1127);
  const all: Entry[] = [];
  for (const { fleetNumber } of FLEET) {
    const machineId = fleetNumber.toLowerCase();
    const { machine } = getMachine(db, machineId);
    // Grease stands in its own log, and a knife is ordered when it is used up.
    const isServed = (one: TaskRow) => hasTask(one, machine) && !one.isCounted && !one.spindles && !one.goesBy;
    for (const task of SERVICE_TASKS.filter(isServed)) {
      const rule = usualRule(task.id, machine, 7.3);
      if (!rule) continue;
      const every = Math.min(rule.everyDays ?? 400, rule.everyHours === undefined ? 400 : daysForHours(fleetNumber, rule.everyHours));
      const late = LATE[machineId]?.[task.id] ?? 0;
      const last = late > 0 ? every + late : every * (0.15 + 0.6 * random());
      for (const times of [4, 3, 2, 1, 0]) {
        const ago = last + times * every * 0.95;
        const doing = { who: [AK, JM][times % 2] ?? AK, now: back(clock, ago) };
        const write = () => logService(db, doing, { machineId, what: task.id, kind: "done", words: "" });
        if (ago < DAYS_BACK) all.push({ at: doing.now, write });
      }
    }
  }
  return all;
}

/** The stock, and a diary of what was served and of marked sets: what it writes down by an hour stands in the log between the jobs, as it was. */
export function shopDiary(db: Db, now: string): (at: string) => void {
  const clock = { now };
  const left = [...served(db, clock), ...setEntries(db, clock, seedParts(db, clock))].sort((a, b) => a.at.localeCompare(b.at));
  return (at) => {
    while (left[0] && left[0].at <= at) left.shift()?.write();
  };
}

function seedService(db: Db, clock: Clock): void {
  addRule(
    db,
    { who: RSO, now: back(clock, 200) },
    { what: "sharpen", scope: "kind", kind: "zero-turn", isOff: false, everyHours: 9, reason: "sandy verges dull them sooner" },
  );
  // Ground once a season: what an edge says in between is a job of its own, counted at its unit.
  addRule(
    db,
    { who: RSO, now: back(clock, 200) },
    { what: "grind", scope: "fleet", isOff: false, everyHours: 600, reason: "once a season, and when an edge says so" },
  );
  postponeService(
    db,
    { who: AK, now: back(clock, 1) },
    {
      machineId: "gr-1",
      what: "gearbox-oil",
      untilDay: new Date(Date.parse(clock.now) + 6 * DAY).toISOString().slice(0, 10),
      words: "oil on order",
    },
  );
  const { roundId } = addRound(
    db,
    { who: RSO, now: back(clock, 2) },
    {
      what: "sharpen",
      title: "Blades before the open day",
      byDay: new Date(Date.parse(clock.now) + 8 * DAY).toISOString().slice(0, 10),
      machines: ["zt-1", "zt-2", "zt-3", "bd-1", "bd-2"],
      recheckDays: 1,
    },
  );
  for (const [machineId, ago] of [
    ["zt-3", 1.5],
    ["bd-1", 0.4],
  ] as const)
    logService(db, { who: JM, now: back(clock, ago) }, { machineId, what: "sharpen", kind: "done", words: "", roundId });
}

function seedSites(db: Db, clock: Clock): void {
  const places = [
    ["Festival meadow", "Weir gate", "culvert cover stands two fingers proud: mow round it"],
    ["Airfield verges", "Threshold lights", "fittings hide in tall grass: walk it first"],
    ["North cemetery", "Old plot, east wall", "kerbs under the turf"],
  ] as const;
  for (const [site, name, words] of places) addPlace(db, { who: AK, now: back(clock, 300) }, { site, name, words });
}
