import { buckets, type Features } from '../../core/reading/learned/features.ts';

/** Puts a list into another order (Fisher and Yates). */
export function shuffle(list: number[], random: () => number): void {
  for (let i = list.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [list[i], list[j]] = [list[j]!, list[i]!];
  }
}

/** How far each tag's share of certainty is from the truth, from the tags' scores; written over them. */
export function misses(scores: Float64Array, tag: number): Float64Array {
  const top = scores.reduce((a, b) => Math.max(a, b));
  let all = 0;
  for (let t = 0; t < scores.length; t++) all += scores[t] = Math.exp(scores[t]! - top);
  for (let t = 0; t < scores.length; t++) scores[t] = scores[t]! / all - (t === tag ? 1 : 0);
  return scores;
}

/** What there is to choose from in one document, and which of it is right: one or several, all meaning the same. */
export interface Choice {
  features: Features[];
  right: boolean[];
}

/** What kind of evidence a feature is: what words say, what labels that are known say, or neither. */
const plain = 0,
  lexical = 1,
  labels = 2;
const kindOf = (name: string): number =>
  /^(-?\d )?(label|field|total|heads|head is) | says /.test(name) ? labels : /[=~]/.test(name) ? lexical : plain;

/** How often words, and labels that are known, are kept from what is learned from: a page in words that nobody knows has to be read by all else. */
const unheardOf = 0.25;

/** A choice's features one after another, so that the inner loops run over plain arrays. */
interface Flat {
  at: Int32Array;
  values: Float32Array;
  kinds: Uint8Array;
  ends: Int32Array;
  right: boolean[];
}
function flat({ features, right }: Choice): Flat {
  const all = features.map((f) => [...f.each()]);
  const n = all.reduce((sum, f) => sum + f.length, 0);
  const [at, values, kinds, ends] = [new Int32Array(n), new Float32Array(n), new Uint8Array(n), new Int32Array(features.length)];
  let k = 0;
  for (const [i, f] of all.entries()) {
    for (const one of f) [at[k], values[k], kinds[k++]] = [one.at, one.value, kindOf(one.name)];
    ends[i] = k;
  }
  return { at, values, kinds, ends, right };
}

/**
 * Weights under which the right one is likely among all (conditional logit with a penalty on large weights), by Adagrad over documents.
 * Documents in which nothing is right, or everything, teach nothing.
 */
export function learn(choices: readonly Choice[], { penalty = 0.003, rounds = 40, rate = 0.25, unheard = unheardOf } = {}): Float32Array {
  const weights = new Float32Array(buckets),
    squares = new Float32Array(buckets).fill(0.05),
    slope = new Float32Array(buckets),
    stamp = new Int32Array(buckets).fill(-1);
  const touched = new Int32Array(buckets);
  const useful = choices.filter((c) => c.right.includes(true) && c.right.includes(false)).map(flat);
  const order = useful.map((_, i) => i);
  let seed = 7,
    turn = 0;
  const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
  for (let round = 0; round < rounds; round++) {
    shuffle(order, random);
    for (const index of order) {
      const { at, values: own, kinds, ends, right } = useful[index]!;
      const heard = [1, random() < unheard ? 0 : 1, random() < unheard ? 0 : 1];
      const values = heard[lexical] && heard[labels] ? own : own.map((v, k) => v * heard[kinds[k]!]!);
      const powers = new Float64Array(ends.length);
      for (let i = 0, k = 0; i < ends.length; i++) {
        let sum = 0;
        for (; k < ends[i]!; k++) sum += weights[at[k]!]! * values[k]!;
        powers[i] = sum;
      }
      const top = powers.reduce((a, b) => Math.max(a, b));
      let all = 0,
        good = 1e-30;
      for (let i = 0; i < powers.length; i++) {
        powers[i] = Math.exp(powers[i]! - top);
        all += powers[i]!;
        if (right[i]) good += powers[i]!;
      }
      let n = 0;
      turn++;
      for (let i = 0, k = 0; i < ends.length; i++) {
        const d = powers[i]! / all - (right[i] ? powers[i]! / good : 0);
        if (Math.abs(d) < 1e-5) {
          k = ends[i]!;
          continue;
        }
        for (; k < ends[i]!; k++) {
          const bucket = at[k]!;
          if (stamp[bucket] !== turn) {
            stamp[bucket] = turn;
            slope[bucket] = 0;
            touched[n++] = bucket;
          }
          slope[bucket]! += d * values[k]!;
        }
      }
      for (let i = 0; i < n; i++) {
        const bucket = touched[i]!,
          g = slope[bucket]! + penalty * weights[bucket]!;
        squares[bucket]! += g * g;
        weights[bucket]! -= (rate * g) / Math.sqrt(squares[bucket]!);
      }
    }
  }
  return weights;
}

/** Something to be told apart, and what it is. */
export interface Example {
  features: Features;
  tag: number;
}

/** Weights of each tag under which the right ones are likely (multinomial logit with a penalty on large weights), by Adagrad. */
export function learnTags(
  examples: readonly Example[],
  tags: number,
  { penalty = 0.0003, rounds = 12, rate = 0.15, unheard = unheardOf } = {},
): Float32Array[] {
  const weights = Array.from({ length: tags }, () => new Float32Array(buckets)),
    squares = Array.from({ length: tags }, () => new Float32Array(buckets).fill(0.05));
  const order = examples.map((_, i) => i);
  const flats = examples.map(({ features, tag }) => {
    const all = [...features.each()];
    return {
      at: Int32Array.from(all, (one) => one.at),
      values: Float32Array.from(all, (one) => one.value),
      kinds: Uint8Array.from(all, (one) => kindOf(one.name)),
      tag,
    };
  });
  let seed = 11;
  const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
  const scores = new Float64Array(tags);
  for (let round = 0; round < rounds; round++) {
    shuffle(order, random);
    for (const index of order) {
      const { at, values: own, kinds, tag } = flats[index]!;
      const heard = [1, random() < unheard ? 0 : 1, random() < unheard ? 0 : 1];
      const values = heard[lexical] && heard[labels] ? own : own.map((v, k) => v * heard[kinds[k]!]!);
      for (let t = 0; t < tags; t++) {
        let sum = 0;
        const w = weights[t]!;
        for (let k = 0; k < at.length; k++) sum += w[at[k]!]! * values[k]!;
        scores[t] = sum;
      }
      misses(scores, tag);
      for (let t = 0; t < tags; t++) {
        const d = scores[t]!;
        if (Math.abs(d) < 1e-4) continue;
        const [w, q] = [weights[t]!, squares[t]!];
        for (let k = 0; k < at.length; k++) {
          const bucket = at[k]!,
            g = d * values[k]! + penalty * w[bucket]!;
          q[bucket]! += g * g;
          w[bucket]! -= (rate * g) / Math.sqrt(q[bucket]!);
        }
      }
    }
  }
  return weights;
}
