import { buckets, type Features } from './features.ts';

/** Learned weights of a feature's bucket: what they mean together is in a unit of `step`. */
export interface Model {
  step: number;
  weights: Int8Array;
}

/** Weights as they are kept: a step and signed bytes in base64. */
export interface Packed {
  step: number;
  bytes: string;
}

export function unpack({ step, bytes }: Packed): Model {
  const text = atob(bytes);
  const weights = new Int8Array(buckets);
  for (let i = 0; i < text.length; i++) weights[i] = (text.charCodeAt(i) << 24) >> 24;
  return { step, weights };
}

const numbers = new WeakMap<Model, number>();
let count = 0;
/** Models are numbered as they come, so that a sign finds what it says to each. */
function numberOf(model: Model): number {
  let number = numbers.get(model);
  if (number === undefined) numbers.set(model, (number = count++));
  return number;
}

/** How much all that is seen speaks for it. */
export function scoreOf(model: Model, { signs, values }: Features): number {
  const number = numberOf(model),
    { step, weights } = model;
  let sum = 0;
  for (let i = 0; i < signs.length; i++) {
    const { sums, at, strengths } = signs[i]!;
    let own = sums[number];
    if (own === undefined) {
      own = 0;
      for (let k = 0; k < at.length; k++) own += weights[at[k]!]! * strengths[k]!;
      // Without holes an array is quick.
      while (sums.length < number) sums.push(undefined as unknown as number);
      sums[number] = own;
    }
    sum += own * values[i]!;
  }
  return sum * step;
}

/** What speaks most for it, in the names of features, strongest first. */
export function reasonsOf({ step, weights }: Model, features: Features, most = 3): string[] {
  const total = new Map<string, number>();
  for (const { name, at, value } of features.each()) total.set(name, (total.get(name) ?? 0) + weights[at]! * value * step);
  return [...total]
    .filter(([, weight]) => weight > 0)
    .sort((a, b) => b[1] - a[1])
    .slice(0, most)
    .map(([name]) => name);
}

/** Shares of certainty that follow from scores: one of them is right. */
export function sharesOf(scores: readonly number[]): number[] {
  const top = Math.max(...scores);
  const powers = scores.map((s) => Math.exp(s - top));
  const all = powers.reduce((a, b) => a + b, 0);
  return powers.map((p) => p / all);
}
