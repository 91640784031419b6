import { type Finding, onePlaceOf, type Verdict } from "@/core/basics/findings";
import { namedRandom, pickOne } from "@/core/basics/random";
import { type CauseId, type CheckId, CONTEXTS, type SymptomId } from "@/core/catalogue";
import { assessWith, type Check, worksheetById } from "@/core/checks";
import type { Case, CaseEvidence, Knowledge } from "@/core/diagnosis";
import { contextFactor } from "@/core/diagnosis/context";
import { deckContext } from "@/core/job/jobs";
import { cuttersOf, type Machine } from "@/core/machine";
import type { PassWay } from "@/core/physics/turf";
import {
  drawSeverity,
  type Fault,
  type Hand,
  type HiddenState,
  looksOf,
  MODELLED,
  putIn,
  readingsOf,
  soundState,
  spreadFrom,
  UNLISTED,
  unlistedFault,
  type World,
} from "@/core/simulator";
import { CONTEXT_RATE, shuffled } from "./cases";

const MOST_REPORTED = 5;
const DENIED_SHARE = 0.3;
const MOST_CAUSES = 3;
/** From level 3 on. */
const MISNAMED_SHARE = 0.15;
const MISNAMED: readonly (readonly [SymptomId, SymptomId])[] = [
  ["step-between-passes", "bands-between-units"],
  ["torn-tips", "stragglers"],
  ["ripples", "irregular-hop"],
];
/** A cause is to be found if without it a look that was said is at most half as likely. */
const HALF = 0.5;

export type HiddenCase = {
  key: string;
  machine: Machine;
  state: HiddenState;
  faults: readonly Fault[];
  given: Case;
  targets: readonly CauseId[];
};

/** A machine by its key with these faults: where each sits is the same whichever others are there. */
export function machineWith(args: {
  machine: Machine;
  key: string;
  faults: readonly Fault[];
  passWay?: PassWay;
  /** Wide where nothing is said. */
  world?: World | undefined;
}): HiddenState {
  const isWide = args.world !== "narrow";
  const state = soundState(
    args.machine,
    spreadFrom(namedRandom(`${args.key}:sound`), isWide ? namedRandom(`${args.key}:wide`) : undefined),
  );
  state.passWay = args.passWay ?? "one-way";
  for (const fault of args.faults) putIn(state, fault, namedRandom(`${args.key}:fault:${fault.cause}`));
  return state;
}

/** One to three causes by the tables, a machine that has them, and what is said of it; `undefined` where nothing was to be found. */
export function drawHidden(args: {
  machine: Machine;
  knowledge: Knowledge;
  key: string;
  misnames?: boolean;
  /** Share of cases with a fault besides that is in no table and moves a reading. */
  unlisted?: number;
  world?: World | undefined;
}): HiddenCase | undefined {
  const { machine, knowledge, key } = args;
  const random = namedRandom(`${key}:case`);
  const context = CONTEXTS.map(({ id }) => id).filter(() => random() < CONTEXT_RATE);
  if (context.includes("all-machines") && context.includes("one-machine-only")) return undefined;
  const drawn = knowledge.causes.filter((cause) => {
    const odds = (cause.prior / (1 - cause.prior)) * contextFactor(cause, context);
    return MODELLED.includes(cause.id) && random() < odds / (1 + odds);
  });
  if (drawn.length > MOST_CAUSES) return undefined;
  const outside = random() < (args.unlisted ?? 0) ? unlistedOf(knowledge, random) : [];
  if (drawn.length + outside.length === 0) return undefined;
  const faults = [...drawn.map(({ id }): Fault => ({ cause: id, severity: drawSeverity(random) })), ...outside];
  const passWay = context.includes("mown-up-and-down") ? "up-and-down" : "one-way";
  const { world } = args;
  const state = machineWith({ machine, key, faults, passWay, world });
  const linksOf = (cause: CauseId) => knowledge.causes.find(({ id }) => id === cause)?.links ?? [];
  const looks = (some: readonly Fault[], of: HiddenState) => looksOf({ state: of, faults: some, symptoms: knowledge.symptoms, linksOf });
  const chances = looks(faults, state);
  const noticed = knowledge.symptoms.filter((symptom) => random() < (chances.get(symptom) ?? 0));
  const said = shuffled(noticed, random).slice(0, MOST_REPORTED);
  const denied = knowledge.symptoms.filter((symptom) => !noticed.includes(symptom) && random() < DENIED_SHARE);
  const targets = faults.flatMap(({ cause }) => {
    const others = faults.filter((fault) => fault.cause !== cause);
    const without = looks(others, machineWith({ machine, key, faults: others, passWay, world }));
    return said.some((symptom) => (without.get(symptom) ?? 0) <= HALF * (chances.get(symptom) ?? 0)) ? [cause] : [];
  });
  if (targets.length === 0) return undefined;
  const listed = targets.filter((cause) => !UNLISTED.includes(cause));
  const named = args.misnames ? said.map((symptom) => misnamed(symptom, knowledge, random)) : said;
  const symptoms = Object.fromEntries([...denied.map((id) => [id, "denied"]), ...named.map((id) => [id, "present"])]);
  return { key, machine, state, faults, given: { symptoms, context, evidence: [] }, targets: listed };
}

