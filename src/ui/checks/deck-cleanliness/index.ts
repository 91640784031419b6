import { table } from "@/core/basics/tables";
import type { deckCleanliness } from "@/core/checks/deck-cleanliness";
import type { Face, Told } from "../face";
import { lower, placeIn, REPAIR_SHELL, sayMarks, show, stateIn } from "../shared";

type Found = ReturnType<typeof deckCleanliness.assess>;

const OUTLET: Readonly<Record<string, string>> = table({
  "bag-clogged": "Empty the bag, wash its cloth: air that cannot leave carries nothing",
  "plug-in": "Take the mulch plug out for collecting or side discharge",
  "flap-shut": "Free or straighten the flap; it stays on the machine",
});

/** What this worksheet says. */
export const face: Face<typeof deckCleanliness> = {
  answer: sayClean,
  actions: {
    "scrape-deck": () => "Scrape without gouging, then wash: bare steel rusts",
    "open-port": (a) => `Open the ${a.what === "port" ? "washout port" : "chute"}`,
    "free-outlet": (a) => OUTLET[a.state] ?? "Free the way out",
    "mend-baffle": (a) => `Baffle ${stateIn(face, a.state)}: put it right`,
    "repair-shell": () => REPAIR_SHELL,
    "wash-sooner": (a) => `Packed at ${a.packed} of ${a.looks} looks on this site: wash more often`,
  },
  warnings: {
    "bare-steel": () => "Bare steel rusts: paint it before the season ends.",
  },
  provisional: {
    "part-unread": (r, t) => `${lower(placeIn(face, t.machine, r.part))} not looked at`,
  },
  problems: {
    "more-packed-than-looked": () => "More found packed than were looked at.",
  },
  states: {
    chute: "at the chute",
    open: "open",
    "in-place": "in place",
    sound: "sound",
    left: "at the left",
    deck: "at the deck",
    middle: "in the middle",
    right: "right",
    baffle: "at the baffle",
    free: "free",
    "bag-clogged": "full or clogged",
    "plug-in": "with the plug left in",
    "flap-shut": "shut or bent",
    clogged: "clogged",
    none: "has none",
    narrowed: "narrowed",
    bent: "bent",
    missing: "missing",
    bare: "bare steel",
    cracked: "cracked",
    blade: "at a blade",
  },
  figures: {
    "pack-depth": "Pack, worst place",
  },
  parts: {
    pack: "Pack",
    port: "Washout port",
    chute: "Chute",
    outlet: "Bag, plug, flap",
    baffles: "Baffles",
    shell: "Shell",
  },
};

function sayClean(assessment: Found, told: Told): string {
  const pack = assessment.figures.find(({ id }) => id === "pack-depth");
  if (pack?.verdict === "out") return `Packed ${show(pack.value, "length", told.system)} deep: scrape it.`;
  return sayMarks(
    face,
    assessment,
    told,
    assessment.verdict === "in-tolerance" ? "Clean, and the air has its way." : "Depth of the pack, port, chute, bag or plug, baffles.",
  );
}
