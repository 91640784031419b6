import type { bladeTrack } from "@/core/checks/blade-track";
import type { Face, Told } from "../face";
import { CRANKSHAFT_OUT, lower, NEVER_STRAIGHTEN, noSuchBlade, placeIn, placeName, sayScrap, showSize, unread } from "../shared";

type Found = ReturnType<typeof bladeTrack.assess>;

/** What this worksheet says. */
export const face: Face<typeof bladeTrack> = {
  answer: sayTracks,
  actions: {
    "swap-blade": (a, t) => `${placeIn(face, t.machine, a.place)}: turn the blade end for end on its shaft, read both ends again`,
    "scrap-blade": sayScrap(() => face),
    "change-shaft": (a, t) => `${placeIn(face, t.machine, a.place)}: change the shaft, or the whole spindle`,
    "hold-for-crankshaft": () => CRANKSHAFT_OUT,
  },
  warnings: {
    "never-straighten": () => NEVER_STRAIGHTEN,
  },
  provisional: {
    "place-unread": unread(() => face),
    "not-swapped": (r, t) => `${lower(placeIn(face, t.machine, r.place))} not turned end for end`,
  },
  problems: {
    "unknown-spindle": noSuchBlade,
  },
  states: {
    straight: "straight",
    "blade-or-shaft": "blade or shaft bent",
    "blade-bent": "blade bent",
    "shaft-bent": "shaft bent",
    bend: "bent",
    "both-bent": "blade and shaft bent",
  },
  figures: {
    "end-to-end": "End to end",
    "blade-part": "Bent in the blade",
    "shaft-part": "Bent in the shaft",
  },
};

function sayTracks({ detail, verdict }: Found, told: Told): string {
  const off = detail.tracks
    .filter(({ firstMetres }) => Math.abs(firstMetres) > 0)
    .sort((a, b) => Math.abs(b.firstMetres) - Math.abs(a.firstMetres))[0];
  if (verdict === "in-tolerance") return "All run true.";
  if (!off) return "Read both ends of each blade.";
  const name = placeName(told.machine, off.spindleId);
  if (off.bladeMetres === undefined || off.shaftMetres === undefined)
    return `${name}: ends ${showSize(off.firstMetres, told.system)} apart.${verdict === "out" ? " Blade or shaft: turn it end for end." : ""}`;
  const isBlade = Math.abs(off.bladeMetres) > Math.abs(off.shaftMetres);
  return isBlade
    ? `${name}: the blade is bent by ${showSize(off.bladeMetres, told.system)}. Scrap it.`
    : `${name}: its shaft is bent by ${showSize(off.shaftMetres, told.system)}.`;
}
