import { table } from "@/core/basics/tables";
import type { EventId } from "@/core/catalogue";
import { featuresOf } from "@/core/catalogue/kinds";
import type { SafeState } from "@/core/job/safety";
import { type Machine, spindlesAcross } from "@/core/machine";
import { choice, chosenAt, type Move, type Order, part, type SequenceState, type Step, sequenceState } from "./counted";

/** Work that is guided step by step at one spindle. */
export const ROUNDS = ["blade", "spindle"] as const;
export type Round = (typeof ROUNDS)[number];
/** What the machine stands in while it is done. */
export const ROUND_STATE = { blade: "raised", spindle: "locked-out" } as const satisfies Record<Round, SafeState>;
export type GuidedMove = Move & { round: Round; place: string };

const STACK_LABELS: Readonly<Record<string, string>> = table({
  "lock-washer": "Lock washer",
  "flat-washer": "Flat washer",
  "cupped-washer-hollow-up": "Cupped washer",
  "cupped-washer-hollow-down": "Cupped washer",
  spacer: "Spacer",
  "anti-rotation-plate": "Anti-rotation plate",
  collar: "Collar",
});

/**
 * A blade off and on (common practice): photograph, block, the ladder of a stuck bolt, which never ends in
 * heat; back with a clean seat, started by hand, the block moved round, torque by its figure, turned by hand.
 */
function bladeOrder(machine: Machine): Order {
  const { blade, bladeBoltTorqueNewtonMetres: torque } = machine.sheet;
  const isLeft = blade?.bolt?.thread === "left";
  const turn = isLeft ? "clockwise" : "anticlockwise";
  const stack = (blade?.stack ?? []).flatMap((name) => (STACK_LABELS[name] ? [part(name, STACK_LABELS[name], 1)] : []));
  const surface = blade?.bolt?.surface;
  const wantsOil = surface === "oiled";
  const steps: Step[] = [
    {
      id: "photograph",
      words: "Photograph it from below before anything is loosened: the blade as it sits, its sail, edge and words, the stack",
      parts: [],
    },
    {
      id: "block",
      words: `Block of wood between blade and shell so that it cannot follow: this bolt loosens ${turn}, seen from below`,
      parts: [],
      asks: [
        choice("block", "The block holds", { id: "holds", label: "It holds" }, { id: "slips", label: "It slips", refuses: "block-slips" }),
      ],
    },
    {
      id: "break-loose",
      words:
        "Break it loose, pulling so that a slip does not run the hand along the edge. Each rung only when the one before did not do it; never heat",
      parts: [],
      asks: [
        choice(
          "ladder",
          "It came with",
          { id: "wrench", label: "The wrench" },
          { id: "penetrant", label: "Penetrating oil and time" },
          { id: "lever", label: "A longer lever" },
          { id: "impact", label: "Impact wrench" },
          { id: "not-yet", label: "Not yet", refuses: "bolt-still-tight" },
        ),
        choice(
          "impact-kit",
          "With an impact wrench: socket, adapter and extension rated for it",
          { id: "none-used", label: "None was used" },
          { id: "all-rated", label: "All rated" },
          { id: "not-rated", label: "One is not", refuses: "impact-not-rated" },
        ),
      ],
    },
    {
      id: "bolt",
      words: "Bolt and washers out and into the tray in their order",
      backWords: "Washers in this machine’s order; bolt started by hand, several turns, before any wrench",
      parts: [part("bolt", "Blade bolt", 1), ...stack],
      backAsks: [
        choice(
          "thread",
          `Thread (${surface === undefined ? "the sheet does not say what the torque is for" : `the torque is for ${wantsOil ? "an oiled" : "a dry"} thread`})`,
          { id: "dry", label: "Clean and dry", ...(wantsOil ? { refuses: "thread-not-as-torque" } : {}) },
          { id: "oiled", label: "Oiled or greased", ...(surface === "dry" ? { refuses: "thread-not-as-torque" } : {}) },
        ),
        choice(
          "started",
          "Started by hand",
          { id: "by-hand", label: "Turns in by hand" },
          { id: "binds", label: "Binds", refuses: "bolt-binds" },
        ),
      ],
    },
    {
      id: "blade",
      words: "Blade off, marked with its place and the side that faced the ground; it stays as a witness. Its imprint looked at",
      backWords: "Blade on: labels off under the hub, seat and hub brushed clean, the way up the photograph and the sheet show",
      parts: [part("blade", "Blade", 1)],
      backAsks: [
        choice("which", "What goes on", { id: "same", label: "The same blade" }, { id: "other", label: "Another blade" }),
        choice(
          "seat",
          "Under the hub",
          { id: "clean", label: "Clean, labels off" },
          { id: "not-clean", label: "Paint, label or rust", refuses: "seat-not-clean" },
        ),
      ],
    },
  ];
  const back: Step[] = [
    {
      id: "torque",
      words: "Block of wood moved round to the other side; drawn up by torque wrench",
      parts: [],
      backAsks: [
        {
          kind: "torque",
          id: "torque",
          label: "Wrench set to",
          unless: { ask: "how", is: "by-feel" },
          ...(torque === undefined ? {} : { wanted: torque }),
        },
        choice("how", "Tightened", { id: "wrench", label: "Torque wrench" }, { id: "by-feel", label: "By feel", owes: "bolts-by-wrench" }),
      ],
    },
    {
      id: "turn",
      words: "Block out; turned a whole turn by hand: free, nothing touched, against the photograph",
      parts: [],
      backAsks: [
        choice(
          "turned",
          "Turned by hand",
          { id: "free", label: "Free" },
          { id: "touches", label: "Touches or binds", refuses: "touches-by-hand" },
        ),
      ],
    },
  ];
  const forward = [...steps].filter(({ id }) => id === "bolt" || id === "blade").reverse();
  return { off: steps, on: [...forward, ...back] };
}

