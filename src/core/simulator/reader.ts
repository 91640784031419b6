import { gaussian } from "@/core/basics/random";

/** How somebody measures: spread of their readings, how often a look misses or imagines, how often a figure is a slip. Estimates. */
export type Hand = { times: number; misses: number; imagines: number; slips: number; swaps: boolean; pricks: number };

export const CAREFUL: Hand = { times: 1, misses: 0.03, imagines: 0.005, slips: 1 / 500, swaps: true, pricks: 10 };
export const CARELESS: Hand = { times: 2.5, misses: 0.12, imagines: 0.03, slips: 1 / 25, swaps: false, pricks: 4 };

const SLIP = 8;

/** A gauge in a hand: every figure and every look with what goes wrong of it. */
export class Reader {
  constructor(
    private readonly random: () => number,
    readonly hand: Hand,
  ) {}

  /** A figure read to `step`, off by the gauge's own spread. */
  figure(value: number, deviation: number, step: number): number {
    const noise = gaussian(this.random) * deviation * this.hand.times;
    const slip = this.random() < this.hand.slips ? (this.random() < 0.5 ? -1 : 1) * SLIP * deviation : 0;
    return Math.round((value + noise + slip) / step) * step;
  }

  /** A figure that cannot be under nought. */
  size(value: number, deviation: number, step: number): number {
    return Math.max(0, this.figure(value, deviation, step));
  }

  /** A look: what is there may be missed, and what is not imagined. `sound` is what is said of nothing. */
  look<T extends string>(there: T, sound: T, imagined: T): T {
    if (there !== sound) return this.random() < this.hand.misses ? sound : there;
    return this.random() < this.hand.imagines ? imagined : sound;
  }

  chance(share: number): boolean {
    return this.random() < share;
  }

  /** Of a feel: off by so much, one standard deviation of a careful hand. */
  noise(deviation: number): number {
    return gaussian(this.random) * deviation * this.hand.times;
  }

  get draw(): () => number {
    return this.random;
  }
}
