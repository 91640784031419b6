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
import { addPlanes, type Plane, planeHeight } from "@/core/geometry";
import { cutters, cuttingWidth, type Machine, referenceSpindle } from "@/core/machine";
import { allYes, itemsFor, type SafeState } from "@/core/safety";
import { isIn, putBackPoints } from "@/core/state";
import {
  type CauseId,
  CHECKS,
  type CheckId,
  type CheckRow,
  type ContextId,
  FIXES,
  type FixId,
  type FixRow,
  type SymptomId,
} from "@/core/trade";
import { INCH_METRES, PSI_PASCALS } from "@/core/units";
import { takeComplaint } from "@/data/complaints";
import type { Db } from "@/data/connection";
import { logEvent } from "@/data/events";
import { closeJob, proofOfJob, recordFix, recordHold, recordTestCut } from "@/data/job-actions";
import { stateOfMachine } from "@/data/machine-state";
import { getMachine } from "@/data/machines";
import { recordConfirmation, recordPutBack } from "@/data/safe-state";
import { recordFinding, recordTake } from "@/data/takes";
import { gaussian, seededRandom } from "./random";
import { pricks, soundReadings, spoiled } from "./sheets";

const SEED = 20_261;
const MINUTE = 60_000;
const DAY = 86_400_000;
/** Noise of a shop's gauges, one standard deviation. */
const HEIGHT_NOISE_METRES = 0.0006;
const PRESSURE_NOISE_PASCALS = 900;

type Story = {
  fleetNumber: string;
  daysAgo: number;
  words: string;
  saidBy: string;
  place: string;
  symptoms: SymptomId[];
  contexts?: ContextId[];
  /** What is really wrong: hidden from the screens, seen only through the readings. */
  fault:
    | { kind: "deck"; sideInches: number; noseInches: number; cause: "deck-out-of-level" | "deck-rake-wrong" }
    | { kind: "tyre"; wheelId: string; psiOff: number }
    /** Shown by a worksheet: what differs from a sound machine, by path of its readings. */
    | {
        kind: "sheet";
        check: CheckId;
        state: SafeState;
        spoils: Record<string, unknown>;
        cause: CauseId;
        fix: FixId;
        fixState: SafeState;
        also?: CheckId[];
      }
    /** Stubble against the setting. */
    | { kind: "height"; offsetMillimetres: number }
    | { kind: "look"; check: string; state: SafeState; cause: string; fix: string; fixState: SafeState; note: string };
  /** Logged on the machine before the complaint. */
  strike?: { words: string; place: string; droveOn: boolean };
  stop?: "waiting" | "after-level" | "after-fix" | "held";
  who?: string;
};

const PACKED = {
  kind: "sheet",
  check: "deck-cleanliness",
  state: "raised",
  cause: "deck-packed",
  fix: "clean-deck",
  fixState: "raised",
} as const;

