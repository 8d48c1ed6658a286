/** A small network over numbers: weights of hidden units, then of tags; the constant is the last of each. */
export interface Dense {
  hidden: readonly (readonly number[])[];
  out: readonly (readonly number[])[];
}

/** So many units are added up side by side: their sums then stay in registers. */
const block = 8;

/** Weights of a layer, a block of units after the other: in each those of the first number, then of the second, then the constants. */
interface Layer {
  numbers: number;
  weights: Float64Array;
}

function layerOf(units: readonly (readonly number[])[]): Layer {
  const numbers = (units[0]?.length ?? 1) - 1,
    blocks = Math.ceil(units.length / block);
  const weights = new Float64Array(blocks * block * (numbers + 1));
  for (const [u, unit] of units.entries())
    for (let i = 0; i <= numbers; i++) weights[(Math.floor(u / block) * (numbers + 1) + i) * block + (u % block)] = unit[i]!;
  return { numbers, weights };
}
const roomFor = (units: number): Float64Array => new Float64Array(Math.ceil(units / block) * block);

interface Layers {
  hidden: Layer;
  out: Layer;
  /** Room for what the hidden units say. */ said: Float64Array;
  /** Room for what the tags score. */ scores: Float64Array;
}
const packed = new WeakMap<Dense, Layers>();

/** The layers of a network. Units that learned nothing say nothing, and are left out. */
function layersOf(model: Dense): Layers {
  let found = packed.get(model);
  if (!found) {
    const telling = model.hidden.flatMap((unit, h) => (unit.some((weight) => weight !== 0) ? [h] : []));
    const hidden = layerOf(telling.map((h) => model.hidden[h]!)),
      out = layerOf(model.out.map((weights) => [...telling.map((h) => weights[h]!), weights.at(-1)!]));
    packed.set(model, (found = { hidden, out, said: roomFor(telling.length), scores: roomFor(model.out.length) }));
  }
  return found;
}

/** What each unit of a layer makes of numbers, of which many are nothing. */
function weigh({ numbers: n, weights: w }: Layer, numbers: ArrayLike<number>, into: Float64Array): void {
  for (let u = 0, at = 0; u < into.length; u += block, at += block) {
    const c = at + n * block;
    let s0 = w[c]!,
      s1 = w[c + 1]!,
      s2 = w[c + 2]!,
      s3 = w[c + 3]!,
      s4 = w[c + 4]!,
      s5 = w[c + 5]!,
      s6 = w[c + 6]!,
      s7 = w[c + 7]!;
    for (let i = 0; i < n; i++, at += block) {
      const x = numbers[i]!;
      if (x === 0) continue;
      s0 += w[at]! * x;
      s1 += w[at + 1]! * x;
      s2 += w[at + 2]! * x;
      s3 += w[at + 3]! * x;
      s4 += w[at + 4]! * x;
      s5 += w[at + 5]! * x;
      s6 += w[at + 6]! * x;
      s7 += w[at + 7]! * x;
    }
    into[u] = s0;
    into[u + 1] = s1;
    into[u + 2] = s2;
    into[u + 3] = s3;
    into[u + 4] = s4;
    into[u + 5] = s5;
    into[u + 6] = s6;
    into[u + 7] = s7;
  }
}

/** Natural logarithms of the shares of certainty of each tag. */
export function denseShares(model: Dense, numbers: ArrayLike<number>): number[] {
  const { hidden, out, said, scores } = layersOf(model);
  weigh(hidden, numbers, said);
  // A hidden unit says nothing below zero.
  for (let u = 0; u < said.length; u++) if (said[u]! < 0) said[u] = 0;
  weigh(out, said, scores);
  return logSharesOf(scores, model.out.length);
}

/** Natural logarithms of the shares of certainty that follow from the first so many scores. */
export function logSharesOf(scores: ArrayLike<number>, many: number): number[] {
  let top = -Infinity,
    powers = 0;
  for (let t = 0; t < many; t++) if (scores[t]! > top) top = scores[t]!;
  for (let t = 0; t < many; t++) powers += Math.exp(scores[t]! - top);
  const all = top + Math.log(powers);
  const logs: number[] = [];
  for (let t = 0; t < many; t++) logs.push(scores[t]! - all);
  return logs;
}
