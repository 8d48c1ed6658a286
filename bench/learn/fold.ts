// One process of learning: all models without the families of each of its folds (fold -1: from all).
import { ranked } from '../../core/reading/head/index.ts';
import { itemTags, rowTags, type ItemTag, type RowTag } from '../../core/reading/rows/tags.ts';
import { totalTags, type TotalTag } from '../../core/reading/totals/tags.ts';
import { logShares, type LogShares } from '../../core/reading/rows/models.ts';
import { roles, type Role } from './head.ts';
import { learnAlone, materialOf, type Alone, type Judged } from './models.ts';
import { foldOf, gather, type Wanted } from './gather.ts';

/** What models say of documents that they were not learned from. */
export interface FoldLearned {
  fold: number;
  models: Alone;
  head: Record<Role, Judged[]>;
  /** By place among the documents whose lines are found. */ said: {
    at: number;
    rows: LogShares<RowTag>[];
    items: LogShares<ItemTag>[];
    totals: LogShares<TotalTag>[];
  }[];
}

/** Which parts a process learns. */
export interface FoldsWanted {
  wanted: Wanted;
  folds: number[];
}

process.once('message', ({ wanted, folds }: FoldsWanted) => void learnFolds(wanted, folds).then(() => process.disconnect()));

async function learnFolds(wanted: Wanted, folds: number[]): Promise<void> {
  const samples = await gather(wanted);
  const material = materialOf(samples);
  for (const fold of folds) {
    const out = new Set(samples.map((s) => s.family).filter((family) => foldOf(family, wanted.folds) === fold));
    const models = learnAlone(material, out);
    const judge = (role: Role): Judged[] =>
      material.tasks[role]
        .filter((t) => out.has(t.family))
        .flatMap((t) => {
          const [top] = ranked(models.head[role], t.choice.features, t.values);
          return top ? [{ share: top.share, right: t.choice.right.some((r, i) => r && t.values[i] === top.value) }] : [];
        });
    const said = material.told.flatMap((t, i) =>
      out.has(t.sample.family)
        ? [
            {
              at: i,
              rows: material.rows[i]!.map((e) => logShares(rowTags, models.row, e.features)),
              items: material.items[i]!.map((e) => logShares(itemTags, models.item, e.features)),
              totals: material.totals[i]!.map((e) => logShares(totalTags, models.total, e.features)),
            },
          ]
        : [],
    );
    const head = Object.fromEntries(roles.map((role) => [role, judge(role)])) as Record<Role, Judged[]>;
    await new Promise((sent) => process.send!({ fold, models, head, said } satisfies FoldLearned, sent));
  }
}
