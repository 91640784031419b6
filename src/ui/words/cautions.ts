import type { Caution } from "@/core/catalogue";
import { worksheetById } from "@/core/checks";

export const DEFER = "The machine's manual, your employer's lock-out rules and local law come first.";
export const TEST_CUT_CAUTION = "Drive off, engine stopped, blades still, before leaving the seat to look.";

const SENTENCES: Record<Caution, string> = {
  "turn-by-hand": "Turning one blade turns its neighbours: one person, gloves on, hands off every other blade.",
  "tyre-maximum": "Never above the maximum moulded on the tyre. Stand to one side while inflating.",
  "freed-blade": "A freed blade swings: wedge it with wood, never with fingers.",
  "block-before-pin": "Block the deck before a pin comes out.",
  "idler-spring": "Idlers are under spring load: use the lever, not the hand.",
  "covers-stay-on": "Covers stay on. Read through an opening from outside; no opening, work it out from the pulleys.",
  "sensor-from-distance": "Fix the sensor while locked out, read it from a distance.",
  "dry-bearing-air": "Never spin a dry bearing with air.",
  "scrape-from-side": "Scrape from the side; nothing and nobody under a load that a jack holds.",
  "feel-for-contact": "Never feel for contact with a finger.",
  "reels-isolated": "Every reel stopped and isolated first: freeing one can turn another.",
  "blocks-under-deck": "Blocks under the deck before any hanger is slackened.",
  "bolt-of-grade": "Heat-treated bolt of the sheet's grade; an ordinary bolt is refused.",
  "impact-off-only": "Impact driver for taking off only.",
  "traverse-locked": "Knife or reel clamped, traverse locked and guards on before the wheel is brought in.",
  "back-lapping": "Back-lap at the speed and with the guards the sheet gives; compound with a long-handled brush, never by hand.",
  grinding: "Guards on, eyes and breath protected, sparks away from fuel.",
};

export const sayCautions = (cautions: readonly Caution[] = []): string[] => cautions.map((caution) => SENTENCES[caution]);

/** What can hurt in a check; shown with it every time. */
export function cautionsOf(check: string): string[] {
  return sayCautions(worksheetById(check)?.cautions);
}
