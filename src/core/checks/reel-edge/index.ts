import { unitCheck } from "../by-unit";
import { pointsAt, shows } from "../settled";

/** Width of a reel blade's land: wider, and the edge presses instead of cutting. Estimate: 1/16 in. */
export const LAND_METRES = 0.0016;

type Code = "reel-rounded" | "reel-dull" | "knife-rounded" | "knife-dull" | "nick-reel" | "nick-knife" | "land-wide" | "no-relief";
type Do = "lap-or-grind" | "grind-reel" | "dress-nick" | "grind-knife";

const DULL = shows("reel-dull");
const NICK = shows("edge-nicked");

/** Edges of reel and bedknife as they are seen and felt. */
export const reelEdge = unitCheck<Code, Do>({
  id: "reel-edge",
  ruleVersion: 1,
  cautions: ["reels-isolated"],
  asked: [
    {
      kind: "choice",
      key: "reel",
      label: "Reel's edges",
      options: [
        { id: "sharp", label: "Sharp" },
        {
          id: "dull",
          label: "Going dull",
          means: { code: "reel-dull", verdict: "watch", causes: pointsAt("reel-dull"), do: "lap-or-grind" },
        },
        { id: "rounded", label: "Rounded", means: { code: "reel-rounded", verdict: "out", causes: DULL, do: "grind-reel" } },
      ],
    },
    {
      kind: "choice",
      key: "knife",
      label: "Bedknife's edge",
      options: [
        { id: "sharp", label: "Sharp" },
        {
          id: "dull",
          label: "Going dull",
          means: { code: "knife-dull", verdict: "watch", causes: pointsAt("reel-dull"), do: "lap-or-grind" },
        },
        { id: "rounded", label: "Rounded", means: { code: "knife-rounded", verdict: "out", causes: DULL, do: "grind-knife" } },
      ],
    },
    {
      kind: "choice",
      key: "nick",
      label: "Nicks",
      options: [
        { id: "none", label: "None" },
        { id: "knife", label: "In the knife", means: { code: "nick-knife", verdict: "out", causes: NICK, do: "grind-knife" } },
        { id: "reel", label: "In a reel blade", means: { code: "nick-reel", verdict: "out", causes: NICK, do: "dress-nick" } },
      ],
    },
    {
      kind: "choice",
      key: "relief",
      label: "Relief behind the reel's edge",
      options: [
        { id: "there", label: "There" },
        { id: "gone", label: "Worn away", means: { code: "no-relief", verdict: "watch", do: "grind-reel" } },
        { id: "none-wanted", label: "Made without" },
      ],
    },
    {
      kind: "size",
      key: "landMetres",
      label: "Land of a reel blade",
      isOptional: true,
      figure: "land",
      instrument: "fine",
      range: { least: 0, most: 0.02, usualLeast: 0, usualMost: 0.005 },
      most: LAND_METRES,
      standing: "estimate",
      means: { code: "land-wide", causes: pointsAt("reel-dull"), do: "grind-reel" },
    },
  ],
});