/** One of what stands in no table, as far as this machine can have it. */
function unlistedOf(knowledge: Knowledge, random: () => number): Fault[] {
  const able = UNLISTED.filter((id) => knowledge.causes.some((cause) => cause.id === id));
  const id = pickOne(able, random);
  return id === undefined ? [] : [unlistedFault(id, drawSeverity(random))];
}

function misnamed(symptom: SymptomId, knowledge: Knowledge, random: () => number): SymptomId {
  const pair = MISNAMED.find((one) => one.includes(symptom));
  const other = pair?.find((one) => one !== symptom);
  return other && knowledge.symptoms.includes(other) && random() < MISNAMED_SHARE ? other : symptom;
}

export type Made = {
  check: CheckId;
  verdict: Verdict | "refused" | "no-worksheet";
  evidence: CaseEvidence[];
  /** By cause, the places where something of it was found. */
  places: ReadonlyMap<string, readonly string[]>;
};

/** A check made on a hidden machine: its gauges read by this hand, its readings assessed, what they say. */
export function make(args: {
  of: { key: string; machine: Machine; state: HiddenState };
  checkId: CheckId;
  hand: Hand;
  made: readonly Made[];
  take?: number;
}): Made {
  const { of, checkId, hand, take = 1 } = args;
  const check = worksheetById(checkId);
  const readings = check && readingsOf({ state: of.state, key: of.key, check, hand, take });
  if (!check || !readings) return { check: checkId, verdict: "no-worksheet", evidence: [], places: new Map() };
  const outcome = assessWith(check, { machine: of.machine, readings: { ...readings, ...contextOf(check, of.machine, args.made) } });
  if (outcome.kind !== "assessed") return { check: checkId, verdict: "refused", evidence: [], places: new Map() };
  const { verdict, evidence, findings, told: read } = outcome.assessment;
  const cutters = cuttersOf(of.machine);
  const places = new Map<string, string[]>();
  for (const finding of findings) {
    for (const { cause } of finding.causes ?? [])
      places.set(cause, [...(places.get(cause) ?? []), seenAt(finding, outcome.assessment.detail)]);
  }
  const told = evidence.map((one) => {
    const amongst = onePlaceOf({ cutters, findings, told: read, causes: "causes" in one ? one.causes : [one.cause] });
    return { check: checkId, ...one, ...(amongst ? { onePlaceOf: amongst } : {}) };
  });
  return { check: checkId, verdict, evidence: told, places };
}

/** Where a thing was found and what of it: of a contact also at which end. */
function seenAt({ place, code }: Finding, detail: unknown): string {
  const { units = {} } = detail as { units?: Record<string, { along?: Record<string, string> }> };
  const along = Object.entries(units[place]?.along ?? {}).flatMap(([at, setting]) => (setting === "right" ? [] : [at]));
  return [place, code, ...along].join(" ");
}

/** What the job so far says of what a level stands on. */
function contextOf(check: Check, machine: Machine, made: readonly Made[]): object {
  if (check.wants !== "level-standing") return {};
  const takes = made.flatMap(({ check: id, verdict }, k) =>
    verdict === "refused" || verdict === "no-worksheet"
      ? []
      : [{ id: k + 1, check: id, seq: k + 1, verdict, isProvisional: false, figures: [] }],
  );
  return deckContext({ machine, takes, machineTakes: takes, events: [] });
}
