/** What the tests use of a package that ships no types. */
declare module "jstat" {
  export const jStat: {
    mean(values: readonly number[]): number;
    stdev(values: readonly number[], isSample: boolean): number;
    tci(value: number, alpha: number, values: readonly number[]): [number, number];
    studentt: { inv(probability: number, degrees: number): number };
  };
}
