import type { CheckState } from "@/core/diagnosis";
import { isRider, type Machine, powerOf } from "@/core/machine";

export type SafeState = CheckState;

/**
 * Firm items are the ones that keep a body whole: refused or missing, the work stops. The others may be answered
 * "not here" with a reason, and that is recorded.
 */
export type SafetyItem = { id: string; text: string; isFirm: boolean };

const firm = (id: string, text: string): SafetyItem => ({ id, text, isFirm: true });
const soft = (id: string, text: string): SafetyItem => ({ id, text, isFirm: false });

const PARKED: readonly SafetyItem[] = [
  firm("level-hard-ground", "Stands on hard, level ground"),
  firm("blades-stopped", "Blade drive off, engine stopped, blades seen to stand still"),
  firm("brake-and-key", "Brake on, key out and in my pocket"),
  soft("cool-to-touch", "Cool enough to touch"),
];

const LOCKED_COMBUSTION: readonly SafetyItem[] = [
  firm("isolated", "Plug lead off and tied back, or battery negative off"),
  firm("lowered-or-stopped", "Hydraulic pressure off, deck lowered or on its mechanical stop"),
  soft("tag", "Tag with my initials on the machine"),
];

const LOCKED_BATTERY: readonly SafetyItem[] = [
  firm("isolated", "Battery pack out and safety key out"),
  firm("capacitors", "Waited as long as the machine's sheet says"),
  firm("lowered-or-stopped", "Deck lowered or on its mechanical stop"),
  soft("tag", "Tag with my initials on the machine"),
];

const HANDS: readonly SafetyItem[] = [soft("gloves", "Cut-resistant gloves on")];

const RAISED_RIDER: readonly SafetyItem[] = [
  firm("chocks", "Wheels left on the ground are chocked"),
  firm("stands", "On rated stands at the frame or stated points; no jack or hydraulics alone holds it"),
  firm("nobody-under-jack", "Nobody under a load that a jack holds"),
  soft("lift-high", "Deck lift at its highest"),
];

const RAISED_WALK_PETROL: readonly SafetyItem[] = [
  firm("lead-first", "Plug lead came off before it was tipped"),
  firm("tipped-right", "Tipped with air filter and carburettor uppermost, fuel low"),
  firm("wedged", "Blade wedged with a block of wood"),
];

const RAISED_WALK_CORDLESS: readonly SafetyItem[] = [
  firm("two-isolations", "Pack and safety key both out: two isolations"),
  firm("wedged", "Blade wedged with a block of wood"),
];

const RUNNING: readonly SafetyItem[] = [
  firm("covers-on", "Covers and discharge guard on"),
  firm("deck-down", "Deck down on its wheels; never raised with blades turning"),
  firm("clear", "Bystanders clear, nobody reaches under"),
  firm("level-hard-ground", "On level ground"),
  soft("ears-and-eyes", "Ear and eye protection on"),
];

const BENCH: readonly SafetyItem[] = [
  firm("off-and-clamped", "Unit or blade is off the machine and clamped"),
  firm("fingers-out", "Reel turned only by handle or cloth, fingers out of the nip"),
  soft("gloves", "Cut-resistant gloves on"),
];

/** What must be true of this machine in a state, in the order it is done; a fuller state repeats the ones it rests on. */
export function itemsFor(machine: Pick<Machine, "kind" | "features">, state: SafeState): SafetyItem[] {
  const battery = powerOf(machine) === "battery";
  const lockedOut = [...PARKED, ...(battery ? LOCKED_BATTERY : LOCKED_COMBUSTION), ...HANDS];
  const raised = isRider(machine) ? RAISED_RIDER : battery ? RAISED_WALK_CORDLESS : RAISED_WALK_PETROL;
  const byState: Record<SafeState, readonly SafetyItem[]> = {
    parked: PARKED,
    "locked-out": lockedOut,
    raised: [...lockedOut, ...raised],
    running: RUNNING,
    bench: BENCH,
  };
  return [...byState[state]];
}

/** What a state also is: a raised machine is locked out, a locked-out one parked. */
const INCLUDES: Record<SafeState, readonly SafeState[]> = {
  parked: ["parked"],
  "locked-out": ["locked-out", "parked"],
  raised: ["raised", "locked-out", "parked"],
  running: ["running"],
  bench: ["bench"],
};

export function satisfies(have: SafeState | undefined, need: SafeState): boolean {
  return have !== undefined && INCLUDES[have].includes(need);
}
