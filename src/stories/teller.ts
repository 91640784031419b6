import { addPlanes, type Plane, planeHeight } from "@/core/basics/geometry";
import { gaussian } from "@/core/basics/random";
import { INCH_METRES, PSI_PASCALS } from "@/core/basics/units";
import { CHECKS, type CheckId, type CheckRow, type ContextId, FIXES, type FixRow } from "@/core/catalogue";
import {
  type Assessment,
  type DeckDetail,
  isOffered,
  quickForm,
  type TyreDetail,
  targetPressure,
  twistForm,
  worksheetsFor,
} from "@/core/checks";
import { READ_OF_THE_CUT } from "@/core/job/jobs";
import { allYes, itemsFor, type SafeState } from "@/core/job/safety";
import { isIn, putBackPoints } from "@/core/job/status";
import { cutters, cuttingWidth, type Machine, referenceSpindle } from "@/core/machine";
import { recordFinding, recordTake } from "@/data/checks/takes";
import { takeComplaint } from "@/data/job/complaints";
import { closeJob, proofOfJob, recordFix, recordGuess, recordHandover, recordHold, recordTestCut } from "@/data/job/job-actions";
import { recordConfirmation, recordPutBack } from "@/data/job/safe-state";
import { getMachine } from "@/data/machine/machines";
import { stateOfMachine } from "@/data/projections/machine-state";
import { logEvent } from "@/data/service/events";
import type { Db } from "@/data/store/db";
import { soundReadings, spoiled } from "../core/checks/sound";
import { pricks } from "../core/checks/sound-basics";
import type { Story } from "./story";
import { stubbleInSeason } from "./stubble";

const MINUTE = 60_000;
const DAY = 86_400_000;
/** Noise of a shop's gauges, one standard deviation. */
const HEIGHT_NOISE_METRES = 0.0006;
const PRESSURE_NOISE_PASCALS = 900;

/** Plays one story through the functions the screens use: hidden fault in, readings with the noise of gauges out. `index` picks who. */
export class Teller {
  private clock: number;
  private jobId = 0;
  private readonly machine: Machine;
  private readonly machineId: string;
  private plane: Plane;
  private readonly pressures: Map<string, number>;

  constructor(
    private readonly db: Db,
    private readonly story: Story,
    start: number,
    private readonly random: () => number,
    private readonly index: number,
  ) {
    this.clock = start;
    this.machineId = story.fleetNumber.toLowerCase();
    this.machine = getMachine(db, this.machineId).machine;
    this.plane = this.hiddenPlane();
    this.pressures = this.hiddenPressures();
  }

  tell(): void {
    const { story } = this;
    if (story.strike) logEvent(this.db, this.doing(0), { machineId: this.machineId, event: "struck", ...story.strike });
    const { jobId } = takeComplaint(this.db, this.doing(0), {
      machineId: this.machineId,
      words: story.words,
      saidBy: story.saidBy,
      place: story.place,
      looks: { symptoms: story.symptoms, denied: [], contexts: story.contexts ?? [], swath: { where: "all-over" } },
    });
    this.jobId = jobId;
    if (story.guess) recordGuess(this.db, this.doing(1), { jobId, cause: story.guess });
    if (story.stop === "waiting") return;
    if (story.fault.kind === "look") this.tellLook(story.fault);
    else if (story.fault.kind === "sheet") this.tellSheet(story.fault);
    else if (story.fault.kind === "height") this.tellHeight(story.fault.offsetMillimetres);
    else this.tellMeasured();
  }

  private tellLook(fault: Extract<Story["fault"], { kind: "look" }>): void {
    this.makeSafe(fault.state);
    recordFinding(this.db, this.doing(9), {
      jobId: this.jobId,
      checkId: fault.check,
      result: "seen",
      causes: [fault.cause],
      note: fault.note,
    });
    if (this.story.stop === "held") {
      recordHold(this.db, this.doing(2), { jobId: this.jobId, reason: "shaft bent after a strike" });
      return;
    }
    if (fault.fixState !== fault.state) this.makeSafe(fault.fixState);
    recordFix(this.db, this.doing(30), { jobId: this.jobId, fix: fault.fix, cause: fault.cause, words: "" });
    for (const check of provingLooks(fault.cause, this.machine)) {
      this.makeSafe(check.state);
      recordFinding(this.db, this.doing(6), { jobId: this.jobId, checkId: check.id, result: "not-found", causes: [fault.cause], note: "" });
    }
    this.finish([fault.cause]);
  }

