/** What is used of a package that ships no types. */
declare module "jstat" {
  type Distribution = { cdf(x: number, a: number, b: number): number; inv(p: number, a: number, b: number): number };
  export const jStat: {
    mean(values: readonly number[]): number;
    stdev(values: readonly number[], isSample: boolean): number;
    tci(value: number, alpha: number, values: readonly number[]): [number, number];
    studentt: { inv(probability: number, degrees: number): number };
    gammafn(x: number): number;
    /** Shape and scale. */
    gamma: Distribution;
    beta: Distribution;
  };
  const whole: { jStat: typeof jStat };
  export default whole;
}