/** How proud or sunk a bearing may stand in its seat. Estimate: a quarter of a millimetre. */
export const BEARING_FLUSH_METRES = 0.00025;

/** A spindle served (common practice): what the fitting really feeds first, places kept or proved alike. */
function spindleOrder(): Order {
  const steps: Step[] = [
    {
      id: "what-it-is",
      words:
        "Sealed for life, or with a fitting; where there is one, what it feeds. A fitting that feeds only the cavity greases no bearing",
      parts: [],
      asks: [
        choice(
          "feeds",
          "The fitting",
          { id: "none", label: "None: sealed, nothing is greased" },
          { id: "bearings", label: "Feeds the bearings" },
          { id: "cavity", label: "Feeds the cavity only" },
          { id: "not-known", label: "Not known: taken as the cavity" },
        ),
      ],
    },
    {
      id: "grease",
      words: "How full the cavity is, and the old grease: at its hours it is pushed or washed out, not topped up on",
      parts: [],
      asks: [
        choice(
          "fill",
          "Cavity",
          { id: "third", label: "About a third" },
          { id: "full", label: "Full: heats and blows seals" },
          { id: "dry", label: "Dry" },
          { id: "not-open", label: "Sealed, not opened" },
        ),
        choice(
          "old",
          "Old grease",
          { id: "out", label: "Out, washed" },
          { id: "fresh", label: "Still fresh" },
          { id: "not-open", label: "Not opened" },
        ),
        choice("seal", "Seal as found", { id: "seated", label: "Seated all round" }, { id: "out", label: "Pushed out or torn" }),
      ],
    },
    {
      id: "out",
      words: "Spindle unbolted and out, marked with its place; pulley nut off with the shaft held, not the blade",
      backWords: "Spindle in, every bolt started by hand, drawn up across, then by torque wrench",
      parts: [part("spindle-bolts", "Spindle bolts", 4), part("pulley-nut", "Pulley nut", 1)],
      backAsks: [
        choice(
          "place",
          "It goes back",
          { id: "own", label: "To its own place" },
          { id: "proved-alike", label: "Elsewhere: shaft, length, pulley and seat measured alike" },
          { id: "not-proved", label: "Elsewhere, not measured", refuses: "prove-identical" },
        ),
      ],
    },
    {
      id: "apart",
      words: "Bearings, seals and spacer out, laid in their order",
      backWords:
        "Bearings pressed by the ring that fits, to the bottom of their seats; spacer between them; seals square, lip the way it was",
      parts: [part("bearings", "Bearings, new ones back", 2), part("seals", "Seals, new ones back", 2), part("spacer", "Spacer", 1)],
      backAsks: [
        { kind: "length", id: "projection", label: "Bearing proud of its seat", most: 0.02, within: BEARING_FLUSH_METRES },
        choice(
          "bearing-seat",
          "Bearing in its seat",
          { id: "flush", label: "Flush all round" },
          { id: "step", label: "Stands proud", refuses: "bearing-not-home" },
        ),
        choice(
          "seal",
          "Seal",
          { id: "square", label: "Square, seated all round" },
          { id: "cocked", label: "Cocked", refuses: "seal-not-square" },
        ),
      ],
    },
  ];
  const turn: Step = {
    id: "turn",
    words: "Turned by hand before the belt goes on: smooth, no play at the tip",
    parts: [],
    backAsks: [
      choice(
        "turned",
        "Turned by hand",
        { id: "free", label: "Smooth" },
        { id: "touches", label: "Rough or binds", refuses: "touches-by-hand" },
      ),
    ],
  };
  return { off: steps, on: [...steps.filter(({ parts }) => parts.length > 0).reverse(), turn] };
}

