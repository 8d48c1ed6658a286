import type { Dense } from '../../core/reading/learned/dense.ts';
import { misses, shuffle } from './optimise.ts';

/** What was seen in numbers, and what it is. */
export interface DenseExample {
  numbers: ArrayLike<number>;
  tag: number;
  /** How much it counts; 1 where nothing is said. */ weight?: number;
}

/** Weights with their running means of slopes and of squared slopes (Adam). */
class Steps {
  private readonly mean: Float64Array;
  private readonly square: Float64Array;
  readonly slope: Float64Array;

  constructor(readonly weights: Float64Array) {
    [this.mean, this.square, this.slope] = [
      new Float64Array(weights.length),
      new Float64Array(weights.length),
      new Float64Array(weights.length),
    ];
  }

  /** One step against the slope, after the `turn`-th batch. */
  take(rate: number, penalty: number, turn: number): void {
    const [a, b] = [1 - 0.9 ** turn, 1 - 0.999 ** turn];
    for (let i = 0; i < this.weights.length; i++) {
      const g = this.slope[i]!;
      this.slope[i] = 0;
      this.mean[i] = 0.9 * this.mean[i]! + 0.1 * g;
      this.square[i] = 0.999 * this.square[i]! + 0.001 * g * g;
      this.weights[i]! -= rate * (this.mean[i]! / a / (Math.sqrt(this.square[i]! / b) + 1e-8) + penalty * this.weights[i]!);
    }
  }
}

/** A small network over numbers under which the right tags are likely: one hidden layer, by Adam over small batches, the rate falling to nothing. */
export function learnDense(
  examples: readonly DenseExample[],
  tags: number,
  { units = 24, rounds = 6, rate = 0.004, penalty = 0.4, batch = 32 } = {},
): Dense {
  const width = examples[0]!.numbers.length,
    row = width + 1,
    outRow = units + 1;
  let seed = 13;
  const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
  const some = (n: number, spread: number) => Float64Array.from({ length: n }, () => (random() * 2 - 1) * spread);
  const hidden = new Steps(some(units * row, Math.sqrt(3 / row))),
    out = new Steps(some(tags * outRow, Math.sqrt(3 / outRow)));
  const order = examples.map((_, i) => i);
  const said = new Float64Array(units),
    back = new Float64Array(units),
    scores = new Float64Array(tags);
  const turns = Math.ceil(examples.length / batch) * rounds;
  let turn = 0;
  for (let round = 0; round < rounds; round++) {
    shuffle(order, random);
    for (const [at, index] of order.entries()) {
      const { numbers, tag, weight = 1 } = examples[index]!;
      for (let h = 0; h < units; h++) {
        let sum = hidden.weights[h * row + width]!;
        for (let k = 0; k < width; k++) sum += hidden.weights[h * row + k]! * numbers[k]!;
        said[h] = sum > 0 ? sum : 0;
      }
      for (let t = 0; t < tags; t++) {
        let sum = out.weights[t * outRow + units]!;
        for (let h = 0; h < units; h++) sum += out.weights[t * outRow + h]! * said[h]!;
        scores[t] = sum;
      }
      misses(scores, tag);
      back.fill(0);
      for (let t = 0; t < tags; t++) {
        const d = (weight * scores[t]!) / batch;
        for (let h = 0; h < units; h++) {
          out.slope[t * outRow + h]! += d * said[h]!;
          back[h]! += d * out.weights[t * outRow + h]!;
        }
        out.slope[t * outRow + units]! += d;
      }
      for (let h = 0; h < units; h++) {
        if (said[h] === 0) continue;
        const d = back[h]!;
        for (let k = 0; k < width; k++) hidden.slope[h * row + k]! += d * numbers[k]!;
        hidden.slope[h * row + width]! += d;
      }
      if ((at + 1) % batch !== 0 && at + 1 < order.length) continue;
      turn++;
      const falling = rate * (1 - turn / (turns + 1));
      hidden.take(falling, penalty, turn);
      out.take(falling, penalty, turn);
    }
  }
  const rows = (weights: Float64Array, length: number) =>
    Array.from({ length: weights.length / length }, (_, i) =>
      Array.from(weights.subarray(i * length, (i + 1) * length), (x) => Number(x.toFixed(3))),
    );
  return { hidden: rows(hidden.weights, row), out: rows(out.weights, outRow) };
}
