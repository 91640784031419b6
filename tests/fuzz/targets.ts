import { settingOf } from "@/core/job/bench/set-up";
import { allYes, itemsFor, type SafeState } from "@/core/job/safety";
import { putBackPoints } from "@/core/job/status";
import { unitSheetOf } from "@/core/machine";
import { getMachine } from "@/data/machine/machines";
import { stateOfMachine } from "@/data/projections/machine-state";
import type { Db } from "@/data/store/db";
import { dataUrlOf } from "./picture";

/** A body that is taken as it is, and where it goes. */
export type Target = {
  name: string;
  method: "POST" | "PUT" | "PATCH";
  /** With its ids filled in. */
  path: string;
  body: Record<string, unknown>;
  /** Records whose keys are free, by their path: a name more in one is no unknown key. */
  free?: readonly string[];
  /** Readings in it that are whatever the check takes. */
  isReckoning?: boolean;
};

export type Depot = { machineId: string; otherId: string; jobId: number; secondJobId: number };

const WHO = "AK";
const REEL_ID = "rt-1";
const yes = (db: Db, machineId: string, state: SafeState) => allYes(itemsFor(getMachine(db, machineId).machine, state));

/** A reel unit of the demo's set a shade higher. */
function benchSetting(db: Db): Target {
  const { machine, sheetVersion } = getMachine(db, REEL_ID);
  const [unit] = machine.units;
  const view = unit && unitSheetOf(machine, unit.id).sideView;
  if (!unit || !view) throw new Error(`${REEL_ID} has no side view`);
  const { frontZMetres, rearZMetres } = settingOf(view);
  return {
    name: "machines bench-setting",
    method: "POST",
    path: `/api/v1/machines/${REEL_ID}/bench-setting`,
    body: {
      who: WHO,
      basedOnVersion: sheetVersion,
      settings: { [unit.id]: { frontZMetres, rearZMetres: rearZMetres - 0.0005 } },
      reason: "a shade higher",
    },
    free: ["settings"],
  };
}

/** What belongs to the shop and to a machine as a whole. */
function bookTargets(machineId: string, otherId: string): Target[] {
  const post = (name: string, path: string, body: Record<string, unknown>, more: Partial<Target> = {}): Target => ({
    name,
    method: "POST",
    path: `/api/v1/${path}`,
    body: { who: WHO, ...body },
    ...more,
  });
  const part = { kind: "blade", label: "Blade", lengthMetres: 0.43, hole: "round", holeMetres: 0.0159, lowMark: 2, currency: "£" };
  const procedure = { title: "Tyres first", body: "To the sheet, cold.", checks: ["tyre-pressure"] };
  return [
    post("machine name", `machines/${otherId}/name`, { name: "Zero-turn", site: "North cemetery" }, { method: "PUT" }),
    post("machine meter-swap", `machines/${otherId}/meter-swap`, { oldHours: 900, newHours: 0 }),
    post("machine meter-swap back", `machines/${otherId}/meter-swap/1/take-back`, {}),
    post("machine standing", "machines/fz-1/standing", { kind: "retired", reason: "sold on" }),
    post("hours", "hours", { rows: [{ fleetNumber: "ZT-1", meterHours: 4000 }], isSure: true }),
    post("parts", "parts", { part }),
    post("part", "parts/1", { basedOnVersion: 1, part: { ...part, price: 12 } }, { method: "PUT" }),
    post("part moves", "parts/1/moves", { why: "bought", count: 6, lot: "L1" }),
    post("sets", "sets", { partId: 1, mark: "S1", lot: "L1" }),
    post("set entries", "sets/1/entries", { kind: "fitted", machineId, place: "left", work: "rough" }),
    post("service rules", "service/rules", { what: "sharpen", scope: "fleet", isOff: false, everyHours: 9, reason: "sand" }),
    post("rounds", "rounds", { what: "sharpen", title: "Blades", byDay: "2099-06-12", machines: [machineId, otherId], recheckDays: 1 }),
    post("service", `machines/${machineId}/service`, { what: "sharpen", kind: "done", words: "", roundId: 1 }),
    post("service postpone", `machines/${machineId}/service/postpone`, { what: "tyre-check", untilDay: "2028-06-12", words: "no gauge" }),
    post("site places", "sites/places", {
      site: "Airfield verges",
      name: "Weir gate",
      words: "cover stands proud",
      xShare: 0.5,
      yShare: 0.25,
    }),
    post("site pictures", "sites/pictures", { site: "Airfield verges", dataUrl: dataUrlOf() }),
    post("site place gone", "sites/places/1/gone", { reason: "set flush" }),
    post("procedures", "procedures", { basedOnVersion: 0, procedure, reason: "first version" }),
    post("procedure withdrawn", "procedures/tyres-first/withdraw", { version: 1, reason: "cold was not said" }),
    post("calendar key", "due/calendar/key", {}),
    post("schools", "schools", { school: "spindle-places", choice: "own", reason: "as the manual has it" }),
  ];
}

/**
 * Every way the record is written and reckoned with, once, in an order in which each is taken. `depot` has a zero-turn with two jobs on it.
 */
