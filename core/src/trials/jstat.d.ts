/** What is used of jstat, which brings no types. */
declare module 'jstat' {
  const jStat: {
    readonly normal: {
      cdf(x: number, mean: number, sd: number): number;
      inv(p: number, mean: number, sd: number): number;
    };
    readonly chisquare: { cdf(x: number, df: number): number };
  };
  export default jStat;
}