  private tellSheet(fault: Extract<Story["fault"], { kind: "sheet" }>): void {
    this.makeSafe(fault.state);
    this.fill(fault.check, fault.spoils);
    if (this.story.stop === "held") {
      recordHold(this.db, this.doing(2), { jobId: this.jobId, reason: "shaft bent after a strike" });
      return;
    }
    if (fault.fixState !== fault.state) this.makeSafe(fault.fixState);
    recordFix(this.db, this.doing(30), {
      jobId: this.jobId,
      fix: fault.fix,
      cause: fault.cause,
      words: "",
      ...(fault.units ? { units: fault.units } : {}),
      ...(fault.ground ? { ground: fault.ground } : {}),
    });
    for (const check of provingLooks(fault.cause, this.machine)) {
      this.makeSafe(check.state);
      if (check.id === "deck-level") this.readLevel();
      else this.fill(check.id, {});
    }
    for (const check of CHECKS.filter((row) => fault.also?.includes(row.id) && isOffered(row, this.machine))) {
      this.makeSafe(check.state);
      this.fill(check.id, {});
    }
    this.finish([fault.cause]);
  }

  private tellHeight(offsetMillimetres: number): void {
    this.makeSafe("parked");
    const read = (offset: number) =>
      recordTake(this.db, this.doing(7), {
        jobId: this.jobId,
        checkId: "cutting-height",
        readings: pricks({
          settingMetres: 0.0635,
          offsetMetres: offset / 1000,
          spreadMetres: 0.0022,
          random: this.random,
          turf: this.story.place,
        }),
        asTyped: {},
      });
    read(offsetMillimetres);
    recordFix(this.db, this.doing(10), { jobId: this.jobId, fix: "reset-height", cause: "height-misset", words: "" });
    this.fill("anti-scalp-wheels", {});
    this.finish(["height-misset"]);
  }

  /** A worksheet of a sound machine, spoiled where the story says so; a plain look where the machine has none. */
  private fill(check: string, spoils: Record<string, unknown>): void {
    const isReelHeight = check === "cutting-height" && this.machine.units.length > 0;
    const sound = isReelHeight
      ? stubbleInSeason({ machine: this.machine, random: this.random, turf: this.story.place, at: this.clock })
      : soundReadings({ machine: this.machine, check, random: this.random, turf: this.story.place });
    const hasSheet = worksheetsFor(this.machine).some(({ id }) => id === check);
    if (sound && hasSheet) {
      recordTake(this.db, this.doing(8), { jobId: this.jobId, checkId: check, readings: spoiled(sound, spoils), asTyped: {} });
      return;
    }
    recordFinding(this.db, this.doing(6), { jobId: this.jobId, checkId: check, result: "not-found", causes: [], note: "" });
  }

  private tellMeasured(): void {
    const { fault } = this.story;
    this.makeSafe("locked-out");
    this.readTyres();
    if (this.isUpset) this.fill("hanger-inspection", {});
    if (fault.kind === "tyre") {
      const detail = this.readTyres().detail as TyreDetail;
      const pressures = detail.wheels.map(({ wheelId, coldPressurePascals, targetPascals }) => ({
        wheelId,
        fromPascals: coldPressurePascals,
        toPascals: targetPascals ?? coldPressurePascals,
      }));
      recordFix(this.db, this.doing(6), { jobId: this.jobId, fix: "set-pressures", cause: "tyres-unequal", words: "", pressures });
      for (const { wheelId, toPascals } of pressures) this.pressures.set(wheelId, toPascals);
      this.readTyres();
      this.readLevel();
      this.finish(["tyres-unequal"]);
      return;
    }
    if (fault.kind !== "deck") return;
    const found = this.readLevel();
    if (this.story.stop === "after-level") return;
    this.turn(found, fault.cause);
    if (this.story.stop === "after-fix") return;
    if (this.isUpset) this.fill("hanger-inspection", {});
    let again = this.readLevel();
    for (let round = 0; round < 2 && again.verdict !== "in-tolerance"; round++) {
      this.turn(again, fault.cause);
      again = this.readLevel();
    }
    this.finish([fault.cause]);
  }

