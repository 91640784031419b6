import { unitCheck } from "../by-unit";
import { shows } from "../settled";

type Code = "hood-open" | "hood-closed" | "shield-bent" | "shield-missing" | "basket-low" | "basket-full" | "packed";
type Do = "set-hood" | "mend-shield" | "seat-basket" | "empty-basket" | "clear-path";

const HOOD = shows("hood-misset");

/** The way of the clippings out of each unit: hood, shield and basket. Wet or tall grass clumps with all of it right. */
export const clippingPath = unitCheck<Code, Do>({
  id: "clipping-path",
  ruleVersion: 1,
  cautions: ["reels-isolated"],
  asked: [
    {
      kind: "choice",
      key: "hood",
      label: "Hood, by its adjuster",
      options: [
        { id: "as-set", label: "As for these clippings" },
        { id: "open", label: "Too far open", means: { code: "hood-open", verdict: "out", causes: HOOD, do: "set-hood" } },
        { id: "closed", label: "Too far closed", means: { code: "hood-closed", verdict: "out", causes: HOOD, do: "set-hood" } },
      ],
    },
    {
      kind: "choice",
      key: "shield",
      label: "Shield",
      options: [
        { id: "sound", label: "Sound and in place" },
        { id: "bent", label: "Bent", means: { code: "shield-bent", verdict: "out", causes: HOOD, do: "mend-shield" } },
        { id: "missing", label: "Missing", means: { code: "shield-missing", verdict: "out", causes: HOOD, do: "mend-shield" } },
      ],
    },
    {
      kind: "choice",
      key: "path",
      label: "Inside hood and shield",
      options: [
        { id: "clear", label: "Clear" },
        { id: "packed", label: "Packed", means: { code: "packed", verdict: "out", do: "clear-path" } },
      ],
    },
    {
      kind: "choice",
      key: "basket",
      label: "Basket",
      options: [
        { id: "seated", label: "Seated, with room" },
        { id: "low", label: "Hangs low or rubs", means: { code: "basket-low", verdict: "out", causes: HOOD, do: "seat-basket" } },
        { id: "full", label: "Full", means: { code: "basket-full", verdict: "watch", do: "empty-basket" } },
        { id: "none", label: "Mown without" },
      ],
    },
  ],
});
