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

/** How much all that is seen speaks for it. */
export function scoreOf({ step, weights }: Model, { at, values }: Features): number {
  let sum = 0;
  for (let i = 0; i < at.length; i++) sum += weights[at[i]!]! * values[i]!;
  return sum * step;
}

/** What speaks most for it, in the names of features, strongest first. */
export function reasonsOf({ step, weights }: Model, { at, names, values }: Features, most = 3): string[] {
  const total = new Map<string, number>();
  for (const [i, name] of names.entries()) total.set(name, (total.get(name) ?? 0) + weights[at[i]!]! * values[i]! * step);
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
