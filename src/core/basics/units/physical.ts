import * as z from "zod";

/**
 * The least of each quantity that anybody in this trade measures or that anything here is made to, SI (estimates, a hundred times under what a good gauge
 * shows). What is less and not nought is a slip, or sent to keep a halving loop going.
 */
export const LEAST = {
  metres: 1e-6,
  pascals: 1,
  kilograms: 1e-6,
  newtons: 0.01,
  newtonMetres: 0.01,
  seconds: 0.01,
  metresPerSecond: 0.001,
  revolutionsPerMinute: 0.1,
  hours: 0.01,
  days: 0.01,
  ratio: 0.01,
} as const;

/** Any number of a body: nearer to nought than this and not nought, or further from it, nobody measures. */
export const LEAST_NUMBER = 1e-9;
export const MOST_NUMBER = 1e15;

export const isCredibleNumber = (value: number): boolean =>
  value === 0 || (Math.abs(value) >= LEAST_NUMBER && Math.abs(value) <= MOST_NUMBER);

/** A quantity that is there: from the least that is measured up to the most this can have. */
export const physical = (unit: keyof typeof LEAST, most: number) => z.number().min(LEAST[unit]).max(most);

/** The same, or nought: what stands still, fits without play, is dry. Refused as `too-small` in between. */
export const physicalOrNought = (unit: keyof typeof LEAST, most: number) =>
  z
    .number()
    .min(0)
    .max(most)
    .superRefine((value, context) => {
      if (value <= 0 || value >= LEAST[unit]) return;
      context.addIssue({ code: "too_small", origin: "number", minimum: LEAST[unit], inclusive: true, input: value });
    });