export function targetsFor(db: Db, { machineId, otherId, jobId, secondJobId }: Depot): Target[] {
  const { machine, sheetVersion } = getMachine(db, machineId);
  const looks = { symptoms: ["step-between-passes"], denied: ["torn-tips"], contexts: ["tyre-work"] };
  const job = (action: string, body: Record<string, unknown>, more: Partial<Target> = {}): Target => ({
    name: `jobs ${action}`,
    method: "POST",
    path: `/api/v1/jobs/${jobId}/${action}`,
    body: { who: WHO, ...body },
    ...more,
  });
  const own = (name: string, body: Record<string, unknown>, more: Partial<Target> = {}): Target => ({
    name: `machines ${name}`,
    method: "POST",
    path: `/api/v1/machines/${machineId}/${name}`,
    body: { who: WHO, ...body },
    ...more,
  });
  const tyres = Object.fromEntries(
    machine.wheels.flatMap(({ id, isPneumatic }) => (isPneumatic ? [[id, { pressurePascals: 80_000 }]] : [])),
  );
  const tips = { "left:left": { heightMetres: 0.08 }, "right:right": { heightMetres: 0.081 } };
  const symptoms = { "step-between-passes": "present" };
  return [
    { name: "people", method: "POST", path: "/api/v1/people", body: { initials: "QZ" } },
    { name: "preferences", method: "PATCH", path: `/api/v1/people/${WHO}`, body: { who: WHO, unitSystem: "us", standsAt: "behind" } },
    {
      name: "complaints",
      method: "POST",
      path: "/api/v1/complaints",
      body: { who: WHO, machineId: otherId, words: "a ledge", saidBy: "TV", place: "verge", looks },
    },
    job("confirmations", { state: "raised", answers: yes(db, machineId, "raised") }, { free: ["answers"] }),
    job("takes", { checkId: "tyre-pressure", readings: { tyres }, asTyped: {}, seenStepId: 0 }, { free: ["asTyped"] }),
    job("takes", { checkId: "deck-level", readings: { tips, ends: "as-they-stood" }, asTyped: {} }, { free: ["asTyped"] }),
    job("findings", { checkId: "hanger-inspection", result: "not-found", causes: ["hanger-failed"], note: "looked" }),
    job("guesses", { cause: "deck-out-of-level" }),
    job("answers", { symptoms: { vibration: "denied" }, contexts: { "new-operator": true } }),
    job("skips", { checkId: "deck-level", reason: "no-tool", words: "no gauge" }),
    job("notes", { text: "as it is" }),
    job("photographs", { about: "belt", dataUrl: dataUrlOf() }),
    job("fixes", {
      fix: "adjust-hangers",
      cause: "deck-out-of-level",
      minutes: 12,
      words: "left rear up",
      turns: [{ hangerId: machine.deck?.hangers[0]?.id, turns: 1.5 }],
    }),
    job("events", { event: "tyre-changed", place: machine.wheels[0]?.id }),
    job("handover", { what: "blade", to: "the shop in town", owes: ["a weld"], dueAt: "2026-12-01" }),
    {
      name: "owed postpone",
      method: "POST",
      path: "/api/v1/owed/1/postpone",
      body: { who: WHO, untilDay: "2028-06-12", words: "the pinion is on its way" },
    },
    own("spindles", { kind: "topped-up", places: [machine.spindles[0]?.id] }),
    own("hours", { meterHours: 10, isCorrection: false }),
    own("events", { event: "mown-wet-or-tall", words: "after rain" }),
    own("photographs", { about: "belt-path", dataUrl: dataUrlOf() }),
    own("sheet", { basedOnVersion: sheetVersion, machine, reason: "as it was" }, { method: "PUT" }),
    benchSetting(db),
    {
      name: "machines",
      method: "POST",
      path: "/api/v1/machines",
      body: { who: WHO, fleetNumber: "FZ-1", name: "A machine", site: "North", machine },
    },
    ...bookTargets(machineId, otherId),
    {
      name: "assess",
      method: "POST",
      path: "/api/v1/checks/tyre-pressure/assess",
      body: { machine, readings: { tyres } },
      isReckoning: true,
    },
    { name: "diagnose", method: "POST", path: "/api/v1/diagnose", body: { kind: "rotary", symptoms, evidence: [] }, isReckoning: true },
    job("hold", { reason: "a crack was seen" }),
    job("lift", { owner: WHO, reason: "my own" }),
    { name: "jobs join", method: "POST", path: `/api/v1/jobs/${secondJobId}/join`, body: { who: WHO, intoJobId: jobId } },
  ];
}

/** What is taken only where the machine stands for it: their bodies are well formed, and may be refused by the state. */
export function statefulTargets(db: Db, { machineId, jobId }: Depot): Target[] {
  const points = putBackPoints(getMachine(db, machineId).machine, stateOfMachine(db, machineId));
  const job = (action: string, body: Record<string, unknown>, free: readonly string[] = []): Target => ({
    name: `jobs ${action}`,
    method: "POST",
    path: `/api/v1/jobs/${jobId}/${action}`,
    body: { who: WHO, ...body },
    free,
  });
  return [
    job("put-back", { answers: allYes(points) }, ["answers"]),
    job("deck", { way: "off", step: "photographs", counts: {} }, ["counts"]),
    job("rebuild", { box: "left", way: "off", step: "timing-marks", counts: {}, loose: [] }, ["counts"]),
    job("guided", { round: "blade", place: "left", way: "off", step: "photograph", counts: {}, answers: {}, sizes: {} }, [
      "counts",
      "answers",
      "sizes",
    ]),
    job("own-list", { round: "spindle", place: "left", counts: { bearings: 2 } }, ["counts"]),
    job("test-cuts", { looks: "all-alike", turf: "good", place: "", operator: "", dryness: "dry", light: "day", words: "" }),
    job("release", { reasons: [{ key: "hold:1", reason: "looked at by the shop" }] }),
    job("second-looks", { takeStepId: 1, cause: "tyres-unequal", isStillSo: true }),
    job("split", { complaintId: 1 }),
    job("close", { causes: ["deck-out-of-level"], words: "done" }),
    job("undo", { stepId: 1, reason: "" }),
  ];
}
