/** A small network over numbers: weights of hidden units, then of tags; the constant is the last of each. */
export interface Dense {
  hidden: readonly (readonly number[])[];
  out: readonly (readonly number[])[];
}

/** What the hidden units say: nothing below zero. */
export function hiddenOf({ hidden }: Dense, numbers: ArrayLike<number>): Float64Array {
  const n = numbers.length,
    said = new Float64Array(hidden.length);
  for (let h = 0; h < hidden.length; h++) {
    const weights = hidden[h]!;
    let sum = weights[n]!;
    for (let i = 0; i < n; i++) sum += weights[i]! * numbers[i]!;
    said[h] = sum > 0 ? sum : 0;
  }
  return said;
}

/** Natural logarithms of the shares of certainty of each tag. */
export function denseShares(model: Dense, numbers: ArrayLike<number>): number[] {
  const said = hiddenOf(model, numbers),
    n = said.length;
  const scores = model.out.map((weights) => {
    let sum = weights[n]!;
    for (let i = 0; i < n; i++) sum += weights[i]! * said[i]!;
    return sum;
  });
  const top = Math.max(...scores);
  const all = top + Math.log(scores.reduce((a, s) => a + Math.exp(s - top), 0));
  return scores.map((s) => s - all);
}