const STORIES: readonly Story[] = [
  {
    fleetNumber: "ZT-1",
    daysAgo: 228,
    words: "a whole blade's width stands since the belt was done",
    saidBy: "TV",
    place: "Apron verge",
    symptoms: ["blade-width-uncut"],
    contexts: ["belt-disturbed"],
    fault: {
      kind: "sheet",
      check: "belt-inspection",
      state: "locked-out",
      spoils: { "belt.seated": "off-one", "spindles.middle.turns": "stands" },
      cause: "belt-off",
      fix: "reseat-belt",
      fixState: "locked-out",
    },
  },
  {
    fleetNumber: "GR-1",
    daysAgo: 244,
    words: "oil under the right wing",
    saidBy: "KB",
    place: "Runway strip",
    symptoms: ["oil-at-drive"],
    fault: {
      kind: "sheet",
      check: "gearbox-inspection",
      state: "locked-out",
      spoils: { "boxes.right-box.seal": "runs", "boxes.right-box.sealFace": "grooved", "boxes.right-box.depthMetres": 0.069 },
      cause: "gearbox-oil-low",
      fix: "reseal-gearbox",
      fixState: "bench",
      also: ["blade-timing"],
    },
  },
  {
    fleetNumber: "GR-1",
    daysAgo: 171,
    words: "knocks once a turn since the box was off",
    saidBy: "TV",
    place: "Runway 27",
    symptoms: ["grinding-noise"],
    contexts: ["deck-refitted"],
    fault: {
      kind: "sheet",
      check: "blade-timing",
      state: "raised",
      spoils: { "pairs.middle:right.phaseDegrees": 15, "pairs.middle:right.turned": "touches" },
      cause: "gearbox-mistimed",
      fix: "retime-blades",
      fixState: "locked-out",
      also: ["gearbox-inspection"],
    },
  },
  {
    fleetNumber: "WC-1",
    daysAgo: 63,
    words: "leaves half of it by the end of the second court",
    saidBy: "CB",
    place: "Second court",
    symptoms: ["poor-collection", "torn-tips"],
    fault: {
      kind: "sheet",
      check: "tip-speed",
      state: "running",
      spoils: { "spindles.blade.lowChargeRevolutionsPerMinute": 2410, "charge.full": 1, "charge.low": 0.2 },
      cause: "engine-speed-low",
      fix: "set-engine-speed",
      fixState: "locked-out",
    },
  },
  {
    fleetNumber: "BD-2",
    daysAgo: 305,
    words: "cuts lower than the dial says on the soft side",
    saidBy: "CB",
    place: "South wing",
    symptoms: ["cut-too-low"],
    fault: { kind: "height", offsetMillimetres: -5.2 },
  },
  {
    fleetNumber: "FD-1",
    daysAgo: 284,
    words: "clumps again, and smells",
    saidBy: "CB",
    place: "East car park",
    symptoms: ["clumps"],
    contexts: ["wet-or-tall"],
    fault: { ...PACKED, spoils: { "pack.depthMetres": 0.021, "pack.worst": "chute", "chute.state": "narrowed" } },
  },
  {
    fleetNumber: "ZT-2",
    daysAgo: 262,
    words: "leaves a line in the middle of the cut",
    saidBy: "LN",
    place: "Yew walk",
    symptoms: ["uncut-strip-inside"],
    contexts: ["edge-overdue"],
    fault: {
      kind: "sheet",
      check: "blade-overlap",
      state: "raised",
      spoils: { "blades.left.lengthMetres": 0.5175, "blades.right.lengthMetres": 0.5165 },
      cause: "blade-worn-short",
      fix: "replace-blades",
      fixState: "raised",
    },
  },
  {
    fleetNumber: "BD-2",
    daysAgo: 205,
    words: "still a bit low there",
    saidBy: "CB",
    place: "South wing",
    symptoms: ["cut-too-low"],
    fault: { kind: "height", offsetMillimetres: -4.1 },
  },
  {
    fleetNumber: "ZT-3",
    daysAgo: 141,
    words: "shaves the humps by the river",
    saidBy: "EO",
    place: "Riverside",
    symptoms: ["scalped-crests"],
    contexts: ["height-changed"],
    fault: {
      kind: "sheet",
      check: "anti-scalp-wheels",
      state: "parked",
      spoils: { "wheels.rim-left-front.clearanceMetres": 0.041, "wheels.rim-left-front.hole": 1, "wheels.rim-right-rear.turns": "seized" },
      cause: "anti-scalp-misset",
      fix: "set-anti-scalp",
      fixState: "parked",
    },
  },
  {
    fleetNumber: "GR-1",
    daysAgo: 128,
    words: "one corner hangs after the ditch",
    saidBy: "KB",
    place: "Runway strip",
    symptoms: ["step-between-passes"],
    contexts: ["deck-dropped"],
    fault: {
      kind: "sheet",
      check: "hanger-inspection",
      state: "locked-out",
      spoils: { "hangers.left-rear.state": "missing", "hangers.left-rear.note": "hairpin gone, pin half out" },
      cause: "hanger-failed",
      fix: "replace-hanger",
      fixState: "raised",
    },
  },
  {
    fleetNumber: "ZT-3",
    daysAgo: 88,
    words: "shakes since the new blade",
    saidBy: "EO",
    place: "Riverside",
    symptoms: ["vibration"],
    contexts: ["blades-changed"],
    fault: {
      kind: "sheet",
      check: "blade-balance",
      state: "bench",
      spoils: { "blades.middle.addedKilograms": 0.006, "blades.middle.radiusMetres": 0.205, set: "one-new" },
      cause: "blade-unbalanced",
      fix: "balance-blades",
      fixState: "bench",
    },
  },
  {
    fleetNumber: "BD-2",
    daysAgo: 64,
    words: "lower than the others on the wing",
    saidBy: "CB",
    place: "South wing",
    symptoms: ["cut-too-low"],
    fault: { kind: "height", offsetMillimetres: -4.6 },
  },
  {
    fleetNumber: "FD-1",
    daysAgo: 38,
    words: "drops clumps at every turn",
    saidBy: "CB",
    place: "East car park",
    symptoms: ["clumps"],
    fault: { ...PACKED, spoils: { "pack.depthMetres": 0.026, "pack.worst": "baffle", "port.state": "clogged" } },
  },
  {
    fleetNumber: "ZT-1",
    daysAgo: 412,
    words: "steps between passes since the kerb",
    saidBy: "TV",
    place: "Apron verge",
    symptoms: ["step-between-passes"],
    contexts: ["struck-object"],
    fault: { kind: "deck", sideInches: -0.34, noseInches: -0.2, cause: "deck-out-of-level" },
  },
  {
    fleetNumber: "BD-1",
    daysAgo: 371,
    words: "right side shaves the banks",
    saidBy: "PD",
    place: "Old plots",
    symptoms: ["step-between-passes", "scalped-band"],
    fault: { kind: "tyre", wheelId: "right-rear", psiOff: -4.5 },
  },
  {
    fleetNumber: "ZT-2",
    daysAgo: 330,
    words: "leaves stragglers and clumps, nose looks high",
    saidBy: "LN",
    place: "Yew walk",
    symptoms: ["stragglers", "clumps"],
    contexts: ["deck-refitted"],
    fault: { kind: "deck", sideInches: 0.03, noseInches: 0.14, cause: "deck-rake-wrong" },
  },
  {
    fleetNumber: "WP-1",
    daysAgo: 296,
    words: "tips all white after two days",
    saidBy: "LN",
    place: "Chapel lawn",
    symptoms: ["torn-tips", "browning"],
    contexts: ["edge-overdue"],
    fault: {
      kind: "sheet",
      check: "blade-edge",
      state: "raised",
      spoils: {
        "blades.blade.A.edge": "rounded",
        "blades.blade.B.edge": "rounded",
        "blades.blade.A.nickMetres": 0.0006,
        "blades.blade.widthMetres": 0.054,
      },
      cause: "blade-dull",
      fix: "sharpen-blades",
      fixState: "bench",
    },
  },
  {
    fleetNumber: "FD-1",
    daysAgo: 255,
    words: "drops rows of wet clippings",
    saidBy: "CB",
    place: "East car park",
    symptoms: ["clumps"],
    contexts: ["wet-or-tall"],
    fault: { ...PACKED, spoils: { "pack.depthMetres": 0.034, "pack.worst": "baffle" } },
  },
  {
    fleetNumber: "ZT-1",
    daysAgo: 214,
    words: "one edge lower, you can see every pass",
    saidBy: "TV",
    place: "Runway shoulder",
    symptoms: ["step-between-passes"],
    contexts: ["tyre-work"],
    fault: { kind: "tyre", wheelId: "left-drive", psiOff: -4 },
  },
  {
    fleetNumber: "ZT-3",
    daysAgo: 183,
    words: "ledge on the left since the deck was off",
    saidBy: "EO",
    place: "Riverside",
    symptoms: ["step-between-passes"],
    contexts: ["deck-refitted"],
    fault: { kind: "deck", sideInches: 0.28, noseInches: -0.3, cause: "deck-out-of-level" },
  },
  {
    fleetNumber: "BD-2",
    daysAgo: 150,
    words: "bounces and scalps",
    saidBy: "CB",
    place: "South wing",
    symptoms: ["irregular-hop", "scalped-crests"],
    fault: { kind: "tyre", wheelId: "left-front", psiOff: 6 },
  },
  {
    fleetNumber: "WC-1",
    daysAgo: 118,
    words: "does not fill the bag any more",
    saidBy: "CB",
    place: "Courtyard 3",
    symptoms: ["poor-collection"],
    fault: {
      kind: "sheet",
      check: "blade-fit",
      state: "raised",
      spoils: {
        "blades.blade.sail": "to-ground",
        "blades.blade.leads": "back",
        "blades.blade.tightened": "feel",
        "blades.blade.torqueNewtonMetres": undefined,
      },
      cause: "blade-upside-down",
      fix: "refit-blades",
      fixState: "raised",
    },
  },
  {
    fleetNumber: "GR-1",
    daysAgo: 96,
    words: "left wing cuts lower than the right",
    saidBy: "TV",
    place: "Runway 09",
    symptoms: ["step-between-passes", "scalped-band"],
    contexts: ["deck-dropped"],
    fault: { kind: "deck", sideInches: 0.42, noseInches: -0.18, cause: "deck-out-of-level" },
  },
  {
    fleetNumber: "RT-1",
    daysAgo: 74,
    words: "pencil line on every pass",
    saidBy: "HW",
    place: "Square, north end",
    symptoms: ["fine-streak"],
    contexts: ["top-dressed"],
    fault: {
      kind: "look",
      check: "reel-edge",
      state: "locked-out",
      cause: "edge-nicked",
      fix: "grind-bedknife",
      fixState: "bench",
      note: "nick a hand from the left end, middle unit",
    },
  },
  {
    fleetNumber: "ZT-2",
    daysAgo: 51,
    words: "step again between passes",
    saidBy: "LN",
    place: "Yew walk",
    symptoms: ["step-between-passes"],
    fault: { kind: "deck", sideInches: -0.22, noseInches: -0.24, cause: "deck-out-of-level" },
  },
  {
    fleetNumber: "ZT-1",
    daysAgo: 23,
    words: "cuts with a ledge after the caster was changed",
    saidBy: "TV",
    place: "Apron verge",
    symptoms: ["step-between-passes"],
    contexts: ["tyre-work"],
    fault: { kind: "deck", sideInches: -0.2, noseInches: -0.1, cause: "deck-out-of-level" },
  },
  {
    fleetNumber: "ZT-1",
    daysAgo: 0.2,
    words: "each pass leaves a ledge against the last",
    saidBy: "TV",
    place: "Apron verge",
    symptoms: ["step-between-passes"],
    contexts: ["one-machine-only"],
    strike: { words: "a sprinkler head in the verge", place: "right", droveOn: true },
    fault: { kind: "deck", sideInches: 0.3, noseInches: 0.08, cause: "deck-out-of-level" },
    stop: "waiting",
  },
  {
    fleetNumber: "BD-1",
    daysAgo: 1.1,
    words: "shaves the left, misses the right",
    saidBy: "PD",
    place: "Old plots",
    symptoms: ["step-between-passes", "scalped-band"],
    contexts: ["deck-refitted"],
    fault: { kind: "deck", sideInches: 0.26, noseInches: -0.08, cause: "deck-out-of-level" },
    stop: "after-level",
  },
  {
    fleetNumber: "ZT-2",
    daysAgo: 2.3,
    words: "nose up, grass lies flat behind it",
    saidBy: "LN",
    place: "Yew walk",
    symptoms: ["stragglers", "clumps"],
    fault: { kind: "deck", sideInches: 0.02, noseInches: 0.16, cause: "deck-rake-wrong" },
    stop: "after-fix",
  },
  {
    fleetNumber: "WP-2",
    daysAgo: 3.4,
    words: "hit the kerb of a plot and shakes like mad",
    saidBy: "PD",
    place: "New plots",
    symptoms: ["vibration"],
    strike: { words: "the kerb of a plot", place: "blade", droveOn: false },
    fault: {
      kind: "sheet",
      check: "blade-track",
      state: "raised",
      spoils: {
        "blades.blade.markedMetres": 0.0635,
        "blades.blade.otherMetres": 0.0585,
        "blades.blade.swappedMarkedMetres": 0.0632,
        "blades.blade.swappedOtherMetres": 0.0587,
      },
      cause: "crankshaft-bent-or-key-sheared",
      fix: "hand-to-engine-shop",
      fixState: "locked-out",
    },
    stop: "held",
  },
  {
    fleetNumber: "RW-1",
    daysAgo: 0.6,
    words: "ripples across the green like corduroy",
    saidBy: "HW",
    place: "Bowls green",
    symptoms: ["ripples"],
    fault: { kind: "look", check: "reel-speed", state: "running", cause: "clip-too-long", fix: "set-speeds", fixState: "parked", note: "" },
    stop: "waiting",
  },
  {
    fleetNumber: "GR-1",
    daysAgo: 0.4,
    words: "growls underneath, and one hub spits on a wet finger",
    saidBy: "KB",
    place: "Runway strip",
    symptoms: ["grinding-noise", "hot-hub"],
    contexts: ["grease-overdue"],
    fault: {
      kind: "look",
      check: "spindle-play",
      state: "raised",
      cause: "spindle-bearing-worn",
      fix: "replace-bearings",
      fixState: "bench",
      note: "",
    },
    stop: "waiting",
  },
];

