import { scoreOf, type Model } from '../../core/reading/learned/model.ts';
import { denseShares } from '../../core/reading/learned/dense.ts';
import type { Features } from '../../core/reading/learned/features.ts';
import { itemContext, rowContext } from '../../core/reading/rows/context.ts';
import { itemFeatures } from '../../core/reading/rows/itemfeatures.ts';
import type { LogShares } from '../../core/reading/rows/models.ts';
import { countsWhole } from '../../core/reading/rows/rowfeatures.ts';
import { itemTags, rowTags } from '../../core/reading/rows/tags.ts';
import { learnDense, type DenseExample } from './optimise.ts';
import { linesTold, type Told } from './rows.ts';

/** What is said of each row or item of a document by models that were not learned from its family. */
export type LeftOut<Tag extends string> = LogShares<Tag>[][];

export function logShares<Tag extends string>(tags: readonly Tag[], models: readonly Model[], features: Features): LogShares<Tag> {
  const scores = models.map((m) => scoreOf(m, features));
  const top = Math.max(...scores);
  const sum = top + Math.log(scores.reduce((a, s) => a + Math.exp(s - top), 0));
  return Object.fromEntries(tags.map((tag, i) => [tag, scores[i]! - sum])) as LogShares<Tag>;
}

/** By document: its rows among those round them, with what each is. */
const rowExamples = (told: readonly Told[], logs: LeftOut<(typeof rowTags)[number]>): DenseExample[][] =>
  told.map((t, d) =>
    rowContext(t.rows, logs[d]!, countsWhole(t.rows)).map((numbers, i) => ({ numbers, tag: rowTags.indexOf(t.tags[i]!) })),
  );

/** By document: its figures, or its words, among those beside, above and below them, with what each is. */
const itemExamples = (told: readonly Told[], logs: LeftOut<(typeof itemTags)[number]>, figures: boolean): DenseExample[][] =>
  told.map((t, d) => {
    const seen = itemFeatures(t.layout, t.rows, linesTold(t));
    return itemContext(seen, logs[d]!).flatMap((numbers, i) =>
      (seen[i]!.item.figure !== null) === figures
        ? [{ numbers, tag: itemTags.indexOf(t.lines[seen[i]!.line]!.items.get(seen[i]!.item) ?? 'other') }]
        : [],
    );
  });

/** Weights of what a row, a figure and a word is among others, and how sure what was said of items of families that were left out was. */
export function learnContext(
  told: readonly Told[],
  fold: (t: Told) => number,
  rows: LeftOut<(typeof rowTags)[number]>,
  items: LeftOut<(typeof itemTags)[number]>,
): { context: Record<'row' | 'figure' | 'word', number[][]>; judged: { share: number; right: boolean }[] } {
  const judged: { share: number; right: boolean }[] = [];
  const learned = (name: string, examples: DenseExample[][], tags: number, count: boolean): number[][] => {
    let right = 0,
      all = 0;
    for (const k of new Set(told.map(fold))) {
      const model = learnDense(
        examples.flatMap((e, i) => (fold(told[i]!) === k ? [] : e)),
        tags,
      );
      for (const { numbers, tag } of examples.flatMap((e, i) => (fold(told[i]!) === k ? e : []))) {
        const logs = denseShares(model, numbers);
        const best = logs.indexOf(Math.max(...logs));
        all++;
        if (best === tag) right++;
        if (count && best !== 0) judged.push({ share: Math.exp(logs[best]!), right: best === tag });
      }
    }
    console.log(`${name.padEnd(14)} ${right} of ${all} (${((100 * right) / all).toFixed(1)}%) among others`);
    return learnDense(examples.flat(), tags);
  };
  return {
    context: {
      row: learned('rows', rowExamples(told, rows), rowTags.length, false),
      figure: learned('figures', itemExamples(told, items, true), itemTags.length, true),
      word: learned('words', itemExamples(told, items, false), itemTags.length, true),
    },
    judged,
  };
}