/** A machine's own count of the parts of a round, told at the bench: it takes the place of the usual one. */
export type OwnList = Readonly<Record<string, number>>;

export function withOwnList(order: Order, own: OwnList | undefined): Order {
  if (!own) return order;
  const told = (steps: readonly Step[]) =>
    steps.map((step) => ({
      ...step,
      parts: step.parts.map((one) => ({ ...one, count: own[one.id] ?? one.count })).filter(({ count }) => count > 0),
    }));
  return { off: told(order.off), on: told(order.on) };
}

export function guidedOrder(machine: Machine, round: Round, own?: OwnList): Order {
  return withOwnList(round === "blade" ? bladeOrder(machine) : spindleOrder(), own);
}

export type GuidedState = SequenceState & { round: Round; place: string };

export function guidedState(
  machine: Machine,
  at: { round: Round; place: string },
  moves: readonly GuidedMove[],
  own?: OwnList,
): GuidedState {
  const here = moves.filter((move) => move.round === at.round && move.place === at.place);
  return { ...sequenceState(guidedOrder(machine, at.round, own), here), ...at };
}

/** The rounds this machine has: a blade on the engine's or motor's own shaft has no spindle to serve. */
export function roundsOf(machine: Machine): { round: Round; place: string }[] {
  const places = spindlesAcross(machine).map(({ id }) => id);
  const rounds = featuresOf(machine).includes("direct-drive") ? (["blade"] as const) : ROUNDS;
  return rounds.flatMap((round) => places.map((place) => ({ round, place })));
}

/** What a finished round leaves on the log. */
export function eventOfRound(round: Round, moves: readonly Move[]): EventId {
  if (round === "spindle") return "spindle-apart";
  return moves.some(({ way, step, answers }) => way === "on" && step === "blade" && answers?.which === "other")
    ? "blade-changed"
    : "blade-refitted";
}

/** What answers of these moves leave owed, each once. */
export const owedOf = (order: Order, moves: readonly Move[]): string[] => [
  ...new Set(chosenAt(order, moves).flatMap(({ option }) => option.owes ?? [])),
];
