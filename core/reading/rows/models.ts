import type { Features } from '../learned/features.ts';
import { panelOf, scoresOf, type Model } from '../learned/model.ts';
import { itemTags, rowTags, type ItemTag, type RowTag } from './tags.ts';
import { learned } from '../learned/weights.ts';
import { totalTags, type TotalTag } from '../totals/tags.ts';
import { stepped } from '../calibration.ts';
import { denseShares, logSharesOf, type Dense } from '../learned/dense.ts';
import { itemContext, rowContext } from './context.ts';
import type { SeenItem } from './itemfeatures.ts';
import type { PrintedRow } from './printed.ts';

/** Natural logarithms of the shares of certainty of tags. */
export type LogShares<Tag extends string> = Record<Tag, number>;

/** What models of tags say of something that is seen. */
export function logShares<Tag extends string>(tags: readonly Tag[], of: readonly Model[], features: Features): LogShares<Tag> {
  return named(tags, logSharesOf(scoresOf(panelOf(of), features), tags.length));
}

function named<Tag extends string>(tags: readonly Tag[], logs: readonly number[]): LogShares<Tag> {
  const shares = {} as LogShares<Tag>;
  for (let i = 0; i < tags.length; i++) shares[tags[i]!] = logs[i]!;
  return shares;
}
const again = <Tag extends string>(tags: readonly Tag[], model: Dense, numbers: ArrayLike<number>) =>
  named(tags, denseShares(model, numbers));

/** How sure it is what each printed row of a document is: by itself, then among those round it and like it. */
export const rowsInContext = (rows: readonly PrintedRow[], features: readonly Features[], whole: boolean): LogShares<RowTag>[] =>
  rowContext(rows, features.map(rowShares), whole).map((x) => again(rowTags, learned().context.row, x));

/** How sure it is what each figure and word of a document's lines is: by itself, then among those beside, above and below it. */
export const itemsInContext = (seen: readonly SeenItem[]): LogShares<ItemTag>[] =>
  itemContext(
    seen,
    seen.map((s) => itemShares(s.features)),
  ).map((x, i) => again(itemTags, seen[i]!.item.figure ? learned().context.figure : learned().context.word, x));

/** How sure it is what a printed row is. */
export const rowShares = (features: Features): LogShares<RowTag> => logShares(rowTags, learned().row, features);
/** How sure it is what a figure or word of a line's rows is. */
export const itemShares = (features: Features): LogShares<ItemTag> => logShares(itemTags, learned().item, features);
/** How many of the items that were told with a share like this were right. */
export const itemMeasured = (share: number): number => stepped(learned().itemRight, share);
/** How sure it is what a figure beside the lines is. */
export const totalShares = (features: Features): LogShares<TotalTag> => logShares(totalTags, learned().total, features);
