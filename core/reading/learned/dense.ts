/** A small model over numbers: for each tag one weight a number, the constant last. */
export type Dense = readonly (readonly number[])[];

/** Natural logarithms of the shares of certainty of each tag. */
export function denseShares(model: Dense, numbers: ArrayLike<number>): number[] {
  const n = numbers.length;
  const scores = model.map((weights) => {
    let sum = weights[n]!;
    for (let i = 0; i < n; i++) sum += weights[i]! * numbers[i]!;
    return sum;
  });
  const top = Math.max(...scores);
  const all = top + Math.log(scores.reduce((a, s) => a + Math.exp(s - top), 0));
  return scores.map((s) => s - all);
}
