import { gaussian } from "@/core/basics/random";

/**
 * How unlike sound machines are. `narrow`: only what decks, tyres and gaps differ by. `wide`: besides it how they are kept and driven, films of
 * grass on rollers, heels, groomers and skews that are each a little other, reels that turn unlike, batteries that sag.
 */
export type World = "narrow" | "wide";

/** Draws of a spread; none at all for a machine without any, as worked examples have it. `wide` draws only in the wide world. */
export type Spread = { normal: (deviation: number) => number; wide: (deviation: number) => number };
export const NO_SPREAD: Spread = { normal: () => 0, wide: () => 0 };
/** Each world reads a stream of its own, so that the same machine is made in both. */
export const spreadFrom = (random: () => number, wide?: () => number): Spread => ({
  normal: (deviation) => gaussian(random) * deviation,
  wide: (deviation) => (wide ? gaussian(wide) * deviation : 0),
});
