import { denseShares, type Dense } from '../../core/reading/learned/dense.ts';
import type { Learned } from '../../core/reading/learned/weights.ts';
import { itemContext, rowContext } from '../../core/reading/rows/context.ts';
import { itemFeatures } from '../../core/reading/rows/itemfeatures.ts';
import type { LogShares } from '../../core/reading/rows/models.ts';
import { countsWhole } from '../../core/reading/rows/rowfeatures.ts';
import { itemTags, rowTags } from '../../core/reading/rows/tags.ts';
import { learnDense, type DenseExample } from './network.ts';
import type { Judged } from './models.ts';
import { linesTold, type Told } from './rows.ts';

/** What is said of each row or item of a document by models that were not learned from its family. */
export type LeftOut<Tag extends string> = LogShares<Tag>[][];

/** What stands among others in documents that somebody made to be read counts more than in those that a program drew: it is more regular there. */
const weightOf = ({ sample }: Told): number => (sample.drawn ? 0.1 : 1);

/** By document: its rows among those round them, with what each is. */
const rowExamples = (told: readonly Told[], logs: LeftOut<(typeof rowTags)[number]>): DenseExample[][] =>
  told.map((t, d) =>
    rowContext(t.rows, logs[d]!, countsWhole(t.rows)).map((numbers, i) => ({
      numbers,
      tag: rowTags.indexOf(t.tags[i]!),
      weight: weightOf(t),
    })),
  );

/** By document: its figures, or its words, among those beside, above and below them, with what each is. */
const itemExamples = (told: readonly Told[], logs: LeftOut<(typeof itemTags)[number]>, figures: boolean): DenseExample[][] =>
  told.map((t, d) => {
    const seen = itemFeatures(t.layout, t.rows, linesTold(t));
    return itemContext(seen, logs[d]!).flatMap((numbers, i) =>
      (seen[i]!.item.figure !== null) === figures
        ? [{ numbers, tag: itemTags.indexOf(t.lines[seen[i]!.line]!.items.get(seen[i]!.item) ?? 'other'), weight: weightOf(t) }]
        : [],
    );
  });

/** What is learned of things among others: from all documents, without each part of the families, and how sure what was said of items was. */
export interface ContextLearned {
  all: Learned['context'];
  without: Map<number, Learned['context']>;
  judged: Judged[];
}

export function learnContext(
  told: readonly Told[],
  fold: (t: Told) => number,
  rows: LeftOut<(typeof rowTags)[number]>,
  items: LeftOut<(typeof itemTags)[number]>,
): ContextLearned {
  const judged: Judged[] = [];
  const folds = [...new Set(told.map(fold))];
  const learned = (name: string, examples: DenseExample[][], tags: number, count: boolean): { all: Dense; without: Map<number, Dense> } => {
    let right = 0,
      all = 0;
    const without = new Map<number, Dense>();
    for (const k of folds) {
      const model = learnDense(
        examples.flatMap((e, i) => (fold(told[i]!) === k ? [] : e)),
        tags,
      );
      without.set(k, model);
      for (const { numbers, tag } of examples.flatMap((e, i) => (fold(told[i]!) === k ? e : []))) {
        const logs = denseShares(model, numbers);
        const best = logs.indexOf(Math.max(...logs));
        all++;
        if (best === tag) right++;
        if (count && best !== 0) judged.push({ share: Math.exp(logs[best]!), right: best === tag });
      }
    }
    console.log(`${name.padEnd(14)} ${right} of ${all} (${((100 * right) / all).toFixed(1)}%) among others`);
    return { all: learnDense(examples.flat(), tags), without };
  };
  const row = learned('rows', rowExamples(told, rows), rowTags.length, false),
    figure = learned('figures', itemExamples(told, items, true), itemTags.length, true),
    word = learned('words', itemExamples(told, items, false), itemTags.length, true);
  return {
    all: { row: row.all, figure: figure.all, word: word.all },
    without: new Map(folds.map((k) => [k, { row: row.without.get(k)!, figure: figure.without.get(k)!, word: word.without.get(k)! }])),
    judged,
  };
}
