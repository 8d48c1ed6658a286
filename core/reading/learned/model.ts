import { buckets, Features, type Panel, type Sign } from './features.ts';

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

/** Weights of several models side by side, so that a sign is looked up once for all of them. */
class Models implements Panel {
  readonly width: number;

  constructor(
    readonly number: number,
    private readonly models: readonly Model[],
  ) {
    this.width = models.length;
  }

  hear(sign: Sign): Float64Array {
    const { at, strengths, said } = sign;
    const own = Float64Array.from(this.models, ({ step, weights }) => {
      let sum = 0;
      for (let k = 0; k < at.length; k++) sum += weights[at[k]!]! * strengths[k]!;
      return sum * step;
    });
    // Without holes an array is quick.
    while (said.length < this.number) said.push(undefined as unknown as Float64Array);
    said[this.number] = own;
    return own;
  }
}

const panels = new WeakMap<readonly Model[], Panel>();
let count = 0;
/** The panel of models that are asked together; made once for a list. */
export function panelOf(models: readonly Model[]): Panel {
  let panel = panels.get(models);
  if (!panel) panels.set(models, (panel = new Models(count++, models)));
  return panel;
}

/** How much all that is seen speaks for what each model of a panel stands for. */
export function scoresOf(panel: Panel, features: Features): Float64Array {
  if (features.sums && features.panel === panel) return features.sums;
  const all = new Features(panel);
  all.take(features);
  return all.sums!;
}

const alone = new WeakMap<Model, readonly Model[]>();
/** How much all that is seen speaks for what one model stands for. */
export function scoreOf(model: Model, features: Features): number {
  let list = alone.get(model);
  if (!list) alone.set(model, (list = [model]));
  const panel = panelOf(list),
    { signs, values } = features;
  if (features.sums) return scoresOf(panel, features)[0]!;
  let sum = 0;
  for (let i = 0; i < signs.length; i++) sum += (signs[i]!.said[panel.number] ?? panel.hear(signs[i]!))[0]! * values[i]!;
  return sum;
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
