import type { hangerInspection } from "@/core/checks/hanger-inspection";
import type { Face } from "../face";
import { placeIn, REPAIR_SHELL, sayMarks, stateIn, unread } from "../shared";

/** What this worksheet says. */
export const face: Face<typeof hangerInspection> = {
  answer: (found, told) => sayMarks(face, found, told, found.verdict === "in-tolerance" ? "Every hanger sound." : "Look at every hanger."),
  actions: {
    "mend-hanger": (a, t) => `${placeIn(face, t.machine, a.place)}: ${stateIn(face, a.state)}. Fit the right part, nothing bent to suit`,
    "repair-shell": () => REPAIR_SHELL,
    "level-again": () => "Then level the deck again: a hanger was touched",
  },
  provisional: {
    "place-unread": unread(() => face),
  },
  problems: {
    "unknown-hanger": (i) => `This machine has no hanger called “${i.place}”.`,
  },
  states: {
    sound: "sound",
    worn: "worn",
    bent: "bent",
    elongated: "hole worn oval",
    "wrong-clip": "not its own clip",
    missing: "missing",
    cracked: "cracked",
  },
  parts: {
    shell: "Shell",
  },
};