  private turn(found: Assessment, cause: string): void {
    const plan = (found.detail as DeckDetail).plan;
    if (!plan) return;
    recordFix(this.db, this.doing(15), {
      jobId: this.jobId,
      fix: "adjust-hangers",
      cause,
      words: "",
      turns: plan.hangers.map(({ id, turns }) => ({ hangerId: id, turns })),
    });
    const before = (found.detail as DeckDetail).plane as Plane;
    const moved = {
      height: plan.after.height - before.height,
      slopeRight: plan.after.slopeRight - before.slopeRight,
      slopeForward: plan.after.slopeForward - before.slopeForward,
    };
    this.plane = addPlanes(this.plane, moved);
  }

  /** A part that leaves without its machine. */
  private handOver(): void {
    const { away } = this.story;
    if (!away) return;
    const { what, to, owes, afterDays } = away;
    const dueAt = new Date(this.clock + afterDays * DAY).toISOString().slice(0, 10);
    recordHandover(this.db, this.doing(3), { jobId: this.jobId, what, to, owes, dueAt });
  }

  /** Looks owed after a strike, put back, made ready, cut and closed. */
  private finish(causes: string[]): void {
    for (const check of CHECKS.filter(({ id }) => stateOfMachine(this.db, this.machineId).struck?.checks.includes(id))) {
      this.makeSafe(check.state);
      if (check.id === "deck-level") this.readLevel();
      else this.fill(check.id, {});
    }
    this.handOver();
    this.makeSafe("running");
    const { asks } = proofOfJob(this.db, this.jobId);
    recordTestCut(this.db, this.doing(25), {
      jobId: this.jobId,
      looks: "all-alike",
      turf: "good",
      dryness: "dry",
      light: "day",
      patch: "same",
      height: "as-complained",
      drivenBy: "same",
      symptoms: Object.fromEntries(asks.map((symptom) => [symptom, "gone" as const])),
      seenCutting: cutters(this.machine).map(({ id }) => id),
      place: this.story.place,
      operator: this.story.saidBy,
      words: "",
    });
    this.readTheCut();
    const { isProved } = proofOfJob(this.db, this.jobId);
    closeJob(this.db, this.doing(5), {
      jobId: this.jobId,
      causes,
      words: "",
      ...(isProved ? {} : { unprovedReason: "closed on the test cut" }),
    });
  }

  /** What the proof wants read off the turf, now that something was cut. */
  private readTheCut(): void {
    const { gaps } = proofOfJob(this.db, this.jobId);
    for (const check of CHECKS.filter(({ id }) => READ_OF_THE_CUT.includes(id) && gaps.some((gap) => "check" in gap && gap.check === id))) {
      this.makeSafe(check.state);
      this.fill(check.id, {});
    }
  }

  /** Dropped, struck or refitted: the rake is then read on both outer blades, and the hangers before it. */
  private get isUpset(): boolean {
    const upset: readonly ContextId[] = ["struck-object", "deck-dropped", "deck-refitted"];
    return this.story.strike !== undefined || (this.story.contexts ?? []).some((context) => upset.includes(context));
  }

