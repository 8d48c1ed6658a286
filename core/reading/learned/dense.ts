/** A small network over numbers: weights of hidden units, then of tags; the constant is the last of each. */
export interface Dense {
  hidden: readonly (readonly number[])[];
  out: readonly (readonly number[])[];
}

/** Hidden units as one run of numbers. Units that learned nothing say nothing, and are left out. */
const packed = new WeakMap<Dense['hidden'], { units: number[]; weights: Float64Array }>();

function unitsOf(hidden: Dense['hidden']): { units: number[]; weights: Float64Array } {
  let found = packed.get(hidden);
  if (!found) {
    const units = hidden.flatMap((own, h) => (own.some((weight) => weight !== 0) ? [h] : []));
    packed.set(hidden, (found = { units, weights: Float64Array.from(units.flatMap((h) => hidden[h]!)) }));
  }
  return found;
}

/** What the hidden units say: nothing below zero. */
export function hiddenOf({ hidden }: Dense, numbers: ArrayLike<number>): Float64Array {
  const n = numbers.length,
    said = new Float64Array(hidden.length),
    { units, weights } = unitsOf(hidden);
  for (let u = 0, at = 0; u < units.length; u++, at += n + 1) {
    let sum = weights[at + n]!;
    for (let i = 0; i < n; i++) sum += weights[at + i]! * numbers[i]!;
    if (sum > 0) said[units[u]!] = sum;
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
