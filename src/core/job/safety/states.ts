import type { CheckState } from "@/core/catalogue";
import { kindById } from "@/core/catalogue/kinds";
import { isRider, type Machine, powerOf } from "@/core/machine";

/** What a machine can be confirmed to be; a deck stood up by itself is more than any check asks for. */
export type SafeState = CheckState | "deck-removed";
export const SAFE_STATES = ["parked", "locked-out", "raised", "deck-removed", "bench", "running"] as const satisfies readonly SafeState[];

/**
 * Firm items are the ones that keep a body whole: refused or missing, the work stops. The others may be answered
 * "not here" with a reason, and that is recorded.
 */
export type SafetyItem = { id: string; text: string; isFirm: boolean };

/** What the points of a machine hang on; without its sheet they are the general ones of its kind. */
export type SafetyMachine = Pick<Machine, "kind" | "features"> & Partial<Pick<Machine, "sheet" | "deck">>;

export const firm = (id: string, text: string): SafetyItem => ({ id, text, isFirm: true });
export const soft = (id: string, text: string): SafetyItem => ({ id, text, isFirm: false });

type Make = {
  machine: SafetyMachine;
  isRider: boolean;
  isReel: boolean;
  isBattery: boolean;
  sheet: Partial<Machine["sheet"]>;
};

function makeOf(machine: SafetyMachine): Make {
  return {
    machine,
    isRider: isRider(machine),
    isReel: kindById(machine.kind).cutsWith === "reel",
    isBattery: powerOf(machine) === "battery",
    sheet: machine.sheet ?? {},
  };
}

function parked({ isRider: rides, isReel, isBattery }: Make): SafetyItem[] {
  const source = isBattery ? "motor off" : "engine stopped";
  const drive = isReel
    ? `Reel drive off, ${source}, every reel seen to stand still`
    : `Blade drive off, ${source}, blades seen to stand still`;
  return [
    firm("level-hard-ground", "Stands on hard, level ground"),
    firm("blades-stopped", rides || isReel ? drive : `${isBattery ? "Motor off" : "Engine stopped"}, blade seen to stand still`),
    // A push mower has neither brake nor key.
    ...(rides ? [firm("brake-and-key", "Brake on, key out and in my pocket")] : []),
    ...(!rides && isReel ? [firm("brake", "Parking brake on, switch off")] : []),
    soft("cool-to-touch", "Cool enough to touch"),
  ];
}

function isolated({ isRider: rides, isBattery, sheet }: Make): SafetyItem[] {
  const wait = sheet.capacitorWaitSeconds;
  if (isBattery)
    return [
      firm("isolated", "Battery pack out and safety key out"),
      firm("capacitors", wait === undefined ? "Waited as long as the machine's sheet says" : `Waited ${wait} s, as its sheet says`),
    ];
  return [firm("isolated", rides ? "Plug lead off and tied back, or battery negative off" : "Plug lead off and tied back")];
}

/** How what cuts stands while hands are near; a machine pushed by hand has no hydraulics and nothing that lowers. */
function lowered({ isRider: rides, isReel }: Make): SafetyItem[] {
  if (!rides) return [];
  return [
    isReel
      ? firm("lowered-or-stopped", "Hydraulic pressure off, units lowered or on their stops, every reel isolated before one is cleared")
      : firm("lowered-or-stopped", "Hydraulic pressure off, deck lowered or on its mechanical stop"),
  ];
}

const BODY: readonly SafetyItem[] = [
  soft("eyes", "Eyes protected"),
  soft("gloves", "Cut-resistant gloves on"),
  soft("tag", "Tag with my initials on the machine"),
];

/** Lifted first, while it still can be, then isolated: a deck is not on its lowest and at its highest at once. */
function raisedRider(make: Make): SafetyItem[] {
  const { isReel, sheet } = make;
  const points = sheet.jackingPoints ?? [];
  return [
    ...parked(make),
    isReel
      ? firm("lift-high", "Units at their highest and on their stops, then hydraulic pressure off")
      : firm("lift-high", "Deck at its highest and on its mechanical stop, then hydraulic pressure off"),
    ...isolated(make),
    firm("chocks", "Wheels left on the ground are chocked"),
    firm("jack-seat", "Seat of the jack looked at: flat, clean, cannot slip"),
    firm(
      "stands",
      points.length > 0
        ? `On rated stands at ${points.join(", ")}; never at a cast housing, never on jack or hydraulics alone`
        : "On rated stands at the frame or the manual's points; never at a cast housing, never on jack or hydraulics alone",
    ),
    firm("nobody-under-jack", "Nobody under a load that a jack holds"),
    ...BODY,
  ];
}

