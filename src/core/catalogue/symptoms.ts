// All figures are estimates to start from; a shop's own closed jobs replace them. Ids are public: they are part of the JSON API.
import type { CutsWith } from "@/core/catalogue/kinds";

export type Symptom = { id: string; on: readonly CutsWith[]; label: string; seen: string };

/** What is seen, heard or felt: the words on the intake pictures. */
// biome-ignore format: a table is read by rows
export const SYMPTOMS = [
  { id: "step-between-passes", on: ["rotary", "reel"], label: "Ledge between passes", seen: "One edge of the whole swath is cut lower, so each pass leaves a ledge against its neighbour" },
  { id: "step-within-unit", on: ["reel"], label: "Ledge inside one unit", seen: "The height changes across the width of a single cutting unit" },
  { id: "bands-between-units", on: ["rotary", "reel"], label: "Bands a unit wide", seen: "Stripes just as wide as one unit or one deck, each at its own height" },
  { id: "uncut-strip-inside", on: ["rotary", "reel"], label: "Thin uncut strip inside", seen: "A narrow strip is missed, always at the same place inside the swath" },
  { id: "uncut-strip-between-passes", on: ["rotary", "reel"], label: "Uncut strip between passes", seen: "Grass is left standing along the join of two passes" },
  { id: "blade-width-uncut", on: ["rotary"], label: "One blade's band barely cut", seen: "A band about as wide as one blade comes out nearly as long as it went in" },
  { id: "torn-tips", on: ["rotary", "reel"], label: "Torn, whitened tips", seen: "Leaf ends are shredded or bleached where a clean end should be" },
  { id: "browning", on: ["rotary", "reel"], label: "Brown a day or two later", seen: "The lawn takes on a brown cast within two days of mowing" },
  { id: "stragglers", on: ["rotary", "reel"], label: "Single leaves left up", seen: "Odd leaves stand up here and there after the pass" },
  { id: "scalped-crests", on: ["rotary", "reel"], label: "Scalped on rises and edges", seen: "Bare or pale patches only where the ground rises, dips or breaks off" },
  { id: "scalped-band", on: ["rotary", "reel"], label: "Scalped band", seen: "One line or band is shaved along the whole pass, always at the same place" },
  { id: "ripples", on: ["rotary", "reel"], label: "Even ripples", seen: "Waves across the direction of travel, all at the same spacing" },
  { id: "irregular-hop", on: ["rotary", "reel"], label: "Skips and hops", seen: "The machine bounces and leaves marks with no regular spacing" },
  { id: "fine-streak", on: ["reel"], label: "Pencil-thin line", seen: "A hair-thin line of grass stays up at one fixed place" },
  { id: "roller-lines", on: ["reel"], label: "Roller lines", seen: "Light and dark lines at fixed places, clearest in the early morning" },
  { id: "grain", on: ["reel"], label: "Grain", seen: "The leaves lie over the way the turf is usually mown" },
  { id: "clumps", on: ["rotary", "reel"], label: "Clumps and rows", seen: "Clippings are dropped in heaps or windrows" },
  { id: "poor-collection", on: ["rotary", "reel"], label: "Collects badly", seen: "The catcher stays half empty, or the chute plugs with clippings" },
  { id: "cut-too-high", on: ["rotary", "reel"], label: "Cut too high", seen: "The whole swath stands taller than what is set" },
  { id: "cut-too-low", on: ["rotary", "reel"], label: "Cut too low", seen: "The whole swath is shorter than what is set" },
  { id: "uneven-all-over", on: ["rotary", "reel"], label: "Uneven everywhere", seen: "Rough all over, with no place or rhythm to it" },
  { id: "vibration", on: ["rotary", "reel"], label: "Vibration", seen: "Shaking is felt through seat, deck or handle" },
  { id: "grinding-noise", on: ["rotary", "reel"], label: "Grinding or knocking", seen: "Rumble, knock or grinding comes from the deck or unit" },
  { id: "belt-smell-or-squeal", on: ["rotary"], label: "Belt squeal or smell", seen: "The belt squeals, smells of rubber, or is too hot to touch" },
  { id: "engine-labours", on: ["rotary", "reel"], label: "Engine labours", seen: "Engine or motor bogs or stalls in grass it used to manage" },
  { id: "hot-hub", on: ["rotary", "reel"], label: "Hot hub", seen: "After a run one spindle hub or reel end is too hot for a hand" },
  { id: "blade-stopped", on: ["rotary"], label: "A blade stands or drags", seen: "With the drive in, one blade turns slowly or not at all" },
  { id: "oil-at-drive", on: ["rotary", "reel"], label: "Oil at the drive", seen: "Oil or grease seeps from a gearbox, spindle or reel end" },
] as const satisfies readonly Symptom[];

export type SymptomId = (typeof SYMPTOMS)[number]["id"];