/** Plays every story through the same functions the screens use, hidden fault in, readings with gauge noise out. Returns how many. */
export function seedHistory(db: Db, now: string): number {
  const random = seededRandom(SEED);
  // Told in the order they happened: a machine that was run since is not safe any more.
  [...STORIES]
    .sort((a, b) => b.daysAgo - a.daysAgo)
    .forEach((story, index) => {
      new Teller(db, story, Date.parse(now) - story.daysAgo * DAY, random, index).tell();
    });
  return STORIES.length;
}

class Teller {
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
    recordFix(this.db, this.doing(30), { jobId: this.jobId, fix: fault.fix, cause: fault.cause, words: "" });
    for (const check of provingLooks(fault.cause, this.machine)) {
      this.makeSafe(check.state);
      if (check.id === "deck-level") this.readLevel();
      else this.fill(check.id, {});
    }
    for (const check of CHECKS.filter(({ id }) => fault.also?.includes(id))) {
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
    const sound = soundReadings({ machine: this.machine, check, random: this.random, turf: this.story.place });
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

  /** Looks owed after a strike, put back, made ready, cut and closed. */
  private finish(causes: string[]): void {
    for (const check of CHECKS.filter(({ id }) => stateOfMachine(this.db, this.machineId).struck?.checks.includes(id))) {
      this.makeSafe(check.state);
      if (check.id === "deck-level") this.readLevel();
      else this.fill(check.id, {});
    }
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
    const { isProved } = proofOfJob(this.db, this.jobId);
    closeJob(this.db, this.doing(5), {
      jobId: this.jobId,
      causes,
      words: "",
      ...(isProved ? {} : { unprovedReason: "closed on the test cut" }),
    });
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
  return rows.filter((row) => ids.includes(row.id) && isOffered(row, machine));
}

function roundTo(value: number, step: number): number {
  return Math.round(value / step) * step;
}