function raisedByHand(make: Make): SafetyItem[] {
  const { isReel, isBattery, sheet } = make;
  const lies = sheet.standsOnEnd
    ? "Stood on its end against its own stop, and cannot fall back"
    : sheet.tipSide
      ? `Tipped as its sheet says: ${sheet.tipSide}`
      : isBattery || isReel
        ? "Tipped as the manual says, and cannot fall back"
        : "Tipped with air filter and carburettor uppermost";
  return [
    ...parked(make),
    ...isolated(make),
    ...(isBattery
      ? [firm("two-isolations", "Pack and safety key both out before it was tipped: two isolations")]
      : [
          firm("lead-first", "Plug lead came off before it was tipped"),
          firm("fuel", sheet.standsOnEnd ? "Fuel tap shut, cap tight, nothing drips" : "Fuel low or drained, cap tight, engine cold"),
        ]),
    firm("tipped-right", lies),
    firm("wedged", isReel ? "Reel held with a block of wood" : "Blade wedged with a block of wood"),
    ...BODY,
  ];
}

function deckRemoved(make: Make): SafetyItem[] {
  return [
    ...parked(make),
    ...isolated(make),
    firm("deck-propped", "Deck tied or propped so that it cannot topple"),
    firm("deck-wheels", "The deck's own wheels blocked, standing where it cannot slide"),
    ...BODY,
  ];
}

function running({ isRider: rides, isReel }: Make): SafetyItem[] {
  const down = !rides
    ? firm("deck-down", "On its wheels, flat on the ground; nobody lifts or tips it")
    : isReel
      ? firm("deck-down", "Units down; never raised with the reels turning")
      : firm("deck-down", "Deck down on its wheels; never raised with blades turning");
  return [
    firm("covers-on", isReel ? "Covers and baskets on" : "Covers and discharge guard on"),
    down,
    firm("clear", "Bystanders clear, nobody reaches under"),
    firm("level-hard-ground", "On level ground"),
    soft("ears-and-eyes", "Ear and eye protection on"),
  ];
}

function bench({ isReel }: Make): SafetyItem[] {
  return [
    firm("off-and-clamped", isReel ? "Unit is off the machine and clamped" : "Blade is off the machine and clamped, edges away from me"),
    ...(isReel ? [firm("fingers-out", "Reel turned only by handle or cloth, fingers out of the nip")] : []),
    soft("eyes", "Eyes protected"),
    soft("gloves", "Cut-resistant gloves on"),
  ];
}

/** What must be true of this machine in a state, in the order it is done; only what its kind has is asked of it. */
export function itemsFor(machine: SafetyMachine, state: SafeState): SafetyItem[] {
  const make = makeOf(machine);
  switch (state) {
    case "parked":
      return parked(make);
    case "locked-out":
      return [...parked(make), ...isolated(make), ...lowered(make), ...BODY];
    case "raised":
      return make.isRider ? raisedRider(make) : raisedByHand(make);
    case "deck-removed":
      return deckRemoved(make);
    case "running":
      return running(make);
    case "bench":
      return bench(make);
  }
}

/** States this machine can be brought into: a deck that is fixed is not removed. */
export function statesOf(machine: SafetyMachine): SafeState[] {
  const comesOff = machine.deck !== undefined && machine.deck.mount !== "fixed";
  return SAFE_STATES.filter((state) => state !== "deck-removed" || comesOff);
}

/** What a state also is: a raised machine is locked out, a locked-out one parked; at a deck stood up hands get as near as at a raised one. */
const INCLUDES: Record<SafeState, readonly SafeState[]> = {
  parked: ["parked"],
  "locked-out": ["locked-out", "parked"],
  raised: ["raised", "locked-out", "parked"],
  "deck-removed": ["deck-removed", "raised", "locked-out", "parked"],
  running: ["running"],
  bench: ["bench"],
};

export function satisfies(have: SafeState | undefined, need: SafeState): boolean {
  return have !== undefined && INCLUDES[have].includes(need);
}

/** States somebody's body rests on: they have an owner, and only the owner lifts them. */
export function isLockOut(state: SafeState): state is "locked-out" | "raised" | "deck-removed" {
  return state === "locked-out" || state === "raised" || state === "deck-removed";
}