  private hiddenPlane(): Plane {
    const { fault } = this.story;
    const reference = referenceSpindle(this.machine);
    if (!reference || this.machine.deck?.mount === "fixed") return { height: 0.07, slopeRight: 0, slopeForward: 0 };
    const width = cuttingWidth(this.machine);
    const usualRake = this.machine.sheet.rakeTargetMetres ?? -0.006;
    const side = fault.kind === "deck" ? fault.sideInches * INCH_METRES : 0;
    const rake = fault.kind === "deck" ? fault.noseInches * INCH_METRES : usualRake;
    const slopeRight = side / width;
    const slopeForward = rake / reference.tipCircleDiameterMetres;
    return { height: 3.2 * INCH_METRES - slopeForward * reference.yMetres, slopeRight, slopeForward };
  }

  private hiddenPressures(): Map<string, number> {
    const { fault } = this.story;
    const tyres = this.machine.wheels.filter(({ isPneumatic }) => isPneumatic);
    return new Map(
      tyres.map((wheel) => [
        wheel.id,
        (targetPressure(this.machine, wheel) ?? 0) + (fault.kind === "tyre" && fault.wheelId === wheel.id ? fault.psiOff * PSI_PASCALS : 0),
      ]),
    );
  }

  private readTyres(): Assessment {
    const read = [...this.pressures].map(
      ([wheelId, held]) => [wheelId, roundTo(held + gaussian(this.random) * PRESSURE_NOISE_PASCALS, PSI_PASCALS / 2)] as const,
    );
    const readings = { tyres: Object.fromEntries(read.map(([wheelId, pressurePascals]) => [wheelId, { pressurePascals }])) };
    const asTyped = Object.fromEntries(
      read.map(([wheelId, pascals]) => [`tyres.${wheelId}.pressurePascals`, `${Math.round((pascals / PSI_PASCALS) * 2) / 2}`]),
    );
    return recordTake(this.db, this.doing(4), { jobId: this.jobId, checkId: "tyre-pressure", readings, asTyped }).assessment;
  }

  private readLevel(): Assessment {
    const tips = (this.isUpset ? twistForm : quickForm)(this.machine).map(
      (station) =>
        [station.key, roundTo(planeHeight(this.plane, station) + gaussian(this.random) * HEIGHT_NOISE_METRES, INCH_METRES / 32)] as const,
    );
    const asTyped = Object.fromEntries(
      tips.map(([key, metres]) => [`tips.${key}.heightMetres`, `${Math.round((metres / INCH_METRES) * 32) / 32}`]),
    );
    const readings = {
      tips: Object.fromEntries(tips.map(([key, heightMetres]) => [key, { heightMetres }])),
      form: this.isUpset ? "twist" : "quick",
      ends: "one-carried-round",
    };
    return recordTake(this.db, this.doing(9), { jobId: this.jobId, checkId: "deck-level", readings, asTyped }).assessment;
  }

  private makeSafe(state: SafeState): void {
    const now = stateOfMachine(this.db, this.machineId);
    if (state !== "bench" && isIn(now, state)) return;
    const points = putBackPoints(this.machine, now);
    if (state === "running" && now.toPutBack) recordPutBack(this.db, this.doing(6), { jobId: this.jobId, answers: allYes(points) });
    const parts = state === "bench" ? cutters(this.machine).map(({ id }) => id) : [];
    recordConfirmation(this.db, this.doing(3), { jobId: this.jobId, state, answers: allYes(itemsFor(this.machine, state)), parts });
  }

  private doing(minutes: number): { who: string; now: string } {
    this.clock += minutes * MINUTE + Math.round(this.random() * MINUTE);
    return { who: this.story.who ?? ["AK", "JM", "RSO"][this.index % 3] ?? "AK", now: new Date(this.clock).toISOString() };
  }
}

function provingLooks(cause: string, machine: Machine): CheckRow[] {
  const rows: readonly CheckRow[] = CHECKS;
  const fixRows: readonly FixRow[] = FIXES;
  const ids: readonly string[] = fixRows.find((row) => row.cause === cause)?.provedBy ?? [];
  // What is read off the turf comes after the cut.
  return rows.filter((row) => ids.includes(row.id) && !READ_OF_THE_CUT.includes(row.id as CheckId) && isOffered(row, machine));
}

function roundTo(value: number, step: number): number {
  return Math.round(value / step) * step;
}
